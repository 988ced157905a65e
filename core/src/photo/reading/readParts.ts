import type { PartClass } from '../../engine/stations.js';

/** Parts whose surface is developed from a picture, and those of them that are read. */
const FLATTENED_PARTS = ['shell', 'journal', 'skirt', 'bore', 'thrust', 'crown'] as const satisfies readonly PartClass[];

/** Parts whose face can be unrolled. */
export type FlattenedPart = (typeof FLATTENED_PARTS)[number];

/** Parts whose face can be read. */
export const READ_PARTS = ['shell', 'journal', 'skirt', 'bore', 'thrust', 'crown'] as const satisfies readonly FlattenedPart[];

export type ReadPart = (typeof READ_PARTS)[number];

/** Can the face of this part be unrolled? */
export const isFlattened = (part: string): part is FlattenedPart => (FLATTENED_PARTS as readonly string[]).includes(part);

/** Can the face of this part be read? */
export const isRead = (part: string): part is ReadPart => (READ_PARTS as readonly string[]).includes(part);
