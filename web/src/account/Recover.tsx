import { Alert, Button, Form, Input } from 'antd';
import type { ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { useRecoverMutation } from '../app/api.js';
import { DoorMark } from './SignIn.js';
import { asProblem } from '../app/server.js';

/** New password of an owner, by the link the server's console told; the token is in the fragment, so it never reaches a log. */
export function Recover(): ReactNode {
  const [recover, { isLoading, error }] = useRecoverMutation();
  const navigate = useNavigate();
  const token = window.location.hash.slice(1);
  const problem = error ? asProblem(error) : null;
  return (
    <main className="door">
      <DoorMark />
      <h1>New password</h1>
      <p>This link works once. Everything the account has open elsewhere is ended.</p>
      <Form
        layout="vertical"
        requiredMark={false}
        onFinish={(v: { password: string }) =>
          void recover({ token, ...v })
            .unwrap()
            .then(() => navigate('/', { replace: true }))
            .catch(() => undefined)
        }
      >
        <Form.Item
          name="password"
          label="Password, at least 10 characters"
          rules={[{ required: true, min: 10, message: 'At least 10 characters.' }]}
        >
          <Input.Password autoFocus autoComplete="new-password" />
        </Form.Item>
        {problem && <Alert type="error" title={problem.sentence} role="alert" style={{ marginBottom: 16 }} />}
        <Button type="primary" htmlType="submit" loading={isLoading} block>
          Set the password
        </Button>
      </Form>
    </main>
  );
}
