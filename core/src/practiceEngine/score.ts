import { isExamined, namedPatterns, standingGrade, type CaseView } from '../case/views.js';
import { cause } from '../cause/data/causes.js';
import { feature } from '../cause/data/features.js';
import { STRENGTH } from '../cause/types.js';
import { pattern } from '../damage/patterns.js';
import { diagnose, type Diagnosis } from '../diagnosis/diagnose.js';
import { stationOf, RUNNING_PARTS } from '../engine/stations.js';
import type { PracticeScore } from '../entries/kinds/practiceScored.js';
import { STEP_MINUTES } from '../strip/laidBare.js';
import { gradeOfMarks, type HiddenEngine } from './hidden.js';
import { doneNow, lookOfFeature, lookStands, practiceLooks, READING_MINUTES, type PracticeLook } from './looks.js';

/** A cause an apprentice names, and how sure he is of it, percent. */
export interface NamedCause {
  readonly cause: string;
  readonly percent: number;
}

/** Nobody is surer than this, nor less sure of what he did not name: a score has bounds. */
const LEAST_CHANCE = 0.01;
const bounded = (p: number): number => Math.min(1 - LEAST_CHANCE, Math.max(LEAST_CHANCE, p));

/**
 * Sum over the causes that were named or are there (a mean would be thinned by naming many at nothing), of what was held of each: logarithmic, −ln of the chance that was given to what is so (Good 1952), and quadratic (Brier 1950). 0 is best. An
 * engine without a cause in which none was named scores by the chance left to none.
 */
function properScores(
  causes: ReadonlySet<string>,
  truth: ReadonlySet<string>,
  chance: (id: string) => number,
): { log: number; brier: number } {
  const each = [...causes].map((id) => {
    const held = truth.has(id) ? chance(id) : 1 - chance(id);
    return { log: -Math.log(bounded(held)), brier: (1 - held) ** 2 };
  });
  return { log: each.reduce((s, e) => s + e.log, 0), brier: each.reduce((s, e) => s + e.brier, 0) };
}

/** Minutes a case has taken so far: looks, steps of the strip (those done once, though they were opened again), readings. */
export function minutesSpent(view: CaseView, everDone: ReadonlySet<string> = doneNow(view)): number {
  const steps = everDone.size;
  const readings = view.stations.reduce((n, s) => n + s.readings.length, 0) + view.readings.length;
  return view.practiceLooks.reduce((sum, l) => sum + l.value.minutes, 0) + steps * STEP_MINUTES + readings * READING_MINUTES;
}

/** What was there beside what was seen, what was missed and where it lay, and how what was held compares with what the evidence carried. */
export function scoreOf(
  hidden: HiddenEngine,
  view: CaseView,
  answer: readonly NamedCause[],
  everDone: ReadonlySet<string> = doneNow(view),
): PracticeScore {
  const differential = diagnose(view);
  const truth = new Set(hidden.causes.map((c) => c.cause));
  const named = new Map(answer.map((a) => [a.cause, a.percent / 100]));
  const judged = new Set([...truth, ...named.keys()]);
  const carried = (id: string): number => differential.causes.find((c) => c.id === id)?.probability ?? 0;
  const parts = partsOf(hidden, view);
  const had = new Set(view.practiceLooks.map((l) => l.value.look));
  const missed = missedOf(hidden, view, differential, had, everDone);
  const minutes = minutesSpent(view, everDone);
  const leads = [...named].sort((a, b) => b[1] - a[1])[0];
  const right = truth.size === 0 ? answer.length === 0 || (leads?.[1] ?? 0) < 0.5 : leads !== undefined && truth.has(leads[0]);
  return {
    causes: hidden.causes.map((c) => ({ cause: c.cause, place: c.place, held: named.get(c.cause) ?? 0, carried: carried(c.cause) })),
    right,
    own: properScores(judged, truth, (id) => named.get(id) ?? 0),
    evidence: properScores(judged, truth, carried),
    minutes,
    parts,
    missed,
    best: bestOf(hidden, view, had),
    untrue: [...hidden.believed].flatMap(([id, said]) => (said === hidden.features.get(id) ? [] : [id])),
    cost: costOf(hidden, view, minutes, right),
  };
}

/** Running parts: what was on each and what was said of it. */
function partsOf(hidden: HiddenEngine, view: CaseView): PracticeScore['parts'] {
  const out: Array<PracticeScore['parts'][number]> = [];
  for (const s of view.stations) {
    const marks = hidden.marks.get(s.station.id) ?? [];
    const there = [...new Set(marks.map((m) => m.pattern))];
    const said = namedPatterns(s);
    if (there.length === 0 && said.length === 0) continue;
    out.push({ station: s.station.id, there, grade: gradeOfMarks(marks), named: said, graded: isExamined(s) ? standingGrade(s) : null });
  }
  return out;
}

/** What was so, told of a cause that is in the engine, and never came into the case; what tells most first. */
function missedOf(
  hidden: HiddenEngine,
  view: CaseView,
  d: Diagnosis,
  had: ReadonlySet<string>,
  everDone: ReadonlySet<string>,
): PracticeScore['missed'] {
  const known = new Set(d.evidence.filter((e) => e.present && e.reliability !== 'silent').map((e) => e.feature.id));
  const weight = (id: string): number =>
    Math.max(
      0,
      ...hidden.causes.map((c) => {
        const link = cause(c.cause)!.links.find((l) => l.feature === id && !l.prevents);
        return link ? Math.log2(STRENGTH[link.strength] / Math.max(0.005, feature(id)!.leak)) : 0;
      }),
    );
  return [...hidden.features]
    .filter(([id, so]) => so && !known.has(id) && weight(id) > 0)
    .sort((a, b) => weight(b[0]) - weight(a[0]))
    .slice(0, 12)
    .map(([id]) => {
      const looks = looksShowing(hidden, id);
      const first = looks.find((l) => !had.has(l.id)) ?? looks[0];
      const stands = first ? lookStands(view, first, everDone) : null;
      return {
        feature: id,
        look: first?.name ?? '',
        how:
          looks.length > 0 && looks.every((l) => had.has(l.id))
            ? ('seen and not named' as const)
            : stands && !stands.open && stands.gone
              ? ('passed over' as const)
              : ('never looked at' as const),
      };
    });
}

/** Looks that would show a feature of this engine: the parts it is on, or its check. */
function looksShowing(hidden: HiddenEngine, id: string): PracticeLook[] {
  const on = new Set(
    [...hidden.marks].flatMap(([station, marks]) => (marks.some((m) => pattern(m.pattern)!.feature === id) ? [`part:${station}`] : [])),
  );
  if (on.size > 0) return practiceLooks(hidden.layout).filter((l) => on.has(l.id));
  const own = lookOfFeature(hidden.layout, id);
  return own ? [own] : [];
}

/** The look that was not had and would have told most of what is in the engine: bits of what it shows, a minute. */
function bestOf(hidden: HiddenEngine, view: CaseView, had: ReadonlySet<string>): PracticeScore['best'] {
  const bits = new Map<string, { look: PracticeLook; bits: number }>();
  const known = new Set(
    diagnose(view)
      .evidence.filter((e) => e.reliability !== 'silent')
      .map((e) => e.feature.id),
  );
  for (const [id, so] of hidden.features) {
    if (!so || known.has(id)) continue;
    const tells = Math.max(
      0,
      ...hidden.causes.map((c) => {
        const link = cause(c.cause)!.links.find((l) => l.feature === id && !l.prevents);
        return link ? Math.log2(1 + STRENGTH[link.strength] / Math.max(0.005, feature(id)!.leak)) : 0;
      }),
    );
    for (const look of looksShowing(hidden, id))
      if (!had.has(look.id)) bits.set(look.id, { look, bits: Math.max(bits.get(look.id)?.bits ?? 0, tells) });
  }
  const best = [...bits.values()].sort(
    (a, b) => b.bits / b.look.minutes - a.bits / a.look.minutes || a.look.id.localeCompare(b.look.id),
  )[0];
  return best ? { look: best.look.id, name: best.look.name, minutes: best.look.minutes, bits: best.bits } : null;
}

/** What goes back although it is gone, and what is thrown away although it is good. */
const BACK: ReadonlySet<string> = new Set(['reuse', 'clean', 'polish']);
const AWAY: ReadonlySet<string> = new Set(['replace', 'scrap']);

/** What it would have cost the client, by the price book of the case: bench hours, an exchange engine when it comes back, and parts that were misjudged, counted. */
function costOf(hidden: HiddenEngine, view: CaseView, minutes: number, right: boolean): PracticeScore['cost'] {
  const price = (key: string): number => view.prices.lines.find((l) => l.key === key)?.price.likely ?? 0;
  const grade = (station: string): number => gradeOfMarks(hidden.marks.get(station) ?? []);
  const running = view.dispositions.filter((d) => RUNNING_PARTS.includes(stationOf(view.layout, d.station)!.part));
  const goneBack = running.filter((d) => BACK.has(d.value.operation) && grade(d.station) >= 3).map((d) => d.station);
  const goodAway = running.filter((d) => AWAY.has(d.value.operation) && grade(d.station) <= 1).map((d) => d.station);
  const comesBack = !right || goneBack.length > 0;
  return {
    currency: view.prices.currency,
    bench: (minutes / 60) * price('labour'),
    again: comesBack ? price('short-engine') : 0,
    goneBack,
    goodAway,
  };
}
