import type { Diagnosis } from '../../diagnosis/diagnose.js';
import { sequenceShapes } from '../../diagnosis/sequence/drawing.js';
import { placeSequence } from '../../diagnosis/sequence/layout.js';
import { proposeSequence } from '../../diagnosis/sequence/propose.js';
import type { CaseView } from '../../case/views.js';
import type { ReportBlock, ReportSection } from '../blocks.js';

/** The order of events as a drawing and in words, with what stands against it. */
export function sequence(view: CaseView, d: Diagnosis): ReportSection {
  const events = proposeSequence(view, d);
  const name = new Map(events.nodes.map((n) => [n.id, n.where ? `${n.name} (${n.where})` : n.name]));
  const blocks: ReportBlock[] = [];
  if (events.links.length === 0)
    blocks.push({ kind: 'text', key: 'sequence.none', text: 'No order of events follows from what was found.' });
  else {
    const placed = placeSequence(events);
    blocks.push({
      kind: 'drawing',
      shapes: sequenceShapes(placed, new Set(events.contradictions.map((c) => c.on))),
      width: placed.width,
      height: placed.height,
      caption: `Order of events, origins at the left; dotted where in doubt. ${events.explained} of ${events.of} findings of grade 2 or more follow from an origin.`,
    });
    blocks.push({
      kind: 'list',
      items: events.links.map(
        (l) =>
          `${name.get(l.from)} → ${name.get(l.to)}${l.doubtful ? ' (in doubt)' : ''}${l.source === 'builder' ? `; drawn by the builder${l.why ? `: ${l.why}` : ''}` : ''}`,
      ),
    });
  }
  if (events.contradictions.length > 0)
    blocks.push(
      { kind: 'text', text: 'Against this order', strong: true },
      { kind: 'list', items: events.contradictions.map((c) => c.words) },
    );
  if (events.rejected.length > 0)
    blocks.push(
      { kind: 'text', text: 'Links considered and rejected', strong: true },
      { kind: 'list', items: events.rejected.map((r) => `${name.get(r.from) ?? r.from} → ${name.get(r.to) ?? r.to}: ${r.reason}`) },
    );
  return { id: 'sequence', heading: 'Order of events', blocks };
}
