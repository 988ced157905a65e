import { LEAST, type FeatureRow, type Observation } from './model.js';
import type { Cause } from './types.js';

/** How much likelier (log odds) another fault of one family is beside a cause that stands for several small ones. Judgement. */
export const COUPLED = Math.log(6);
const COUPLING = Math.exp(COUPLED);

/** What is observed, and which causes touch it. Touches stand in a row, those of one cause together. */
export interface Laid {
  readonly causes: readonly Cause[];
  readonly weighed: readonly Observation[];
  readonly rows: readonly FeatureRow[];
  /** Feature of every touch, and where the touches of each cause begin; one more entry ends the last. */
  readonly feature: Uint16Array;
  readonly from: Uint32Array;
  /** 1 where a cause neither rules the feature out nor takes from its leak. */
  readonly plain: Uint8Array;
  /** Chance that no damage which was found brings the feature about by itself. */
  readonly unexplained: Float64Array;
  readonly several: number;
  readonly kin: readonly boolean[];
}

/** Figures of the table for what is laid out: prior odds by cause, leak by feature, and by touch what a cause leaves of each of the three products of the noisy-OR. */
export interface Figures {
  readonly odds: Float64Array;
  readonly leak: Float64Array;
  readonly allow: Float64Array;
  readonly keep: Float64Array;
  readonly spare: Float64Array;
}

/** Lays observations against causes; `rows` what every cause does to each observed feature. */
export function layOut(
  causes: readonly Cause[],
  weighed: readonly Observation[],
  rows: readonly FeatureRow[],
  explained: ReadonlyMap<string, number> | undefined,
): Laid {
  const touching: number[][] = causes.map(() => []);
  rows.forEach((row, f) => row.touched.forEach((c) => touching[c]!.push(f)));
  const from = new Uint32Array(causes.length + 1);
  touching.forEach((list, c) => (from[c + 1] = from[c]! + list.length));
  const several = causes.findIndex((c) => c.several);
  return {
    causes,
    weighed,
    rows,
    feature: Uint16Array.from(touching.flat()),
    from,
    plain: Uint8Array.from(touching.flatMap((list, c) => list.map((f) => (rows[f]!.allow[c] === 1 && rows[f]!.spare[c] === 1 ? 1 : 0)))),
    unexplained: Float64Array.from(weighed, (o) => 1 - (explained?.get(o.feature) ?? 0)),
    several,
    kin: causes.map((c, i) => several >= 0 && i !== several && c.family === causes[several]!.family),
  };
}

/** The figures as the table states them. */
export function statedFigures({ rows, feature, from }: Laid, odds: readonly number[]): Figures {
  const figures = {
    odds: Float64Array.from(odds),
    leak: Float64Array.from(rows, (row) => row.feature.leak),
    allow: new Float64Array(feature.length),
    keep: new Float64Array(feature.length),
    spare: new Float64Array(feature.length),
  };
  for (let c = 0; c < odds.length; c++)
    for (let t = from[c]!, end = from[c + 1]!; t < end; t++) {
      const row = rows[feature[t]!]!;
      figures.allow[t] = row.allow[c]!;
      figures.keep[t] = row.allow[c]! * row.keep[c]!;
      figures.spare[t] = row.allow[c]! * row.keep[c]! * row.spare[c]!;
    }
  return figures;
}

/** What causes that may come to a core hold about it. */
export interface Beliefs {
  /** Odds of each, given the core and what all the others hold. By cause; 0 for those that may not come. */
  readonly odds: Float64Array;
  /** log of how much likelier each makes by itself what was found and the core does not account for; 0 where messages went on from before. */
  readonly explains: Float64Array;
  /** log of the sum over all sets of them, against none of them. */
  readonly gain: number;
  /** What every feature told every cause at last, by touch. Where they went on from before, only until the next. */
  readonly messages: Float64Array;
}

/** Passes of messages from nothing, and from what was told before. From the second on half of each message is kept, so that they do not swing. */
const PASSES = 3;
const PASSES_ON = 1;
const UTMOST = 1e100;
const LOWEST = 1e-100;

/**
 * The evidence as it stands at a core, and what further causes hold about it by belief propagation (Pearl 1988, ch. 4; the sum over the sets by Bethe: Yedidia, Freeman & Weiss 2005). A cause tells
 * every feature how likely it is by all else; a feature tells every cause how much likelier it makes what was observed, where the others are as likely as they say. A chance of a feature is a sum of
 * three products over causes (`joint.ts`), so that the mean over independent causes is exact. The whole is exact where no two causes share more than one feature; where they do, the search tells
 * causes apart.
 */
export class Standing {
  private readonly slope: Float64Array;
  private readonly no: Float64Array;
  // At the core: Π(1−o), Π(1−w)(1−o), leak · Π(1−v)(1−w)(1−o), and the likelihood of what was observed.
  private readonly allowed: Float64Array;
  private readonly kept: Float64Array;
  private readonly spared: Float64Array;
  private readonly like: Float64Array;
  // The same with the others as likely as they are held to be.
  private readonly meanAllowed: Float64Array;
  private readonly meanKept: Float64Array;
  private readonly meanSpared: Float64Array;
  private readonly passing: Float64Array;
  /** By touch: how likely the cause tells the feature it is. */
  private readonly chance: Float64Array;
  // Between the cause that stands for several and the others of its family.
  private readonly toKin: Float64Array;
  private readonly fromKin: Float64Array;
  private readonly prior: Float64Array;
  private core: readonly number[] = [];
  /** log of prior odds times likelihood of the core by itself. */
  log = 0;

  constructor(
    private readonly laid: Laid,
    private figures: Figures,
  ) {
    const ofFeatures = (): Float64Array => new Float64Array(laid.weighed.length);
    const ofCauses = (): Float64Array => new Float64Array(laid.causes.length);
    this.slope = Float64Array.from(laid.weighed, (o) => o.ifPresent - o.ifAbsent);
    this.no = Float64Array.from(laid.weighed, (o) => o.ifAbsent);
    [this.allowed, this.kept, this.spared, this.like] = [ofFeatures(), ofFeatures(), ofFeatures(), ofFeatures()];
    [this.meanAllowed, this.meanKept, this.meanSpared] = [ofFeatures(), ofFeatures(), ofFeatures()];
    [this.toKin, this.fromKin, this.prior] = [ofCauses(), ofCauses(), ofCauses()];
    this.chance = new Float64Array(laid.feature.length);
    this.passing = new Float64Array(laid.feature.length);
  }

  /** Takes other figures; a core must be stood at anew. */
  take(figures: Figures): void {
    this.figures = figures;
  }

  /** Makes the state that of a core. */
  standAt(core: readonly number[]): void {
    const { feature, from, unexplained, several, kin } = this.laid;
    const { odds, leak, allow, keep, spare } = this.figures;
    const { allowed, kept, spared, like } = this;
    this.core = core;
    for (let f = 0; f < like.length; f++) {
      allowed[f] = 1;
      kept[f] = unexplained[f]!;
      spared[f] = unexplained[f]! * leak[f]!;
    }
    let log = 0;
    core.forEach((c, k) => {
      for (let t = from[c]!, end = from[c + 1]!; t < end; t++) {
        const f = feature[t]!;
        allowed[f] = allowed[f]! * allow[t]!;
        kept[f] = kept[f]! * keep[t]!;
        spared[f] = spared[f]! * spare[t]!;
      }
      log += Math.log(odds[c]!);
      if (c === several || kin[c]) for (let j = 0; j < k; j++) if (this.coupled(c, core[j]!)) log += COUPLED;
    });
    for (let f = 0; f < like.length; f++) {
      like[f] = this.likelihood(f, allowed[f]!, kept[f]!, spared[f]!);
      log += Math.log(like[f]!);
    }
    this.log = log;
  }

  private coupled(a: number, b: number): boolean {
    const { several, kin } = this.laid;
    return (a === several && kin[b]!) || (b === several && kin[a]!);
  }

  private likelihood(f: number, allowed: number, kept: number, spared: number): number {
    const l = (allowed - kept + spared) * this.slope[f]! + this.no[f]!;
    return l < LEAST ? LEAST : l;
  }

  /** What these causes hold about the core that stands; `before` is what was told there under other figures, or at the core this one came of. */
  settle(rest: readonly number[], before?: Beliefs): Beliefs {
    const { several, kin } = this.laid;
    const messages = before ? this.passing : new Float64Array(this.laid.feature.length);
    if (before) messages.set(before.messages);
    const odds = new Float64Array(this.laid.causes.length);
    const explains = new Float64Array(this.laid.causes.length);
    for (const c of rest) {
      let prior = this.figures.odds[c]!;
      for (const m of this.core) if (this.coupled(c, m)) prior *= COUPLING;
      this.prior[c] = prior;
      this.toKin[c] = 1;
      this.fromKin[c] = 1;
    }
    if (before) for (const c of rest) odds[c] = this.oddsBy(c, messages);
    else this.begin(rest, messages, odds, explains);
    const family = several >= 0 && rest.includes(several) ? rest.filter((c) => kin[c]) : [];
    if (!before)
      for (const c of family) {
        explains[several] = explains[several]! + (COUPLED * odds[c]!) / (1 + odds[c]!);
        explains[c] = explains[c]! + (COUPLED * odds[several]!) / (1 + odds[several]!);
      }
    const passes = before ? PASSES_ON : PASSES;
    for (let pass = 0; pass < passes; pass++) {
      this.takeMeans(rest, messages, odds);
      this.pass(rest, messages, odds, pass > 0);
      this.passInFamily(family, odds);
    }
    this.takeMeans(rest, messages, odds);
    return { odds, explains, gain: this.gainOf(rest, messages, odds, family), messages };
  }

  private oddsBy(c: number, messages: Float64Array): number {
    let r = this.prior[c]!;
    const end = this.laid.from[c + 1]!;
    for (let t = this.laid.from[c]!; t < end; t++) r = within(r * messages[t]!);
    return r;
  }

  /** What each cause is told, and explains, by itself. */
  private begin(rest: readonly number[], messages: Float64Array, odds: Float64Array, explains: Float64Array): void {
    const { feature, from } = this.laid;
    const { allow, keep, spare } = this.figures;
    const { allowed, kept, spared, like, slope, no } = this;
    for (const c of rest) {
      let r = this.prior[c]!;
      let gained = 1;
      for (let t = from[c]!, end = from[c + 1]!; t < end; t++) {
        const f = feature[t]!;
        const l = (allowed[f]! * allow[t]! - kept[f]! * keep[t]! + spared[f]! * spare[t]!) * slope[f]! + no[f]!;
        const m = (l < LEAST ? LEAST : l) / like[f]!;
        if (m > 1 && slope[f]! > 0) gained = within(gained * m);
        messages[t] = m;
        r = within(r * m);
      }
      odds[c] = r;
      explains[c] = Math.log(gained);
    }
  }

  /** The three products of every feature where each cause is as likely as it tells that feature. */
  private takeMeans(rest: readonly number[], messages: Float64Array, odds: Float64Array): void {
    const { feature, from, plain } = this.laid;
    const { allow, keep, spare } = this.figures;
    const { meanAllowed, meanKept, meanSpared, chance } = this;
    meanAllowed.set(this.allowed);
    meanKept.set(this.kept);
    meanSpared.set(this.spared);
    for (const c of rest) {
      const r = odds[c]!;
      for (let t = from[c]!, end = from[c + 1]!; t < end; t++) {
        const f = feature[t]!;
        const q = r / (r + messages[t]!);
        chance[t] = q;
        const kept = 1 - q * (1 - keep[t]!);
        meanKept[f] = meanKept[f]! * kept;
        if (plain[t]) {
          meanSpared[f] = meanSpared[f]! * kept;
          continue;
        }
        meanAllowed[f] = meanAllowed[f]! * (1 - q * (1 - allow[t]!));
        meanSpared[f] = meanSpared[f]! * (1 - q * (1 - spare[t]!));
      }
    }
  }

  /** Every feature tells every cause anew, from the means without that cause. */
  private pass(rest: readonly number[], messages: Float64Array, odds: Float64Array, damped: boolean): void {
    const { feature, from, plain } = this.laid;
    const { allow, keep, spare } = this.figures;
    const { chance, meanAllowed, meanKept, meanSpared, slope, no } = this;
    for (const c of rest) {
      let r = this.prior[c]! * this.toKin[c]!;
      for (let t = from[c]!, end = from[c + 1]!; t < end; t++) {
        const f = feature[t]!;
        const q = chance[t]!;
        const k = keep[t]!;
        let without: number;
        let withIt: number;
        if (plain[t]) {
          const bare = (meanSpared[f]! - meanKept[f]!) / (1 - q * (1 - k));
          without = (meanAllowed[f]! + bare) * slope[f]! + no[f]!;
          withIt = (meanAllowed[f]! + bare * k) * slope[f]! + no[f]!;
        } else {
          const allowed = meanAllowed[f]! / (1 - q * (1 - allow[t]!));
          const kept = meanKept[f]! / (1 - q * (1 - k));
          const spared = meanSpared[f]! / (1 - q * (1 - spare[t]!));
          without = (allowed - kept + spared) * slope[f]! + no[f]!;
          withIt = (allowed * allow[t]! - kept * k + spared * spare[t]!) * slope[f]! + no[f]!;
        }
        const now = (withIt < LEAST ? LEAST : withIt) / (without < LEAST ? LEAST : without);
        const told = damped ? Math.sqrt(messages[t]! * now) : now;
        messages[t] = told;
        r = within(r * told);
      }
      odds[c] = r;
    }
  }

  /** The cause that stands for several and the others of its family tell each other. */
  private passInFamily(family: readonly number[], odds: Float64Array): void {
    if (family.length === 0) return;
    const { toKin, fromKin } = this;
    const { several } = this.laid;
    const all = odds[several]!;
    for (const c of family) {
      const one = all / fromKin[c]!;
      const other = odds[c]! / toKin[c]!;
      toKin[c] = Math.sqrt((toKin[c]! * (1 + COUPLING * one)) / (1 + one));
      fromKin[c] = Math.sqrt((fromKin[c]! * (1 + COUPLING * other)) / (1 + other));
      odds[c] = other * toKin[c]!;
    }
    const before = toKin[several]!;
    toKin[several] = family.reduce((p, c) => p * fromKin[c]!, 1);
    odds[several] = (all / before) * toKin[several]!;
  }

  /** log of the sum over the sets by Bethe: what features, causes and pairs hold, less what is counted twice between them. */
  private gainOf(rest: readonly number[], messages: Float64Array, odds: Float64Array, family: readonly number[]): number {
    const { from, several } = this.laid;
    const logs = new Logs();
    for (let f = 0; f < this.like.length; f++)
      logs.take(this.likelihood(f, this.meanAllowed[f]!, this.meanKept[f]!, this.meanSpared[f]!) / this.like[f]!);
    for (const c of rest) {
      const r = odds[c]!;
      logs.take(1 + r);
      for (let t = from[c]!; t < from[c + 1]!; t++) logs.take((r + messages[t]!) / ((r + 1) * messages[t]!));
    }
    for (const c of family) {
      const q = odds[c]! / (odds[c]! + this.toKin[c]!);
      const s = odds[several]! / (odds[several]! + this.fromKin[c]!);
      logs.take(1 + q * s * (COUPLING - 1));
      logs.take(1 / ((1 - q + q * this.toKin[c]!) * (1 - s + s * this.fromKin[c]!)));
    }
    return logs.sum;
  }
}

/** Logarithm of a product of many factors. */
class Logs {
  private log = 0;
  private product = 1;

  take(factor: number): void {
    this.product *= factor;
    if (this.product > 1e150 || this.product < 1e-150) {
      this.log += Math.log(this.product);
      this.product = 1;
    }
  }

  get sum(): number {
    return this.log + Math.log(this.product);
  }
}

/** Odds that stay figures whatever is multiplied with them. */
const within = (x: number): number => (x > UTMOST ? UTMOST : x < LOWEST ? LOWEST : x);
