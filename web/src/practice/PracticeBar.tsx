import { Alert, Button, Select } from 'antd';
import { lookStands, minutesSpent, practiceLooks, type PracticeLook } from '@true-ledger/core/practiceEngine';
import { checksFor } from '@true-ledger/core/opening';
import type { CaseView } from '@true-ledger/core/case';
import { useMemo, useState, type ReactNode } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { usePracticeLookMutation } from '../app/api.js';
import { useCase } from '../app/caseContext.js';
import { useKeys } from '../app/keys.js';
import { asProblem, fetchFile } from '../app/server.js';
import { useAppDispatch } from '../app/store.js';
import { addFiles } from '../capture/queue.js';
import './practice.css';

/** What can be looked at from a page of the case. */
function looksHere(view: CaseView, stage: string, place: string): readonly PracticeLook[] {
  const looks = practiceLooks(view.layout);
  if (stage === 'station') return looks.filter((l) => l.id === `part:${place}`);
  if (stage === 'opening') return looks.filter((l) => l.id === `check:${place || checksFor(view.layout)[0]!.id}`);
  if (stage === 'intake') return looks.filter((l) => l.kind === 'ask');
  if (stage === 'measure' || stage === 'cause') return looks.filter((l) => l.kind === 'measure');
  return [];
}

const WHAT: Readonly<Record<PracticeLook['kind'], string>> = {
  part: 'Look at it',
  check: 'Make the check',
  ask: 'Ask the owner',
  measure: 'Find out',
};

/** Over every page of a practice engine: what was spent, what can be looked at here for how long, and what a look brought to light. */
export function PracticeBar(): ReactNode {
  const { view, caseId, me, readOnly } = useCase();
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const [, , , stage = 'bench', place = ''] = pathname.split('/');
  const here = useMemo(() => looksHere(view, stage, place), [view, stage, place]);
  const had = useMemo(() => new Map(view.practiceLooks.map((l) => [l.value.look, l.value])), [view.practiceLooks]);
  const [chosen, setChosen] = useState<string | null>(null);
  const single = here.length === 1 ? here[0]! : undefined;
  const look = single ?? here.find((l) => l.id === chosen);
  const seen = look && had.get(look.id);
  const stands = look && !seen ? lookStands(view, look) : null;
  const [ask, asking] = usePracticeLookMutation();
  const [problem, setProblem] = useState('');
  const dispatch = useAppDispatch();
  const opened = view.practiceScored !== undefined;
  const may = look !== undefined && !seen && !opened && !readOnly && stands?.open === true && !asking.isLoading;
  const station = look?.kind === 'part' ? look.id.slice('part:'.length) : null;

  const picture = async (id: string): Promise<void> => {
    const taken = await fetchFile(`/api/practice/cases/${caseId}/looks/${encodeURIComponent(id)}/picture`);
    if (!taken.ok) return setProblem(`The picture did not come. ${taken.problem.sentence}`);
    await dispatch(
      addFiles(
        caseId,
        [{ blob: taken.value.blob, name: `${id.slice('part:'.length)}.jpg`, station: id.slice('part:'.length), kind: 'photo' }],
        me,
      ),
    );
  };
  const pay = (): void => {
    if (!look || !may) return;
    setProblem('');
    void ask({ caseId, look: look.id })
      .unwrap()
      .then((shown) => (shown.picture ? picture(look.id) : undefined))
      .catch((e: unknown) => setProblem(asProblem(e).sentence));
  };
  useKeys([
    { keys: 'v', what: 'Look, for its minutes (practice engine)', run: pay },
    { keys: 'gt', what: 'Go to the truth of the practice engine', run: () => void navigate(`/case/${caseId}/truth`) },
  ]);
  const bare = seen?.picture && station !== null && view.byId.get(station)?.photos.length === 0;
  return (
    <section className="practice-bar" aria-label="Practice engine">
      <div className="practice-line">
        <b>Practice engine, level {view.practice!.value.level}</b>
        <span className="figure">{minutesSpent(view)} min</span>
        {!opened && here.length > 1 && (
          <Select
            aria-label="What to find out"
            className="practice-choice"
            showSearch={{ optionFilterProp: 'label' }}
            placeholder={stage === 'intake' ? 'Ask the owner …' : 'Find out …'}
            value={chosen}
            onChange={setChosen}
            options={here.map((l) => ({ value: l.id, label: `${l.name} · ${l.minutes} min${had.has(l.id) ? ' · done' : ''}` }))}
          />
        )}
        {look && !seen && !opened && !readOnly && (
          <Button type="primary" disabled={!may} loading={asking.isLoading} onClick={pay} title="v">
            {WHAT[look.kind]} ({look.minutes} min)
          </Button>
        )}
        {!look && !opened && here.length === 0 && <span className="quiet">Open a place, a check or the intake to look at something.</span>}
        <Link className="practice-truth" to={`/case/${caseId}/truth`}>
          {opened ? 'The truth' : 'Answer and open the truth'}
        </Link>
      </div>
      {stands && !stands.open && <p className="quiet">{stands.why}</p>}
      {seen && (
        <div role="status" className="practice-shown">
          {seen.words.map((w) => (
            <p key={w}>{w}</p>
          ))}
          {seen.picture && seen.words.length === 0 && <p>It is in the picture.</p>}
          {bare && !readOnly && (
            <Button size="small" onClick={() => void picture(look.id)}>
              Take its picture again
            </Button>
          )}
        </div>
      )}
      {problem && <Alert type="warning" role="alert" title={problem} />}
    </section>
  );
}
