import { Alert, Button, Input } from 'antd';
import { checkDoubt, parseLength, type Gauge } from '@true-ledger/core/units';
import { useState, type ReactNode } from 'react';
import { useCheckGaugeMutation, useGaugeChecksQuery } from '../app/api.js';
import { asProblem } from '../app/server.js';
import './gauges.css';

/** Checks against a master, the newest first; a new one dates the record. */
export function Checks({ gauge, mayWrite }: { gauge: Gauge; mayWrite: boolean }): ReactNode {
  const { data: checks = [] } = useGaugeChecksQuery(gauge.id);
  const [check, { isLoading }] = useCheckGaugeMutation();
  const [draft, setDraft] = useState({ master: gauge.masterMm === undefined ? '' : String(gauge.masterMm), read: '', note: '' });
  const [problem, setProblem] = useState<string | null>(null);
  const [today] = useState(() => new Date().toISOString());
  const overdue = checkDoubt(gauge, today);
  const keep = (): void => {
    const [master, read] = [draft.master, draft.read].map((t) => parseLength(t.trim(), { unit: 'mm' }));
    if (!master?.ok || master.value.kind !== 'value' || master.value.mm <= 0)
      return setProblem(`"${draft.master.slice(0, 20)}" is not the size of a master. Nothing was kept.`);
    if (!read?.ok || read.value.kind !== 'value')
      return setProblem(`"${draft.read.slice(0, 20)}" is not a figure the gauge can have shown. Nothing was kept.`);
    void check({ id: crypto.randomUUID(), gaugeId: gauge.id, masterMm: master.value.mm, readMm: read.value.mm, note: draft.note.trim() })
      .unwrap()
      .then(() => {
        setDraft({ ...draft, read: '', note: '' });
        setProblem(null);
      })
      .catch((e: unknown) => setProblem(asProblem(e).sentence));
  };
  return (
    <section className="pane" aria-label="Checks">
      <h2>
        Checks against a master{' '}
        <span className="quiet">{gauge.checkedOn ? `last on ${gauge.checkedOn.slice(0, 10)}` : 'none is on record'}</span>
      </h2>
      {overdue && <Alert type="warning" title={overdue} />}
      {mayWrite && (
        <div className="check-line">
          <Input
            className="figure"
            value={draft.master}
            placeholder="master"
            aria-label="Size of the master"
            onChange={(e) => setDraft({ ...draft, master: e.target.value })}
          />
          <Input
            className="figure"
            value={draft.read}
            placeholder="it reads"
            aria-label="What the gauge reads on it"
            onChange={(e) => setDraft({ ...draft, read: e.target.value })}
            onPressEnter={keep}
          />
          <Input
            value={draft.note}
            placeholder="note"
            maxLength={500}
            aria-label="Note"
            onChange={(e) => setDraft({ ...draft, note: e.target.value })}
          />
          <Button loading={isLoading} disabled={draft.read.trim() === ''} onClick={keep}>
            Keep the check
          </Button>
        </div>
      )}
      {problem && <Alert type="error" role="alert" title={problem} />}
      <table className="lines">
        <tbody>
          {checks.map((c) => {
            const off = c.readMm - c.masterMm;
            const good = Math.abs(off) <= gauge.expandedUncertaintyMm + gauge.resolutionMm;
            return (
              <tr key={c.id}>
                <td className="figure">{c.time.slice(0, 10)}</td>
                <td className="figure">
                  {c.readMm.toFixed(3)} on {c.masterMm.toFixed(3)}
                </td>
                <td className="figure">
                  {off >= 0 ? '+' : '−'}
                  {Math.abs(off).toFixed(4)}
                </td>
                <td>{good ? 'inside its U' : <b className="verdict-word outside">more than its U: set it before it is used</b>}</td>
                <td>{c.note}</td>
                <td className="quiet">{c.by}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
