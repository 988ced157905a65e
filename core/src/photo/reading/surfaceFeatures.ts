import type { WearClass } from '../../damage/classes.js';
import { lineDepth } from '../../damage/surfaceRead.js';
import type { LineDepth, WearMap, WearSummary } from '../../damage/wearMap.js';
import type { CameraModel } from '../cameraModel.js';
import type { Layered } from './layer.js';
import type { FoundLine } from './lines.js';
import { type SurfaceFeatures, MAP_COLUMNS, MAP_ROWS } from './surfaceReading.js';

export function depthsOf(lines: readonly FoundLine[]): Record<LineDepth, number> {
  const counts: Record<LineDepth, number> = { hair: 0, probe: 0, nail: 0, through: 0 };
  for (const l of lines) counts[lineDepth(l)]++;
  return counts;
}

export function featuresOf(
  map: WearMap,
  summary: WearSummary,
  layered: Layered,
  lines: readonly FoundLine[],
  camera: Pick<CameraModel, 'widthMm' | 'heightMm' | 'spanDeg'>,
): SurfaceFeatures {
  const span = camera.spanDeg || 180;
  let [n, sx, sy, sxx, syy, sxy] = [0, 0, 0, 0, 0, 0];
  for (let cell = 0; cell < map.seen.length; cell++) {
    const damage = (1 - map.shares.sound[cell]!) * map.seen[cell]!;
    if (damage <= 0.001 || map.seen[cell] === 0) continue;
    const x = (cell % MAP_COLUMNS) / MAP_COLUMNS;
    const y = Math.floor(cell / MAP_COLUMNS) / MAP_ROWS;
    n += damage;
    sx += damage * x;
    sy += damage * y;
    sxx += damage * x * x;
    syy += damage * y * y;
    sxy += damage * x * y;
  }
  const spread = n > 0 ? Math.sqrt(Math.max(0, (sxx / n - (sx / n) ** 2) * (syy / n - (sy / n) ** 2))) : 0;
  return {
    specks: layered.specks,
    crazedPercent: layered.crazed * 100,
    edgeBias: summary.edgeBias,
    liningEdgeBias: biasOf(map, 'lining'),
    arcCentreDeg: summary.arcCentre === null || camera.spanDeg === 0 ? null : summary.arcCentre * span,
    linesPercent: linesShare(lines, camera) * 100,
    arcSharePercent: summary.arcShare * 100,
    frontEdgePercent: summary.edgeShare.front * 100,
    rearEdgePercent: summary.edgeShare.rear * 100,
    diagonal: n > 1 && spread > 0.005 ? (sxy / n - (sx / n) * (sy / n)) / spread : 0,
    holes: layered.voids,
  };
}

/** Lines as share of the surface: their lengths by their widths. */
function linesShare(lines: readonly FoundLine[], camera: Pick<CameraModel, 'widthMm' | 'heightMm' | 'spanDeg'>): number {
  const perDegree = camera.widthMm / (camera.spanDeg || 180);
  return lines.reduce((s, l) => s + (l.toDeg - l.fromDeg) * perDegree * l.widthMm, 0) / (camera.widthMm * camera.heightMm);
}

function biasOf(map: WearMap, name: WearClass): number | null {
  const halves = [0, 0];
  let all = 0;
  for (let cell = 0; cell < map.seen.length; cell++) {
    const seen = map.seen[cell]!;
    all += seen;
    halves[Math.floor(cell / MAP_COLUMNS) < MAP_ROWS / 2 ? 0 : 1]! += seen * map.shares[name][cell]!;
  }
  const [front, rear] = halves as [number, number];
  return front + rear < 0.002 * all ? null : (rear - front) / (rear + front);
}
