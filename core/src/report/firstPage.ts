import { rangeText } from '../diagnosis/ending.js';
import type { Diagnosis } from '../diagnosis/diagnose.js';
import { likelyPlace } from '../diagnosis/places.js';
import { coverage, isExamined, standingGrade, type CaseView, type StationView } from '../case/views.js';
import { gradeText, type Grade } from '../damage/classes.js';
import { standingDispositions } from '../salvage/dispositions.js';
import type { SimulatedRoute } from '../salvage/simulate.js';
import type { PartClass } from '../engine/stations.js';
import { OPERATION_NAMES } from '../workshop/operations.js';
import { percentText } from '../cause/percent.js';
import { benchDrawing } from './benchDrawing.js';
import type { FirstPage, ReportBlock } from './blocks.js';
import { pictureBlock } from './sections/findings.js';

/** Places that are named before the rest is counted. */
const NAMED = 4;
/** Pieces of evidence on the first page. */
const EVIDENCE = 3;
/** What only catches what others lose: it shows a failure and has none. */
const CATCHES: ReadonlySet<PartClass> = new Set(['debris', 'filter', 'pan']);
/** Grade from which a part has failed rather than worn. */
const FAILED: Grade = 3;

/** The answer by itself: what failed, why and how sure, the picture that shows it, the bench with it marked, what is to be done and by when, and what was not seen. */
export function firstPage(
  view: CaseView,
  d: Diagnosis,
  numbering: ReadonlyMap<string, number>,
  routes: readonly SimulatedRoute[],
): FirstPage {
  const lead = d.causes[0];
  const place = lead ? likelyPlace(lead) : null;
  // A sound engine asks for no cause.
  const known = view.stations.some((s) => s.state === 'findings') && lead;
  return {
    failed: failedWords(view),
    why:
      view.report('conclusion') ||
      (known
        ? d.ending.sentence
        : coverage(view).examined > 0
          ? 'Nothing was found that asks for a cause.'
          : 'Nothing was examined yet, so no cause is named.'),
    sure: known
      ? {
          cause: d.ending.kind === 'not determined' ? `Not determined; ${lead.name.toLowerCase()} leads` : lead.name,
          place: place?.name ?? null,
          probability: lead.probability,
          low: lead.low,
          high: lead.high,
          words: `${lead.range}, ${rangeText(lead)}`,
        }
      : null,
    restsOn: known
      ? lead.evidence
          .filter((e) => e.decibans > 0)
          .slice(0, EVIDENCE)
          .map((e) => `${e.name}${e.present ? '' : ': looked for, not there'}`)
      : [],
    rival: known ? rivalWords(d) : null,
    picture: showing(view, numbering),
    bench: benchDrawing(view, place?.place ?? null),
    todo: todo(view, routes),
    notSeen: notSeen(view),
  };
}

/** The worst places by name, and how many more are as bad as a failure. */
function failedWords(view: CaseView): string {
  const graded = view.stations
    .filter((s) => isExamined(s) && !CATCHES.has(s.station.part))
    .map((s) => ({ name: s.station.name, grade: standingGrade(s) ?? 0 }))
    .sort((a, b) => b.grade - a.grade);
  const failed = graded.filter((g) => g.grade >= FAILED);
  if (graded.length === 0) return 'Nothing has been examined yet.';
  if (failed.length === 0)
    return graded[0]!.grade === 0
      ? 'No damage was found where it was looked for.'
      : `No part has failed; the worst is ${graded[0]!.name.toLowerCase()}, ${gradeText(graded[0]!.grade as Grade)}.`;
  const names = failed.slice(0, NAMED).map((f) => f.name);
  const more = failed.length - names.length;
  return `Failed: ${names.join(', ')}${more > 0 ? ` and ${more} more` : ''}.`;
}

function rivalWords({ causes }: Diagnosis): string | null {
  const [lead, rival] = causes;
  if (!lead || !rival) return null;
  return `The strongest other explanation, instead of it or beside it: ${rival.name.toLowerCase()}, ${percentText(rival.probability)}.`;
}

/** The picture of the worst place that has one in the account. */
function showing(view: CaseView, numbering: ReadonlyMap<string, number>): Extract<ReportBlock, { kind: 'photo' }> | null {
  const worth = (s: StationView): number => (standingGrade(s) ?? 0) + (s.summary ? 1 - s.summary.percent.sound / 100 : 0);
  const pictured = view.stations
    .filter((s) => s.state === 'findings' && s.photos.some((p) => numbering.has(p.value.sha256)))
    .sort((a, b) => worth(b) - worth(a))[0];
  const photo = pictured?.photos.find((p) => numbering.has(p.value.sha256));
  return pictured && photo ? pictureBlock(pictured, photo.value, numbering.get(photo.value.sha256)!) : null;
}

/** Work that was decided on, by kind, and the way that was chosen with its price and days. */
function todo(view: CaseView, routes: readonly SimulatedRoute[]): string[] {
  const work = new Map<string, string[]>();
  for (const x of standingDispositions(view).filter((x) => x.confirmed))
    work.set(OPERATION_NAMES[x.operation], [...(work.get(OPERATION_NAMES[x.operation]) ?? []), x.name]);
  const lines = [...work].map(
    ([operation, parts]) =>
      `${operation}: ${parts.slice(0, NAMED).join(', ')}${parts.length > NAMED ? ` and ${parts.length - NAMED} more` : ''}.`,
  );
  const own = view.report('actions');
  if (own) lines.unshift(own);
  const chosen = routes.find((r) => r.route.id === view.plan?.route);
  if (chosen) {
    const { cost, days } = chosen.result;
    lines.unshift(
      `Way chosen: ${chosen.route.name.toLowerCase()}; ${cost.p50.toFixed(0)} to ${cost.p90.toFixed(0)} ${view.prices.currency}, ${days.p50.toFixed(0)} to ${days.p90.toFixed(0)} working days${view.plan ? ` from ${view.plan.from}` : ''}.`,
    );
  }
  if (view.plan?.deadline) lines.push(`Wanted by ${view.plan.deadline}.`);
  return lines.length > 0 ? lines : ['Nothing has been decided yet.'];
}

function notSeen(view: CaseView): string[] {
  const c = coverage(view);
  const names = view.stations.filter((s) => !isExamined(s) && s.state !== 'not-present').map((s) => s.station.name);
  const share = `${c.examined} of ${c.total} places were examined.`;
  if (names.length === 0) return [share];
  return [
    share,
    `Not examined: ${names.slice(0, 2 * NAMED).join(', ')}${names.length > 2 * NAMED ? ` and ${names.length - 2 * NAMED} more` : ''}.`,
  ];
}
