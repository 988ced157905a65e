import { screen } from '@testing-library/react';
import { CASE, open, Shop } from '../../testing/bench.js';
import { SecondOpinion } from './SecondOpinion.js';

const at = `/case/${CASE}/second-opinion`;

describe('a second opinion', () => {
  it('says that nothing is graded, or that one cannot give it on his own grades', async () => {
    await open(<SecondOpinion />, { at });
    expect(await screen.findByText('No place has a confirmed grade yet.')).toBeTruthy();
  });

  it('is another builder’s', async () => {
    const shop = new Shop();
    shop.write('grade-confirmed', 'bore.1', { grade: 2, proposed: null, reason: '', book: shop.view.book.version });
    await open(<SecondOpinion />, { at, shop });
    expect(await screen.findByText(/You gave every grade of this case yourself/)).toBeTruthy();
    expect(screen.queryByRole('link', { name: 'Bore 1' })).toBeNull();
  });

  it('is offered blind where somebody else graded', async () => {
    const shop = new Shop();
    shop.as('Teo');
    shop.write('grade-confirmed', 'bore.1', { grade: 2, proposed: null, reason: '', book: shop.view.book.version });
    await open(<SecondOpinion />, { at, shop });
    const link = await screen.findByRole('link', { name: 'Bore 1' });
    expect(link.getAttribute('href')).toBe(`/case/${CASE}/second-opinion/bore.1`);
    // Nothing of what Teo thought is on the page.
    expect(document.body.textContent).not.toMatch(/Worn|Teo/);
  });
});
