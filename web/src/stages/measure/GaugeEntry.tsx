import { Alert, Button, Input, Segmented, Select, Switch } from 'antd';
import { checkDoubt } from '@true-ledger/core/units';
import { cellUnits, roundOf, type SheetPlace } from '@true-ledger/core/measure';
import { useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { useCase } from '../../app/caseContext.js';
import { WIRE_WORDS } from '../../gauges/wire.js';
import { offeredUnits, type EntryChoices } from './entryChoices.js';
import { PlaceDrawing } from './drawings.js';
import { ReadingTable } from './ReadingTable.js';
import { SpecPanel } from './SpecPanel.js';
import type { Entry } from './useEntry.js';
import './entry.css';
import './measure.css';

/** One figure at a time: where, how large, what the gauge says. */
export function GaugeEntry({
  place,
  entry,
  choices,
  onChoose,
  onTurn,
}: {
  place: SheetPlace;
  entry: Entry;
  choices: EntryChoices;
  onChoose: (part: Partial<EntryChoices>) => void;
  onTurn: (way: 'on' | 'back') => boolean;
}): ReactNode {
  const { view, readOnly } = useCase();
  const input = useRef<{ focus: () => void; select: () => void }>(null);
  const { spot, notice, wire, gauge } = entry;
  const { cell } = spot;
  useEffect(() => input.current?.focus(), [entry.at, place]);
  const heldBack = notice?.kind === 'held';
  // Typed again, it takes the place of what was held back.
  useEffect(() => {
    if (heldBack) input.current?.select();
  }, [heldBack, notice]);
  const [today] = useState(() => new Date().toISOString());
  const overdue = checkDoubt(gauge, today);
  const { places } = roundOf(view.layout, place);
  const repeated = choices.repeats > 1 || spot.take > 1;
  const onKey = (e: KeyboardEvent): void => {
    if (e.key === 'Enter' && e.shiftKey) onTurn('on');
    else if (e.key === 'Enter') entry.enter();
    else if (e.key === 'Escape' && entry.text !== '') entry.type('');
    else if ((e.key === 'Backspace' || e.key === 'ArrowUp') && entry.text === '') entry.go(entry.at - 1);
    else if (e.key === 'ArrowDown' && entry.text === '') entry.go(entry.at + 1);
    else return;
    e.preventDefault();
  };
  return (
    <section className="pane entry" aria-label="Gauge entry">
      <div className="entry-head">
        <div>
          <h2>
            {place.name}: {cell.name}
            {repeated && `, take ${spot.take}`}
          </h2>
          <span className="quiet">
            reading {entry.at + 1} of {entry.spots.length}
            {places.length > 1 && `, place ${places.indexOf(place) + 1} of ${places.length}`}
          </span>
        </div>
        {entry.last && (
          <div className="readout-box" aria-live="polite">
            <span className="readout figure">{entry.last.text}</span>
            <span className="quiet">{entry.last.where}</span>
          </div>
        )}
      </div>
      <div className="entry-body">
        <PlaceDrawing place={place} cell={cell} layout={view.layout} />
        <div>
          <Input
            ref={input as never}
            className="reading-input figure"
            data-figures
            value={entry.text}
            disabled={readOnly}
            status={notice?.kind === 'fault' ? 'error' : notice?.kind === 'held' ? 'warning' : ''}
            placeholder="0.000"
            aria-label={`Reading, ${cell.name}`}
            inputMode="decimal"
            autoComplete="off"
            maxLength={40}
            onChange={(e) => entry.type(e.target.value)}
            onKeyDown={onKey}
          />
          <div className="gauge-line">
            <Segmented<string>
              value={entry.unit}
              onChange={(unit) => onChoose({ units: { ...choices.units, [cell.quantity]: unit } })}
              options={[...offeredUnits(cell, cellUnits(cell))]}
              aria-label="Unit when none is typed"
            />
            {wire !== 'none' && <span className={`wire ${wire}`}>{WIRE_WORDS[wire]}</span>}
          </div>
          <Select
            value={gauge.id}
            options={entry.gauges.map((g) => ({ value: g.id, label: g.name }))}
            onChange={(id) => onChoose({ gauges: { ...choices.gauges, [cell.role]: id } })}
            aria-label="Gauge"
            style={{ width: '100%' }}
          />
          {wire !== 'none' && (
            <div className="row wire-line">
              <Button size="small" title="Enter on the empty field does the same" onClick={() => entry.pressKey('here')}>
                Press its key
              </Button>
              {gauge.masterMm !== undefined && (
                <Button size="small" onClick={() => entry.pressKey('master')}>
                  On its master
                </Button>
              )}
            </div>
          )}
        </div>
      </div>
      {notice && (
        <Alert type={notice.kind === 'fault' ? 'error' : notice.kind === 'held' ? 'warning' : 'info'} role="alert" title={notice.words} />
      )}
      {overdue && <Alert type="warning" title={overdue} />}
      <ReadingTable place={place} entry={entry} />
      <div className="row entry-choices">
        <Segmented<1 | 2 | 3>
          size="small"
          value={choices.repeats}
          options={[
            { value: 1, label: 'once' },
            { value: 2, label: 'twice' },
            { value: 3, label: 'three times' },
          ]}
          onChange={(repeats) => onChoose({ repeats })}
          aria-label="How often each place is read"
        />
        {place.cells.some((c) => c.optional) && (
          <label>
            <Switch size="small" checked={choices.optional} onChange={(optional) => onChoose({ optional })} /> ask all places
          </label>
        )}
        <label>
          <Switch size="small" checked={choices.speak} onChange={(speak) => onChoose({ speak })} /> say it aloud
        </label>
      </div>
      <p className="quiet">
        A figure and Enter{wire !== 'none' && ' (Enter alone presses the key of the gauge)'}; 2.0855&quot; or 1.5 thou are understood; -
        means not read; Backspace steps back; Shift+Enter goes to the next place.
      </p>
      <SpecPanel key={place.spec} place={place} />
    </section>
  );
}
