import { App, Button, Form, Input, Select, Switch, Table } from 'antd';
import { Dialog } from '../app/Dialog.js';
import type { Account, ApiError, Me, Role } from '@true-ledger/contract';
import { GAUGE_KINDS, type Gauge } from '@true-ledger/core/units';
import { useState, type ReactNode } from 'react';
import { DateField } from '../fields/DateField.js';
import { NumberField } from '../fields/NumberField.js';
import {
  useAccountCasesQuery,
  useAccountsQuery,
  useChangeAccountMutation,
  useChangePasswordMutation,
  useCreateAccountMutation,
  useGaugesQuery,
  useRevokeSessionMutation,
  useSaveGaugeMutation,
  useSessionsQuery,
  useShelfQuery,
} from '../app/api.js';
import { Seals } from './Seals.js';
import { ShopPaper } from './ShopPaper.js';
import { setSingleKeys, singleKeysOn } from '../app/keys.js';
import './account.css';

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
      <ShopPaper mayWrite={me.account.role === 'owner'} />
      <Gauges mayWrite={me.account.role !== 'reader'} />
      <OwnPassword />
      <Sessions />
      {me.account.role !== 'reader' && <Seals />}
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
  const { data = [], isLoading: fetching } = useAccountsQuery();
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
        loading={fetching}
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
          { title: 'Sees', render: (_, a) => (a.role === 'reader' ? <ChosenCases account={a} onRefused={refuse} /> : 'all cases') },
          { title: 'Password', render: (_, a) => (a.id === me.account.id ? 'below' : <ResetPassword account={a} />) },
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

/** Which cases a reader sees: all, or those chosen for him. */
function ChosenCases({ account, onRefused }: { account: Account; onRefused: (e: unknown) => void }): ReactNode {
  const { data: shelf = [] } = useShelfQuery();
  const { data } = useAccountCasesQuery(account.id);
  const [change] = useChangeAccountMutation();
  const set = (cases: readonly string[] | null): void => void change({ id: account.id, change: { cases } }).unwrap().catch(onRefused);
  return (
    <div className="row">
      <Switch
        size="small"
        aria-label={`${account.name} sees all cases`}
        checked={account.allCases}
        checkedChildren="all"
        unCheckedChildren="chosen"
        onChange={(all) => set(all ? null : [])}
      />
      {!account.allCases && (
        <Select
          mode="multiple"
          size="small"
          aria-label={`Cases ${account.name} sees`}
          placeholder="No case yet"
          optionFilterProp="label"
          style={{ minWidth: 240 }}
          value={[...(data?.cases ?? [])]}
          options={shelf.map((c) => ({ value: c.id, label: `${c.number} ${c.title}` }))}
          onChange={(cases: string[]) => set(cases)}
        />
      )}
    </div>
  );
}

/** A new password for somebody else; what he has open ends. */
function ResetPassword({ account }: { account: Account }): ReactNode {
  const [open, setOpen] = useState(false);
  const [change, { isLoading }] = useChangeAccountMutation();
  const { message } = App.useApp();
  return (
    <>
      <Button size="small" aria-label={`Set anew: password of ${account.name}`} onClick={() => setOpen(true)}>
        Set anew
      </Button>
      <Dialog open={open} title={`New password for ${account.name}`} footer={null} destroyOnHidden onCancel={() => setOpen(false)}>
        <p>Everything {account.name} has open is ended; tell the new password in person, to be changed after the first sign-in.</p>
        <Form
          layout="vertical"
          onFinish={({ password }: { password: string }) =>
            change({ id: account.id, change: { password } })
              .unwrap()
              .then(() => {
                setOpen(false);
                void message.info(`${account.name} signs in with the new password from now on.`);
              })
              .catch((e: ApiError) => void message.error(e.sentence))
          }
        >
          <Form.Item
            name="password"
            label="Password, at least 10 characters"
            rules={[{ required: true, min: 10, message: 'At least 10 characters.' }]}
          >
            <Input.Password autoFocus autoComplete="new-password" />
          </Form.Item>
          <Button type="primary" htmlType="submit" loading={isLoading}>
            Set the password
          </Button>
        </Form>
      </Dialog>
    </>
  );
}

/** One's own password. */
function OwnPassword(): ReactNode {
  const [change, { isLoading }] = useChangePasswordMutation();
  const { message } = App.useApp();
  const [form] = Form.useForm();
  return (
    <section>
      <h2>Your password</h2>
      <Form
        form={form}
        layout="inline"
        className="inline-form"
        onFinish={(v: { current: string; fresh: string }) =>
          change(v)
            .unwrap()
            .then(() => {
              form.resetFields();
              void message.info('Your password is changed. What was open elsewhere has ended.');
            })
            .catch((e: ApiError) => form.setFields([{ name: e.field === 'current' ? 'current' : 'fresh', errors: [e.sentence] }]))
        }
      >
        <Form.Item name="current" rules={[{ required: true, message: 'The one in use' }]}>
          <Input.Password placeholder="Password in use" aria-label="Password in use" autoComplete="current-password" />
        </Form.Item>
        <Form.Item name="fresh" rules={[{ required: true, min: 10, message: 'At least 10 characters' }]}>
          <Input.Password placeholder="New password" aria-label="New password" autoComplete="new-password" />
        </Form.Item>
        <Button htmlType="submit" loading={isLoading}>
          Change password
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
  const { data = [], isLoading: fetching } = useGaugesQuery();
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
        loading={fetching}
        dataSource={data}
        pagination={false}
        columns={[
          { title: 'Gauge', dataIndex: 'name' },
          { title: 'Serial', dataIndex: 'serial', className: 'figure', render: (v?: string) => v || '–' },
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
          onFinish={({ masterMm, serial, checkedOn, ...v }: Omit<Gauge, 'id'>) =>
            save({
              ...v,
              ...(masterMm ? { masterMm } : {}),
              ...(serial ? { serial } : {}),
              ...(checkedOn ? { checkedOn } : {}),
              id:
                v.name
                  .toLowerCase()
                  .replace(/[^a-z0-9]+/g, '-')
                  .replace(/^-|-$/g, '')
                  .slice(0, 40) || 'gauge',
            })
              .unwrap()
              .then(() => form.resetFields())
              .catch((e: ApiError) => void message.error(e.sentence))
          }
        >
          <Form.Item name="name" rules={[{ required: true, message: 'Name' }]}>
            <Input placeholder="Gauge" aria-label="Gauge name" />
          </Form.Item>
          <Form.Item name="kind" initialValue="outside-micrometer">
            <Select
              aria-label="Kind of gauge"
              style={{ width: 170 }}
              options={GAUGE_KINDS.map((value) => ({ value, label: value.replace(/-/g, ' ') }))}
            />
          </Form.Item>
          <Form.Item name="serial">
            <Input placeholder="Serial number" aria-label="Serial number of the gauge" maxLength={60} />
          </Form.Item>
          {(['resolutionMm', 'expandedUncertaintyMm', 'repeatabilityMm'] as const).map((field) => (
            <Form.Item key={field} name={field} rules={[{ required: true, message: 'A figure' }]}>
              <NumberField
                style={{ width: 150 }}
                min={0}
                max={1}
                quantity="length"
                unit="mm"
                placeholder={GAUGE_FIELDS[field]}
                aria-label={GAUGE_FIELDS[field]}
              />
            </Form.Item>
          ))}
          <Form.Item name="masterMm">
            <NumberField
              style={{ width: 150 }}
              min={0}
              max={5000}
              quantity="length"
              unit="mm"
              placeholder="Set master, mm"
              aria-label="Set master, mm"
            />
          </Form.Item>
          <Form.Item name="checkedOn">
            <DateField placeholder="Last checked" aria-label="Last checked against a master" />
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
