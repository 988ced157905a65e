import { Handle, Position, type Node, type NodeProps } from '@xyflow/react';
import '@xyflow/react/dist/style.css';
import { GRADE_INFO } from '@true-ledger/core/damage';
import type { PlacedNode } from '@true-ledger/core/diagnosis';
import { memo, type ReactNode } from 'react';
import './cause.css';

export type EventNode = Node<{ node: PlacedNode; wrong: boolean }, 'event'>;

const EventBox = memo(function EventBox({ data: { node, wrong } }: NodeProps<EventNode>): ReactNode {
  return (
    <div className={`event-box ${node.kind}${wrong ? ' wrong' : ''}`} style={{ width: node.width, minHeight: node.height }}>
      {node.kind !== 'origin' && <Handle type="target" position={Position.Left} />}
      {node.grade !== null && <i style={{ background: GRADE_INFO[node.grade as 0].colour }} aria-hidden="true" />}
      <b>{node.name}</b>
      <span className="quiet">
        {node.where}
        {node.grade !== null ? `${node.where ? ', ' : ''}grade ${node.grade}` : ''}
      </span>
      <Handle type="source" position={Position.Right} />
    </div>
  );
});

export const NODE_TYPES = { event: EventBox };
