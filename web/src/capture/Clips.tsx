import { Button } from 'antd';
import type { Sourced } from '@true-ledger/core/ledger';
import type { EntryBodies } from '@true-ledger/core/entries';
import type { ReactNode } from 'react';
import { useCase, useRecord } from '../app/caseContext.js';
import './capture.css';

/** Voice notes and films of a place, played where they belong. */
export function Clips({
  clips,
  station,
  onRead,
}: {
  readonly clips: ReadonlyArray<Sourced<EntryBodies['clip-added']>>;
  readonly station: string | null;
  /** Reads the surface of the part from a film of it; absent where that is not done. */
  readonly onRead?: (sha256: string) => void;
}): ReactNode {
  const { caseId, readOnly } = useCase();
  const record = useRecord();
  if (clips.length === 0) return null;
  return (
    <ul className="clips">
      {clips.map(({ value: c, version }) => {
        const src = `/api/cases/${caseId}/clips/${c.sha256}`;
        const label = `${c.name}, ${version.author.name}`;
        return (
          <li key={c.sha256}>
            {c.mime.startsWith('audio/') ? (
              <audio controls preload="none" src={src} aria-label={label} />
            ) : (
              <video controls preload="none" src={src} aria-label={label} playsInline />
            )}
            <span className="quiet">
              {c.name}
              {c.seconds === null ? '' : `, ${c.seconds.toFixed(0)} s`} · {version.author.name}
            </span>
            {onRead && c.mime.startsWith('video/') && (
              <Button size="small" onClick={() => onRead(c.sha256)}>
                Read the film
              </Button>
            )}
            {!readOnly && (
              <Button
                size="small"
                type="text"
                onClick={() =>
                  record({ kind: 'retracted', station, body: { target: version.entry, slot: `clip:${c.sha256}`, reason: 'taken away' } })
                }
              >
                Take it away
              </Button>
            )}
          </li>
        );
      })}
    </ul>
  );
}
