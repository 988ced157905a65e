import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readCaseFile } from '../../bundle/caseFile/read.js';
import { type CaseFile } from '../../bundle/caseFile/format.js';
import type { EntryBodies, EntryKind } from '../../entries/entries.js';
import { applyEntry } from '../../entries/entries.js';
import { type CaseState } from '../../ledger/state.js';
import { caseView } from '../../case/views.js';
import { diagnose } from '../diagnose.js';
import { placeSequence } from './layout.js';
import { proposeSequence } from './propose.js';
import type { Sequence } from './types.js';

const load = (name: string): CaseState => {
  const read = readCaseFile(
    JSON.parse(readFileSync(join(__dirname, '../../../../bench/cases/tuning', `${name}.json`), 'utf8')) as CaseFile,
  );
  if (!read.ok) throw new Error(read.problem.sentence);
  return read.value.state;
};
const add = <K extends EntryKind>(state: CaseState, kind: K, body: EntryBodies[K]): CaseState =>
  applyEntry(state, {
    id: `t${state.seq}`,
    kind,
    station: null,
    body,
    author: { id: 'a', name: 'A' },
    time: '',
    seq: state.seq + 1,
    hash: '',
  });
const of = (state: CaseState): Sequence => {
  const view = caseView(state)!;
  return proposeSequence(view, diagnose(view));
};
const way = (s: Sequence, to: string): string[] => {
  const back: string[] = [to];
  for (;;) {
    const link = s.links.find((l) => l.to === back[0]);
    if (!link || back.includes(link.from)) return back;
    back.unshift(link.from);
  }
};

describe('the sequence of events', () => {
  const blind = load('main-two-blind');
  it('runs from the shut feed along the oil to the rod that turned', () => {
    const s = of(blind);
    expect(way(s, 'find:spun-shell@rod.2')).toEqual([
      'cause:local-feed',
      'find:feed-missed@main.2',
      'find:dry-seizure@rod.2',
      'find:spun-shell@rod.2',
    ]);
    expect(s.explained).toBe(s.of);
    expect(s.contradictions).toEqual([]);
  });
  it('takes two origins where one does not explain, and one where it does', () => {
    expect(of(load('boiled-and-dry')).nodes.filter((n) => n.kind === 'origin')).toHaveLength(2);
    expect(of(load('level-forgotten')).nodes.filter((n) => n.kind === 'origin')).toHaveLength(1);
  });
  it('lets a lobe line the shells, never the shells the lobe', () => {
    const s = of(load('lobe-then-bearings'));
    expect(way(s, 'find:own-debris-scoring@many')).toContain('find:lobe-flat@cylinder.3');
    expect(s.links.some((l) => l.from === 'find:own-debris-scoring@many')).toBe(false);
  });
  it('keeps what the builder drew and does not propose again what was rejected', () => {
    const from = 'find:feed-missed@main.2';
    const to = 'find:dry-seizure@rod.2';
    const s = of(add(blind, 'sequence-link', { from, to, state: 'rejected', reason: 'the pin has its own feed here' }));
    expect(s.links.some((l) => l.from === from && l.to === to)).toBe(false);
    expect(s.rejected).toEqual([{ from, to, reason: 'the pin has its own feed here' }]);
    const own = of(
      add(add(blind, 'sequence-event', { event: 'e1', text: 'Mains renewed' }), 'sequence-link', {
        from: 'event:e1',
        to: from,
        state: 'doubtful',
        reason: 'only told',
      }),
    );
    expect(own.links).toContainEqual(expect.objectContaining({ from: 'event:e1', to: from, doubtful: true, source: 'builder' }));
  });
  it('marks an effect upstream of its cause, a circle, and a cause that came last', () => {
    const up = of(
      add(blind, 'sequence-link', { from: 'find:dry-seizure@rod.2', to: 'find:feed-missed@main.2', state: 'drawn', reason: 'x' }),
    );
    expect(up.contradictions.map((c) => c.words).join(' ')).toMatch(
      /main 2 lies before big end 2 on the oil route: an effect upstream of its cause/,
    );
    const round = of(
      add(
        add(blind, 'sequence-link', { from: 'find:dry-seizure@rod.2', to: 'find:feed-missed@main.2', state: 'drawn', reason: 'x' }),
        'sequence-link',
        { from: 'find:feed-missed@main.2', to: 'find:dry-seizure@rod.2', state: 'drawn', reason: 'y' },
      ),
    );
    expect(round.contradictions.map((c) => c.words).join(' ')).toMatch(/lead back to themselves/);
  });
  it('says which grave finding has no cause', () => {
    let s = blind;
    for (const l of of(blind).links.filter((x) => x.to === 'find:heat-short@main.2'))
      s = add(s, 'sequence-link', { from: l.from, to: l.to, state: 'rejected', reason: 'no' });
    s = add(s, 'sequence-link', { from: 'cause:local-feed', to: 'find:heat-short@main.2', state: 'rejected', reason: 'no' });
    const left = of(s);
    const still = left.links.find((l) => l.to === 'find:heat-short@main.2');
    if (still) expect(left.contradictions).toEqual([]);
    else expect(left.contradictions.map((c) => c.words).join()).toMatch(/Heat-short lining, main 2: an effect without its cause/);
    expect(left.explained + left.contradictions.filter((c) => c.on === 'find:heat-short@main.2').length).toBe(left.of);
  });
  it('is placed left to right without two events on one spot, and keeps what was moved', () => {
    const placed = placeSequence(of(add(blind, 'sequence-place', { node: 'cause:local-feed', x: 40, y: 300 })));
    expect(placed.nodes.find((n) => n.id === 'cause:local-feed')).toMatchObject({ x: 40, y: 300 });
    for (const l of placed.links) expect(l.points[0]![0]).toBeLessThan(l.points[1]![0] + 1);
    expect(new Set(placed.nodes.map((n) => `${n.x},${n.y}`)).size).toBe(placed.nodes.length);
  });
});
