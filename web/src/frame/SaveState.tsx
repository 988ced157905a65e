import type { ReactNode } from 'react';
import { useAppSelector } from '../app/store.js';

/** Is everything written here confirmed by the server? */
export function SaveState({ caseId }: { caseId: string }): ReactNode {
  const waiting = useAppSelector((s) => s.outbox.items.filter((i) => i.caseId === caseId && i.status === 'waiting').length);
  const link = useAppSelector((s) => s.outbox.link);
  const words =
    waiting === 0
      ? 'saved'
      : link === 'up'
        ? `saving ${waiting}`
        : link === 'down'
          ? `${waiting} kept here, server away`
          : `${waiting} kept here, sign in again`;
  return (
    <span className={waiting > 0 && link !== 'up' ? 'save-state away' : 'save-state'} role="status" data-waiting={waiting}>
      {words}
    </span>
  );
}
