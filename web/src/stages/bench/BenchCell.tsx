import { GRADE_INFO } from '@true-ledger/core/damage';
import { standingGrade, type StationView } from '@true-ledger/core/case';
import { memo, useEffect, useRef, type CSSProperties, type ReactNode } from 'react';
import { GradeMark } from '../../surface/GradeMark.js';
import { drawSmall, smallDrawing } from '../../surface/paint.js';
import { stationWords } from '../../surface/stationWords.js';
import './bench.css';

export type BenchMode = 'surface' | 'grade' | 'route' | 'open';

interface Props {
  readonly view: StationView;
  readonly mode: BenchMode;
  readonly order: number | null;
  readonly current: boolean;
  readonly style: CSSProperties | undefined;
  readonly onPick: () => void;
  readonly onOpen: () => void;
}

/** One place on the bench, drawn as its own surface in small. */
export const BenchCell = memo(
  function BenchCell({ view, mode, order, current, style, onPick, onOpen }: Props): ReactNode {
    const canvas = useRef<HTMLCanvasElement>(null);
    const { station, wear } = view;
    const grade = standingGrade(view);
    useEffect(() => {
      if (canvas.current && wear && station.surface) drawSmall(canvas.current, smallDrawing(wear, station.surface));
    }, [wear, station.surface, mode]);
    const showsSurface = mode === 'surface' && wear !== null;
    const state = grade === null ? view.state : 'graded';
    return (
      <button
        type="button"
        className={`bench-cell ${station.part} ${state}${current ? ' here' : ''}${mode === 'open' && view.state !== 'not-examined' ? ' done' : ''}`}
        style={{ ...style, ...(mode === 'grade' && grade !== null ? { background: GRADE_INFO[grade].colour } : {}) }}
        data-station={station.id}
        tabIndex={current ? 0 : -1}
        aria-current={current}
        aria-label={`${station.name}, ${stationWords(view)}`}
        title={`${station.name}: ${stationWords(view)}`}
        onClick={onPick}
        onDoubleClick={onOpen}
      >
        {showsSurface && <canvas ref={canvas} aria-hidden="true" />}
        {mode === 'surface' && <span className="part-form" aria-hidden="true" />}
        <span className="cell-name" aria-hidden="true" data-text={shortName(view)} />
        {mode === 'route' && order !== null && <span className="route-order" aria-hidden="true" data-text={order} />}
        {mode !== 'route' && (grade !== null || view.state === 'findings') && (
          <span aria-hidden="true">
            <GradeMark grade={grade} state={view.state} confirmed={view.grade !== undefined} size={17} />
          </span>
        )}
        {view.photos.length > 0 && <span className="has-photo" aria-hidden="true" />}
      </button>
    );
  },
  (a, b) => a.view === b.view && a.mode === b.mode && a.current === b.current && a.order === b.order,
);

function shortName({ station }: StationView): string {
  if (station.part === 'thrust') return station.side === 'front' ? 'F' : 'R';
  if (station.carries === 'crank') return `M${station.number}`;
  if (station.part === 'journal') return `P${station.number}`;
  if (station.carries === 'rod' || station.part === 'rod') return `R${station.number}`;
  if (station.part === 'skirt') return `${station.number}${station.side === 'antithrust' ? ' A' : ' T'}`;
  if (station.number > 0) return String(station.number);
  return station.name;
}
