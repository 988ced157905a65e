import fc from 'fast-check';
import { engineTemplate } from '../engine/templates.js';
import { applyDraft, applyEntry, draftConflict, foldEntries, slotOf } from '../entries/entries.js';
import { checkEntry } from '../gate/admit.js';
import { caseView } from '../case/views.js';
import { FIRST_PREV, sealEntry, verifyChain, type EntryDraft, type LedgerEntry } from './entry.js';
import { applyDelta, stateDelta } from './delta.js';
import { currentVersion, emptyCase, type CaseState } from './state.js';

// Several hands on one case, as a shop works: each writes on what it knows, some are away, what is sent arrives late, twice or in pieces, and two may write
// the same field. Whatever happens, all end with one case, and nothing that was confirmed is lost.
const CASE = 'c0000000-0000-4000-8000-000000000000';
const layout = engineTemplate('single-splash')!.layout;
const PLACES = ['bore.1', 'rings.1.pack', 'piston.1.crown', null] as const;

const uuid = (letter: string, n: number): string => `${letter}0000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

/** The one who numbers entries. */
class Server {
  readonly ledger: LedgerEntry[] = [];
  state: CaseState = emptyCase(CASE);

  constructor() {
    this.append({ id: uuid('e', 0), kind: 'case-opened', station: null, body: { number: '1', title: 'Hands' }, basedOn: null }, 'server');
    this.append({ id: uuid('e', 1), kind: 'layout-set', station: null, body: { layout }, basedOn: null }, 'server');
  }

  /** Takes a draft, or tells why not: the same draft again is the same entry. */
  append(draft: EntryDraft, by: string): LedgerEntry | 'conflict' | 'refused' {
    const known = this.ledger.find((e) => e.id === draft.id);
    if (known) return known;
    if (draftConflict(this.state, draft)) return 'conflict';
    if (!checkEntry(draft.kind, draft.station, draft.body, this.state).ok) return 'refused';
    const entry = sealEntry(
      { ...draft },
      {
        caseId: CASE,
        seq: this.ledger.length + 1,
        prev: this.ledger.at(-1)?.hash ?? FIRST_PREV,
        time: '2026-03-02T08:00:00.000Z',
        salt: `s${this.ledger.length}`,
        author: { id: uuid('a', by.length), name: by },
        supersedes: draft.basedOn,
      },
    );
    this.ledger.push(entry);
    this.state = applyEntry(this.state, entry);
    return entry;
  }
}

/** A browser: what the server confirmed as far as it has heard, and what is unsent. */
class Hand {
  confirmed: CaseState;
  readonly unsent: EntryDraft[] = [];
  dropped = 0;

  constructor(
    readonly name: string,
    readonly server: Server,
  ) {
    this.confirmed = foldEntries(emptyCase(CASE), server.ledger);
  }

  /** The case as this hand sees it. */
  get seen(): CaseState {
    return this.unsent.reduce((s, d) => applyDraft(s, d, { id: this.name, name: this.name }, ''), this.confirmed);
  }

  write(kind: string, station: string | null, body: object, id: string): void {
    const basedOn = currentVersion(this.seen, station, slotOf(kind, body))?.entry ?? null;
    this.unsent.push({ id, kind, station, body, basedOn });
  }

  /** What comes over the line: only what follows directly is taken, what is known is passed over. */
  hear(entries: readonly LedgerEntry[]): void {
    const next = entries.filter((e) => e.seq > this.confirmed.seq);
    if (next[0]?.seq === this.confirmed.seq + 1) this.confirmed = foldEntries(this.confirmed, next);
  }

  /** Sends what waits, in its order; a field that was written meanwhile is written over or given up. */
  send(mine: boolean): void {
    while (this.unsent.length > 0) {
      const draft = this.unsent[0]!;
      const answer = this.server.append(draft, this.name);
      if (answer === 'conflict') {
        this.hear(this.server.ledger);
        const current = currentVersion(this.confirmed, draft.station, slotOf(draft.kind, draft.body))?.entry ?? null;
        if (!mine || draft.kind === 'retracted') {
          this.giveUp(draft, current);
          continue;
        }
        this.unsent[0] = { ...draft, basedOn: current };
        continue;
      }
      this.unsent.shift();
      if (answer === 'refused') this.dropped++;
    }
    this.hear(this.server.ledger);
  }

  private giveUp(draft: EntryDraft, current: string | null): void {
    this.unsent.shift();
    this.dropped++;
    // What was written on it rests on what stands there instead.
    this.unsent.forEach((d, i) => {
      if (d.basedOn === draft.id) this.unsent[i] = { ...d, basedOn: current };
    });
  }
}

/** The same runs each time; `FUZZ_SEED` makes others. */
const runs = (numRuns: number): { numRuns: number; seed: number } => ({ numRuns, seed: Number(process.env['FUZZ_SEED'] ?? 20261130) });

const action = fc.record({
  hand: fc.nat(2),
  what: fc.constantFrom('grade', 'state', 'remark', 'pattern', 'mark', 'back', 'send', 'hear', 'hear-late', 'hear-twice', 'confirm-lost'),
  place: fc.nat(PLACES.length - 1),
  value: fc.nat(3),
  mine: fc.boolean(),
  cut: fc.nat(12),
});
type Action = typeof action extends fc.Arbitrary<infer T> ? T : never;

function act(hand: Hand, a: Action, n: number): void {
  const place = PLACES[a.place]!;
  const id = uuid('d', n);
  const station = place ?? 'bore.1';
  switch (a.what) {
    case 'grade':
      return hand.write('grade-confirmed', station, { grade: a.value, proposed: null, reason: '', book: '1' }, id);
    case 'state':
      return hand.write('state-set', station, { state: ['sound', 'lost', 'not-present', 'not-examined'][a.value] }, id);
    case 'pattern':
      return hand.write('pattern-set', 'bore.1', { pattern: ['bore-crack', 'bore-rust', 'long-wear'][a.value % 3], present: a.mine }, id);
    case 'remark':
      return hand.write('remark', place, { remark: `r${a.value}`, text: `${hand.name} ${n}` }, id);
    case 'mark':
      return hand.write(
        'mark-made',
        'bore.1',
        {
          mark: {
            id: `m${a.value}`,
            shape: 'line',
            class: 'scuffed',
            points: [
              [0, 0],
              [1, 1],
            ],
            radiusMm: 1,
            made: 'found-so',
          },
        },
        id,
      );
    case 'back': {
      const held = currentVersion(hand.seen, station, 'grade');
      if (held) hand.write('retracted', station, { target: held.entry, slot: 'grade', reason: 'taken back' }, id);
      return;
    }
    case 'send':
      return hand.send(a.mine);
    case 'hear':
      return hand.hear(hand.server.ledger);
    case 'hear-late':
      return hand.hear(hand.server.ledger.slice(0, a.cut));
    case 'hear-twice':
      return hand.hear(hand.server.ledger.slice(Math.max(0, hand.confirmed.seq - 2), hand.confirmed.seq + a.cut));
    case 'confirm-lost': {
      // The server took it and the answer never came: it is sent once more later.
      const first = hand.unsent[0];
      if (first) hand.server.append(first, hand.name);
      return;
    }
  }
}

function run(actions: readonly Action[]): { server: Server; hands: Hand[]; written: number } {
  const server = new Server();
  const hands = ['Mara', 'Teo', 'Ines'].map((name) => new Hand(name, server));
  let written = 0;
  actions.forEach((a, n) => {
    const hand = hands[a.hand]!;
    const before = hand.unsent.length;
    act(hand, a, n);
    if (hand.unsent.length > before) written++;
  });
  for (const hand of hands) hand.send(true);
  for (const hand of hands) hand.hear(server.ledger);
  return { server, hands, written };
}

describe('several hands on one case', () => {
  it('end with the same case, however things were sent, heard, lost and doubled', () =>
    fc.assert(
      fc.property(fc.array(action, { maxLength: 60 }), (actions) => {
        const { server, hands } = run(actions);
        for (const hand of hands) {
          expect(hand.unsent).toEqual([]);
          expect(hand.confirmed).toEqual(server.state);
        }
        expect(foldEntries(emptyCase(CASE), server.ledger)).toEqual(server.state);
      }),
      runs(300),
    ));

  it('lose nothing that was confirmed, and write nothing twice', () =>
    fc.assert(
      fc.property(fc.array(action, { maxLength: 60 }), (actions) => {
        const { server, hands, written } = run(actions);
        expect(server.ledger.map((e) => e.seq)).toEqual(server.ledger.map((_, i) => i + 1));
        expect(new Set(server.ledger.map((e) => e.id)).size).toBe(server.ledger.length);
        expect(server.ledger.length - 2 + hands.reduce((n, h) => n + h.dropped, 0)).toBe(written);
        expect(verifyChain(server.ledger).ok).toBe(true);
      }),
      runs(200),
    ));

  it('see at each field what was confirmed there last and not taken back', () =>
    fc.assert(
      fc.property(fc.array(action, { maxLength: 60 }), (actions) => {
        const { server } = run(actions);
        // The same worked out another way: entry by entry, a list a field.
        const fields = new Map<string, string[]>();
        for (const e of server.ledger) {
          const body = e.body as { target?: string; slot?: string };
          const key = `${e.station ?? ''}|${e.kind === 'retracted' ? body.slot : slotOf(e.kind, e.body as object)}`;
          const held = fields.get(key) ?? [];
          fields.set(key, e.kind === 'retracted' ? held.filter((id) => id !== body.target) : [...held, e.id]);
        }
        for (const [key, ids] of fields) {
          const [place, slot] = key.split('|') as [string, string];
          expect([key, currentVersion(server.state, place === '' ? null : place, slot)?.entry]).toEqual([key, ids.at(-1)]);
        }
      }),
      runs(200),
    ));

  it('a page may be sent any step of it as a difference, and holds the same', () =>
    fc.assert(
      fc.property(fc.array(action, { maxLength: 40 }), fc.array(fc.nat(40), { maxLength: 6 }), (actions, stops) => {
        const { server } = run(actions);
        let held: CaseState | null = null;
        let sent: CaseState | null = null;
        for (const stop of [...new Set(stops)].sort((a, b) => a - b)) {
          // The state the page goes on from is the one that was folded, not one made anew.
          const state: CaseState = foldEntries(sent ?? emptyCase(CASE), server.ledger.slice(sent?.seq ?? 0, stop));
          held = applyDelta(held, stateDelta(sent, state));
          sent = state;
          expect(held).toEqual(foldEntries(emptyCase(CASE), server.ledger.slice(0, state.seq)));
        }
      }),
      runs(150),
    ));

  it('the view of what a hand sees never falls over what others did meanwhile', () =>
    fc.assert(
      fc.property(fc.array(action, { maxLength: 40 }), (actions) => {
        const server = new Server();
        const hands = ['Mara', 'Teo', 'Ines'].map((name) => new Hand(name, server));
        actions.forEach((a, n) => {
          const hand = hands[a.hand]!;
          act(hand, a, n);
          const view = caseView(hand.seen)!;
          // What it wrote and has not sent is what it sees at that field, but where it took it back.
          const last = hand.unsent.at(-1);
          if (last && last.kind !== 'retracted')
            expect(currentVersion(hand.seen, last.station, slotOf(last.kind, last.body))?.entry).toBe(last.id);
          expect(view.stations.length).toBeGreaterThan(10);
        });
      }),
      runs(100),
    ));
});

describe('two entries on different fields', () => {
  it('may come in any order: what stands at each field is the same', () =>
    fc.assert(
      fc.property(fc.array(action, { maxLength: 30 }), fc.nat(), (actions, seed) => {
        const server = new Server();
        const hand = new Hand('Mara', server);
        // One entry a field at most.
        const drafts = new Map<string, EntryDraft>();
        actions.forEach((a, n) => {
          if (['send', 'back', 'hear', 'hear-late', 'hear-twice', 'confirm-lost'].includes(a.what)) return;
          act(hand, a, n);
          const d = hand.unsent.pop()!;
          drafts.set(`${d.station}|${slotOf(d.kind, d.body)}`, { ...d, basedOn: null });
        });
        const orders = [
          [...drafts.values()],
          [...drafts.values()].sort(
            (a, b) => ((Number(a.id.slice(-4)) * 31 + seed) % 7) - ((Number(b.id.slice(-4)) * 31 + seed) % 7) || (a.id < b.id ? 1 : -1),
          ),
        ];
        const [one, other] = orders.map((order) => {
          const own = new Server();
          for (const d of order) own.append(d, 'Mara');
          return Object.fromEntries(
            Object.entries(own.state.groups).map(([place, group]) => [
              place,
              Object.fromEntries(
                Object.entries(group)
                  .sort()
                  .map(([slot, versions]) => [slot, versions.map((v) => [v.entry, v.body])]),
              ),
            ]),
          );
        });
        expect(other).toEqual(one);
      }),
      runs(150),
    ));
});
