import { TEST_UNIT } from '@true-ledger/core/across';
import { SPECIES, type LineBodies, type LogLine } from '@true-ledger/core/engineLog';

const plain = (word: string): string => word.replaceAll('-', ' ');

/** What is expected of a test, in words: `less damage, by 10 % of the face`. */
export function expectedWords(expected: LineBodies['test']['expected'], by: number | null, figure: LineBodies['test']['figure']): string {
  const what = figure === 'damage' ? 'damage' : 'grade';
  const amount = by === null ? '' : `${expected === 'same' ? ', within' : ', by'} ${by} ${TEST_UNIT[figure]}`;
  return `${expected === 'same' ? 'the same' : expected} ${what}${amount}`;
}

/** A line of a log in words, without its day. */
export function lineWords(line: LogLine): string {
  switch (line.kind) {
    case 'level': {
      const { share, look, stick, note } = line.body;
      const at = share === 1 ? 'at the upper mark' : share === 0 ? 'at the lower mark' : `at ${share.toFixed(2)} between the marks`;
      return [
        share < 0 ? 'under the lower mark' : share > 1 ? `over the upper mark (${share.toFixed(2)})` : at,
        look ? plain(look) : '',
        stick ? `stick ${stick}` : '',
        note,
      ]
        .filter(Boolean)
        .join(', ');
    }
    case 'top-up':
      return `${line.body.litres} l ${line.body.oil}`;
    case 'oil-change':
      return `${line.body.litres} l ${line.body.oil}, filter ${line.body.filter ? 'new' : 'kept'}`;
    case 'pressure':
      return `${line.body.bar.toFixed(1)} bar ${plain(line.body.state)}`;
    case 'filter-cut':
      return [plain(line.body.found), line.body.note].filter(Boolean).join('; ');
    case 'sample':
      return [line.body.reference, `from ${plain(line.body.drawn)}`, line.body.laboratory && `to ${line.body.laboratory}`]
        .filter(Boolean)
        .join(', ');
    case 'result': {
      const figures = SPECIES.flatMap(({ id, units }) => {
        const value = line.body.figures[id];
        const [unit = ''] = Object.keys(units);
        return value === undefined ? [] : [`${id} ${value}${unit === 'mg/kg' ? '' : ` ${unit}`}`];
      });
      return `${line.body.reference}, reported ${line.body.reported}${line.body.insisted ? ', stands though doubted' : ''}: ${figures.join(', ')}`;
    }
    case 'owner':
      return line.body.reference;
    case 'test': {
      const { name, what, places, part, figure, expected, by } = line.body;
      const where = places.length > 0 ? `at ${places.length} places` : 'in the whole engine';
      return `${name}: ${what || line.body.changed} ${where}; ${expectedWords(expected, by, figure)} of ${part === 'rings' ? 'rings' : `${part}s`} expected`;
    }
    case 'note':
      return line.body.words;
    case 'struck':
      return line.body.why;
  }
}
