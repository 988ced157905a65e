import type { CaseFile } from '../bundle/caseFile/format.js';
import { feature } from '../cause/data/features.js';
import { pattern } from '../damage/patterns.js';
import { cylinderPlaces } from '../engine/layout.js';
import { stationOf } from '../engine/stations.js';
import { seeded } from '../kit/seeded.js';
import { fieldKeys, openingCheck, type CheckField } from '../opening/checks.js';
import { RECIPES, SEVERITY_WORDS } from '../specimen/recipes.js';
import { gradeOfMarks, type HiddenEngine, type HiddenMark } from './hidden.js';
import type { PracticeLook } from './looks.js';

type CheckAnswer = NonNullable<CaseFile['checks']>[number];

/** What a look brings to light: sentences, and whether there is a picture of it beside them. */
export interface Shown {
  readonly words: readonly string[];
  readonly picture: boolean;
}

const painted = new Set(RECIPES.filter((r) => !r.debris).map((r) => r.pattern));

/** What is seen by a look at this engine, in the words of somebody who does not know the names. */
export function shownBy(hidden: HiddenEngine, look: PracticeLook): Shown {
  const id = look.id.slice(look.id.indexOf(':') + 1);
  if (look.kind === 'ask') {
    const f = feature(id)!;
    return {
      words: [
        `${f.check.step}. The owner: “${hidden.believed.get(id) ? 'Yes' : 'No'}: ${f.name.toLowerCase()}${hidden.believed.get(id) ? '' : ', not that I know'}.”`,
      ],
      picture: false,
    };
  }
  if (look.kind === 'measure') {
    const f = feature(id)!;
    return {
      words: [`${f.check.step}: ${hidden.features.get(id) ? f.name.toLowerCase() : `nothing of the kind (${f.name.toLowerCase()}: no)`}.`],
      picture: false,
    };
  }
  if (look.kind === 'check') {
    const check = openingCheck(id)!;
    const answers = checkAnswers(hidden, id);
    const words = check.fields.flatMap((f) => {
      const own = answers.filter((a) => fieldKeys(f, hidden.layout).includes(a.field));
      return own.length === 0 ? [] : [`${f.label}: ${own.map((a) => answerWords(f, a)).join(' · ')}`];
    });
    return { words: words.length > 0 ? words : ['Nothing strikes the eye.'], picture: false };
  }
  const marks = hidden.marks.get(id) ?? [];
  const station = stationOf(hidden.layout, id)!;
  const unpainted = marks.filter((m) => !painted.has(m.pattern) || !canBePictured(station.part));
  return {
    words:
      marks.length === 0
        ? ['Nothing strikes the eye.']
        : unpainted.map((m) => `${pattern(m.pattern)!.look} It is ${SEVERITY_WORDS[m.severity]}.`),
    picture: canBePictured(station.part),
  };
}

/** Parts of which the studio takes a picture. */
const PICTURED: ReadonlySet<string> = new Set(['shell', 'journal', 'thrust', 'skirt', 'crown', 'rolling']);
export const canBePictured = (part: string): boolean => PICTURED.has(part);

function answerWords(f: CheckField, a: CheckAnswer): string {
  const place = a.field.includes('.') ? `${a.field.split('.')[1]}: ` : '';
  const said = Array.isArray(a.answer)
    ? (a.answer as string[]).map((v) => f.options?.find((o) => o.value === v)?.label.toLowerCase() ?? v).join(', ')
    : String(a.answer);
  return `${place}${said}${a.unit ? ` ${a.unit}` : ''}`;
}

/** What a check of this engine answers, field by field, as it would be written down. */
function checkAnswers(hidden: HiddenEngine, checkId: string): CheckAnswer[] {
  const check = openingCheck(checkId)!;
  const so = (id: string): boolean => hidden.features.get(id) === true;
  return check.fields
    .flatMap((field): CheckAnswer[] => {
      if (field.kind === 'words') return [];
      const keys = fieldKeys(field, hidden.layout);
      if (field.kind === 'quantity') {
        const read = QUANTITIES[`${checkId}:${field.id}`]?.(hidden, so);
        return read
          ? keys.flatMap((key, i) =>
              read.values[i] === undefined
                ? []
                : [{ check: checkId, field: key, answer: read.values[i]!.toFixed(read.digits), unit: read.unit }],
            )
          : [];
      }
      return keys.map((key) => {
        const cylinder = key.includes('.') ? Number(key.split('.')[1]) : 0;
        const shows = field.options!.filter(
          (o) => o.feature && so(o.feature) && (cylinder === 0 || cylinderOf(hidden, o.feature) === cylinder),
        );
        const none = field.options!.find((o) => !o.feature && !NEVER_PLAIN.has(o.value)) ?? field.options!.find((o) => !o.feature);
        const chosen =
          shows.length === 0
            ? none
              ? [none.value]
              : []
            : field.kind === 'choice'
              ? [shows[0]!.value]
              : [...new Map(shows.map((o) => [o.feature, o.value])).values()];
        return { check: checkId, field: key, answer: chosen };
      });
    })
    .filter((a) => !Array.isArray(a.answer) || a.answer.length > 0);
}
/** Options without a feature that are no plain answer. */
const NEVER_PLAIN = new Set(['dark', 'top', 'stale', 'rust', 'fuzz', 'intake', 'cold']);

/** The cylinder at which a feature lies: that of its damage, else the one a seed says. */
function cylinderOf(hidden: HiddenEngine, id: string): number {
  for (const [station, marks] of hidden.marks)
    if (marks.some((m) => pattern(m.pattern)!.feature === id)) {
      const c = stationOf(hidden.layout, station)!.cylinder;
      if (c > 0) return c;
    }
  const placed = hidden.causes.find((c) => c.place?.startsWith('cylinder.'))?.place;
  return placed ? Number(placed.split('.')[1]) : 1 + (hidden.seed % hidden.layout.cylinders);
}

interface Read {
  readonly values: readonly number[];
  readonly unit: string;
  readonly digits: number;
}

/** Figures of the checks, by what is so. Sound values are usual ones, the others plainly past every rule of thumb. Judgement. */
const QUANTITIES: Readonly<Record<string, (hidden: HiddenEngine, so: (id: string) => boolean) => Read>> = {
  'compression:dry': (h, so) => ({ values: compression(h, so, false), unit: 'bar', digits: 1 }),
  'compression:wet': (h, so) => ({ values: compression(h, so, true), unit: 'bar', digits: 1 }),
  'leak-down:loss': (h, so) => ({ values: wobble(h, h.layout.cylinders, so('measured.leak-rings') ? 34 : 9, 2), unit: '%', digits: 0 }),
  'oil-pressure:cold-idle': (h) => ({ values: wobble(h, 1, 3.6, 0.2), unit: 'bar', digits: 1 }),
  'oil-pressure:cold-rated': (h) => ({ values: wobble(h, 1, 4.8, 0.2), unit: 'bar', digits: 1 }),
  'oil-pressure:hot-idle': (h, so) => ({ values: wobble(h, 1, so('measured.pressure-low') ? 0.3 : 1.6, 0.08), unit: 'bar', digits: 1 }),
  'oil-pressure:hot-rated': (h, so) => ({ values: wobble(h, 1, so('measured.pressure-low') ? 1.9 : 3.8, 0.1), unit: 'bar', digits: 1 }),
  'turning:ahead': (h, so) => ({ values: turning(h, so), unit: 'N·m', digits: 0 }),
  'turning:back': (h, so) => ({ values: turning(h, so), unit: 'N·m', digits: 0 }),
  'end-float:float': (h, so) => ({ values: wobble(h, 1, so('measured.end-float-high') ? 0.46 : 0.16, 0.02), unit: 'mm', digits: 2 }),
  'end-float:play': (h, so) => ({ values: wobble(h, 1, so('measured.nose-play') ? 0.24 : 0.05, 0.01), unit: 'mm', digits: 2 }),
};

function wobble(h: HiddenEngine, n: number, about: number, by: number): number[] {
  const random = seeded(h.seed * 31 + Math.round(about * 100));
  return Array.from({ length: n }, () => about + by * (2 * random() - 1));
}

function compression(h: HiddenEngine, so: (id: string) => boolean, wet: boolean): number[] {
  const all = so('measured.compression-all-low');
  const sound = (h.layout.fuel === 'diesel' ? 27 : 12) * (all ? 0.55 : 1);
  const at = cylinderOf(h, 'measured.compression-one-low');
  const places = cylinderPlaces(h.layout);
  const own = places.find((p) => p.cylinder === at)!;
  const beside = places.find((p) => p.bank === own.bank && Math.abs(p.along - own.along) === 1)?.cylinder;
  const low = so('measured.compression-one-low') ? [at] : so('measured.compression-adjacent-low') && beside ? [at, beside] : [];
  return wobble(h, h.layout.cylinders, sound, 0.02 * sound).map((v, i) => {
    const isLow = all || low.includes(i + 1);
    return v * (low.includes(i + 1) ? 0.6 : 1) * (wet && isLow && so('measured.wet-rise') ? 1.25 : 1);
  });
}

function turning(h: HiddenEngine, so: (id: string) => boolean): number[] {
  if (so('measured.turning-locked')) return [];
  const about = so('measured.turning-tight') ? 48 : 18;
  return wobble(h, 12, about, 2).map((v, i) => (so('measured.turning-notchy') && i % 6 === h.seed % 6 ? 2 * v : v));
}

/** What an apprentice who sees and names everything rightly would write down of a look. */
export function notedBy(
  hidden: HiddenEngine,
  look: PracticeLook,
): Pick<CaseFile, 'checks' | 'findings' | 'sound' | 'history' | 'evidence'> {
  const id = look.id.slice(look.id.indexOf(':') + 1);
  if (look.kind === 'check') return { checks: checkAnswers(hidden, id) };
  if (look.kind === 'ask') {
    const yes = hidden.believed.get(id) === true;
    return yes
      ? { history: [{ text: feature(id)!.name, feature: id, reliability: 'told' }] }
      : { evidence: [{ feature: id, present: false, reliability: 'told' }] };
  }
  if (look.kind === 'measure') return { evidence: [{ feature: id, present: hidden.features.get(id) === true, reliability: 'measured' }] };
  const marks = hidden.marks.get(id) ?? [];
  return marks.length === 0 ? { sound: [id] } : { findings: [{ station: id, grade: gradeOfMarks(marks), patterns: patternsOf(marks) }] };
}

/** Patterns of a place, each once. */
const patternsOf = (marks: readonly HiddenMark[]): string[] => [...new Set(marks.map((m) => m.pattern))];
