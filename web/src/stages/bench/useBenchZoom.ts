import type { UnrolledBench } from '@true-ledger/core/engine';
import { select } from 'd3-selection';
import { zoom, zoomIdentity, type ZoomBehavior } from 'd3-zoom';
import { useCallback, useEffect, useRef, type RefObject } from 'react';
import type { BenchView } from './drawBench.js';

/** Pixels a millimetre at most: a tenth of a millimetre is a dozen pixels. */
const MOST = 120;
/** A page under this width is held in one hand, px. */
const NARROW = 600;
/** Width of the names of the rows beside the bench, px; narrow pages have less, engines of two banks more. */
const gutterOf = (width: number, wide: boolean): number => (width < NARROW ? 64 : wide ? 220 : 118);
/** Room about the bench, px: names and grades stand beside the outermost cells. */
const MARGIN = 8;
const SIDE = 26;
/** Moved less than this, px, a press on a place is a press. */
const PRESS = 4;

export interface BenchZoom {
  readonly view: RefObject<BenchView>;
  /** Nearer (over 1) or farther, about the middle of the page or of a place. */
  readonly by: (factor: number, about?: { readonly x: number; readonly y: number }) => void;
  readonly whole: () => void;
  /** Fills the page with a rectangle of the bench, mm. */
  readonly to: (box: { x: number; y: number; width: number; height: number }) => void;
  /** Moves the bench as little as is needed to bring a rectangle into view. */
  readonly reveal: (box: { x: number; y: number; width: number; height: number }) => void;
}

/** Pan and zoom over the bench by wheel, pinch, drag and call; `changed` is told of every step, outside of React. */
export function useBenchZoom(field: RefObject<HTMLDivElement | null>, bench: UnrolledBench, wide: boolean, changed: () => void): BenchZoom {
  const view = useRef<BenchView>({ k: 1, x: 0, y: 0 });
  const behaviour = useRef<ZoomBehavior<HTMLDivElement, unknown> | null>(null);
  const fit = useRef(1);
  /** Was the bench drawn once? */
  const shown = useRef(false);
  const { widthMm, heightMm, pitchMm } = bench;

  const set = useCallback(
    ({ k, x, y }: BenchView) => {
      const element = field.current;
      if (element && behaviour.current) select(element).call(behaviour.current.transform, zoomIdentity.translate(x, y).scale(k));
    },
    [field],
  );

  const whole = useCallback(() => {
    const { clientWidth: w = 0, clientHeight: h = 0 } = field.current ?? {};
    const gutter = gutterOf(w, wide);
    const k = fit.current;
    set({ k, x: gutter + Math.max(SIDE, (w - gutter - k * widthMm) / 2), y: Math.max(MARGIN, (h - k * heightMm) / 2) });
  }, [field, set, widthMm, heightMm, wide]);

  useEffect(() => {
    const element = field.current;
    if (!element) return;
    const own = zoom<HTMLDivElement, unknown>()
      .clickDistance(PRESS)
      .on('zoom', ({ transform }: { transform: BenchView }) => {
        view.current = { k: transform.k, x: transform.x, y: transform.y };
        changed();
      });
    behaviour.current = own;
    select(element).call(own).on('dblclick.zoom', null);
    const measure = (): void => {
      const { clientWidth: w, clientHeight: h } = element;
      if (w === 0 || h === 0) return;
      const gutter = gutterOf(w, wide);
      const wasWhole = Math.abs(view.current.k - fit.current) < 1e-6;
      const inWidth = (w - gutter - 2 * SIDE) / widthMm;
      fit.current = Math.min(inWidth, (h - 2 * MARGIN) / heightMm);
      own
        .scaleExtent([fit.current, MOST])
        .extent([
          [gutter, 0],
          [w, h],
        ])
        .translateExtent([
          [-SIDE / fit.current, -MARGIN / fit.current],
          [widthMm + SIDE / fit.current, heightMm + MARGIN / fit.current],
        ]);
      const first = !shown.current;
      shown.current = true;
      // On a narrow page the whole is too small for a hand: it begins with one cylinder.
      if (first && w < NARROW) set({ k: (w - gutter - 2 * SIDE) / pitchMm, x: gutter + SIDE, y: MARGIN });
      else if (wasWhole || view.current.k < fit.current) whole();
      else changed();
    };
    view.current = { ...view.current, k: fit.current };
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(element);
    return () => {
      watch.disconnect();
      select(element).on('.zoom', null);
    };
  }, [field, widthMm, heightMm, pitchMm, wide, changed, whole, set]);

  const to: BenchZoom['to'] = ({ x, y, width, height }) => {
    const { clientWidth: w = 0, clientHeight: h = 0 } = field.current ?? {};
    const gutter = gutterOf(w, wide);
    const k = Math.min(MOST, (0.9 * (w - gutter)) / width, (0.85 * h) / height);
    set({ k, x: gutter + (w - gutter) / 2 - k * (x + width / 2), y: h / 2 - k * (y + height / 2) });
  };
  const by: BenchZoom['by'] = (factor, about) => {
    const element = field.current;
    if (!element || !behaviour.current) return;
    const { k, x, y } = view.current;
    const point = about ? ([about.x * k + x, about.y * k + y] as [number, number]) : undefined;
    select(element).call(behaviour.current.scaleBy, factor, point);
  };
  const reveal: BenchZoom['reveal'] = (box) => {
    const { clientWidth: w = 0, clientHeight: h = 0 } = field.current ?? {};
    const { k, x, y } = view.current;
    const gutter = gutterOf(w, wide);
    const shift = (from: number, to: number, least: number, most: number): number =>
      to - from > most - least ? (least + most - from - to) / 2 : Math.max(0, least - from) + Math.min(0, most - to);
    const dx = shift(box.x * k + x, (box.x + box.width) * k + x, gutter + MARGIN, w - MARGIN);
    const dy = shift(box.y * k + y, (box.y + box.height) * k + y, MARGIN, h - MARGIN);
    if (dx !== 0 || dy !== 0) set({ k, x: x + dx, y: y + dy });
  };
  return { view, by, whole, to, reveal };
}
