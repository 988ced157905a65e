import { CAUSES } from '@true-ledger/core/cause';
import { PATTERNS } from '@true-ledger/core/damage';
import { act, screen, within } from '@testing-library/react';
import { openShop } from '../testing/bench.js';
import { Patterns } from './Patterns.js';

// The catalogue: found by any trade word, and each record tells what the weighing uses.
const names = (): string[] =>
  [...screen.getByRole('list', { name: 'Patterns' }).querySelectorAll('button')].map((b) => b.firstChild!.textContent!);
const record = (): HTMLElement => screen.getByRole('article');

describe('the patterns', () => {
  it('are all there, and found by another word of the trade', async () => {
    const { user } = openShop(<Patterns />, { at: '/patterns' });
    expect(names()).toEqual(PATTERNS.map((p) => p.name));
    const also = PATTERNS.find((p) => p.alsoCalled.length > 0)!;
    await user.type(screen.getByLabelText('Find a pattern'), also.alsoCalled[0]!);
    expect(names()).toContain(also.name);
    expect(names().length).toBeLessThan(PATTERNS.length);
  });

  it('are narrowed to a part', async () => {
    const { user } = openShop(<Patterns />, { at: '/patterns' });
    await user.click(screen.getByLabelText('Part'));
    await user.click(await screen.findByTitle('Journals'));
    expect(names()).toEqual(PATTERNS.filter((p) => p.parts.includes('journal')).map((p) => p.name));
  });

  it('are gone through by arrows from the search field, and stop at either end', async () => {
    const { user } = openShop(<Patterns />, { at: `/patterns?pattern=${PATTERNS[0]!.id}` });
    act(() => screen.getByLabelText('Find a pattern').focus());
    await user.keyboard('{ArrowUp}');
    expect(record().getAttribute('aria-label')).toBe(PATTERNS[0]!.name);
    await user.keyboard('{ArrowDown}{ArrowDown}');
    expect(record().getAttribute('aria-label')).toBe(PATTERNS[2]!.name);
  });

  it('say that nothing goes by words nobody uses', async () => {
    const { user } = openShop(<Patterns />, { at: '/patterns' });
    await user.type(screen.getByLabelText('Find a pattern'), 'zzzz');
    expect(screen.getByText(/No pattern goes by these words/)).toBeTruthy();
  });

  it('name every cause that leaves them, and those they speak against', () => {
    const wiping = PATTERNS.find((p) => p.id === 'wiping')!;
    openShop(<Patterns />, { at: '/patterns?pattern=wiping' });
    const links = CAUSES.filter((c) => !c.unlisted).flatMap((c) =>
      c.links.filter((l) => l.feature === wiping.feature).map((l) => [c.name, l] as const),
    );
    const text = record().textContent!;
    for (const [name, link] of links) {
      expect(text).toContain(name);
      expect(text).toContain(link.reason);
    }
    expect(text).toContain(`Causes that leave it ${links.filter(([, l]) => !l.prevents).length}`);
  });

  it('lead from one to what it is mistaken for, with what decides', async () => {
    const p = PATTERNS.find((x) => x.lookAlikes.length > 0)!;
    const { user } = openShop(<Patterns />, { at: `/patterns?pattern=${p.id}` });
    const [like] = p.lookAlikes;
    expect(record().textContent).toContain(like!.decides);
    const other = PATTERNS.find((x) => x.id === like!.pattern)!;
    await user.click(within(record()).getAllByText(other.name)[0]!);
    expect(record().getAttribute('aria-label')).toBe(other.name);
  });
});
