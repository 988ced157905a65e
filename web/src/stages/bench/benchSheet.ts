import { COLOUR } from '../../app/tokens.js';
import { drawBench, type BenchScene } from './drawBench.js';

/** An A3 sheet across at 250 dots an inch, px. */
const SHEET = { width: 4134, height: 2923 } as const;
const EDGE = 90;
/** Names of rows and words of the head, px. */
const NAMES = 420;
const HEAD = 150;

/** The whole bench on one sheet of A3 as a PNG, with its names, its scale and what it is of. Waits until the surfaces it shows have come. */
export async function benchSheet(scene: BenchScene, title: string): Promise<Blob> {
  const canvas = document.createElement('canvas');
  canvas.width = SHEET.width;
  canvas.height = SHEET.height;
  const context = canvas.getContext('2d');
  if (!context) throw new Error('This browser gives no canvas to draw the sheet on.');
  const { bench, images } = scene;
  const [wide, tall] = [SHEET.width - 2 * EDGE - NAMES, SHEET.height - 2 * EDGE - HEAD];
  const k = Math.min(wide / bench.widthMm, tall / bench.heightMm);
  const view = { k, x: EDGE + NAMES, y: EDGE + HEAD };
  // Letters and lines of the page, so many times as large.
  const draw = (): void => {
    context.setTransform(LARGER, 0, 0, LARGER, 0, 0);
    const own = { k: view.k / LARGER, x: view.x / LARGER, y: view.y / LARGER };
    drawBench(context, { ...scene, at: '', chosen: new Set(), fine: LARGER }, own, SHEET.width / LARGER, SHEET.height / LARGER);
    context.resetTransform();
  };
  // The first drawing asks for the surfaces in the size of the sheet.
  draw();
  await images.settled();
  draw();
  context.globalCompositeOperation = 'destination-over';
  context.fillStyle = COLOUR.white;
  context.fillRect(0, 0, SHEET.width, SHEET.height);
  context.globalCompositeOperation = 'source-over';
  context.fillStyle = COLOUR.ink;
  context.textBaseline = 'middle';
  context.font = '600 64px "Barlow Semi Condensed", sans-serif';
  context.fillText(title, EDGE, EDGE + 30);
  context.font = '36px B612, sans-serif';
  for (const row of bench.rows) context.fillText(row.label, EDGE, view.y + (row.y + row.height / 2) * k, NAMES - 60);
  scaleBar(context, k);
  return new Promise((done, fail) =>
    canvas.toBlob((blob) => (blob ? done(blob) : fail(new Error('The browser made no picture of the sheet.'))), 'image/png'),
  );
}

/** How much larger letters and lines are on the sheet than on the page. */
const LARGER = 3;
const BAR_MM = 100;

function scaleBar(context: CanvasRenderingContext2D, k: number): void {
  const [x, y] = [SHEET.width - EDGE - BAR_MM * k, EDGE + 40];
  context.lineWidth = 6;
  context.strokeStyle = COLOUR.ink;
  context.beginPath();
  context.moveTo(x, y - 14);
  context.lineTo(x, y);
  context.lineTo(x + BAR_MM * k, y);
  context.lineTo(x + BAR_MM * k, y - 14);
  context.stroke();
  context.fillText(`${BAR_MM} mm`, x, y + 36);
}
