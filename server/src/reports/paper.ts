import { letterheadLines, type Letterhead } from '@true-ledger/core/report';
import pdfmake from 'pdfmake';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { codePoints, fontFaces } from './fonts.js';

type Run = { text: string; font?: string };
/** Text as runs, each in a face that has its characters. */
export type Say = (text: string, font?: 'B612' | 'Mono' | 'Barlow') => Run[];

/** Splits text into runs so that characters the main face lacks are set in DejaVu. */
function fallbackRuns(text: string, covered: ReadonlySet<number>): Run[] {
  const runs: Run[] = [];
  for (const character of text) {
    const font = covered.has(character.codePointAt(0) as number) ? undefined : 'DejaVu';
    const last = runs.at(-1);
    if (last && last.font === font) last.text += character;
    else runs.push(font ? { text: character, font } : { text: character });
  }
  return runs.length > 0 ? runs : [{ text: '' }];
}

/** Page, faces and styles of everything the shop prints. */
export const PAPER = {
  pageSize: 'A4' as const,
  pageMargins: [48, 44, 48, 50] as [number, number, number, number],
  defaultStyle: { font: 'B612', fontSize: 9, lineHeight: 1.25, color: '#20272b' },
  styles: {
    title: { font: 'Barlow', fontSize: 14, bold: true },
    shop: { font: 'Barlow', fontSize: 15, bold: true },
    heading: { font: 'Barlow', fontSize: 14, bold: true, margin: [0, 14, 0, 5] as [number, number, number, number], color: '#31418C' },
    answer: { font: 'Barlow', fontSize: 17, bold: true, lineHeight: 1.1, margin: [0, 10, 0, 4] as [number, number, number, number] },
    why: { fontSize: 10.5, margin: [0, 0, 0, 6] as [number, number, number, number] },
    label: { font: 'Barlow', fontSize: 10.5, bold: true, color: '#31418C', margin: [0, 4, 0, 2] as [number, number, number, number] },
    strong: { bold: true, margin: [0, 6, 0, 2] as [number, number, number, number] },
    small: { fontSize: 7.5, color: '#4a545a' },
  },
} satisfies Omit<TDocumentDefinitions, 'content'>;

/** What sets a document: its faces, which fetch nothing and open no other file. */
export function press(root: string): { say: Say; createPdf: (document: TDocumentDefinitions) => Promise<Buffer> } {
  const faces = fontFaces(root);
  const covered = {
    B612: codePoints(faces['B612']!.normal),
    Mono: codePoints(faces['Mono']!.normal),
    Barlow: codePoints(faces['Barlow']!.normal),
  };
  pdfmake.setFonts(faces);
  pdfmake.setUrlAccessPolicy(() => false);
  pdfmake.setLocalAccessPolicy((path: string) => Object.values(faces).some((f) => f.normal === path || f.bold === path));
  return {
    say: (text, font = 'B612') => fallbackRuns(text, covered[font]),
    createPdf: (document) => pdfmake.createPdf(document).getBuffer(),
  };
}

/** Head of the shop's paper; nothing where none was entered. */
export function paperHead(letterhead: Letterhead | null, say: Say): Content[] {
  if (!letterhead) return [];
  return [
    {
      columns: [
        { text: say(letterhead.name, 'Barlow'), style: 'shop' },
        { text: say(letterheadLines(letterhead).join('\n')), style: 'small', alignment: 'right' },
      ],
      margin: [0, 0, 0, 10],
    },
  ];
}
