import { Button, Input, Select } from 'antd';
import { fitting, shelfName } from '@true-ledger/core/across';
import { standingGrade, type CaseView } from '@true-ledger/core/case';
import { lineText, measureProgram } from '@true-ledger/core/measure';
import { measurePlace } from '@true-ledger/core/measured';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { Dialog } from '../../app/Dialog.js';
import { usePartsShelfQuery } from '../../app/api.js';
import { useCase, useRecord } from '../../app/caseContext.js';

/** What a place measured at, in words, as far as its sheets were read. */
function measuredWords(view: CaseView, station: string): string {
  const lines = measureProgram(view.layout)
    .filter((p) => p.station === station)
    .flatMap((p) => measurePlace(view, p).outcome?.lines ?? []);
  return lines
    .slice(0, 3)
    .map((l) => `${l.name.toLowerCase()} ${lineText(l)}`)
    .join('; ')
    .slice(0, 200);
}

/** What this strip leaves good for another engine, and what it still has to find. */
export function ShelfParts(): ReactNode {
  const { view, caseId, readOnly } = useCase();
  const record = useRecord();
  const { data } = usePartsShelfQuery(undefined, { refetchOnMountOrArgChange: true });
  const [adding, setAdding] = useState<'kept' | 'wanted' | null>(null);
  const kept = view.stations.filter((s) => s.kept?.value.kept);
  const wanted = view.stations.filter((s) => s.wanted && s.wanted.value.state !== 'given-up');
  return (
    <section className="pane" aria-label="Parts shelf">
      <div className="row decide-head">
        <h2>Parts shelf</h2>
        {!readOnly && (
          <>
            <Button size="small" onClick={() => setAdding('kept')}>
              Keep a part
            </Button>
            <Button size="small" onClick={() => setAdding('wanted')}>
              Want a part
            </Button>
          </>
        )}
        <Link to="/parts">The shop’s shelf</Link>
      </div>
      {kept.length === 0 && wanted.length === 0 && (
        <p className="quiet">
          A good part of an engine that is not built again can be kept for another. What is wanted holds the case as waiting for parts.
        </p>
      )}
      <ul className="shelf-parts">
        {kept.map(({ station, kept: held }) => (
          <li key={station.id}>
            <b>Kept</b> {held!.value.name}
            <span className="quiet">
              {[held!.value.size, held!.value.place && `lies ${held!.value.place}`].filter(Boolean).map((x) => `, ${x}`)}
            </span>{' '}
            {!readOnly && (
              <Button
                size="small"
                type="text"
                onClick={() => record({ kind: 'part-kept', station: station.id, body: { ...held!.value, kept: false } })}
              >
                Not on the shelf any more
              </Button>
            )}
          </li>
        ))}
        {wanted.map(({ station, wanted: asked }) => {
          const { what, state, from } = asked!.value;
          const set = (to: Partial<NonNullable<typeof asked>['value']>): void =>
            record({ kind: 'part-wanted', station: station.id, body: { ...asked!.value, ...to } });
          const fits = state === 'wanted' ? fitting(data?.kept ?? [], caseId, view.layout.template, station.id) : [];
          return (
            <li key={station.id}>
              <b>{state === 'had' ? 'Had' : 'Wanted'}</b> {what}{' '}
              <span className="quiet">
                for {station.name}
                {from && `, from ${from}`}
              </span>{' '}
              {!readOnly && state === 'wanted' && (
                <>
                  <Button size="small" type="text" onClick={() => set({ state: 'had' })}>
                    It came
                  </Button>
                  <Button size="small" type="text" onClick={() => set({ state: 'given-up' })}>
                    Give it up
                  </Button>
                </>
              )}
              {!readOnly && state === 'had' && (
                <Button size="small" type="text" onClick={() => set({ state: 'wanted', from: '', shelf: null })}>
                  Not after all
                </Button>
              )}
              {fits.map((k) => (
                <p key={shelfName(k)} className="shelf-fit">
                  On the shelf: {[k.name, k.size, k.place && `lies ${k.place}`].filter(Boolean).join(', ')}, from{' '}
                  <Link to={`/case/${k.caseId}/station/${k.station}`}>{k.number}</Link>.{' '}
                  {!readOnly && (
                    <Button
                      size="small"
                      onClick={() => set({ state: 'had', from: `${k.number}, ${k.name}`.slice(0, 120), shelf: shelfName(k) })}
                    >
                      Take it
                    </Button>
                  )}
                </p>
              ))}
            </li>
          );
        })}
      </ul>
      {adding && <AddPart as={adding} onDone={() => setAdding(null)} />}
    </section>
  );
}

function AddPart({ as, onDone }: { as: 'kept' | 'wanted'; onDone: () => void }): ReactNode {
  const { view } = useCase();
  const record = useRecord();
  const [station, setStation] = useState<string | null>(null);
  const [words, setWords] = useState({ name: '', size: '', place: '', note: '' });
  const free = view.stations.filter((s) => (as === 'kept' ? !s.kept?.value.kept : s.wanted?.value.state !== 'wanted'));
  const choose = (id: string): void => {
    setStation(id);
    setWords({ ...words, name: view.byId.get(id)!.station.name, size: as === 'kept' ? measuredWords(view, id) : '' });
  };
  const chosen = station === null ? undefined : view.byId.get(station);
  const grade = chosen ? standingGrade(chosen) : null;
  const keep = (): void => {
    if (station === null) return;
    const name = words.name.trim();
    if (as === 'kept') record({ kind: 'part-kept', station, body: { ...words, name, kept: true } });
    else record({ kind: 'part-wanted', station, body: { what: name, state: 'wanted', from: '', shelf: null } });
    onDone();
  };
  const field = (key: keyof typeof words, label: string, max: number): ReactNode => (
    <label className="wide">
      <span>{label}</span>
      <Input value={words[key]} maxLength={max} onChange={(e) => setWords({ ...words, [key]: e.target.value })} />
    </label>
  );
  return (
    <Dialog
      open
      title={as === 'kept' ? 'Keep a part for another engine' : 'A part that is wanted'}
      okText={as === 'kept' ? 'Keep it' : 'Want it'}
      okButtonProps={{ disabled: station === null || words.name.trim() === '' }}
      onOk={keep}
      onCancel={onDone}
    >
      <div className="fields">
        <label className="wide">
          <span>{as === 'kept' ? 'Which part' : 'For which place'}</span>
          <Select
            showSearch={{ optionFilterProp: 'label' }}
            aria-label={as === 'kept' ? 'Which part' : 'For which place'}
            value={station}
            placeholder="choose"
            options={free.map((s) => ({ value: s.station.id, label: s.station.name }))}
            onChange={choose}
          />
        </label>
        {field('name', as === 'kept' ? 'What it is called' : 'What is wanted', 120)}
        {as === 'kept' && field('size', 'What it measures', 200)}
        {as === 'kept' && field('place', 'Where it lies', 60)}
        {as === 'kept' && field('note', 'Note', 600)}
      </div>
      {as === 'kept' && chosen && (grade === null || grade >= 2) && (
        <p className="quiet">
          {grade === null
            ? 'Nobody graded it yet: say so to whoever takes it.'
            : `It is graded ${grade}. Kept all the same, its grade goes with it only in the case it came from.`}
        </p>
      )}
    </Dialog>
  );
}
