import type { CaseFacts, CountedCase } from '@true-ledger/core/across';

/** Cases as the database gives them, still text: so many are parsed where they are counted, away from the thread that answers. */
export interface CasesText {
  /** A list in JSON of id, number, title, figures and engine. */
  readonly rows: string;
  /** Engine records that became part of another. */
  readonly merged: ReadonlyArray<readonly [id: string, into: string]>;
}

interface CountedRow {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly facts: CaseFacts;
  readonly engineId: string | null;
}

/** The cases, each with the record its engine is now part of. */
export function countedCases({ rows, merged }: CasesText): CountedCase[] {
  const into = new Map(merged);
  const rootOf = (id: string): string => {
    const next = into.get(id);
    return next ? rootOf(next) : id;
  };
  return (JSON.parse(rows) as CountedRow[]).map(({ id, number, title, facts, engineId }) => ({
    id,
    number,
    title,
    engine: engineId && rootOf(engineId),
    facts,
  }));
}
