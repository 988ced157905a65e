import { App, Button, Select } from 'antd';
import { LINE_NAMES, standingLines } from '@true-ledger/core/engineLog';
import { oilAgainstMetal } from '@true-ledger/core/diagnosis';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useCaseEngineQuery, useEngineQuery, useEnginesQuery, useHangCaseMutation } from '../../app/api.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import { asProblem } from '../../app/server.js';

/** Which engine of the shop this is, and its log as the case took it over. */
export function EnginePane(): ReactNode {
  const { caseId, view, readOnly } = useCase();
  const record = useRecord();
  const { message } = App.useApp();
  const { data: hangs } = useCaseEngineQuery(caseId);
  const { data: engines = [] } = useEnginesQuery(undefined, { skip: readOnly });
  const engine = hangs?.engine ?? null;
  const { data: log } = useEngineQuery(engine?.id ?? '', { skip: !engine });
  const [hang, { isLoading }] = useHangCaseMutation();
  if (!hangs || (readOnly && !engine)) return null;
  const taken = view.oilLog?.value.log ?? null;
  const stands = log ? standingLines(log.lines) : [];
  const isBehind = log !== undefined && taken !== null && log.lines.length !== taken.lines.length;
  const before = log?.cases.filter((c) => c.id !== caseId) ?? [];
  const last = stands.at(-1);
  const against = oilAgainstMetal(view);
  return (
    <section className="pane engine-pane" aria-label="Engine and its log">
      <h2>Engine and its log</h2>
      {!readOnly && (
        <label className="wide">
          <span>This engine is</span>
          <Select
            showSearch
            allowClear
            optionFilterProp="label"
            aria-label="This engine is"
            placeholder="one without a record of its own"
            loading={isLoading}
            value={engine?.id ?? null}
            options={engines.map((e) => ({ value: e.id, label: `${e.record.mark} ${e.record.name}` }))}
            onChange={(id?: string) =>
              void hang({ caseId, engine: id ?? null })
                .unwrap()
                .catch((e: unknown) => void message.error(asProblem(e).sentence, 8))
            }
          />
        </label>
      )}
      {engine ? (
        <p>
          <Link to={`/oil/${engine.id}`}>
            <span className="figure">{engine.mark}</span> {engine.name}
          </Link>
          {last ? `: ${stands.length} lines, the last on ${last.day} (${LINE_NAMES[last.kind].toLowerCase()})` : ': its log is empty'}
        </p>
      ) : (
        <p className="quiet">
          An engine that comes again is known by its record: its oil log speaks in the causes, and what was it last time stands beside.
        </p>
      )}
      {before.length > 0 && (
        <p>
          Stripped before:{' '}
          {before.map((c, i) => (
            <span key={c.id}>
              {i > 0 ? ', ' : ''}
              <Link to={`/case/${c.id}/cause`}>
                <span className="figure">{c.number}</span> {c.leading ?? c.title}
              </Link>
            </span>
          ))}
        </p>
      )}
      {log && stands.length > 0 && !readOnly && (
        <div className="row">
          <Button
            disabled={taken !== null && !isBehind}
            onClick={() => record({ kind: 'oil-log-taken', station: null, body: { log: { engine: log.record, lines: log.lines } } })}
          >
            {taken === null ? 'Take the log into the case' : isBehind ? 'Take it as it stands now' : 'The log is in the case'}
          </Button>
          {taken !== null && (
            <Button onClick={() => record({ kind: 'oil-log-taken', station: null, body: { log: null } })}>Take it out</Button>
          )}
          {isBehind && (
            <span className="quiet">Lines were written since it was taken; they change nothing here until it is taken again.</span>
          )}
        </div>
      )}
      {against.map((words) => (
        <p key={words} className="fault">
          {words}
        </p>
      ))}
    </section>
  );
}
