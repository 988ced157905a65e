import { App, Button, Select, Upload } from 'antd';
import type { EngineLogAnswer } from '@true-ledger/contract';
import {
  LABORATORY_FAULTS,
  readResultsCsv,
  species,
  type LaboratoryFault,
  type LineDraft,
  type LogReading,
  type ReadSample,
  type ResultDoubt,
} from '@true-ledger/core/engineLog';
import { useState, type ReactNode } from 'react';
import { useCollectSamplesMutation, useSendSampleMutation } from '../app/api.js';
import { saveBlob } from '../app/saveBlob.js';
import { asProblem, fetchFile } from '../app/server.js';

const FAULT_NAMES: Readonly<Record<LaboratoryFault, string>> = {
  none: 'does it right',
  late: 'is late',
  lost: 'loses it',
  swapped: 'swaps the reference',
  slipped: 'slips a decimal point',
  'other-units': 'reports other units',
};

/** Samples with what their results say, or why they are held back; results come typed, by CSV, or from the stand-in of a laboratory. */
export function SamplesPane({
  answer,
  reading,
  mayWrite,
  onWrite,
}: {
  answer: EngineLogAnswer;
  reading: LogReading;
  mayWrite: boolean;
  onWrite: (lines: ReadonlyArray<Omit<LineDraft, 'id'>>) => Promise<boolean>;
}): ReactNode {
  const [send, { isLoading: sending }] = useSendSampleMutation();
  const [collect, { isLoading: collecting }] = useCollectSamplesMutation();
  const [fault, setFault] = useState<LaboratoryFault>('none');
  const { message } = App.useApp();
  const [today] = useState(() => new Date().toISOString().slice(0, 10));
  const said = (e: unknown): void => void message.error(asProblem(e).sentence, 8);
  const takeCsv = async (file: File): Promise<void> => {
    const read = readResultsCsv(await file.text());
    if (!read.ok) return void message.error(read.problem.sentence, 10);
    const done = await onWrite(
      read.value.map((result) => ({ kind: 'result', day: today, counter: null, supersedes: null, body: { ...result, insisted: false } })),
    );
    if (done) void message.info(`${read.value.length} result${read.value.length === 1 ? '' : 's'} written into the log.`);
  };
  const label = async (reference: string): Promise<void> => {
    const file = await fetchFile(`/api/engines/${answer.id}/label.pdf?reference=${encodeURIComponent(reference)}`);
    if (file.ok) saveBlob(`sample-${reference}.pdf`, file.value.blob);
    else void message.error(file.problem.sentence, 8);
  };
  const bare = reading.samples.filter((s) => !s.result && !answer.awaited.includes(s.line.body.reference));
  return (
    <section className="pane" aria-label="Samples">
      <h2>
        Samples{' '}
        {mayWrite && (
          <Upload accept=".csv,text/csv" showUploadList={false} beforeUpload={(file) => (void takeCsv(file), false)}>
            <Button size="small">Results from CSV</Button>
          </Upload>
        )}
        {mayWrite && answer.awaited.length > 0 && (
          <Button size="small" loading={collecting} onClick={() => void collect(answer.id).unwrap().catch(said)}>
            Ask the laboratory for {answer.awaited.length}
          </Button>
        )}
      </h2>
      {reading.samples.length > 0 && <p className="quiet">A single clean sample cannot clear the bearings; what counts is the trend.</p>}
      {reading.samples.length === 0 && (
        <p className="quiet">
          No sample was drawn yet. Write one into the log: hot, from the middle of the stream, under a reference that names nobody.
        </p>
      )}
      {mayWrite && bare.length > 0 && (
        <div className="row">
          <span className="quiet">The stand-in of a laboratory</span>
          <Select
            aria-label="What the laboratory does"
            size="small"
            style={{ width: 200 }}
            value={fault}
            options={LABORATORY_FAULTS.map((value) => ({ value, label: FAULT_NAMES[value] }))}
            onChange={setFault}
          />
        </div>
      )}
      {[...reading.samples].reverse().map((s) => (
        <SampleLines
          key={s.line.id}
          sample={s}
          awaited={answer.awaited.includes(s.line.body.reference)}
          mayWrite={mayWrite}
          sending={sending}
          onLabel={() => void label(s.line.body.reference)}
          onSend={() => void send({ id: answer.id, reference: s.line.body.reference, fault }).unwrap().catch(said)}
          onWrite={onWrite}
        />
      ))}
    </section>
  );
}

function SampleLines({
  sample: s,
  awaited,
  mayWrite,
  sending,
  onLabel,
  onSend,
  onWrite,
}: {
  sample: ReadSample;
  awaited: boolean;
  mayWrite: boolean;
  sending: boolean;
  onLabel: () => void;
  onSend: () => void;
  onWrite: (lines: ReadonlyArray<Omit<LineDraft, 'id'>>) => Promise<boolean>;
}): ReactNode {
  const { result } = s;
  /** The result written anew in its own place. */
  const again = (part: object): void => {
    if (!result) return;
    const { simulated: _how, ...body } = result.body;
    void onWrite([{ kind: 'result', day: result.day, counter: null, supersedes: result.id, body: { ...body, ...part } }]);
  };
  const strike = (why: string): void => {
    if (result) void onWrite([{ kind: 'struck', day: result.day, counter: null, supersedes: result.id, body: { why } }]);
  };
  const put = (d: ResultDoubt): ReactNode => {
    const { offer } = d;
    if (!offer) return null;
    if ('engine' in offer)
      return (
        <Button size="small" onClick={() => strike(`The laboratory swapped references: it is of ${offer.engine}`)}>
          Take it back: it is of {offer.engine}
        </Button>
      );
    const figures = Object.entries(offer.figures);
    return (
      <Button size="small" onClick={() => again({ figures: { ...result!.body.figures, ...offer.figures } })}>
        {figures.length === 1 ? `Write ${figures[0]![1]} for ${species(figures[0]![0])!.name}` : `Put ${figures.length} figures right`}
      </Button>
    );
  };
  const told = s.verdicts.filter((v) => v.word !== 'within');
  return (
    <div className="sample" data-held={result !== null && !s.counts}>
      <div className="row">
        <b className="figure">{s.line.body.reference}</b>
        <span className="figure quiet">{s.line.day}</span>
        <span className="quiet">{s.inOil === null ? 'service in the oil not known' : `${Math.round(s.inOil)} in the oil`}</span>
        {!result && <span>{awaited ? 'at the laboratory' : 'no result yet'}</span>}
        {result?.body.simulated && <span className="quiet">simulated</span>}
        {mayWrite && !result && !awaited && (
          <>
            <Button size="small" onClick={onLabel}>
              Print label and form
            </Button>
            <Button size="small" loading={sending} onClick={onSend}>
              Send to the stand-in
            </Button>
          </>
        )}
      </div>
      {s.doubts.map((d) => (
        <div key={d.words} className="row">
          <span className={s.counts ? 'quiet' : 'fault'}>{d.words}</span>
          {mayWrite && !s.counts && put(d)}
        </div>
      ))}
      {mayWrite && result && !s.counts && (
        <div className="row">
          <Button size="small" onClick={() => again({ insisted: true })}>
            Let it stand
          </Button>
          <Button size="small" onClick={() => strike('Not of this sample')}>
            Take it back
          </Button>
        </div>
      )}
      {s.counts && (
        <p>
          {s.sources.length > 0 && <b className="fault">Points to {s.sources.map((x) => x.name).join('; ')}. </b>}
          {told.length === 0
            ? s.verdicts.length > 0
              ? 'All within.'
              : 'No figure of it is held against a limit.'
            : told
                .map(
                  (v) =>
                    `${species(v.species)!.name} ${v.value.toPrecision(2)} ${v.word === 'beyond' ? 'beyond' : 'watched, limit'} ${v.limit.toPrecision(2)} (${v.from})`,
                )
                .join(', ')}
        </p>
      )}
    </div>
  );
}
