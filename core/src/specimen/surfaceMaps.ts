import { layFinish, type Finish } from './bases.js';
import type { Damage } from './damages.js';
import { seeded } from '../kit/seeded.js';
import * as other from './paintOther.js';
import * as shell from './paintShell.js';
import { wear } from './paintWear.js';
import { BRONZE_LINING, classAt, COPPER, emptySheet, type Sheet, type SurfaceMaps } from './sheet.js';

/** A developed surface of a part with what happened to it. */
export interface SurfaceSpecimen {
  readonly seed: number;
  /** Of round surfaces. Flat ones give `acrossMm` instead. */
  readonly radiusMm: number;
  /** Along the axis. */
  readonly widthMm: number;
  /** Arc of the surface, degrees; 180 when left out. */
  readonly spanDeg?: number;
  /** Size across of a flat surface, mm. */
  readonly acrossMm?: number;
  readonly finish?: Finish;
  /** Of a shell; copper when left out. */
  readonly lining?: 'copper' | 'bronze';
  readonly damages: readonly Damage[];
  /** Oil hole, if there is one. */
  readonly hole?: { readonly arc: number; readonly axial: number; readonly diameterMm: number };
}

/** A half shell: the surface that pictures are read from most. */
export type ShellSpecimen = Omit<SurfaceSpecimen, 'spanDeg' | 'acrossMm' | 'finish'>;

/** Paints damage onto a developed surface. Pure; the same specimen gives the same maps. */
export function surfaceMaps(s: SurfaceSpecimen, columns = 1440, rows = 480): SurfaceMaps {
  const spanDeg = s.spanDeg ?? 180;
  const arcMm = s.acrossMm ? s.acrossMm / spanDeg : (Math.PI * s.radiusMm) / 180;
  const sheet = emptySheet(
    {
      seed: s.seed,
      spanDeg,
      arcMm,
      widthMm: s.widthMm,
      lined: (s.finish ?? 'overlay') === 'overlay',
      lining: s.lining === 'bronze' ? BRONZE_LINING : COPPER,
    },
    columns,
    rows,
    seeded(s.seed),
  );
  layFinish(sheet, s.finish ?? 'overlay');
  s.damages.forEach((d, n) => paint(sheet, d, s.seed * 31 + n * 7 + 11));
  if (s.hole) {
    const { arc: at, axial: level, diameterMm } = s.hole;
    const [rx, ry] = [diameterMm / 2 / arcMm, diameterMm / 2 / s.widthMm];
    sheet.each((i, arc, axial) => {
      if (((arc - at) / rx) ** 2 + ((axial - level) / ry) ** 2 <= 1) sheet.truth[i] = classAt('hole');
    });
  }
  return sheet;
}

function paint(s: Sheet, d: Damage, seed: number): void {
  switch (d.kind) {
    case 'polish':
      return shell.polish(s, d);
    case 'wipe':
      return shell.wipe(s, d, seed);
    case 'edge':
      return shell.edge(s, d, seed);
    case 'score':
      return shell.score(s, d, seed);
    case 'fatigue':
      return shell.fatigue(s, d, seed);
    case 'heat':
      return shell.heat(s, d, seed);
    case 'rust':
      return shell.rust(s, d, seed);
    case 'specks':
      return shell.specks(s, d, seed);
    case 'wear':
      return wear(s, d, seed);
    case 'temper':
      return other.temper(s, d, seed);
    case 'transfer':
      return other.transfer(s, d, seed);
    case 'scuff':
      return other.scuff(s, d, seed);
    case 'coat':
      return other.coat(s, d, seed);
    case 'pits':
      return other.pits(s, d, seed);
    case 'crack':
      return other.crack(s, d, seed);
    case 'deposit':
      return other.deposit(s, d, seed);
    case 'glaze':
      return other.glaze(s, d, seed);
    case 'gone':
      return other.gone(s, d, seed);
    case 'etch':
      return other.etch(s, d, seed);
    case 'brinell':
      return other.brinell(s, d, seed);
    case 'step':
      return other.step(s, d, seed);
    case 'contact':
      return other.contact(s, d, seed);
  }
}
