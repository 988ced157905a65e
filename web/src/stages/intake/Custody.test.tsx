import { screen, within } from '@testing-library/react';
import { open, settled, Shop } from '../../testing/bench.js';
import { OpenQuestions, ReceivedList } from './Custody.js';

describe('what came with the engine', () => {
  it('is listed as it came, and a line can be taken back', async () => {
    const shop = new Shop();
    const { user } = await open(<ReceivedList />, { shop });
    const pane = await screen.findByRole('region', { name: 'Received' });
    const [what] = within(pane).getAllByRole('textbox');
    await user.type(what!, 'Sump, bolts in a bag{Enter}');
    await settled();
    if (shop.view.received.length === 0) await user.click([...pane.querySelectorAll('button')].at(-1)!);
    await settled();
    expect(shop.view.received.map((r) => [r.value.text, r.value.state])).toEqual([['Sump, bolts in a bag', 'received']]);
    await user.click(within(pane).getByText('Take back'));
    await settled();
    expect(shop.view.received).toEqual([]);
  });

  it('nothing typed is nothing written', async () => {
    const shop = new Shop();
    const { user } = await open(<ReceivedList />, { shop });
    const pane = await screen.findByRole('region', { name: 'Received' });
    await user.type(within(pane).getAllByRole('textbox')[0]!, '   {Enter}');
    await user.click([...pane.querySelectorAll('button')].at(-1)!);
    await settled();
    expect(shop.posts).toEqual([]);
  });

  it('a reader sees the list and has no field', async () => {
    const shop = new Shop();
    shop.write('received-item', null, { item: 'i1', text: 'Head, bare', state: 'missing', by: 'carrier' });
    await open(<ReceivedList />, { shop, role: 'reader' });
    expect(await screen.findByText('Head, bare')).toBeTruthy();
    expect(screen.queryByText('Take back')).toBeNull();
    expect(screen.queryAllByRole('textbox').filter((t) => !(t as HTMLInputElement).disabled)).toEqual([]);
  });
});

describe('open questions', () => {
  it('stay open until they are answered', async () => {
    const shop = new Shop();
    shop.write('open-question', null, { question: 'q1', to: 'client', text: 'When was the oil changed?', answer: null, answeredOn: null });
    const { user } = await open(<OpenQuestions />, { shop });
    expect(await screen.findByText(/When was the oil changed\?/)).toBeTruthy();
    const field = screen.getAllByRole('textbox')[0]!;
    await user.type(field, 'In spring{Enter}');
    await settled();
    expect(shop.view.questions.map((q) => q.value.answer)).toEqual(['In spring']);
  });
});
