import type { RankedCause } from '../diagnosis/diagnose.js';
import { wrapWords, type Shape } from '../diagnosis/sequence/drawing.js';
import type { SimulatedRoute } from '../salvage/simulate.js';
import type { ReportBlock } from './blocks.js';

type Drawing = Extract<ReportBlock, { kind: 'drawing' }>;

const INK = '#20272b';
const QUIET = '#4a545a';
const ACCENT = '#31418C';
const PLATE = '#b9c2c6';
const FAULT = '#9E2A2A';
const WIDTH = 700;
const BARS = 12;

const text = (x: number, y: number, words: string, more: { size?: number; bold?: boolean; fill?: string } = {}): Shape => ({
  kind: 'text',
  x,
  y,
  size: more.size ?? 11,
  bold: more.bold ?? false,
  fill: more.fill ?? INK,
  text: words,
});
const box = (x: number, y: number, w: number, h: number, fill: string): Shape => ({
  kind: 'box',
  x,
  y,
  w,
  h,
  fill,
  stroke: fill,
  dash: false,
});
const line = (d: string, stroke: string, dash = false): Shape => ({ kind: 'line', d, stroke, dash, arrow: false });

/** Evidence of the leading cause against its strongest rival: each bar begins where the last one ended, for it to the right, against it to the left. */
export function waterfall(lead: RankedCause): Drawing {
  const shown = lead.evidence.slice(0, BARS);
  const left = 300;
  const rows = 18;
  let at = 0;
  const steps = shown.map((e) => {
    const from = at;
    at += e.decibans;
    return { e, from, to: at };
  });
  const least = Math.min(0, ...steps.map((s) => s.to));
  const most = Math.max(1, ...steps.map((s) => s.to));
  const scale = (WIDTH - left - 60) / (most - least);
  const x = (v: number): number => left + (v - least) * scale;
  const height = 30 + steps.length * rows;
  const shapes: Shape[] = [line(`M${x(0)} 8 L${x(0)} ${height - 14}`, QUIET, true)];
  steps.forEach(({ e, from, to }, i) => {
    const y = 10 + i * rows;
    shapes.push(text(0, y + 11, wrapWords(`${e.name}${e.present ? '' : ' (not there)'}`, 50, 1)[0] ?? ''));
    shapes.push(box(x(Math.min(from, to)), y + 2, Math.max(1, Math.abs(to - from) * scale), rows - 6, to >= from ? ACCENT : FAULT));
    shapes.push(
      text(x(Math.max(from, to)) + 4, y + 11, `${e.decibans > 0 ? '+' : '−'}${Math.abs(e.decibans).toFixed(1)}`, { fill: QUIET }),
    );
  });
  shapes.push(text(left, height - 2, `in all ${at > 0 ? '+' : '−'}${Math.abs(at).toFixed(1)} decibans`, { bold: true }));
  return {
    kind: 'drawing',
    shapes,
    width: WIDTH,
    height,
    caption: `Evidence for ${lead.name.toLowerCase()} against its strongest rival, in decibans (10 log₁₀ of the likelihood ratio); each bar begins where the last one ended.${lead.evidence.length > BARS ? ` The ${BARS} heaviest of ${lead.evidence.length}.` : ''}`,
  };
}

/** Cost of the routes: a bar from P10 to P90, a stroke at P50, the budget as a line. */
export function routesChart(routes: readonly SimulatedRoute[], currency: string, budget: number | null): Drawing {
  const left = 170;
  const rows = 24;
  const most = Math.max(1, budget ?? 0, ...routes.map((r) => r.result.cost.p90)) * 1.05;
  const x = (v: number): number => left + (v / most) * (WIDTH - left - 20);
  const height = 34 + routes.length * rows;
  const step = 10 ** Math.floor(Math.log10(most));
  const tick = most / step > 5 ? 2 * step : most / step > 2 ? step : step / 2;
  const shapes: Shape[] = [];
  for (let v = 0; v <= most; v += tick) {
    shapes.push(line(`M${x(v)} 4 L${x(v)} ${height - 24}`, '#dfe3e5'));
    shapes.push(text(x(v) - 2, height - 10, v.toFixed(0), { size: 10, fill: QUIET }));
  }
  routes.forEach(({ route, result }, i) => {
    const y = 6 + i * rows;
    shapes.push(text(0, y + 13, route.name));
    shapes.push(box(x(result.cost.p10), y + 4, Math.max(1, x(result.cost.p90) - x(result.cost.p10)), rows - 12, PLATE));
    shapes.push(box(x(result.cost.p50) - 1.5, y + 1, 3, rows - 6, ACCENT));
  });
  if (budget !== null) shapes.push(line(`M${x(budget)} 2 L${x(budget)} ${height - 24}`, FAULT, true));
  return {
    kind: 'drawing',
    shapes,
    width: WIDTH,
    height,
    caption: `Cost in ${currency}: bar from P10 to P90, stroke at P50${budget !== null ? '; dotted: the budget' : ''}.`,
  };
}
