import type { Element, ElementContent, Root } from 'hast';
import { toHtml } from 'hast-util-to-html';
import { h } from 'hastscript';
import type { CaseView } from '@true-ledger/core/case';
import {
  letterheadLines,
  signatureLines,
  versionLines,
  type FirstPage,
  type ReportBlock,
  type ReportModel,
} from '@true-ledger/core/report';
import { pictureKey } from './accountPicture.js';
import { planSvg, shapesSvg, wearSvg } from './wearSvg.js';

const STYLE = `
:root { color: #20272b; background: #fff; font: 16px/1.45 'B612', system-ui, sans-serif; }
body { max-width: 46rem; margin: 0 auto; padding: 1rem; overflow-wrap: anywhere; }
td, th { overflow-wrap: normal; }
h1, h2, h3 { font-family: 'Barlow Semi Condensed', system-ui, sans-serif; line-height: 1.15; }
h2 { color: #31418C; margin-top: 2.2rem; border-top: 2px solid #20272b; padding-top: .5rem; }
.answer { font-size: 1.6rem; font-weight: 700; line-height: 1.15; }
.quiet { color: #4a545a; font-size: .85rem; }
table { border-collapse: collapse; width: 100%; margin: .6rem 0; font-size: .9rem; }
th, td { text-align: left; vertical-align: top; padding: .2rem .6rem .2rem 0; border-bottom: 1px solid #c9cfd3; }
thead th { border-bottom: 2px solid #20272b; }
.figure { text-align: right; font-family: 'B612 Mono', monospace; white-space: nowrap; }
.wide { overflow-x: auto; }
figure { margin: 1rem 0; }
figure img, figure svg { max-width: 100%; height: auto; }
nav ol { columns: 2; }
nav a { display: inline-block; min-height: 44px; }
@media print { h2, h3 { break-after: avoid; } figure, tr { break-inside: avoid; } nav { display: none; } }
@media (max-width: 40rem) { nav ol { columns: 1; } }
`;

/** Nothing is fetched and nothing runs, whatever a text in it holds. */
const POLICY = "default-src 'none'; img-src data:; style-src 'unsafe-inline'";

/** An account as one HTML file: pictures inside it, headings, captions and tables marked as such, nothing fetched from anywhere. UTF-8. */
export function reportHtml(model: ReportModel, view: CaseView, pictures: ReadonlyMap<string, Uint8Array>): string {
  const draw = (block: ReportBlock): Element => drawBlock(block, view, pictures);
  const sections = model.sections.map((section, i) =>
    h('section', { id: `s${i + 1}`, ariaLabelledBy: `h${i + 1}` }, [
      h('h2', { id: `h${i + 1}` }, section.heading),
      ...section.blocks.map(draw),
    ]),
  );
  const page: Root = h(null, [
    { type: 'doctype' },
    h('html', { lang: 'en' }, [
      h('head', [
        h('meta', { charset: 'utf-8' }),
        h('meta', { httpEquiv: 'Content-Security-Policy', content: POLICY }),
        h('meta', { name: 'viewport', content: 'width=device-width, initial-scale=1' }),
        h('title', `${model.heading} ${model.number}: ${model.title}`),
        h('style', STYLE),
      ]),
      h('body', [
        h('header', [
          ...(model.letterhead
            ? [
                h('p', [h('b', model.letterhead.name)]),
                h(
                  'p.quiet',
                  letterheadLines(model.letterhead).flatMap((line, i) => (i === 0 ? [line] : [h('br'), line])),
                ),
              ]
            : []),
          h('h1', `${model.heading} ${model.number}`),
          h('p', `${model.title} · ${model.reference ? `client reference ${model.reference}` : 'no client reference'}`),
          ...versionLines(model).map((line) => h('p.quiet', line)),
        ]),
        h('main', [
          ...(model.first ? [answer(model.first, draw)] : []),
          h('nav', { ariaLabel: 'Contents' }, [
            h(
              'ol',
              model.sections.map((s, i) => h('li', [h('a', { href: `#s${i + 1}` }, s.heading)])),
            ),
          ]),
          ...sections,
        ]),
        h('footer', [
          ...signatureLines(model).map((line) => h('p', line)),
          h('p.quiet', `${model.number} · ledger ${model.ledgerHead} · ${model.entries} entries`),
        ]),
      ]),
    ]),
  ]);
  return toHtml(page, { allowDangerousHtml: true });
}

/** The answer by itself: what failed, why, how sure, the picture that shows it, what is to be done, what was not seen. */
function answer(first: FirstPage, draw: (block: ReportBlock) => Element): Element {
  const list = (name: string, items: readonly string[]): Element[] =>
    items.length === 0
      ? []
      : [
          h('h3', name),
          h(
            'ul',
            items.map((item) => h('li', item)),
          ),
        ];
  return h('section', { ariaLabel: 'The answer' }, [
    h('p.answer', first.failed),
    h('p', first.why),
    ...(first.picture ? [draw(first.picture)] : []),
    ...(first.sure
      ? [
          h('h3', 'Cause, and how sure'),
          h('p', [h('b', first.sure.place ? `${first.sure.cause}: ${first.sure.place}` : first.sure.cause), `: ${first.sure.words}`]),
        ]
      : []),
    ...list('It rests on', first.restsOn),
    ...(first.rival ? [h('p', first.rival)] : []),
    draw(first.bench),
    ...list('To be done', first.todo),
    ...list('Not seen', first.notSeen),
  ]);
}

/** Drawings are made here and hold no text that is not escaped. */
const drawing = (svg: string, caption: string): Element =>
  h('figure', [
    h('div', { role: 'img', ariaLabel: caption }, [{ type: 'raw', value: svg } as unknown as ElementContent]),
    h('figcaption.quiet', caption),
  ]);

function drawBlock(block: ReportBlock, view: CaseView, pictures: ReadonlyMap<string, Uint8Array>): Element {
  switch (block.kind) {
    case 'text':
      return block.strong ? h('h3', block.text) : h('p', block.text);
    case 'list':
      return h(
        'ul',
        block.items.map((item) => h('li', item)),
      );
    case 'table': {
      const figures = new Set(block.figures ?? []);
      const named = block.head.some((name) => name !== '');
      // Wider than a phone, it is scrolled, by the keyboard as well.
      return h('div.wide', { tabIndex: 0, role: 'group', ariaLabel: named ? block.head.filter(Boolean).join(', ') : 'Table' }, [
        h('table', [
          ...(named
            ? [
                h('thead', [
                  h(
                    'tr',
                    block.head.map((name, i) => h('th', { scope: 'col', className: figures.has(i) ? ['figure'] : [] }, name)),
                  ),
                ]),
              ]
            : []),
          h(
            'tbody',
            block.rows.map((row) =>
              h(
                'tr',
                row.map((text, i) => h('td', { className: figures.has(i) ? ['figure'] : [] }, text)),
              ),
            ),
          ),
        ]),
      ]);
    }
    case 'photo': {
      const jpeg = pictures.get(pictureKey(block.station, block.sha256));
      const caption = `Picture ${block.number}: ${block.caption}${block.standIn ? ' – rendered stand-in, not a photograph' : ''}`;
      return h('figure', [
        jpeg
          ? h('img', { alt: caption, src: `data:image/jpeg;base64,${Buffer.from(jpeg).toString('base64')}` })
          : h('p.quiet', 'The picture is not at hand.'),
        h('figcaption.quiet', caption),
      ]);
    }
    case 'wear':
      return drawing(wearSvg(block.map, block.frame, 360), block.caption);
    case 'drawing':
      return drawing(shapesSvg(block.shapes, block.width, block.height), block.caption);
    case 'plan':
      return drawing(planSvg(view.layout, 360), 'The engine from above, front at left');
  }
}
