import { Spin } from 'antd';
import type { ReactNode } from 'react';

export function Waiting({ what }: { what: string }): ReactNode {
  return (
    <div className="waiting" role="status">
      <Spin /> <span>{what}</span>
    </div>
  );
}
