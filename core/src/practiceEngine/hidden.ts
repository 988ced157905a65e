import { CAUSES } from '../cause/data/causes.js';
import { featureProbability } from '../cause/model.js';
import { STRENGTH, type Cause, type Feature } from '../cause/types.js';
import { PATTERNS } from '../damage/patterns.js';
import type { DamagePattern } from '../damage/catalogue/record.js';
import { applicableModel } from '../diagnosis/diagnose.js';
import { leanOf } from '../diagnosis/predicted.js';
import { cylinderPlaces, serviceAge, type EngineLayout } from '../engine/layout.js';
import { stationsOf, type PartClass, type Station } from '../engine/stations.js';
import { engineTags } from '../engine/tags.js';
import { engineTemplate } from '../engine/templates.js';
import { seeded } from '../kit/seeded.js';
import type { Severity } from '../specimen/recipes.js';
import { loadAt } from './bearingLoad.js';
import { practiceLevel, type PracticeLevel } from './levels.js';

/** Version of how a seed becomes an engine: the same version makes the same engine of it. */
export const PRACTICE_ENGINE_VERSION = 1;

/** A cause that is in the engine, and where it began if it has a place of its own. */
interface HiddenCause {
  readonly cause: string;
  readonly place: string | null;
}

/** Damage at a place. */
export interface HiddenMark {
  readonly pattern: string;
  readonly severity: Severity;
}

/** A practice engine as it truly is. */
export interface HiddenEngine {
  readonly version: number;
  readonly level: PracticeLevel;
  readonly seed: number;
  readonly layout: EngineLayout;
  readonly causes: readonly HiddenCause[];
  /** Every feature the table knows of such an engine, and whether it is so; but those that follow from where the damage lies. */
  readonly features: ReadonlyMap<string, boolean>;
  /** Damage by station; a place that is not named has none. */
  readonly marks: ReadonlyMap<string, readonly HiddenMark[]>;
  /** Places that were altered or gone before it came. */
  readonly goneBefore: readonly string[];
  /** What the owner holds to be so, by feature; partly wrong. */
  readonly believed: ReadonlyMap<string, boolean>;
}

type Random = () => number;
const pick = <T>(from: readonly T[], random: Random): T => from[Math.floor(random() * from.length)]!;

/** Makes the engine of a level and a seed: hidden causes drawn by the odds of the table, what each brings about, where by route, spread and load it lies, and what the owner says. */
export function drawEngine(levelNumber: number, seed: number): HiddenEngine {
  const level = practiceLevel(levelNumber);
  if (!level) throw new RangeError(`there is no level ${levelNumber}`);
  const random = seeded(seed * 7919 + levelNumber);
  const { layout } = engineTemplate(pick(level.engines, random))!;
  const causes = drawCauses(level, layout, random);
  const set = causes.map((c) => CAUSES.find((x) => x.id === c.cause)!);
  const model = applicableModel(engineTags(layout), serviceAge(layout));
  const features = new Map<string, boolean>();
  for (const f of model.features.values()) {
    if (f.kind === 'spread' || f.of || f.likened) continue;
    const stray = f.damage ? { ...f, leak: Math.min(0.9, f.leak * level.stray) } : f;
    features.set(f.id, random() < featureProbability(stray, set));
  }
  settleOpposites(features, random);
  const marks = spreadOut(layout, causes, set, features, model.features, random);
  const gone = stationsOf(layout).filter((s) => !s.aside && s.number > 0);
  const goneBefore = Array.from({ length: level.goneBefore }, () => pick(gone, random).id);
  return {
    version: PRACTICE_ENGINE_VERSION,
    level,
    seed,
    layout,
    causes,
    features,
    marks,
    goneBefore: [...new Set(goneBefore)],
    believed: beliefsOf(level, features, model.features, random),
  };
}

/** By the odds of the table among those the level draws from; none twice. What has no record, or only passes on, is no cause to be found. */
function drawCauses(level: PracticeLevel, layout: EngineLayout, random: Random): HiddenCause[] {
  const model = applicableModel(engineTags(layout), serviceAge(layout));
  const pool = model.causes.flatMap((c, i) =>
    c.unlisted || c.follows || c.several || (level.from && !level.from.includes(c.id) && !level.from.includes(c.family))
      ? []
      : [{ c, odds: model.odds[i]! }],
  );
  const drawn: Cause[] = [];
  for (let n = pick(level.causes, random); n > 0 && pool.length > 0; n--) {
    let left = random() * pool.reduce((sum, p) => sum + p.odds, 0);
    const at = Math.max(
      0,
      pool.findIndex((p) => (left -= p.odds) < 0),
    );
    drawn.push(pool.splice(at, 1)[0]!.c);
  }
  return drawn.map((c) => ({ cause: c.id, place: placeFor(c, layout, random) }));
}

function placeFor(c: Cause, layout: EngineLayout, random: Random): string | null {
  if (c.place === 'main' && layout.mains > 0) return `main.${1 + Math.floor(random() * layout.mains)}`;
  return c.place ? `cylinder.${pick(cylinderPlaces(layout), random).cylinder}` : null;
}

/** Of what cannot be both, one stays. */
const OPPOSITES = [
  ['fluid.level-low', 'fluid.level-high'],
  ['told.pressure-lost', 'told.pressure-normal'],
  ['told.pressure-low-hot', 'told.pressure-normal'],
  ['measured.clearance-high', 'measured.clearance-low'],
  ['measured.piston-clearance-high', 'measured.piston-clearance-low'],
  ['measured.turning-locked', 'measured.turning-tight'],
  ['measured.compression-one-low', 'measured.compression-all-low'],
  ['measured.compression-one-low', 'measured.compression-adjacent-low'],
  ['measured.compression-adjacent-low', 'measured.compression-all-low'],
] as const;

function settleOpposites(features: Map<string, boolean>, random: Random): void {
  for (const [a, b] of OPPOSITES) if (features.get(a) && features.get(b)) features.set(random() < 0.5 ? a : b, false);
}

/** Patterns by the feature they show. */
const byFeature = new Map<string, DamagePattern[]>();
for (const p of PATTERNS) byFeature.set(p.feature, [...(byFeature.get(p.feature) ?? []), p]);

/** A place takes damage where the causes that bring it lean and the load lies: everywhere with this much of the worst, and always there. Judgement. */
const TAKES = 0.9;
const FAR_GONE = 0.72;
const CLEAR = 0.38;

/** Lays what is there of damage on places. */
function spreadOut(
  layout: EngineLayout,
  causes: readonly HiddenCause[],
  set: readonly Cause[],
  present: ReadonlyMap<string, boolean>,
  known: ReadonlyMap<string, Feature>,
  random: Random,
): Map<string, HiddenMark[]> {
  const stations = stationsOf(layout);
  const leans = causes.map((c, i) => leanOf(layout, set[i]!, c.place));
  const marks = new Map<string, HiddenMark[]>();
  const put = (station: string, pattern: string, severity: Severity): void => {
    marks.set(station, [...(marks.get(station) ?? []), { pattern, severity }]);
  };
  for (const [id, so] of present) {
    const f = known.get(id)!;
    if (!so || !f.damage || !f.parts) continue;
    const shows = (byFeature.get(id) ?? []).filter((p) => stations.some((s) => takes(s, p, f)));
    if (shows.length === 0) continue;
    const p = pick(shows, random);
    const places = stations.filter((s) => takes(s, p, f));
    const brings = set.flatMap((c, i) => {
      const link = c.links.find((l) => l.feature === id && !l.prevents);
      return link ? [{ lean: leans[i]!, weight: STRENGTH[link.strength] }] : [];
    });
    if (brings.length === 0) {
      // It has nothing to do with the failure: one place, and hardly begun.
      put(pick(places, random).id, p.id, random() < 0.8 ? 1 : 2);
      continue;
    }
    const weights = places.map((s) => Math.max(...brings.map((b) => b.lean(s) * b.weight)) * loadAt(layout, s) * (0.8 + 0.4 * random()));
    const top = Math.max(...weights);
    places.forEach((s, i) => {
      const x = weights[i]! / top;
      if (x < 1 && random() > TAKES * x * x) return;
      put(s.id, p.id, x >= FAR_GONE ? 3 : x >= CLEAR ? 2 : 1);
    });
  }
  return marks;
}

const takes = (s: Station, p: DamagePattern, f: Feature): boolean =>
  p.parts.includes(s.part) && f.parts!.includes(s.part as PartClass) && (!f.lies || f.lies.includes(s.id));

/** What the owner holds to be so of everything that is told: as the level trusts him, and of what speaks against him less. */
function beliefsOf(
  level: PracticeLevel,
  features: ReadonlyMap<string, boolean>,
  known: ReadonlyMap<string, Feature>,
  random: Random,
): Map<string, boolean> {
  const out = new Map<string, boolean>();
  for (const [id, so] of features) {
    if (known.get(id)!.kind !== 'told') continue;
    const against = AGAINST_HIM.has(id) && so;
    const wrong = random() < (against ? Math.min(0.7, 2.5 * level.untrue) : so ? level.untrue : 0.3 * level.untrue);
    out.set(id, so !== wrong);
  }
  return out;
}

/** What nobody likes to have done. */
const AGAINST_HIM = new Set([
  'told.ran-on',
  'told.service-overdue',
  'told.neglected',
  'told.over-speed',
  'told.topped-up-after',
  'told.wrong-oil',
  'told.premix-missed',
  'told.lugging',
  'told.raised-output',
  'told.cold-hard',
]);

/** Grade that a mark gives its place: begun 1, clear 2, far gone 3; 4 where the part seized, spun or broke. */
export function gradeOfMarks(marks: readonly HiddenMark[]): 0 | 1 | 2 | 3 | 4 {
  let grade = 0;
  for (const m of marks) {
    const ends = m.severity === 3 && ENDS.test(m.pattern);
    grade = Math.max(grade, HARMLESS.has(m.pattern) ? Math.min(1, m.severity) : ends ? 4 : m.severity);
  }
  return grade as 0 | 1 | 2 | 3 | 4;
}
const HARMLESS = new Set(PATTERNS.filter((p) => p.facts.includes('harmless')).map((p) => p.id));
const ENDS = /seizure|spun|broken|holed|melt|crack|bolt-broken|pump-seized/;
