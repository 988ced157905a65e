import { screen } from '@testing-library/react';
import { CASE, json, open, settled, Shop } from '../../testing/bench.js';
import { LikeCases } from './LikeCases.js';

const LIKE = {
  caseId: 'c0000000-0000-4000-8000-000000000002',
  number: '2024-P07',
  title: 'Ferry, port engine',
  likeness: 0.62,
  shared: ['wiping from too little oil', 'rod shell upper', 'a', 'b', 'c', 'd', 'e'],
  sameFamily: true,
  was: ['Oil level run low or none'],
  proved: true,
};
const shopWith = (cases: object[]): Shop => {
  const shop = new Shop();
  shop.more.set(`GET /api/across/like/${CASE}`, () => json(200, { among: 40, cases }));
  return shop;
};

describe('cases like this one', () => {
  it('say how alike, what is in common, and what each was', async () => {
    await open(<LikeCases />, {
      shop: shopWith([LIKE, { ...LIKE, caseId: 'x', number: '2024-P09', sameFamily: false, was: [], proved: false }]),
    });
    expect((await screen.findByText('2024-P07')).closest('a')!.getAttribute('href')).toBe(`/case/${LIKE.caseId}`);
    const [first, second] = screen.getAllByRole('listitem').map((l) => l.textContent);
    expect(first).toMatch(/62 %.*same kind of engine.*It was oil level run low or none, proved\. In common: wiping.*and 1 more\./);
    expect(second).toContain('What it was is not known.');
    expect(second).not.toContain('same kind');
  });

  it('are not spoken of where there is none, nor beside a practice engine', async () => {
    const first = await open(
      <>
        <LikeCases />
        <p>there</p>
      </>,
      { shop: shopWith([]) },
    );
    await settled();
    expect(screen.queryByText(/Cases like this one/)).toBeNull();
    first.unmount();
    const shop = shopWith([LIKE]);
    shop.write('practice-set', null, { level: 1, version: 1, sealed: true });
    await open(
      <>
        <LikeCases />
        <p>there</p>
      </>,
      { shop },
    );
    await settled();
    expect(screen.queryByText(/Cases like this one/)).toBeNull();
  });
});
