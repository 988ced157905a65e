import { Popover } from 'antd';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useDrafts } from '../app/drafts.js';
import { useAppSelector } from '../app/store.js';
import './frame.css';

/** Is everything written here confirmed by the server, and is anything typed that is not recorded? */
export function SaveState({ caseId }: { caseId: string }): ReactNode {
  const waiting = useAppSelector((s) => s.outbox.items.filter((i) => i.caseId === caseId && i.status === 'waiting').length);
  const behind = useAppSelector((s) => s.outbox.behind.includes(caseId));
  const link = useAppSelector((s) => s.outbox.link);
  const drafts = useDrafts(`/case/${caseId}/`);
  const words =
    waiting > 0
      ? link === 'up'
        ? `saving ${waiting}`
        : link === 'down'
          ? `${waiting} kept here, server away`
          : `${waiting} kept here, sign in again`
      : behind
        ? 'not up to date'
        : drafts.length > 0
          ? ''
          : 'saved';
  return (
    <>
      {words !== '' && (
        <span className={behind || (waiting > 0 && link !== 'up') ? 'save-state away' : 'save-state'} role="status" data-waiting={waiting}>
          {words}
        </span>
      )}
      {drafts.length > 0 && (
        <Popover
          placement="bottomRight"
          trigger={['click', 'hover', 'focus']}
          content={
            <ul className="drafts">
              {drafts.map((d) => (
                <li key={`${d.path}|${d.field}`}>
                  <Link to={d.path}>{d.field}</Link>: {d.text.length > 60 ? `${d.text.slice(0, 59)}…` : d.text}
                </li>
              ))}
            </ul>
          }
        >
          <button type="button" className="save-state draft" data-waiting={waiting}>
            {drafts.length} draft{drafts.length === 1 ? '' : 's'}
          </button>
        </Popover>
      )}
    </>
  );
}
