import type { ReactNode } from 'react';
import { useDemoQuery } from '../app/api.js';

/** Tells that demo cases are still being taken in. */
export function DemoProgress(): ReactNode {
  const { data } = useDemoQuery(undefined, { pollingInterval: 1500, skipPollingIfUnfocused: true });
  if (!data || data.taken >= data.total) return null;
  return (
    <p role="status" className="demo-progress">
      Demo cases are being taken in, {data.taken} of {data.total}.
    </p>
  );
}
