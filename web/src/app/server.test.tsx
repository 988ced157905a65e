import { fetchFile, fetchJson, asProblem, patience } from './server.js';

// How a page asks, is refused, and waits.
const answer = (response: Response | Error): void =>
  void Object.assign(globalThis, { fetch: () => (response instanceof Error ? Promise.reject(response) : Promise.resolve(response)) });

describe('a file of the server', () => {
  it('comes with the name the server gives it', async () => {
    answer(new Response('abc', { headers: { 'content-disposition': 'attachment; filename="2026-T01 account.pdf"' } }));
    const file = await fetchFile('/api/x');
    expect(file.ok && file.value.name).toBe('2026-T01 account.pdf');
    expect(file.ok && (await file.value.blob.text())).toBe('abc');
  });
  it('that is refused says why in the words of the server', async () => {
    answer(new Response(JSON.stringify({ code: 'account-failed', sentence: 'It was not made.' }), { status: 400 }));
    expect(await fetchFile('/api/x')).toEqual({ ok: false, problem: { code: 'account-failed', sentence: 'It was not made.' } });
  });
  it('that does not come at all, or comes with a page of somebody else, is unreachable', async () => {
    answer(new TypeError('fetch failed'));
    expect(await fetchFile('/api/x')).toMatchObject({ ok: false, problem: { code: 'unreachable' } });
    answer(new Response('<html>502</html>', { status: 502 }));
    expect(await fetchJson('/api/x')).toMatchObject({ ok: false, problem: { code: 'unreachable' } });
  });
});

describe('any failure is one shape', () => {
  it.each([
    [{ data: { code: 'busy', sentence: 'Wait.' } }, 'busy'],
    [{ code: 'busy', sentence: 'Wait.' }, 'busy'],
    [{ data: 'gateway' }, 'unreachable'],
    [new Error('x'), 'unreachable'],
    [undefined, 'unreachable'],
    [{ data: { code: 'busy' } }, 'unreachable'],
  ])('%o', (error, code) => expect(asProblem(error).code).toBe(code));
});

describe('patience', () => {
  it('grows to its bound and begins again once it worked', () => {
    const wait = patience(100, 300, 2);
    expect([wait.next(), wait.next(), wait.next(), wait.next()]).toEqual([100, 200, 300, 300]);
    wait.calm();
    expect(wait.next()).toBe(100);
  });
});
