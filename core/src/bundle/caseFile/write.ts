import { INTAKE_FIELDS } from '../../entries/registry.js';
import type { CaseState } from '../../ledger/state.js';
import { neutralSight } from '../../damage/sights.js';
import type { CaseView } from '../../case/views.js';
import { likenedBearings } from '../../diagnosis/likenedEvidence.js';
import type { Gauge } from '../../units/gauge.js';
import { measureProgram } from '../../measure/program/program.js';
import { placeReadings } from '../../measured/caseMeasure.js';
import { CASE_FILE_FORMAT, CASE_FILE_VERSION, type CaseFile } from './format.js';

function stripOf(view: CaseView): NonNullable<CaseFile['strip']> {
  const { steps, holds, bolts, caps, easing } = view;
  const held = (outcome: 'recorded' | 'lost'): string[] =>
    [...holds.values()].filter((h) => h.value.outcome === outcome).map((h) => h.value.item);
  return {
    done: [...steps.values()].filter((s) => s.value.state === 'done').map((s) => s.value.step),
    recorded: held('recorded'),
    lost: held('lost'),
    bolts: bolts.flatMap(({ value: b }) =>
      b.newtonMetre === null ? [] : [{ pattern: b.pattern, position: b.position, value: b.text, unit: b.unit }],
    ),
    caps: [...caps.values()].map(({ value: c }) => ({ cap: c.cap, number: c.number, agrees: c.agrees, joint: c.joint })),
    easing: easing.map(({ value: e }) => ({ cap: e.cap, value: e.text, unit: e.unit })),
  };
}

/** Does a case say what version 1 of the format has no words for? */
function needsSecond(view: CaseView): boolean {
  return (
    view.sights.length > 0 ||
    likenedBearings(view).standing.length > 0 ||
    view.oilLog !== undefined ||
    view.priors !== undefined ||
    view.evidence.some((e) => e.value.reliability !== undefined) ||
    view.stations.some((s) => s.patterns.some((p) => neutralSight(p.value.pattern)))
  );
}

/**
 * The case file of a folded case; reading it back gives the same differential. Version 1 where it has words for everything, to the letter as it was always written: bundles that older programs made
 * carry it, and are held against it.
 */
export function caseFileOf(state: CaseState, view: CaseView): CaseFile {
  const intake = Object.fromEntries(INTAKE_FIELDS.map((f) => [f, view.intake(f)] as const).filter(([, v]) => v !== ''));
  const read = measureProgram(view.layout).flatMap((place) =>
    placeReadings(view, place).map((r) => ({ station: place.station, r: r.value })),
  );
  const gauges = gaugesOf(read.map(({ r }) => r.gauge));
  const second = needsSecond(view);
  const likened = likenedBearings(view).standing;
  return {
    format: CASE_FILE_FORMAT,
    version: second ? CASE_FILE_VERSION : 1,
    case: { number: view.number, title: view.title, ledgerHead: state.head, entries: state.seq },
    engine: view.layout,
    intake,
    history: view.history.map((h) => ({
      text: h.value.text,
      feature: h.value.feature,
      reliability: h.value.reliability,
      date: h.value.date,
    })),
    sound: view.stations.filter((s) => s.state === 'sound' && s.marks.length === 0 && !s.grade).map((s) => s.station.id),
    states: Object.fromEntries(
      view.stations
        .filter((s) => s.state === 'lost' || s.state === 'before-us' || s.state === 'not-present')
        .map((s) => [s.station.id, s.state]),
    ),
    findings: view.stations
      .filter((s) => s.grade || s.marks.length > 0 || s.reads.length > 0 || s.patterns.length > 0 || s.remarks.length > 0)
      .map((s) => ({
        station: s.station.id,
        ...(s.grade ? { grade: s.grade.value.grade } : {}),
        patterns: s.patterns.filter((p) => p.value.present).map((p) => p.value.pattern),
        absent: s.patterns.filter((p) => !p.value.present).map((p) => p.value.pattern),
        marks: s.marks.map((m) => m.value.mark),
        ...(s.reads.length > 0 ? { reads: s.reads.map((r) => r.value) } : {}),
        ...(s.remarks.length > 0
          ? {
              note: s.remarks
                .map((r) => r.value.text)
                .join('\n')
                .slice(0, 4000),
            }
          : {}),
      })),
    ...(view.schools.size > 0 ? { schools: Object.fromEntries([...view.schools].map(([id, x]) => [id, x.value.position])) } : {}),
    evidence: view.evidence.map((e) => ({
      feature: e.value.feature,
      present: e.value.present,
      note: e.value.note,
      ...(e.value.reliability ? { reliability: e.value.reliability } : {}),
    })),
    ...(view.sights.length > 0
      ? {
          sights: view.sights.map(({ value: x }) => ({
            sight: x.sight,
            present: x.present,
            among: x.among,
            of: x.of,
            grade: x.grade,
            reliability: x.reliability,
            words: x.words,
          })),
        }
      : {}),
    ...(likened.length > 0 ? { likened: likened.map(({ value: { bearing, forms } }) => ({ bearing, forms: forms! })) } : {}),
    ...(view.priors ? { priors: view.priors.value.priors! } : {}),
    ...(view.oilLog ? { oilLog: view.oilLog.value.log! } : {}),
    ...(second && view.remarks.some((r) => r.value.text !== '')
      ? { notes: view.remarks.flatMap((r) => (r.value.text ? [r.value.text] : [])) }
      : {}),
    specs: Object.fromEntries(Object.entries(view.specs).map(([q, s]) => [q, s!.value.spec])),
    gauges: gauges.map(({ name, gauge }) => ({ ...gauge, id: name })),
    readings: read.map(({ station, r }) => ({
      ...(station === null ? {} : { station }),
      sheet: r.sheet,
      cell: r.cell,
      take: r.take,
      value: r.text,
      unit: r.unit,
      gauge: gauges.find((g) => g.key === JSON.stringify(r.gauge))!.name,
      ...(r.insisted ? { insisted: true } : {}),
      ...(r.simulated ? { simulated: true } : {}),
    })),
    checks: [...view.checks.values()]
      .filter((c) => c.value.text !== '')
      .map(({ value: c }) => ({
        check: c.check,
        field: c.field,
        answer: c.chosen.length > 0 ? c.chosen : c.text,
        ...(c.unit ? { unit: c.unit } : {}),
      })),
    limits: view.limits?.value.limits ?? [],
    strip: stripOf(view),
  };
}

/** Gauges of readings under names that tell them apart: a gauge whose record was corrected between two readings is two here, so no verdict changes. */
function gaugesOf(used: readonly Gauge[]): Array<{ readonly key: string; readonly name: string; readonly gauge: Gauge }> {
  const found: Array<{ key: string; name: string; gauge: Gauge }> = [];
  for (const gauge of used) {
    const key = JSON.stringify(gauge);
    if (found.some((f) => f.key === key)) continue;
    const same = found.filter((f) => f.gauge.id === gauge.id).length;
    found.push({ key, name: same === 0 ? gauge.id : `${gauge.id}:${same + 1}`, gauge });
  }
  return found;
}
