import { Button } from 'antd';
import { foundHurt, foundWearOf } from '@true-ledger/core/case';
import { percentText } from '@true-ledger/core/cause';
import { likenedBearings, MOST_LIKENED } from '@true-ledger/core/diagnosis';
import {
  asBuilt,
  likenessLogOdds,
  likestByForm,
  usualSetting,
  WEAR_FORM_NAMES,
  whyNotLikened,
  type Explanation,
  type FoundWear,
  type Run,
  type RunSetting,
  type WearForm,
} from '@true-ledger/core/running';
import { useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { explain } from '../../workers/compute.js';

/** Decibans, and as many as a likeness may count at most. */
const decibans = (logOdds: number): number =>
  (10 / Math.LN10) * Math.max(-Math.log(MOST_LIKENED), Math.min(Math.log(MOST_LIKENED), logOdds));

/** Forms whose likeness says as much to a factor of two fit equally well. Judgement. */
const AS_WELL = Math.log(2);

/** Ways of running that would wear the bearing as it was found, the likest of each form; what they are like can be counted as evidence. */
export function Explanations({ run, found, onSet }: { run: Run; found: FoundWear; onSet: (setting: RunSetting) => void }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const [tried, setTried] = useState<{ readonly of: string; readonly ranked: readonly Explanation[] } | null>(null);
  const [busy, setBusy] = useState(false);
  const { bearing, oilGrade, clearancesMm } = run.setting;
  const of = foundWearOf(view, bearing);
  const asked = JSON.stringify([of, oilGrade, clearancesMm]);
  const why = whyNotLikened(found);
  const seek = async (): Promise<void> => {
    setBusy(true);
    try {
      const from = { ...usualSetting(view.layout, bearing, asBuilt(clearancesMm, foundHurt(view))), oilGrade };
      setTried({ of: asked, ranked: await explain(view.layout, from, found) });
    } finally {
      setBusy(false);
    }
  };
  const likest = tried?.of === asked ? likestByForm(tried.ranked) : null;
  const odds = likenessLogOdds(likest ?? []);
  const said = (form: WearForm): number => odds.get(form)!;
  // Broad wear is alike to much: forms are told apart by what their likeness says, not by how great it is.
  const forms = likest && [...likest].sort((a, b) => said(b.form) - said(a.form));
  const best = forms?.[0] ? said(forms[0].form) : 0;
  const likened = likenedBearings(view);
  const counted = likened.standing.some((l) => l.value.bearing === bearing);
  const anew = likened.stale.some((l) => l.value.bearing === bearing);
  const count = (kept: typeof forms): void =>
    record({
      kind: 'wear-likened',
      station: null,
      body: {
        bearing,
        of,
        forms: kept && kept.map(({ form, alike, setting }) => ({ form, alike: Math.round(alike * 1000) / 1000, setting })),
      },
    });
  return (
    <>
      <div className="row">
        <Button size="small" loading={busy} disabled={why !== null} onClick={() => void seek()}>
          Which setting would explain it
        </Button>
        {counted && !readOnly && (
          <Button size="small" onClick={() => count(null)}>
            No longer count it
          </Button>
        )}
      </div>
      {why && <p className="quiet">{why}</p>}
      {counted && <p className="quiet">Its likeness counts as evidence on the causes.</p>}
      {anew && (
        <p className="fault">
          This bearing was read anew, or is not confirmed: its likeness counts no more. Try again what would explain it.
        </p>
      )}
      {forms?.length === 0 && (
        <p>
          None of the settings that were tried predicts wear here: look for what is not the load, such as dirt, or a feed that was shut.
        </p>
      )}
      {forms && forms.length > 0 && (
        <>
          <ol className="explanations">
            {forms.map((e) => (
              <li key={e.form}>
                <b>{WEAR_FORM_NAMES[e.form]}</b>
                <span className="figure">{percentText(e.alike)} alike</span>
                <span className="figure quiet" title="What this likeness would say of the form by itself, as evidence">
                  {said(e.form) < 0 ? '−' : '+'}
                  {Math.abs(decibans(said(e.form))).toFixed(1)} dB
                </span>
                {best > 0 && best - said(e.form) <= AS_WELL && (
                  <span className="quiet">{e === forms[0] ? 'likeliest' : 'fits as well'}</span>
                )}
                <br />
                <Button type="link" size="small" onClick={() => onSet(e.setting)}>
                  {e.name}
                </Button>
              </li>
            ))}
          </ol>
          {best <= 0 && <p className="quiet">None of them is alike enough: the load by itself does not explain what was found.</p>}
          {!readOnly && (
            <Button size="small" onClick={() => count(forms)}>
              Count it as evidence
            </Button>
          )}
        </>
      )}
    </>
  );
}
