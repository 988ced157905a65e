import { Button } from 'antd';
import { percentText } from '@true-ledger/core/cause';
import { EQUALLY, type Explanation, type FoundWear, type Run, type RunSetting } from '@true-ledger/core/running';
import { useState, type ReactNode } from 'react';
import { useCase } from '../../app/caseContext.js';
import { explain } from '../../workers/compute.js';

/** How many ways of running are shown. */
const SHOWN = 6;

/** Ways of running that would wear the bearing as it was found, the likest first; those that fit as well as the best are marked. */
export function Explanations({ run, found, onSet }: { run: Run; found: FoundWear; onSet: (setting: RunSetting) => void }): ReactNode {
  const { layout } = useCase().view;
  const [tried, setTried] = useState<{ readonly of: string; readonly ranked: readonly Explanation[] } | null>(null);
  const [busy, setBusy] = useState(false);
  const { bearing } = run.setting;
  const seek = async (): Promise<void> => {
    setBusy(true);
    try {
      const ranked = await explain(layout, { ...run.setting, faults: [] }, run.clearanceMm, found);
      setTried({ of: bearing, ranked });
    } finally {
      setBusy(false);
    }
  };
  const ranked = tried?.of === bearing ? tried.ranked : null;
  const best = ranked?.[0]?.alike ?? null;
  return (
    <>
      <Button size="small" loading={busy} onClick={() => void seek()}>
        Which setting would explain it
      </Button>
      {ranked && best === null && (
        <p>
          None of the settings that were tried predicts wear here: look for what is not the load, such as dirt, or a feed that was shut.
        </p>
      )}
      {ranked && best !== null && (
        <ol className="explanations">
          {ranked
            .filter((e) => e.alike !== null)
            .slice(0, SHOWN)
            .map((e) => (
              <li key={e.name}>
                <Button type="link" size="small" onClick={() => onSet(e.setting)}>
                  {e.name}
                </Button>
                <span className="figure">{percentText(e.alike!)} alike</span>
                {best - e.alike! <= EQUALLY && <span className="quiet">{e.alike === best ? 'likest' : 'fits as well'}</span>}
              </li>
            ))}
        </ol>
      )}
      {ranked && best !== null && best < 0.5 && (
        <p className="quiet">None of them is much alike: the load by itself does not explain what was found.</p>
      )}
    </>
  );
}
