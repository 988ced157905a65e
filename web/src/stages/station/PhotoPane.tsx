import { Button, Progress } from 'antd';
import type { StationView } from '@true-ledger/core/case';
import { isFlattened, isRead, showsPieceOfTurn, WHOLE_TURN, type Point, type StagePicture, type Turn } from '@true-ledger/core/photo';
import { useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import { addFiles } from '../../capture/queue.js';
import { UploadList } from '../../capture/UploadList.js';
import { useAppDispatch } from '../../app/store.js';
import { Clips } from '../../capture/Clips.js';
import { Recorder } from '../../capture/Recorder.js';
import { CornerEditor } from './CornerEditor.js';
import { FilmPanel } from './FilmPanel.js';
import { StageStrip } from './StageStrip.js';
import type { Pen, Place } from './pen.js';
import { ColourButton, PhotoTools } from './PhotoTools.js';
import { PictureFigure } from './PictureFigure.js';
import { BlurEditor, tagWords } from './PictureTools.js';
import { pictureUrl, shownPicture, useReadPicture, type ShownPicture, type ShownReader } from './shownPicture.js';
import type { Flattened } from './useFlattened.js';
import './station.css';

interface Props {
  readonly station: StationView;
  /** SHA-256 of the picture that is shown. */
  readonly shown: string | null;
  readonly onShow: (sha256: string) => void;
  readonly flat: Flattened;
  readonly pen: Pen;
  readonly drawing: boolean;
  readonly onDraw: (drawing: boolean) => void;
  readonly linked: Place | null;
  readonly onLinked: (place: Place | null) => void;
}

/** Pictures of a place: adding, choosing, reading, placing the four corners. */
export function PhotoPane({ station, shown: sha256, onShow, flat, pen, drawing, onDraw, linked, onLinked }: Props): ReactNode {
  const { caseId, readOnly } = useCase();
  const add = useAddFiles(station.station.id);
  const shown = shownPicture(station, sha256);
  const reader = useReadPicture(station, shown);
  const [over, setOver] = useState(false);
  const [editing, setEditing] = useState<'corners' | 'blur' | null>(null);
  const [film, setFilm] = useState<string | null>(null);
  const [balanced, setBalanced] = useState(true);
  const balance = (): void => setBalanced((x) => !x);
  return (
    <section
      className={over ? 'pane photo-pane over' : 'pane photo-pane'}
      aria-label="Pictures"
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        if (!readOnly) add([...e.dataTransfer.files]);
      }}
    >
      <h2>
        Picture
        {shown && !editing && readOnly && <ColourButton shown={shown} balanced={balanced} onBalance={balance} />}
        {shown && !editing && !readOnly && (
          <PhotoTools
            station={station}
            shown={shown}
            reading={reader.busy !== null}
            onRead={reader.read}
            onPlace={() => setEditing('corners')}
            onBlur={() => setEditing('blur')}
            drawing={flat.result ? drawing : null}
            onDraw={() => onDraw(!drawing)}
            balanced={balanced}
            onBalance={balance}
          />
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
      {!shown && (
        <div className="no-photo">
          {readOnly
            ? 'No picture of this place.'
            : 'No picture yet. Drop files here or press p. JPEG, PNG, WebP or HEIC up to 40 MB; voice notes and short films up to 60 MB.'}
        </div>
      )}
      {shown && editing && <PictureEditor station={station} shown={shown} editing={editing} onDone={() => setEditing(null)} />}
      {shown && !editing && (
        <PictureFigure
          station={station}
          shown={shown}
          flat={flat}
          balanced={balanced}
          pen={drawing && !readOnly ? pen : null}
          cursor={linked}
          onCursor={onLinked}
        />
      )}
      {shown?.tag && <p className="quiet">{tagWords(shown.tag)}; two clicks on the picture measure in the tag’s plane.</p>}
      {flat.problem && <p className="fault">{flat.problem.sentence}</p>}
      <ReadStanding reader={reader} read={shown?.read} />
      <div className="thumbs">
        {station.photos.map(({ value: p }) => (
          <button
            type="button"
            key={p.sha256}
            className={p.sha256 === sha256 ? 'here' : ''}
            onClick={() => onShow(p.sha256)}
            aria-label={`Show ${p.name}`}
          >
            <img src={pictureUrl(caseId, p.sha256, 'thumb')} alt="" loading="lazy" />
          </button>
        ))}
      </div>
      <Clips
        clips={station.clips}
        station={station.station.id}
        {...(isRead(station.station.part) && !readOnly ? { onRead: setFilm } : {})}
      />
      {film && <FilmPanel key={film} station={station} film={film} onClose={() => setFilm(null)} />}
      {!readOnly && <Recorder station={station.station.id} />}
      <UploadList caseId={caseId} station={station.station.id} />
    </section>
  );
}

/** Puts files in the queue of this place, each as what it is. */
function useAddFiles(station: string): (files: readonly File[]) => void {
  const { caseId, me } = useCase();
  const dispatch = useAppDispatch();
  return (files) =>
    void dispatch(
      addFiles(
        caseId,
        files.map((f) => ({
          blob: f,
          name: f.name,
          station,
          kind: /^(audio|video)\//.test(f.type) ? ('clip' as const) : ('photo' as const),
        })),
        me,
      ),
    );
}

/** The picture under the hand: its corners are placed or parts of it are blurred. Nothing is recorded before it is kept. */
function PictureEditor({
  station,
  shown: { photo, corners, turn, blur },
  editing,
  onDone,
}: {
  station: StationView;
  shown: ShownPicture;
  editing: 'corners' | 'blur';
  onDone: () => void;
}): ReactNode {
  const { caseId } = useCase();
  const record = useRecord();
  const { id, part } = station.station;
  const src = pictureUrl(caseId, photo.sha256, 'work');
  if (editing === 'blur')
    return (
      <BlurEditor
        src={src}
        size={photo}
        regions={blur?.regions ?? []}
        onCancel={onDone}
        onKeep={(regions) => {
          onDone();
          record({ kind: 'blur-set', station: id, body: { sha256: photo.sha256, regions } });
        }}
      />
    );
  if (!isFlattened(part)) return null;
  const keep = (next: readonly Point[], of: Turn): void => {
    onDone();
    const piece = showsPieceOfTurn(part)
      ? { facingDeg: of.facingDeg, ...(part === 'bore' || of.arcDeg === WHOLE_TURN.arcDeg ? { arcDeg: of.arcDeg } : {}) }
      : {};
    record({ kind: 'corners-set', station: id, body: { sha256: photo.sha256, corners: next, ...piece } });
  };
  return <CornerEditor src={src} size={photo} corners={corners} part={part} turn={turn} onKeep={keep} onCancel={onDone} />;
}

/** How far a reading is, why it failed, or how sure it is of what it read. */
function ReadStanding({ reader, read }: { reader: ShownReader; read: ShownPicture['read'] }): ReactNode {
  const [stages, setStages] = useState<readonly StagePicture[]>([]);
  const { readOther } = reader;
  useKeys(readOther && !reader.busy ? [{ keys: 'c', what: 'Other guess of the corners', run: readOther }] : []);
  return (
    <>
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
      {read && !reader.busy && (
        <p className="quiet">
          Read with confidence <b className="figure">{Math.round(read.confidence * 100)} %</b>. {read.doubts.join(' ')} Real parts vary:
          your eye decides; brush over what is read wrongly.{' '}
          <Button size="small" type="link" onClick={() => reader.explain(setStages)}>
            How it was read
          </Button>
          {reader.readOther && (
            <Button size="small" type="link" onClick={reader.readOther}>
              Other guess of the corners (c)
            </Button>
          )}
        </p>
      )}
      {stages.length > 0 && <StageStrip stages={stages} onClose={() => setStages([])} />}
    </>
  );
}
