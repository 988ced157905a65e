import { Button } from 'antd';
import { foundHurt } from '@true-ledger/core/case';
import { percentText } from '@true-ledger/core/cause';
import { EQUALLY, type FaultExplanation, type Run, type RunSetting } from '@true-ledger/core/running';
import { bearingsOf } from '@true-ledger/core/engine';
import { useState, type ReactNode } from 'react';
import type { Outcome } from '@true-ledger/contract';
import { useCase } from '../../app/caseContext.js';
import { explainByFault } from '../../workers/compute.js';
import { faultWords, placeName } from './faultWords.js';

/** How many faults are shown. */
const SHOWN = 6;
/** Below this likeness a fault does not explain who was hurt. Judgement. */
const EXPLAINS = 0.7;

/** Faults of the oil circuit that would leave short of oil the bearings that were found hurt, the likest first. */
export function FaultSearch({ run, onSet }: { run: Run; onSet: (setting: RunSetting) => void }): ReactNode {
  const { view } = useCase();
  const found = foundHurt(view);
  const [answer, setAnswer] = useState<{ readonly of: string; readonly tried: Outcome<FaultExplanation[]> } | null>(null);
  const [busy, setBusy] = useState(false);
  const bearings = bearingsOf(view.layout).length;
  // What was tried stands for as long as the engine runs so, whatever fault is set from the list, and the same bearings are hurt.
  const { speedRpm, loadShare, oilGrade, oilTemperatureC, fuelShare, clearancesMm } = run.setting;
  const of = JSON.stringify([speedRpm, loadShare, oilGrade, oilTemperatureC, fuelShare, clearancesMm, [...found]]);
  const tried = answer?.of === of ? answer.tried : null;
  const hurt = [...found].filter(([, share]) => share > 0).map(([bearing]) => bearing);
  const seek = async (): Promise<void> => {
    setBusy(true);
    try {
      setAnswer({ of, tried: await explainByFault(view.layout, run.setting, found) });
    } finally {
      setBusy(false);
    }
  };
  const ranked = tried?.ok ? tried.value : null;
  const best = ranked?.[0]?.alike ?? 0;
  return (
    <>
      <Button size="small" loading={busy} disabled={hurt.length === 0} onClick={() => void seek()}>
        Which fault would explain who was hurt
      </Button>
      {hurt.length === 0 && (
        <span className="quiet">
          {' '}
          {found.size === 0 ? 'No shell is graded yet.' : `None of the ${found.size} bearings that were looked at is hurt.`}
        </span>
      )}
      {tried && !tried.ok && <p className="fault">{tried.problem.sentence}</p>}
      {ranked && best < EXPLAINS && (
        <p>No single fault of the circuit leaves just these bearings short of oil. Look elsewhere, or for two.</p>
      )}
      {ranked && (
        <ol className="explanations">
          {ranked.slice(0, SHOWN).map((e) => (
            <li key={`${e.fault.kind} ${e.fault.at ?? ''}`}>
              <Button type="link" size="small" onClick={() => onSet({ ...run.setting, faults: [e.fault] })}>
                {faultWords(e.fault)}
              </Button>
              <span className="figure">{percentText(e.alike)} alike</span>
              {best - e.alike <= EQUALLY && <span className="quiet">{e === ranked[0] ? 'likest' : 'fits as well'}</span>}
              <span className="quiet">
                short: {e.short.length === bearings ? 'every bearing' : e.short.map((b) => placeName(b).toLowerCase()).join(', ')}; gauge{' '}
                {e.gaugeMovedBar < 0 ? '−' : '+'}
                {Math.abs(e.gaugeMovedBar).toFixed(1)} bar
              </span>
            </li>
          ))}
        </ol>
      )}
    </>
  );
}
