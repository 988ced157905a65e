import { Alert, Button, Input } from 'antd';
import { Background, Controls, MarkerType, ReactFlow, ReactFlowProvider, useReactFlow, type Connection, type Edge } from '@xyflow/react';
import '@xyflow/react/dist/style.css';
import type { LinkState } from '@true-ledger/core/entries';
import { placeSequence, proposeSequence } from '@true-ledger/core/diagnosis';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { useDraft } from '../../app/drafts.js';
import { Link } from 'react-router';
import { useCase, useRecord } from '../../app/caseContext.js';
import { Waiting } from '../../app/Waiting.js';
import { CauseTabs } from './CauseTabs.js';
import { COLOUR } from '../../app/tokens.js';
import './cause.css';
import { type EventNode, NODE_TYPES } from './EventBox.js';
import { idOf, nameOf, LinkLine, DrawLink, LinkQuestion } from './SequenceLinks.js';

/** The order of events: proposed, and edited by hand. */
export function SequencePage(): ReactNode {
  return (
    <ReactFlowProvider>
      <Sequence />
    </ReactFlowProvider>
  );
}

function Sequence(): ReactNode {
  const { view, diagnosis, readOnly, caseId, lastKnown } = useCase();
  const record = useRecord();
  const flow = useReactFlow();
  const [asking, setAsking] = useState<{ from: string; to: string; state: LinkState } | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [event, setEvent] = useDraft('Event');
  /** Where a node is while it is dragged, and until the ledger says so. */
  const [held, setHeld] = useState<{ id: string; x: number; y: number } | null>(null);
  const sequence = useMemo(() => (diagnosis ? proposeSequence(view, diagnosis) : null), [view, diagnosis]);
  const placed = useMemo(() => (sequence ? placeSequence(sequence) : null), [sequence]);
  const shape = placed?.nodes.map((n) => n.id).join('|') ?? '';
  useEffect(() => setHeld(null), [placed]);
  useEffect(() => {
    // A new set of events is brought into sight; one that was only moved stays where it is.
    const timer = setTimeout(() => void flow.fitView({ padding: 0.06, maxZoom: 1 }), 50);
    return () => clearTimeout(timer);
  }, [flow, shape]);
  if (!sequence || !placed) return <Waiting what="Putting events in order" />;
  const wrong = new Set(sequence.contradictions.map((c) => c.on));
  const nodes = placed.nodes.map((n): EventNode => ({
    id: n.id,
    type: 'event',
    position: held?.id === n.id ? { x: held.x, y: held.y } : { x: n.x, y: n.y },
    data: { node: n, wrong: wrong.has(n.id) },
    ariaLabel: `${n.name}${n.where ? `, ${n.where}` : ''}`,
    draggable: !readOnly,
  }));
  const edges = placed.links.map((l): Edge => ({
    id: idOf(l),
    source: l.from,
    target: l.to,
    markerEnd: {
      type: MarkerType.ArrowClosed,
      color: wrong.has(idOf(l)) ? COLOUR.fault : l.source === 'builder' ? COLOUR.accent : COLOUR.pencil,
    },
    style: {
      stroke: wrong.has(idOf(l)) ? COLOUR.fault : l.source === 'builder' ? COLOUR.accent : COLOUR.pencil,
      strokeWidth: chosen === idOf(l) ? 3 : 1.6,
      strokeDasharray: l.doubtful ? '2 4' : undefined,
    },
    ariaLabel: `${nameOf(placed.nodes, l.from)} leads to ${nameOf(placed.nodes, l.to)}${l.doubtful ? ', in doubt' : ''}`,
  }));
  const link = placed.links.find((l) => idOf(l) === chosen);
  const rejected = view.sequenceLinks.filter((l) => l.value.state === 'rejected');
  return (
    <div className={lastKnown ? 'page cause last-known' : 'page cause'}>
      <CauseTabs>
        <span className="figure">
          {sequence.explained} of {sequence.of}
        </span>{' '}
        findings of grade 2 or more follow from an origin
      </CauseTabs>
      <div className="sequence-grid">
        <div className="pane sequence-drawing" aria-label="Order of events">
          {placed.nodes.length === 0 ? (
            <p className="quiet">
              Nothing to put in order yet. Name the patterns at their stations; <Link to={`/case/${caseId}/bench`}>go to the bench</Link>.
            </p>
          ) : (
            <ReactFlow
              nodes={nodes}
              edges={edges}
              nodeTypes={NODE_TYPES}
              nodesConnectable={!readOnly}
              edgesFocusable
              onConnect={(c: Connection) => c.source !== c.target && setAsking({ from: c.source, to: c.target, state: 'drawn' })}
              onEdgeClick={(_, e) => setChosen(e.id)}
              onPaneClick={() => setChosen(null)}
              onNodeDrag={(_, n) => setHeld({ id: n.id, ...n.position })}
              onNodeDragStop={(_, n) =>
                record({
                  kind: 'sequence-place',
                  station: null,
                  body: { node: n.id, x: Math.round(n.position.x), y: Math.round(n.position.y) },
                })
              }
              minZoom={0.3}
              maxZoom={1.6}
              deleteKeyCode={null}
              proOptions={{ hideAttribution: true }}
            >
              <Background gap={24} color={COLOUR.head} />
              <Controls showInteractive={false} />
            </ReactFlow>
          )}
        </div>
        <div className="sequence-panels">
          <section className="pane" aria-label="Links">
            <h2>Links</h2>
            <ul className="link-list">
              {placed.links.map((l) => (
                <LinkLine key={idOf(l)} link={l} nodes={placed.nodes} here={idOf(l) === chosen} onPick={() => setChosen(idOf(l))} />
              ))}
            </ul>
            {placed.links.length === 0 && <p className="quiet">No link follows from what was found.</p>}
            {link && !readOnly && (
              <div className="row link-acts">
                <Button size="small" onClick={() => setAsking({ from: link.from, to: link.to, state: 'rejected' })}>
                  Reject link
                </Button>
                <Button
                  size="small"
                  onClick={() =>
                    link.doubtful
                      ? setAsking({ from: link.from, to: link.to, state: 'drawn' })
                      : setAsking({ from: link.from, to: link.to, state: 'doubtful' })
                  }
                >
                  {link.doubtful ? 'Hold it for certain' : 'Put in doubt'}
                </Button>
              </div>
            )}
          </section>
          {sequence.contradictions.length > 0 && (
            <section className="pane" aria-label="Contradictions">
              <h2>
                Against this order <span className="figure">{sequence.contradictions.length}</span>
              </h2>
              {sequence.contradictions.map((c) => (
                <Alert key={c.on + c.words} type="warning" title={c.words} />
              ))}
            </section>
          )}
          {rejected.length > 0 && (
            <section className="pane" aria-label="Rejected links">
              <h2>Rejected</h2>
              <ul className="link-list">
                {rejected.map(({ value: l, version }) => (
                  <li key={idOf(l)}>
                    {nameOf(sequence.nodes, l.from)} → {nameOf(sequence.nodes, l.to)}: <span className="quiet">{l.reason}</span>{' '}
                    {!readOnly && (
                      <Button
                        size="small"
                        type="text"
                        onClick={() =>
                          record({
                            kind: 'retracted',
                            station: null,
                            body: { target: version.entry, slot: `link:${idOf(l)}`, reason: 'taken back' },
                          })
                        }
                      >
                        Take back
                      </Button>
                    )}
                  </li>
                ))}
              </ul>
            </section>
          )}
          {!readOnly && (
            <section className="pane" aria-label="Add to the order">
              <h2>Add</h2>
              <DrawLink nodes={placed.nodes} all={sequence.nodes} onDraw={(from, to) => setAsking({ from, to, state: 'drawn' })} />
              <div className="row">
                <Input
                  value={event}
                  onChange={(e) => setEvent(e.target.value)}
                  placeholder="An event of your own"
                  aria-label="An event of your own"
                  maxLength={200}
                  onPressEnter={() => addEvent()}
                />
                <Button disabled={event.trim() === ''} onClick={() => addEvent()}>
                  Add event
                </Button>
              </div>
            </section>
          )}
        </div>
      </div>
      <LinkQuestion
        asking={asking}
        words={asking ? `${nameOf(sequence.nodes, asking.from)} → ${nameOf(sequence.nodes, asking.to)}` : ''}
        onCancel={() => setAsking(null)}
        onGive={(state, reason) => {
          if (asking) record({ kind: 'sequence-link', station: null, body: { from: asking.from, to: asking.to, state, reason } });
          setAsking(null);
          setChosen(null);
        }}
      />
    </div>
  );

  function addEvent(): void {
    if (event.trim() === '') return;
    record({ kind: 'sequence-event', station: null, body: { event: crypto.randomUUID(), text: event.trim() } });
    setEvent('');
  }
}
