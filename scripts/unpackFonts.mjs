// Unpacks the faces that PDFs embed, as part of building the server: web fonts are packed, and the PDF library would unpack them anew for every document.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import woff from 'woff2sfnt-sfnt2woff';
import { fontFaces } from '../server/dist/reports/fonts.js';
import { ROOT } from './lib.mjs';

const to = join(ROOT, 'server', 'dist', 'fonts');
mkdirSync(to, { recursive: true });
for (const path of Object.values(fontFaces(ROOT)).flatMap(({ normal, bold }) => [normal, bold])) {
  if (dirname(path) !== to) continue;
  const name = basename(path, '.ttf');
  const packed = readFileSync(join(ROOT, 'node_modules', '@fontsource', name.replace(/-latin-.*$/, ''), 'files', `${name}.woff`));
  writeFileSync(path, woff.toSfnt(packed));
}
