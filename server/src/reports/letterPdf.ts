import type { Letter } from '@true-ledger/contract';
import { letterParagraphs, type Letterhead } from '@true-ledger/core/report';
import type { Content } from 'pdfmake/interfaces.js';
import { PAPER, paperHead, press } from './paper.js';

/** Height at which the address stands, so that it shows in the window of an envelope, pt from the top of the page. */
const ADDRESS_AT = 128;

/** A letter on the paper of the shop, dated `day` (ISO). */
export async function letterPdf(letter: Letter, letterhead: Letterhead | null, day: string, root: string): Promise<Buffer> {
  const { say, createPdf } = press(root);
  const body = letterParagraphs(letter.body).map((p): Content =>
    typeof p === 'string'
      ? { text: say(p), margin: [0, 0, 0, 8] }
      : { ul: p.map((item) => ({ text: say(item), margin: [0, 0, 0, 2] as [number, number, number, number] })), margin: [0, 0, 0, 8] },
  );
  // The signature is not alone on a page of its own.
  const last = body.splice(-2);
  return createPdf({
    ...PAPER,
    pageMargins: [64, 44, 64, 56],
    defaultStyle: { ...PAPER.defaultStyle, fontSize: 10, lineHeight: 1.35 },
    info: { title: letter.subject },
    content: [
      ...paperHead(letterhead, say),
      { text: say(letter.addressee), absolutePosition: { x: 64, y: ADDRESS_AT } },
      { text: say(day), alignment: 'right', margin: [0, 110, 0, 22] },
      { text: say(letter.subject, 'Barlow'), style: 'title', margin: [0, 0, 0, 14] },
      ...body,
      {
        unbreakable: true,
        stack: [
          ...last,
          { canvas: [{ type: 'line', x1: 0, y1: 40, x2: 220, y2: 40, lineWidth: 0.6 }] },
          { text: say('Signature'), style: 'small', margin: [0, 3, 0, 0] },
        ],
      },
    ],
    footer: (page: number, pages: number): Content =>
      pages > 1 ? { text: `page ${page} of ${pages}`, alignment: 'right', style: 'small', margin: [64, 16, 64, 0] } : '',
  });
}
