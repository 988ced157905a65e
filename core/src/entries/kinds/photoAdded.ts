import { flag, nullable, object, oneOf, optional, sha256, text, whole } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const photoAdded = defineEntry({
  kind: 'photo-added',
  name: 'Picture',
  says: 'A picture was filed; its bytes are kept by their SHA-256.',
  body: object({
    sha256,
    name: text(200),
    mime: oneOf(['image/jpeg', 'image/png', 'image/webp', 'image/heic']),
    bytes: whole(1, Number.MAX_SAFE_INTEGER),
    width: whole(1, Number.MAX_SAFE_INTEGER),
    height: whole(1, Number.MAX_SAFE_INTEGER),
    takenAt: nullable(text(40)),
    /** Rendered by the application, not taken of a part. */
    standIn: flag,
    /** Which shot of the list it is, when it was taken for one. */
    shot: optional(nullable(text(80))),
  }),
  stands: 'either',
  slot: (b) => `photo:${b.sha256}`,
  tell: (b) => `${b.name}, ${b.width} × ${b.height}`,
  ofCase: (all) => ({ photos: all }),
  ofStation: (all) => ({ photos: all }),
});
