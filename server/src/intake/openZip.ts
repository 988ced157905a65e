import { fileRefusal } from '@true-ledger/core/bundle';
import { createHash } from 'node:crypto';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { ProblemError } from '../http/problem.js';

const refused = (why: string): ProblemError =>
  new ProblemError({ code: 'bundle-refused', sentence: `The bundle was refused: ${why}. Nothing was changed.` });

const damaged = (): ProblemError =>
  new ProblemError({
    code: 'bundle-damaged',
    sentence: 'The bundle cannot be opened: the ZIP archive is damaged or is not one. Nothing was changed; ask for it again.',
  });

/** A bundle on disk, its table of contents checked before anything is unpacked. */
export class OpenZip {
  private constructor(
    private readonly zip: ZipFile,
    private readonly entries: ReadonlyMap<string, Entry>,
  ) {}

  static async open(path: string): Promise<OpenZip> {
    const zip = await yauzl
      .openPromise(path, { lazyEntries: true, autoClose: false, validateEntrySizes: true, strictFileNames: true })
      .catch(() => {
        throw damaged();
      });
    const entries = new Map<string, Entry>();
    let total = 0;
    try {
      for await (const entry of zip.eachEntry()) {
        total += entry.uncompressedSize;
        const why = fileRefusal(entry.fileName, entry.uncompressedSize, entries.size + 1, total);
        if (why) throw refused(why);
        if (entries.has(entry.fileName)) throw refused(`it holds "${entry.fileName}" twice`);
        if (entry.isEncrypted()) throw refused(`"${entry.fileName}" is locked with a password`);
        entries.set(entry.fileName, entry);
      }
    } catch (error) {
      zip.close();
      if (error instanceof ProblemError) throw error;
      // The reader itself refuses names that climb, with a message that names them.
      throw /fileName|relative path|absolute path/i.test(String(error)) ? refused('it holds a name that leads out of it') : damaged();
    }
    return new OpenZip(zip, entries);
  }

  get names(): readonly string[] {
    return [...this.entries.keys()];
  }

  /** Bytes of one file; the reader stops where the file grows beyond its declared size. */
  async read(name: string): Promise<Buffer | null> {
    const entry = this.entries.get(name);
    if (!entry) return null;
    try {
      const parts: Buffer[] = [];
      for await (const part of await this.zip.openReadStreamPromise(entry)) parts.push(part as Buffer);
      return Buffer.concat(parts);
    } catch {
      throw refused(`"${name}" does not unpack to what its table of contents says`);
    }
  }

  async sha256(name: string): Promise<string | null> {
    const bytes = await this.read(name);
    return bytes === null ? null : createHash('sha256').update(bytes).digest('hex');
  }

  close(): void {
    this.zip.close();
  }
}
