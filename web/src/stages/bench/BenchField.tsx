import type { StationView } from '@true-ledger/core/case';
import type { UnrolledBench } from '@true-ledger/core/engine';
import { useEffect, useImperativeHandle, useMemo, useRef, type ReactNode, type Ref } from 'react';
import { stationWords } from '../../surface/stationWords.js';
import { benchSheet } from './benchSheet.js';
import { drawBench, type BenchScene } from './drawBench.js';
import { SurfaceImages } from '../../surface/surfaceImages.js';
import { useBenchZoom, type BenchZoom } from './useBenchZoom.js';
import './bench.css';

/** What can be asked of the drawn bench from outside. */
export type BenchHandle = Omit<BenchZoom, 'view'> & {
  /** The whole bench on a sheet of A3. */
  readonly sheet: (title: string) => Promise<Blob>;
};

interface Props {
  readonly caseId: string;
  readonly scene: Omit<BenchScene, 'images' | 'fine'>;
  readonly ref: Ref<BenchHandle>;
  readonly onPick: (id: string, beside: boolean) => void;
  readonly onOpen: (id: string) => void;
}

/** Names of rows longer than this, letters, have more room: those of a V say their bank. */
const LONG_NAME = 30;

/** Least distance of two rows for their names to be written, px. */
const LINE_PX = 12;

/** Widths of the scale bar, mm; the one that is nearest to 100 px is drawn. */
const BARS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500];

/** The engine as its surfaces on a canvas that is drawn once a frame at most, with a button over every place for hands, keys and screen readers. */
export function BenchField({ caseId, scene, ref, onPick, onOpen }: Props): ReactNode {
  const field = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const places = useRef<HTMLDivElement>(null);
  const bar = useRef<HTMLDivElement>(null);
  const current = useRef<(() => void) | null>(null);
  const due = useRef(0);
  const changed = useMemo(
    () => (): void => {
      if (due.current === 0)
        due.current = requestAnimationFrame(() => {
          due.current = 0;
          current.current?.();
        });
    },
    [],
  );
  const images = useRef<SurfaceImages | null>(null);
  useEffect(() => {
    images.current = new SurfaceImages(caseId, changed);
    changed();
    return () => images.current?.end();
  }, [caseId, changed]);
  const wide = scene.bench.rows.some((r) => r.label.length > LONG_NAME);
  const { view, ...handle } = useBenchZoom(field, scene.bench, wide, changed);
  useImperativeHandle(ref, () => ({
    ...handle,
    sheet: (title) => benchSheet({ ...scene, images: images.current!, fine: 1 }, title),
  }));

  useEffect(() => {
    current.current = (): void => {
      const [element, sheet] = [field.current, canvas.current];
      if (!element || !sheet || !images.current) return;
      const { clientWidth: w, clientHeight: h } = element;
      const { k, x, y } = view.current;
      const fine = devicePixelRatio;
      if (sheet.width !== Math.round(w * fine) || sheet.height !== Math.round(h * fine)) {
        sheet.width = Math.round(w * fine);
        sheet.height = Math.round(h * fine);
      }
      const context = sheet.getContext('2d');
      if (context) {
        context.setTransform(fine, 0, 0, fine, 0, 0);
        drawBench(context, { ...scene, images: images.current, fine }, view.current, w, h);
      }
      if (places.current) places.current.style.transform = `translate(${x}px, ${y}px) scale(${k})`;
      for (const head of element.querySelectorAll<HTMLElement>('.row-head')) {
        const [top, tall] = [Number(head.dataset['y']) * k + y, Number(head.dataset['height']) * k];
        head.style.transform = `translateY(${top + tall / 2}px) translateY(-50%)`;
        // Where rows lie closer than a line of words their names would lie on each other.
        head.hidden = top + tall < 0 || top > h || Number(head.dataset['step']) * k < LINE_PX;
      }
      if (bar.current) {
        const mm = BARS.reduce((best, b) => (Math.abs(Math.log((b * k) / 100)) < Math.abs(Math.log((best * k) / 100)) ? b : best));
        bar.current.style.width = `${mm * k}px`;
        bar.current.dataset['text'] = `${mm} mm`;
      }
    };
    changed();
  });
  useEffect(() => () => cancelAnimationFrame(due.current), []);

  return (
    <div className="bench-field" ref={field} data-wide={wide}>
      <canvas ref={canvas} aria-hidden="true" />
      <div className="bench-places" ref={places} style={{ width: scene.bench.widthMm, height: scene.bench.heightMm }}>
        {scene.bench.rows.map((row) => (
          <div key={row.id} role="group" aria-label={row.label} className={`bench-row ${row.kind}`}>
            {scene.bench.cells
              .filter((c) => c.row === row.id)
              .map((cell) => {
                const station = scene.views.get(cell.station.id);
                return (
                  station && <Place key={cell.station.id} cell={cell} station={station} scene={scene} onPick={onPick} onOpen={onOpen} />
                );
              })}
          </div>
        ))}
      </div>
      <div className="row-heads">
        {scene.bench.rows.map((row, i, rows) => (
          <div
            key={row.id}
            className={`row-head ${row.kind}`}
            data-y={row.y}
            data-height={row.height}
            data-step={(rows[i + 1]?.y ?? Infinity) - row.y}
          >
            {row.label}
          </div>
        ))}
      </div>
      <div className="scale-bar" ref={bar} aria-hidden="true" />
    </div>
  );
}

function Place({
  cell,
  station: view,
  scene,
  onPick,
  onOpen,
}: {
  cell: UnrolledBench['cells'][number];
  station: StationView;
  scene: Props['scene'];
  onPick: Props['onPick'];
  onOpen: Props['onOpen'];
}): ReactNode {
  const { id, name, part } = cell.station;
  const here = scene.at === id;
  const words = `${name}, ${stationWords(view)}`;
  return (
    <button
      type="button"
      className={`bench-cell ${part} ${view.grade || view.state === 'sound' ? 'graded' : view.state}${here ? ' here' : ''}`}
      style={{ left: cell.x, top: cell.y, width: cell.width, height: cell.height }}
      data-station={id}
      tabIndex={here ? 0 : -1}
      aria-current={here}
      aria-pressed={scene.chosen.has(id) || undefined}
      aria-label={words}
      title={words}
      onClick={(e) => onPick(id, e.shiftKey || e.ctrlKey || e.metaKey)}
      onDoubleClick={() => onOpen(id)}
    />
  );
}
