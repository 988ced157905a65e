import { App, Button, Input, Select, Table, Upload } from 'antd';
import { Dialog } from '../app/Dialog.js';
import type { Me, PriceBookVersion } from '@true-ledger/contract';
import { priceBookCsv, readPriceCsv, type PriceBook, type PriceLine } from '@true-ledger/core/workshop';
import { useState, type ReactNode } from 'react';
import { useDraft } from '../app/drafts.js';
import { NumberField } from '../fields/NumberField.js';
import { usePricesQuery, useSavePricesMutation } from '../app/api.js';
import { saveBlob } from '../app/saveBlob.js';
import { Waiting } from '../app/Waiting.js';
import { asProblem } from '../app/server.js';

const KINDS: Readonly<Record<PriceLine['kind'], string>> = {
  part: 'Part',
  machine: 'Machine work',
  labour: 'Bench hour',
  engine: 'Engine',
};
const POINTS = ['low', 'likely', 'high'] as const;

/** The shop's own prices: dated, in one currency, every version kept. A case takes a copy when it is opened, so a quote stands by itself. */
export function Prices({ me }: { me: Me }): ReactNode {
  const { data } = usePricesQuery();
  const [shown, setShown] = useState<number | null>(null);
  const [draft, setDraft] = useState<PriceBook | null>(null);
  const [note, setNote] = useDraft('Note');
  const [asking, setAsking] = useState(false);
  const [save, { isLoading }] = useSavePricesMutation();
  const { message } = App.useApp();
  if (!data) return <Waiting what="Fetching the prices" />;
  const newest = data[0]!;
  const version: PriceBookVersion = data.find((v) => v.version === shown) ?? newest;
  const book = draft ?? version.book;
  const mayEdit = me.account.role === 'owner' && version.version === newest.version;
  const change = (key: string, next: Partial<PriceLine>): void =>
    setDraft({ ...book, lines: book.lines.map((l) => (l.key === key ? { ...l, ...next } : l)) });
  const disorder = book.lines.filter((l) => !(l.price.low <= l.price.likely && l.price.likely <= l.price.high));
  const take = async (file: File): Promise<void> => {
    const read = readPriceCsv(await file.text(), new Date().toISOString().slice(0, 10), file.name.slice(0, 40));
    if (read.ok) setDraft(read.value);
    else void message.error(read.problem.sentence, 8);
  };
  const keep = async (): Promise<void> => {
    try {
      await save({ basedOn: newest.version, currency: book.currency, lines: book.lines, note: note.trim() }).unwrap();
      setDraft(null);
      setAsking(false);
      setNote('');
      setShown(null);
    } catch (error) {
      void message.error(`The prices were not kept. ${asProblem(error).sentence}`, 8);
    }
  };
  return (
    <div className="page">
      <div className="page-head">
        <h1>Prices</h1>
        <Select
          aria-label="Version"
          style={{ width: 300 }}
          value={version.version}
          onChange={(v) => {
            setShown(v);
            setDraft(null);
          }}
          options={data.map((v) => ({
            value: v.version,
            label: v.version === 0 ? 'As it comes (version 0)' : `Version ${v.version}, ${v.book.date}, ${v.by}`,
          }))}
        />
        <Button onClick={() => saveBlob('shop-prices.csv', new Blob([priceBookCsv(book)], { type: 'text/csv' }))}>As CSV</Button>
        {mayEdit && (
          <Upload accept=".csv,text/csv" showUploadList={false} beforeUpload={(file) => (void take(file), false)}>
            <Button>From CSV</Button>
          </Upload>
        )}
        {draft && (
          <>
            <Button type="primary" disabled={disorder.length > 0} onClick={() => setAsking(true)}>
              Keep as version {newest.version + 1}
            </Button>
            <Button onClick={() => setDraft(null)}>Leave</Button>
          </>
        )}
      </div>
      <p className="quiet">
        {version.note.replace(/[.]?$/, '.')} A case takes these over when it is opened; those already open keep theirs.
        {me.account.role === 'owner' ? '' : ' The owner changes them.'}
      </p>
      {disorder.length > 0 && (
        <p className="fault" role="alert">
          {disorder.map((l) => l.what).join(', ')}: the likely price lies outside the lowest and highest. Put them in order to keep the
          prices.
        </p>
      )}
      {mayEdit && (
        <label className="row">
          <span>Currency</span>
          <Input
            aria-label="Currency"
            style={{ width: 90 }}
            value={book.currency}
            maxLength={3}
            onChange={(e) => setDraft({ ...book, currency: e.target.value.toUpperCase() })}
          />
        </label>
      )}
      <Table<PriceLine>
        size="small"
        rowKey="key"
        dataSource={[...book.lines]}
        pagination={false}
        columns={[
          { title: 'What', dataIndex: 'what' },
          { title: 'Kind', width: 120, render: (_, l) => KINDS[l.kind] },
          ...POINTS.map((point) => ({
            title: `${{ low: 'Lowest', likely: 'Likely', high: 'Highest' }[point]}, ${book.currency}`,
            width: 120,
            className: 'figure',
            render: (_: unknown, l: PriceLine) =>
              mayEdit ? (
                <NumberField
                  min={0}
                  max={1_000_000}
                  value={l.price[point]}
                  aria-label={`${l.what}, ${point}`}
                  onChange={(v) => v !== null && change(l.key, { price: { ...l.price, [point]: v } })}
                />
              ) : (
                l.price[point]
              ),
          })),
          {
            title: 'Days',
            width: 130,
            className: 'figure',
            render: (_, l) => `${l.leadDays.low} · ${l.leadDays.likely} · ${l.leadDays.high}`,
          },
        ]}
      />
      <Dialog
        open={asking}
        title={`Keep as version ${newest.version + 1}`}
        okText="Keep"
        okButtonProps={{ disabled: note.trim().length < 3, loading: isLoading }}
        onCancel={() => setAsking(false)}
        onOk={() => void keep()}
      >
        <Input.TextArea
          rows={3}
          aria-label="What changed"
          placeholder="What changed"
          value={note}
          maxLength={500}
          onChange={(e) => setNote(e.target.value)}
        />
      </Dialog>
    </div>
  );
}
