import type { CaseView } from '../case/views.js';
import type { Shape } from '../diagnosis/sequence/drawing.js';
import { assemblyBook, limitWords, type AssemblyStanding, type ProofStanding } from '../salvage/assembly.js';
import type { FastenerPattern } from '../strip/fasteners.js';
import { stageWords } from '../strip/assembly/stages.js';
import type { ReportBlock, ReportModel, ReportSection } from './blocks.js';
import type { Letterhead } from './parties.js';

const INK = '#20272b';
const QUIET = '#4a545a';
const PLATE = '#e4e7e9';
/** A cell that is filled in with a pen. */
const CELL = '_'.repeat(22);

/** Pictures of the book, each once, in the order of the steps. */
export function assemblyPictures(view: CaseView): ReadonlyArray<{ readonly station: string; readonly sha256: string }> {
  return assemblyBook(view).steps.flatMap((s) => s.pictures);
}

/** The assembly book for print: the strip backwards, a section for each phase, cells where nothing is proved yet. */
export function assemblyModel(view: CaseView, ledgerHead: string, entries: number, letterhead: Letterhead | null = null): ReportModel {
  const book = assemblyBook(view);
  const phases = [...new Set(book.steps.map((s) => s.step.phase))];
  let number = 0;
  const picture = (): number => ++number;
  const section = (phase: string): ReportSection => ({
    id: 'assembly',
    heading: phase,
    blocks: book.steps.flatMap((s, i) => (s.step.phase === phase ? stepBlocks(s, i + 1, picture) : [])),
  });
  return {
    kind: 'sheet',
    heading: 'Assembly book',
    title: view.title,
    number: view.number,
    reference: view.intake('reference'),
    ledgerHead,
    entries,
    letterhead,
    first: null,
    sections: [
      {
        id: 'assembly',
        heading: 'Before the first step',
        blocks: [
          {
            kind: 'text',
            text: `${book.steps.length} steps, ${book.done} done. Made from the strip of this engine, backwards. The engine maker's own data and order stand before what is printed here; a cell that is not filled in was not proved.`,
          },
          ...openParts(book.steps),
        ],
      },
      ...phases.map(section),
    ],
    signed: [],
    signing: null,
    flags: [],
  };
}

/** Parts nobody has decided on: nothing is built over them. */
function openParts(steps: readonly AssemblyStanding[]): ReportBlock[] {
  const open = steps.flatMap((s) => s.parts.filter((p) => p.how === 'open'));
  if (open.length === 0) return [];
  return [{ kind: 'text', text: `Not decided or not checked yet: ${open.map((p) => p.name).join(', ')}.` }];
}

function stepBlocks(s: AssemblyStanding, number: number, picture: () => number): ReportBlock[] {
  const { step } = s;
  return [
    { kind: 'text', text: `${number}  ${step.name}`, strong: true },
    { kind: 'text', text: [step.how, step.tools ? `Tools: ${step.tools}.` : ''].filter(Boolean).join(' ') },
    ...(step.cautions.length > 0 ? [{ kind: 'text' as const, text: `Caution: ${step.cautions.join(' ')}` }] : []),
    ...(s.cap ? [{ kind: 'text' as const, text: `As it came apart: ${s.cap}.` }] : []),
    ...(s.start.length > 0
      ? [{ kind: 'list' as const, items: s.start.map((x) => (x.caution ? `${x.what} Caution: ${x.caution}` : x.what)) }]
      : []),
    ...(s.parts.length > 0 ? [{ kind: 'table' as const, head: ['Part', 'Goes in'], rows: s.parts.map((p) => [p.name, p.words]) }] : []),
    ...(s.fasteners.length > 0
      ? [
          {
            kind: 'table' as const,
            head: ['Fasteners', 'Tightened in stages'],
            rows: s.fasteners.map((f) => [
              f.words,
              f.stages ? `${stageWords(f.stages).join(', then ')}${f.source ? ` (${f.source})` : ''}` : `maker’s data: ${CELL}`,
            ]),
          },
        ]
      : []),
    ...(step.pattern && step.pattern.positions.length > 2 ? [tighteningDrawing(step.pattern, step.tightening)] : []),
    ...s.pictures.map((p): ReportBlock => ({
      kind: 'photo',
      number: picture(),
      sha256: p.sha256,
      station: p.station,
      caption: `As it came apart: ${p.what}`,
      standIn: p.standIn,
      stamp: '',
      small: true,
    })),
    ...(s.proofs.length > 0
      ? [
          {
            kind: 'table' as const,
            head: ['Proved before the next step', 'Limits', 'Found'],
            rows: s.proofs.map((p) => [p.proof.name, limitWords(p), foundWords(p) || CELL]),
          },
        ]
      : []),
    {
      kind: 'text',
      text: s.done
        ? `Done by ${s.done.version.author.name}, ${s.done.version.time.slice(0, 10)}${s.done.value.note ? `: ${s.done.value.note}` : ''}.`
        : `Done by ${CELL}  on ${CELL}`,
    },
  ];
}

/** What was found, and how it stands to its limits; empty while it is open. */
function foundWords({ held, state }: ProofStanding): string {
  if (!held) return '';
  const found = `${held.value.text}${/[a-z]/i.test(held.value.text) ? '' : ` ${held.value.unit}`}`.trim();
  return state === 'outside' ? `${found}: outside` : found;
}

/** The order fasteners are tightened in, numbered as they lie, seen from where the wrench is put. */
export function tighteningDrawing(pattern: FastenerPattern, order: readonly string[]): Extract<ReportBlock, { kind: 'drawing' }> {
  const margin = 16;
  const scale = (420 - 2 * margin) / pattern.widthMm;
  const height = pattern.heightMm * scale + 2 * margin;
  const at = new Map(order.map((id, i) => [id, i + 1]));
  const shapes: Shape[] = [
    { kind: 'box', x: 2, y: 2, w: 416, h: height - 4, fill: PLATE, stroke: QUIET, dash: false },
    ...pattern.positions.flatMap((p): Shape[] => {
      const x = margin + p.x * scale;
      const y = margin + p.y * scale;
      const r = 10;
      return [
        { kind: 'box', x: x - r, y: y - r, w: 2 * r, h: 2 * r, fill: '#ffffff', stroke: INK, dash: false },
        { kind: 'text', x: x - (at.get(p.id)! > 9 ? 6 : 3), y: y + 4, size: 11, bold: true, fill: INK, text: String(at.get(p.id)) },
      ];
    }),
  ];
  return {
    kind: 'drawing',
    shapes,
    width: 420,
    height,
    caption: `${pattern.name}: tightened from the middle outwards, each stage over all of them before the next. Its maker's own order stands before this one.`,
  };
}
