import type { StationView } from '@true-ledger/core/case';
import { memo, useEffect, useRef, type ReactNode } from 'react';
import { drawKnown, frontDown } from './paint.js';
import { stationWords } from './stationWords.js';
import { COLOUR } from '../app/tokens.js';
import './surface.css';

/** A surface shown, not worked on. */
export const SurfaceView = memo(function SurfaceView({
  view,
  width,
  caption = false,
}: {
  view: StationView;
  width: number;
  caption?: boolean;
}): ReactNode {
  const frame = view.station.surface;
  const canvas = useRef<HTMLCanvasElement>(null);
  const height = frame ? Math.min(width * 0.9, Math.round((width * frame.heightMm) / frame.widthMm)) : 0;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !frame) return;
    context.fillStyle = COLOUR.steel;
    context.fillRect(0, 0, width, height);
    drawKnown(context, frame, view, width, height);
  }, [view, frame, width, height]);
  if (!frame) return <span className="quiet">{stationWords(view)}</span>;
  return (
    <figure className="surface-view">
      <canvas ref={canvas} width={width} height={height} role="img" aria-label={`${view.station.name}: ${stationWords(view)}`} />
      {caption && (
        <figcaption className="quiet">
          {stationWords(view)}; {frontDown(frame) ? frame.vFrom : frame.vTo} below
        </figcaption>
      )}
    </figure>
  );
});
