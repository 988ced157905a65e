/** Sections an account can have, in the order of their making. */
export const SECTION_IDS = [
  'question',
  'opening',
  'oil',
  'examined',
  'findings',
  'sheets',
  'causes',
  'sequence',
  'answers',
  'decided',
  'routes',
  'conclusion',
  'standing',
  'appendix',
] as const;
/** A section of the account. */
export type SectionId = (typeof SECTION_IDS)[number];

/** For whom an account is written. */
export const TEMPLATE_IDS = ['private', 'warranty', 'insurer', 'internal', 'inspection'] as const;
export type TemplateId = (typeof TEMPLATE_IDS)[number];

export const DETAILS = ['full', 'short'] as const;
export type Detail = (typeof DETAILS)[number];
