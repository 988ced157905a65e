import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState, type ReactNode } from 'react';
import { keysNow, setSingleKeys, useKeys } from './keys.js';

// Keys of a page: who has them, and when they are letters.
const pressed: string[] = [];
const say = (what: string) => (): void => void pressed.push(what);

function Page({ children, over = false }: { children?: ReactNode; over?: boolean }): ReactNode {
  useKeys([
    { keys: 'u', what: 'Take back', run: say('page u') },
    { keys: 'gb', what: 'Go to the bench', run: say('page gb') },
    { keys: 'b', what: 'Bare b', run: say('page b') },
    { keys: '?', what: 'This list', run: say('page ?') },
    { keys: 'Escape', what: 'Leave', run: say('page Escape') },
  ]);
  return (
    <>
      <input aria-label="words" />
      <span data-figures>
        <input aria-label="figure" />
      </span>
      <input type="checkbox" aria-label="tick" />
      <button type="button" onClick={say('button')}>
        Press
      </button>
      {over && <Layer />}
      {children}
    </>
  );
}

function Layer(): ReactNode {
  useKeys([{ keys: 'u', what: 'Nearer', run: say('layer u') }]);
  return null;
}

beforeEach(() => {
  pressed.length = 0;
  localStorage.clear();
});

describe('keys', () => {
  it('act on the page, one or two in a row', async () => {
    const user = userEvent.setup();
    render(<Page />);
    await user.keyboard('u');
    await user.keyboard('gb');
    await user.keyboard('b');
    expect(pressed).toEqual(['page u', 'page gb', 'page b']);
  });

  it('are letters in a field, and Esc leaves it', async () => {
    const user = userEvent.setup();
    render(<Page />);
    const words = screen.getByRole<HTMLInputElement>('textbox', { name: 'words' });
    await user.click(words);
    await user.keyboard('u?');
    expect(words.value).toBe('u?');
    expect(pressed).toEqual([]);
    await user.keyboard('{Escape}');
    expect(document.activeElement).toBe(document.body);
    await user.keyboard('u');
    expect(pressed).toEqual(['page u']);
  });

  it('a field for figures has no use for ? and gives it to the page', async () => {
    const user = userEvent.setup();
    render(<Page />);
    await user.click(screen.getByRole('textbox', { name: 'figure' }));
    await user.keyboard('?u');
    expect(pressed).toEqual(['page ?']);
  });

  it('go on working after a box was ticked, but Space ticks', async () => {
    const user = userEvent.setup();
    render(<Page />);
    const box = screen.getByRole<HTMLInputElement>('checkbox');
    await user.click(box);
    await user.keyboard('u');
    await user.keyboard(' ');
    expect(box.checked).toBe(false);
    expect(pressed).toEqual(['page u']);
  });

  it('leave Enter to the button that has the focus', async () => {
    const user = userEvent.setup();
    render(<Page />);
    screen.getByRole('button').focus();
    await user.keyboard('{Enter}');
    expect(pressed).toEqual(['button']);
  });

  it('are asked of the newest layer first, and fall back when it goes', async () => {
    const user = userEvent.setup();
    const { rerender } = render(<Page over />);
    await user.keyboard('u');
    expect(
      keysNow()
        .filter((k) => k.keys === 'u')
        .map((k) => k.what),
    ).toEqual(['Nearer']);
    rerender(<Page />);
    await user.keyboard('u');
    expect(pressed).toEqual(['layer u', 'page u']);
  });

  it('can be switched off where single letters are a danger, all but the list of them', async () => {
    const user = userEvent.setup();
    render(<Page />);
    setSingleKeys(false);
    await user.keyboard('ub?');
    expect(pressed).toEqual(['page ?']);
    setSingleKeys(true);
    await user.keyboard('u');
    expect(pressed).toEqual(['page ?', 'page u']);
  });

  it('belong to what lies over the page', async () => {
    const user = userEvent.setup();
    function Under(): ReactNode {
      const [open, setOpen] = useState(true);
      return (
        <Page>
          {open && (
            <div className="ant-modal-wrap">
              <button type="button" onClick={() => setOpen(false)}>
                Close
              </button>
            </div>
          )}
        </Page>
      );
    }
    render(<Under />);
    await user.keyboard('u{Escape}');
    expect(pressed).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Close' }));
    await user.keyboard('u');
    expect(pressed).toEqual(['page u']);
  });

  it('keep out of what a browser has keys for', async () => {
    const user = userEvent.setup();
    render(<Page />);
    await user.keyboard('{Control>}u{/Control}{Alt>}b{/Alt}{Meta>}u{/Meta}');
    expect(pressed).toEqual([]);
  });
});
