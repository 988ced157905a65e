import { figure, nullable, object, oneOf, sha256, text, whole } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

/** Kinds of sound and film that are taken, as the file's own bytes say. */
export const CLIP_MIMES = [
  'audio/webm',
  'audio/ogg',
  'audio/mpeg',
  'audio/mp4',
  'audio/wav',
  'video/webm',
  'video/mp4',
  'video/quicktime',
] as const;

export const clipAdded = defineEntry({
  kind: 'clip-added',
  name: 'Clip',
  says: 'A sound or film was filed; its bytes are kept by their SHA-256.',
  body: object({
    sha256,
    name: text(200),
    mime: oneOf(CLIP_MIMES),
    bytes: whole(1, Number.MAX_SAFE_INTEGER),
    seconds: nullable(figure(0, 36_000)),
    takenAt: nullable(text(40)),
  }),
  stands: 'either',
  slot: (b) => `clip:${b.sha256}`,
  tell: (b) => `${b.name}${b.seconds === null ? '' : `, ${b.seconds.toFixed(0)} s`}`,
  ofCase: (all) => ({ clips: all }),
  ofStation: (all) => ({ clips: all }),
});
