import { Button, Progress } from 'antd';
import type { StationView } from '@true-ledger/core/case';
import { isFlattened, isFound, isRead, showsPieceOfTurn, type Point, type Turn } from '@true-ledger/core/photo';
import { useState, type DragEvent, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { addFiles } from '../../capture/queue.js';
import { UploadList } from '../../capture/UploadList.js';
import { useAppDispatch } from '../../app/store.js';
import { Clips } from '../../capture/Clips.js';
import { Recorder } from '../../capture/Recorder.js';
import { usePictureReader } from '../../workers/reading.js';
import { CornerEditor } from './CornerEditor.js';
import { PictureMarks } from './PictureMarks.js';
import type { Pen, Place } from './pen.js';
import { BlurEditor, GainFilter, TagOverlay, tagWords } from './PictureTools.js';
import { turnOf, type Flattened } from './useFlattened.js';
import { fetchFile } from '../../app/server.js';
import './station.css';

interface Props {
  readonly station: StationView;
  readonly shown: string | null;
  readonly onShow: (sha256: string) => void;
  readonly flat: Flattened;
  readonly pen: Pen;
  readonly linked: Place | null;
  readonly onLinked: (place: Place | null) => void;
}

/** Pictures of a place: adding, choosing, placing the four corners. */
export function PhotoPane({ station, shown, onShow, flat, pen, linked, onLinked }: Props): ReactNode {
  const { caseId, readOnly, me, view } = useCase();
  const reader = usePictureReader();
  const dispatch = useAppDispatch();
  const record = useRecord();
  const id = station.station.id;
  const add = (files: readonly File[]): void =>
    void dispatch(
      addFiles(
        caseId,
        files.map((f) => ({
          blob: f,
          name: f.name,
          station: id,
          kind: /^(audio|video)\//.test(f.type) ? ('clip' as const) : ('photo' as const),
        })),
        me,
      ),
    );
  const [over, setOver] = useState(false);
  const [placing, setPlacing] = useState(false);
  const [blurring, setBlurring] = useState(false);
  const [drawing, setDrawing] = useState(false);
  const [balanced, setBalanced] = useState(true);
  const photo = station.photos.find((p) => p.value.sha256 === shown)?.value;
  const corners = shown ? station.corners[shown]?.value.corners : undefined;
  const tag = shown ? station.tags[shown]?.value : undefined;
  const blur = shown ? station.blurs[shown]?.value : undefined;
  const editing = placing || blurring;
  const { part } = station.station;
  const turn = turnOf(shown ? station.corners[shown]?.value : undefined);
  const url = (sha: string, size: 'work' | 'thumb'): string => `/api/cases/${caseId}/photos/${sha}/${size}`;
  const frame = station.station.surface;
  const readOf = station.reads.find((r) => r.value.sha256 === shown)?.value;
  const readIt = (): void => {
    if (!photo || !frame || !isRead(part)) return;
    reader.start(
      async () => {
        const file = await fetchFile(url(photo.sha256, 'work'));
        if (!file.ok) throw new Error(file.problem.code);
        return file.value.blob;
      },
      {
        sha256: photo.sha256,
        corners: corners ?? null,
        original: { width: photo.width, height: photo.height },
        part,
        frame,
        turn,
        construction: view.layout.shellConstruction,
      },
      (answer) =>
        record(
          ...(answer.cornersFound
            ? [{ kind: 'corners-set' as const, station: id, body: { sha256: photo.sha256, corners: answer.corners } }]
            : []),
          { kind: 'surface-read', station: id, body: answer.read },
        ),
    );
  };
  const drop = (e: DragEvent): void => {
    e.preventDefault();
    setOver(false);
    if (!readOnly) add([...e.dataTransfer.files]);
  };
  const keep = (next: readonly Point[], of: Turn): void => {
    setPlacing(false);
    if (!photo || !isFlattened(part)) return;
    const piece = showsPieceOfTurn(part) ? { facingDeg: of.facingDeg, ...(part === 'bore' ? { arcDeg: of.arcDeg } : {}) } : {};
    record({ kind: 'corners-set', station: id, body: { sha256: photo.sha256, corners: next, ...piece } });
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
        {photo && frame && isRead(part) && (isFound(part) || corners) && !readOnly && !editing && (
          <Button size="small" type={readOf ? 'default' : 'primary'} disabled={reader.busy !== null} onClick={readIt}>
            {readOf ? 'Read it again' : 'Read the picture'}
          </Button>
        )}
        {photo && frame && isFlattened(part) && !readOnly && !editing && (
          <Button size="small" onClick={() => setPlacing(true)}>
            {corners ? 'Move the corners' : 'Place four corners'}
          </Button>
        )}
        {photo && !readOnly && !editing && (
          <Button size="small" onClick={() => setBlurring(true)}>
            {blur && blur.regions.length > 0 ? 'Blur more or less' : 'Blur'}
          </Button>
        )}
        {photo && flat.result && !readOnly && !editing && (
          <Button size="small" type={drawing ? 'primary' : 'default'} aria-pressed={drawing} onClick={() => setDrawing((x) => !x)}>
            Draw on it
          </Button>
        )}
        {tag && !editing && (
          <Button size="small" onClick={() => setBalanced((x) => !x)} title={tagWords(tag)}>
            {balanced ? 'Colours as taken' : 'Colours by tag'}
          </Button>
        )}
        {photo && !readOnly && !editing && (
          <Button
            size="small"
            onClick={() => {
              const held = station.photos.find((p) => p.value.sha256 === photo.sha256);
              if (!held) return;
              const reason = 'filed wrongly';
              const read = station.reads.find((r) => r.value.sha256 === photo.sha256);
              // What was read in it goes with it.
              record(
                { kind: 'retracted', station: id, body: { target: held.version.entry, slot: `photo:${photo.sha256}`, reason } },
                ...(read
                  ? [
                      {
                        kind: 'retracted' as const,
                        station: id,
                        body: { target: read.version.entry, slot: `surface:${photo.sha256}`, reason },
                      },
                    ]
                  : []),
              );
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
              accept="image/*,.heic,.heif,audio/*,video/*"
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
        blurring ? (
          <BlurEditor
            src={url(photo.sha256, 'work')}
            size={photo}
            regions={blur?.regions ?? []}
            onCancel={() => setBlurring(false)}
            onKeep={(regions) => {
              setBlurring(false);
              record({ kind: 'blur-set', station: id, body: { sha256: photo.sha256, regions } });
            }}
          />
        ) : placing && isFlattened(part) ? (
          <CornerEditor
            src={url(photo.sha256, 'work')}
            size={photo}
            corners={corners}
            part={part}
            turn={turn}
            onKeep={keep}
            onCancel={() => setPlacing(false)}
          />
        ) : (
          <figure className="photo photo-shown">
            <img
              src={url(photo.sha256, 'work')}
              alt={`${station.station.name}: ${photo.name}${photo.standIn ? ', rendered stand-in' : ''}`}
              width={photo.width}
              height={photo.height}
              style={tag && balanced ? { filter: 'url(#tag-gains)' } : undefined}
            />
            {tag && <GainFilter id="tag-gains" gains={tag.gains} />}
            {tag && <TagOverlay key={photo.sha256} tag={tag} size={photo} />}
            {blur && blur.regions.length > 0 && (
              <svg viewBox={`0 0 ${photo.width} ${photo.height}`} aria-hidden="true" className="blur-shown">
                {blur.regions.map((b, i) => (
                  <circle key={i} cx={b.x * photo.width} cy={b.y * photo.height} r={b.r * photo.width} className="blur-spot" />
                ))}
              </svg>
            )}
            {shown && flat.sha256 === shown && (
              <PictureMarks
                station={station}
                flat={flat}
                size={photo}
                pen={drawing && !readOnly ? pen : null}
                cursor={linked}
                onCursor={onLinked}
              />
            )}
            {corners && (
              <svg viewBox={`0 0 ${photo.width} ${photo.height}`} aria-hidden="true">
                <polygon points={corners.map((c) => c.join(',')).join(' ')} />
              </svg>
            )}
          </figure>
        )
      ) : (
        <div className="no-photo">
          {readOnly
            ? 'No picture of this place.'
            : 'No picture yet. Drop files here or press p. JPEG, PNG, WebP or HEIC up to 40 MB; voice notes and short films up to 60 MB.'}
        </div>
      )}
      {tag && <p className="quiet">{tagWords(tag)}; two clicks on the picture measure in the tag’s plane.</p>}
      {flat.problem && <p className="fault">{flat.problem.sentence}</p>}
      {reader.busy && (
        <div className="row" role="status">
          <Progress percent={Math.round(reader.busy.done * 100)} size="small" style={{ flex: 1 }} />
          <span className="quiet">{reader.busy.what}</span>
          <Button size="small" onClick={reader.cancel}>
            Stop
          </Button>
        </div>
      )}
      {reader.problem && (
        <p className="fault" role="alert">
          {reader.problem.sentence}
        </p>
      )}
      {readOf && !reader.busy && (
        <p className="quiet">
          Read with confidence <b className="figure">{Math.round(readOf.confidence * 100)} %</b>. {readOf.doubts.join(' ')} Real parts vary:
          your eye decides; brush over what is read wrongly.
        </p>
      )}
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
      <Clips clips={station.clips} station={id} />
      {!readOnly && <Recorder station={id} />}
      <UploadList caseId={caseId} station={id} />
    </section>
  );
}
