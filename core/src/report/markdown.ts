import type { FirstPage, ReportBlock, ReportModel } from './blocks.js';
import { versionLines } from './model.js';

const cell = (text: string): string => text.replace(/\|/g, '\\|').replace(/\s*\n\s*/g, ' ');

function blockLines(block: ReportBlock): string[] {
  switch (block.kind) {
    case 'text':
      return [block.strong && !block.key ? `### ${block.text}` : block.text, ''];
    case 'list':
      return [...block.items.map((i) => `- ${i}`), ''];
    case 'table': {
      const width = Math.max(block.head.length, ...block.rows.map((r) => r.length));
      const row = (cells: readonly string[]): string => `| ${Array.from({ length: width }, (_, i) => cell(cells[i] ?? '')).join(' | ')} |`;
      const figures = new Set(block.figures ?? []);
      return [
        row(block.head),
        `|${Array.from({ length: width }, (_, i) => (figures.has(i) ? ' ---: |' : ' --- |')).join('')}`,
        ...block.rows.map(row),
        '',
      ];
    }
    case 'photo':
      return [`*Picture ${block.number}: ${block.caption}${block.standIn ? ' – rendered stand-in, not a photograph' : ''}*`, ''];
    case 'wear':
    case 'drawing':
      return [`*${block.caption}*`, ''];
    case 'plan':
      return [];
  }
}

/** The first page: what stands on it, in its order. */
function firstLines(first: FirstPage): string[] {
  const part = (name: string, lines: readonly string[]): string[] =>
    lines.length > 0 ? [`**${name}**`, '', ...lines.map((l) => `- ${l}`), ''] : [];
  return [
    `**${first.failed}**`,
    '',
    first.why,
    '',
    ...(first.sure ? [`${first.sure.cause}${first.sure.place ? ` (${first.sure.place})` : ''}: ${first.sure.words}.`, ''] : []),
    ...part('It rests on', first.restsOn),
    ...(first.rival ? [first.rival, ''] : []),
    ...part('To be done', first.todo),
    ...part('Not seen', first.notSeen),
  ];
}

/** The account in words, as Markdown: the same sections as page and PDF, pictures and drawings by their captions. */
export function reportMarkdown(model: ReportModel): string {
  return [
    `# ${model.heading}${model.number ? ` ${model.number}` : ''}`,
    '',
    ...(model.title ? [model.title, ''] : []),
    ...(model.reference ? [`Client reference ${model.reference}`, ''] : []),
    ...versionLines(model).flatMap((line) => [line, '']),
    ...(model.first ? firstLines(model.first) : []),
    ...model.sections.flatMap((s) => [`## ${s.heading}`, '', ...s.blocks.flatMap(blockLines)]),
  ].join('\n');
}
