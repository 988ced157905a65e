import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as fontkit from 'fontkit';

/** Font faces embedded in every PDF; DejaVu stands in for symbols the others lack (≤ ≥ Δ π →). */
export function fontFaces(root: string): Record<string, { normal: string; bold: string; italics: string; bolditalics: string }> {
  // Unpacked when the server is built: the PDF library would unpack them for every document, which was two fifths of its time.
  const fontsource = (family: string, weight: number): string =>
    join(root, 'server', 'dist', 'fonts', `${family}-latin-${weight}-normal.ttf`);
  const face = (normal: string, bold: string): { normal: string; bold: string; italics: string; bolditalics: string } => ({
    normal,
    bold,
    italics: normal,
    bolditalics: bold,
  });
  const dejavu = (name: string): string => join(root, 'node_modules', 'dejavu-fonts-ttf', 'ttf', name);
  return {
    B612: face(fontsource('b612', 400), fontsource('b612', 700)),
    Mono: face(fontsource('b612-mono', 400), fontsource('b612-mono', 700)),
    Barlow: face(fontsource('barlow-semi-condensed', 500), fontsource('barlow-semi-condensed', 600)),
    DejaVu: face(dejavu('DejaVuSans.ttf'), dejavu('DejaVuSans-Bold.ttf')),
  };
}

const coverage = new Map<string, Set<number>>();

/** Code points a font file can show. */
export function codePoints(path: string): Set<number> {
  let known = coverage.get(path);
  if (!known) {
    known = new Set((fontkit.create(readFileSync(path)) as { characterSet: number[] }).characterSet);
    coverage.set(path, known);
  }
  return known;
}
