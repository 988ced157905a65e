import { Button, Progress, Select } from 'antd';
import type { ReactNode } from 'react';
import { useCase } from '../app/caseContext.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { dropFiles, settle, stopFile } from './queue.js';
import type { QueuedFile } from './queueState.js';
import './capture.css';

const WORDS: Readonly<Record<QueuedFile['status'], string>> = {
  waiting: 'waits',
  sending: 'sending',
  done: 'stored',
  already: 'was here already',
  refused: 'not stored',
  tray: 'set aside',
};

/** What is on its way, and what was set aside or refused with the reason. `station` narrows it to one place. */
export function UploadList({ caseId, station }: { caseId: string; station?: string }): ReactNode {
  const all = useAppSelector((s) => s.uploads.files);
  const away = useAppSelector((s) => s.uploads.away);
  const dispatch = useAppDispatch();
  const files = all.filter((f) => f.caseId === caseId && (station === undefined || f.station === station));
  if (files.length === 0) return null;
  const settled = files.filter((f) => f.status === 'done' || f.status === 'already');
  const loose = files.filter((f) => !f.kept && f.status !== 'done' && f.status !== 'already').length;
  const shown = files.filter((f) => f.status !== 'done' && f.status !== 'already').slice(0, 60);
  const last = settled.slice(-3);
  return (
    <div className="uploads" role="status">
      <div className="uploads-head">
        <span className="figure">
          {settled.length} of {files.length} stored
        </span>
        {away && <span className="fault">server away: the rest is kept in this browser and goes by itself</span>}
        <Button size="small" type="text" onClick={() => dispatch(dropFiles(settled.map((f) => f.id)))} disabled={settled.length === 0}>
          Clear the list
        </Button>
      </div>
      {loose > 0 && (
        <p className="fault">
          The browser has no room left: {loose} {loose === 1 ? 'file is' : 'files are'} held by this page alone. Keep it open until they are
          stored, or free room on the device.
        </p>
      )}
      <ul>
        {[...shown, ...last].map((f) => (
          <Line key={f.id} file={f} />
        ))}
      </ul>
    </div>
  );
}

function Line({ file: f }: { file: QueuedFile }): ReactNode {
  const dispatch = useAppDispatch();
  const { view, me } = useCase();
  const places = [{ value: '', label: 'The whole engine' }, ...view.stations.map((s) => ({ value: s.station.id, label: s.station.name }))];
  const looking = f.status === 'sending' && typeof f.looked === 'number';
  // Places the tag or the builder named come first.
  const likely = [f.station, f.tag?.kind === 'tag' && f.tag.caseId === f.caseId ? f.tag.station : null];
  return (
    <li data-status={f.status}>
      <span className="upload-name">{f.name}</span>
      <span>{looking ? 'looking for its tag' : WORDS[f.status]}</span>
      {f.status === 'sending' && (
        <Progress percent={Math.round((looking ? f.looked! : f.share) * 100)} size="small" style={{ width: 120 }} />
      )}
      {f.status === 'sending' && (
        <Button size="small" onClick={() => stopFile(f.id)}>
          Stop
        </Button>
      )}
      {f.status === 'refused' && f.problem?.code !== 'file-too-large' && f.problem?.code !== 'bytes-gone' && (
        <Button size="small" onClick={() => dispatch(settle(f.id, me))}>
          Send again
        </Button>
      )}
      {(f.status === 'refused' || f.status === 'tray') && (
        <Button size="small" type="text" onClick={() => dispatch(dropFiles([f.id]))}>
          Give it up
        </Button>
      )}
      {f.problem && f.status !== 'sending' && <p className={f.status === 'waiting' ? 'quiet' : 'fault'}>{f.problem.sentence}</p>}
      {f.status === 'tray' && (
        <Select
          showSearch={{ optionFilterProp: 'label' }}
          placeholder="File it to"
          aria-label={`File ${f.name} to`}
          style={{ width: '100%', maxWidth: 320 }}
          options={[...places].sort((a, b) => Number(likely.includes(b.value)) - Number(likely.includes(a.value)))}
          onChange={(v: string) => dispatch(settle(f.id, me, v))}
        />
      )}
    </li>
  );
}
