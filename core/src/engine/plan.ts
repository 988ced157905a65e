import { bankCount, cylinderPlaces, firingIntervals, mainPositions, pinCount, type EngineLayout } from './layout.js';

/** Plan view of the engine, front at left, in mm: bores as circles, mains as bars across the crank line. */
export interface PlanDrawing {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly bores: ReadonlyArray<{ cylinder: number; x: number; y: number; r: number; fires: number; intervalDeg: number }>;
  readonly mains: ReadonlyArray<{ main: number; x: number; y: number; width: number; height: number; thrust: boolean }>;
  readonly crankY: number;
}

/** Geometry of the small plan: bore pitch 1.12 × bore or what two big ends and a main need, whichever is more. Left bank (seen from the flywheel) is drawn below. */
export function planDrawing(layout: EngineLayout): PlanDrawing {
  const banks = bankCount(layout);
  const pins = pinCount(layout);
  const rodsPerPin = layout.crankpins === 'shared' && banks === 2 ? 2 : 1;
  const pitch = Math.max(
    (layout.boreMm * 1.12) / (banks === 2 && layout.crankpins === 'own' ? 2 : 1),
    layout.rodShellWidthMm * rodsPerPin + layout.mainShellWidthMm + 8,
  );
  const margin = layout.boreMm * 0.45;
  const rowGap = layout.boreMm * 1.25;
  const heightMm = banks === 1 ? layout.boreMm * 1.5 : rowGap + layout.boreMm * 1.5;
  const crankY = heightMm / 2;
  const intervals = firingIntervals(layout) ?? [];
  const bores = cylinderPlaces(layout).map((place) => {
    const left = (layout.firstBank === 'left') === (place.bank === 0);
    const fires = layout.firingOrder.indexOf(place.cylinder);
    return {
      cylinder: place.cylinder,
      x: margin + (place.pin + 0.5) * pitch,
      y: banks === 1 ? crankY : crankY + (left ? 1 : -1) * (rowGap / 2),
      r: layout.boreMm / 2,
      fires: fires + 1,
      intervalDeg: intervals[fires] ?? 0,
    };
  });
  const mains = mainPositions(layout).map((p, i) => ({
    main: i + 1,
    x: margin + p * pitch - layout.mainShellWidthMm / 2,
    y: crankY - layout.mainDiameterMm / 2,
    width: layout.mainShellWidthMm,
    height: layout.mainDiameterMm,
    thrust: i + 1 === layout.thrustMain,
  }));
  return { widthMm: margin * 2 + pins * pitch, heightMm, bores, mains, crankY };
}
