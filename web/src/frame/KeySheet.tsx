import { Dialog } from '../app/Dialog.js';
import type { ReactNode } from 'react';
import { keysNow } from '../app/keys.js';
import './frame.css';

const SHOWN: Readonly<Record<string, string>> = {
  ' ': 'Space',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  Escape: 'Esc',
};

export function KeySheet({ open, onClose }: { open: boolean; onClose: () => void }): ReactNode {
  return (
    <Dialog open={open} onCancel={onClose} footer={null} title="Keys on this screen">
      <dl className="key-sheet">
        {open &&
          keysNow().map((k) => (
            <div key={k.keys}>
              <dt>{SHOWN[k.keys] ?? [...k.keys].map((c) => c).join(' ')}</dt>
              <dd>{k.what}</dd>
            </div>
          ))}
      </dl>
    </Dialog>
  );
}
