import { planDrawing, type EngineLayout, type SurfaceFrame } from '@true-ledger/core/engine';
import type { WearMap } from '@true-ledger/core/damage';
import type { Shape } from '@true-ledger/core/diagnosis';
import { cellColours } from '@true-ledger/core/report';

/** A developed surface as SVG: u across, v up (front edge or deck side as the frame names it), hatch where not seen. */
export function wearSvg(map: WearMap, frame: SurfaceFrame, width: number): string {
  const height = (width * frame.heightMm) / frame.widthMm;
  const w = width / map.columns;
  const h = height / map.rows;
  const upward = frame.vFrom === 'front edge';
  const colours = cellColours(map);
  const cells: string[] = [];
  for (let row = 0; row < map.rows; row++) {
    const y = (upward ? map.rows - 1 - row : row) * h;
    // Cells of one colour beside each other are one box: most of a surface is.
    let from = 0;
    for (let to = 1; to <= map.columns; to++) {
      const colour = colours[row * map.columns + from];
      if (to < map.columns && colours[row * map.columns + to] === colour) continue;
      const box = `x="${(from * w).toFixed(2)}" y="${y.toFixed(2)}" width="${((to - from) * w + 0.1).toFixed(2)}" height="${(h + 0.1).toFixed(2)}"`;
      cells.push(`<rect ${box} fill="${colour ?? '#ffffff'}"/>`);
      if (!colour)
        for (let c = from; c < to; c++)
          cells.push(`<line x1="${c * w}" y1="${y + h}" x2="${(c + 1) * w}" y2="${y}" stroke="#8a9399" stroke-width="0.4"/>`);
      from = to;
    }
  }
  return `<svg width="${width}" height="${height.toFixed(2)}" viewBox="0 0 ${width} ${height.toFixed(2)}">${cells.join('')}<rect x="0" y="0" width="${width}" height="${height.toFixed(2)}" fill="none" stroke="#4a545a" stroke-width="0.6"/></svg>`;
}

/** The engine plan as SVG, front at left. */
export function planSvg(layout: EngineLayout, width: number): string {
  const plan = planDrawing(layout);
  const height = (width * plan.heightMm) / plan.widthMm;
  const mains = plan.mains
    .map(
      (m) =>
        `<rect x="${m.x}" y="${m.y}" width="${m.width}" height="${m.height}" fill="${m.thrust ? '#c9cfd3' : '#e4e7e9'}" stroke="#4a545a" stroke-width="1"/>`,
    )
    .join('');
  const bores = plan.bores
    .map(
      (b) =>
        `<circle cx="${b.x}" cy="${b.y}" r="${b.r}" fill="none" stroke="#4a545a" stroke-width="2"/><text x="${b.x}" y="${b.y + b.r * 0.18}" font-size="${b.r * 0.55}" text-anchor="middle" fill="#20272b">${b.cylinder}</text>`,
    )
    .join('');
  return `<svg width="${width}" height="${height.toFixed(1)}" viewBox="0 0 ${plan.widthMm} ${plan.heightMm}"><line x1="0" y1="${plan.crankY}" x2="${plan.widthMm}" y2="${plan.crankY}" stroke="#8a9399" stroke-width="1" stroke-dasharray="10 5"/>${mains}${bores}</svg>`;
}

const escaped = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** Shapes of a drawing as SVG. */
export function shapesSvg(shapes: readonly Shape[], width: number, height: number): string {
  const body = shapes
    .map((s) => {
      if (s.kind === 'box')
        return `<rect x="${s.x}" y="${s.y}" width="${s.w}" height="${s.h}" fill="${s.fill}" stroke="${s.stroke}" stroke-width="1.2"${s.dash ? ' stroke-dasharray="4 3"' : ''}/>`;
      if (s.kind === 'text')
        return `<text x="${s.x}" y="${s.y}" font-size="${s.size}" font-family="${s.bold ? 'Barlow' : 'B612'}" fill="${s.fill}">${escaped(s.text)}</text>`;
      const [x, y] = s.d.split(' ').slice(-2).map(Number) as [number, number];
      const head = s.arrow ? `<path d="M${x - 5} ${y - 4} L${x + 4} ${y} L${x - 5} ${y + 4} Z" fill="${s.stroke}"/>` : '';
      return `<path d="${s.d}" fill="none" stroke="${s.stroke}" stroke-width="1.4"${s.dash ? ' stroke-dasharray="2 4"' : ''}/>${head}`;
    })
    .join('');
  return `<svg width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${body}</svg>`;
}
