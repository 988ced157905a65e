import { screen, waitFor, within } from '@testing-library/react';
import type { ReactNode } from 'react';
import { useCase } from '../../app/caseContext.js';
import { Unsettled } from '../../frame/Unsettled.js';
import { SaveState } from '../../frame/SaveState.js';
import { CASE, open, settled, Shop } from '../../testing/bench.js';
import { FindingPanel } from './FindingPanel.js';
import { useGrading } from './grading.js';

// What a place shows, as it is graded, named and taken back.
function Panel({ at }: { at: string }): ReactNode {
  const { view } = useCase();
  const station = view.byId.get(at)!;
  const grading = useGrading();
  return (
    <>
      <SaveState caseId={CASE} />
      <Unsettled caseId={CASE} />
      <FindingPanel station={station} onGrade={(g) => grading.grade(station, g)} />
      {grading.dialog}
    </>
  );
}
const SHELL = 'rod.2.shell.lower';
const grade = (shop: Shop) => shop.view.byId.get(SHELL)!.grade?.value;
/** A shell with its lining worn through over a fifth of its face: the book proposes a grade. */
function worn(): Shop {
  const shop = new Shop();
  shop.write('mark-made', SHELL, {
    mark: {
      id: 'm1',
      shape: 'stroke',
      class: 'lining',
      points: [
        [0, 0.5],
        [1, 0.5],
      ],
      radiusMm: 2,
      made: 'found-so',
    },
  });
  return shop;
}

describe('grading a place', () => {
  it('takes a grade at once where nothing is proposed, with the book it was given by', async () => {
    const { shop, user } = await open(<Panel at={SHELL} />);
    await user.click(await screen.findByRole('radio', { name: /1 Witness/ }));
    await settled();
    expect(grade(shop)).toEqual({ grade: 1, proposed: null, reason: '', book: shop.view.book.version });
    expect(screen.getByRole('radio', { name: /1 Witness/ }).getAttribute('aria-checked')).toBe('true');
    expect(screen.getByText(/Confirmed by Mara Quill/)).toBeTruthy();
  });

  it('confirms what is proposed without asking', async () => {
    const { shop, user } = await open(<Panel at={SHELL} />, { shop: worn() });
    const proposed = shop.view.byId.get(SHELL)!.proposal!.grade;
    await user.click(await screen.findByRole('button', { name: `Confirm grade ${proposed}` }));
    await settled();
    expect(grade(shop)).toMatchObject({ grade: proposed, proposed, reason: '' });
  });

  it('asks why where it differs, and keeps nothing when the question is left', async () => {
    const { shop, user } = await open(<Panel at={SHELL} />, { shop: worn() });
    const proposed = shop.view.byId.get(SHELL)!.proposal!.grade;
    await user.click(await screen.findByRole('radio', { name: /0 Sound/ }));
    const dialog = await screen.findByRole('dialog');
    expect(dialog.textContent).toMatch(/0 Sound, not the proposed/);
    await user.click(within(dialog).getByText('Cancel'));
    await settled();
    expect(grade(shop)).toBeUndefined();
    await user.click(screen.getByRole('radio', { name: /0 Sound/ }));
    await user.click(within(await screen.findByRole('dialog')).getByText('Confirm grade'));
    await waitFor(() => expect(grade(shop)).toMatchObject({ grade: 0, proposed, reason: 'the picture misleads' }));
  });

  it('keeps a remark, once, and empties the field', async () => {
    const { shop, user } = await open(<Panel at={SHELL} />);
    const field = await screen.findByPlaceholderText(/remark/i).catch(() => screen.getByLabelText(/Remark/));
    await user.type(field, 'Blued at the rear edge{Enter}');
    await settled();
    const remarks = (): string[] => shop.view.byId.get(SHELL)!.remarks.map((r) => r.value.text);
    await waitFor(() => expect(remarks()).toEqual(['Blued at the rear edge']));
    expect((field as HTMLInputElement).value).toBe('');
  });

  it('does nothing for a reader', async () => {
    const { shop } = await open(<Panel at={SHELL} />, { role: 'reader' });
    for (const radio of await screen.findAllByRole<HTMLButtonElement>('radio')) expect(radio.disabled).toBe(true);
    expect(shop.posts).toEqual([]);
  });
});

describe('a server that was quicker, or is away', () => {
  it('shows both when somebody graded meanwhile, and lets the hand choose', async () => {
    const shop = new Shop();
    const { user } = await open(<Panel at={SHELL} />, { shop });
    await screen.findByRole('radio', { name: /2 Worn/ });
    const theirs = shop.write('grade-confirmed', SHELL, { grade: 3, proposed: null, reason: '', book: shop.view.book.version });
    shop.refuse = () => ({
      code: 'entry-conflict',
      sentence: 'Teo wrote this field a moment before.',
      conflict: { slot: 'grade', current: theirs } as never,
    });
    await user.click(screen.getByRole('radio', { name: /2 Worn/ }));
    const asked = await screen.findByRole('alert');
    expect(asked.textContent).toMatch(/Teo wrote this field.*Yours:.*2/s);
    shop.refuse = () => null;
    await user.click(within(asked).getByRole('button', { name: 'Keep theirs' }));
    await settled();
    expect(grade(shop)).toMatchObject({ grade: 3 });
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
  });

  it('says how many are kept here while it does not answer, and that all is saved when it does', async () => {
    const shop = new Shop();
    let away = true;
    shop.refuse = () => (away ? 'away' : null);
    const { user } = await open(<Panel at={SHELL} />, { shop });
    await user.click(await screen.findByRole('radio', { name: /1 Witness/ }));
    await waitFor(() => expect(screen.getByText('1 kept here, server away')).toBeTruthy());
    expect(screen.getByRole('radio', { name: /1 Witness/ }).getAttribute('aria-checked')).toBe('true');
    away = false;
    await waitFor(() => expect(screen.getByText('saved')).toBeTruthy(), { timeout: 5000 });
    expect(grade(shop)).toMatchObject({ grade: 1 });
  });
});
