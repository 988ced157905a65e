import { App, Button, Checkbox, Popover, Progress } from 'antd';
import type { ApiError } from '@true-ledger/contract';
import { useEffect, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useReadAllMutation, useReadingBatchQuery, useStopReadingMutation } from '../../app/api.js';
import { useCase } from '../../app/caseContext.js';

const POLL_MS = 1000;

/** Reads every picture of the case on the server: goes on when this page is left, and after the server was stopped. */
export function ReadAll(): ReactNode {
  const { caseId, view, readOnly } = useCase();
  const { message } = App.useApp();
  const [again, setAgain] = useState(false);
  const [poll, setPoll] = useState(0);
  const { data: batch } = useReadingBatchQuery(caseId, { pollingInterval: poll, skipPollingIfUnfocused: true });
  const [start, { isLoading: starting }] = useReadAllMutation();
  const [stop] = useStopReadingMutation();
  const running = batch?.running ?? false;
  useEffect(() => setPoll(running ? POLL_MS : 0), [running]);
  const fail = (e: unknown): void => void message.warning((e as ApiError).sentence);
  const pictures = batch?.pictures ?? [];
  const done = pictures.filter((p) => p.status !== 'waiting' && p.status !== 'reading').length;
  const refused = pictures.filter((p) => p.status === 'refused');
  const name = (id: string): string => view.byId.get(id)?.station.name ?? id;
  return (
    <section className="pane" aria-label="Read all pictures">
      <h2>Read all pictures</h2>
      {running ? (
        <div role="status">
          <Progress percent={Math.round((100 * done) / Math.max(1, pictures.length))} size="small" />
          <p className="quiet">
            {done} of {pictures.length} read on the server; it goes on when you leave this page.
          </p>
          {!readOnly && (
            <Button size="small" onClick={() => void stop(caseId).unwrap().catch(fail)}>
              Stop after this one
            </Button>
          )}
        </div>
      ) : (
        <>
          <p className="quiet">
            Half shells and pistons are found by themselves; journals, bores and thrust faces need their four corners first. What is read
            proposes: every place is still confirmed by you.
          </p>
          {!readOnly && (
            <div className="row">
              <Button loading={starting} onClick={() => void start({ caseId, again }).unwrap().catch(fail)}>
                Read the pictures
              </Button>
              <Checkbox checked={again} onChange={(e) => setAgain(e.target.checked)}>
                also those read before
              </Checkbox>
            </div>
          )}
          {pictures.length > 0 && (
            <p className="quiet">
              Last time, by {batch?.by}: {pictures.filter((p) => p.status === 'read').length} read
              {refused.length > 0 && (
                <>
                  ,{' '}
                  <Popover
                    trigger={['click']}
                    content={
                      <ul className="refused">
                        {refused.map((p) => (
                          <li key={p.station + p.sha256}>
                            <Link to={`/case/${caseId}/station/${p.station}`}>{name(p.station)}</Link>: {p.note}
                          </li>
                        ))}
                      </ul>
                    }
                  >
                    <Button type="link" size="small">
                      {refused.length} not read
                    </Button>
                  </Popover>
                </>
              )}
              .
            </p>
          )}
        </>
      )}
    </section>
  );
}
