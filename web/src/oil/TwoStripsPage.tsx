import { Alert, Button, Segmented, Select, Table } from 'antd';
import type { EngineLogAnswer, Me } from '@true-ledger/contract';
import { stripsCsv, testEffect, twoStrips, type PlaceStood, type PlaceTwice, type TwoStrips } from '@true-ledger/core/across';
import { caseView, type CaseView } from '@true-ledger/core/case';
import { gradeText } from '@true-ledger/core/damage';
import { PART_NAMES, type PartClass } from '@true-ledger/core/engine';
import { linesOf, standingLines } from '@true-ledger/core/engineLog';
import { lineText } from '@true-ledger/core/measure';
import { useMemo, useState, type ReactNode } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { useEngineQuery, useGetCaseQuery } from '../app/api.js';
import { saveBlob } from '../app/saveBlob.js';
import { asProblem } from '../app/server.js';
import { Waiting } from '../app/Waiting.js';
import { ComparedSurface, type Cursor, type Shown } from '../stages/compare/ComparedSurface.js';
import { isPhotographed, useSurfaceImages, type SurfaceImages } from '../surface/surfaceImages.js';
import { expectedWords } from './lineWords.js';
import { TestForm } from './TestForm.js';
import './twoStrips.css';

const PICTURE_PX = 1120;
const SURFACE_PX = 560;

/** Two strips of one engine side by side, and what came of what was changed between them on purpose. */
export function TwoStripsPage({ me }: { me: Me }): ReactNode {
  const { engineId = '' } = useParams();
  const { data, error } = useEngineQuery(engineId);
  if (error) return <Alert type="error" role="alert" title={asProblem(error).sentence} />;
  if (!data) return <Waiting what="Fetching the engine" />;
  return <Chosen engine={data} mayWrite={me.account.role !== 'reader' && data.mergedInto === null} />;
}

function Chosen({ engine, mayWrite }: { engine: EngineLogAnswer; mayWrite: boolean }): ReactNode {
  const [query, setQuery] = useSearchParams();
  const cases = useMemo(() => [...engine.cases].sort((a, b) => a.number.localeCompare(b.number, 'en')), [engine.cases]);
  const after = cases.find((c) => c.id === query.get('after')) ?? cases.at(-1);
  const before = cases.find((c) => c.id === query.get('before') && c !== after) ?? cases[cases.indexOf(after!) - 1];
  const set = (key: string, value: string): void => {
    query.set(key, value);
    setQuery(query, { replace: true });
  };
  const options = cases.map((c) => ({ value: c.id, label: `${c.number} ${c.title}` }));
  const pick = (key: 'before' | 'after', label: string, value: string | undefined, not: string | undefined): ReactNode => (
    <label>
      <span>{label}</span>
      <Select
        aria-label={label}
        style={{ width: 320 }}
        value={value ?? null}
        placeholder="none"
        options={options.filter((o) => o.value !== not)}
        onChange={(id: string) => set(key, id)}
      />
    </label>
  );
  return (
    <div className="page two-strips">
      <div className="page-head">
        <h1>
          <span className="figure">{engine.record.mark}</span> Strips side by side
        </h1>
        <Link to={`/oil/${engine.id}`}>Log of {engine.record.name}</Link>
      </div>
      {after === undefined ? (
        <p className="quiet">No case hangs on this engine yet. On the Intake page of a case, say that it is this engine.</p>
      ) : (
        <>
          <div className="row strips-chosen">
            {pick('before', 'The strip before', before?.id, after.id)}
            {pick('after', 'This strip', after.id, before?.id)}
          </div>
          <Fetched key={`${before?.id} ${after.id}`} engine={engine} before={before?.id ?? null} after={after.id} mayWrite={mayWrite} />
        </>
      )}
    </div>
  );
}

function Fetched({
  engine,
  before,
  after,
  mayWrite,
}: {
  engine: EngineLogAnswer;
  before: string | null;
  after: string;
  mayWrite: boolean;
}): ReactNode {
  const was = useGetCaseQuery(before ?? '', { skip: before === null });
  const is = useGetCaseQuery(after);
  const views = useMemo(
    () => [was.data, is.data].map((c) => (c ? caseView(c.state) : null)) as [CaseView | null, CaseView | null],
    [was.data, is.data],
  );
  const failed = was.error ?? is.error;
  if (failed) return <Alert type="error" role="alert" title={asProblem(failed).sentence} />;
  const [then, now] = views;
  if (!now || (before !== null && !then)) return <Waiting what="Fetching both strips" />;
  return <Strips engine={engine} before={then} after={now} mayWrite={mayWrite} />;
}

function Strips({
  engine,
  before,
  after,
  mayWrite,
}: {
  engine: EngineLogAnswer;
  before: CaseView | null;
  after: CaseView;
  mayWrite: boolean;
}): ReactNode {
  // Without a strip before, the strip beside itself still shows how its places stand.
  const strips = useMemo(() => twoStrips(before ?? after, after), [before, after]);
  const tests = useMemo(() => linesOf(standingLines(engine.lines), 'test'), [engine.lines]);
  const [writing, setWriting] = useState(false);
  return (
    <>
      <section className="pane" aria-label="Tests">
        <h2>
          What was changed on purpose{' '}
          {mayWrite && (
            <Button size="small" onClick={() => setWriting(true)}>
              Set up a test
            </Button>
          )}
        </h2>
        {tests.length === 0 && (
          <p className="quiet">
            Nothing yet. Write down what is changed, at which places, and what is expected of it, before the engine runs again: what is
            found at the next strip is then held against it.
          </p>
        )}
        {tests.map((test) => {
          const { name, what, changed, places, part, figure, expected, by } = test.body;
          const effect = before || places.length > 0 ? testEffect(test, strips, after) : null;
          return (
            <article key={test.id} className="engine-test" data-came={effect?.came}>
              <h3>
                {name} <span className="quiet figure">{test.day}</span>
              </h3>
              <p>
                {what || `Changed: ${changed}.`} {places.length > 0 ? `At ${places.length} places` : 'In the whole engine'}; looked at:{' '}
                {PART_NAMES[part].toLowerCase()}. Expected: {expectedWords(expected, by, figure)}.
              </p>
              {effect ? (
                <p>{effect.words}</p>
              ) : (
                <p className="quiet">The whole engine was changed: it needs the strip before beside this one.</p>
              )}
              {effect && effect.mind.length > 0 && (
                <ul className="quiet">
                  {effect.mind.map((m) => (
                    <li key={m}>{m}</li>
                  ))}
                </ul>
              )}
            </article>
          );
        })}
        {writing && <TestForm engine={engine} layout={after.layout} onDone={() => setWriting(false)} />}
      </section>
      {before ? (
        <>
          <SideBySide strips={strips} before={before} after={after} tested={new Set(tests.flatMap((t) => t.body.places))} />
          <Measured measured={strips.measured} />
          <div className="row">
            <Button
              onClick={() =>
                saveBlob(`${engine.record.mark}-strips.csv`, new Blob([`\ufeff${stripsCsv(strips)}`], { type: 'text/csv;charset=utf-8' }))
              }
            >
              As CSV
            </Button>
          </div>
        </>
      ) : (
        <p className="quiet">Only one strip hangs on this engine: there is nothing to lay beside it yet.</p>
      )}
    </>
  );
}

function SideBySide({
  strips,
  before,
  after,
  tested,
}: {
  strips: TwoStrips;
  before: CaseView;
  after: CaseView;
  tested: ReadonlySet<string>;
}): ReactNode {
  const parts = [...new Set(strips.places.map((p) => p.station.part))];
  const [query, setQuery] = useSearchParams();
  const part = parts.find((p) => p === query.get('part')) ?? parts[0];
  const [shown, setShown] = useState<Shown>('both');
  const [cursor, setCursor] = useState<Cursor | null>(null);
  const [was, is] = [useSurfaceImages(before.caseId), useSurfaceImages(after.caseId)];
  if (!part)
    return (
      <section className="pane">
        <p className="quiet">Nothing was looked at in either strip yet.</p>
      </section>
    );
  const places = strips.places.filter((p) => p.station.part === part);
  const widest = Math.max(1, ...places.flatMap((p) => p.station.surface?.widthMm ?? []));
  const hasSurface = (view: CaseView, id: string): boolean => {
    const own = view.byId.get(id);
    return own !== undefined && (own.charted || isPhotographed(own));
  };
  const pictured = places.filter((p) => hasSurface(before, p.station.id) || hasSurface(after, p.station.id));
  const side = (view: CaseView, images: SurfaceImages, { station }: PlaceTwice, of: string): ReactNode => {
    const own = view.byId.get(station.id);
    if (!own?.station.surface)
      return (
        <section className="pane" aria-label={`${station.name}, ${of}`}>
          <h2>{station.name}</h2>
          <p className="quiet">Not in that engine as it was laid out then.</p>
        </section>
      );
    return (
      <ComparedSurface
        caseId={view.caseId}
        of={of}
        station={own}
        reference={null}
        like={own}
        shown={shown}
        window={{ u: [0, 1], v: [0, 1] }}
        px={SURFACE_PX}
        photographed={images.photographed(own, PICTURE_PX)}
        widest={widest}
        cursor={cursor}
        onCursor={setCursor}
        alike={null}
        onRemove={null}
      />
    );
  };
  return (
    <>
      <div className="row">
        <Select
          aria-label="Kind of part"
          style={{ width: 220 }}
          value={part}
          options={parts.map((value) => ({ value, label: PART_NAMES[value] }))}
          onChange={(value: PartClass) => {
            query.set('part', value);
            setQuery(query, { replace: true });
          }}
        />
        {pictured.length > 0 && (
          <Segmented
            value={shown}
            onChange={setShown}
            options={[
              { value: 'picture', label: 'Picture' },
              { value: 'map', label: 'What was read and drawn' },
              { value: 'both', label: 'Both' },
            ]}
          />
        )}
      </div>
      <section className="pane" aria-label="Place by place">
        <h2>Place by place</h2>
        <Table<PlaceTwice>
          rowKey={(p) => p.station.id}
          size="small"
          pagination={false}
          scroll={{ x: 'max-content' }}
          dataSource={places}
          columns={[
            {
              title: 'Place',
              render: (_, p) => (
                <>
                  {p.station.name} {tested.has(p.station.id) && <b>changed on purpose</b>}
                </>
              ),
            },
            { title: before.number, className: 'figure', render: (_, p) => stoodWords(p.before) },
            { title: after.number, className: 'figure', render: (_, p) => stoodWords(p.after) },
            { title: 'Change', className: 'figure', render: (_, p) => changeWords(p) },
          ]}
        />
      </section>
      {pictured.length > 0 && (
        <div className="strips-grid">
          {pictured.flatMap((p) => [
            <div key={`${p.station.id} before`}>{side(before, was, p, before.number)}</div>,
            <div key={`${p.station.id} after`}>{side(after, is, p, after.number)}</div>,
          ])}
        </div>
      )}
    </>
  );
}

const stoodWords = (s: PlaceStood | null): string =>
  s === null
    ? 'not looked at'
    : [s.grade === null ? 'no grade' : gradeText(s.grade), s.damage === null ? '' : `${s.damage.toFixed(1)} %`].filter(Boolean).join(', ');

function changeWords({ before, after }: PlaceTwice): string {
  const signed = (x: number, digits: number): string => (x > 0 ? '+' : '') + x.toFixed(digits).replace('-', '−');
  const change = (figure: keyof PlaceStood): number | null => {
    const [was, is] = [before?.[figure] ?? null, after?.[figure] ?? null];
    return was === null || is === null ? null : is - was;
  };
  const [grade, damage] = [change('grade'), change('damage')];
  const said = [
    grade === null ? '' : grade === 0 ? 'same grade' : `${signed(grade, 0)} grades`,
    damage === null ? '' : `${signed(damage, 1)} points of the face`,
  ];
  return said.filter(Boolean).join(', ') || '–';
}

function Measured({ measured }: { measured: TwoStrips['measured'] }): ReactNode {
  if (measured.length === 0) return <p className="quiet">No figure was measured in both strips.</p>;
  const clear = measured.filter((m) => m.clear).length;
  return (
    <section className="pane" aria-label="Measured in both">
      <h2>
        Measured in both{' '}
        <span className="quiet">
          {clear} of {measured.length} changed by more than the gauges can explain
        </span>
      </h2>
      <Table<TwoStrips['measured'][number]>
        rowKey={(m) => `${m.place} ${m.after.id} ${m.after.at}`}
        size="small"
        pagination={measured.length > 30 ? { pageSize: 30, showSizeChanger: false } : false}
        scroll={{ x: 'max-content' }}
        dataSource={[...measured].sort((a, b) => Number(b.clear) - Number(a.clear))}
        columns={[
          { title: 'Place', render: (_, m) => m.place },
          { title: 'Figure', width: 280, render: (_, m) => [m.after.name, m.after.at].filter(Boolean).join(', ') },
          { title: 'Before', className: 'figure', render: (_, m) => lineText(m.before) },
          { title: 'Now', className: 'figure', render: (_, m) => lineText(m.after) },
          {
            title: 'Change',
            className: 'figure',
            render: (_, m) => {
              const words = lineText({ ...m.after, value: m.change, expanded: m.expanded, signed: true });
              return m.clear ? <b>{words}</b> : <span className="quiet">{words}, not clear</span>;
            },
          },
        ]}
      />
    </section>
  );
}
