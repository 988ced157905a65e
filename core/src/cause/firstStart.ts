import type { EngineLayout } from '../engine/layout.js';
import { isPressureFed } from '../engine/layout.js';
import { cause } from './data/causes.js';

export interface StartStep {
  readonly what: string;
  /** What can hurt someone here, in one line. */
  readonly caution?: string;
}

/** First start after work: what is done in order, made from the layout and the causes that were confirmed. The engine maker's data stands before it. */
export function firstStartProcedure(layout: EngineLayout, confirmed: readonly string[]): StartStep[] {
  const fed = isPressureFed(layout);
  const steps: StartStep[] = [
    {
      what: 'Turn two full turns by hand: it must not bind, and valves must not touch.',
      caution: 'Battery off while hands are at the crank.',
    },
  ];
  if (layout.lubrication === 'premix') {
    steps.push({
      what: 'Mix fresh fuel in a marked can; write the ratio on it. Wet bores and rollers with the same oil.',
      caution: 'Fuel vapour: no flame, no cigarette, open doors.',
    });
  } else {
    steps.push({ what: 'Fill oil to the upper mark; new filter filled where it stands upright.' });
    if (fed)
      steps.push({
        what: 'Prime with fuel or ignition off until the gauge shows pressure, and ten seconds more. No pressure, no start.',
        caution: 'Keep clear of belts and fan while it cranks.',
      });
    else steps.push({ what: 'Pour oil over the big end and into the dipper trough before closing.' });
  }
  if (layout.cooling === 'liquid')
    steps.push({ what: 'Fill coolant and bleed at the highest points.', caution: 'Never open a hot system: steam scalds.' });
  steps.push({
    what: fed
      ? 'Start. Pressure within five seconds, or stop. Run at a fast idle, watching pressure, temperature and leaks.'
      : 'Start. Run at a fast idle, listening and watching for leaks.',
    caution: 'Exhaust gas kills: run in the open or with extraction. Know how you will stop it before you start it.',
  });
  steps.push({
    what: 'Warm up, stop, let it cool; re-torque what its type asks for, check levels, look for metal in the drained oil of the filter.',
  });
  steps.push({
    what:
      layout.lubrication === 'premix'
        ? 'Vary the load for the first five hours; no full load.'
        : 'Vary the load for the first twenty hours; no long idling, no full load.',
  });
  if (layout.lubrication !== 'premix')
    steps.push({
      what: 'First oil and filter at 20 hours, cut the filter open. Oil samples at 20, 100 and 250 hours: only the trend tells.',
    });
  const after = new Set(confirmed.map((id) => cause(id)?.firstStart));
  if (after.has('new cam'))
    steps.splice(steps.length - 2, 0, {
      what: 'New cam: straight to 2 000 rpm and hold it for twenty minutes, with the oil its maker asks for.',
    });
  if (after.has('cooling'))
    steps.push({ what: 'Press the cooling system, or measure the head temperature at load, after the first hour and again at 20 hours.' });
  return steps;
}
