import { screen, waitFor, within } from '@testing-library/react';
import { open as openCase, Shop } from '../testing/bench.js';
import { NoteLine } from './NoteLine.js';

// The notebook line: what is shown while one types, and what is kept by Enter.
const open = async (here?: string) => {
  const shop = new Shop();
  const close = jest.fn();
  const drawn = await openCase(<NoteLine here={here} onClose={close} />, { shop });
  return { ...drawn, shop, closed: () => close.mock.calls.length };
};
const field = (): HTMLElement => screen.getByRole('textbox', { name: 'Notebook line' });
const proposals = (): string[] =>
  within(screen.getByRole('list', { name: 'What the line says' }))
    .getAllByRole('listitem')
    .map((x) => x.textContent ?? '');

describe('the notebook line', () => {
  it('shows what a line says while it is typed, and keeps it by Enter with the words', async () => {
    const { user, shop } = await open();
    await user.type(field(), 'crankpin 2 blue, no lines');
    expect(proposals()).toEqual([
      'Heat tint ring, grade 3 at Crankpin 2 seen',
      'no circumferential scoring of a journal at Crankpin 2 seen',
    ]);
    await user.keyboard('{Enter}');
    await waitFor(() => expect(shop.view.byId.get('crank.pin.2')!.grade?.value.grade).toBe(3));
    const pin = shop.view.byId.get('crank.pin.2')!;
    expect(pin.patterns.map((p) => [p.value.pattern, p.value.present])).toEqual([
      ['journal-heat', true],
      ['journal-scoring', false],
    ]);
    expect(pin.remarks.map((r) => r.value.text)).toEqual(['crankpin 2 blue, no lines']);
    expect(field()).toHaveProperty('value', '');
    expect(screen.getByRole('status').textContent).toContain('u takes it back');
  });

  it('takes a line that names no place as one of the place it stands at', async () => {
    const { user, shop } = await open('crank.pin.2');
    expect(field()).toHaveProperty('placeholder', expect.stringMatching(/^Of Crankpin 2,/));
    await user.type(field(), 'blue{Enter}');
    await waitFor(() => expect(shop.view.byId.get('crank.pin.2')!.patterns.map((p) => p.value.pattern)).toEqual(['journal-heat']));
  });

  it('asks which one where several are meant, and leaves it open where nobody knows', async () => {
    const { user, shop } = await open();
    await user.type(field(), 'one of the centre mains turned');
    expect(screen.getByRole('combobox', { name: 'Which one?' })).toBeTruthy();
    await user.click(field());
    await user.keyboard('{Enter}');
    await waitFor(() => expect(shop.view.sights.map((s) => [s.value.sight, s.value.of])).toEqual([['spun-shell', 1]]));
  });

  it('leaves out what is unticked, and keeps a line nobody understands as a remark', async () => {
    const { user, shop } = await open();
    await user.type(field(), 'crankpin 2 blue, no lines');
    await user.click(screen.getAllByRole('checkbox')[1]!);
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(shop.view.byId.get('crank.pin.2')!.patterns).toHaveLength(1));
    await user.type(field(), 'the cat sat there');
    expect(proposals()).toEqual([expect.stringContaining('Nothing in it is understood yet')]);
    await user.keyboard('{Enter}');
    await waitFor(() => expect(shop.view.remarks.map((r) => r.value.text)).toEqual(['the cat sat there']));
  });

  it('takes a part that is gone as lost, unless that is unticked', async () => {
    const { user, shop } = await open();
    await user.type(field(), 'not examined: oil cooler, thrown away');
    expect(proposals()).toEqual([expect.stringContaining('gone: Oil cooler')]);
    await user.click(screen.getByRole('checkbox'));
    await user.keyboard('{Enter}');
    await user.type(field(), 'not examined: oil cooler, thrown away');
    expect(shop.view.byId.get('oil.cooler')!.state).not.toBe('lost');
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(shop.view.byId.get('oil.cooler')!.state).toBe('lost'));
  });

  it('empties by Esc, then closes', async () => {
    const { user, closed } = await open();
    await user.type(field(), 'bore 1 scored');
    await user.keyboard('{Escape}');
    expect(field()).toHaveProperty('value', '');
    expect(closed()).toBe(0);
    await user.keyboard('{Escape}');
    expect(closed()).toBe(1);
  });
});
