import { Alert, Button, Form, Input } from 'antd';
import type { ReactNode } from 'react';
import { useSignInMutation } from '../app/api.js';
import { forgetKnown } from '../app/knownCache.js';
import { DemoProgress } from './DemoProgress.js';
import { COLOUR } from '../app/tokens.js';
import { asProblem } from '../app/server.js';

export function SignIn(): ReactNode {
  const [signIn, { isLoading, error }] = useSignInMutation();
  const problem = error ? asProblem(error) : null;
  return (
    <main className="door">
      <DoorMark />
      <h1>True Ledger</h1>
      <p>Teardown accounts: what was seen, what was measured, why it failed.</p>
      <DemoProgress />
      <Form
        layout="vertical"
        onFinish={(values: { signIn: string; password: string }) => void forgetKnown().then(() => signIn(values))}
        requiredMark={false}
      >
        <Form.Item name="signIn" label="Sign-in name" rules={[{ required: true, message: 'Type your sign-in name.' }]}>
          <Input autoFocus autoComplete="username" />
        </Form.Item>
        <Form.Item name="password" label="Password" rules={[{ required: true, message: 'Type your password.' }]}>
          <Input.Password autoComplete="current-password" />
        </Form.Item>
        {problem && <Alert type="error" title={problem.sentence} role="alert" style={{ marginBottom: 16 }} />}
        <Button type="primary" htmlType="submit" loading={isLoading} block>
          Sign in
        </Button>
      </Form>
    </main>
  );
}

/** A half shell in section: steel, lining, overlay. */
export function DoorMark(): ReactNode {
  return (
    <svg width="168" height="92" viewBox="0 0 168 92" aria-hidden="true">
      <path d="M4 88a80 80 0 0 1 160 0" fill="none" stroke={COLOUR.slate} strokeWidth="8" />
      <path d="M12 88a72 72 0 0 1 144 0" fill="none" stroke={COLOUR.bronze} strokeWidth="7" />
      <path d="M18 88a66 66 0 0 1 132 0" fill="none" stroke={COLOUR.steel} strokeWidth="4" />
      <path d="M0 90h168" stroke={COLOUR.accent} strokeWidth="2" />
    </svg>
  );
}
