import { Button, Segmented, Select } from 'antd';
import { Dialog } from '../../app/Dialog.js';
import '@xyflow/react/dist/style.css';
import type { LinkState } from '@true-ledger/core/entries';
import type { PlacedNode, SequenceLink } from '@true-ledger/core/diagnosis';
import { useEffect, useState, type ReactNode } from 'react';
import { ReasonField } from '../../fields/ReasonField.js';
import { useDraft } from '../../app/drafts.js';
import './cause.css';

export const idOf = (l: { from: string; to: string }): string => `${l.from}>${l.to}`;

interface Named {
  readonly id: string;
  readonly name: string;
  readonly where: string;
}

export function nameOf(nodes: readonly Named[], id: string): string {
  const n = nodes.find((x) => x.id === id);
  return n ? (n.where ? `${n.name} (${n.where})` : n.name) : id;
}

export function LinkLine({
  link,
  nodes,
  here,
  onPick,
}: {
  link: SequenceLink;
  nodes: readonly PlacedNode[];
  here: boolean;
  onPick: () => void;
}): ReactNode {
  return (
    <li>
      <button type="button" className={here ? 'here' : ''} aria-pressed={here} onClick={onPick}>
        {nameOf(nodes, link.from)} → {nameOf(nodes, link.to)}
        <span className="quiet">
          {' '}
          {link.source === 'builder' ? 'drawn by hand' : ''}
          {link.doubtful ? ' in doubt' : ''} {link.why}
        </span>
      </button>
    </li>
  );
}

export function DrawLink({
  nodes,
  all,
  onDraw,
}: {
  nodes: readonly PlacedNode[];
  all: readonly Named[];
  onDraw: (from: string, to: string) => void;
}): ReactNode {
  const [from, setFrom] = useState<string | null>(null);
  const [to, setTo] = useState<string | null>(null);
  const options = (all.length > 0 ? all : nodes).map((n) => ({ value: n.id, label: nameOf(all, n.id) }));
  return (
    <div className="draw-link">
      <Select
        value={from}
        onChange={setFrom}
        options={options}
        placeholder="From"
        aria-label="Link from"
        showSearch={{ optionFilterProp: 'label' }}
      />
      <Select
        value={to}
        onChange={setTo}
        options={options.filter((o) => o.value !== from && !o.value.startsWith('cause:'))}
        placeholder="To"
        aria-label="Link to"
        showSearch={{ optionFilterProp: 'label' }}
      />
      <Button disabled={!from || !to} onClick={() => from && to && onDraw(from, to)}>
        Draw link
      </Button>
    </div>
  );
}

export function LinkQuestion({
  asking,
  words,
  onCancel,
  onGive,
}: {
  asking: { state: LinkState } | null;
  words: string;
  onCancel: () => void;
  onGive: (state: LinkState, reason: string) => void;
}): ReactNode {
  const [reason, setReason] = useDraft('Reason');
  const [sure, setSure] = useState<LinkState>('drawn');
  useEffect(() => {
    setReason('');
    setSure(asking?.state ?? 'drawn');
  }, [asking]);
  const rejecting = asking?.state === 'rejected';
  return (
    <Dialog
      open={asking !== null}
      title={rejecting ? 'Reject link' : 'Draw link'}
      okText={rejecting ? 'Reject link' : 'Draw link'}
      okButtonProps={{ disabled: reason.trim() === '' }}
      onCancel={onCancel}
      onOk={() => onGive(rejecting ? 'rejected' : sure, reason.trim())}
    >
      <p>{words}</p>
      {!rejecting && (
        <Segmented<LinkState>
          options={[
            { value: 'drawn', label: 'Held for certain' },
            { value: 'doubtful', label: 'In doubt' },
          ]}
          value={sure}
          onChange={setSure}
          aria-label="How sure"
        />
      )}
      <ReasonField value={reason} onChange={setReason} most={1000} />
    </Dialog>
  );
}
