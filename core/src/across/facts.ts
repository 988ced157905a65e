import { confirmedCauses, provenCauses } from '../case/outcome.js';
import { standingGrade, type CaseView } from '../case/views.js';
import { cause } from '../cause/data/causes.js';
import { pattern } from '../damage/patterns.js';
import { diagnose } from '../diagnosis/diagnose.js';
import { engineTemplate } from '../engine/templates.js';
import type { EntryBodies } from '../entries/entries.js';
import type { PartClass } from '../engine/stations.js';

/** What is counted of a case across cases; kept beside it and made anew whenever it grows. */
export interface CaseFacts {
  /** Kind of engine: the template it was laid out from. */
  readonly family: string;
  readonly familyName: string;
  readonly confirmed: readonly string[];
  /** Proved since; null while nobody knows. */
  readonly proven: readonly string[] | null;
  /** What the program held most probable, with its share, whatever the builder decided. */
  readonly program: ReadonlyArray<readonly [cause: string, probability: number]>;
  readonly outcome: { readonly on: string; readonly outcome: string; readonly by: string } | null;
  readonly places: ReadonlyArray<readonly [station: string, part: PartClass, grade: number]>;
  readonly patterns: readonly string[];
  /** Parts kept for the shelf, and parts that were wanted; absent in figures of an earlier version. */
  readonly kept?: ReadonlyArray<{
    readonly station: string;
    readonly part: PartClass;
    readonly name: string;
    readonly size: string;
    readonly place: string;
  }>;
  readonly wanted?: ReadonlyArray<{
    readonly station: string;
    readonly part: PartClass;
    readonly what: string;
    readonly state: EntryBodies['part-wanted']['state'];
    readonly shelf: string | null;
  }>;
  /** Grades of the first and the second hand, and of the reader and the hand that confirmed. */
  readonly hands: ReadonlyArray<readonly [first: number, second: number]>;
  readonly reader: ReadonlyArray<readonly [proposed: number, confirmed: number]>;
  /** Money and days promised by the last quote, and what they came to; null where one of the two is missing. */
  readonly cost: readonly [promised: number, came: number] | null;
  readonly days: readonly [promised: number, took: number] | null;
  /** Day on which the engine was let go or, before that, its account was signed. */
  readonly givenBack: string | null;
  /** Everything said in it in words, for finding it again. */
  readonly words: string;
}

/** Less than this the program does not name. */
const NAMED = 0.02;
/** Most words kept of a case, characters. */
const MOST_WORDS = 60_000;

export function caseFacts(view: CaseView): CaseFacts {
  const graded = view.stations.flatMap((s) => {
    const grade = standingGrade(s);
    return grade === null ? [] : [{ s, grade }];
  });
  const last = view.outcomes.at(-1)?.value ?? null;
  const quote = view.quotes.at(-1)?.value;
  const came = (of: 'cost' | 'days'): readonly [number, number] | null => {
    const value = view.outcomes.findLast((o) => o.value[of] !== null)?.value[of];
    return quote && value !== undefined && value !== null ? [quote[of], value] : null;
  };
  return {
    family: view.layout.template,
    familyName: engineTemplate(view.layout.template)?.name ?? view.layout.template,
    confirmed: confirmedCauses(view),
    proven: provenCauses(view),
    program: diagnose(view)
      .causes.filter((c) => c.probability >= NAMED)
      .slice(0, 12)
      .map((c) => [c.id, Number(c.probability.toPrecision(4))] as const),
    outcome: last ? { on: last.on, outcome: last.outcome!, by: last.by } : null,
    places: graded.filter((g) => g.grade >= 2).map(({ s, grade }) => [s.station.id, s.station.part, grade] as const),
    patterns: [...new Set(view.stations.flatMap((s) => s.patterns.filter((p) => p.value.present).map((p) => p.value.pattern)))],
    kept: view.stations.flatMap(({ station, kept }) => {
      if (!kept?.value.kept) return [];
      const { name, size, place } = kept.value;
      return [{ station: station.id, part: station.part, name, size, place }];
    }),
    wanted: view.stations.flatMap(({ station, wanted }) => {
      if (!wanted) return [];
      const { what, state, shelf } = wanted.value;
      return [{ station: station.id, part: station.part, what, state, shelf }];
    }),
    hands: view.stations.flatMap((s) => (s.grade && s.secondOpinion ? [[s.grade.value.grade, s.secondOpinion.value.grade] as const] : [])),
    reader: view.stations.flatMap((s) => {
      const proposed = s.grade?.value.proposed;
      return proposed === null || proposed === undefined ? [] : [[proposed, s.grade!.value.grade] as const];
    }),
    cost: came('cost'),
    days: came('days'),
    givenBack: (view.released ?? view.signed.at(-1))?.version.time.slice(0, 10) ?? null,
    words: wordsOf(view).slice(0, MOST_WORDS),
  };
}

function wordsOf(view: CaseView): string {
  const said: string[] = [
    view.number,
    view.title,
    view.intake('reference'),
    view.intake('question'),
    view.intake('complaintWords'),
    engineTemplate(view.layout.template)?.name ?? '',
    ...view.history.map((h) => h.value.text),
    ...view.remarks.map((r) => r.value.text),
    ...view.buildMarks.map((m) => m.value.text),
    ...view.received.map((r) => r.value.text),
    ...view.questions.flatMap((q) => [q.value.text, q.value.answer ?? '']),
    ...view.decisions.flatMap((d) => [cause(d.value.cause)?.name ?? '', d.value.reason]),
    ...view.outcomes.map((o) => o.value.note),
    view.report('conclusion'),
    view.report('actions'),
  ];
  for (const s of view.stations) {
    const found = s.patterns.filter((p) => p.value.present).map((p) => pattern(p.value.pattern)?.name ?? '');
    const readings = s.readings.map((r) => (r.value as EntryBodies['reading-taken']).text);
    if (found.length > 0 || s.remarks.length > 0 || readings.length > 0 || (standingGrade(s) ?? 0) > 0)
      said.push(s.station.name, ...found, ...s.remarks.map((r) => r.value.text), ...readings);
  }
  return said.filter(Boolean).join('\n');
}
