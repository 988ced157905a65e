import { Alert, Button, Popover } from 'antd';
import type { Me } from '@true-ledger/contract';
import { checksFor } from '@true-ledger/core/opening';
import { caseView, coverage, stripStanding, type CaseView } from '@true-ledger/core/case';
import type { Diagnosis } from '@true-ledger/core/diagnosis';
import { lazy, memo, Suspense, useCallback, useDeferredValue, useMemo, useState, type ReactNode } from 'react';
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { Waiting } from '../app/Waiting.js';
import { useGetCaseQuery } from '../app/api.js';
import { CaseContext, type OpenCase } from '../app/caseContext.js';
import { useKeys } from '../app/keys.js';
import { redo, undo } from '../app/outbox.js';
import { hasUnsent, selectCaseState } from '../app/selectors.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { PlanSvg } from '../surface/PlanSvg.js';
import { useDiagnosis } from '../workers/compute.js';
import { PageBoundary } from '../app/PageBoundary.js';
import { SkipLink } from './SkipLink.js';
import { DiskRoom } from './DiskRoom.js';
import { KeySheet } from './KeySheet.js';
import { nextTask } from './nextTask.js';
import { Navigator } from './Navigator.js';
import { Presence } from './Presence.js';
import { PersonMenu } from './PersonMenu.js';
import { SaveState } from './SaveState.js';
import { ShelvedNote } from './Shelved.js';
import { Unsettled } from './Unsettled.js';
import { NoteLine } from '../notebook/NoteLine.js';
import { asProblem } from '../app/server.js';
import './frame.css';

/** Frame of an open case: loads it, keeps it live, shows where it stands. */
export function CaseFrame({ me }: { me: Me }): ReactNode {
  const { caseId = '' } = useParams();
  const { error } = useGetCaseQuery(caseId);
  const state = useAppSelector((root) => selectCaseState(root, caseId));
  const unsent = useAppSelector((root) => hasUnsent(root, caseId));
  const answer = useDiagnosis(caseId, state, unsent);
  const view = state ? caseView(state) : null;
  const latest = useMemo<OpenCase | null>(
    () => (state && view ? { caseId, state, view, me, ...answer, readOnly: me.account.role === 'reader' } : null),
    [caseId, state, view, me, answer],
  );
  // Drawn in slices, so that no entry that arrives holds the page: a whole station takes longer than a frame.
  const deferred = useDeferredValue(latest);
  const open = deferred?.caseId === caseId ? deferred : latest;
  if (error && !open)
    return (
      <main className="door">
        <Alert type="error" role="alert" title={asProblem(error).sentence} />
        <Link to="/">Back to the Shelf</Link>
      </main>
    );
  if (!open) return <Waiting what="Fetching the case" />;
  return (
    <CaseContext.Provider value={open}>
      <Frame open={open} />
    </CaseContext.Provider>
  );
}

/** Fetched for practice engines alone. */
const PracticeBar = lazy(() => import('../practice/PracticeBar.js').then((m) => ({ default: m.PracticeBar })));

/** Pages of a case that are named otherwise than their address. */
const PAGE_NAMES: Readonly<Record<string, string>> = { opening: 'before opening', 'second-opinion': 'second opinions' };

const Frame = memo(function Frame({ open }: { open: OpenCase }): ReactNode {
  const [keysShown, setKeysShown] = useState(false);
  const [noting, setNoting] = useState(false);
  const closeNote = useCallback(() => setNoting(false), []);
  const [finding, setFinding] = useState(false);
  const closeFinding = useCallback(() => setFinding(false), []);
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const { caseId, view, me, diagnosis } = open;
  const { pathname } = useLocation();
  const [, , , stage = 'bench', place = ''] = pathname.split('/');
  const here = stage === 'station' ? view.byId.get(place)?.station.name : PAGE_NAMES[stage];
  const next = nextTask(open);
  const go = (to: string) => (): void => void navigate(`/case/${caseId}/${to}`);
  useKeys([
    { keys: '?', what: 'This list', run: () => setKeysShown((x) => !x) },
    { keys: 'gi', what: 'Go to intake', run: go('intake') },
    { keys: 'go', what: 'Go to the checks before opening', run: go('opening') },
    { keys: 'gs', what: 'Go to the strip', run: go('strip') },
    { keys: 'gp', what: 'Go to the pictures', run: go('pictures') },
    { keys: 'gb', what: 'Go to the bench', run: go('bench') },
    { keys: 'gm', what: 'Go to measuring', run: go('measure') },
    { keys: 'gw', what: 'Go to the loads: why the wear is where it is', run: go('loads') },
    { keys: 'gc', what: 'Go to causes', run: go('cause') },
    { keys: 'gd', what: 'Go to deciding', run: go('decide') },
    { keys: 'gr', what: 'Go to the report', run: go('document') },
    { keys: 'g2', what: 'Go to second opinions', run: go('second-opinion') },
    { keys: 'gl', what: 'Go to the ledger', run: go('ledger') },
    { keys: 'u', what: 'Take the last entry back', run: () => void (open.readOnly || dispatch(undo(caseId, me.author))) },
    { keys: 'U', what: 'Write it again', run: () => void (open.readOnly || dispatch(redo(caseId, me.author))) },
    { keys: '/', what: 'Find a place', run: () => setFinding(true) },
    { keys: 'l', what: 'Write a line of the notebook', run: () => setNoting(!open.readOnly) },
    { keys: '.', what: 'Next thing worth doing', run: () => void navigate(next.to) },
  ]);
  return (
    <div className="case">
      <title>{`${view.number}, ${here ?? stage} · True Ledger`}</title>
      <SkipLink />
      <header className="strip">
        <Link to="/" className="case-name" title="Back to the Shelf">
          <span className="figure">{view.number}</span>
          <span className="case-title">{view.title}</span>
        </Link>
        <span className="tiny-plan" aria-hidden="true">
          <PlanSvg layout={view.layout} height={26} />
        </span>
        <StageLine view={view} diagnosis={diagnosis} />
        <Figures view={view} />
        <Link className="next-task" to={next.to} title={`${next.title} (.)`}>
          Next: {next.what}
        </Link>
        <Presence open={open} />
        <DiskRoom />
        <SaveState caseId={caseId} />
        {!open.readOnly && (
          <Button type="text" className="person" title="Write a line of the notebook (l)" onClick={() => setNoting((x) => !x)}>
            Note
          </Button>
        )}
        <Button type="text" className="person" aria-label="Keys" onClick={() => setKeysShown(true)}>
          ?
        </Button>
        <PersonMenu me={me} short />
      </header>
      <Navigator open={finding} onOpen={() => setFinding(true)} onClose={closeFinding} />
      <main className="work" id="work" tabIndex={-1}>
        <Unsettled caseId={caseId} />
        <ShelvedNote />
        {view.practice && (
          <Suspense fallback={null}>
            <PracticeBar />
          </Suspense>
        )}
        {noting && <NoteLine here={stage === 'station' && view.byId.has(place) ? place : undefined} onClose={closeNote} />}
        {open.readOnly && <div className="reader-note">You are reading this case; nothing you press is recorded.</div>}
        <PageBoundary>
          <Suspense fallback={<Waiting what="Fetching the page" />}>
            <Outlet />
          </Suspense>
        </PageBoundary>
      </main>
      <KeySheet open={keysShown} onClose={() => setKeysShown(false)} />
    </div>
  );
});

function StageLine({ view, diagnosis }: { view: CaseView; diagnosis: Diagnosis | null }): ReactNode {
  const intakeOpen =
    (['questionOwner', 'complaint', 'onset', 'afterFirstSign', 'firstImpression'] as const).filter((f) => !view.intake(f)).length +
    (view.history.length === 0 ? 1 : 0);
  const open = view.stations.filter((s) => s.state === 'not-examined').length;
  const strip = stripStanding(view);
  const journals = view.stations.filter((s) => s.station.part === 'journal');
  const stages: ReadonlyArray<readonly [string, string, number | null]> = [
    ['intake', 'Intake', intakeOpen],
    [
      'opening',
      'Before opening',
      checksFor(view.layout).filter((c) => ![...view.checks.values()].some((a) => a.value.check === c.id && a.value.text !== '')).length,
    ],
    ['strip', 'Strip', strip.steps.filter((s) => !s.done).length],
    ['bench', 'Bench', open],
    ['measure', 'Measure', journals.filter((s) => s.readings.length === 0).length],
    ['loads', 'Loads', null],
    ['cause', 'Cause', diagnosis?.unexplained.length ?? null],
    ['decide', 'Decide', view.plan?.route ? 0 : 1],
    ['document', 'Document', view.report('conclusion') ? 0 : 1],
    ['pictures', 'Pictures', null],
    ['ledger', 'Ledger', null],
  ];
  return (
    <nav className="stage-line" aria-label="Stages">
      {stages.map(([to, name, count]) => (
        <NavLink
          key={to}
          to={to}
          className={({ isActive }) => (isActive || (to === 'bench' && window.location.pathname.includes('/station/')) ? 'active' : '')}
        >
          {name}
          {count !== null && count > 0 && (
            <span className="count" title={`${count} open`}>
              {count}
            </span>
          )}
        </NavLink>
      ))}
    </nav>
  );
}

function Figures({ view }: { view: CaseView }): ReactNode {
  const c = coverage(view);
  const risk = stripStanding(view).atRisk;
  return (
    <div className="case-figures">
      <Popover
        placement="bottom"
        content={
          <table className="mini">
            <tbody>
              {c.byPart.map((p) => (
                <tr key={p.part}>
                  <td>{p.part}</td>
                  <td className="figure">
                    {p.examined} of {p.total}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        }
      >
        <span tabIndex={0} role="note">
          <span className="word">examined </span>
          <b className="figure">{Math.round((c.examined / Math.max(1, c.total)) * 100)} %</b>
        </span>
      </Popover>
      {risk.length > 0 && (
        <Popover
          placement="bottom"
          content={
            <ul className="risk-list">
              {risk.map((i) => (
                <li key={i.id}>{i.name}</li>
              ))}
            </ul>
          }
        >
          <span tabIndex={0} role="note" className="at-risk-count" aria-label={`${risk.length} at risk`}>
            <span className="word">at risk </span>
            <b className="figure">{risk.length}</b>
          </span>
        </Popover>
      )}
    </div>
  );
}
