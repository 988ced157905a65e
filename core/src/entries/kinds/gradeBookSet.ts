import { gradeRulesSchema, type GradeBook, type GradeRule } from '../../damage/gradeBook.js';
import { object, text, type Schema } from '../../kit/schema.js';
import { defineEntry } from '../define.js';

export const gradeBookSet = defineEntry({
  kind: 'grade-book-set',
  name: 'Grade book',
  says: 'The grade book this case goes by, whole, so that it stands by itself.',
  body: object({
    book: object({ version: text(40), rules: gradeRulesSchema as unknown as Schema<readonly GradeRule[]> }) as unknown as Schema<GradeBook>,
  }),
  stands: 'case',
  slot: () => 'grade-book',
  tell: ({ book }) => `version ${book.version}, ${book.rules.length} rules`,
  ofCase: (all) => ({ gradeBook: all[0] }),
});
