import { isListed } from '../../cause/data/causes.js';
import { steady } from '../../cause/model.js';
import type { CaseView } from '../../case/views.js';
import { firstCircle } from '../../damage/catalogue/validate.js';
import type { Diagnosis, RankedCause } from '../diagnose.js';
import { findingLink, liesBeyond, type Candidate } from '../findingLinks.js';
import { originLink } from './links.js';
import { stationOf } from '../../engine/stations.js';
import { findingNodes } from './nodes.js';
import type { Contradiction, Sequence, SequenceLink, SequenceNode } from './types.js';

/** Causes below this are not tried as origins. */
const WORTH_TRYING = 0.08;
/** A further origin must explain at least this much grade. */
const ROOT_COSTS = 2;
/** A finding that another finding can have led to hangs on that one rather than straight on the origin, whose own link stands for the whole way. */
const STRAIGHT = 0.5;
/** Links weaker than this are drawn in doubt. */
const DOUBT = 0.5;

/**
 * The order of events that explains the most damage with the fewest origins. Origins are the confirmed causes, else the subset of the leading ones that explains the most; every
 * finding hangs on the path of greatest strength from an origin, over links the catalogue permits under oil route, adjacency and clues of time (strengths multiply along a path;
 * Dijkstra 1959 on −log). What the builder drew holds, what was rejected is not proposed again.
 */
export function proposeSequence(view: CaseView, diagnosis: Diagnosis): Sequence {
  const put = new Map(view.sequencePlaces.map((p) => [p.value.node, { x: p.value.x, y: p.value.y }]));
  const findings = findingNodes(view);
  const events = view.sequenceEvents.map((e): SequenceNode => ({
    id: `event:${e.value.event}`,
    kind: 'event',
    name: e.value.text,
    where: '',
    stations: [],
    pattern: null,
    grade: null,
    when: null,
    at: null,
  }));
  const rejected = view.sequenceLinks
    .filter((l) => l.value.state === 'rejected')
    .map(({ value: l }) => ({ from: l.from, to: l.to, reason: l.reason }));
  const drawn = view.sequenceLinks.filter((l) => l.value.state !== 'rejected').map((l) => l.value);
  const barred = new Set([...rejected, ...drawn].map((l) => `${l.from}>${l.to}`));
  const between = findings
    .flatMap((a) => findings.flatMap((b) => findingLink(view, a, b) ?? []))
    .filter((c) => !barred.has(`${c.from}>${c.to}`));
  const byHand = drawn.map((l): Candidate => ({
    from: l.from,
    to: l.to,
    strength: l.state === 'doubtful' ? 0.45 : 1,
    why: l.reason || 'drawn by the builder',
  }));
  const decided = new Map(view.decisions.map((d) => [d.value.cause, d.value.decision]));
  const confirmed = diagnosis.causes.filter((c) => decided.get(c.id) === 'confirmed');
  const open = diagnosis.causes
    .filter((c) => isListed(c.id) && decided.get(c.id) !== 'rejected' && c.probability >= WORTH_TRYING)
    .slice(0, 6);
  const drawnOrigins = new Set(drawn.map((l) => l.from).filter((id) => id.startsWith('cause:')));
  const hasOwnCause = new Set([...between, ...byHand].map((c) => c.to));
  const linksOfOrigin = (c: RankedCause): Candidate[] =>
    findings
      .flatMap((f) => originLink(view, c, f) ?? [])
      .filter((l) => !barred.has(`${l.from}>${l.to}`))
      .map((l) => (hasOwnCause.has(l.to) ? { ...l, pull: l.strength * STRAIGHT } : l));
  // Where nothing was found there is nothing that an origin could have led to.
  const nothing = findings.length + events.length === 0;
  const tries = confirmed.length > 0 || nothing ? [confirmed] : subsets(open, 3);
  let best: { roots: readonly RankedCause[]; paths: Paths; value: number } | null = null;
  for (const roots of tries) {
    const paths = strongestPaths(
      roots.map((c) => `cause:${c.id}`),
      [...roots.flatMap(linksOfOrigin), ...between, ...byHand],
    );
    const value =
      findings.reduce((sum, f) => sum + (paths.reach.has(f.id) ? (1 + paths.reach.get(f.id)!) / 2 : 0) * (f.grade ?? 0), 0) +
      roots.reduce((sum, c) => sum + Math.log(c.probability), 0) -
      ROOT_COSTS * roots.length;
    if (!best || steady(value) > steady(best.value)) best = { roots, paths, value };
  }
  const roots = best?.roots ?? [];
  const paths = best?.paths ?? { reach: new Map<string, number>(), by: new Map<string, Candidate>() };
  const named = new Map(diagnosis.causes.map((c) => [`cause:${c.id}`, c]));
  const origins = [...new Set([...roots.map((c) => `cause:${c.id}`), ...drawnOrigins])].flatMap((id): SequenceNode[] => {
    const c = named.get(id);
    const place = c?.places[0];
    return c
      ? [
          {
            id,
            kind: 'origin',
            name: c.name,
            where: place && place.probability > 0.5 ? place.name : '',
            stations: [],
            pattern: null,
            grade: null,
            when: null,
            at: null,
          },
        ]
      : [];
  });
  const nodes = [...origins, ...findings, ...events].map((n) => ({ ...n, at: put.get(n.id) ?? null }));
  const ids = new Set(nodes.map((n) => n.id));
  const doubtfulRoot = new Set(roots.filter((c) => c.probability < 0.5 && decided.get(c.id) !== 'confirmed').map((c) => `cause:${c.id}`));
  const handLinks = drawn.filter((l) => ids.has(l.from) && ids.has(l.to));
  const links: SequenceLink[] = [
    ...handLinks.map((l): SequenceLink => ({
      from: l.from,
      to: l.to,
      strength: 1,
      doubtful: l.state === 'doubtful',
      source: 'builder',
      why: l.reason,
    })),
    ...[...paths.by.values()]
      .filter((c) => !handLinks.some((l) => l.from === c.from && l.to === c.to))
      .map(({ pull: _, ...c }): SequenceLink => ({ ...c, doubtful: c.strength < DOUBT || doubtfulRoot.has(c.from), source: 'proposed' })),
  ];
  const grave = findings.filter((f) => (f.grade ?? 0) >= 2);
  return {
    nodes,
    links,
    rejected,
    contradictions: contradictionsOf(view, nodes, links, paths.reach),
    explained: grave.filter((f) => paths.reach.has(f.id)).length,
    of: grave.length,
  };
}

interface Paths {
  /** Strength of the strongest path from an origin, by node. */
  readonly reach: ReadonlyMap<string, number>;
  /** The last link of that path. */
  readonly by: ReadonlyMap<string, Candidate>;
}

function strongestPaths(roots: readonly string[], candidates: readonly Candidate[]): Paths {
  const out = new Map<string, Candidate[]>();
  for (const c of candidates) out.set(c.from, [...(out.get(c.from) ?? []), c]);
  const reach = new Map<string, number>(roots.map((r) => [r, 1]));
  const by = new Map<string, Candidate>();
  const done = new Set<string>();
  for (;;) {
    let at: string | null = null;
    for (const [id, strength] of reach) if (!done.has(id) && (at === null || strength > reach.get(at)!)) at = id;
    if (at === null) break;
    done.add(at);
    for (const c of out.get(at) ?? []) {
      const strength = reach.get(at)! * (c.pull ?? c.strength);
      if (done.has(c.to) || strength <= (reach.get(c.to) ?? 0)) continue;
      reach.set(c.to, strength);
      by.set(c.to, c);
    }
  }
  return { reach, by };
}

/** All subsets of one to `most` members. */
function subsets<T>(list: readonly T[], most: number): T[][] {
  let all: T[][] = [[]];
  for (const item of list) all = [...all, ...all.filter((s) => s.length < most).map((s) => [...s, item])];
  return all.filter((s) => s.length > 0);
}

function contradictionsOf(
  view: CaseView,
  nodes: readonly SequenceNode[],
  links: readonly SequenceLink[],
  reach: ReadonlyMap<string, number>,
): Contradiction[] {
  const found: Contradiction[] = [];
  const byId = new Map(nodes.map((n) => [n.id, n]));
  const stems = (n: SequenceNode): Set<string> => new Set(n.stations.flatMap((s) => stationOf(view.layout, s)?.bearing ?? []));
  const incoming = new Set(links.map((l) => l.to));
  for (const n of nodes)
    if (n.kind === 'finding' && (n.grade ?? 0) >= 2 && !reach.has(n.id) && !incoming.has(n.id))
      found.push({ on: n.id, words: `${n.name}, ${n.where}: an effect without its cause.` });
  for (const l of links) {
    if (l.source !== 'builder') continue;
    const a = byId.get(l.from)!;
    const b = byId.get(l.to)!;
    const on = `${l.from}>${l.to}`;
    if (a.when === 'last turn')
      found.push({ on, words: `${a.name} came at the last turn; it cannot have caused ${b.name.toLowerCase()}.` });
    if (b.when === 'first' && a.kind === 'finding')
      found.push({ on, words: `${b.name} shows that it came first; ${a.name.toLowerCase()} cannot lie before it.` });
    if (b.kind === 'origin') found.push({ on, words: `${b.name} is an origin; nothing leads to it.` });
    const here = stems(a);
    const there = stems(b);
    if (here.size > 0 && there.size > 0 && !liesBeyond(view.layout, here, there) && liesBeyond(view.layout, there, here))
      found.push({ on, words: `${b.where} lies before ${a.where} on the oil route: an effect upstream of its cause.` });
    if (a.kind === 'finding' && b.kind === 'finding' && !findingLink(view, a, b) && !found.some((c) => c.on === on))
      found.push({
        on,
        words: `The catalogue knows no way from ${a.name.toLowerCase()} to ${b.name.toLowerCase()} at these places; the reason should say how.`,
      });
  }
  const next = new Map<string, string[]>();
  for (const l of links) next.set(l.from, [...(next.get(l.from) ?? []), l.to]);
  const circle = firstCircle(next);
  if (circle)
    found.push({
      on: `${circle[0]}>${circle[1]}`,
      words: `These events lead back to themselves: ${circle.map((id) => byId.get(id)?.name ?? id).join(' → ')}.`,
    });
  return found;
}
