import { Button, Input } from 'antd';
import { openingCheck } from '@true-ledger/core/opening';
import type { HoldStanding, StepStanding } from '@true-ledger/core/case';
import { type ReactNode } from 'react';
import { useDraft } from '../../app/drafts.js';
import { Link } from 'react-router';
import { useCase, useRecord } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import { useAppDispatch } from '../../app/store.js';
import { addFiles } from '../../capture/queue.js';
import { Field } from '../opening/Field.js';
import { useAnswer } from '../opening/useAnswer.js';
import './strip.css';

/** Brings the hand to where an item is recorded: presses its button, or puts the cursor in its field. */
function reach(index: number): void {
  const box = document.querySelector(`[data-hold="${index}"]`);
  const target =
    box?.querySelector<HTMLElement>('[data-record]') ??
    box?.querySelector<HTMLElement>('input:checked, .check-field input, input, button, a') ??
    null;
  if (target?.matches('input')) target.focus();
  else target?.click();
}

/** What the step destroys, and one key to record each before it is gone. */
export function HoldPanel({ standing }: { standing: StepStanding }): ReactNode {
  const { readOnly } = useCase();
  const open = standing.holds.filter((h) => h.state === 'open');
  useKeys(
    standing.done || readOnly
      ? []
      : open.slice(0, 9).map((h, i) => ({ keys: String(i + 1), what: `Record: ${h.item.name}`, run: () => reach(i) })),
  );
  if (standing.holds.length === 0) return null;
  return (
    <section className={open.length > 0 && !standing.done ? 'pane holds at-risk' : 'pane holds'} aria-label="Record first">
      <h2>
        {open.length > 0 && !standing.done ? 'Record this first' : 'What this step would have destroyed'}{' '}
        <span className="quiet">
          {open.length > 0 && !standing.done
            ? 'after the step it is gone'
            : `${standing.holds.filter((h) => h.state === 'recorded').length} of ${standing.holds.length} recorded`}
        </span>
      </h2>
      <ol>
        {standing.holds.map((h) => {
          const index = open.indexOf(h);
          return (
            <li key={h.item.id} className={h.state} {...(index >= 0 ? { 'data-hold': index } : {})}>
              <span className="hold-key figure" aria-hidden="true">
                {h.state === 'open' && !standing.done ? index + 1 : h.state === 'recorded' ? '✓' : '–'}
              </span>
              <div className="hold-body">
                <b>{h.item.name}</b>{' '}
                <span className={h.state === 'lost' ? 'fault' : 'quiet'}>
                  {h.state === 'lost' ? `lost: ${h.words}` : h.state === 'open' ? '' : h.words}
                </span>
                {h.state === 'open' && !standing.done && !readOnly && <Recorder hold={h} />}
              </div>
            </li>
          );
        })}
      </ol>
    </section>
  );
}

function Recorder({ hold }: { hold: HoldStanding }): ReactNode {
  const { view, caseId, me } = useCase();
  const dispatch = useAppDispatch();
  const answer = useAnswer();
  const { by } = hold.item;
  switch (by.kind) {
    case 'check': {
      const check = openingCheck(by.check);
      const field = check?.fields.find((f) => !by.fields || by.fields.includes(f.id));
      if (!check || !field) return null;
      return field.per ? (
        <Link data-record to={`/case/${caseId}/opening/${check.id}`}>
          {check.name}
        </Link>
      ) : (
        <Field check={check} field={field} readOnly={false} answer={answer} />
      );
    }
    case 'photos': {
      const missing = by.stations.filter((id) => id === '' || ((view.byId.get(id)?.photos.length ?? 1) === 0 && view.byId.has(id)));
      return (
        <span className="row">
          {missing.map((station, i) => (
            <label key={station} className="add-pictures">
              {station === '' ? 'Picture of the engine' : `Picture: ${view.byId.get(station)!.station.name}`}
              <input
                type="file"
                accept="image/*,.heic,.heif"
                capture="environment"
                multiple
                {...(i === 0 ? { 'data-record': true } : {})}
                aria-label={station === '' ? 'Picture of the engine' : `Picture of ${view.byId.get(station)!.station.name}`}
                onChange={(e) => {
                  void dispatch(
                    addFiles(
                      caseId,
                      [...(e.target.files ?? [])].map((f) => ({
                        blob: f,
                        name: f.name,
                        station,
                        kind: 'photo' as const,
                        shot: 'as found',
                      })),
                      me,
                    ),
                  );
                  e.target.value = '';
                }}
              />
            </label>
          ))}
        </span>
      );
    }
    case 'bolts':
      return (
        <button
          type="button"
          className="linkish"
          data-record
          onClick={() => document.querySelector<HTMLInputElement>('.fasteners .torque-entry input')?.focus()}
        >
          Type the torques below
        </button>
      );
    case 'cap':
      return (
        <button
          type="button"
          className="linkish"
          data-record
          onClick={() => document.querySelector<HTMLInputElement>('.cap-check input')?.focus()}
        >
          Check the cap below
        </button>
      );
    case 'easing':
      return (
        <button
          type="button"
          className="linkish"
          data-record
          onClick={() => document.querySelector<HTMLInputElement>('.easing .torque-entry input')?.focus()}
        >
          Type the torque below, cap by cap
        </button>
      );
    case 'note':
      return <NoteRecorder hold={hold} />;
  }
}

function NoteRecorder({ hold }: { hold: HoldStanding }): ReactNode {
  const record = useRecord();
  const [note, setNote] = useDraft(`Note: ${hold.item.name}`);
  const keep = (): void =>
    record({
      kind: 'hold-set',
      station: null,
      body: { item: hold.item.id, outcome: 'recorded', note: note.trim() || 'looked at, nothing to note' },
    });
  return (
    <span className="row note-recorder">
      <Input
        size="small"
        value={note}
        maxLength={1000}
        placeholder="What was seen (optional)"
        aria-label={`Note: ${hold.item.name}`}
        onChange={(e) => setNote(e.target.value)}
        onPressEnter={keep}
      />
      <Button size="small" data-record onClick={keep}>
        Noted
      </Button>
    </span>
  );
}
