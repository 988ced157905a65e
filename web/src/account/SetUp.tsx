import { App, Button, Form, Input, InputNumber, Select, Switch, Table } from 'antd';
import type { Account, ApiError, Me, Role } from '@true-ledger/contract';
import type { Gauge } from '@true-ledger/core';
import { useState, type ReactNode } from 'react';
import {
  useAccountsQuery,
  useChangeAccountMutation,
  useCreateAccountMutation,
  useGaugesQuery,
  useRevokeSessionMutation,
  useSaveGaugeMutation,
  useSessionsQuery,
} from '../app/api.js';
import { setSingleKeys, singleKeysOn } from '../app/keys.js';

const ROLE_WORDS: ReadonlyArray<{ value: Role; label: string }> = [
  { value: 'owner', label: 'Owner' },
  { value: 'builder', label: 'Builder' },
  { value: 'reader', label: 'Reader' },
];

/** People, sessions, gauges and keys. */
export function SetUp({ me }: { me: Me }): ReactNode {
  const [keys, setKeys] = useState(singleKeysOn());
  return (
    <div className="page">
      <h1>Set-up</h1>
      {me.account.role === 'owner' && <People me={me} />}
      <Gauges mayWrite={me.account.role !== 'reader'} />
      <Sessions />
      <section>
        <h2>Keys</h2>
        <label className="row">
          <Switch
            checked={keys}
            onChange={(on) => {
              setSingleKeys(on);
              setKeys(on);
            }}
          />
          <span>Single-letter keys on the bench (press ? anywhere for the list)</span>
        </label>
      </section>
    </div>
  );
}

function People({ me }: { me: Me }): ReactNode {
  const { data = [] } = useAccountsQuery();
  const [create, { isLoading }] = useCreateAccountMutation();
  const [change] = useChangeAccountMutation();
  const { message } = App.useApp();
  const [form] = Form.useForm();
  const refuse = (e: unknown): void => void message.error((e as ApiError).sentence);
  return (
    <section>
      <h2>People</h2>
      <Table<Account>
        size="small"
        rowKey="id"
        dataSource={data}
        pagination={false}
        columns={[
          { title: 'Name', dataIndex: 'name' },
          { title: 'Sign-in name', dataIndex: 'signIn' },
          {
            title: 'Role',
            render: (_, a) => (
              <Select
                aria-label={`Role of ${a.name}`}
                value={a.role}
                options={[...ROLE_WORDS]}
                style={{ width: 120 }}
                onChange={(role: Role) => change({ id: a.id, change: { role } }).unwrap().catch(refuse)}
              />
            ),
          },
          {
            title: 'May sign in',
            render: (_, a) => (
              <Switch
                aria-label={`${a.name} may sign in`}
                checked={a.active}
                disabled={a.id === me.account.id}
                onChange={(active) => change({ id: a.id, change: { active } }).unwrap().catch(refuse)}
              />
            ),
          },
        ]}
      />
      <Form
        form={form}
        layout="inline"
        className="inline-form"
        onFinish={(v: { name: string; signIn: string; password: string; role: Role }) =>
          create(v)
            .unwrap()
            .then(() => form.resetFields())
            .catch(refuse)
        }
        initialValues={{ role: 'builder' }}
      >
        <Form.Item name="name" rules={[{ required: true, message: 'Name' }]}>
          <Input placeholder="Name" aria-label="Name" />
        </Form.Item>
        <Form.Item name="signIn" rules={[{ required: true, message: 'Sign-in name' }]}>
          <Input placeholder="Sign-in name" aria-label="Sign-in name" autoComplete="off" />
        </Form.Item>
        <Form.Item name="password" rules={[{ required: true, min: 10, message: 'At least 10 characters' }]}>
          <Input.Password placeholder="Password" aria-label="Password" autoComplete="new-password" />
        </Form.Item>
        <Form.Item name="role">
          <Select aria-label="Role" options={[...ROLE_WORDS]} style={{ width: 120 }} />
        </Form.Item>
        <Button htmlType="submit" loading={isLoading}>
          Add person
        </Button>
      </Form>
    </section>
  );
}

const GAUGE_FIELDS = {
  resolutionMm: 'Resolution, mm',
  expandedUncertaintyMm: 'U (k = 2), mm',
  repeatabilityMm: 'Repeatability, mm',
} as const;

function Gauges({ mayWrite }: { mayWrite: boolean }): ReactNode {
  const { data = [] } = useGaugesQuery();
  const [save, { isLoading }] = useSaveGaugeMutation();
  const { message } = App.useApp();
  const [form] = Form.useForm();
  return (
    <section>
      <h2>Gauges</h2>
      <p>
        A reading keeps a copy of its gauge as it stood; changing a gauge here changes no verdict already given. A name that is there
        already is corrected.
      </p>
      <Table<Gauge>
        size="small"
        rowKey="id"
        dataSource={data}
        pagination={false}
        columns={[
          { title: 'Gauge', dataIndex: 'name' },
          { title: 'Resolution, mm', dataIndex: 'resolutionMm', className: 'figure' },
          { title: 'U (k = 2), mm', dataIndex: 'expandedUncertaintyMm', className: 'figure' },
          { title: 'Repeatability s, mm', dataIndex: 'repeatabilityMm', className: 'figure' },
          { title: 'Set master, mm', dataIndex: 'masterMm', className: 'figure', render: (v?: number) => v ?? '–' },
          { title: 'Checked', dataIndex: 'checkedOn', className: 'figure', render: (v?: string) => v || '–' },
        ]}
      />
      {mayWrite && (
        <Form
          form={form}
          layout="inline"
          className="inline-form"
          onFinish={({ masterMm, ...v }: Omit<Gauge, 'id' | 'kind'>) =>
            save({
              ...v,
              ...(masterMm ? { masterMm } : {}),
              id:
                v.name
                  .toLowerCase()
                  .replace(/[^a-z0-9]+/g, '-')
                  .replace(/^-|-$/g, '')
                  .slice(0, 40) || 'gauge',
              kind: 'outside-micrometer',
            })
              .unwrap()
              .then(() => form.resetFields())
              .catch((e: ApiError) => void message.error(e.sentence))
          }
        >
          <Form.Item name="name" rules={[{ required: true, message: 'Name' }]}>
            <Input placeholder="Gauge" aria-label="Gauge name" />
          </Form.Item>
          {(['resolutionMm', 'expandedUncertaintyMm', 'repeatabilityMm'] as const).map((field) => (
            <Form.Item key={field} name={field} rules={[{ required: true, message: 'A figure' }]}>
              <InputNumber
                style={{ width: 150 }}
                min={0}
                max={1}
                step={0.001}
                placeholder={GAUGE_FIELDS[field]}
                aria-label={GAUGE_FIELDS[field]}
              />
            </Form.Item>
          ))}
          <Form.Item name="masterMm">
            <InputNumber style={{ width: 150 }} min={0} max={5000} step={0.001} placeholder="Set master, mm" aria-label="Set master, mm" />
          </Form.Item>
          <Form.Item name="checkedOn">
            <Input type="date" aria-label="Last checked against a master" />
          </Form.Item>
          <Button htmlType="submit" loading={isLoading}>
            Keep gauge
          </Button>
        </Form>
      )}
    </section>
  );
}

function Sessions(): ReactNode {
  const { data = [] } = useSessionsQuery();
  const [revoke] = useRevokeSessionMutation();
  return (
    <section>
      <h2>Where you are signed in</h2>
      <Table
        size="small"
        rowKey="id"
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
