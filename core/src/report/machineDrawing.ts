import type { Shape } from '../diagnosis/sequence/drawing.js';
import { cylinderPlaces, type EngineLayout } from '../engine/layout.js';
import { planDrawing } from '../engine/plan.js';
import type { MachineLine } from '../salvage/machineSheet.js';
import type { ReportBlock } from './blocks.js';

const INK = '#4a545a';
const PLATE = '#e4e7e9';
const MARK = '#31418C';
const WIDTH = 640;
const MARGIN = 26;
const TAG = 13;

interface Spot {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** The engine from above, front at left, with every place of the machine-shop sheet filled and carrying the numbers of its lines. Lines without a place of their own on the plan are named under it. */
export function machineDrawing(layout: EngineLayout, lines: readonly MachineLine[]): Extract<ReportBlock, { kind: 'drawing' }> {
  const plan = planDrawing(layout);
  const scale = (WIDTH - 2 * MARGIN) / plan.widthMm;
  const height = plan.heightMm * scale + 2 * MARGIN;
  const at = (x: number, y: number): [number, number] => [MARGIN + x * scale, MARGIN + y * scale];
  const spots = new Map<string, Spot>();
  for (const m of plan.mains) {
    const [x, y] = at(m.x, m.y);
    const spot = { x, y, w: m.width * scale, h: m.height * scale };
    for (const id of [`crank.main.${m.main}`, `main.${m.main}.shell.upper`, `main.${m.main}.shell.lower`]) spots.set(id, spot);
  }
  const pinHalf = (layout.rodShellWidthMm * scale) / 2;
  const pinHigh = layout.pinDiameterMm * scale * 0.8;
  const shapes: Shape[] = [
    {
      kind: 'line',
      d: `M${MARGIN / 2} ${at(0, plan.crankY)[1]} L${WIDTH - MARGIN / 2} ${at(0, plan.crankY)[1]}`,
      stroke: INK,
      dash: true,
      arrow: false,
    },
  ];
  const byLine = new Map<string, number[]>();
  lines.forEach((l, i) => l.stations.forEach((s) => byLine.set(s, [...(byLine.get(s) ?? []), i + 1])));
  const tags = new Map<Spot, Set<number>>();
  const mark = (spot: Spot, ids: readonly string[]): boolean => {
    const numbers = ids.flatMap((id) => byLine.get(id) ?? []);
    if (numbers.length === 0) return false;
    tags.set(spot, new Set([...(tags.get(spot) ?? []), ...numbers]));
    return true;
  };
  const box = (s: Spot, on: boolean): Shape => ({ kind: 'box', ...s, fill: on ? '#c3c9e4' : PLATE, stroke: on ? MARK : INK, dash: false });
  for (const b of plan.bores) {
    const [x, y] = at(b.x, b.y);
    const r = b.r * scale;
    // Its number stands low in the circle: the pin has the middle.
    const spot = { x: x - r, y: y + r - TAG - 8, w: 2 * r, h: TAG };
    const on = mark(spot, [`bore.${b.cylinder}`, `head.${b.cylinder}`, `valves.${b.cylinder}`]);
    shapes.push({
      kind: 'line',
      d: `M${x - r} ${y} A${r} ${r} 0 1 1 ${x + r} ${y} A${r} ${r} 0 1 1 ${x - r} ${y}`,
      stroke: on ? MARK : INK,
      dash: !on,
      arrow: false,
    });
    shapes.push({ kind: 'text', x: x - 4, y: y - r + 15, size: 12, bold: true, fill: INK, text: String(b.cylinder) });
  }
  // Two rods of a vee share a pin: it is drawn once and answers for both.
  const places = cylinderPlaces(layout);
  for (const pin of new Set(places.map((p) => p.pin))) {
    const own = places.filter((p) => p.pin === pin).map((p) => p.cylinder);
    const [x] = at(plan.bores.find((b) => b.cylinder === own[0])!.x, 0);
    const spot = { x: x - pinHalf, y: at(0, plan.crankY)[1] - pinHigh / 2, w: 2 * pinHalf, h: pinHigh };
    shapes.push(box(spot, mark(spot, [`crank.pin.${pin + 1}`, ...own.map((c) => `rod.${c}`)])));
  }
  const drawn = new Set<Spot>();
  for (const [id, spot] of spots) {
    const on = mark(spot, [id]);
    if (!drawn.has(spot) || on) shapes.push(box(spot, on || tags.has(spot)));
    drawn.add(spot);
  }
  for (const [spot, numbers] of tags) {
    let x = spot.x + spot.w / 2 - (numbers.size * (TAG + 2)) / 2;
    for (const n of [...numbers].sort((a, b) => a - b)) {
      shapes.push({ kind: 'box', x, y: spot.y + spot.h / 2 - TAG / 2, w: TAG, h: TAG, fill: '#ffffff', stroke: MARK, dash: false });
      shapes.push({ kind: 'text', x: x + (n < 10 ? 4 : 1), y: spot.y + spot.h / 2 + 4, size: 10, bold: true, fill: MARK, text: String(n) });
      x += TAG + 2;
    }
  }
  const placed = new Set([...tags.values()].flatMap((t) => [...t]));
  const elsewhere = lines.flatMap((l, i) => (placed.has(i + 1) ? [] : [`${i + 1}: ${l.part}`]));
  return {
    kind: 'drawing',
    shapes,
    width: WIDTH,
    height,
    caption: `From above, front at left; numbers are those of the lines.${elsewhere.length > 0 ? ` Not on the plan: ${elsewhere.join(', ')}.` : ''}`,
  };
}
