import { Alert, Button, Checkbox, Select } from 'antd';
import type { Me } from '@true-ledger/contract';
import { stripStanding } from '@true-ledger/core/case';
import { useMemo, useState, type ReactNode } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { Waiting } from '../app/Waiting.js';
import { useGetCaseQuery } from '../app/api.js';
import { CaseContext, useCase, type OpenCase } from '../app/caseContext.js';
import { selectCaseState } from '../app/selectors.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { SaveState } from '../frame/SaveState.js';
import { caseView } from '@true-ledger/core/case';
import { addFiles } from './queue.js';
import { NoteLine } from '../notebook/NoteLine.js';
import { Recorder } from './Recorder.js';
import { UploadList } from './UploadList.js';
import { asProblem } from '../app/server.js';
import './capture.css';

/** The page for a phone: choose the place or let the tag say it, take pictures, go on. */
export function CapturePage({ me }: { me: Me }): ReactNode {
  const { caseId = '' } = useParams();
  const { error } = useGetCaseQuery(caseId);
  const state = useAppSelector((root) => selectCaseState(root, caseId));
  const view = state ? caseView(state) : null;
  const open = useMemo<OpenCase | null>(
    () => (state && view ? { caseId, state, view, me, diagnosis: null, lastKnown: false, readOnly: me.account.role === 'reader' } : null),
    [caseId, state, view, me],
  );
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
      <Capture />
    </CaseContext.Provider>
  );
}

/** Shots wanted at a place: those the strip asks for, and the usual ones of a part. */
function useShots(station: string): string[] {
  const { view } = useCase();
  const wanted = useMemo(
    () => stripStanding(view).plan.steps.flatMap((s) => s.shots.filter((x) => x.station === station).map((x) => x.what)),
    [view, station],
  );
  return [
    ...new Set([
      ...wanted,
      ...(station === '' ? ['front', 'rear', 'left side', 'right side'] : ['as found', 'face', 'back', 'close', 'with gauge']),
    ]),
  ];
}

function Capture(): ReactNode {
  const { view, caseId, me, readOnly } = useCase();
  const dispatch = useAppDispatch();
  const [search, setSearch] = useSearchParams();
  const station = search.get('station') ?? '';
  const [byTag, setByTag] = useState(search.get('station') === null);
  const shots = useShots(station);
  const shot = search.get('shot') ?? '';
  const held = station === '' ? view.photos : (view.byId.get(station)?.photos ?? []);
  const set = (next: Record<string, string>): void => setSearch({ station, shot, ...next }, { replace: true });
  const take = (files: readonly File[]): void => {
    void dispatch(
      addFiles(
        caseId,
        files.map((f) => {
          const clip = /^(audio|video)\//.test(f.type);
          return {
            blob: f,
            name: f.name,
            station: byTag && !clip ? null : station,
            shot: byTag ? '' : shot,
            kind: clip ? ('clip' as const) : ('photo' as const),
          };
        }),
        me,
      ),
    );
  };
  const input = (label: string, id: string, camera: boolean): ReactNode => (
    <label className={camera ? 'shutter primary' : 'shutter'}>
      {label}
      <input
        id={id}
        type="file"
        accept="image/*,.heic,.heif,audio/*,video/*"
        multiple={!camera}
        {...(camera ? { capture: 'environment' as const } : {})}
        aria-label={label}
        onChange={(e) => {
          take([...(e.target.files ?? [])]);
          e.target.value = '';
        }}
      />
    </label>
  );
  return (
    <main className="capture">
      <header>
        <Link to={`/case/${caseId}/pictures`} className="case-name">
          <span className="figure">{view.number}</span>
          <span className="case-title">{view.title}</span>
        </Link>
        <SaveState caseId={caseId} />
      </header>
      {readOnly ? (
        <p className="reader-note">You are reading this case; pictures are taken by builders.</p>
      ) : (
        <>
          <Checkbox checked={byTag} onChange={(e) => setByTag(e.target.checked)}>
            The part tag in the picture says where it belongs
          </Checkbox>
          {!byTag && (
            <>
              <label className="wide">
                <span>Place</span>
                <Select
                  size="large"
                  showSearch={{ optionFilterProp: 'label' }}
                  value={station}
                  aria-label="Place"
                  options={[
                    { value: '', label: 'The whole engine' },
                    ...view.stations.map((s) => ({ value: s.station.id, label: s.station.name })),
                  ]}
                  onChange={(v: string) => set({ station: v, shot: '' })}
                  style={{ width: '100%' }}
                />
              </label>
              <div className="shot-chips" role="radiogroup" aria-label="Shot">
                {shots.map((s) => {
                  const count = held.filter((p) => p.value.shot === s).length;
                  return (
                    <button
                      key={s}
                      type="button"
                      role="radio"
                      aria-checked={shot === s}
                      className={shot === s ? 'here' : count > 0 ? 'taken' : ''}
                      onClick={() => set({ shot: shot === s ? '' : s })}
                    >
                      {s} {count > 0 && <span className="figure">{count}</span>}
                    </button>
                  );
                })}
              </div>
              <p className="quiet">
                Raking light for scores, diffuse for colour, a mirror for the far side. <span className="figure">{held.length}</span> here
                already.
              </p>
            </>
          )}
          <div className="shutters">
            {input('Take picture', 'camera', true)}
            {input('Choose files', 'files', false)}
          </div>
          <Recorder station={byTag ? '' : station} />
          <NoteLine here={!byTag && view.byId.has(station) ? station : undefined} />
          {byTag && (
            <p className="quiet">
              Lay the tag beside the part, whole and flat. What has no tag, or one of another case, is set aside below.
            </p>
          )}
        </>
      )}
      <UploadList caseId={caseId} />
      <p>
        <Link to={`/case/${caseId}/bench`}>Bench</Link> · <Link to={`/case/${caseId}/strip`}>Strip</Link>
        {!readOnly && (
          <>
            {' '}
            ·{' '}
            <Button type="link" size="small" href={`/api/cases/${caseId}/tags.pdf`} target="_blank">
              Print tags
            </Button>
          </>
        )}
      </p>
    </main>
  );
}
