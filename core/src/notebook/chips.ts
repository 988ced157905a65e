import { FILLER, type Clause } from './clauses.js';
import type { ReadText } from './words.js';

/** What a stretch of a line was taken for. */
export type ChipRole =
  'place' | 'described' | 'sight' | 'not there' | 'sound' | 'told' | 'reading' | 'grade' | 'reliability' | 'not understood';

/** A stretch of the line as it was typed, and what it was taken for. */
export interface LineChip {
  readonly from: number;
  readonly to: number;
  readonly role: ChipRole;
  readonly says: string;
}

/** What every word of a line was taken for. */
export class WordRoles {
  readonly role: Array<ChipRole | null>;
  private readonly says: string[];

  constructor(private readonly text: ReadText) {
    this.role = text.words.map(() => null);
    this.says = text.words.map(() => '');
  }

  /** Marks a range of words; a word keeps what it was taken for first, but that a place may turn out to be part of a sight. */
  mark(from: number, to: number, role: ChipRole, says: string): void {
    for (let i = from; i < to; i++) {
      if (this.role[i] !== null && this.role[i] !== 'place') continue;
      this.role[i] = role;
      this.says[i] = says;
    }
  }

  /** Are all words of a range those of a place? */
  isPlace(from: number, to: number): boolean {
    return this.role.slice(from, to).every((r) => r === 'place');
  }

  /** Marks what is left and carries meaning as not understood, and gives the stretches of the line as it was typed. */
  chips(): LineChip[] {
    this.text.words.forEach((w, i) => {
      if (this.role[i] === null && !FILLER.test(w.text) && /\p{L}/u.test(w.text)) this.mark(i, i + 1, 'not understood', '');
    });
    return chipsOf(this.text, this.role, this.says);
  }
}

/** Clauses that carry something, and those of them of which nothing was understood. */
export function tally(
  text: ReadText,
  clauses: readonly Clause[],
  role: ReadonlyArray<ChipRole | null>,
  notExamined: boolean,
  colon: number,
): { count: number; left: Array<{ from: number; to: number }> } {
  let count = 0;
  const left: Array<{ from: number; to: number }> = [];
  for (const c of clauses) {
    const words = text.words.slice(c.from, c.to);
    // What stands before a colon says what the line is about; it is understood with what follows.
    if (c.to <= colon || words.every((w, i) => role[c.from + i] === 'place' || FILLER.test(w.text))) continue;
    count++;
    const said = role.slice(c.from, c.to);
    if (!notExamined && !said.some((r) => r !== null && r !== 'place' && r !== 'not understood'))
      left.push({ from: words[0]!.from, to: words[words.length - 1]!.to });
  }
  return { count, left };
}

function chipsOf(text: ReadText, role: ReadonlyArray<ChipRole | null>, says: readonly string[]): LineChip[] {
  const chips: LineChip[] = [];
  let open = -1;
  text.words.forEach((w, i) => {
    const r = role[i];
    if (!r) {
      open = -1;
      return;
    }
    const last = chips[open];
    if (last && last.role === r && last.says === says[i]) chips[open] = { ...last, to: w.to };
    else open = chips.push({ from: w.from, to: w.to, role: r, says: says[i]! }) - 1;
  });
  return chips;
}
