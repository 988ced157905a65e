import { caseView } from '@true-ledger/core/case';
import { reportModel, type ReportModel } from '@true-ledger/core/report';
import { screen, waitFor, within } from '@testing-library/react';
import { useMemo, type ReactNode } from 'react';
import { useCase } from '../../app/caseContext.js';
import { CASE, json, open, Shop } from '../../testing/bench.js';
import { SignShare } from './SignShare.js';

// Signing and sharing: a signature binds what the page shows, a link opens one version and can be taken back.
const printed: number[] = [];
function Signing({ flags = [] }: { flags?: ReportModel['flags'] }): ReactNode {
  const { view, state } = useCase();
  const model = useMemo(() => ({ ...reportModel(view, state.head, state.seq), flags }), [view, state, flags]);
  return <SignShare model={model} onPdf={(version) => printed.push(version)} />;
}
interface Sent {
  readonly id: string;
  readonly head: string;
  readonly reason: string;
  readonly acceptFlags: boolean;
}
function shopOf(reply: (n: number) => Response = () => json(201, {})): Shop & { sent: Sent[] } {
  const shop = Object.assign(new Shop(), { sent: [] as Sent[] });
  shop.more.set(`POST /api/cases/${CASE}/account/sign`, async (request) => {
    shop.sent.push((await request.json()) as Sent);
    return reply(shop.sent.length);
  });
  shop.more.set(`GET /api/cases/${CASE}/shares`, () => json(200, []));
  return shop;
}
function signed(times: number, shop = shopOf()): typeof shop {
  for (let k = 0; k < times; k++)
    shop.write('account-signed', null, {
      version: k + 1,
      reason: k === 0 ? '' : 'a place was measured anew',
      template: 'private',
      sha256: 'd'.repeat(64),
      bytes: 1000,
      head: 'e'.repeat(64),
      entries: 3 + k,
      sections: {},
      flags: 0,
    });
  return shop;
}
const dialog = (): Promise<HTMLElement> => screen.findByRole('dialog');
const ok = (box: HTMLElement): HTMLButtonElement => within(box).getAllByText('Sign').at(-1)!.closest('button')!;

describe('signing', () => {
  it('binds the head of the ledger the page was made from', async () => {
    const shop = shopOf();
    const { user } = await open(<Signing />, { shop });
    expect(screen.getByText(/Nothing is signed yet/)).toBeTruthy();
    await user.click(screen.getByText('Sign the account'));
    const box = await dialog();
    expect(box.textContent).toContain(`made from ${shop.state.seq} entries`);
    await user.click(ok(box));
    await waitFor(() => expect(shop.sent).toHaveLength(1));
    expect(shop.sent[0]).toMatchObject({ head: shop.state.head, reason: '', acceptFlags: false });
  });

  it('asked again after a lost answer, it is the same signature', async () => {
    const shop = shopOf((n) =>
      n === 1 ? json(409, { code: 'ledger-grown', sentence: 'The ledger has grown meanwhile.' }) : json(201, {}),
    );
    const { user } = await open(<Signing />, { shop });
    await user.click(screen.getByText('Sign the account'));
    const box = await dialog();
    await user.click(ok(box));
    expect((await within(box).findByRole('alert')).textContent).toContain('The ledger has grown meanwhile.');
    await user.click(ok(box));
    await waitFor(() => expect(shop.sent).toHaveLength(2));
    expect(shop.sent[0]!.id).toBe(shop.sent[1]!.id);
  });

  it('over a passage that says what the figures do not, only knowingly', async () => {
    const shop = shopOf();
    const model = reportModel(caseView(shop.state)!, shop.state.head, shop.state.seq);
    const flags = [
      { section: model.sections[0]!.id, text: 'The pump failed.', flags: ['no figure says so'] },
    ] as unknown as ReportModel['flags'];
    const { user } = await open(<Signing flags={flags} />, { shop });
    expect(screen.getByRole('region', { name: 'Passages to look at' }).textContent).toContain('no figure says so');
    await user.click(screen.getByText('Sign the account'));
    const box = await dialog();
    expect(ok(box).disabled).toBe(true);
    await user.click(within(box).getByText(/Sign over them/));
    await user.click(ok(box));
    await waitFor(() => expect(shop.sent[0]?.acceptFlags).toBe(true));
  });

  it('a later version says what it amends', async () => {
    const shop = signed(1);
    const { user } = await open(<Signing />, { shop });
    await user.click(screen.getByText('Sign version 2'));
    const box = await dialog();
    expect(ok(box).disabled).toBe(true);
    await user.type(within(box).getByLabelText('What this version amends and why'), 'pin 2 measured anew');
    await user.click(ok(box));
    await waitFor(() => expect(shop.sent[0]?.reason).toBe('pin 2 measured anew'));
  });

  it('lists versions, the newest first, each with its PDF', async () => {
    const { user } = await open(<Signing />, { shop: signed(2) });
    const lines = [...document.querySelectorAll('.versions li')];
    expect(lines.map((l) => l.querySelector('b')!.textContent)).toEqual(['Version 2', 'Version 1']);
    expect(lines[0]!.textContent).toContain('a place was measured anew');
    await user.click(screen.getByText('PDF of version 1'));
    expect(printed).toEqual([1]);
  });
});

describe('links for outsiders', () => {
  const link = {
    id: 'l1',
    version: 1,
    note: 'the insurer',
    cover: true,
    created: '2026-11-01',
    revoked: null,
    opened: 1,
    lastOpened: null,
  };

  it('are made for so many days, shown once, and the note does not stay in the field', async () => {
    const shop = signed(1);
    const asked: object[] = [];
    shop.more.set(`POST /api/cases/${CASE}/shares`, async (request) => {
      asked.push((await request.json()) as object);
      return json(201, { path: '/shared/secret-token' });
    });
    const { user } = await open(<Signing />, { shop });
    await user.type(screen.getByLabelText('For whom'), 'the insurer');
    await user.click(screen.getByText(/with the cover sheet/));
    await user.click(screen.getByText('Make a link'));
    const made = await screen.findByLabelText<HTMLInputElement>('The link');
    expect(made.value).toContain('/shared/secret-token');
    expect(asked[0]).toMatchObject({ version: 1, days: 30, note: 'the insurer', cover: true });
    expect(screen.getByLabelText<HTMLInputElement>('For whom').value).toBe('');
  });

  it('say how often they were opened, and can be taken back while they live', async () => {
    const shop = signed(1);
    let taken = 0;
    const expires = new Date(Date.now() + 1e9).toISOString();
    shop.more.set(`GET /api/cases/${CASE}/shares`, () =>
      json(200, [
        { ...link, expires, revoked: taken > 0 ? new Date().toISOString() : null },
        { ...link, id: 'l2', note: 'old', expires: '2020-01-01T00:00:00Z', opened: 3 },
      ]),
    );
    shop.more.set(`DELETE /api/cases/${CASE}/shares/l1`, () => {
      taken++;
      return json(200, {});
    });
    const { user } = await open(<Signing />, { shop });
    expect(await screen.findByText(/the insurer, with cover sheet: until/)).toBeTruthy();
    expect(screen.getByText(/old, with cover sheet: ended/).textContent).toMatch(/opened 3 times/);
    expect(screen.getAllByText('Take back')).toHaveLength(1);
    await user.click(screen.getByText('Take back'));
    await user.click(
      await waitFor(() => {
        const all = screen.getAllByText('Take back');
        expect(all.length).toBeGreaterThan(1);
        return all.at(-1)!.closest('button')!;
      }),
    );
    await waitFor(() => expect(taken).toBe(1));
    expect(await screen.findByText(/the insurer, with cover sheet: taken back/)).toBeTruthy();
  });

  it('a reader neither signs nor shares', async () => {
    await open(<Signing />, { shop: signed(1), role: 'reader' });
    expect(screen.queryByText(/^Sign/)).toBeNull();
    expect(screen.queryByText('Make a link')).toBeNull();
    expect(screen.getByText('PDF of version 1')).toBeTruthy();
  });
});
