import { screen, waitFor } from '@testing-library/react';
import { json, openShop, person, Shop } from '../testing/bench.js';
import { SignIn } from './SignIn.js';

describe('the door', () => {
  it('asks for both, sends both, and says what the server says', async () => {
    const shop = new Shop();
    const sent: unknown[] = [];
    shop.more.set('POST /api/sign-in', async (request) => {
      sent.push(await request.json());
      return sent.length === 1
        ? json(401, { code: 'sign-in-failed', sentence: 'Name and password do not belong together.' })
        : json(201, person('builder'));
    });
    const { user } = openShop(<SignIn />, { shop });
    await user.click(screen.getByRole('button', { name: 'Sign in' }));
    expect(await screen.findByText('Type your sign-in name.')).toBeTruthy();
    expect(screen.getByText('Type your password.')).toBeTruthy();
    expect(sent).toEqual([]);
    await user.type(screen.getByLabelText('Sign-in name'), 'mara');
    await user.type(screen.getByLabelText('Password'), 'wrong{Enter}');
    expect((await screen.findByRole('alert')).textContent).toBe('Name and password do not belong together.');
    await user.type(screen.getByLabelText('Password'), ' no, right{Enter}');
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent).toEqual([
      { signIn: 'mara', password: 'wrong' },
      { signIn: 'mara', password: 'wrong no, right' },
    ]);
  });
});
