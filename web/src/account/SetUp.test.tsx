import { screen, waitFor, within } from '@testing-library/react';
import { json, openShop, person, settled, Shop } from '../testing/bench.js';
import { People } from './People.js';
import { OwnPassword } from './OwnPassword.js';
import { Sessions } from './Sessions.js';

// Who may do what in the shop: every change is the server's to allow, and its sentence is told.
const MARA = person('owner').account;
const TOM = { id: 'tom', name: 'Tom Reed', signIn: 'tom', role: 'reader' as const, active: true, allCases: false };
interface Sent {
  readonly what: string;
  readonly body: unknown;
}
function shopOf(): Shop & { sent: Sent[]; reply: (what: string) => Response } {
  const shop = Object.assign(new Shop(), { sent: [] as Sent[], reply: (_: string): Response => json(200, TOM) });
  shop.more.set('GET /api/accounts', () => json(200, [MARA, TOM]));
  shop.more.set('GET /api/accounts/tom/cases', () => json(200, { cases: ['a'] }));
  shop.more.set('GET /api/cases', () =>
    json(200, [
      { id: 'a', number: '2026-T01', title: 'Winch' },
      { id: 'b', number: '2026-T02', title: 'Pump' },
    ]),
  );
  for (const what of ['POST /api/accounts', 'PATCH /api/accounts/tom', 'PATCH /api/accounts/mara', 'POST /api/password'])
    shop.more.set(what, async (request) => {
      shop.sent.push({ what, body: await request.json() });
      return shop.reply(what);
    });
  return shop;
}

describe('people of the shop', () => {
  it('are added with a password of ten characters or more, as what they are', async () => {
    const shop = shopOf();
    const { user } = openShop(<People me={person('owner')} />, { shop });
    await screen.findByText('Tom Reed');
    await user.type(screen.getByLabelText('Name'), 'Ida Voss');
    await user.type(screen.getByLabelText('Sign-in name'), 'ida');
    await user.type(screen.getByLabelText('Password'), 'short');
    await user.click(screen.getByText('Add person'));
    expect(await screen.findByText('At least 10 characters')).toBeTruthy();
    expect(shop.sent).toEqual([]);
    await user.type(screen.getByLabelText('Password'), ' but longer');
    await user.click(screen.getByText('Add person'));
    await waitFor(() =>
      expect(shop.sent).toEqual([
        { what: 'POST /api/accounts', body: { name: 'Ida Voss', signIn: 'ida', password: 'short but longer', role: 'builder' } },
      ]),
    );
    await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe(''));
  });

  it('nobody shuts himself out, and what the server refuses is told in its words', async () => {
    const shop = shopOf();
    shop.reply = () => json(409, { code: 'last-owner', sentence: 'A shop keeps one owner. Nothing was changed.' });
    const { user } = openShop(<People me={person('owner')} />, { shop });
    await screen.findByText('Tom Reed');
    expect(screen.getByLabelText<HTMLButtonElement>('Mara Quill may sign in').disabled).toBe(true);
    await user.click(screen.getByLabelText('Tom Reed may sign in'));
    expect(await screen.findByText('A shop keeps one owner. Nothing was changed.')).toBeTruthy();
    expect(shop.sent).toEqual([{ what: 'PATCH /api/accounts/tom', body: { active: false } }]);
  });

  it('a reader sees the cases chosen for him, or all', async () => {
    const shop = shopOf();
    const { user } = openShop(<People me={person('owner')} />, { shop });
    await screen.findByText('2026-T01 Winch');
    await user.click(screen.getByLabelText('Cases Tom Reed sees'));
    await user.click(await screen.findByTitle('2026-T02 Pump'));
    await waitFor(() => expect(shop.sent.at(-1)).toEqual({ what: 'PATCH /api/accounts/tom', body: { cases: ['a', 'b'] } }));
    await user.click(screen.getByLabelText('Tom Reed sees all cases'));
    await waitFor(() => expect(shop.sent.at(-1)).toEqual({ what: 'PATCH /api/accounts/tom', body: { cases: null } }));
  });

  it('a password is set anew for somebody else, and says what ends with it', async () => {
    const shop = shopOf();
    const { user } = openShop(<People me={person('owner')} />, { shop });
    await user.click(await screen.findByLabelText('Set anew: password of Tom Reed'));
    const dialog = await screen.findByRole('dialog');
    expect(dialog.textContent).toContain('Everything Tom Reed has open is ended');
    await user.type(within(dialog).getByLabelText(/^Password/), 'tell-in-person');
    await user.click(within(dialog).getByText('Set the password'));
    await waitFor(() => expect(shop.sent).toEqual([{ what: 'PATCH /api/accounts/tom', body: { password: 'tell-in-person' } }]));
    expect(await screen.findByText(/signs in with the new password/)).toBeTruthy();
  });
});

describe('one’s own', () => {
  it('password is refused in the field that is wrong', async () => {
    const shop = shopOf();
    shop.reply = () => json(403, { code: 'password-wrong', sentence: 'This is not the password in use.', field: 'current' });
    const { user } = openShop(<OwnPassword />, { shop });
    await user.type(screen.getByLabelText('Password in use'), 'guess');
    await user.type(screen.getByLabelText('New password'), 'a-better-password');
    await user.click(screen.getByText('Change password'));
    expect(await screen.findByText('This is not the password in use.')).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('New password').value).toBe('a-better-password');
  });

  it('password is changed, and the fields are empty again', async () => {
    const shop = shopOf();
    shop.reply = () => json(200, {});
    const { user } = openShop(<OwnPassword />, { shop });
    await user.type(screen.getByLabelText('Password in use'), 'the-old-password');
    await user.type(screen.getByLabelText('New password'), 'a-better-password');
    await user.click(screen.getByText('Change password'));
    expect(await screen.findByText(/Your password is changed/)).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('New password').value).toBe('');
  });

  it('sessions elsewhere can be ended, this one cannot', async () => {
    const shop = shopOf();
    const ended: string[] = [];
    const line = { created: '2026-11-01T08:00:00Z', lastSeen: '2026-11-02T08:00:00Z', agent: 'browser' };
    let left = [
      { id: 'here', current: true, ...line },
      { id: 'there', current: false, ...line },
    ];
    shop.more.set('GET /api/sessions', () => json(200, left));
    shop.more.set('DELETE /api/sessions/there', () => {
      ended.push('there');
      left = left.slice(0, 1);
      return json(200, {});
    });
    const { user } = openShop(<Sessions />, { shop });
    expect(await screen.findByText('this one')).toBeTruthy();
    await user.click(screen.getByText('End session'));
    await waitFor(() => expect(ended).toEqual(['there']));
    await settled();
    await waitFor(() => expect(screen.queryByText('End session')).toBeNull());
  });
});
