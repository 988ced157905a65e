import type { ApiError, SealLine } from '@true-ledger/contract';
import { App, Button, Table } from 'antd';
import { useState, type ReactNode } from 'react';
import { useTakeFile } from '../app/takeFile.js';
import { useSealsQuery, useShopKeysQuery, useStampOfSealQuery, useStampSealMutation } from '../app/api.js';

/** The shop's key, and the days on which all ledgers were sealed, with what an outside witness said of each. */
export function Seals(): ReactNode {
  const { data: keys } = useShopKeysQuery();
  const { data: seals = [], isFetching, refetch } = useSealsQuery();
  const { takeFile, busy } = useTakeFile('/api/seals');
  const [stamp, { isLoading, originalArgs }] = useStampSealMutation();
  const [open, setOpen] = useState<readonly string[]>([]);
  const { message } = App.useApp();
  const witness = (day: string): void =>
    void stamp(day)
      .unwrap()
      .then((said) => {
        setOpen((days) => [...new Set([...days, day])]);
        if (said.verdict.state !== 'holds') void message.warning(said.sentence);
      })
      .catch((e: unknown) => void message.error((e as ApiError).sentence));
  return (
    <section>
      <h2>Key and seals</h2>
      <p>
        The shop signs with the key <b className="figure">{keys?.fingerprint ?? '…'}</b>
        {keys && keys.earlier.length > 0 && ` (earlier keys, each signed over to the next: ${keys.earlier.length})`}. It stands on every
        account and in every bundle; give it to those who must know that a paper is yours.
      </p>
      <p className="quiet">
        Once a day the heads of all ledgers are sealed with it, and a witness outside stamps the seal. Print or mail a seal now and then:
        who holds one can tell that nothing before it was rewritten or cut off.
      </p>
      <Table<SealLine>
        size="small"
        rowKey="day"
        loading={isFetching && seals.length === 0}
        dataSource={seals}
        pagination={seals.length > 10 ? { pageSize: 10, size: 'small', showSizeChanger: false } : false}
        locale={{
          emptyText: isFetching
            ? 'Asking for the seals …'
            : 'No day is sealed yet. The first seal is made today by itself, or when you take it.',
        }}
        expandable={{
          expandedRowKeys: open,
          onExpandedRowsChange: (days) => setOpen(days as string[]),
          expandedRowRender: ({ day }) => <Stamp day={day} />,
        }}
        columns={[
          { title: 'Day', dataIndex: 'day', className: 'figure' },
          { title: 'Cases', dataIndex: 'cases', className: 'figure' },
          {
            title: 'Witness',
            render: (_, { day, stamped, simulated }) =>
              stamped ? (
                simulated ? (
                  <span className="quiet">simulated, proves nothing</span>
                ) : (
                  'stamped'
                )
              ) : (
                <Button size="small" loading={isLoading && originalArgs === day} onClick={() => witness(day)}>
                  Have it stamped
                </Button>
              ),
          },
          {
            title: 'To keep outside',
            render: (_, { day, stamped }) => (
              <span className="row">
                <Button size="small" onClick={() => void takeFile(day, 'The seal')}>
                  Seal as text
                </Button>
                {stamped && (
                  <Button size="small" onClick={() => void takeFile(`${day}/stamp.tsr`, 'The stamp')}>
                    Its stamp
                  </Button>
                )}
              </span>
            ),
          },
        ]}
      />
      <p>
        <Button loading={busy === 'today'} onClick={() => void takeFile('today', 'The seal').then(() => refetch())}>
          Take today’s seal
        </Button>
      </p>
    </section>
  );
}

/** What the stamp of a day proves, asked when the line is opened. */
function Stamp({ day }: { day: string }): ReactNode {
  const { data, error } = useStampOfSealQuery(day);
  if (error) return <p>{(error as ApiError).sentence}</p>;
  if (!data) return <p className="quiet">The stamp is being looked at …</p>;
  return (
    <p>
      {data.sentence}
      {data.simulated && data.verdict.state !== 'missing' && (
        <span className="quiet">
          {' '}
          This authority is the simulated one that comes with the application: it shows the way and proves nothing.
        </span>
      )}
    </p>
  );
}
