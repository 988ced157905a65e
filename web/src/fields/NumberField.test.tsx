import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState, type ReactNode } from 'react';
import { NumberField, type NumberFieldProps } from './NumberField.js';

// The one field for figures: what is understood is shown, and nothing else ever comes of it.
const given: Array<number | null> = [];
function Held(props: NumberFieldProps): ReactNode {
  const [value, setValue] = useState(props.value ?? null);
  return (
    <>
      <NumberField
        aria-label="size"
        {...props}
        value={value}
        onChange={(v) => {
          given.push(v);
          setValue(v);
        }}
      />
      <button type="button" onClick={() => setValue(7)}>
        elsewhere
      </button>
    </>
  );
}
const field = (): HTMLInputElement => screen.getByRole('textbox', { name: 'size' });
beforeEach(() => void (given.length = 0));

describe('a field for a figure', () => {
  it.each([
    ['62,50', 62.5],
    ['0,001', 0.001],
    ['62.50', 62.5],
    ['-0.15', -0.15],
  ])('%s is %d, whatever the sign between', async (text, value) => {
    const user = userEvent.setup();
    render(<Held />);
    await user.type(field(), text);
    await user.tab();
    expect(given.at(-1)).toBe(value);
  });

  it('understands inches and fractions where a length is asked for, and shows what it made of them', async () => {
    const user = userEvent.setup();
    render(<Held quantity="length" unit="mm" />);
    await user.type(field(), '3.386"');
    expect(screen.getByRole('status').textContent).toMatch(/^= 86\.00/);
    await user.clear(field());
    await user.type(field(), '2 3/8 in');
    expect(given.at(-1)).toBeCloseTo(60.325, 6);
  });

  it('keeps what it held when the text is no figure, and says why', async () => {
    const user = userEvent.setup();
    render(<Held value={5} />);
    await user.clear(field());
    await user.type(field(), 'about');
    await user.tab();
    expect(given.at(-1)).toBe(5);
    expect(screen.getByRole('status').textContent).toMatch(/"about" is no figure/);
    expect(field().getAttribute('aria-invalid')).toBe('true');
  });

  it('gives null when it is emptied, and what stood there on Esc', async () => {
    const user = userEvent.setup();
    render(<Held value={5} />);
    await user.clear(field());
    expect(given).toEqual([null]);
    await user.keyboard('{Escape}');
    expect(given).toEqual([null, 5]);
    expect(field().value).toBe('5');
  });

  it('keeps to its bounds and to whole numbers', async () => {
    const user = userEvent.setup();
    render(<Held value={3} min={1} max={9} whole />);
    for (const [text, words] of [
      ['12', /At most 9/],
      ['0', /At least 1/],
      ['2.5', /whole number/],
    ] as const) {
      await user.clear(field());
      await user.type(field(), text);
      expect(screen.getByRole('status').textContent).toMatch(words);
    }
    expect(given.filter((v) => v !== null && (v < 1 || v > 9 || v % 1 !== 0))).toEqual([]);
  });

  it('waits until it is left where it takes effect late', async () => {
    const user = userEvent.setup();
    render(<Held value={3} late />);
    await user.clear(field());
    await user.type(field(), '45');
    expect(given).toEqual([]);
    await user.keyboard('{Enter}');
    expect(given).toEqual([45]);
  });

  it('a value from elsewhere takes the place of the text', async () => {
    const user = userEvent.setup();
    render(<Held value={3} />);
    await user.clear(field());
    await user.type(field(), '4.50');
    await user.click(screen.getByRole('button'));
    expect(field().value).toBe('7');
  });
});
