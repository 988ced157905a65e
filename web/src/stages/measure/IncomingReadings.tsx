import { Alert } from 'antd';
import { Dialog } from '../../app/Dialog.js';
import { cellText } from '@true-ledger/core/measure';
import { standingOf, type Incoming, type IncomingReading } from '@true-ledger/core/measured';
import type { ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import './measure.css';

const MOST_SHOWN = 200;

/** What a file or a paste would bring, told before it is taken: new, changed, the same, not understood. */
export function IncomingReadings({ from, read, onDone }: { from: string; read: Incoming; onDone: () => void }): ReactNode {
  const { view } = useCase();
  const record = useRecord();
  const rows = read.readings.map((r) => ({ r, standing: standingOf(view, r) }));
  const taking = rows.filter((x) => x.standing !== 'same').map((x) => x.r);
  const count = (s: string): number => rows.filter((x) => x.standing === s).length;
  const take = (): void => {
    record(
      ...taking.map((r: IncomingReading) => ({
        kind: 'reading-taken' as const,
        station: r.place.station,
        body: {
          sheet: r.place.sheet,
          cell: r.cell.key,
          take: r.take,
          text: r.text,
          unit: r.unit,
          value: r.value,
          gauge: r.gauge,
          insisted: r.insisted,
          ...(r.simulated ? { simulated: true } : {}),
        },
      })),
    );
    onDone();
  };
  return (
    <Dialog
      open
      width={720}
      title={`Readings from ${from}`}
      okText={`Take ${taking.length} reading${taking.length === 1 ? '' : 's'}`}
      cancelText="Take none"
      okButtonProps={{ disabled: taking.length === 0 }}
      onOk={take}
      onCancel={onDone}
    >
      <p>
        {count('new')} new, {count('changed')} that replace what stands (the old ones stay in the ledger), {count('same')} already there as
        they are.
      </p>
      {read.faults.length > 0 && (
        <Alert type="error" title={`${read.faults.length} not understood; these are left out`} description={<List items={read.faults} />} />
      )}
      {read.questions.length > 0 && (
        <Alert type="warning" title="Look at these before you take them" description={<List items={read.questions} />} />
      )}
      <div className="incoming">
        <table className="lines">
          <tbody>
            {rows.slice(0, MOST_SHOWN).map(({ r, standing }) => (
              <tr key={`${r.place.id} ${r.cell.key} ${r.take}`} className={standing === 'same' ? 'quiet' : ''}>
                <td>{r.place.short}</td>
                <td>
                  {r.cell.name}
                  {r.take > 1 && `, take ${r.take}`}
                </td>
                <td className="figure">{r.value === null ? 'not read' : cellText(r.cell, r.value, r.unit)}</td>
                <td>{r.gauge.name}</td>
                <td>{standing}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {rows.length > MOST_SHOWN && <p className="quiet">and {rows.length - MOST_SHOWN} more.</p>}
      </div>
    </Dialog>
  );
}

function List({ items }: { items: readonly string[] }): ReactNode {
  return (
    <ul>
      {items.slice(0, 12).map((t) => (
        <li key={t}>{t}</li>
      ))}
      {items.length > 12 && <li>and {items.length - 12} more</li>}
    </ul>
  );
}
