import { GRADE_BOOK } from '@true-ledger/core/damage';
import { screen, waitFor } from '@testing-library/react';
import { json, openShop, person, Shop } from '../testing/bench.js';
import { GradeBook } from './GradeBook.js';

// The thresholds of the grades: contradictions are told before they are kept, and every version stays.
interface Sent {
  readonly basedOn: string;
  readonly note: string;
  readonly rules: Array<{ parts: string[]; grade: number; above: number }>;
}
function shopOf(answer: () => Response = () => json(201, {})): Shop & { sent: Sent[] } {
  const shop = Object.assign(new Shop(), { sent: [] as Sent[] });
  const first = { book: GRADE_BOOK, note: 'As it comes', by: '', time: '' };
  const second = { book: { ...GRADE_BOOK, version: '2' }, note: 'Harder on copper', by: 'Mara', time: '2026-10-01T08:00:00Z' };
  shop.more.set('GET /api/grade-books', () => json(200, [second, first]));
  shop.more.set('POST /api/grade-books', async (request) => {
    shop.sent.push((await request.json()) as Sent);
    return answer();
  });
  return shop;
}
const field = async (): Promise<HTMLInputElement> => {
  await screen.findByText('Grade book');
  const all = await screen.findAllByRole<HTMLInputElement>('textbox');
  return all.find((f) => /, grade 2 above$/.test(f.getAttribute('aria-label') ?? '') && f.value !== '')!;
};

describe('the grade book', () => {
  it('keeps a changed threshold as a version of its own, with why', async () => {
    const shop = shopOf();
    const { user } = openShop(<GradeBook me={person('owner')} />, { shop });
    const f = await field();
    const kept = Number(f.value);
    await user.clear(f);
    await user.type(f, String(kept + 0.5));
    await user.tab();
    const keep = screen.getByText('Keep as a new version').closest('button')!;
    expect(keep.disabled).toBe(true);
    await user.type(screen.getByLabelText('Why it is changed'), 'our thinner overlay');
    await user.click(keep);
    await waitFor(() => expect(shop.sent).toHaveLength(1));
    expect(shop.sent[0]).toMatchObject({ basedOn: '2', note: 'our thinner overlay' });
    // Only one rule differs from the book it was made from, which was for several parts at once.
    const apart = (rules: ReadonlyArray<{ parts: readonly string[]; grade: number; above: number; on: unknown }>): string[] =>
      rules.flatMap((r) => r.parts.map((p) => JSON.stringify([p, r.on, r.grade, r.above])));
    const was = new Set(apart(GRADE_BOOK.rules as never));
    expect(apart(shop.sent[0]!.rules as never).filter((r) => !was.has(r))).toHaveLength(1);
    expect(await screen.findByText(/Kept as a new version/)).toBeTruthy();
  });

  it('does not keep a book in which a worse grade is reached before a better one', async () => {
    const shop = shopOf();
    const { user } = openShop(<GradeBook me={person('owner')} />, { shop });
    const f = await field();
    await user.clear(f);
    await user.type(f, '99');
    await user.tab();
    expect((await screen.findByRole('alert')).textContent).toMatch(/grade/i);
    await user.type(screen.getByLabelText('Why it is changed'), 'by mistake');
    expect(screen.getByText('Keep as a new version').closest('button')!.disabled).toBe(true);
    await user.click(screen.getByText('Leave it as it was'));
    expect(screen.queryByRole('alert')).toBeNull();
    expect(Number((await field()).value)).toBeLessThan(99);
  });

  it('somebody else was faster: his words are told and the change is not lost', async () => {
    const shop = shopOf(() => json(409, { code: 'book-conflict', sentence: 'Tom kept version 3 meanwhile. Nothing was kept.' }));
    const { user } = openShop(<GradeBook me={person('owner')} />, { shop });
    const f = await field();
    const kept = Number(f.value);
    await user.clear(f);
    await user.type(f, String(kept + 0.5));
    await user.tab();
    await user.type(screen.getByLabelText('Why it is changed'), 'our overlay');
    await user.click(screen.getByText('Keep as a new version'));
    expect(await screen.findByText('Tom kept version 3 meanwhile. Nothing was kept.')).toBeTruthy();
    expect(Number((await field()).value)).toBe(kept + 0.5);
  });

  it('an older version is read and not changed; nor by a builder any', async () => {
    const { user, unmount } = openShop(<GradeBook me={person('owner')} />, { shop: shopOf() });
    await field();
    await user.click(screen.getByLabelText('Version'));
    await user.click(await screen.findByTitle(/as it comes/));
    await waitFor(() => expect(screen.queryAllByLabelText(/, grade 2 above$/)).toHaveLength(0));
    unmount();
    openShop(<GradeBook me={person('builder')} />, { shop: shopOf() });
    expect(await screen.findByText('The owner of the shop changes it.')).toBeTruthy();
    expect(screen.queryAllByLabelText(/, grade 2 above$/)).toHaveLength(0);
  });
});
