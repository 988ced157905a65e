import { Alert, Button, Space } from 'antd';
import type { ReactNode } from 'react';
import { entryWords } from '@true-ledger/core/entries';
import { resolveConflict } from '../app/outbox.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import './frame.css';

/** Entries the server did not take: somebody wrote the field first, or the content does not fit. The person chooses. */
export function Unsettled({ caseId }: { caseId: string }): ReactNode {
  const items = useAppSelector((s) => s.outbox.items).filter((i) => i.caseId === caseId && i.status !== 'waiting');
  const dispatch = useAppDispatch();
  return (
    <>
      {items.map((item) => {
        const theirs = item.problem?.conflict?.current;
        return (
          <Alert
            key={item.draft.id}
            type="warning"
            role="alert"
            className="unsettled"
            title={item.problem?.sentence}
            description={
              <div>
                <div>
                  <b>Yours:</b> {entryWords(item.draft.kind, item.draft.body)}
                </div>
                {theirs && (
                  <div>
                    <b>{theirs.author.name}:</b> {entryWords(theirs.kind, theirs.body)}
                  </div>
                )}
              </div>
            }
            action={
              <Space orientation="vertical">
                {item.status === 'conflict' && item.draft.kind !== 'retracted' && (
                  <Button size="small" onClick={() => dispatch(resolveConflict(caseId, item.draft.id, 'mine'))}>
                    Write mine over it
                  </Button>
                )}
                <Button size="small" onClick={() => dispatch(resolveConflict(caseId, item.draft.id, 'theirs'))}>
                  {item.status === 'conflict' ? 'Keep theirs' : 'Drop it'}
                </Button>
              </Space>
            }
          />
        );
      })}
    </>
  );
}
