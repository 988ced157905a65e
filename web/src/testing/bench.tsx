import type { ApiError, Me } from '@true-ledger/contract';
import type { Gauge } from '@true-ledger/core/units';
import { engineTemplate, type EngineLayout } from '@true-ledger/core/engine';
import { currentVersion, emptyCase, type CaseState, type EntryDraft, type LedgerEntry } from '@true-ledger/core/ledger';
import { applyEntry, slotOf } from '@true-ledger/core/entries';
import { caseView, type CaseView } from '@true-ledger/core/case';
import { checkEntry } from '@true-ledger/core/gate';
import { act, configure, render, screen, waitFor, type RenderResult } from '@testing-library/react';
import userEvent, { PointerEventsCheckLevel, type UserEvent } from '@testing-library/user-event';
import { App as AntApp, ConfigProvider } from 'antd';
import { useMemo, type ReactNode } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter, useLocation } from 'react-router';
import { api, useGetCaseQuery } from '../app/api.js';
import { CaseContext, type OpenCase } from '../app/caseContext.js';
import { selectCaseState } from '../app/selectors.js';
import { store, useAppSelector } from '../app/store.js';
import { useDiagnosis } from '../workers/compute.js';

// How long something may take to appear says nothing here: a busy machine takes longer.
configure({ asyncUtilTimeout: 20_000 });

export const CASE = 'c0000000-0000-4000-8000-000000000001';
export const MICROMETER: Gauge = {
  id: 'mic-50',
  name: 'Outside micrometer 25–50',
  kind: 'outside-micrometer',
  resolutionMm: 0.001,
  expandedUncertaintyMm: 0.003,
  repeatabilityMm: 0.0014,
  masterMm: 50,
};
const PERSON = { id: 'mara', name: 'Mara Quill' };

/** A server that keeps one case in memory, checks what it is sent as the real one does, and answers what a page asks. */
export class Shop {
  state: CaseState = emptyCase(CASE);
  gauges: Gauge[] = [MICROMETER];
  standIns: object[] = [];
  /** Answers of further addresses, by `GET /path`. */
  readonly more = new Map<string, (request: Request) => Response | Promise<Response>>();
  /** What it says no to just now; `away`: it does not answer at all. */
  refuse: (entries: readonly EntryDraft[]) => ApiError | 'away' | null = () => null;
  readonly posts: EntryDraft[][] = [];
  private author = PERSON;

  constructor(layout: EngineLayout = engineTemplate('inline-4-petrol')!.layout) {
    this.write('case-opened', null, { number: '2026-T01', title: 'On the bench' });
    this.write('layout-set', null, { layout });
  }

  /** From here on somebody else writes. */
  as(name: string): void {
    this.author = { id: name.toLowerCase(), name };
  }

  /** Writes an entry past the page. */
  write(kind: string, station: string | null, body: object): LedgerEntry {
    const checked = checkEntry(kind as never, station, body as never, this.state);
    if (!checked.ok) throw new Error(checked.problem.sentence);
    return this.keep({ id: crypto.randomUUID(), kind, station, body, basedOn: null } as EntryDraft);
  }

  private keep(draft: EntryDraft): LedgerEntry {
    const seq = this.state.seq + 1;
    const entry: LedgerEntry = {
      id: draft.id,
      caseId: CASE,
      seq,
      kind: draft.kind,
      station: draft.station,
      author: this.author,
      time: `2026-03-02T08:${String(Math.floor(seq / 60) % 60).padStart(2, '0')}:${String(seq % 60).padStart(2, '0')}.000Z`,
      supersedes: draft.basedOn,
      body: draft.body,
      salt: '',
      bodyHash: '',
      prev: '',
      hash: `h${seq}`,
    };
    this.state = applyEntry(this.state, entry);
    return entry;
  }

  get view(): CaseView {
    return caseView(this.state)!;
  }

  async answer(request: Request): Promise<Response> {
    const { pathname } = new URL(request.url);
    const own = this.more.get(`${request.method} ${pathname}`);
    if (own) return own(request);
    if (request.method === 'GET' && pathname === `/api/cases/${CASE}`) return json(200, { id: CASE, state: this.state });
    if (request.method === 'GET' && pathname === `/api/cases/${CASE}/entries`) return json(200, []);
    if (request.method === 'POST' && pathname === `/api/cases/${CASE}/entries`) {
      const { entries } = (await request.json()) as { entries: EntryDraft[] };
      const refused = this.refuse(entries);
      if (refused === 'away') throw new TypeError('fetch failed');
      if (refused) return json(409, refused);
      for (const e of entries) {
        const checked = checkEntry(e.kind, e.station, e.body, this.state);
        if (!checked.ok) return json(400, checked.problem);
        const current = currentVersion(this.state, e.station, slotOf(e.kind, e.body))?.entry ?? null;
        if (current !== e.basedOn) return json(409, { code: 'entry-conflict', sentence: 'It was written meanwhile.' });
      }
      this.posts.push(entries);
      return json(200, { entries: entries.map((e) => this.keep(e)) });
    }
    if (pathname === '/api/gauges') return json(200, this.gauges);
    if (pathname === '/api/stand-ins') return json(200, this.standIns);
    return json(404, { code: 'not-found', sentence: 'There is nothing at this address.' });
  }
}

/** The wire to the gauges as a page sees it: what it was told, and a way to send something down. */
export class Wire {
  static last: Wire | null = null;
  static readonly OPEN = 1;
  readyState = 0;
  readonly said: Array<Record<string, unknown>> = [];
  onopen: (() => void) | null = null;
  onmessage: ((event: { data: string }) => void) | null = null;
  onclose: (() => void) | null = null;
  constructor() {
    Wire.last = this;
    setTimeout(() => {
      this.readyState = 1;
      act(() => this.onopen?.());
    }, 0);
  }
  send(words: string): void {
    this.said.push(JSON.parse(words) as Record<string, unknown>);
  }
  hear(message: object): void {
    act(() => this.onmessage?.({ data: JSON.stringify(message) }));
  }
  close(): void {
    this.readyState = 3;
    act(() => this.onclose?.());
  }
}

/** The line on which a page hears that a case has grown. */
export class Line {
  static last: Line | null = null;
  closed = false;
  onmessage: ((event: { data: string }) => void) | null = null;
  onopen: (() => void) | null = null;
  constructor(readonly address: string) {
    Line.last = this;
  }
  close(): void {
    this.closed = true;
  }
}

function Open({ role, children }: { role: 'builder' | 'reader'; children: ReactNode }): ReactNode {
  useGetCaseQuery(CASE);
  const state = useAppSelector((root) => selectCaseState(root, CASE));
  const answer = useDiagnosis(CASE, state, false);
  const view = state ? caseView(state) : null;
  const open = useMemo<OpenCase | null>(() => {
    if (!state || !view) return null;
    return { caseId: CASE, state, view, me: person(role), ...answer, readOnly: role === 'reader' };
  }, [state, view, answer, role]);
  return open && <CaseContext.Provider value={open}>{children}</CaseContext.Provider>;
}

/** What jsdom has not and a page asks for. */
function furnish(shop: Shop): void {
  const address = 'http://shop.test';
  const Plain = Request;
  Object.assign(globalThis, {
    Request: class extends Plain {
      constructor(input: string | URL | Request, init?: RequestInit) {
        super(typeof input === 'string' ? new URL(input, address) : input, init);
      }
    },
    fetch: (input: string | Request, init?: RequestInit) =>
      shop.answer(typeof input === 'string' ? new Plain(new URL(input, address), init) : input),
    WebSocket: Wire,
    EventSource: Line,
    ResizeObserver: class {
      observe(): void {}
      unobserve(): void {}
      disconnect(): void {}
    },
    matchMedia: () => ({ matches: false, addListener() {}, removeListener() {}, addEventListener() {}, removeEventListener() {} }),
  });
  Element.prototype.scrollIntoView ??= () => undefined;
  // Nothing is painted: what a surface shows is held in core and looked at in the browser tests.
  HTMLCanvasElement.prototype.getContext = (() => null) as never;
  globalThis.CSS ??= { escape: (id: string) => id } as never;
  // Style sheets are not there, and jsdom would go through every rule of the controls for every element that is asked after: an element's own style stands for it.
  // What the controls hide they hide by a class.
  const hidden = document.createElement('i').style;
  hidden.display = 'none';
  window.getComputedStyle = (element: Element) =>
    /-hidden\b/.test(element.getAttribute('class') ?? '') ? hidden : (element as HTMLElement).style;
}

export interface Bench extends RenderResult {
  readonly shop: Shop;
  readonly user: UserEvent;
}

function draw(page: ReactNode, shop: Shop, at: string): Bench {
  furnish(shop);
  localStorage.clear();
  store.dispatch(api.util.resetApiState());
  // Keys follow each other at once, and styles, which take an eighth of the time, are not there to say that something cannot be pressed: both are looked at in the browser tests.
  const user = userEvent.setup({ delay: null, pointerEventsCheck: PointerEventsCheckLevel.Never });
  const drawn = render(
    <Provider store={store}>
      <ConfigProvider wave={{ disabled: true }} theme={{ token: { motion: false }, zeroRuntime: true }}>
        <AntApp>
          <MemoryRouter initialEntries={[at]}>{page}</MemoryRouter>
        </AntApp>
      </ConfigProvider>
    </Provider>,
  );
  return { ...drawn, shop, user };
}

/** Says on the page where it is, so that a test can read what a key or link led to. */
export function Address(): ReactNode {
  const { pathname, search } = useLocation();
  return <p data-testid="address">{pathname + search}</p>;
}

/** Where the page is, by `Address`. */
export const address = (): string => screen.getByTestId('address').textContent!;

/** Draws a page of the shop, where no case is open. */
export function openShop(page: ReactNode, { shop = new Shop(), at = '/' } = {}): Bench {
  return draw(page, shop, at);
}

/** Somebody of the shop. */
export function person(role: 'owner' | 'builder' | 'reader'): Me {
  return { account: { id: PERSON.id, name: PERSON.name, signIn: 'mara', role, active: true, allCases: true }, author: PERSON };
}

/** An answer of the server. */
export function json(status: number, body: unknown): Response {
  return new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
}

/** Draws a page of the case as it stands in the shop, and waits until it is there. */
export async function open(
  page: ReactNode,
  { shop = new Shop(), at = `/case/${CASE}`, role = 'builder' as 'builder' | 'reader' } = {},
): Promise<Bench> {
  const drawn = draw(<Open role={role}>{page}</Open>, shop, at);
  await waitFor(() => {
    if ((drawn.container.firstElementChild?.childElementCount ?? 0) === 0) throw new Error('not drawn yet');
  });
  return drawn;
}

/** Lets what was sent be answered and drawn. */
export async function settled(): Promise<void> {
  for (let k = 0; k < 5; k++) await act(() => new Promise((resolve) => setTimeout(resolve, 0)));
}
