import { screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { json, openShop, Shop } from '../testing/bench.js';
import { Claim } from './Claim.js';
import { Recover } from './Recover.js';

// The two doors that open once: the token is in the fragment, and what is wrong is said in the field or in the server's words.
const page = (
  <Routes>
    <Route path="/claim" element={<Claim />} />
    <Route path="/recover" element={<Recover />} />
    <Route path="/" element={<p>the shelf</p>} />
  </Routes>
);
function shopOf(what: string, reply: () => Response): Shop & { sent: object[] } {
  const shop = Object.assign(new Shop(), { sent: [] as object[] });
  shop.more.set(`POST /api/${what}`, async (request) => {
    shop.sent.push((await request.json()) as object);
    return reply();
  });
  return shop;
}
beforeEach(() => (window.location.hash = `#${'ab'.repeat(32)}`));
afterEach(() => (window.location.hash = ''));

describe('the first owner', () => {
  it('is made with the token of the link', async () => {
    const shop = shopOf('claim', () => json(201, {}));
    const { user } = openShop(page, { shop, at: '/claim' });
    await user.type(screen.getByLabelText('Name as it stands in the ledger'), 'Mara Quill');
    await user.type(screen.getByLabelText('Sign-in name'), 'mara');
    await user.type(screen.getByLabelText('Password, at least 10 characters'), 'long enough now');
    await user.click(screen.getByText('Make the owner'));
    expect(await screen.findByText('the shelf')).toBeTruthy();
    expect(shop.sent).toEqual([{ token: 'ab'.repeat(32), name: 'Mara Quill', signIn: 'mara', password: 'long enough now' }]);
  });

  it('is told each field that is missing, and nothing is sent', async () => {
    const shop = shopOf('claim', () => json(201, {}));
    const { user } = openShop(page, { shop, at: '/claim' });
    await user.type(screen.getByLabelText('Password, at least 10 characters'), 'short');
    await user.click(screen.getByText('Make the owner'));
    expect(await screen.findByText('Type a name.')).toBeTruthy();
    expect(screen.getByText('Type a sign-in name.')).toBeTruthy();
    expect(screen.getByText('At least 10 characters.')).toBeTruthy();
    expect(shop.sent).toEqual([]);
  });

  it('a link that was used is told so, and what was typed stays', async () => {
    const shop = shopOf('claim', () =>
      json(403, { code: 'claim-spent', sentence: 'This link was used before. Ask whoever runs the server.' }),
    );
    const { user } = openShop(page, { shop, at: '/claim' });
    const name = screen.getByLabelText<HTMLInputElement>('Name as it stands in the ledger');
    await user.type(name, 'Mara Quill');
    await user.type(screen.getByLabelText('Sign-in name'), 'mara');
    await user.type(screen.getByLabelText('Password, at least 10 characters'), 'long enough now');
    await user.click(screen.getByText('Make the owner'));
    expect((await screen.findByText(/This link was used before/)).textContent).toContain('Ask whoever runs the server.');
    expect(name.value).toBe('Mara Quill');
  });
});

describe('a new password by the link of the console', () => {
  it('is set once, and goes on to the shelf', async () => {
    const shop = shopOf('recover', () => json(200, {}));
    const { user } = openShop(page, { shop, at: '/recover' });
    await user.type(screen.getByLabelText('Password, at least 10 characters'), 'another long one');
    await user.click(screen.getByText('Set the password'));
    await waitFor(() => expect(shop.sent).toEqual([{ token: 'ab'.repeat(32), password: 'another long one' }]));
    expect(await screen.findByText('the shelf')).toBeTruthy();
  });

  it('is refused in the server’s words', async () => {
    const shop = shopOf('recover', () => json(403, { code: 'recover-spent', sentence: 'This link is no longer good.' }));
    const { user } = openShop(page, { shop, at: '/recover' });
    await user.type(screen.getByLabelText('Password, at least 10 characters'), 'another long one');
    await user.click(screen.getByText('Set the password'));
    expect(await screen.findByText('This link is no longer good.')).toBeTruthy();
  });
});
