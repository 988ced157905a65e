import type { FlattenedPart } from '@true-ledger/core/photo';

export interface CornerWords {
  /** Of the four handles in their order. */
  readonly names: readonly [string, string, string, string];
  readonly hint: string;
  /** What the arc in the middle of the picture is called; absent where the picture shows the whole face. */
  readonly facing?: string;
}

const BY_EDGE = ['left, front edge', 'left, rear edge', 'right, rear edge', 'right, front edge'] as const;
const SQUARE = ['lower left', 'upper left', 'upper right', 'lower right'] as const;

/** How the four handles are named on each part, and where they belong. */
export const CORNER_WORDS: Readonly<Record<FlattenedPart, CornerWords>> = {
  shell: { names: BY_EDGE, hint: 'The four ends of the parting lines, front edge nearest you.' },
  journal: {
    names: BY_EDGE,
    hint: 'Where the sides of the journal meet its two fillets, front edge nearest you.',
    facing: 'Degrees facing you',
  },
  skirt: {
    names: ['left, foot', 'left, ring land', 'right, ring land', 'right, foot'],
    hint: 'Where the sides of the skirt meet its foot and the lowest groove, crown up.',
  },
  bore: {
    names: ['left, lower edge', 'left, deck', 'right, deck', 'right, lower edge'],
    hint: 'The four corners of the strip, deck up.',
    facing: 'Degrees in the middle of the strip',
  },
  thrust: { names: SQUARE, hint: 'The square about the outer circle, oil groove or mark of the top upwards.' },
  crown: { names: SQUARE, hint: 'The square about the crown, front to the left.' },
};
