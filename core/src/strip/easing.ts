/** One reading of the turning torque while caps are eased: `cap` is the cap eased just before it, '' for the crank as it came. */
export interface EasingReading {
  readonly cap: string;
  readonly newtonMetre: number;
}

/** What turning torque tells while one cap after the other is eased. */
export interface EasingResult {
  readonly whole: number;
  readonly drops: ReadonlyArray<{
    readonly cap: string;
    readonly before: number;
    readonly after: number;
    readonly drop: number;
    readonly sharePercent: number;
  }>;
  /** Cap whose easing let the crank go: the greatest drop, when it stands out; else null. */
  readonly binding: string | null;
  readonly words: string;
}

/** A drop names a cap when it is at least this share of the torque as it came and this many times the next greatest. */
const BINDING = { share: 0.4, lead: 2 } as const;

/**
 * Which cap binds: the turning torque is read with all caps tight, then after easing each cap in turn (eased caps stay eased). The cap with the
 * greatest drop binds, when the drop is large and well ahead of the others. Null until the first cap is eased.
 */
export function easingResult(readings: readonly EasingReading[]): EasingResult | null {
  const [first, ...rest] = readings;
  if (!first || first.cap !== '' || rest.length === 0) return null;
  let before = first.newtonMetre;
  const drops = rest.map((r) => {
    const drop = before - r.newtonMetre;
    const row = {
      cap: r.cap,
      before,
      after: r.newtonMetre,
      drop,
      sharePercent: first.newtonMetre > 0 ? (drop / first.newtonMetre) * 100 : 0,
    };
    before = r.newtonMetre;
    return row;
  });
  const ranked = [...drops].sort((a, b) => b.drop - a.drop);
  const [top, second] = ranked;
  const binds = top !== undefined && top.sharePercent >= BINDING.share * 100 && top.drop >= BINDING.lead * Math.max(0, second?.drop ?? 0);
  return {
    whole: first.newtonMetre,
    drops,
    binding: binds ? top.cap : null,
    words: binds
      ? `easing ${top.cap} let go ${top.drop.toFixed(0)} of ${first.newtonMetre.toFixed(0)} N·m`
      : `no cap stands out: greatest drop ${(top?.drop ?? 0).toFixed(0)} of ${first.newtonMetre.toFixed(0)} N·m`,
  };
}
