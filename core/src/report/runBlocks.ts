import { foundWear } from '../case/foundWear.js';
import type { CaseView } from '../case/views.js';
import type { Shape } from '../diagnosis/sequence/drawing.js';
import { AXIAL_ROWS } from '../film/wearField.js';
import { ARCS, likeness, runEngine, type PredictedWear, type Run } from '../running/run.js';
import { settingWords } from '../running/setting.js';
import { mixedColour } from '../kit/colour.js';
import { percentText } from '../cause/percent.js';
import type { ReportBlock } from './blocks.js';

const CELL = 9;
const ROW = 4;
const LEFT = 66;
const GAP = 16;
const INK = '#20272b';
const LINE = '#9aa4aa';
/** Bare face and full wear; what lies between is mixed. */
const BARE = '#b9c2c6';
const WORN = '#9e4a26';
const SHOWS = 0.03;
const SEEN = 0.25;

const mixed = (share: number): string => mixedColour(BARE, WORN, share);

/** Ways of running kept for the account: what each shows, and the wear it predicts over what was found. */
export function runBlocks(view: CaseView): ReportBlock[] {
  return view.runs.flatMap(({ value }): ReportBlock[] => {
    const made = value.setting ? runEngine(view.layout, value.setting) : null;
    if (!made) return [];
    const name = value.bearing.replace('.', ' ');
    const head: ReportBlock = {
      kind: 'text',
      text: `How ${name} would have run: ${value.setting ? settingWords(value.setting) : ''}`,
      strong: true,
    };
    if (!made.ok) return [head, { kind: 'text', text: made.problem.sentence }];
    const run = made.value;
    return [
      head,
      ...(value.note ? [{ kind: 'text' as const, text: value.note }] : []),
      { kind: 'text', text: saysOf(run) },
      ...(run.wear ? [faces(view, run, run.wear)] : []),
    ];
  });
}

function saysOf(run: Run): string {
  const { film, oil, specificMpa } = run;
  return [
    `Computed, with estimated inputs where nothing was given: at most ${specificMpa.most.toFixed(1)} MPa on the bearing (${specificMpa.low.toFixed(0)} to ${specificMpa.high.toFixed(0)} with lighter and heavier parts).`,
    film
      ? `The film is ${film.summary.minimumFilmUm.toFixed(2)} µm at its thinnest, ${film.summary.filmOverRoughness.toFixed(1)} times the roughness${run.wear ? '' : '; no wear is predicted'}.`
      : (run.why ?? ''),
    oil ? oil.driver : '',
  ]
    .filter(Boolean)
    .join(' ');
}

/** Both halves, predicted over found, arc to the right and front edge at the foot. */
function faces(view: CaseView, run: Run, wear: PredictedWear): ReportBlock {
  const shapes: Shape[] = [];
  const height = AXIAL_ROWS * ROW;
  const read = foundWear(view, run.setting.bearing);
  const said: string[] = [];
  const text = (x: number, y: number, words: string): void =>
    void shapes.push({ kind: 'text', x, y, size: 10, bold: false, fill: INK, text: words });
  let y = 0;
  for (const half of ['upper', 'lower'] as const) {
    const found = read[half] ?? null;
    const predicted = wear[half];
    const alike = found ? likeness(predicted, found.worn, found.seen) : null;
    said.push(`${half} half ${alike === null ? 'not compared' : `${percentText(alike)} alike`}`);
    for (const [words, cells, seen] of [
      [`${half}, predicted`, predicted, null],
      ['found', found?.worn ?? null, found?.seen ?? null],
    ] as const) {
      text(0, y + height / 2 + 3, words);
      shapes.push({
        kind: 'box',
        x: LEFT + 20,
        y,
        w: ARCS * CELL,
        h: height,
        fill: cells ? mixed(0) : '#fbfcfc',
        stroke: LINE,
        dash: false,
      });
      Array.from(cells ?? [], (v, i) => {
        const unseen = seen !== null && seen[i]! < SEEN;
        if (!unseen && v < SHOWS) return;
        const fill = unseen ? '#fbfcfc' : mixed(v);
        shapes.push({
          kind: 'box',
          x: LEFT + 20 + (i % ARCS) * CELL,
          y: y + (AXIAL_ROWS - 1 - Math.floor(i / ARCS)) * ROW,
          w: CELL,
          h: ROW,
          fill,
          stroke: fill,
          dash: false,
        });
      });
      y += height + 4;
    }
    y += GAP;
  }
  return {
    kind: 'drawing',
    shapes,
    width: LEFT + 20 + ARCS * CELL + 4,
    height: y,
    caption: `Predicted wear of ${run.setting.bearing.replace('.', ' ')} over what was found: ${said.join(', ')}. Arc to the right, front edge at the foot; white was not seen.`,
  };
}
