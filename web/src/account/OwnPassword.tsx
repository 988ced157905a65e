import { App, Button, Form, Input } from 'antd';
import type { ApiError } from '@true-ledger/contract';
import type { ReactNode } from 'react';
import { useChangePasswordMutation } from '../app/api.js';
import './account.css';

/** One's own password. */
export function OwnPassword(): ReactNode {
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
