import type { ReportBlock, ReportSection } from '../report/blocks.js';

const blockWords = (b: ReportBlock): string => {
  if (b.kind === 'text') return b.text;
  if (b.kind === 'list') return b.items.join('\n');
  if (b.kind === 'table') return [b.head, ...b.rows].map((r) => r.join(' | ')).join('\n');
  return 'caption' in b ? b.caption : '';
};

/** All a section of the account says, a line a row; of drawings their caption. */
export const sectionWords = (section: ReportSection | undefined): string => (section?.blocks ?? []).map(blockWords).join('\n');
