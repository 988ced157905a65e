import { cylinderPlaces, pinNumber, type EngineLayout } from '../../engine/layout.js';
import type { FastenerPattern } from '../../strip/fasteners.js';
import { DEEPEST_MARK, type SheetPlace } from '../program/cells.js';

/**
 * The true geometry of a demonstration engine, for the stand-ins of gauges and for demo readings: every size follows from the layout, a seed and how badly a station
 * is damaged (0 sound to 1 gone). Sizes of different sheets agree with each other: a clearance is its housing less its walls less its journal.
 */
export interface TrueEngine {
  readonly layout: EngineLayout;
  readonly seed: string;
  readonly severity: (station: string) => number;
}

/** −1 to 1, the same for the same words (FNV-1a, then a mixing step). */
function chance(words: string): number {
  let h = 2166136261;
  for (let i = 0; i < words.length; i++) h = Math.imul(h ^ words.charCodeAt(i), 16777619);
  h = Math.imul(h ^ (h >>> 15), 2246822507);
  h ^= h >>> 13;
  return ((h >>> 0) / 0xffffffff) * 2 - 1;
}

const DEPTH_WEAR = [1, 0.55, 0.3, 0.12] as const;
const AXIS_WEAR: Readonly<Record<string, number>> = { A: 1, B: 0.55, C: 0.82, D: 0.74 };

function journalMm(t: TrueEngine, station: string, plane: string, axis: string): number {
  const nominal = station.startsWith('crank.pin') ? t.layout.pinDiameterMm : t.layout.mainDiameterMm;
  const w = t.severity(station);
  const h = (what: string): number => chance(`${t.seed} ${station} ${what}`);
  const made = nominal - 0.008 + 0.003 * h('made');
  const wear = axis === 'A' ? 0.002 + 0.032 * w : 0.001 + 0.019 * w;
  const along = plane === 'mid' ? -(0.001 + 0.006 * w) : (plane === 'front' ? -1 : 1) * (0.001 * h('taper') + 0.004 * w * h('lean'));
  return made - wear + along;
}

function boreMm(t: TrueEngine, cylinder: string, depth: number, axis: string): number {
  const station = `bore.${cylinder}`;
  const made = t.layout.boreMm + 0.007 + 0.004 * chance(`${t.seed} ${station}`);
  return made + (0.014 + 0.11 * t.severity(station)) * DEPTH_WEAR[depth]! * (AXIS_WEAR[axis] ?? 0.7);
}

interface Bearing {
  readonly journal: number;
  readonly wall: number;
  readonly severity: (half: 'upper' | 'lower') => number;
  readonly housing: (direction: string) => number;
}

function bearing(t: TrueEngine, station: string): Bearing {
  const [part, number] = station.split('.') as [string, string];
  const main = part === 'main';
  const nominal = main ? t.layout.mainDiameterMm : t.layout.pinDiameterMm;
  const wall = (main ? 2 : 1.5) + (nominal > 70 ? 0.5 : 0);
  const place = cylinderPlaces(t.layout).find((p) => String(p.cylinder) === number);
  const journal = main ? `crank.main.${number}` : `crank.pin.${place ? pinNumber(t.layout, place) : number}`;
  const severity = (half: 'upper' | 'lower'): number => t.severity(`${part}.${number}.shell.${half}`);
  const made = nominal + 2 * wall + 0.034 + 0.003 * chance(`${t.seed} ${part} ${number} housing`);
  return {
    journal: (journalMm(t, journal, 'front', 'A') + journalMm(t, journal, 'mid', 'A') + journalMm(t, journal, 'rear', 'A')) / 3,
    wall,
    severity,
    housing: (direction) => made + (direction === 'vertical' ? 0.016 * severity('lower') : -0.003),
  };
}

/** True value of a cell, in its canonical unit. */
export function trueValue(t: TrueEngine, place: SheetPlace, key: string): number {
  const station = place.station ?? 'engine';
  const number = station.split('.')[1] ?? '1';
  const w = t.severity(station);
  const h = (what: string): number => chance(`${t.seed} ${place.id} ${what}`);
  const first = key.split('.')[0]!;
  if (key === DEEPEST_MARK) return 0.004 + 0.06 * w;
  switch (place.kind) {
    case 'journal':
      return journalMm(t, station, first, key.split('.')[1] ?? 'A');
    case 'bore': {
      if (key === 'unworn') return t.layout.boreMm + 0.007 + 0.004 * chance(`${t.seed} ${station}`);
      if (key === 'temperatureC') return 19;
      const depths = [...new Set(place.cells.flatMap((c) => (c.list === 'at' ? [String(c.item?.['depthMm'])] : [])))];
      return boreMm(t, number, Math.max(0, depths.indexOf(first)), key.split('.')[1] ?? 'A');
    }
    case 'piston': {
      const made = t.layout.boreMm - 0.04 + 0.003 * h('made');
      const sizes: Record<string, number> = {
        piston: made - 0.008 - 0.03 * w,
        bore: boreMm(t, number, 1, 'A'),
        new: t.layout.boreMm - 0.04,
        crown: t.layout.boreMm - 0.46,
        pinBoss: Math.round(t.layout.boreMm * 0.26) + 0.006 + 0.02 * w,
        print: t.layout.boreMm * (0.24 + 0.1 * w),
        temperatureC: 19,
      };
      return sizes[key] ?? 0;
    }
    case 'ring': {
      const gap = t.layout.boreMm * 0.0042 + 0.03 * h('gap');
      const height = place.sheet === 'ring.oil' ? 3 : 1.5;
      const sizes: Record<string, number> = {
        gapUnworn: gap,
        gapWorn: gap + Math.PI * (boreMm(t, number, 0, 'D') - t.layout.boreMm - 0.007),
        groove: height + 0.045 + 0.06 * t.severity(`rings.${number}.pack`),
        ring: height - 0.008,
        grooveDepth: t.layout.boreMm * 0.042 + 0.4,
        ringDepth: t.layout.boreMm * 0.042,
        freeGap: t.layout.boreMm * (0.12 - 0.05 * w),
        tension: 11 - 5 * w + h('tension'),
      };
      return sizes[key] ?? 0;
    }
    case 'shell-clearance': {
      const b = bearing(t, station);
      if (first === 'housing') return b.housing(key.split('.')[1] ?? 'vertical');
      const half = key.startsWith('upper') ? 'upper' : 'lower';
      if (key === 'journal') return b.journal;
      if (key === 'newWall') return b.wall;
      return b.wall - 0.001 - 0.024 * b.severity(half) - (key.endsWith('Side') ? 0.009 : 0);
    }
    case 'crushed-strip': {
      if (key === 'thread') return 0.25;
      const b = bearing(t, station);
      const clearance = b.housing('vertical') - 2 * (b.wall - 0.001) + 0.024 * (b.severity('upper') + b.severity('lower')) - b.journal;
      return (Math.PI * 0.25 ** 2) / (4 * Math.max(0.01, clearance + 0.002 * h(key)));
    }
    case 'shell-fit': {
      const b = bearing(t, station);
      const half = station.endsWith('upper') ? 'upper' : 'lower';
      const housing = b.housing('left');
      return key === 'protrusion'
        ? 0.045 - 0.03 * b.severity(half)
        : key === 'freeSpread'
          ? housing + 0.6 - 0.55 * b.severity(half)
          : housing;
    }
    case 'housing':
      return bearing(t, station).housing(key);
    case 'end-float':
    case 'side-clearance':
      return key === 'towards' ? 0 : (place.kind === 'end-float' ? 0.14 : 0.22) + 0.03 * h('play') + 0.25 * w;
    case 'rod':
      return key === 'centres' ? t.layout.rodLengthMm + 0.01 * h('centres') : 0.012 * h(key) + 0.09 * w * h(`${key} bent`);
    case 'crank-runout': {
      const main = Number(key.split('.')[1]);
      const share = (main - 1) / Math.max(1, t.layout.mains - 1);
      const worst = Math.max(0, ...Array.from({ length: t.layout.mains }, (_, i) => t.severity(`crank.main.${i + 1}`)));
      return key.endsWith('highDeg') ? 40 + 8 * chance(`${t.seed} ${key}`) : 0.006 + 4 * share * (1 - share) * (0.008 + 0.05 * worst);
    }
    case 'main-line':
      return Math.max(0, 0.008 + 0.008 * h(key) + 0.05 * t.severity(`main.${key.split('.')[1]}.shell.lower`));
    case 'flatness': {
      if (key === 'scratch') return 0.012 + 0.03 * w;
      const [x, y] = key.split('.').map((part) => Number(part.slice(1))) as [number, number];
      const columns = Math.max(...place.cells.flatMap((c) => (c.list === 'points' ? [Number(c.key.split('.')[0]!.slice(1))] : [])));
      const along = (x - 1) / Math.max(1, columns - 1);
      return 0.02 * along - 0.004 * (y - 2) - (0.012 + 0.12 * w) * Math.sin(Math.PI * along) + 0.002 * h(key);
    }
    case 'cam': {
      if (first === 'journal') return key.endsWith('bore') ? 44.03 : 43.965 + 0.004 * h(key);
      const base = 34 + 0.006 * h(`${key.split('.').slice(0, 3).join('.')} base`);
      return key.endsWith('base') ? base : base + (key.includes('intake') ? 8.8 : 8.6) - 0.02 - 0.015 * Math.abs(h(key));
    }
    case 'valve-seat':
      return key === 'startKpa' ? 60 : key === 'seconds' ? 10 : 58 - 4 * Math.abs(h(key));
    case 'oil-pump': {
      const sizes: Record<string, number> = {
        end: 0.055 + 0.1 * w,
        tip: 0.12 + 0.15 * w,
        side: 0.11 + 0.12 * w,
        springLength: 46.4,
        popPressure: 4.3,
      };
      return sizes[key] ?? 0;
    }
    default:
      return 0;
  }
}

/** True break-loose torque of a fastener, N·m: about as much as the bore has millimetres for a head, the pin for a cap, a tenth either way. */
export function trueTorque(t: TrueEngine, pattern: FastenerPattern, position: string): number {
  const size = pattern.id.startsWith('head') ? 1.05 * t.layout.boreMm : 0.95 * t.layout.pinDiameterMm;
  return size * (1 + 0.1 * chance(`${t.seed} ${pattern.id} ${position}`));
}
