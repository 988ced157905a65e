import { answerItems, diagnose, releaseCheck } from '@true-ledger/core/diagnosis';
import { screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { CASE, open, settled, Shop } from '../../testing/bench.js';
import { AnswersPage } from './AnswersPage.js';

// What answers the causes: nothing is released before every confirmed cause is answered, and each word is somebody's.
const page = (
  <Routes>
    <Route path="/case/:caseId/cause/answers" element={<AnswersPage />} />
    <Route path="*" element={<p>elsewhere</p>} />
  </Routes>
);
const at = `/case/${CASE}/cause/answers`;
const region = (name: string): HTMLElement => screen.getByRole('region', { name });

function confirmed(): Shop {
  const shop = new Shop();
  for (const n of [1, 2, 3, 4]) {
    shop.write('pattern-set', `rod.${n}.shell.lower`, { pattern: 'wiping', present: true });
    shop.write('grade-confirmed', `rod.${n}.shell.lower`, { grade: 3, proposed: null, reason: '', book: shop.view.book.version });
  }
  shop.write('evidence-set', null, { feature: 'fluid.level-low', present: true, note: '' });
  shop.write('cause-decided', null, { cause: 'oil-low', decision: 'confirmed', reason: 'no oil came out' });
  return shop;
}

describe('answers to the causes', () => {
  it('ask for nothing before a cause is confirmed', async () => {
    await open(page, { at });
    const actions = await screen.findByRole('region', { name: 'Corrective actions and collateral checks' });
    expect(actions.textContent).toContain('They come with the causes you confirm');
  });

  it('say what stands against a release, one line each', async () => {
    await open(page, { shop: confirmed(), at });
    const alert = await screen.findByRole('alert');
    expect(alert.textContent).toContain('Not to be released yet');
    expect(alert.querySelectorAll('li').length).toBeGreaterThan(0);
    expect(screen.queryByText('Release')).toBeNull();
  });

  it('come with the confirmed cause, keep state and note, and take one of the builder’s own', async () => {
    const { shop, user } = await open(page, { shop: confirmed(), at });
    const actions = await screen.findByRole('region', { name: 'Corrective actions and collateral checks' });
    const rows = actions.querySelectorAll('.answer-table')[0]!.querySelectorAll('tr');
    expect(rows.length).toBeGreaterThan(0);
    const note = within(rows[0] as HTMLElement).getByPlaceholderText('Note');
    await user.type(note, 'ring gap checked');
    await user.tab();
    await settled();
    const written = [...shop.view.answers.values()].map((a) => [a.value.state, a.value.note]);
    expect(written).toEqual([['open', 'ring gap checked']]);
    await user.type(screen.getByLabelText('Another for to do'), 'fit a level lamp{Enter}');
    await settled();
    expect([...shop.view.answers.values()].map((a) => [a.value.item, a.value.part, a.value.state]).at(-1)).toEqual([
      'fit a level lamp',
      'action',
      'planned',
    ]);
    expect(actions.textContent).toContain('Fit a level lamp');
  });

  it('what is typed and not added yet stays with its own part of its own cause', async () => {
    const shop = confirmed();
    const { user, unmount } = await open(page, { shop, at });
    await user.type(await screen.findByLabelText('Another for to do'), 'half a word');
    const other = screen.getByLabelText<HTMLInputElement>('Another for to check, since it suffered with it');
    expect(other.value).toBe('');
    const kept = { ...localStorage };
    unmount();
    expect(Object.entries(kept).filter(([, text]) => text === 'half a word')).toHaveLength(1);
    expect(Object.keys(kept).find((k) => kept[k] === 'half a word')).toContain('action');
  });

  it('accept what stays unexplained with a reason only, and open it again', async () => {
    const shop = confirmed();
    // Graded and not named: nothing can account for it.
    shop.write('grade-confirmed', 'head.1', { grade: 3, proposed: null, reason: '', book: shop.view.book.version });
    const { user } = await open(page, { shop, at });
    await screen.findByRole('region', { name: 'Left unexplained' });
    await waitFor(() => expect(region('Left unexplained').querySelectorAll('.accept-line').length).toBeGreaterThan(0));
    const line = region('Left unexplained').querySelector<HTMLElement>('.accept-line')!;
    const accept = within(line).getByText('Accept').closest('button')!;
    expect(accept.disabled).toBe(true);
    await user.type(within(line).getByRole('textbox'), 'stood open for a year');
    await user.click(accept);
    await settled();
    expect([...shop.view.unexplained.values()].map((u) => [u.value.accepted, u.value.reason])).toEqual([[true, 'stood open for a year']]);
    await user.click(await screen.findByText('Open again'));
    await settled();
    expect([...shop.view.unexplained.values()].map((u) => u.value.accepted)).toEqual([false]);
  });

  it('keep who answers apart from the cause: the builder chooses, then says what was found', async () => {
    const { shop, user } = await open(page, { shop: confirmed(), at });
    const pane = await screen.findByRole('region', { name: 'Answerability' });
    const words = within(pane).getByLabelText<HTMLInputElement>('What was found that says so');
    expect(words.readOnly).toBe(true);
    await user.click(within(pane).getByRole('combobox'));
    await user.click(await screen.findByTitle('Use'));
    await settled();
    expect(shop.view.answerable?.value.who).toBe('use');
    await user.type(words, 'level below the mark');
    await user.tab();
    await settled();
    expect(shop.view.answerable?.value.reason).toBe('level below the mark');
  });

  it('are released once nothing stands against it, by name and day', async () => {
    const shop = confirmed();
    const answered = (): void => {
      for (const i of answerItems(shop.view)) {
        const { cause, part, item } = i;
        shop.write('answer-set', null, { cause, part, item, state: 'done', note: '' });
      }
      for (const u of diagnose(shop.view).unexplained)
        shop.write('unexplained-set', null, { place: u.station, accepted: true, reason: 'seen, and of no weight' });
    };
    answered();
    expect(releaseCheck(shop.view, diagnose(shop.view)).blocks).toEqual([]);
    const { user } = await open(page, { shop, at });
    await user.click((await screen.findByText('Release')).closest('button')!);
    await settled();
    expect(shop.view.released?.version.author.name).toBe('Mara Quill');
    expect(screen.getByRole('alert').textContent).toMatch(/^Released by Mara Quill on \d{4}-\d\d-\d\d\.$/);
    expect(screen.queryByText('Release')).toBeNull();
  });

  it('the first start is a list in order, with its cautions', async () => {
    await open(page, { shop: confirmed(), at });
    const list = await screen.findByRole('region', { name: 'First start' });
    expect(list.querySelectorAll('li').length).toBeGreaterThan(3);
    expect(list.textContent).toContain('The engine maker’s data stands before this');
  });

  it('the maker’s desk counts what is recorded', async () => {
    const shop = confirmed();
    await open(page, { shop, at });
    const count = (await screen.findByRole('region', { name: 'For a maker’s desk' })).querySelector('.figure')!.textContent!;
    const [have, of] = count.split(' of ').map(Number);
    expect(of).toBeGreaterThan(have!);
  });

  it('a reader can change none of it', async () => {
    await open(page, { shop: confirmed(), at, role: 'reader' });
    await screen.findByRole('region', { name: 'Answerability' });
    expect(screen.queryByText('Accept')).toBeNull();
    expect(screen.queryByPlaceholderText('Another')).toBeNull();
    expect(
      [...document.querySelectorAll<HTMLInputElement>('.answers input:not([type=search])')].every((i) => i.readOnly || i.disabled),
    ).toBe(true);
  });
});
