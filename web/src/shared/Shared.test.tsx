import { screen } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { json, openShop, Shop } from '../testing/bench.js';
import { Shared } from './Shared.js';

// What a link shows to somebody without an account: one signed version, and what it can be checked against.
const page = (
  <Routes>
    <Route path="/shared/:token" element={<Shared />} />
  </Routes>
);
const ACCOUNT = {
  number: '2026-T01',
  title: 'Winch',
  version: 1,
  newest: 1,
  by: 'Mara Quill',
  time: '2026-10-02T08:00:00Z',
  sha256: 'ab'.repeat(32),
  head: 'cd'.repeat(32),
  expires: '2027-01-01T00:00:00Z',
  cover: false,
};
const shopOf = (reply: () => Response): Shop => {
  const shop = new Shop();
  shop.more.set('GET /api/shared/t0ken', reply);
  return shop;
};

describe('a shared account', () => {
  it('shows hash and head to check it by, and gives the PDF', async () => {
    openShop(page, { shop: shopOf(() => json(200, ACCOUNT)), at: '/shared/t0ken' });
    expect(await screen.findByText('Account 2026-T01')).toBeTruthy();
    expect(screen.getByText(ACCOUNT.sha256)).toBeTruthy();
    expect(screen.getByText(ACCOUNT.head)).toBeTruthy();
    expect(screen.getByText('Take the account (PDF)').getAttribute('href')).toBe('/api/shared/t0ken/account.pdf');
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('says when a later version was signed, and that a cover sheet is not in the hash', async () => {
    openShop(page, { shop: shopOf(() => json(200, { ...ACCOUNT, newest: 3, cover: true })), at: '/shared/t0ken' });
    expect((await screen.findByRole('alert')).textContent).toContain('Version 3 has been signed since');
    expect(screen.getByText(/without its cover sheet/)).toBeTruthy();
  });

  it('of a link that ended or never was shows nothing but the sentence', async () => {
    openShop(page, { shop: shopOf(() => json(404, { code: 'link-ended', sentence: 'This link has ended.' })), at: '/shared/t0ken' });
    expect((await screen.findByRole('alert')).textContent).toBe('This link has ended.');
    expect(screen.queryByText('Take the account (PDF)')).toBeNull();
  });
});
