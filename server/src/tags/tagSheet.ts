import type { Station } from '@true-ledger/core/engine';
import { PART_TAG, tagText } from '@true-ledger/core/photo';
import pdfmake from 'pdfmake';
import type { Content } from 'pdfmake/interfaces.js';
import qrcode from 'qrcode';
import { fontFaces } from '../reports/fonts.js';

const POINT_PER_MM = 72 / 25.4;

/** One tag as SVG in millimetres, from the same measures the reader uses. */
function tagSvg(caseNumber: string, caseId: string, station: Pick<Station, 'id' | 'name'>): string {
  const { modules } = qrcode.create(tagText({ caseId, station: station.id }), { errorCorrectionLevel: 'M' });
  const { code, bar, patches, patchSize, widthMm, heightMm } = PART_TAG;
  const m = code.size / modules.size;
  const dark: string[] = [];
  for (let j = 0; j < modules.size; j++)
    for (let i = 0; i < modules.size; i++)
      if (modules.get(j, i))
        dark.push(
          `M${(code.x + i * m).toFixed(4)} ${(code.y + j * m).toFixed(4)}h${(m + 0.005).toFixed(4)}v${(m + 0.005).toFixed(4)}h-${(m + 0.005).toFixed(4)}z`,
        );
  const words = (text: string, y: number, size: number, bold = false): string =>
    `<text x="${bar.x}" y="${y}" font-family="B612" font-size="${size}"${bold ? ' font-weight="bold"' : ''} fill="#101010">${text.replace(/&/g, '&amp;').replace(/</g, '&lt;')}</text>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm * POINT_PER_MM}" height="${heightMm * POINT_PER_MM}" viewBox="0 0 ${widthMm} ${heightMm}">
<rect x="0.1" y="0.1" width="${widthMm - 0.2}" height="${heightMm - 0.2}" fill="#ffffff" stroke="#9aa4aa" stroke-width="0.15" stroke-dasharray="1 1"/>
<path d="${dark.join('')}" fill="#101010"/>
${patches.map((p) => `<rect x="${p.x}" y="${p.y}" width="${patchSize}" height="${patchSize}" fill="rgb(${p.rgb.join(',')})"/>`).join('')}
<rect x="${bar.x}" y="${bar.y}" width="${bar.length}" height="${bar.thick}" fill="#101010"/>
${words('20 mm', bar.y + bar.thick + 2.6, 2.2)}${words(station.name, 26, station.name.length > 24 ? 2.4 : 3, true)}${words(`${caseNumber}  ${station.id}`, 30, 2.1)}
</svg>`;
}

/** A4 sheets of tags, two across, sixteen to a page, to be printed at full size and cut. */
export async function tagSheet(caseNumber: string, caseId: string, stations: readonly Station[], root: string): Promise<Buffer> {
  const rows: Content[][] = [];
  for (let i = 0; i < stations.length; i += 2)
    rows.push(
      [0, 1].map((k): Content => {
        const station = stations[i + k];
        return station ? { svg: tagSvg(caseNumber, caseId, station), margin: [0, 0, 0, 0] } : { text: '' };
      }),
    );
  const faces = fontFaces(root);
  pdfmake.setFonts(faces);
  pdfmake.setUrlAccessPolicy(() => false);
  pdfmake.setLocalAccessPolicy((path: string) => Object.values(faces).some((f) => f.normal === path || f.bold === path));
  return pdfmake
    .createPdf({
      pageSize: 'A4',
      pageMargins: [40, 46, 40, 40],
      info: { title: `Part tags ${caseNumber}` },
      defaultStyle: { font: 'B612', fontSize: 8, color: '#20272b' },
      header: () => ({
        text: `Part tags, case ${caseNumber}. Print at full size: the bar must measure 20 mm. Cut along the dashes, lay beside the part.`,
        margin: [40, 20, 40, 0],
      }),
      footer: (page: number, pages: number) => ({ text: `sheet ${page} of ${pages}`, alignment: 'right', margin: [40, 8, 40, 0] }),
      content: [
        {
          table: { widths: [PART_TAG.widthMm * POINT_PER_MM, PART_TAG.widthMm * POINT_PER_MM], dontBreakRows: true, body: rows },
          layout: {
            hLineWidth: () => 0,
            vLineWidth: () => 0,
            paddingLeft: () => 0,
            paddingRight: () => 10,
            paddingTop: () => 0,
            paddingBottom: () => 6,
          },
        },
      ],
    })
    .getBuffer();
}
