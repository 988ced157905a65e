import { Alert, Button, Select } from 'antd';
import { Dialog } from '../../app/Dialog.js';
import { cause as causeOf, percentText } from '@true-ledger/core/cause';
import { sightName } from '@true-ledger/core/damage';
import { entriesOfPlace } from '@true-ledger/core/notebook';
import {
  absenceWords,
  oilAgainstMetal,
  soundContradictions,
  type Diagnosis,
  type NextCheck,
  type RankedCause,
  type WeighedEvidence,
  drawnRangeText,
} from '@true-ledger/core/diagnosis';
import { useState, type ReactNode } from 'react';
import { ReasonField } from '../../fields/ReasonField.js';
import { useDraft } from '../../app/drafts.js';
import { Link, useNavigate, useParams } from 'react-router';
import { useCase, useRecord } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import { Waiting } from '../../app/Waiting.js';
import { CauseTabs } from './CauseTabs.js';
import { LikeCases } from './LikeCases.js';
import { PriorsLine } from './PriorsLine.js';
import { PredictedBench } from './PredictedBench.js';
import './cause.css';

/** The differential: ranked causes, the evidence behind each, what is unexplained, what to look at next. */
export function CauseStage(): ReactNode {
  const { view, diagnosis, caseId, lastKnown } = useCase();
  const { causeId } = useParams();
  const navigate = useNavigate();
  const shown = diagnosis?.causes.slice(0, 9) ?? [];
  const at = Math.max(
    0,
    shown.findIndex((c) => c.id === causeId),
  );
  const pick = (i: number): void => {
    const c = shown[Math.min(shown.length - 1, Math.max(0, i))];
    if (c) void navigate(`/case/${caseId}/cause/${c.id}`, { replace: true });
  };
  useKeys([
    { keys: 'ArrowDown', what: 'Next cause', run: () => pick(at + 1) },
    { keys: 'ArrowUp', what: 'Cause before', run: () => pick(at - 1) },
  ]);
  if (!diagnosis) return <Waiting what="Weighing the evidence" />;
  const chosen = shown[at];
  return (
    <div className={lastKnown ? 'page cause last-known' : 'page cause'}>
      <CauseTabs />
      <Ending diagnosis={diagnosis} />
      <PriorsLine />
      {oilAgainstMetal(view).map((words) => (
        <Alert key={words} type="warning" title={words} />
      ))}
      {soundContradictions(view).map((c) => (
        <Alert
          key={c.feature}
          type="warning"
          title={c.words}
          action={<Link to={`/case/${caseId}/station/${c.station}`}>Open the place</Link>}
        />
      ))}
      <div className="cause-grid">
        <div className="stack">
          <section className="pane ranked" aria-label="Ranked causes">
            <h2>Causes, most probable first</h2>
            <ol>
              {shown.map((c, i) => (
                <CauseLine key={c.id} cause={c} here={i === at} beside={diagnosis.beside.includes(c.id)} onPick={() => pick(i)} />
              ))}
            </ol>
            <p className="quiet">
              Sets of any size of {diagnosis.causes.length} causes,{' '}
              {diagnosis.mass > 0.995
                ? 'their sum settled'
                : `${percentText(1 - diagnosis.mass)} of it still moving when they were last told apart`}
              ; {diagnosis.evidence.length} pieces of evidence. The range is what the figures of the table leave open. Mechanism:{' '}
              {diagnosis.mechanisms
                .slice(0, 2)
                .map((m) => `${m.mechanism} ${percentText(m.probability)}`)
                .join(', ')}
              .
            </p>
          </section>
          <OpenSights />
          <NextChecks checks={diagnosis.nextChecks} />
        </div>
        <div className="stack">
          {chosen && <Waterfall cause={chosen} rival={shown[at === 0 ? 1 : 0]} />}
          <Unexplained diagnosis={diagnosis} />
        </div>
      </div>
      {chosen && <PredictedBench cause={chosen} />}
      <LikeCases />
    </div>
  );
}

function Ending({ diagnosis }: { diagnosis: Diagnosis }): ReactNode {
  const { view } = useCase();
  const first = view.intake('firstImpression');
  const set = diagnosis.sets[0];
  return (
    <div className="ending" role="status">
      <b>{diagnosis.ending.kind}</b>
      <span>{diagnosis.ending.sentence}</span>
      {set && set.causes.length > 1 && <span>Best together: {set.causes.map((id) => causeOf(id)?.name).join(' + ')}.</span>}
      <span className="quiet">
        First impression: {first && first !== 'none-yet' ? (causeOf(first)?.name ?? first) : 'none stated'}
        {first && diagnosis.causes[0] && first !== 'none-yet'
          ? first === diagnosis.causes[0].id
            ? ', which leads'
            : `, now ${percentText(diagnosis.causes.find((c) => c.id === first)?.probability ?? 0)}`
          : ''}
        .
        {diagnosis.turningPoint &&
          ` Were “${diagnosis.turningPoint.name.toLowerCase()}” the other way round, ${diagnosis.turningPoint.wouldLead.toLowerCase()} would lead.`}
      </span>
    </div>
  );
}

/** Sights noted at one or several of some places: the quickest thing to settle is which. */
function OpenSights(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const open = view.sights.filter((s) => s.value.of !== null && s.value.present);
  if (open.length === 0) return null;
  const nameOf = (id: string): string => view.byId.get(id)?.station.name ?? id;
  return (
    <section className="pane" aria-label="Noted without its place">
      <h2>Noted without its place</h2>
      {open.map((held) => {
        const sight = held.value;
        return (
          <p key={sight.note}>
            {sightName(sight.sight)} at {sight.of} of {sight.among.length} places{sight.words ? `: “${sight.words}”` : ''}{' '}
            {!readOnly && (
              <Select
                size="small"
                aria-label={`Which one: ${sightName(sight.sight)}`}
                placeholder="Which one?"
                popupMatchSelectWidth={false}
                value={null}
                options={sight.among.map((id) => ({ value: id, label: nameOf(id) }))}
                onChange={(id: string) => record(...entriesOfPlace(held, id, view.book.version, () => crypto.randomUUID()))}
              />
            )}
          </p>
        );
      })}
    </section>
  );
}

function CauseLine({ cause, here, beside, onPick }: { cause: RankedCause; here: boolean; beside: boolean; onPick: () => void }): ReactNode {
  const { view } = useCase();
  const decision = view.decisions.find((d) => d.value.cause === cause.id)?.value.decision;
  const place = cause.places[0];
  return (
    <li>
      <button type="button" className={here ? 'here' : ''} onClick={onPick} aria-current={here}>
        <span className="cause-name">
          {cause.name}
          {place && place.probability > 0.5 && <span className="quiet"> at {place.name}</span>}
          {beside && <em className="beside">also found, of its own</em>}
          {decision && decision !== 'open' && <em className={decision}>{decision}</em>}
        </span>
        <span className="bar" aria-hidden="true">
          <i style={{ width: `${cause.probability * 100}%` }} />
        </span>
        <span className="figure" title={`10 to 90 % of the draws of the table; leads in ${percentText(cause.leads)} of them`}>
          {percentText(cause.probability)} <span className="quiet">{drawnRangeText(cause)}</span>
        </span>
        <span className="quiet word">{cause.range}</span>
      </button>
    </li>
  );
}

function Waterfall({ cause, rival }: { cause: RankedCause; rival: RankedCause | undefined }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const [asking, setAsking] = useState<'confirmed' | 'rejected' | null>(null);
  const [reason, setReason] = useDraft('Reason');
  const record_ = causeOf(cause.id);
  const held = view.decisions.find((d) => d.value.cause === cause.id)?.value;
  const most = Math.max(1, ...cause.evidence.map((e) => Math.abs(e.decibans)));
  const forIt = cause.evidence.filter((e) => e.decibans > 0);
  const against = cause.evidence.filter((e) => e.decibans < 0);
  return (
    <section className="pane waterfall" aria-label={`Evidence on ${cause.name}`}>
      <h2>
        {cause.name}
        {!readOnly && (
          <span className="row">
            <Button size="small" onClick={() => setAsking('confirmed')}>
              Confirm
            </Button>
            <Button size="small" onClick={() => setAsking('rejected')}>
              Reject
            </Button>
          </span>
        )}
      </h2>
      <p className="quiet">
        {cause.family}; {cause.mechanisms.join(', ')}. Weights in decibans against {rival ? rival.name.toLowerCase() : 'its rival'}.{' '}
        {record_?.doesNot}
      </p>
      {held && held.decision !== 'open' && (
        <p>
          <b>{held.decision}</b>: {held.reason || 'no reason given'}
        </p>
      )}
      <EvidenceList title="For" list={forIt} most={most} />
      <EvidenceList title="Against" list={against} most={most} />
      {cause.places.length > 0 && (
        <p className="quiet">Where: {cause.places.map((p) => `${p.name} ${percentText(p.probability)}`).join(', ')}.</p>
      )}
      <Dialog
        open={asking !== null}
        title={`${asking === 'confirmed' ? 'Confirm' : 'Reject'}: ${cause.name}`}
        okText={asking === 'confirmed' ? 'Confirm cause' : 'Reject cause'}
        okButtonProps={{ disabled: reason.trim() === '' }}
        onCancel={() => setAsking(null)}
        onOk={() => {
          if (asking) record({ kind: 'cause-decided', station: null, body: { cause: cause.id, decision: asking, reason: reason.trim() } });
          setAsking(null);
          setReason('');
        }}
      >
        <p>The builder decides; the reason is kept beside what was computed.</p>
        <ReasonField value={reason} onChange={setReason} most={2000} />
      </Dialog>
    </section>
  );
}

function EvidenceList({ title, list, most }: { title: string; list: readonly WeighedEvidence[]; most: number }): ReactNode {
  const { caseId } = useCase();
  return (
    <div className={`evidence ${title.toLowerCase()}`}>
      <h3>
        {title}{' '}
        <span className="figure quiet">
          {list.length === 0 ? 'nothing' : `${list.reduce((s, e) => s + Math.abs(e.decibans), 0).toFixed(1)} decibans in all`}
        </span>
      </h3>
      {list.map((e) => (
        <details key={e.feature}>
          <summary>
            <span className="evidence-name">
              {e.name}
              {!e.present && <span className="quiet"> – {absenceWords(e)}</span>}
            </span>
            <span className="bar" aria-hidden="true">
              <i style={{ width: `${(Math.abs(e.decibans) / most) * 100}%` }} />
            </span>
            <span className="figure">
              {e.decibans > 0 ? '+' : '−'}
              {Math.abs(e.decibans).toFixed(1)}
            </span>
          </summary>
          <p className="quiet">{e.reason}</p>
          <ul>
            {e.sources.map((s, i) => (
              <li key={i}>
                {s.words}{' '}
                {e.reliability === 'likened' ? (
                  <Link to={`/case/${caseId}/loads?feature=${e.feature}&entry=${s.entry}`}>predicted over found</Link>
                ) : s.station ? (
                  <Link to={`/case/${caseId}/station/${s.station}`}>open</Link>
                ) : s.entry ? (
                  <Link to={`/case/${caseId}/ledger`}>in the ledger</Link>
                ) : (
                  <Link to={`/case/${caseId}/intake`}>intake</Link>
                )}
              </li>
            ))}
          </ul>
        </details>
      ))}
    </div>
  );
}

function NextChecks({ checks }: { checks: readonly NextCheck[] }): ReactNode {
  const { readOnly } = useCase();
  const record = useRecord();
  const answer = (check: NextCheck, present: boolean): void =>
    record({ kind: 'evidence-set', station: null, body: { feature: check.feature, present, note: '' } });
  return (
    <section className="pane next" aria-label="Next checks">
      <h2>
        Look at next <span className="quiet">most told per minute</span>
      </h2>
      {checks.length === 0 && <p className="quiet">Nothing left that would tell more.</p>}
      <ol>
        {checks.map((c) => (
          <li key={c.feature}>
            <div>
              <b>{c.name}</b>
              <span className="quiet">
                {' '}
                {c.step}, about {c.minutes} min, {c.bits.toFixed(2)} bit
              </span>
              <WayToCheck check={c} />
              {c.destroys && <span className="fault"> Destroys {c.destroys}.</span>}
              <div className="outcomes">
                If found: {c.ifFound.cause.toLowerCase()}{' '}
                <span className="figure">
                  {percentText(c.ifFound.before)} → {percentText(c.ifFound.after)}
                </span>
                . If not: {c.ifNot.cause.toLowerCase()}{' '}
                <span className="figure">
                  {percentText(c.ifNot.before)} → {percentText(c.ifNot.after)}
                </span>
                .
              </div>
            </div>
            {!readOnly && (
              <span className="row">
                <Button size="small" onClick={() => answer(c, true)}>
                  Found
                </Button>
                <Button size="small" onClick={() => answer(c, false)}>
                  Not there
                </Button>
              </span>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** What stands between here and a check: the steps that lay it bare, and what is recorded before them. */
function WayToCheck({ check }: { check: NextCheck }): ReactNode {
  const { caseId } = useCase();
  if (check.opens.length === 0) return null;
  return (
    <div className="quiet">
      {check.minutesInAll} min from here, with{' '}
      {check.opens.length === 1 ? `“${check.opens[0]}”` : `${check.opens.length} steps up to “${check.opens.at(-1)}”`} first.
      {check.first.length > 0 && (
        <>
          {' '}
          <Link to={`/case/${caseId}/strip`}>Record before</Link>, it is gone afterwards:{' '}
          {check.first.map((r) => r.name.toLowerCase()).join('; ')}.
        </>
      )}
    </div>
  );
}

function Unexplained({ diagnosis }: { diagnosis: Diagnosis }): ReactNode {
  const { caseId } = useCase();
  return (
    <section className="pane unexplained" aria-label="Left unexplained">
      <h2>
        Left unexplained <span className="figure">{diagnosis.unexplained.length}</span>
      </h2>
      {diagnosis.unexplained.length === 0 && <p className="quiet">Every finding of grade 2 or more follows from a believed cause.</p>}
      <ul>
        {diagnosis.unexplained.map((u) => (
          <li key={u.station}>
            <Link to={`/case/${caseId}/station/${u.station}`}>{u.name}</Link>, grade {u.grade}: <span className="quiet">{u.why}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
