import type { FindingWords } from '../bundle/caseFile/format.js';
import { caseOf } from '../testing/caseOf.js';
import { diagnose } from '../diagnosis/diagnose.js';
import { firstPage } from './firstPage.js';
import { filledLetter, letterParagraphs, LETTER_TEMPLATES, LETTERS, unknownFields, type LetterOf } from './letters.js';
import { NO_PARTIES, type Parties } from './parties.js';

// A letter says what the account says, in the shop's own frame; what is not known leaves no gap.
const grade = (station: string, value: number): FindingWords => ({ station, grade: value });
const nobody: LetterOf = { parties: NO_PARTIES, letterhead: null, routes: [] };
const brigade: Parties = {
  client: { name: 'Village fire brigade', address: '', contact: '' },
  engine: { make: 'invented', model: 'four', serial: 'FP-1', hours: '1 140 h', fitted: '' },
};
const worn = caseOf({ findings: [grade('main.2.shell.upper', 4), grade('rod.2.shell.upper', 3)] });

describe('letters of a case', () => {
  it.each(LETTERS)('leaves neither a field, nor a bracket, nor a gap of the template for %s', (to) => {
    for (const view of [caseOf(), worn])
      for (const known of [nobody, { ...nobody, parties: brigade }]) {
        const { subject, body } = filledLetter(view, LETTER_TEMPLATES[to], known);
        expect(`${subject}\n${body}`).not.toMatch(/[{}[\]]| {2}| [.,;]|\.\.|:\n\n[^–]|\n{3}/);
        expect(letterParagraphs(body).at(-1)).not.toMatch(/:$/);
      }
    expect(unknownFields(LETTER_TEMPLATES[to])).toEqual([]);
  });

  it('says what the first page of the account says', () => {
    const page = firstPage(worn, diagnose(worn), new Map(), []);
    const { body } = filledLetter(worn, LETTER_TEMPLATES.client, nobody);
    for (const words of [page.failed, page.why, page.sure!.words, page.rival!, ...page.todo, ...page.notSeen])
      expect(body).toContain(words);
  });

  it('greets by name, and names the engine, where they are known', () => {
    expect(filledLetter(worn, LETTER_TEMPLATES.client, nobody).body).toMatch(/^Good day,\n/);
    expect(filledLetter(worn, LETTER_TEMPLATES.client, { ...nobody, parties: brigade }).body).toMatch(/^Good day Village fire brigade,\n/);
    const desk = filledLetter(worn, LETTER_TEMPLATES.warranty, { ...nobody, parties: brigade }).body;
    expect(desk).toContain('Engine: invented, four, serial number FP-1. Run: 1 140 h.');
    expect(filledLetter(worn, LETTER_TEMPLATES.warranty, nobody).body).not.toContain('Run:');
  });

  it('leaves out a paragraph of which nothing is known, and the words that lead to it', () => {
    const template = { subject: 'x', body: 'First.\n\nPlease do:\n\n{work}\n\nBy {deadline}.\n\nLast[ of {deadline}].' };
    expect(filledLetter(worn, template, nobody).body).toBe('First.\n\nLast.');
  });

  it('names what is no field and leaves it standing, braces of others too', () => {
    const template = { subject: '{case} {colour}', body: '{colour} {constructor}' };
    expect(unknownFields(template)).toEqual(['colour', 'constructor']);
    expect(filledLetter(worn, template, nobody)).toEqual({ subject: `${worn.number} {colour}`.trim(), body: '{colour} {constructor}' });
  });

  it('takes lines with dashes for a list, and an empty body for none', () => {
    expect(letterParagraphs('One.\nTwo.\n\n\n– a\n– b\n\nAfter – all.')).toEqual(['One.\nTwo.', ['a', 'b'], 'After – all.']);
    expect(letterParagraphs(' \n \n')).toEqual([]);
  });
});
