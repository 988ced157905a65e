import { CLIP_MIMES } from '@true-ledger/core/entries';
import fileType from 'file-type';
import { ProblemError } from '../http/problem.js';

type ClipMime = (typeof CLIP_MIMES)[number];

/** What the browser calls the same container. */
const SAME: Readonly<Record<string, ClipMime>> = {
  'audio/x-m4a': 'audio/mp4',
  'audio/opus': 'audio/ogg',
  'audio/vnd.wave': 'audio/wav',
  'audio/x-wav': 'audio/wav',
  'application/ogg': 'audio/ogg',
};

/** Kind of a sound or film by its own bytes, whatever its name says. `said` decides only between sound and film of one container. Runs in the intake process only. */
export async function clipMime(bytes: Buffer, said: string): Promise<ClipMime> {
  const found = (await fileType.fromBuffer(bytes).catch(() => undefined))?.mime as string | undefined;
  const mime = found ? ((SAME[found] ?? found) as ClipMime) : undefined;
  if (!mime || !CLIP_MIMES.includes(mime))
    throw new ProblemError({
      code: 'not-a-clip',
      sentence: `The clip was not stored: ${bytes.length === 0 ? 'the file is empty' : 'it is not a sound or film of a kind taken here (WebM, MP4, MOV, Ogg, MP3, WAV)'}. Nothing else was lost. Record it again or choose the file.`,
      field: 'file',
    });
  const audio = mime.replace('video/', 'audio/') as ClipMime;
  return said.startsWith('audio/') && CLIP_MIMES.includes(audio) ? audio : mime;
}
