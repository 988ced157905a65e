import { Button, Table } from 'antd';
import type { ReactNode } from 'react';
import { useRevokeSessionMutation, useSessionsQuery } from '../app/api.js';
import './account.css';

export function Sessions(): ReactNode {
  const { data = [], isLoading: fetching } = useSessionsQuery();
  const [revoke] = useRevokeSessionMutation();
  return (
    <section>
      <h2>Where you are signed in</h2>
      <Table
        size="small"
        rowKey="id"
        loading={fetching}
        dataSource={data}
        pagination={false}
        columns={[
          {
            title: 'Since',
            dataIndex: 'created',
            render: (v: string) => new Date(v).toLocaleString('sv-SE').slice(0, 16),
            className: 'figure',
          },
          {
            title: 'Last seen',
            dataIndex: 'lastSeen',
            render: (v: string) => new Date(v).toLocaleString('sv-SE').slice(0, 16),
            className: 'figure',
          },
          { title: 'Browser', dataIndex: 'agent', ellipsis: true },
          {
            title: '',
            render: (_, s) =>
              s.current ? (
                'this one'
              ) : (
                <Button size="small" onClick={() => void revoke(s.id)}>
                  End session
                </Button>
              ),
          },
        ]}
      />
    </section>
  );
}
