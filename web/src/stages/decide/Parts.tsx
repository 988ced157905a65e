import { Button, Checkbox, Input, Select } from 'antd';
import { PART_NAMES } from '@true-ledger/core/engine';
import { school } from '@true-ledger/core/damage';
import { OPERATION_NAMES, OPERATIONS, type Operation, type StandingDisposition } from '@true-ledger/core/workshop';
import { machineSheet, machineSheetCsv, partsList, standingDispositions } from '@true-ledger/core/salvage';
import { useMemo, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useCase, useRecord } from '../../app/caseContext.js';
import type { Observation } from '../../app/outboxState.js';
import { saveBlob } from '../../app/saveBlob.js';
import { useTakeFile } from '../../app/takeFile.js';
import { ShelfParts } from './ShelfParts.js';
import './decide.css';

const confirm = (d: StandingDisposition, operation = d.operation, size = d.size, reason = d.reason): Observation => ({
  kind: 'disposition-set',
  station: d.station,
  body: { operation, size, reason },
});

/** Every place with what is proposed for it and why; the builder confirms or says otherwise. */
export function Parts(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const [all, setAll] = useState(false);
  const dispositions = useMemo(() => standingDispositions(view), [view]);
  const shown = dispositions.filter(
    (d) => all || d.confirmed || d.because.length > 0 || !['check', 'reuse', 'clean'].includes(d.operation),
  );
  const open = shown.filter((d) => !d.confirmed && d.operation !== 'check');
  const parts = [...new Set(shown.map((d) => view.byId.get(d.station)!.station.part))];
  return (
    <div className="decide-grid">
      <section className="pane" aria-label="Dispositions">
        <div className="row decide-head">
          <h2>What becomes of each part</h2>
          <Checkbox checked={all} onChange={(e) => setAll(e.target.checked)}>
            also those to check, clean or reuse
          </Checkbox>
          {!readOnly && open.length > 0 && (
            <Button onClick={() => record(...open.map((d) => confirm(d)))}>Confirm {open.length} proposed</Button>
          )}
        </div>
        {shown.length === 0 && (
          <p className="quiet">Nothing has been found that asks for work yet. A part nobody looked at stays “check”.</p>
        )}
        {parts.map((part) => (
          <table key={part} className="lines disposition-table">
            <caption>{PART_NAMES[part]}</caption>
            <tbody>
              {shown
                .filter((d) => view.byId.get(d.station)!.station.part === part)
                .map((d) => (
                  <Line key={d.station} d={d} />
                ))}
            </tbody>
          </table>
        ))}
      </section>
      <div className="stack">
        <MachineShop dispositions={dispositions} />
        <ToBuy dispositions={dispositions} />
        <ShelfParts />
      </div>
    </div>
  );
}

function Line({ d }: { d: StandingDisposition }): ReactNode {
  const { caseId, readOnly, view } = useCase();
  const record = useRecord();
  const [size, setSize] = useState<string | null>(null);
  const change = (operation: Operation): void => {
    const own = operation === d.proposed.operation;
    record(confirm(d, operation, own ? d.proposed.size : '', own ? d.proposed.reason : 'the builder’s own decision'));
  };
  const takeBack = (): void => {
    const held = view.dispositions.find((x) => x.station === d.station);
    if (held)
      record({ kind: 'retracted', station: d.station, body: { target: held.version.entry, slot: 'disposition', reason: 'taken back' } });
  };
  const theSchool = d.school ? school(d.school) : undefined;
  return (
    <tr className={d.confirmed ? 'confirmed' : ''}>
      <td>
        <Link to={`/case/${caseId}/station/${d.station}`}>{d.name}</Link>
      </td>
      <td>
        <Select<Operation>
          size="small"
          value={d.operation}
          disabled={readOnly}
          onChange={change}
          options={OPERATIONS.map((o) => ({ value: o, label: OPERATION_NAMES[o] }))}
          aria-label={`${d.name}: what becomes of it`}
          style={{ width: 168 }}
          showSearch={{ optionFilterProp: 'label' }}
        />
      </td>
      <td>
        <Input
          size="small"
          className="figure"
          value={size ?? d.size}
          readOnly={readOnly}
          placeholder="size"
          aria-label={`${d.name}: size`}
          maxLength={40}
          style={{ width: 88 }}
          onChange={(e) => setSize(e.target.value)}
          onBlur={() => {
            if (size !== null && size !== d.size) record(confirm(d, d.operation, size.trim()));
            setSize(null);
          }}
          onPressEnter={(e) => e.currentTarget.blur()}
        />
      </td>
      <td className="why">
        {d.reason}
        {d.because.length > 0 && (
          <span className="quiet"> because of {d.because.map((id) => view.byId.get(id)?.station.name.toLowerCase() ?? id).join(', ')}</span>
        )}
        {theSchool && <span className="quiet"> ({theSchool.question.toLowerCase()}: see policy)</span>}
        {d.confirmed && d.proposed.operation !== d.operation && (
          <span className="quiet"> proposed: {OPERATION_NAMES[d.proposed.operation].toLowerCase()}</span>
        )}
      </td>
      <td>
        {!readOnly &&
          (d.confirmed ? (
            <Button size="small" type="text" title={`Confirmed by ${d.by}`} onClick={takeBack}>
              confirmed ✓
            </Button>
          ) : (
            <Button size="small" onClick={() => record(confirm(d))}>
              Confirm
            </Button>
          ))}
      </td>
    </tr>
  );
}

function MachineShop({ dispositions }: { dispositions: readonly StandingDisposition[] }): ReactNode {
  const { view, caseId } = useCase();
  const { takeFile, busy } = useTakeFile(`/api/cases/${caseId}`);
  const sheet = machineSheet(view, dispositions);
  return (
    <section className="pane" aria-label="Machine shop">
      <div className="row decide-head">
        <h2>Machine shop</h2>
        {sheet.length > 0 && (
          <Button
            size="small"
            onClick={() => saveBlob(`${view.number}-machine-shop.csv`, new Blob([machineSheetCsv(sheet)], { type: 'text/csv' }))}
          >
            Take CSV
          </Button>
        )}
        <Button size="small" loading={busy !== null} onClick={() => void takeFile('machine-shop.pdf', 'The sheet')}>
          Take PDF
        </Button>
      </div>
      {sheet.length === 0 ? (
        <p className="quiet">Nothing goes to the machine shop.</p>
      ) : (
        <table className="lines">
          <thead>
            <tr>
              <th>Part</th>
              <th>Work</th>
              <th>Size to, mm</th>
              <th>Qty</th>
            </tr>
          </thead>
          <tbody>
            {sheet.map((l) => (
              <tr key={l.part + l.operation}>
                <td>{l.part}</td>
                <td>
                  {l.operation}
                  <div className="quiet">{[l.finish, l.limits].filter(Boolean).join('; ')}</div>
                </td>
                <td className="figure">{l.sizeMm ? `${l.sizeMm[0].toFixed(3)} to ${l.sizeMm[1].toFixed(3)}` : '–'}</td>
                <td className="figure">{l.quantity}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="quiet">Finish and limits as a good build aims at; the maker’s data stands before them.</p>
    </section>
  );
}

function ToBuy({ dispositions }: { dispositions: readonly StandingDisposition[] }): ReactNode {
  const { view } = useCase();
  const list = partsList(view.layout, dispositions);
  const price = new Map(view.prices.lines.map((l) => [l.key, l]));
  return (
    <section className="pane" aria-label="Parts to buy">
      <h2>Parts to buy</h2>
      {list.length === 0 && <p className="quiet">Nothing is replaced.</p>}
      <table className="lines">
        <tbody>
          {list.map((l) => (
            <tr key={l.key}>
              <td>
                {l.part} <span className="quiet">{l.size}</span>
              </td>
              <td className="figure">× {l.quantity}</td>
              <td className="figure">
                {price.has(l.key) ? `${(price.get(l.key)!.price.likely * l.quantity).toFixed(0)} ${view.prices.currency}` : 'no price'}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
