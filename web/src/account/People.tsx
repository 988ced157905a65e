import { App, Button, Form, Input, Select, Switch, Table } from 'antd';
import { Dialog } from '../app/Dialog.js';
import type { Account, ApiError, Me, Role } from '@true-ledger/contract';
import { useState, type ReactNode } from 'react';
import { useAccountCasesQuery, useAccountsQuery, useChangeAccountMutation, useCreateAccountMutation, useShelfQuery } from '../app/api.js';
import './account.css';

const ROLE_WORDS: ReadonlyArray<{ value: Role; label: string }> = [
  { value: 'owner', label: 'Owner' },
  { value: 'builder', label: 'Builder' },
  { value: 'reader', label: 'Reader' },
];

export function People({ me }: { me: Me }): ReactNode {
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
          name={`password-of-${account.id}`}
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
