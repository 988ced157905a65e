import type { CaseView } from '../case/views.js';
import { measuredPlaces } from '../measured/caseMeasure.js';
import { openingFindings, type Answers, type LimitSource } from '../opening/evidence.js';
import { easingResult } from '../strip/easing.js';
import { fastenerResult } from '../strip/fasteners.js';
import { stripPlan } from '../strip/plan.js';
import type { EvidenceItem, Put } from './evidenceItem.js';

/** Verdicts of the sheets as features. One rule a feature: what counts as showing it, what as denying it, and how many sheets denial takes. */
export function measuredEvidence(view: CaseView, put: Put): void {
  const sheets = measuredPlaces(view);
  const journals = view.stations.filter((s) => s.station.part === 'journal').length;
  for (const rule of MEASURED_RULES) {
    const judged = sheets.flatMap((m) => {
      if (!rule.kinds.includes(m.place.kind)) return [];
      const verdict = m.outcome?.lines.find((l) => rule.lines.includes(l.id))?.verdict;
      return verdict && verdict.reference !== 'typical' ? [{ place: m.place, verdict }] : [];
    });
    const past = judged.filter((x) => x.verdict.word === 'outside' && (rule.side === 'any' || x.verdict.side === rule.side));
    const first = past[0];
    const enough = rule.everywhere ? past.length >= 2 && past.length > judged.length / 2 : past.length > 0;
    if (first && enough)
      put(rule.feature, true, 'certain', {
        station: first.place.station,
        entry: null,
        words: `measured at ${past.map((x) => x.place.short).join(', ')}`,
      });
    else {
      const good = judged.filter((x) => x.verdict.word === 'within').length;
      if (past.length === 0 && good >= (rule.single ? 1 : Math.max(2, journals / 3)))
        put(rule.feature, false, 'certain', { station: null, entry: null, words: `${good} measured within` });
    }
  }
}

interface MeasuredRule {
  readonly feature: string;
  readonly kinds: readonly string[];
  readonly lines: readonly string[];
  readonly side: 'lower' | 'upper' | 'any';
  /** Two at least and more than half of those measured must show it. */
  readonly everywhere?: boolean;
  /** One sheet within denies it: there is only one such place. */
  readonly single?: boolean;
}

const CLEARANCE = { kinds: ['shell-clearance', 'crushed-strip'], lines: ['vertical', 'clearance'] } as const;
const MEASURED_RULES: readonly MeasuredRule[] = [
  { feature: 'measured.journal-worn', kinds: ['journal'], lines: ['least'], side: 'lower' },
  { feature: 'measured.out-of-round', kinds: ['journal'], lines: ['outOfRound'], side: 'upper' },
  { feature: 'measured.taper', kinds: ['journal'], lines: ['taper'], side: 'any' },
  { feature: 'measured.end-float-high', kinds: ['end-float'], lines: ['endFloat'], side: 'upper', single: true },
  { feature: 'measured.clearance-high', ...CLEARANCE, side: 'upper', everywhere: true },
  { feature: 'measured.clearance-low', ...CLEARANCE, side: 'lower' },
  { feature: 'measured.crank-runout', kinds: ['crank-runout'], lines: ['runout'], side: 'upper', single: true },
];

/** Limits of the case's own copy of its spec sheet, as the checks before opening read them. */
export function limitSource(view: CaseView): LimitSource {
  return (quantity) => {
    const limit = view.limits?.value.limits.find((l) => l.quantity === quantity);
    if (!limit) return null;
    const band = { ...(limit.lower === null ? {} : { lower: limit.lower }), ...(limit.upper === null ? {} : { upper: limit.upper }) };
    return { band, source: view.limits?.value.sheet?.source || 'limit entered in this case' };
  };
}

/** Answers of the checks before opening by `check:field`, without their entries. */
export function answersOf(view: CaseView): Answers {
  return new Map([...view.checks].map(([key, a]) => [key, a.value]));
}

/** What was seen on a part outweighs what was not seen through a plug hole or on a dipstick. */
export function openingEvidence(view: CaseView, items: ReadonlyMap<string, EvidenceItem>, put: Put): void {
  if (view.checks.size === 0) return;
  for (const f of openingFindings(view.layout, answersOf(view), limitSource(view)))
    if (f.present || !items.get(f.feature)?.present)
      put(f.feature, f.present, 'certain', {
        station: null,
        entry: view.checks.get(f.from)?.version.entry ?? null,
        words: `Before opening, ${f.words}`,
      });
}

export function stripEvidence(view: CaseView, put: Put): void {
  const { bolts, caps, easing } = view;
  const uneven: string[] = [];
  let judged = 0;
  for (const step of bolts.length > 0 ? stripPlan(view.layout).steps : []) {
    if (!step.pattern) continue;
    const read = bolts.filter((b) => b.value.pattern === step.pattern!.id && b.value.newtonMetre !== null);
    const result = fastenerResult(
      step.pattern,
      read.map((b) => ({ position: b.value.position, newtonMetre: b.value.newtonMetre! })),
    );
    if (!result) continue;
    judged++;
    for (const u of result.uneven) uneven.push(`${step.pattern.name} ${u.positions.join(' against ')}: ${u.percent.toFixed(0)} % apart`);
  }
  if (judged > 0)
    put('measured.torque-uneven', uneven.length > 0, 'certain', {
      station: null,
      entry: bolts[0]?.version.entry ?? null,
      words:
        uneven.length > 0
          ? `break-loose torque: ${uneven.slice(0, 3).join('; ')}`
          : `break-loose torque even in ${judged} pattern${judged === 1 ? '' : 's'}`,
    });
  const wrong = [...caps.values()].filter((c) => !c.value.agrees || c.value.joint === 'step');
  if (wrong.length > 0 || caps.size >= Math.max(2, view.layout.mains))
    put('measured.cap-mismatch', wrong.length > 0, 'certain', {
      station: null,
      entry: (wrong[0] ?? [...caps.values()][0])?.version.entry ?? null,
      words:
        wrong.length > 0
          ? `caps ${wrong.map((c) => c.value.cap).join(', ')} do not agree`
          : `${caps.size} caps agree in number, direction and joint`,
    });
  const eased = easingResult(easing.map((e) => ({ cap: e.value.cap, newtonMetre: e.value.newtonMetre })));
  if (eased && easing.length >= 3)
    put('measured.cap-binding', eased.binding !== null, 'certain', {
      station: null,
      entry: easing[0]?.version.entry ?? null,
      words: `turning torque while easing caps: ${eased.words}`,
    });
}
