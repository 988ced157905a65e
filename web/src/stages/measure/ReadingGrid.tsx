import { Alert, Button, Segmented, Select, Upload } from 'antd';
import { cellUnits, doubtCell, PLACE_GROUPS, readCell, roundsOf, worstWord, type Cell, type PlaceOutcome } from '@true-ledger/core/measure';
import {
  elsewhereOf,
  measurePlace,
  placeReadings,
  readingsCsv,
  readPaste,
  readReadingsCsv,
  type Incoming,
} from '@true-ledger/core/measured';
import { DEFAULT_GAUGE } from '@true-ledger/core/bundle';
import { useCallback, useMemo, useRef, useState, type ClipboardEvent, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useGaugesQuery } from '../../app/api.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import { saveBlob } from '../../app/saveBlob.js';
import { gaugesFor } from './entryChoices.js';
import { IncomingReadings } from './IncomingReadings.js';
import './entry.css';
import './measure.css';
import { type Spot, columnsOf, type Refusal } from './gridRows.js';
import { ROW_PX, GridRow } from './GridRow.js';

/** Height of a table that is not drawn because it is out of sight. */
const HEAD_PX = 61;

type Show = 'all' | 'begun' | 'judged';

/** Every reading of the case in one grid: typed, pasted, brought in and taken out. */
export function ReadingGrid(): ReactNode {
  const { view, caseId, readOnly } = useCase();
  const record = useRecord();
  const { data: gauges = [] } = useGaugesQuery();
  const [gaugeId, setGaugeId] = useState<string | null>(null);
  const [show, setShow] = useState<Show>('all');
  const [at, setAt] = useState<Spot | null>(null);
  const [incoming, setIncoming] = useState<{ readonly from: string; readonly read: Incoming } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const rounds = roundsOf(view.layout);
  const chosen = gauges.find((g) => g.id === gaugeId) ?? null;
  const gaugeFor = (cell: Cell): typeof DEFAULT_GAUGE => chosen ?? gaugesFor(cell, gauges)[0] ?? DEFAULT_GAUGE;

  const standing = useMemo(
    () => rounds.map((round) => ({ round, columns: columnsOf(round), outcomes: round.places.map((p) => measurePlace(view, p)) })),
    [rounds, view],
  );
  const all = standing.flatMap((s) => s.outcomes);
  const words = all.map((o) => worstWord(o.outcome));
  const count = (word: string): number => words.filter((w) => w === word).length;

  const move = useCallback(
    (spot: Spot, down: number, right: number): void => {
      const found = standing.find((s) => s.round.places.includes(spot.place));
      if (!found) return;
      const places = found.round.places;
      const row = Math.min(places.length - 1, Math.max(0, places.indexOf(spot.place) + down));
      const keys = found.columns.map((c) => c.key);
      const column = Math.min(keys.length - 1, Math.max(0, keys.indexOf(spot.key) + right));
      setAt({ place: places[row]!, key: keys[column]! });
    },
    [standing],
  );
  const take = useCallback(
    (spot: Spot, text: string, insisted: boolean): Refusal | null => {
      const cell = spot.place.cells.find((c) => c.key === spot.key);
      if (!cell) return { words: 'This place has no such reading.', held: false };
      const gauge = chosen ?? gaugesFor(cell, gauges)[0] ?? DEFAULT_GAUGE;
      const read = readCell(cell, text, cellUnits(cell)[0]!, gauge);
      if (!read.ok) return { words: read.problem.sentence, held: false };
      const { value } = read.value;
      const near = placeReadings(view, spot.place).flatMap((r) =>
        r.value.cell !== cell.key && spot.place.cells.find((c) => c.key === r.value.cell)?.role === cell.role ? (r.value.value ?? []) : [],
      );
      const doubt = value === null || insisted ? null : doubtCell(cell, value, near, elsewhereOf(view, spot.place, cell.key));
      if (doubt) return { words: `${doubt} Not taken yet: Enter once more takes it as it is.`, held: true };
      record({
        kind: 'reading-taken',
        station: spot.place.station,
        body: { sheet: spot.place.sheet, cell: cell.key, take: 1, text: text.trim(), gauge, insisted, ...read.value },
      });
      return null;
    },
    [chosen, gauges, record, view],
  );
  const paste = (e: ClipboardEvent): void => {
    const text = e.clipboardData.getData('text/plain');
    if (!at || readOnly || (!text.includes('\t') && !text.trim().includes('\n'))) return;
    e.preventDefault();
    const found = standing.find((s) => s.round.places.includes(at.place))!;
    const columns = found.columns.map((c) => c.key);
    const corner = { row: found.round.places.indexOf(at.place), column: columns.indexOf(at.key) };
    const cell = at.place.cells.find((c) => c.key === at.key)!;
    setIncoming({
      from: 'the clipboard',
      read: readPaste(text, { rows: found.round.places, columns }, corner, gaugeFor(cell), (c) => cellUnits(c)[0]!),
    });
  };
  const bring = async (file: File): Promise<void> => {
    setProblem(null);
    if (file.size > 8_000_000) return setProblem('The file is larger than 8 MB: no file of readings is. Nothing was taken.');
    const read = readReadingsCsv(await file.text(), view.layout, chosen ?? gauges[0] ?? DEFAULT_GAUGE);
    if (read.ok) setIncoming({ from: file.name, read: read.value });
    else setProblem(read.problem.sentence);
  };
  return (
    <div className="page measure whole" ref={box} onPaste={paste}>
      <div className="page-head">
        <h1>Whole engine</h1>
        <Link to={`/case/${caseId}/measure`}>One sheet at a time</Link>
        <span className="quiet">
          {all.reduce((n, o) => n + o.read, 0)} of {all.reduce((n, o) => n + o.wanted, 0)} readings; {count('outside')} sheets outside,{' '}
          {count('too close to call')} too close to call, {count('within')} within
        </span>
        <Segmented<Show>
          size="small"
          value={show}
          onChange={setShow}
          options={[
            { value: 'all', label: 'All places' },
            { value: 'begun', label: 'Begun, something missing' },
            { value: 'judged', label: 'Outside or too close' },
          ]}
          aria-label="Which places"
        />
        <span className="row push">
          {!readOnly && (
            <Select<string | null>
              size="small"
              value={gaugeId}
              onChange={setGaugeId}
              aria-label="Gauge for what is typed and brought in"
              options={[{ value: null, label: 'usual gauges' }, ...gauges.map((g) => ({ value: g.id, label: g.name }))]}
              style={{ width: 190 }}
            />
          )}
          <Button size="small" onClick={() => saveBlob(`${view.number} readings.csv`, new Blob([readingsCsv(view)], { type: 'text/csv' }))}>
            Save CSV
          </Button>
          {!readOnly && (
            <Upload
              accept=".csv,.txt,.tsv,text/csv"
              showUploadList={false}
              beforeUpload={(file) => {
                void bring(file);
                return false;
              }}
            >
              <Button size="small">Bring in CSV</Button>
            </Upload>
          )}
        </span>
      </div>
      {problem && <Alert type="error" role="alert" title={problem} closable={{ onClose: () => setProblem(null) }} />}
      <p className="quiet">
        Arrows move, a figure and Enter fill a cell, a block copied from a spreadsheet is pasted from the chosen cell on. Repeats are taken
        on the single sheets.
      </p>
      {standing.map(({ round, columns, outcomes }) => {
        const shown = round.places.flatMap((place, i) => (fits(outcomes[i]!, show) ? [{ place, outcome: outcomes[i]! }] : []));
        return shown.length === 0 ? null : (
          <section
            key={round.id}
            className="pane grid-round"
            aria-label={`${PLACE_GROUPS[round.group]}, ${round.name}`}
            style={{ containIntrinsicHeight: `auto ${HEAD_PX + ROW_PX * shown.length}px` }}
          >
            <h2>
              {PLACE_GROUPS[round.group]}: {round.name}
            </h2>
            <div className="grid-scroll">
              <table className="reading-whole">
                <thead>
                  <tr>
                    <th>Place</th>
                    {columns.map((c) => (
                      <th key={c.key} title={c.name}>
                        {c.column === c.row || c.row === '' ? c.column : `${c.column} ${c.row}`}
                      </th>
                    ))}
                    <th>Verdict</th>
                  </tr>
                </thead>
                <tbody>
                  {shown.map(({ place, outcome }) => (
                    <GridRow
                      key={place.id}
                      caseId={caseId}
                      place={place}
                      columns={columns}
                      outcome={outcome}
                      readings={placeReadings(view, place)}
                      active={at?.place === place ? at.key : null}
                      readOnly={readOnly}
                      onAt={setAt}
                      onMove={move}
                      onTake={take}
                      onLost={setProblem}
                    />
                  ))}
                </tbody>
              </table>
            </div>
          </section>
        );
      })}
      {show !== 'all' && all.every((o) => !fits(o, show)) && <p className="quiet">No place is of that kind just now.</p>}
      {incoming && <IncomingReadings {...incoming} onDone={() => setIncoming(null)} />}
    </div>
  );
}

function fits(o: PlaceOutcome, show: Show): boolean {
  if (show === 'all') return true;
  if (show === 'begun') return o.own > 0 && o.read < o.wanted;
  return ['outside', 'too close to call'].includes(worstWord(o.outcome));
}
