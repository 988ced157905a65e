import { SECTION_IDS, type Detail, type SectionId, type TemplateId } from '../entries/account.js';

export interface ReportTemplate {
  readonly id: TemplateId;
  readonly name: string;
  readonly heading: string;
  /** For whom, and what it leaves out and why. */
  readonly says: string;
  readonly order: readonly SectionId[];
  readonly detail: Detail;
}

/** Sections an account never goes without: what was not examined, and how far it stands. */
export const ALWAYS: ReadonlySet<SectionId> = new Set(['examined', 'standing']);

/** Accounts by reader. A template sets order and detail; every choice can be changed by hand afterwards. */
export const TEMPLATES: readonly ReportTemplate[] = [
  {
    id: 'private',
    name: 'Private client',
    heading: 'Teardown account',
    says: 'Conclusion, work and cost first; sheets in short.',
    order: [
      'question',
      'conclusion',
      'findings',
      'causes',
      'sequence',
      'decided',
      'routes',
      'answers',
      'examined',
      'opening',
      'oil',
      'sheets',
      'standing',
    ],
    detail: 'short',
  },
  {
    id: 'warranty',
    name: 'Maker’s warranty',
    heading: 'Failure account for warranty',
    says: 'Everything that was seen and measured, what the desk asks for; no prices.',
    order: [
      'question',
      'opening',
      'oil',
      'examined',
      'findings',
      'sequence',
      'causes',
      'conclusion',
      'sheets',
      'answers',
      'decided',
      'standing',
      'appendix',
    ],
    detail: 'full',
  },
  {
    id: 'insurer',
    name: 'Insurer',
    heading: 'Damage account',
    says: 'Whole account with the order of events, routes and their cost.',
    order: [
      'question',
      'findings',
      'sequence',
      'causes',
      'conclusion',
      'decided',
      'routes',
      'sheets',
      'answers',
      'examined',
      'opening',
      'oil',
      'standing',
      'appendix',
    ],
    detail: 'full',
  },
  {
    id: 'internal',
    name: 'Internal',
    heading: 'Workshop account',
    says: 'Everything, in the order of the work.',
    order: SECTION_IDS,
    detail: 'full',
  },
  {
    id: 'inspection',
    name: 'Inspection of a healthy engine',
    heading: 'Inspection account',
    says: 'What was looked at and good, and what was measured; causes only where something was found.',
    order: ['question', 'conclusion', 'examined', 'findings', 'sheets', 'standing', 'appendix'],
    detail: 'full',
  },
];

/** Template that goes with who asks the question. */
export function templateFor(questionOwner: string): ReportTemplate {
  const id = { private: 'private', warranty: 'warranty', insurer: 'insurer', inspection: 'inspection' }[questionOwner] ?? 'internal';
  return TEMPLATES.find((t) => t.id === id)!;
}
