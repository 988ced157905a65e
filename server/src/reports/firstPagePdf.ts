import { signatureLines, type FirstPage, type ReportModel } from '@true-ledger/core/report';
import type { Content } from 'pdfmake/interfaces.js';
import { pictureKey } from './accountPicture.js';
import { shapesSvg } from './wearSvg.js';

type Say = (text: string, font?: 'Mono' | 'Barlow') => Content;

/** Width of the text of a page, pt. */
const PAGE = 499;
const COLUMN = 232;
const GAP = 16;
const BAR = { width: COLUMN, height: 9 } as const;

/** How much of the answer is on its page: the first that fits is taken, all of it stands in the sections behind. */
export const FIRST_PAGE_ROOM = [
  { why: 520, lines: 5, letters: 200, bench: 182, picture: 158 },
  { why: 420, lines: 4, letters: 140, bench: 158, picture: 140 },
  { why: 300, lines: 3, letters: 100, bench: 132, picture: 120 },
  { why: 200, lines: 2, letters: 70, bench: 110, picture: 96 },
] as const;

type Room = (typeof FIRST_PAGE_ROOM)[number];

/** The first page of an account: the answer by itself, as much of it as there is room for. */
export function firstPageContent(
  room: Room,
  first: FirstPage,
  model: ReportModel,
  pictures: ReadonlyMap<string, Uint8Array>,
  say: Say,
): Content[] {
  const jpeg = first.picture && pictures.get(pictureKey(first.picture.station, first.picture.sha256));
  const list = (name: string, lines: readonly string[]): Content[] =>
    lines.length === 0 ? [] : [label(say, name), ...lines.map((l): Content => ({ text: [say(l)], margin: [0, 0, 0, 3] }))];
  return [
    { text: [say(first.failed, 'Barlow')], style: 'answer' },
    { text: [say(brief(first.why, room.why, ' (goes on under Conclusion)'))], style: 'why' },
    {
      columnGap: GAP,
      margin: [0, 6, 0, 0],
      columns: [
        {
          width: COLUMN,
          stack:
            first.picture && jpeg
              ? [
                  { image: pictureKey(first.picture.station, first.picture.sha256), fit: [COLUMN, room.picture] },
                  {
                    text: [
                      say(
                        `Picture ${first.picture.number}: ${first.picture.caption}${first.picture.standIn ? ' – rendered stand-in, not a photograph' : ''}`,
                      ),
                    ],
                    style: 'small',
                    margin: [0, 3, 0, 0],
                  },
                ]
              : [{ text: [say('No picture of it is in this account.')], style: 'small' }],
        },
        {
          width: '*',
          stack: [
            ...sureContent(first.sure, say),
            ...list('It rests on', first.restsOn),
            ...(first.rival ? [{ text: [say(first.rival)], margin: [0, 3, 0, 0] as [number, number, number, number] }] : []),
          ],
        },
      ],
    },
    {
      svg: shapesSvg(first.bench.shapes, first.bench.width, first.bench.height),
      fit: [PAGE, room.bench],
      alignment: 'center',
      margin: [0, 8, 0, 0],
    },
    { text: [say(first.bench.caption)], style: 'small', margin: [0, 2, 0, 4] },
    {
      fontSize: 8,
      columnGap: GAP,
      columns: [
        { width: '*', stack: list('To be done', shortened(first.todo, room)) },
        { width: '*', stack: list('Not seen', shortened(first.notSeen, room)) },
        { width: '*', stack: list('Signed, and how to check it', [...signatureLines(model), ...verifyLines(model)]) },
      ],
    },
  ];
}

/** So many lines of so many letters. */
function shortened(lines: readonly string[], { lines: most, letters }: Room): string[] {
  const shown = lines.slice(0, most).map((l) => brief(l, letters, ' …'));
  return lines.length > most ? [...shown, `${lines.length - most} more in the account.`] : shown;
}

/** Words up to a number of letters, ended at a word. */
function brief(text: string, most: number, more: string): string {
  if (text.length <= most) return text;
  const cut = text.slice(0, most);
  return `${cut.slice(0, Math.max(cut.lastIndexOf('. ') + 1, cut.lastIndexOf(' ')))}${more}`;
}

const label = (say: Say, name: string): Content => ({ text: [say(name, 'Barlow')], style: 'label' });

/** The leading cause with its probability on a scale, the range as a bar and the mean as a stroke. */
function sureContent(sure: FirstPage['sure'], say: Say): Content[] {
  if (!sure) return [];
  const x = (p: number): number => p * BAR.width;
  return [
    label(say, 'Cause, and how sure'),
    { text: [say(sure.place ? `${sure.cause}: ${sure.place}` : sure.cause)], bold: true, fontSize: 11 },
    { text: [say(sure.words)], margin: [0, 1, 0, 4] },
    {
      canvas: [
        { type: 'rect', x: 0, y: 0, w: BAR.width, h: BAR.height, lineWidth: 0.6, lineColor: '#4a545a' },
        { type: 'rect', x: x(sure.low), y: 1.5, w: Math.max(1.5, x(sure.high) - x(sure.low)), h: BAR.height - 3, color: '#a3acd2' },
        { type: 'rect', x: Math.min(BAR.width - 2, x(sure.probability) - 1), y: -1.5, w: 2, h: BAR.height + 3, color: '#31418C' },
      ],
    },
    { text: [say('0 to 100 %; bar: 10 to 90 % of the draws')], style: 'small', margin: [0, 3, 0, 4] },
  ];
}

/** How somebody else finds out that nothing was changed. */
const verifyLines = ({ ledgerHead, entries }: ReportModel): string[] => [
  `${entries} entries, head ${ledgerHead.slice(0, 12)}… on every page; the bundle of this case proves it in any copy of the application.`,
];
