import { Alert, Button, Form, Input } from 'antd';
import type { ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { useClaimMutation } from '../app/api.js';
import { DoorMark } from './SignIn.js';
import { asProblem } from '../app/server.js';

/** First owner by one-time link; the token is in the fragment, so it never reaches a log. */
export function Claim(): ReactNode {
  const [claim, { isLoading, error }] = useClaimMutation();
  const navigate = useNavigate();
  const token = window.location.hash.slice(1);
  const problem = error ? asProblem(error) : null;
  return (
    <main className="door">
      <DoorMark />
      <h1>First owner</h1>
      <p>This link works once. The owner can add builders and readers afterwards.</p>
      <Form
        layout="vertical"
        requiredMark={false}
        onFinish={(v: { name: string; signIn: string; password: string }) =>
          void claim({ token, ...v })
            .unwrap()
            .then(() => navigate('/', { replace: true }))
            .catch(() => undefined)
        }
      >
        <Form.Item name="name" label="Name as it stands in the ledger" rules={[{ required: true, message: 'Type a name.' }]}>
          <Input autoFocus />
        </Form.Item>
        <Form.Item name="signIn" label="Sign-in name" rules={[{ required: true, message: 'Type a sign-in name.' }]}>
          <Input autoComplete="username" />
        </Form.Item>
        <Form.Item
          name="password"
          label="Password, at least 10 characters"
          rules={[{ required: true, min: 10, message: 'At least 10 characters.' }]}
        >
          <Input.Password autoComplete="new-password" />
        </Form.Item>
        {problem && <Alert type="error" title={problem.sentence} role="alert" style={{ marginBottom: 16 }} />}
        <Button type="primary" htmlType="submit" loading={isLoading} block>
          Make the owner
        </Button>
      </Form>
    </main>
  );
}
