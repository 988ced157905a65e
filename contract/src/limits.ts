export const ROLES = ['owner', 'builder', 'reader'] as const;
export type Role = (typeof ROLES)[number];

/** Sizes a photographed surface is laid out in, and how wide each is at most, pixels: the largest first. */
export const SURFACE_WIDTHS = { large: 2048, middle: 512, small: 128 } as const;
export type SurfaceSize = keyof typeof SURFACE_WIDTHS;

/** Stages a case can be at, in their order. */
export const STAGES = ['Intake', 'Before opening', 'Strip', 'Bench', 'Measure', 'Cause', 'Decide', 'Document'] as const;
/** Whom or what a case waits for that is not the builder himself. */
export const WAITS = ['client', 'earlier builder', 'maker', 'machine shop', 'parts'] as const;
export type Waits = (typeof WAITS)[number];
/** What the shelf is sorted by: last entry first, newest number first, least examined first. */
export const SHELF_ORDERS = ['written', 'number', 'examined'] as const;
export type ShelfOrder = (typeof SHELF_ORDERS)[number];

export const LIMITS = {
  uploadBytes: 40 * 1024 * 1024,
  clipBytes: 60 * 1024 * 1024,
  bundleBytes: 1024 * 1024 * 1024,
  imagePixels: 100_000_000,
  entriesPerAppend: 500,
  jsonBytes: 4 * 1024 * 1024,
} as const;
