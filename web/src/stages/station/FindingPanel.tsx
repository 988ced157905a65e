import { Button, Input, Select, type SelectProps } from 'antd';
import { PART_NAMES } from '@true-ledger/core/engine';
import {
  GRADE_INFO,
  gradeText,
  GRADES,
  patternFound,
  patternsFor,
  pattern,
  sightName,
  sightsFor,
  toldApart,
  type Grade,
} from '@true-ledger/core/damage';
import { STATION_STATES } from '@true-ledger/core/entries';
import type { StationView } from '@true-ledger/core/case';
import { type ReactNode } from 'react';
import { useDraft } from '../../app/drafts.js';
import { Link } from 'react-router';
import { useGradeBooksQuery } from '../../app/api.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import { MatchPanel, SchoolNotes } from './MatchPanel.js';
import { STATE_WORDS } from '../../surface/GradeMark.js';
import './station.css';

/** Which grade book proposes here; the shop's newer one is taken over by hand, since it may change every proposal of the case. */
function BookInUse(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const { data: versions } = useGradeBooksQuery();
  const newest = versions?.[0]?.book;
  return (
    <span className="quiet">
      {' '}
      Grade book {view.book.version}.
      {newest && newest.version !== view.book.version && !readOnly && (
        <Button size="small" type="link" onClick={() => record({ kind: 'grade-book-set', station: null, body: { book: newest } })}>
          Go by “{newest.version}” in this case
        </Button>
      )}
    </span>
  );
}

/** A pattern is found by any word the trade has for it, as on the Patterns page. */
function byTradeWord(search: string, option?: NonNullable<SelectProps['options']>[number]): boolean {
  const id = typeof option?.value === 'string' ? option.value : '';
  const p = pattern(id);
  return p ? patternFound(p, search, (part) => PART_NAMES[part]) : id !== '' && sightName(id).toLowerCase().includes(search.toLowerCase());
}

/** What the place shows: grade, patterns, state, remarks. */
export function FindingPanel({ station, onGrade }: { station: StationView; onGrade: (grade: Grade) => void }): ReactNode {
  const { readOnly, caseId } = useCase();
  const record = useRecord();
  const id = station.station.id;
  const [note, setNote] = useDraft('Remark');
  const proposed = station.proposal;
  const standing = station.grade?.value.grade ?? null;
  const addNote = (): void => {
    if (note.trim() === '') return;
    record({ kind: 'remark', station: id, body: { remark: crypto.randomUUID(), text: note.trim() } });
    setNote('');
  };
  const present = station.patterns.filter((p) => p.value.present);
  const absent = station.patterns.filter((p) => !p.value.present);
  const takeBack = (v: string): void => {
    const held = station.patterns.find((p) => p.value.pattern === v);
    if (held) record({ kind: 'retracted', station: id, body: { target: held.version.entry, slot: `pattern:${v}`, reason: 'taken back' } });
  };
  const choices = patternsFor(station.station.part);
  const seen = sightsFor(station.station.part);
  const last = present.length > 0 ? pattern(present.at(-1)!.value.pattern) : undefined;
  return (
    <section className="pane finding" aria-label="Finding">
      <div className="grade-row" role="radiogroup" aria-label="Grade">
        {GRADES.map((g) => (
          <button
            type="button"
            key={g}
            role="radio"
            aria-checked={standing === g}
            className={`grade-button${standing === g ? ' here' : ''}${proposed?.grade === g ? ' proposed' : ''}`}
            title={GRADE_INFO[g].meaning}
            disabled={readOnly}
            onClick={() => onGrade(g)}
          >
            <i style={{ background: GRADE_INFO[g].colour }} />
            {gradeText(g)}
          </button>
        ))}
      </div>
      <p className="proposal">
        {proposed ? (
          <>
            Proposed: {proposed.reason}.{' '}
            {!station.grade && !readOnly && (
              <Button size="small" type="primary" onClick={() => onGrade(proposed.grade)}>
                Confirm grade {proposed.grade}
              </Button>
            )}
          </>
        ) : station.station.surface ? (
          'Draw what you see and a grade is proposed, or grade it yourself.'
        ) : (
          'Grade it by eye and hand.'
        )}
        <BookInUse />
        {station.grade && (
          <span className="quiet">
            {' '}
            Confirmed by {station.grade.version.author.name}
            {station.grade.value.reason ? `: ${station.grade.value.reason}` : ''}.
            {station.secondOpinion
              ? ` Second opinion, ${station.secondOpinion.version.author.name}: ${gradeText(station.secondOpinion.value.grade)}.`
              : ''}{' '}
            <Link to={`/case/${caseId}/second-opinion`}>Second opinions</Link>
          </span>
        )}
      </p>
      <MatchPanel station={station} />
      <div className="finding-fields">
        <label>
          <span>Shows (f)</span>
          <Select
            id="pattern-choice"
            mode="multiple"
            disabled={readOnly}
            value={present.map((p) => p.value.pattern)}
            options={[
              { label: 'Patterns', options: choices.map((p) => ({ value: p.id, label: p.name, title: `${p.look} ${toldApart(p)}` })) },
              { label: 'Seen, and not yet which', options: seen.map((x) => ({ value: x.id, label: x.name })) },
            ]}
            showSearch={{ filterOption: byTradeWord }}
            placeholder="Name the pattern"
            onSelect={(v: string) => record({ kind: 'pattern-set', station: id, body: { pattern: v, present: true } })}
            onDeselect={takeBack}
            style={{ width: '100%' }}
          />
        </label>
        <label>
          <span>Looked for, not there</span>
          <Select
            mode="multiple"
            disabled={readOnly}
            value={absent.map((p) => p.value.pattern)}
            options={[
              { label: 'Patterns', options: choices.map((p) => ({ value: p.id, label: p.name })) },
              { label: 'In general', options: seen.map((x) => ({ value: x.id, label: x.name })) },
            ]}
            showSearch={{ filterOption: byTradeWord }}
            placeholder="Absence is evidence too"
            onSelect={(v: string) => record({ kind: 'pattern-set', station: id, body: { pattern: v, present: false } })}
            onDeselect={takeBack}
            style={{ width: '100%' }}
          />
        </label>
        <label>
          <span>State</span>
          <Select
            disabled={readOnly}
            value={station.state}
            options={STATION_STATES.map((s) => ({ value: s, label: STATE_WORDS[s] }))}
            onChange={(state) => record({ kind: 'state-set', station: id, body: { state } })}
            style={{ width: '100%' }}
          />
        </label>
      </div>
      {present.length > 0 && (
        <p className="apart">
          <b>Told apart.</b> {last && toldApart(last)} <b>Ask.</b> {last?.ask}
        </p>
      )}
      <SchoolNotes station={station} />
      <ul className="remarks">
        {station.remarks.map((r) => (
          <li key={r.version.entry}>
            {r.value.text} <span className="quiet">{r.version.author.name}</span>
          </li>
        ))}
      </ul>
      {!readOnly && (
        <Input.Search
          value={note}
          onChange={(e) => setNote(e.target.value)}
          onSearch={addNote}
          enterButton="Keep remark"
          placeholder="Remark"
          aria-label="Remark"
          maxLength={4000}
        />
      )}
    </section>
  );
}
