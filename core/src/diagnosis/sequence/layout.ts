import dagre from '@dagrejs/dagre';
import type { Sequence, SequenceLink, SequenceNode } from './types.js';

/** An event with its place on the drawing: left top corner and size, in pixels of the page. */
export interface PlacedNode extends SequenceNode {
  /** Left upper corner and size, px. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface PlacedSequence {
  readonly nodes: readonly PlacedNode[];
  readonly links: ReadonlyArray<SequenceLink & { readonly points: ReadonlyArray<readonly [number, number]> }>;
  readonly width: number;
  readonly height: number;
}

const NODE_WIDTH = 190;
const NODE_HEIGHT = 58;

/** Events without a link take no part in the drawing unless they are the builder's own or stand against it. */
function drawnNodes(sequence: Sequence): SequenceNode[] {
  const linked = new Set(sequence.links.flatMap((l) => [l.from, l.to]));
  const contradicted = new Set(sequence.contradictions.map((c) => c.on));
  return sequence.nodes.filter((n) => linked.has(n.id) || n.kind !== 'finding' || contradicted.has(n.id));
}

/** Left to right, origins first, by layers (Sugiyama et al. 1981, as dagre does it); what the builder has moved stays where it was put. */
export function placeSequence(sequence: Sequence): PlacedSequence {
  const graph = new dagre.graphlib.Graph();
  graph.setGraph({ rankdir: 'LR', nodesep: 18, ranksep: 54, marginx: 8, marginy: 8 });
  graph.setDefaultEdgeLabel(() => ({}));
  const shown = drawnNodes(sequence);
  const ids = new Set(shown.map((n) => n.id));
  for (const n of shown) graph.setNode(n.id, { width: NODE_WIDTH, height: NODE_HEIGHT });
  const links = sequence.links.filter((l) => ids.has(l.from) && ids.has(l.to));
  for (const l of links) graph.setEdge(l.from, l.to);
  dagre.layout(graph);
  const nodes = shown.map((n): PlacedNode => {
    const { x, y } = graph.node(n.id);
    return { ...n, x: n.at?.x ?? x - NODE_WIDTH / 2, y: n.at?.y ?? y - NODE_HEIGHT / 2, width: NODE_WIDTH, height: NODE_HEIGHT };
  });
  const at = new Map(nodes.map((n) => [n.id, n]));
  return {
    nodes,
    links: links.map((l) => {
      const a = at.get(l.from)!;
      const b = at.get(l.to)!;
      return { ...l, points: [[a.x + a.width, a.y + a.height / 2] as const, [b.x, b.y + b.height / 2] as const] };
    }),
    width: Math.max(NODE_WIDTH, ...nodes.map((n) => n.x + n.width)) + 8,
    height: Math.max(NODE_HEIGHT, ...nodes.map((n) => n.y + n.height)) + 8,
  };
}
