import { Button, Checkbox, Input, Segmented, Select } from 'antd';
import { validateLayout, type EngineLayout } from '@true-ledger/core/engine';
import { CAUSES, FEATURES } from '@true-ledger/core/cause';
import { INTAKE_CHOICES, type IntakeChoice, type IntakeField, type Reliability } from '@true-ledger/core/entries';
import { stripStanding } from '@true-ledger/core/case';
import { useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { Choice } from '../../fields/Choice.js';
import { DateField } from '../../fields/DateField.js';
import { useDraft } from '../../app/drafts.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import { LayoutForm } from '../../shelf/LayoutForm.js';
import { PlanSvg } from '../../surface/PlanSvg.js';
import { PutAway } from '../../frame/Shelved.js';
import { EnginePane } from './EnginePane.js';
import { PartiesPane } from './PartiesPane.js';
import { BuildMarks, OpenQuestions, ReceivedList } from './Custody.js';
import './intake.css';
import './custody.css';

const options = (table: Readonly<Record<string, string>>): Array<{ value: string; label: string }> =>
  Object.entries(table).map(([value, label]) => ({ value, label }));

/** A text field of the intake; kept when the hand leaves it. */
function Words({ field, label, rows = 1, max = 4000 }: { field: IntakeField; label: string; rows?: number; max?: number }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const kept = field === 'title' ? view.title : view.intake(field);
  const [text, setText] = useDraft(label, kept);
  const keep = (): void => {
    if (text !== kept) record({ kind: 'intake-set', station: null, body: { field, value: text } });
  };
  return (
    <label className="wide">
      <span>{label}</span>
      {rows === 1 ? (
        <Input
          value={text}
          maxLength={max}
          disabled={readOnly}
          onChange={(e) => setText(e.target.value)}
          onBlur={keep}
          onPressEnter={keep}
        />
      ) : (
        <Input.TextArea
          value={text}
          maxLength={max}
          disabled={readOnly}
          rows={rows}
          onChange={(e) => setText(e.target.value)}
          onBlur={keep}
        />
      )}
    </label>
  );
}

/** Several answers of one table, kept as a list parted by commas. */
function Picks({ field, label }: { field: IntakeChoice; label: string }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  return (
    <label>
      <span>{label}</span>
      <Select
        mode="multiple"
        disabled={readOnly}
        value={view.intake(field).split(',').filter(Boolean)}
        options={options(INTAKE_CHOICES[field])}
        onChange={(v) => record({ kind: 'intake-set', station: null, body: { field, value: v.join(',') } })}
        style={{ width: '100%' }}
      />
    </label>
  );
}

/** What was asked, what was said, what is thought before anything is opened. */
export function Intake(): ReactNode {
  const { view, readOnly, caseId } = useCase();
  const navigate = useNavigate();
  const record = useRecord();
  const set = (field: IntakeField, value: string): void => record({ kind: 'intake-set', station: null, body: { field, value } });
  const started = stripStanding(view).started;
  const complaints = view.intake('complaint').split(',').filter(Boolean);
  const causes = [
    { value: 'none-yet', label: 'None yet' },
    ...CAUSES.filter((c) => !c.unlisted).map((c) => ({ value: c.id, label: c.name })),
  ];
  return (
    <div className="page intake">
      <div className="page-head">
        <h1>Intake</h1>
        {!readOnly && <Button onClick={() => void navigate(`/new?like=${caseId}`)}>Open another of this engine</Button>}
        <PutAway />
      </div>
      <div className="intake-grid">
        <section className="pane">
          <h2>The question</h2>
          <Words field="title" label="What is it about" max={160} />
          <Words field="reference" label="Client reference (no names)" max={160} />
          <label>
            <span>Who owns the question</span>
            <Select
              disabled={readOnly}
              value={view.intake('questionOwner') || null}
              placeholder="Choose"
              options={options(INTAKE_CHOICES.questionOwner)}
              onChange={(v) => set('questionOwner', v)}
              style={{ width: '100%' }}
            />
          </label>
          <Words field="question" label="Question asked" rows={2} />
          <Words field="received" label="State it came in" rows={2} />
          <Words field="openedBy" label="Opened by, before us (role, no name)" max={160} />
          <Words field="evidenceHolder" label="Who holds the evidence" max={160} />
          <label>
            <span>Experience of this engine family</span>
            <Select
              disabled={readOnly}
              value={view.intake('familyExperience') || null}
              placeholder="Say so rather than borrow one"
              options={options(INTAKE_CHOICES.familyExperience)}
              onChange={(v) => set('familyExperience', v)}
              style={{ width: '100%' }}
            />
          </label>
        </section>
        <section className="pane">
          <h2>The complaint</h2>
          <Checkbox.Group
            className="complaints"
            disabled={readOnly}
            value={complaints}
            options={options(INTAKE_CHOICES.complaint)}
            onChange={(v) => set('complaint', v.join(','))}
          />
          <div className="pair">
            <Picks field="complaintPlace" label="Where" />
            <Picks field="complaintWhen" label="When" />
            {complaints.includes('smoke') && <Picks field="smokeColour" label="Smoke" />}
          </div>
          <Words field="complaintWords" label="In the client’s words" rows={2} />
          <div className="label">Onset</div>
          <Choice
            label="Onset"
            disabled={readOnly}
            value={view.intake('onset') || null}
            options={options(INTAKE_CHOICES.onset)}
            onAnswer={(value) => set('onset', value)}
          />
          <div className="label">After the first sign</div>
          <Choice
            label="After the first sign"
            disabled={readOnly}
            value={view.intake('afterFirstSign') || null}
            options={options(INTAKE_CHOICES.afterFirstSign)}
            onAnswer={(value) => set('afterFirstSign', value)}
          />
          {view.intake('afterFirstSign') === 'driven-on' && <Words field="ranOnFor" label="For how long or how far" max={80} />}
          <label className="wide">
            <span>First impression, {started ? 'locked since the strip began' : 'written down before the evidence'}</span>
            <Select
              disabled={readOnly || started}
              showSearch={{ optionFilterProp: 'label' }}
              value={view.intake('firstImpression') || null}
              placeholder="One cause, or none yet"
              options={causes}
              onChange={(v) => set('firstImpression', v)}
              style={{ width: '100%' }}
            />
          </label>
        </section>
        <EnginePane />
        <PartiesPane />
        <ReceivedList />
        <BuildMarks />
        <History />
        <OpenQuestions />
        <Engine />
      </div>
    </div>
  );
}

const RELIABILITY_WORDS: ReadonlyArray<{ value: Reliability; label: string }> = [
  { value: 'told', label: 'Told to us' },
  { value: 'seen', label: 'Seen by us' },
  { value: 'measured', label: 'Measured by us' },
];

function History(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const [text, setText] = useDraft('History');
  const [reliability, setReliability] = useState<Reliability>('told');
  const [feature, setFeature] = useState<string | null>(null);
  const [date, setDate] = useState<string | null>(null);
  const [said, setSaid] = useState<'before-finding' | 'after-finding' | null>(null);
  const add = (): void => {
    if (text.trim() === '') return;
    record({
      kind: 'history-line',
      station: null,
      body: { line: crypto.randomUUID(), text: text.trim(), feature, reliability, date, ...(said ? { said } : {}) },
    });
    setText('');
    setFeature(null);
    setDate(null);
    setSaid(null);
  };
  return (
    <section className="pane history">
      <h2>History</h2>
      <table className="lines">
        <thead>
          <tr>
            <th>What</th>
            <th>Counts as</th>
            <th>How we know</th>
            <th>Date</th>
            <th aria-label="Take back" />
          </tr>
        </thead>
        <tbody>
          {view.history.length === 0 && (
            <tr>
              <td colSpan={5} className="quiet">
                Nothing yet. Service, oil, fuel, earlier work, storage, duty: each line with how we know it.
              </td>
            </tr>
          )}
          {[...view.history]
            .sort((a, b) => (a.value.date ?? '9').localeCompare(b.value.date ?? '9'))
            .map((h) => (
              <tr key={h.version.entry}>
                <td>{h.value.text}</td>
                <td className="quiet">{FEATURES.find((f) => f.id === h.value.feature)?.name ?? 'background'}</td>
                <td>
                  {RELIABILITY_WORDS.find((r) => r.value === h.value.reliability)?.label}
                  {h.value.said && (
                    <div className="quiet">
                      {h.value.said === 'before-finding' ? 'before the finding was put' : 'after the finding was put'}
                    </div>
                  )}
                </td>
                <td className="figure">{h.value.date ?? '–'}</td>
                <td>
                  {!readOnly && (
                    <Button
                      size="small"
                      type="text"
                      onClick={() =>
                        record({
                          kind: 'retracted',
                          station: null,
                          body: { target: h.version.entry, slot: `history:${h.value.line}`, reason: 'taken back' },
                        })
                      }
                    >
                      Take back
                    </Button>
                  )}
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      {!readOnly && (
        <div className="history-add">
          <Input
            value={text}
            onChange={(e) => setText(e.target.value)}
            onPressEnter={add}
            placeholder="What was done, or happened"
            aria-label="History line"
            maxLength={2000}
          />
          <Select
            allowClear
            showSearch={{ optionFilterProp: 'label' }}
            value={feature}
            onChange={(v) => setFeature(v ?? null)}
            placeholder="Counts as (optional)"
            aria-label="Counts as"
            options={FEATURES.filter((f) => f.kind === 'told' || f.kind === 'fluid').map((f) => ({ value: f.id, label: f.name }))}
          />
          <Segmented<Reliability> value={reliability} onChange={setReliability} options={[...RELIABILITY_WORDS]} aria-label="How we know" />
          <Select
            allowClear
            value={said}
            placeholder="Said when (optional)"
            aria-label="Said before or after the finding was put to the person"
            options={[
              { value: 'before-finding', label: 'Before the finding was put' },
              { value: 'after-finding', label: 'After the finding was put' },
            ]}
            onChange={(v) => setSaid(v ?? null)}
          />
          <DateField value={date} onChange={setDate} placeholder="Date (optional)" aria-label="Date" />
          <Button onClick={add}>Add line</Button>
        </div>
      )}
    </section>
  );
}

function Engine(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const [draft, setDraft] = useState<EngineLayout | null>(null);
  return (
    <section className="pane engine">
      <h2>
        Engine
        {!readOnly && draft === null && (
          <Button size="small" onClick={() => setDraft(view.layout)}>
            Correct the layout
          </Button>
        )}
      </h2>
      {draft ? (
        <>
          <LayoutForm layout={draft} onChange={setDraft} />
          <div className="row">
            <Button
              type="primary"
              disabled={validateLayout(draft).length > 0}
              onClick={() => {
                record({ kind: 'layout-set', station: null, body: { layout: draft } });
                setDraft(null);
              }}
            >
              Keep this layout
            </Button>
            <Button onClick={() => setDraft(null)}>Leave as it was</Button>
            <span className="quiet">What was recorded at places the new layout lacks stays in the ledger.</span>
          </div>
        </>
      ) : (
        <div className="plan-box">
          <PlanSvg layout={view.layout} height={150} detail />
        </div>
      )}
    </section>
  );
}
