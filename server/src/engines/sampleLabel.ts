import { formatCounter, samplesOf, SPECIES, type EngineRecord, type LogLine } from '@true-ledger/core/engineLog';
import type { Content } from 'pdfmake/interfaces.js';
import qrcode from 'qrcode';
import { PAPER, press } from '../reports/paper.js';

/** Label for the bottle and form for the laboratory, on one sheet: the shop's own reference and what the oil has been through, and nobody's name. Null where no such sample stands in the log. */
export async function sampleLabel(
  record: EngineRecord,
  lines: readonly LogLine[],
  reference: string,
  root: string,
): Promise<Buffer | null> {
  const sample = samplesOf(lines).find((s) => s.line.body.reference === reference);
  if (!sample) return null;
  const { say, createPdf } = press(root);
  const counted = (value: number | null): string => (value === null ? 'not known' : formatCounter(value, record.counter));
  const facts: ReadonlyArray<readonly [string, string]> = [
    ['Reference', reference],
    ['Drawn', `${sample.line.day}, ${sample.line.body.drawn.replaceAll('-', ' ')}`],
    ['Engine runs on', `${record.fuel}, cooled by ${record.cooling}`],
    ['Service of the engine', counted(sample.line.counter)],
    ['Service of the oil', counted(sample.inOil)],
    ['Topped up since', `${sample.topUpL.toFixed(1)} l of ${record.sumpL} l`],
    ['Oil', sample.oil ?? 'not known'],
  ];
  const svg = await qrcode.toString(reference, { type: 'svg', errorCorrectionLevel: 'M', margin: 0 });
  // Made anew for each place: the press lays out the very objects it is given, once.
  const rows = (): Content[][] => facts.map(([what, said]) => [{ text: say(what), style: 'small' }, { text: say(said, 'Mono') }]);
  return createPdf({
    ...PAPER,
    info: { title: `Oil sample ${reference}` },
    content: [
      {
        table: {
          widths: [70, '*'],
          body: [
            [
              { svg, width: 64 },
              { table: { widths: [110, '*'], body: rows() }, layout: 'noBorders' },
            ],
          ],
        },
        margin: [0, 0, 0, 6],
      },
      { text: say('Cut here; the upper part goes on the bottle, the lower with it.'), style: 'small' },
      { text: say(`Oil sample ${reference}`), style: 'heading' },
      { table: { widths: [110, '*'], body: rows() }, layout: 'noBorders' },
      { text: say('Wanted'), style: 'label' },
      { text: say(SPECIES.map((s) => `${s.name} (${Object.keys(s.units)[0]})`).join(', ')) },
      { text: say('Answer'), style: 'label' },
      {
        text: say(
          `By this reference alone, with the day of the report and the unit of every figure; as CSV: reference, reported, then a column each, such as "Fe mg/kg". Under the limit as "<2".`,
        ),
      },
    ],
  });
}
