import { caseView } from '@true-ledger/core/case';
import { reportModel } from '@true-ledger/core/report';
import { screen, within } from '@testing-library/react';
import { useMemo, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { CASE, open, settled, Shop } from '../../testing/bench.js';
import { ReportPage } from './ReportPage.js';
import { LayOut } from './LayOut.js';

// The account on the page: the model it is made from, in words that can be changed.
function Account({ closed = false }: { closed?: boolean }): ReactNode {
  const { view, state } = useCase();
  const record = useRecord();
  const model = useMemo(() => reportModel(view, state.head, state.seq), [view, state]);
  return (
    <ReportPage
      model={model}
      view={view}
      caseId={CASE}
      marks
      inset={false}
      {...(closed
        ? {}
        : {
            onSentence: (sentence: string, text: string, generated: string) =>
              record({ kind: 'sentence-set', station: null, body: { sentence, text, generated } }),
          })}
    />
  );
}
function found(): Shop {
  const shop = new Shop();
  shop.write('intake-set', null, { field: 'reference', value: 'Job 7' });
  shop.write('pattern-set', 'rod.2.shell.lower', { pattern: 'wiping', present: true });
  shop.write('grade-confirmed', 'rod.2.shell.lower', { grade: 3, proposed: null, reason: '', book: shop.view.book.version });
  return shop;
}

describe('the account on the page', () => {
  it('has every section of the model with its heading, and the parts of a page that is signed', async () => {
    const shop = found();
    await open(<Account />, { shop });
    const page = await screen.findByRole('article', { name: 'Account' });
    const model = reportModel(caseView(shop.state)!, shop.state.head, shop.state.seq);
    expect(
      within(page)
        .getAllByRole('heading', { level: 2 })
        .map((h) => h.textContent),
    ).toEqual(model.sections.map((s) => s.heading));
    expect(page.textContent).toContain('Client reference Job 7');
    expect(page.textContent).toContain('Rod 2 lower shell');
    expect(within(page).getByText('Signature')).toBeTruthy();
    // Every table says what its columns are, or has none to say.
    for (const block of model.sections.flatMap((s) => s.blocks))
      if (block.kind === 'table') for (const row of block.rows) expect(row.length).toBe(block.head.length || row.length);
  });

  it('puts a sentence in other words, with the generated ones kept beside them', async () => {
    const shop = found();
    const { user } = await open(<Account />, { shop });
    const sentence = (await screen.findAllByRole('button', { name: /^Put in other words/ }))[0]!;
    const before = sentence.textContent!;
    await user.click(sentence);
    const field = screen.getByRole('textbox', { name: 'The sentence in other words' });
    await user.clear(field);
    await user.type(field, 'Said by the builder himself.');
    expect(screen.getByText(`Made from the ledger: ${before}`)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Keep these words' }));
    await settled();
    expect([...shop.view.sentences.values()].map((s) => [s.value.text, s.value.generated])).toEqual([
      ['Said by the builder himself.', before],
    ]);
    expect(await screen.findByRole('button', { name: 'Put in other words: Said by the builder himself.' })).toBeTruthy();
    // And back again.
    await user.click(screen.getByRole('button', { name: 'Put in other words: Said by the builder himself.' }));
    await user.click(screen.getByRole('button', { name: 'As made from the ledger' }));
    await settled();
    expect(await screen.findByRole('button', { name: `Put in other words: ${before}` })).toBeTruthy();
  });

  it('leaves a sentence as it was on Esc', async () => {
    const shop = found();
    const { user } = await open(<Account />, { shop });
    await user.click((await screen.findAllByRole('button', { name: /^Put in other words/ }))[0]!);
    await user.type(screen.getByRole('textbox', { name: 'The sentence in other words' }), 'x{Escape}');
    await settled();
    expect(shop.posts).toEqual([]);
  });

  it('is only read where nobody may change it', async () => {
    await open(<Account closed />, { shop: found() });
    await screen.findByRole('article', { name: 'Account' });
    expect(screen.queryByRole('button', { name: /^Put in other words/ })).toBeNull();
  });
});

describe('how it is laid out', () => {
  it('takes a section out and back in, and never one that says how far nothing was looked at', async () => {
    const shop = found();
    const { user } = await open(<LayOut />, { shop });
    const boxes = await screen.findAllByRole<HTMLInputElement>('checkbox');
    const fixed = boxes.filter((b) => b.disabled);
    expect(fixed.length).toBeGreaterThan(0);
    expect(fixed.every((b) => b.checked)).toBe(true);
    const free = boxes.find((b) => !b.disabled && b.checked)!;
    const left = (): string[] | undefined =>
      shop.posts
        .flat()
        .map((e) => (e.body as { left: string[] }).left)
        .at(-1);
    await user.click(free);
    await settled();
    expect(left()).toHaveLength(1);
    await user.click(free);
    await settled();
    expect(left()).toEqual([]);
  });
});
