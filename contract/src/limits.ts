export const ROLES = ['owner', 'builder', 'reader'] as const;
export type Role = (typeof ROLES)[number];

export const LIMITS = {
  uploadBytes: 40 * 1024 * 1024,
  clipBytes: 60 * 1024 * 1024,
  bundleBytes: 1024 * 1024 * 1024,
  imagePixels: 100_000_000,
  entriesPerAppend: 500,
  jsonBytes: 4 * 1024 * 1024,
} as const;
