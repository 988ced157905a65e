import { Button, Progress } from 'antd';
import type { Point, StationView } from '@true-ledger/core';
import { useState, type DragEvent, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { CornerEditor } from './CornerEditor.js';
import { useUploads, type Upload } from './uploads.js';
import type { Flattened } from './useFlattened.js';

interface Props {
  readonly station: StationView;
  readonly shown: string | null;
  readonly onShow: (sha256: string) => void;
  readonly flat: Flattened;
}

/** Pictures of a place: adding, choosing, placing the four corners. */
export function PhotoPane({ station, shown, onShow, flat }: Props): ReactNode {
  const { caseId, readOnly } = useCase();
  const record = useRecord();
  const id = station.station.id;
  const { uploads, add, again, stop, clear } = useUploads(caseId, id);
  const [over, setOver] = useState(false);
  const [placing, setPlacing] = useState(false);
  const photo = station.photos.find((p) => p.value.sha256 === shown)?.value;
  const corners = shown ? station.corners[shown]?.value.corners : undefined;
  const isShell = station.station.part === 'shell';
  const url = (sha: string, size: 'work' | 'thumb'): string => `/api/cases/${caseId}/photos/${sha}/${size}`;
  const drop = (e: DragEvent): void => {
    e.preventDefault();
    setOver(false);
    if (!readOnly) add([...e.dataTransfer.files]);
  };
  const keep = (next: readonly Point[]): void => {
    setPlacing(false);
    if (photo) record({ kind: 'corners-set', station: id, body: { sha256: photo.sha256, corners: next } });
  };
  return (
    <section
      className={over ? 'pane photo-pane over' : 'pane photo-pane'}
      aria-label="Pictures"
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <h2>
        Picture
        {photo && isShell && !readOnly && !placing && (
          <Button size="small" onClick={() => setPlacing(true)}>
            {corners ? 'Move the corners' : 'Place four corners'}
          </Button>
        )}
        {photo && !readOnly && !placing && (
          <Button
            size="small"
            onClick={() => {
              const held = station.photos.find((p) => p.value.sha256 === photo.sha256);
              if (!held) return;
              const body = { target: held.version.entry, slot: `photo:${photo.sha256}`, reason: 'filed wrongly' };
              record({ kind: 'retracted', station: id, body });
            }}
            title="Takes the picture from this place; the ledger keeps it, and u brings it back"
          >
            Take it away
          </Button>
        )}
        {!readOnly && (
          <label className="add-pictures">
            Add pictures
            <input
              id="add-pictures"
              type="file"
              accept="image/jpeg,image/png,image/webp"
              multiple
              onChange={(e) => {
                add([...(e.target.files ?? [])]);
                e.target.value = '';
              }}
            />
          </label>
        )}
      </h2>
      {photo ? (
        placing ? (
          <CornerEditor src={url(photo.sha256, 'work')} size={photo} corners={corners} onKeep={keep} onCancel={() => setPlacing(false)} />
        ) : (
          <figure className="photo">
            <img
              src={url(photo.sha256, 'work')}
              alt={`${station.station.name}: ${photo.name}${photo.standIn ? ', rendered stand-in' : ''}`}
              width={photo.width}
              height={photo.height}
            />
            {corners && (
              <svg viewBox={`0 0 ${photo.width} ${photo.height}`} aria-hidden="true">
                <polygon points={corners.map((c) => c.join(',')).join(' ')} />
              </svg>
            )}
          </figure>
        )
      ) : (
        <div className="no-photo">
          {readOnly ? 'No picture of this place.' : 'No picture yet. Drop files here or press p. JPEG, PNG or WebP, up to 40 MB each.'}
        </div>
      )}
      {flat.problem && <p className="fault">{flat.problem.sentence}</p>}
      <div className="thumbs">
        {station.photos.map(({ value: p }) => (
          <button
            type="button"
            key={p.sha256}
            className={p.sha256 === shown ? 'here' : ''}
            onClick={() => onShow(p.sha256)}
            aria-label={`Show ${p.name}`}
          >
            <img src={url(p.sha256, 'thumb')} alt="" loading="lazy" />
          </button>
        ))}
      </div>
      {uploads.length > 0 && <UploadList uploads={uploads} again={again} stop={stop} clear={clear} />}
    </section>
  );
}

const WORDS: Readonly<Record<Upload['status'], string>> = {
  waiting: 'waits',
  sending: 'sending',
  done: 'stored',
  already: 'was here already',
  failed: 'not stored',
  stopped: 'stopped',
};

function UploadList({
  uploads,
  again,
  stop,
  clear,
}: {
  uploads: readonly Upload[];
  again: (key: string) => void;
  stop: (key: string) => void;
  clear: () => void;
}): ReactNode {
  const settled = uploads.filter((u) => u.status === 'done' || u.status === 'already').length;
  return (
    <div className="uploads" role="status">
      <div className="uploads-head">
        <span className="figure">
          {settled} of {uploads.length} stored
        </span>
        <Button size="small" type="text" onClick={clear}>
          Clear the list
        </Button>
      </div>
      <ul>
        {uploads.map((u) => (
          <li key={u.key} className={u.status}>
            <span className="upload-name">{u.name}</span>
            <span>{WORDS[u.status]}</span>
            {u.status === 'sending' && <Progress percent={Math.round(u.share * 100)} size="small" style={{ width: 120 }} />}
            {u.status === 'sending' && (
              <Button size="small" onClick={() => stop(u.key)}>
                Stop
              </Button>
            )}
            {(u.status === 'failed' || u.status === 'stopped') && u.problem?.code !== 'file-too-large' && (
              <Button size="small" onClick={() => again(u.key)}>
                Send again
              </Button>
            )}
            {u.problem && u.status === 'failed' && <p className="fault">{u.problem.sentence}</p>}
          </li>
        ))}
      </ul>
    </div>
  );
}
