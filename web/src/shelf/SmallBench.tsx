import type { CaseSummary } from '@true-ledger/contract';
import { GRADE_INFO, type Grade } from '@true-ledger/core/damage';
import { memo, useEffect, useRef, type ReactNode } from 'react';
import { COLOUR } from '../app/tokens.js';

/** Figures of a place: left, top, width, height and grade. */
const FIGURES = 5;
const WIDTH = 300;
const HEIGHT = 172;

/** The engine of a case unrolled in small, every place in the colour of its grade, white where nobody looked. */
export const SmallBench = memo(function SmallBench({ bench }: { bench: CaseSummary['bench'] }): ReactNode {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !bench) return;
    const fine = devicePixelRatio;
    canvas.current!.width = WIDTH * fine;
    canvas.current!.height = HEIGHT * fine;
    const k = Math.min(WIDTH / bench.widthMm, HEIGHT / bench.heightMm);
    context.setTransform(fine, 0, 0, fine, (fine * (WIDTH - k * bench.widthMm)) / 2, (fine * (HEIGHT - k * bench.heightMm)) / 2);
    for (let i = 0; i + FIGURES <= bench.cells.length; i += FIGURES) {
      const [x, y, w, h, grade] = bench.cells.slice(i, i + FIGURES) as [number, number, number, number, number];
      context.fillStyle = grade < 0 ? COLOUR.paper : GRADE_INFO[grade as Grade].colour;
      context.fillRect(x * k, y * k, Math.max(1, w * k), Math.max(1, h * k));
      context.strokeStyle = grade < 0 ? COLOUR.line : COLOUR.lineDark;
      context.lineWidth = 0.5;
      context.strokeRect(x * k, y * k, w * k, h * k);
    }
  }, [bench]);
  const grades = bench ? Array.from({ length: Math.floor(bench.cells.length / FIGURES) }, (_, i) => bench.cells[i * FIGURES + 4]!) : [];
  return (
    <canvas
      ref={canvas}
      className="small-bench"
      style={{ width: WIDTH, height: HEIGHT }}
      role="img"
      aria-label={
        bench
          ? `${grades.filter((g) => g >= 0).length} of ${grades.length} places examined; worst grade ${Math.max(0, ...grades)}`
          : 'The engine is being laid out'
      }
    />
  );
});
