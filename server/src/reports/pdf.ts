import type { CaseView } from '@true-ledger/core/case';
import { signatureLines, versionLines, type ReportBlock, type ReportModel } from '@true-ledger/core/report';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { pictureKey } from './accountPicture.js';
import { FIRST_PAGE_ROOM, firstPageContent } from './firstPagePdf.js';
import { PAPER, paperHead, press, type Say } from './paper.js';
import { planSvg, shapesSvg, wearSvg } from './wearSvg.js';

/** Drawings wider than this, px, are set across the page. */
const WIDE = 760;

/** Renders a report as PDF with embedded fonts, outline of headings and page numbers. */
export async function reportPdf(
  model: ReportModel,
  view: CaseView,
  pictures: ReadonlyMap<string, Uint8Array>,
  root: string,
): Promise<Buffer> {
  const { say, createPdf } = press(root);
  // Made anew for every use: laying out writes into what it is given.
  const heading = (): Content[] => [
    ...paperHead(model.letterhead, say),
    { text: say(`${model.heading} ${model.number}`, 'Barlow'), style: 'title' },
    {
      text: say(`${model.title} · ${model.reference ? `client reference ${model.reference}` : 'no client reference'}`),
      margin: [0, 0, 0, 2] as [number, number, number, number],
    },
    ...versionLines(model).map((line): Content => ({ text: say(line), style: 'small' })),
  ];
  const setting = {
    ...PAPER,
    info: { title: `${model.heading} ${model.number}`, subject: model.title },
    // A heading never stands alone at the foot of a page.
    pageBreakBefore: (node, query) => node.headlineLevel !== undefined && query.getFollowingNodesOnPage().length === 0,
  } satisfies Omit<TDocumentDefinitions, 'content'>;
  const footer = (page: number, pages: number): Content => ({
    columns: [
      {
        text: say(
          `${model.number} · ${model.signing ? `version ${model.signing.version}` : model.kind === 'account' ? 'draft, not signed' : model.kind} · ledger ${model.ledgerHead.slice(0, 12)} · ${model.entries} entries`,
        ),
        style: 'small',
      },
      { text: `page ${page} of ${pages}`, alignment: 'right', style: 'small' },
    ],
    margin: [48, 16, 48, 0],
  });
  /** Pictures a document names, by key: only those of its pages, since every one of them is unpacked. */
  const images = (keys: Iterable<string>): Record<string, string> =>
    Object.fromEntries(
      [...keys].flatMap((key) => {
        const jpeg = pictures.get(key);
        return jpeg ? [[key, `data:image/jpeg;base64,${Buffer.from(jpeg).toString('base64')}`]] : [];
      }),
    );
  const first = model.first;
  const content = heading();
  if (first) {
    const made = (room: (typeof FIRST_PAGE_ROOM)[number]): Content[] =>
      firstPageContent(room, first, model, pictures, (text, font) => ({ text: say(text, font ?? 'B612'), ...(font ? { font } : {}) }));
    const own = first.picture ? [pictureKey(first.picture.station, first.picture.sha256)] : [];
    /** Pages that the first page would take with so much room. */
    const pagesIn = async (room: (typeof FIRST_PAGE_ROOM)[number]): Promise<number> => {
      let pages = 0;
      const count = (_page: number, of: number): Content => {
        pages = of;
        return footer(1, of);
      };
      await createPdf({ ...setting, images: images(own), footer: count, content: [...heading(), ...made(room)] });
      return pages;
    };
    let room: (typeof FIRST_PAGE_ROOM)[number] = FIRST_PAGE_ROOM[0];
    for (room of FIRST_PAGE_ROOM) if ((await pagesIn(room)) === 1) break;
    content.push(...made(room));
  }
  // The account is signed where it ends; the sheets in full follow.
  const signed = model.sections.filter((x) => x.id !== 'appendix');
  /** Place, date and signature; the last words are on the page that is signed. */
  const sign = (): void => {
    const signature = signatureLines(model);
    if (signature.length === 0) return;
    // The last words are on the page that is signed.
    const last = signed.at(-1)?.blocks.at(-1)?.kind === 'text' ? content.pop() : undefined;
    content.push({
      unbreakable: true,
      stack: [
        ...(last ? [last] : []),
        {
          margin: [0, 26, 0, 0],
          columns: ['Place and date', 'Signature'].map((label) => ({
            stack: [
              { canvas: [{ type: 'line' as const, x1: 0, y1: 30, x2: 220, y2: 30, lineWidth: 0.6 }] },
              { text: say(label), style: 'small', margin: [0, 3, 0, 0] as [number, number, number, number] },
            ],
          })),
          columnGap: 40,
        },
        ...signature.map((line): Content => ({ text: say(line), style: 'small', margin: [0, 4, 0, 0] })),
      ],
    });
  };
  let across = false;
  let begun = model.first === null;
  for (const section of model.sections) {
    if (section.id === 'appendix') sign();
    const wide = section.blocks.some((b) => b.kind === 'drawing' && b.width > WIDE);
    // A long drawing has a page across to itself; what follows stands upright again.
    const turned =
      wide !== across ? { pageBreak: 'before' as const, pageOrientation: wide ? ('landscape' as const) : ('portrait' as const) } : {};
    across = wide;
    // The first page is the answer by itself, and the full sheets begin a page of their own.
    const fresh = !begun || section.id === 'appendix' ? { pageBreak: 'before' as const } : {};
    begun = true;
    const heading: Content = {
      text: say(section.heading, 'Barlow'),
      style: 'heading',
      outline: true,
      outlineText: section.heading,
      headlineLevel: 1,
    } as Content;
    const parts = partsOf(section.blocks).map((part): { rows: Content[]; first: ReportBlock } => {
      // Pictures and developed surfaces stand two in a row.
      const rows = rowsOf(part).map((row): Content => {
        const drawn = row.map((block) => drawBlock(block, view, pictures, say));
        return row.length === 1 ? drawn[0]! : { columns: drawn, columnGap: 14, unbreakable: true };
      });
      // A part's name, words and first pictures are not parted by the end of a page.
      const kept = (section.id === 'findings' || section.id === 'assembly') && rows.length > 1 && rows.length <= KEPT_TOGETHER[section.id];
      return { rows: kept ? [{ stack: rows, unbreakable: true }] : rows, first: part[0]! };
    });
    const rows = parts.flatMap((part) => part.rows);
    // A heading goes with what follows it; before a long table, which may be parted, pdfmake moves it on (`pageBreakBefore`).
    const long = parts[0]?.first.kind === 'table' && parts[0].first.rows.length > KEPT_ROWS;
    const headed = long || rows.length === 0 ? [heading, ...rows] : [{ stack: [heading, rows[0]!], unbreakable: true }, ...rows.slice(1)];
    content.push({ stack: [headed[0]!], ...fresh, ...turned } as Content, ...headed.slice(1));
  }
  if (signed.length === model.sections.length) sign();
  return createPdf({ ...setting, images: images(pictures.keys()), footer, content });
}

/** Thin lines between the rows, a firm one under the head, and no air that paper is not meant for. */
const TABLE = {
  hLineWidth: (i: number, node: { table: { headerRows?: number | undefined } }): number =>
    i === node.table.headerRows ? 1 : i === 0 ? 0 : 0.4,
  vLineWidth: (): number => 0,
  hLineColor: (i: number): string => (i <= 1 ? '#20272b' : '#c9cfd3'),
  paddingTop: (): number => 1,
  paddingBottom: (): number => 1,
  paddingLeft: (i: number): number => (i === 0 ? 0 : 6),
  paddingRight: (): number => 0,
};

const FIGURE = 242;
/** Rows of a finding, and of a step of an assembly, that fit a page for certain. */
const KEPT_TOGETHER = { findings: 5, assembly: 9 } as const;
/** Rows of a table that fit under a heading for certain. */
const KEPT_ROWS = 10;

/** Blocks from one bold line to the next. */
function partsOf(blocks: readonly ReportBlock[]): ReportBlock[][] {
  const parts: ReportBlock[][] = [];
  for (const block of blocks) {
    if (parts.length === 0 || (block.kind === 'text' && block.strong)) parts.push([block]);
    else parts.at(-1)!.push(block);
  }
  return parts;
}

function rowsOf(blocks: readonly ReportBlock[]): ReportBlock[][] {
  const rows: ReportBlock[][] = [];
  for (const block of blocks) {
    const last = rows.at(-1);
    const figure = block.kind === 'photo' || block.kind === 'wear';
    if (figure && last?.length === 1 && (last[0]!.kind === 'photo' || last[0]!.kind === 'wear')) last.push(block);
    else rows.push([block]);
  }
  return rows;
}

function drawBlock(block: ReportBlock, view: CaseView, pictures: ReadonlyMap<string, Uint8Array>, say: Say): Content {
  switch (block.kind) {
    case 'text':
      return {
        text: say(block.text),
        ...(block.strong ? { style: 'strong', headlineLevel: 2 } : { margin: [0, 0, 0, 4] as [number, number, number, number] }),
      };
    case 'list':
      return { ul: block.items.map((item) => ({ text: say(item) })), margin: [0, 0, 0, 4] };
    case 'table': {
      const figures = new Set(block.figures ?? []);
      const cell = (text: string, i: number): Content =>
        figures.has(i) ? { text: say(text.replace(/ /g, '\u00a0'), 'Mono'), font: 'Mono', alignment: 'right' } : { text: say(text) };
      const head = block.head.some((h) => h !== '')
        ? [block.head.map((h, i): Content => ({ text: say(h), bold: true, ...(figures.has(i) ? { alignment: 'right' as const } : {}) }))]
        : [];
      const longest = block.head.map((h, i) => Math.max(h.length, ...block.rows.map((r) => r[i]?.length ?? 0)));
      const widest = longest.indexOf(Math.max(...longest));
      const widths = longest.map((_, i) => (i === widest ? '*' : 'auto'));
      return {
        table: {
          headerRows: head.length,
          keepWithHeaderRows: 1,
          dontBreakRows: true,
          widths,
          body: [...head, ...block.rows.map((r) => r.map(cell))],
        },
        layout: TABLE,
        margin: [0, 2, 0, 6],
      };
    }
    case 'photo': {
      const jpeg = pictures.get(pictureKey(block.station, block.sha256));
      const caption = `Picture ${block.number}: ${block.caption}${block.standIn ? ' – rendered stand-in, not a photograph' : ''}`;
      return {
        stack: [
          jpeg
            ? { image: pictureKey(block.station, block.sha256), fit: [FIGURE, block.small ? 92 : 148] }
            : { text: say('The picture is not at hand.'), style: 'small' },
          { text: say(caption), style: 'small', margin: [0, 3, 0, 0] },
        ],
        margin: [0, 4, 0, 6],
        unbreakable: true,
      };
    }
    case 'wear':
      return {
        stack: [{ svg: wearSvg(block.map, block.frame, FIGURE) }, { text: say(block.caption), style: 'small', margin: [0, 3, 0, 0] }],
        margin: [0, 4, 0, 8],
        unbreakable: true,
      };
    case 'drawing':
      return {
        stack: [
          { svg: shapesSvg(block.shapes, block.width, block.height), fit: block.width > WIDE ? [740, 400] : [499, 640] },
          { text: say(block.caption), style: 'small' },
        ],
        margin: [0, 4, 0, 8],
        unbreakable: true,
      };
    case 'plan':
      return { svg: planSvg(view.layout, 240), margin: [0, 4, 0, 8] };
  }
}
