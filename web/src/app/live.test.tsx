import { Line } from '../testing/bench.js';

// One line to the server for a page, heard by all who listen on it.
beforeAll(() => Object.assign(globalThis, { EventSource: Line }));

describe('the live line', () => {
  it('is opened by the first who listens, heard by all, closed by the last', async () => {
    const { hear } = await import('./live.js');
    const heard: unknown[] = [];
    const leave = [hear((h) => heard.push(['one', h])), hear((h) => heard.push(['two', h]))];
    const line = Line.last!;
    expect(line.address).toBe('/api/events');
    line.onmessage!({ data: '{"caseId":"c","seq":7}' });
    expect(heard).toEqual([
      ['one', { caseId: 'c', seq: 7 }],
      ['two', { caseId: 'c', seq: 7 }],
    ]);
    leave[0]!();
    expect(line.closed).toBe(false);
    line.onmessage!({ data: '{"caseId":"c","seq":8}' });
    expect(heard).toHaveLength(3);
    leave[1]!();
    expect(line.closed).toBe(true);
  });

  it('tells when it is up again, for anything may have happened meanwhile', async () => {
    const { hear } = await import('./live.js');
    const heard: unknown[] = [];
    const leave = hear((h) => heard.push(h));
    Line.last!.onopen!();
    expect(heard).toEqual(['again']);
    leave();
  });

  it('is given up when the page is put away, and taken up when it comes back', async () => {
    const { hear } = await import('./live.js');
    const heard: unknown[] = [];
    const leave = hear((h) => heard.push(h));
    const first = Line.last!;
    window.dispatchEvent(new Event('pagehide'));
    expect(first.closed).toBe(true);
    window.dispatchEvent(Object.assign(new Event('pageshow'), { persisted: true }));
    expect(Line.last).not.toBe(first);
    expect(heard).toEqual(['again']);
    leave();
    // Nobody listens: a page that comes back opens no line.
    const last = Line.last;
    window.dispatchEvent(Object.assign(new Event('pageshow'), { persisted: true }));
    expect(Line.last).toBe(last);
  });
});
