import type { Refusal } from '@true-ledger/contract';
import { finishJson, finishWords, type FinishResult } from '@true-ledger/core/measure';
import { Alert, Button, Select, Spin, Table, Upload } from 'antd';
import { useEffect, useState, type ReactNode } from 'react';
import { saveBlob } from '../app/saveBlob.js';
import { compute } from '../workers/compute.js';
import { AbbottChart, ProfileChart, type Shown } from './FinishCharts.js';
import { fetchFile } from '../app/server.js';
import './finish.css';

/** A trace file is read whole in the worker; two million points take about this much. */
const MOST_BYTES = 64 * 1024 * 1024;
const EXAMPLES = {
  trace: new URL('../../../docs/formats/examples/finish/ring-travel.csv', import.meta.url),
  reference: new URL('../../../docs/formats/examples/finish/below-travel.csv', import.meta.url),
};
const CUTOFFS = [0.08, 0.25, 0.8, 2.5];
const ROWS = [
  ['Ra', 'mean height', 'µm'],
  ['Rq', 'root mean square', 'µm'],
  ['Rz', 'peak to valley', 'µm'],
  ['Rsk', 'skewness', ''],
  ['Rpk', 'peaks', 'µm'],
  ['Rk', 'core', 'µm'],
  ['Rvk', 'valleys', 'µm'],
  ['Mr1', 'peaks end at', '%'],
  ['Mr2', 'valleys begin at', '%'],
] as const satisfies ReadonlyArray<readonly [keyof FinishResult, string, string]>;

type Slot = 'trace' | 'reference';
type Outcome = { readonly shown: Shown | null; readonly problem: Refusal | null };
const NOTHING: Outcome = { shown: null, problem: null };

/** Computes a file in the worker whenever it or the cut-off changes; an answer that is no longer wanted is dropped. */
function useFinish(file: File | null, cutoff: number): Outcome & { readonly busy: boolean } {
  const [answer, setAnswer] = useState<{ readonly of: File | null; readonly cutoff: number; readonly outcome: Outcome }>({
    of: null,
    cutoff,
    outcome: NOTHING,
  });
  useEffect(() => {
    if (!file) return;
    let gone = false;
    const tell = (outcome: Outcome): void => {
      if (!gone) setAnswer({ of: file, cutoff, outcome });
    };
    const problem = (sentence: string): void => tell({ shown: null, problem: { code: 'trace', sentence } });
    if (file.size > MOST_BYTES) problem(`"${file.name}" is larger than 64 MB. Thin the trace out, or cut it, and take it again.`);
    else
      void compute()
        .finish(file, cutoff)
        .then(
          (r) => tell(r.ok ? { shown: { name: file.name, ...r.value }, problem: null } : { shown: null, problem: r.problem }),
          () => problem(`"${file.name}" could not be read. Is it still where it was?`),
        );
    return () => {
      gone = true;
    };
  }, [file, cutoff]);
  const fresh = answer.of === file && answer.cutoff === cutoff;
  return { ...(file && fresh ? answer.outcome : NOTHING), busy: file !== null && !fresh };
}

/** Surface finish of a profile trace, alone or against one below ring travel. Nothing is stored. */
export function Finish(): ReactNode {
  const [files, setFiles] = useState<Readonly<Record<Slot, File | null>>>({ trace: null, reference: null });
  const [cutoff, setCutoff] = useState(0.8);
  const [fault, setFault] = useState<string | null>(null);
  const trace = useFinish(files.trace, cutoff);
  const reference = useFinish(files.reference, cutoff);
  const t = trace.shown;
  const r = reference.shown;

  const examples = async (): Promise<void> => {
    try {
      const fetched = await Promise.all(
        (['trace', 'reference'] as const).map(async (slot) => {
          const file = await fetchFile(String(EXAMPLES[slot]));
          if (!file.ok) throw new Error(file.problem.code);
          return new File([file.value.blob], slot === 'trace' ? 'ring-travel.csv' : 'below-travel.csv');
        }),
      );
      setFault(null);
      setFiles({ trace: fetched[0]!, reference: fetched[1]! });
    } catch {
      setFault('The example traces could not be fetched: the server does not answer. Try again when it does.');
    }
  };
  const slot = (which: Slot, words: string): ReactNode => (
    <span className="row">
      <Upload
        accept=".csv,.txt,text/csv,text/plain"
        showUploadList={false}
        beforeUpload={(file) => {
          setFiles((f) => ({ ...f, [which]: file }));
          return false;
        }}
      >
        <Button>{words}</Button>
      </Upload>
      {files[which] && (
        <>
          <span className="quiet">{files[which].name}</span>
          <Button size="small" aria-label={`Take away ${files[which].name}`} onClick={() => setFiles((f) => ({ ...f, [which]: null }))}>
            Take away
          </Button>
        </>
      )}
    </span>
  );

  return (
    <div className="page">
      <div className="page-head">
        <h1>Surface finish</h1>
        {slot('trace', 'Open trace')}
        {slot('reference', 'Open reference')}
        <label className="row">
          <span className="quiet">Cut-off</span>
          <Select
            aria-label="Cut-off"
            value={cutoff}
            style={{ width: 112 }}
            options={CUTOFFS.map((value) => ({ value, label: `${value} mm` }))}
            onChange={setCutoff}
          />
        </label>
        <Button
          disabled={!t}
          onClick={() =>
            t && saveBlob('finish.json', new Blob([JSON.stringify(finishJson(t.finish, r?.finish), null, 2)], { type: 'application/json' }))
          }
        >
          Save figures
        </Button>
        {(trace.busy || reference.busy) && <Spin size="small" aria-label="Computing" />}
      </div>
      {fault && <Alert type="error" title={fault} showIcon />}
      {trace.problem && <Alert type="error" title={`Trace: ${trace.problem.sentence}`} showIcon />}
      {reference.problem && <Alert type="error" title={`Reference: ${reference.problem.sentence}`} showIcon />}
      {!files.trace && (
        <section className="pane">
          <h2>No trace yet</h2>
          <p>
            A profile trace is a text file of two columns, the way along the surface in mm and the height in µm. A second one, taken below
            ring travel, shows what running has taken off.
          </p>
          <Button onClick={() => void examples()}>Show two example traces</Button>
        </section>
      )}
      {t && (
        <div className="finish-grid">
          <section className="pane" aria-label="Figures">
            <h2>
              {finishWords(t.finish)[0]} <span className="quiet">rule of thumb</span>
            </h2>
            {r &&
              finishWords(t.finish, r.finish)
                .slice(1)
                .map((w) => <p key={w}>{w}</p>)}
            <Table
              size="small"
              pagination={false}
              rowKey="0"
              dataSource={ROWS.map((row) => [...row])}
              columns={[
                {
                  title: 'Parameter',
                  render: (_, [id, name]) => (
                    <>
                      <b>{id}</b> <span className="quiet">{name}</span>
                    </>
                  ),
                },
                {
                  title: 'Trace',
                  align: 'right' as const,
                  className: 'figure nowrap',
                  render: (_, [id, , unit]) => show(t.finish, id!, unit!),
                },
                ...(r
                  ? [
                      {
                        title: 'Reference',
                        align: 'right' as const,
                        className: 'figure nowrap',
                        render: (_: unknown, [id, , unit]: string[]) => show(r.finish, id!, unit!),
                      },
                    ]
                  : []),
              ]}
            />
            {t.finish.notes.map((n) => (
              <p className="quiet" key={n}>
                {n}
              </p>
            ))}
          </section>
          <section className="pane" aria-label="Curves">
            <ProfileChart trace={t} reference={r} />
            <AbbottChart trace={t} reference={r} />
          </section>
        </div>
      )}
    </div>
  );
}

function show(finish: FinishResult, id: string, unit: string): string {
  const value = finish[id as (typeof ROWS)[number][0]];
  return `${value.toFixed(unit === '%' ? 1 : unit === '' ? 2 : 3)} ${unit}`.trim().replace('-', '−');
}
