import { screen, waitFor } from '@testing-library/react';
import { open, Shop } from '../../testing/bench.js';
import { LoadsStage } from './LoadsStage.js';

// The page of loads: what one sets is what is reckoned, and what was read stands under what is predicted.
function worn(): Shop {
  const shop = new Shop();
  shop.write('mark-made', 'rod.1.shell.upper', {
    mark: {
      id: 'm',
      shape: 'stroke',
      class: 'lining',
      points: [
        [0.4, 0.5],
        [0.6, 0.5],
      ],
      radiusMm: 8,
      made: 'found-so',
    },
  });
  return shop;
}

describe('loads', () => {
  it('lets the engine run as it is, and says what is estimated', async () => {
    await open(<LoadsStage />);
    expect(screen.getByRole('img', { name: /Polar diagram of the load of rod\.1: at most/ })).toBeTruthy();
    expect(screen.getByRole('img', { name: /Orbit of the journal: thinnest film/ })).toBeTruthy();
    expect(screen.getByText(/Estimated: masses/)).toBeTruthy();
    expect(screen.getByRole('status').textContent).toMatch(/^The gauge shows \d\.\d bar\.$/);
    expect(screen.getAllByText(/Nothing was read of this half yet/)).toHaveLength(2);
  });

  it('tries settings on what was found, sets the one that is chosen, and counts its likeness until it is taken back', async () => {
    const shop = worn();
    const { user } = await open(<LoadsStage />, { shop });
    await user.click(screen.getByText('Which setting would explain it'));
    const best = await waitFor(() => {
      const item = document.querySelector('.explanations li');
      expect(item).not.toBeNull();
      return item!;
    });
    expect(best.textContent).toMatch(/\d+ % alike[+−][\d.]+ dB/);
    await user.click(best.querySelector('button')!);
    await waitFor(() => expect(document.querySelector('.half-shell figcaption')?.textContent).toMatch(/upper half, \d+ % alike/));
    await user.click(screen.getByText('Count it as evidence'));
    await waitFor(() => expect(shop.view.likened.map((l) => l.value.bearing)).toEqual(['rod.1']));
    expect(await screen.findByText(/counts as evidence on the causes/)).toBeTruthy();
    await user.click(screen.getByText('No longer count it'));
    await waitFor(() => expect(shop.view.likened).toEqual([]));
  });

  it('keeps a setting for the account with why, once for a bearing, and takes it out', async () => {
    const shop = new Shop();
    const { user } = await open(<LoadsStage />, { shop });
    const kept = (): unknown[] => shop.view.runs.map((r) => [r.value.bearing, r.value.note]);
    await user.type(screen.getByLabelText('Why it is shown in the account'), 'As it may have run.');
    await user.click(screen.getByText('Keep for the account'));
    await waitFor(() => expect(kept()).toEqual([['rod.1', 'As it may have run.']]));
    await user.click(await screen.findByText('Take out'));
    await waitFor(() => expect(kept()).toEqual([]));
  });

  it('keeps a pinned setting beside the next', async () => {
    const { user } = await open(<LoadsStage />);
    expect(screen.queryByText('Pinned')).toBeNull();
    await user.click(screen.getByText('Pin this setting'));
    expect(screen.getByText('Pinned')).toBeTruthy();
    await user.click(screen.getByText('Let go'));
    expect(screen.queryByText('Pinned')).toBeNull();
  });
});
