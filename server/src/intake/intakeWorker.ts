import type { Outcome, Refusal } from '@true-ledger/contract';
import '../platform.js';
import { ok } from '@true-ledger/core/kit';
import type { EntryBodies } from '@true-ledger/core/entries';
import {
  acceptEntries,
  fileOf,
  readableVersion,
  readBundle,
  stampVerdict,
  type SealVerdict,
  type StampCheck,
  type StampVerdict,
} from '@true-ledger/core/bundle';
import { createWriteStream } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { once } from 'node:events';
import { clipMime } from '../clips/clipMime.js';
import { ProblemError } from '../http/problem.js';
import { readPicture, type StoredPicture } from '../photos/readPicture.js';
import { answerTasks } from '../threads/taskThread.js';
import { OpenZip } from './openZip.js';

/** Bytes of strangers, looked at in a process of its own. */
export type IntakeTask =
  | { readonly kind: 'picture'; readonly bytes: Uint8Array }
  | { readonly kind: 'clip'; readonly bytes: Uint8Array; readonly said: string }
  /** `out`: an empty folder of its own, for what the bundle holds once it is checked. */
  | { readonly kind: 'bundle'; readonly path: string; readonly out: string }
  /** The answer of a time-stamp authority for some bytes. */
  | { readonly kind: 'stamp'; readonly reply: Uint8Array; readonly bytes: Uint8Array; readonly check: StampCheck };

/** A bundle that holds; its lines lie in `entries.jsonl` of the folder, its files beside it by SHA-256, a picture's renditions as `.work` and `.thumb`. */
/** A picture of a bundle; its bytes and renditions lie beside the answer, under its hash. */
export type PictureInBundle = Omit<StoredPicture, 'work' | 'thumb'> & { readonly sha256: string };

export interface AcceptedBundle {
  readonly caseId: string;
  readonly number: string;
  readonly head: string;
  readonly seal: SealVerdict;
  /** What tells whether two ledgers are one, a line each. */
  readonly lines: ReadonlyArray<{ readonly id: string; readonly hash: string }>;
  readonly pictures: ReadonlyArray<PictureInBundle>;
}

export type IntakeAnswer =
  | { readonly kind: 'picture'; readonly picture: StoredPicture }
  | { readonly kind: 'clip'; readonly mime: string }
  | { readonly kind: 'bundle'; readonly bundle: AcceptedBundle }
  | { readonly kind: 'stamp'; readonly verdict: StampVerdict };

const TEXTS: ReadonlySet<string> = new Set(['ledger.jsonl', 'case.json', 'measurements.csv', 'findings.csv', 'seal.json']);

async function take(task: IntakeTask): Promise<Outcome<IntakeAnswer>> {
  try {
    switch (task.kind) {
      case 'picture':
        return ok({ kind: 'picture', picture: await readPicture(Buffer.from(task.bytes)) });
      case 'clip':
        return ok({ kind: 'clip', mime: await clipMime(Buffer.from(task.bytes), task.said) });
      case 'bundle':
        return ok({ kind: 'bundle', bundle: await acceptBundle(task.path, task.out) });
      case 'stamp':
        return ok({ kind: 'stamp', verdict: await stampVerdict(task.reply, task.bytes, task.check) });
    }
  } catch (error) {
    if (error instanceof ProblemError) return { ok: false, problem: error.body as Refusal };
    throw error;
  }
}

const refused = (why: string): ProblemError =>
  new ProblemError({ code: 'bundle-refused', sentence: `The bundle was refused: ${why}. Nothing was changed.` });

/** Checks everything a bundle holds and lays it out in a folder, ready to be stored. */
async function acceptBundle(path: string, out: string): Promise<AcceptedBundle> {
  const zip = await OpenZip.open(path);
  try {
    const texts = new Map<string, string>();
    const hashes = new Map<string, string | null>();
    for (const name of zip.names) {
      hashes.set(name, await zip.sha256(name));
      if (TEXTS.has(name)) texts.set(name, (await zip.read(name))!.toString('utf8'));
    }
    const version = readableVersion(texts.get('case.json') ?? null);
    if (!version.ok) throw ProblemError.of(version.problem);
    const { verdict, entries } = readBundle({
      names: zip.names,
      text: (name) => texts.get(name) ?? null,
      sha256: (name) => hashes.get(name) ?? null,
    });
    if (verdict.broken)
      throw new ProblemError({
        code: verdict.broken.newer ? 'bundle-newer' : 'bundle-broken',
        sentence: `The bundle was refused: ${verdict.broken.newer ? 'it comes from a newer version; bring this one up to date first. It stops' : 'it does not hold'} at entry ${verdict.broken.seq}${verdict.broken.id ? ` (${verdict.broken.id})` : ''}: ${verdict.broken.reason}. Nothing was changed.`,
      });
    const accepted = acceptEntries(entries);
    if (!accepted.ok) throw ProblemError.of(accepted.problem);
    if (!verdict.ok)
      throw new ProblemError({
        code: 'bundle-broken',
        sentence: `The bundle was refused: ${verdict.disagreements.join('; ')}. Nothing was changed.`,
      });
    await mkdir(out, { recursive: true });
    const pictures = new Map<string, PictureInBundle>();
    const done = new Set<string>();
    for (const entry of entries) {
      const file = fileOf(entry);
      if (!file || done.has(file.sha256)) continue;
      done.add(file.sha256);
      const bytes = (await zip.read(file.name))!;
      try {
        if (entry.kind === 'photo-added') {
          const { work, thumb, ...picture } = await readPicture(bytes);
          pictures.set(file.sha256, { sha256: file.sha256, ...picture });
          await writeFile(join(out, `${file.sha256}.work`), work);
          await writeFile(join(out, `${file.sha256}.thumb`), thumb);
        } else if (entry.kind === 'clip-added') await clipMime(bytes, (entry.body as EntryBodies['clip-added']).mime);
        else if (bytes.subarray(0, 5).toString('latin1') !== '%PDF-') throw new Error('not a PDF');
      } catch {
        throw refused(`the ${file.what} of entry ${entry.seq} is not a ${file.what} that is taken here`);
      }
      await writeFile(join(out, file.sha256), bytes);
    }
    const lines = createWriteStream(join(out, 'entries.jsonl'));
    for (const entry of entries) if (!lines.write(`${JSON.stringify(entry)}\n`)) await once(lines, 'drain');
    lines.end();
    await once(lines, 'finish');
    return {
      ...accepted.value,
      head: verdict.head,
      seal: verdict.seal,
      lines: entries.map(({ id, hash }) => ({ id, hash })),
      pictures: [...pictures.values()],
    };
  } finally {
    zip.close();
  }
}

answerTasks<IntakeTask, IntakeAnswer>(take, {
  code: 'intake',
  sentence: 'The file could not be read here. Nothing was stored; choose another.',
});
