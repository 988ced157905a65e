import { Alert, Button, Input, Select } from 'antd';
import { ANSWERABLE, firstStartProcedure, percentText, type Answerable } from '@true-ledger/core/cause';
import { ANSWER_STATES, type AnswerState } from '@true-ledger/core/entries';
import { answerability, answerItems, releaseCheck, warrantyChecklist, type AnswerItem, type Diagnosis } from '@true-ledger/core/diagnosis';
import { useState, type ReactNode } from 'react';
import { useDraft } from '../../app/drafts.js';
import { Link } from 'react-router';
import { useCase, useRecord } from '../../app/caseContext.js';
import { Waiting } from '../../app/Waiting.js';
import { CauseTabs } from './CauseTabs.js';
import './cause.css';

/** What answers the causes: corrective actions, collateral checks, what is accepted as unexplained, who is answerable, and whether it may be released. */
export function AnswersPage(): ReactNode {
  const { view, diagnosis, lastKnown } = useCase();
  if (!diagnosis) return <Waiting what="Weighing the evidence" />;
  const release = releaseCheck(view, diagnosis);
  return (
    <div className={lastKnown ? 'page cause last-known' : 'page cause'}>
      <CauseTabs>mend the cause, not only the damage</CauseTabs>
      {release.ready ? (
        <Release />
      ) : (
        <Alert
          type="warning"
          title="Not to be released yet"
          description={
            <ul className="plain">
              {release.blocks.map((b) => (
                <li key={b}>{b}</li>
              ))}
            </ul>
          }
        />
      )}
      <div className="cause-grid">
        <div className="stack">
          <Actions />
          <Accepted diagnosis={diagnosis} />
        </div>
        <div className="stack">
          <WhoAnswers diagnosis={diagnosis} />
          <FirstStart />
          <Warranty />
        </div>
      </div>
    </div>
  );
}

function Release(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const held = view.released;
  return (
    <Alert
      type="success"
      title={
        held
          ? `Released by ${held.version.author.name} on ${held.version.time.slice(0, 10)}.`
          : 'Every confirmed cause is answered, its collateral checked and nothing left unexplained.'
      }
      action={
        !held && !readOnly ? (
          <Button type="primary" onClick={() => record({ kind: 'case-released', station: null, body: { note: '' } })}>
            Release
          </Button>
        ) : undefined
      }
    />
  );
}

function FirstStart(): ReactNode {
  const { view } = useCase();
  const confirmed = view.decisions.filter((d) => d.value.decision === 'confirmed').map((d) => d.value.cause);
  return (
    <section className="pane" aria-label="First start">
      <h2>First start</h2>
      <ol className="plain">
        {firstStartProcedure(view.layout, confirmed).map((s) => (
          <li key={s.what}>
            {s.what}
            {s.caution && <div className="fault">{s.caution}</div>}
          </li>
        ))}
      </ol>
      <p className="quiet">The engine maker’s data stands before this.</p>
    </section>
  );
}

const STATE_LABELS: Readonly<Record<AnswerState, string>> = { open: 'Open', planned: 'Planned', done: 'Done', 'not-needed': 'Not needed' };

function Actions(): ReactNode {
  const { view, caseId } = useCase();
  const items = answerItems(view);
  const causes = [...new Set(items.map((i) => i.cause))];
  return (
    <section className="pane answers" aria-label="Corrective actions and collateral checks">
      <h2>Actions and collateral checks</h2>
      {causes.length === 0 && (
        <p className="quiet">
          They come with the causes you confirm. <Link to={`/case/${caseId}/cause`}>Go to the weighing</Link>.
        </p>
      )}
      {causes.map((c) => {
        const own = items.filter((i) => i.cause === c);
        return (
          <div key={c}>
            <h3>{own[0]!.causeName}</h3>
            <Part title="To do" list={own.filter((i) => i.part === 'action')} cause={c} part="action" />
            <Part
              title="To check, since it suffered with it"
              list={own.filter((i) => i.part === 'collateral')}
              cause={c}
              part="collateral"
            />
          </div>
        );
      })}
    </section>
  );
}

function Part({
  title,
  list,
  cause,
  part,
}: {
  title: string;
  list: readonly AnswerItem[];
  cause: string;
  part: AnswerItem['part'];
}): ReactNode {
  const { readOnly } = useCase();
  const record = useRecord();
  const [own, setOwn] = useDraft(`Own action: ${cause}, ${part}`);
  const set = (item: string, state: AnswerState, note: string): void =>
    record({ kind: 'answer-set', station: null, body: { cause, part, item, state, note } });
  const add = (): void => {
    if (own.trim() === '') return;
    set(own.trim(), 'planned', '');
    setOwn('');
  };
  return (
    <>
      <h4>{title}</h4>
      <table className="lines answer-table">
        <tbody>
          {list.map((i) => (
            <tr key={i.item} className={i.state}>
              <td>
                {i.item.charAt(0).toUpperCase() + i.item.slice(1)}
                {i.by && <span className="quiet"> {i.by}</span>}
                <Note item={i} onKeep={(note) => set(i.item, i.state, note)} />
              </td>
              <td>
                <Select<AnswerState>
                  size="small"
                  value={i.state}
                  disabled={readOnly}
                  onChange={(state) => set(i.item, state, i.note)}
                  options={ANSWER_STATES.map((s) => ({ value: s, label: STATE_LABELS[s] }))}
                  aria-label={`${i.item}: state`}
                  style={{ width: 116 }}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {!readOnly && (
        <div className="row another">
          <Input
            size="small"
            value={own}
            onChange={(e) => setOwn(e.target.value)}
            onPressEnter={add}
            placeholder="Another"
            aria-label={`Another for ${title.toLowerCase()}`}
            maxLength={120}
            style={{ width: 260 }}
          />
          <Button size="small" disabled={own.trim() === ''} onClick={add}>
            Add
          </Button>
        </div>
      )}
    </>
  );
}

function Note({ item, onKeep }: { item: AnswerItem; onKeep: (note: string) => void }): ReactNode {
  const { readOnly } = useCase();
  const [text, setText] = useState<string | null>(null);
  return (
    <Input
      size="small"
      value={text ?? item.note}
      readOnly={readOnly}
      placeholder="Note"
      aria-label={`${item.item}: note`}
      maxLength={1000}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => {
        if (text !== null && text !== item.note) onKeep(text.trim());
        setText(null);
      }}
      onPressEnter={(e) => e.currentTarget.blur()}
    />
  );
}

function Accepted({ diagnosis }: { diagnosis: Diagnosis }): ReactNode {
  const { view, readOnly, caseId } = useCase();
  const record = useRecord();
  const [reasons, setReasons] = useState<Readonly<Record<string, string>>>({});
  return (
    <section className="pane" aria-label="Left unexplained">
      <h2>
        Left unexplained <span className="figure">{diagnosis.unexplained.length}</span>
      </h2>
      {diagnosis.unexplained.length === 0 && <p className="quiet">Every finding of grade 2 or more follows from a believed cause.</p>}
      {diagnosis.unexplained.map((u) => {
        const held = view.unexplained.get(u.station);
        const accepted = held?.value.accepted ?? false;
        const reason = reasons[u.station] ?? held?.value.reason ?? '';
        return (
          <div key={u.station} className="accept-line">
            <Link to={`/case/${caseId}/station/${u.station}`}>{u.name}</Link>, grade {u.grade}: <span className="quiet">{u.why}</span>
            {accepted ? (
              <p>
                Accepted by {held!.version.author.name}: {held!.value.reason}{' '}
                {!readOnly && (
                  <Button
                    size="small"
                    type="text"
                    onClick={() =>
                      record({ kind: 'unexplained-set', station: null, body: { place: u.station, accepted: false, reason: '' } })
                    }
                  >
                    Open again
                  </Button>
                )}
              </p>
            ) : (
              !readOnly && (
                <div className="row">
                  <Input
                    size="small"
                    value={reason}
                    onChange={(e) => setReasons({ ...reasons, [u.station]: e.target.value })}
                    placeholder="Why it may stand"
                    aria-label={`Why ${u.name} may stand unexplained`}
                    maxLength={1000}
                  />
                  <Button
                    size="small"
                    disabled={reason.trim() === ''}
                    onClick={() =>
                      record({ kind: 'unexplained-set', station: null, body: { place: u.station, accepted: true, reason: reason.trim() } })
                    }
                  >
                    Accept
                  </Button>
                </div>
              )
            )}
          </div>
        );
      })}
    </section>
  );
}

const WHO_WORDS: Readonly<Record<Answerable, string>> = {
  use: 'Use',
  maker: 'Maker',
  'earlier repair': 'Earlier repair',
  'supplier part': 'Supplied part',
  wear: 'Wear',
  'not determined': 'Not determined',
};

function WhoAnswers({ diagnosis }: { diagnosis: Diagnosis }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const held = view.answerable?.value;
  const [reason, setReason] = useState<string | null>(null);
  const shares = answerability(diagnosis);
  const text = reason ?? held?.reason ?? '';
  return (
    <section className="pane" aria-label="Answerability">
      <h2>Answerability</h2>
      <p className="quiet">Kept apart from the cause. Say what was found, not who is to blame.</p>
      <table className="lines who-table">
        <tbody>
          {shares
            .filter((s) => s.probability >= 0.02)
            .map((s) => (
              <tr key={s.who}>
                <td>{WHO_WORDS[s.who]}</td>
                <td className="figure">{percentText(s.probability)}</td>
                <td className="quiet">{s.evidence.slice(0, 2).join('; ')}</td>
              </tr>
            ))}
        </tbody>
      </table>
      <div className="row">
        <Select<Answerable>
          value={held?.who ?? null}
          disabled={readOnly}
          placeholder="The builder’s own view"
          aria-label="Answerability, the builder’s own view"
          options={ANSWERABLE.map((w) => ({ value: w, label: WHO_WORDS[w] }))}
          onChange={(who) => record({ kind: 'answerable-set', station: null, body: { who, reason: text } })}
          style={{ width: 200 }}
        />
        <Input
          value={text}
          readOnly={readOnly || !held}
          placeholder={held ? 'What was found that says so' : 'Choose first'}
          aria-label="What was found that says so"
          maxLength={2000}
          onChange={(e) => setReason(e.target.value)}
          onBlur={() => {
            if (held && reason !== null && reason !== held.reason)
              record({ kind: 'answerable-set', station: null, body: { who: held.who, reason: reason.trim() } });
            setReason(null);
          }}
        />
      </div>
    </section>
  );
}

function Warranty(): ReactNode {
  const { view } = useCase();
  const list = warrantyChecklist(view);
  return (
    <section className="pane" aria-label="For a maker’s desk">
      <h2>
        For a maker’s desk{' '}
        <span className="figure">
          {list.filter((l) => l.recorded).length} of {list.length}
        </span>
      </h2>
      <table className="lines who-table">
        <tbody>
          {list.map((l) => (
            <tr key={l.what}>
              <td>{l.what}</td>
              <td className={l.recorded ? '' : 'quiet'}>{l.value}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
