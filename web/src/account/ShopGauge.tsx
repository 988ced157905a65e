import { App, Button, Form, Input, Select, Table } from 'antd';
import type { ApiError } from '@true-ledger/contract';
import { GAUGE_KINDS, type Gauge } from '@true-ledger/core/units';
import type { ReactNode } from 'react';
import { DateField } from '../fields/DateField.js';
import { NumberField } from '../fields/NumberField.js';
import { useGaugesQuery, useSaveGaugeMutation } from '../app/api.js';
import './account.css';

const GAUGE_FIELDS = {
  resolutionMm: 'Resolution, mm',
  expandedUncertaintyMm: 'U (k = 2), mm',
  repeatabilityMm: 'Repeatability, mm',
} as const;

export function Gauges({ mayWrite }: { mayWrite: boolean }): ReactNode {
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
