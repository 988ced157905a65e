import { Button, Input } from 'antd';
import type { ReactNode } from 'react';
import { useDraft } from '../app/drafts.js';
import './fields.css';

export interface PaperField {
  readonly key: string;
  readonly label: string;
  readonly max: number;
  readonly rows?: number;
}

/** Lines that stand on papers, kept all at once; what is typed and not kept yet is a draft. */
export function PaperFields({
  fields,
  kept,
  disabled = false,
  busy,
  onKeep,
}: {
  fields: readonly PaperField[];
  kept: Readonly<Record<string, string>>;
  disabled?: boolean;
  busy: boolean;
  onKeep: (values: Readonly<Record<string, string>>) => Promise<void>;
}): ReactNode {
  const drafts = fields.map((field) => {
    // The fields of a paper are the same for as long as it is shown.
    const [text, setText] = useDraft(field.label, kept[field.key] ?? '');
    return { ...field, text, setText };
  });
  const changed = drafts.some((d) => d.text !== (kept[d.key] ?? ''));
  return (
    <form
      className="paper-fields"
      onSubmit={(e) => {
        e.preventDefault();
        if (changed) void onKeep(Object.fromEntries(drafts.map((d) => [d.key, d.text.trim()])));
      }}
    >
      {drafts.map((d) => (
        <label key={d.key} className="wide">
          <span>{d.label}</span>
          {d.rows ? (
            <Input.TextArea
              value={d.text}
              rows={d.rows}
              maxLength={d.max}
              disabled={disabled}
              onChange={(e) => d.setText(e.target.value)}
            />
          ) : (
            <Input value={d.text} maxLength={d.max} disabled={disabled} onChange={(e) => d.setText(e.target.value)} />
          )}
        </label>
      ))}
      {!disabled && (
        <Button htmlType="submit" disabled={!changed} loading={busy}>
          Keep
        </Button>
      )}
    </form>
  );
}
