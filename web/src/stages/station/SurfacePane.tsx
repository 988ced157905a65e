import { Button, Select, Slider, Tooltip } from 'antd';
import type { SurfaceFrame } from '@true-ledger/core/engine';
import { LINE_DEPTHS, WEAR_CLASS_INFO, WEAR_CLASSES, type LineDepth } from '@true-ledger/core/damage';
import type { StationView } from '@true-ledger/core/case';
import { inPicture, isFlattened, NOT_SEEN_COSINE, type Developed } from '@true-ledger/core/photo';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { useCase } from '../../app/caseContext.js';
import type { Pen, Place, Tool } from './pen.js';
import { drawDeveloped, drawMarks, drawRead, drawUnseen, frontDown } from '../../surface/paint.js';
import type { Flattened } from './useFlattened.js';
import { COLOUR } from '../../app/tokens.js';
import './station.css';

const WIDTH = 520;
const DEPTH_WORDS: Readonly<Record<LineDepth, string>> = {
  hair: 'Hair line, seen only',
  probe: 'Felt with a probe',
  nail: 'Catches the nail',
  through: 'Through to the lining',
};
const BRUSHES: readonly Tool[] = [
  'sound',
  'lining',
  'score',
  'heat',
  'rust',
  'embedded',
  'scuffed',
  'polished',
  'steel',
  'transfer',
  'deposit',
  'missing',
  'unseen',
  'erase',
];

/** Pixels of the picture by degree of arc, of flat faces by millimetre. */
function resolution({ pxPerMm, spanDeg }: Developed, frame: SurfaceFrame): string {
  const unit = spanDeg > 0 ? frame.widthMm / frame.uSpanDeg : 1;
  return `${(pxPerMm.middle * unit).toFixed(1)} px/${spanDeg > 0 ? '°' : 'mm'} in the middle, ${(pxPerMm.side * unit).toFixed(1)} at the side`;
}

function toolName(tool: Tool): string {
  if (tool === 'score') return 'Score line';
  if (tool === 'unseen') return 'Not seen';
  return tool === 'erase' ? 'Wipe marks' : WEAR_CLASS_INFO[tool].name;
}

interface Props {
  readonly station: StationView;
  readonly flat: Flattened;
  readonly pen: Pen;
  /** Where the pointer is, here or on the picture. */
  readonly linked: Place | null;
  readonly onLinked: (place: Place | null) => void;
}

/** The developed surface as a place to draw on: brush or score line, by pointer or by keys. */
export function SurfacePane({ station, flat, pen, linked, onLinked }: Props): ReactNode {
  const { readOnly } = useCase();
  const frame = station.station.surface!;
  const height = Math.min(330, Math.round((WIDTH * frame.heightMm) / frame.widthMm));
  const { tool, setTool, radius, setRadius, depth, setDepth, made, setMade, radiusMm, build, keep } = pen;
  const [picture, setPicture] = useState(true);
  const [draft, setDraft] = useState<ReadonlyArray<readonly [number, number]>>([]);
  const [cursor, setCursor] = useState<readonly [number, number] | null>(null);
  // The stroke in progress; kept outside React's state so that a fast flick loses no point between two renders.
  const path = useRef<ReadonlyArray<readonly [number, number]>>([]);
  const canvas = useRef<HTMLCanvasElement>(null);
  const down = frontDown(frame);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    context.clearRect(0, 0, WIDTH, height);
    context.fillStyle = COLOUR.steel;
    context.fillRect(0, 0, WIDTH, height);
    const shown = picture ? flat.result : null;
    if (shown) drawDeveloped(context, frame, shown, flat.turn, WIDTH, height);
    const marks = [...station.marks.map((m) => m.value.mark), ...(draft.length > 0 ? [build(draft)] : [])];
    if (station.reads.length > 0) drawRead(context, frame, station, WIDTH, height, shown ? 0.45 : 1);
    drawMarks(context, frame, marks, WIDTH, height, shown ? 0.6 : 1);
    const wear = station.wear;
    const { part } = station.station;
    const isShown = (c: number, r: number): boolean => {
      if (!shown || !isFlattened(part)) return true;
      const place = inPicture(part, frame, flat.turn, (c + 0.5) / frame.columns, (r + 0.5) / frame.rows);
      if (!place) return false;
      const cell = Math.floor(place[1] * shown.rows) * shown.columns + Math.floor(place[0] * shown.columns);
      return (shown.cosine[cell] ?? 0) >= NOT_SEEN_COSINE;
    };
    drawUnseen(
      context,
      frame,
      (c, r) => (wear !== null && wear.seen[r * frame.columns + c]! < 0.25) || (shown !== null && !wear && !isShown(c, r)),
      WIDTH,
      height,
    );
    const spot = cursor ?? linked;
    if (spot) {
      const [x, y] = [spot[0] * WIDTH, (down ? 1 - spot[1] : spot[1]) * height];
      context.strokeStyle = COLOUR.accent;
      context.lineWidth = 2;
      context.beginPath();
      context.ellipse(
        x,
        y,
        Math.max(5, (radiusMm / frame.widthMm) * WIDTH),
        Math.max(5, (radiusMm / frame.heightMm) * height),
        0,
        0,
        Math.PI * 2,
      );
      context.stroke();
    }
  }, [station, flat, draft, cursor, linked, picture, frame, height, radiusMm, build, down]);

  const place = (e: PointerEvent): readonly [number, number] => {
    const box = e.currentTarget.getBoundingClientRect();
    const u = Math.min(1, Math.max(0, (e.clientX - box.left) / box.width));
    const v = Math.min(1, Math.max(0, (e.clientY - box.top) / box.height));
    return [Math.round(u * 1000) / 1000, Math.round((down ? 1 - v : v) * 1000) / 1000];
  };
  const follow = (points: ReadonlyArray<readonly [number, number]>): void => {
    path.current = points;
    setDraft(points);
  };
  const start = (e: PointerEvent): void => {
    if (readOnly || e.button !== 0) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    follow([place(e)]);
  };
  const draw = (e: PointerEvent): void => {
    const last = path.current.at(-1);
    if (!last) return;
    const p = place(e);
    if (Math.hypot((p[0] - last[0]) * WIDTH, (p[1] - last[1]) * height) >= 3) follow([...path.current, p]);
  };
  const end = (e: PointerEvent): void => {
    draw(e);
    keep(path.current);
    follow([]);
  };
  const keys = (e: KeyboardEvent): void => {
    const step: Record<string, readonly [number, number]> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, down ? 1 : -1],
      ArrowDown: [0, down ? -1 : 1],
    };
    const by = step[e.key];
    const at = cursor ?? [0.5, 0.5];
    const byKey = WEAR_CLASSES.find((c) => WEAR_CLASS_INFO[c].key === e.key);
    if (by) setCursor([Math.min(1, Math.max(0, at[0] + by[0] / frame.columns)), Math.min(1, Math.max(0, at[1] + by[1] / frame.rows))]);
    else if (e.key === 'Enter' || e.key === ' ') {
      if (readOnly) return;
      keep(
        tool === 'score'
          ? [
              [Math.max(0, at[0] - 0.15), at[1]],
              [Math.min(1, at[0] + 0.15), at[1]],
            ]
          : [at],
      );
    } else if (e.key === 'Escape' && draft.length > 0) follow([]);
    else if (byKey) setTool(byKey);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };

  return (
    <section className="pane surface-pane" aria-label="Developed surface">
      <h2>
        Developed surface
        {flat.result && (
          <Button size="small" onClick={() => setPicture((x) => !x)}>
            {picture ? 'Hide picture' : 'Show picture'}
          </Button>
        )}
      </h2>
      {/* Its line is kept free while there is nothing to say, so that the surface does not move under the pen. */}
      <p className="surface-note quiet figure">
        {flat.busy
          ? 'flattening …'
          : flat.result && `${resolution(flat.result, frame)}; ${flat.result.notSeenPercent.toFixed(0)} % too oblique`}
      </p>
      <div className="surface-labels top">
        <span>{frame.uFrom}</span>
        <span>{down ? frame.vTo : frame.vFrom}</span>
        <span>{frame.uTo}</span>
      </div>
      <canvas
        ref={canvas}
        width={WIDTH}
        height={height}
        className="draw-surface"
        tabIndex={0}
        role="application"
        aria-label={`Developed surface of ${station.station.name}. Arrow keys move the brush, Enter marks, letters choose what: ${WEAR_CLASSES.filter(
          (c) => c !== 'sound',
        )
          .map((c) => `${WEAR_CLASS_INFO[c].key} ${WEAR_CLASS_INFO[c].name}`)
          .join(', ')}.`}
        onPointerDown={start}
        onPointerMove={(e) => {
          onLinked(place(e));
          draw(e);
        }}
        onPointerLeave={() => onLinked(null)}
        onPointerUp={end}
        onPointerCancel={() => follow([])}
        onKeyDown={keys}
        onBlur={() => setCursor(null)}
      />
      <div className="surface-labels">
        <span />
        <span>{down ? frame.vFrom : frame.vTo}</span>
        <span className="figure">
          {frame.widthMm.toFixed(1)} × {frame.heightMm.toFixed(1)} mm
        </span>
      </div>
      {!readOnly && (
        <>
          <div className="brushes" role="radiogroup" aria-label="What to mark">
            {BRUSHES.map((b) => (
              <Tooltip
                placement="bottom"
                mouseEnterDelay={0.7}
                key={b}
                title={
                  b === 'score' || b === 'unseen' || b === 'erase' ? undefined : `${WEAR_CLASS_INFO[b].hint} (${WEAR_CLASS_INFO[b].key})`
                }
              >
                <button
                  type="button"
                  role="radio"
                  aria-checked={tool === b}
                  className={tool === b ? 'here' : ''}
                  onClick={() => setTool(b)}
                >
                  <i
                    className={b === 'unseen' ? 'hatch' : b === 'score' ? 'line' : b === 'erase' ? 'wipe' : ''}
                    style={b === 'score' || b === 'unseen' || b === 'erase' ? undefined : { background: WEAR_CLASS_INFO[b].colour }}
                  />
                  {toolName(b)}
                </button>
              </Tooltip>
            ))}
          </div>
          <div className="brush-size">
            {tool === 'score' ? (
              <Select
                size="small"
                value={depth}
                onChange={setDepth}
                aria-label="Depth of the line"
                style={{ width: 200 }}
                options={LINE_DEPTHS.map((d) => ({ value: d, label: DEPTH_WORDS[d] }))}
              />
            ) : (
              <>
                <span>
                  Brush <span className="figure">{(radiusMm * 2).toFixed(1)} mm</span>
                </span>
                <Slider
                  min={0.3}
                  max={Math.round(frame.heightMm / 2)}
                  step={0.1}
                  value={radius}
                  onChange={setRadius}
                  style={{ width: 130 }}
                  ariaLabelForHandle="Brush radius, mm"
                  tooltip={{ open: false }}
                />
              </>
            )}
            <Select
              size="small"
              value={made}
              onChange={setMade}
              aria-label="Found so or made by us"
              style={{ width: 170 }}
              options={[
                { value: 'found-so', label: 'Found so' },
                { value: 'by-us', label: 'Done by us on removal' },
              ]}
            />
            <span className="quiet">
              {station.marks.length} mark{station.marks.length === 1 ? '' : 's'}; u takes the last entry back
            </span>
          </div>
        </>
      )}
    </section>
  );
}
