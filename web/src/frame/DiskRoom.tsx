import type { ReactNode } from 'react';
import { useRoomQuery } from '../app/api.js';
import './frame.css';

/** Below this, said in the header: some tens of pictures, or an account with many. */
const LITTLE_MB = 1000;

/** Tells that the server's disk is running full, before it is. */
export function DiskRoom(): ReactNode {
  const { data } = useRoomQuery(undefined, { pollingInterval: 120_000, skipPollingIfUnfocused: true });
  if (!data || data.freeMb >= LITTLE_MB) return null;
  return (
    <span
      className="save-state away"
      role="status"
      title="When it is full nothing more is recorded; what is recorded stays safe and readable. Free some room."
    >
      {data.freeMb} MB left on the server
    </span>
  );
}
