import { bearingsOf } from '../engine/bearings.js';
import type { EngineLayout } from '../engine/layout.js';
import type { Station } from '../engine/stations.js';
import { loadsOf, runningEngine } from '../loads/engineFile.js';
import { bearingForce, largest, projectedMm2 } from '../loads/loadsJson.js';
import { memo } from '../kit/memo.js';
import { operatingOf } from '../running/run.js';
import { usualSetting } from '../running/setting.js';
import { sleeveDeg } from '../running/shellArc.js';

/** What a bearing carries at the usual setting: its highest specific load as a share of the highest of the engine, and the share of the load that lies on its upper half. */
interface Carried {
  readonly most: number;
  readonly upper: number;
}

const carried: (layout: EngineLayout) => ReadonlyMap<string, Carried> = memo('loads of a practice engine', (layout: EngineLayout) => {
  const names = bearingsOf(layout);
  const engine = names[0] ? runningEngine(layout, operatingOf(usualSetting(layout, names[0], {}))) : null;
  if (!engine?.ok) return new Map<string, Carried>();
  const loads = loadsOf(engine.value);
  const each = names.map((name) => {
    const force = bearingForce(loads, name);
    const crown = (sleeveDeg(layout, name, 'upper', 90) * Math.PI) / 180;
    let [above, all] = [0, 0];
    for (let i = 0; i < force.x.length; i++) {
      const n = Math.hypot(force.x[i]!, force.y[i]!);
      all += n;
      if (force.x[i]! * Math.cos(crown) + force.y[i]! * Math.sin(crown) > 0) above += n;
    }
    return { name, mpa: largest(force).n / projectedMm2(engine.value, name), upper: all > 0 ? above / all : 0.5 };
  });
  const top = Math.max(...each.map((e) => e.mpa));
  return new Map(each.map(({ name, mpa, upper }) => [name, { most: mpa / top, upper }]));
});

/** Least share of what the worst place takes that a lightly loaded one takes. Judgement. */
const LIGHTLY = 0.5;

/** How far the load leans on a place, 0 to 1: the highest specific load of its bearing, and how much of it lies on its half. 1 for what runs in no bearing. */
export function loadAt(layout: EngineLayout, station: Station): number {
  const of = station.bearing === null ? undefined : carried(layout).get(station.bearing);
  if (!of) return 1;
  const half = station.half === null ? 1 : station.half === 'upper' ? of.upper : 1 - of.upper;
  const onHalf = station.half === null ? 1 : half / Math.max(of.upper, 1 - of.upper);
  return LIGHTLY + (1 - LIGHTLY) * of.most * onHalf;
}
