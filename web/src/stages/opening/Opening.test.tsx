import { screen } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { CASE, open, settled, type Shop } from '../../testing/bench.js';
import { Opening } from './Opening.js';

// The checks before anything is opened.
const page = (
  <Routes>
    <Route path="/case/:caseId/opening/:checkId?" element={<Opening />} />
  </Routes>
);
const at = (check: string): string => `/case/${CASE}/opening/${check}`;
const answers = (shop: Shop): Array<[string, unknown]> =>
  [...shop.view.checks.values()].map((c) => [
    `${c.value.check}:${c.value.field}`,
    c.value.chosen.length > 0 ? c.value.chosen : c.value.text,
  ]);

describe('before opening', () => {
  it('keeps compression by cylinder in the unit it was typed in, and says what it tells', async () => {
    const { shop, user } = await open(page, { at: at('compression') });
    const fields = await screen.findAllByRole('textbox', { name: /^Dry/ });
    expect(fields).toHaveLength(4);
    for (const [i, text] of ['12', '11,8', '5.0', '5.2'].entries()) await user.type(fields[i]!, `${text}{Enter}`);
    await settled();
    expect(answers(shop)).toHaveLength(4);
    expect([...shop.view.checks.values()].map((c) => c.value.value)).toEqual([12, 11.8, 5, 5.2]);
    expect(document.body.textContent).toMatch(/3 and 4/);
  });

  it('refuses what a gauge cannot show, in the field, and records nothing', async () => {
    const { shop, user } = await open(page, { at: at('compression') });
    const [first] = await screen.findAllByRole('textbox', { name: /^Dry/ });
    await user.type(first!, '4000{Enter}');
    await settled();
    expect(shop.posts).toEqual([]);
    expect(document.body.textContent).toMatch(/4000/);
  });

  it('a choice is one press, and the same press again takes it back or leaves it', async () => {
    const { shop, user } = await open(page, { at: at('dipstick') });
    const choices = await screen.findAllByRole('radio');
    await user.click(choices[0]!);
    await settled();
    expect(answers(shop)).toHaveLength(1);
    await user.click(choices[1]!);
    await settled();
    expect(answers(shop)).toHaveLength(1);
  });

  it('a check that was not made says why, and is not counted as made', async () => {
    const { shop, user } = await open(page, { at: at('compression') });
    const why = await screen.findByPlaceholderText('leave empty where it was made');
    await user.type(why, 'no gauge at hand{Enter}');
    await settled();
    expect(answers(shop)).toEqual([['compression:not-done', 'no gauge at hand']]);
    expect(screen.getAllByText('not done').length).toBeGreaterThan(0);
  });

  it('goes from check to check by the arrows', async () => {
    const { user } = await open(page, { at: at('arrival') });
    const first = (await screen.findByRole('navigation', { name: 'Checks' })).querySelectorAll('a');
    expect(first[0]!.getAttribute('aria-current')).toBe('true');
    await user.keyboard('{ArrowDown}');
    await settled();
    expect(screen.getByRole('navigation', { name: 'Checks' }).querySelectorAll('a')[1]!.getAttribute('aria-current')).toBe('true');
  });
});
