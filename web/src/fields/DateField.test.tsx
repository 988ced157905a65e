import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState, type ReactNode } from 'react';
import { openShop } from '../testing/bench.js';
import { DateField } from './DateField.js';

// The one field for days: what is no day changes nothing, and is told.
const given: Array<string | null> = [];
function Held({ start = '2027-02-01', needed = false }: { start?: string | null; needed?: boolean }): ReactNode {
  const [value, setValue] = useState(start);
  return (
    <DateField
      aria-label="day"
      needed={needed}
      value={value}
      onChange={(day) => {
        given.push(day);
        setValue(day);
      }}
    />
  );
}
const field = (): HTMLInputElement => screen.getByRole('textbox', { name: 'day' });
async function type(text: string): Promise<ReturnType<typeof userEvent.setup>> {
  const user = userEvent.setup();
  await user.clear(field());
  await user.type(field(), text);
  return user;
}
beforeEach(() => void (given.length = 0));

describe('a field for a day', () => {
  it.each([
    ['2027-03-31', '2027-03-31'],
    ['2027-3-1', '2027-03-01'],
    ['24.12.2027', '2027-12-24'],
    ['2028-02-29', '2028-02-29'],
  ])('%s is %s', async (text, day) => {
    openShop(<Held />);
    await (await type(text)).keyboard('{Enter}');
    expect(given.at(-1)).toBe(day);
    expect(field().value).toBe(day);
    expect(screen.queryByRole('status')).toBeNull();
  });

  it.each(['2027-02-31', '2027-02-29', '2027-13-01', 'next week'])('%s is told, and the day that stood stays', async (text) => {
    openShop(<Held needed />);
    await (await type(text)).tab();
    expect(screen.getByRole('status').textContent).toBe(`${text} is no day of the calendar (year-month-day): 2027-02-01 stays.`);
    await waitFor(() => expect(field().value).toBe('2027-02-01'));
    expect(given.filter((day) => day !== '2027-02-01')).toEqual([]);
    // The sentence goes as soon as the hand types again.
    await userEvent.type(field(), '2');
    expect(screen.queryByRole('status')).toBeNull();
  });

  it('puts back the day that is kept when it is left by way of its own button', async () => {
    openShop(<Held />);
    const user = await type('2027-02-31');
    await user.tab();
    expect(screen.getByRole('status').textContent).toMatch(/^2027-02-31 is no day/);
    await user.tab();
    await user.tab();
    await waitFor(() => expect(field().value).toBe('2027-02-01'));
    expect(given).toEqual([]);
  });

  it('says so where no day stood before', async () => {
    openShop(<Held start={null} />);
    await (await type('31 february')).tab();
    expect(screen.getByRole('status').textContent).toMatch(/no date is set/);
    expect(given).toEqual([]);
  });
});
