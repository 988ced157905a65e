import { object, oneOf, text } from '../../kit/schema.js';
import { by, defineEntry } from '../define.js';

const REPORT_FIELDS = ['conclusion', 'actions'] as const;
export type ReportField = (typeof REPORT_FIELDS)[number];

export const reportSet = defineEntry({
  kind: 'report-set',
  name: 'Report',
  says: 'The builder’s conclusion or actions for the account.',
  body: object({ field: oneOf(REPORT_FIELDS), value: text(20_000) }),
  stands: 'case',
  slot: (b) => `report:${b.field}`,
  tell: (b) => `${b.field}: ${b.value.slice(0, 120)}`,
  ofCase: (all) => ({ reportFields: by(all, (b) => b.field) }),
});
