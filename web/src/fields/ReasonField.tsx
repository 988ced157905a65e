import { Input } from 'antd';
import type { ReactNode } from 'react';

/** The reason a question asks for before it is answered. `most`: letters it may have. */
export function ReasonField({ value, onChange, most }: { value: string; onChange: (text: string) => void; most: number }): ReactNode {
  return (
    <Input.TextArea
      rows={3}
      value={value}
      onChange={(e) => onChange(e.target.value)}
      placeholder="Reason"
      aria-label="Reason"
      maxLength={most}
    />
  );
}
