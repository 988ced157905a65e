import { Button, Input } from 'antd';
import { agreement, GRADE_INFO, gradeText, GRADES, type Grade } from '@true-ledger/core/damage';
import type { StationView } from '@true-ledger/core/case';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useDraft } from '../../app/drafts.js';
import { Link, useNavigate, useParams } from 'react-router';
import { useCase, useRecord } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import { drawDeveloped } from '../../surface/paint.js';
import { useFlattened } from '../station/useFlattened.js';
import './opinion.css';

/** Another builder grades what is in the pictures without seeing the first grade, its marks or what was read. */
export function SecondOpinion(): ReactNode {
  const { stationId } = useParams();
  const { view, caseId, me, readOnly } = useCase();
  const graded = view.stations.filter((s) => s.grade);
  const mine = graded.filter((s) => s.grade!.version.author.id === me.author.id);
  const open = graded.filter((s) => s.grade!.version.author.id !== me.author.id && !s.secondOpinion);
  const given = graded.filter((s) => s.secondOpinion && s.secondOpinion.version.author.id !== s.grade!.version.author.id);
  const station = stationId ? open.find((s) => s.station.id === stationId) : undefined;
  const result = agreement(given.map((s) => [s.grade!.value.grade, s.secondOpinion!.value.grade] as const));
  if (station && !readOnly) return <Blind key={station.station.id} station={station} rest={open.filter((s) => s !== station)} />;
  return (
    <div className="page second-opinion">
      <h1>Second opinion</h1>
      <p className="quiet">
        Grade places that another builder graded, from their pictures, without seeing that grade, the marks or what was read. Both stay in
        the ledger.
      </p>
      <section className="pane" aria-label="To be graded blind">
        <h2>To be graded blind</h2>
        {open.length === 0 ? (
          <p className="quiet">
            {graded.length === 0
              ? 'No place has a confirmed grade yet.'
              : mine.length === graded.length
                ? 'You gave every grade of this case yourself: a second opinion is another builder’s.'
                : 'Every grade has its second opinion.'}
          </p>
        ) : (
          <ul className="blind-list">
            {open.map((s) => (
              <li key={s.station.id}>
                {readOnly ? s.station.name : <Link to={`/case/${caseId}/second-opinion/${s.station.id}`}>{s.station.name}</Link>}{' '}
                <span className="quiet">
                  {s.photos.length} picture{s.photos.length === 1 ? '' : 's'}
                </span>
              </li>
            ))}
          </ul>
        )}
      </section>
      {given.length > 0 && (
        <section className="pane" aria-label="How they agree">
          <h2>How they agree</h2>
          <p>
            <b className="figure">{result.equal}</b> of <b className="figure">{result.places}</b> the same,{' '}
            <b className="figure">{result.withinOne}</b> within one grade
            {result.kappa !== null && (
              <>
                ; weighted kappa <b className="figure">{result.kappa.toFixed(2)}</b>{' '}
                <span className="quiet">(1 full agreement, 0 what chance gives)</span>
              </>
            )}
            .
          </p>
          <table className="opinions">
            <thead>
              <tr>
                <th>Place</th>
                <th>First</th>
                <th>Second</th>
                <th>Note</th>
              </tr>
            </thead>
            <tbody>
              {given.map((s) => (
                <tr key={s.station.id} className={Math.abs(s.grade!.value.grade - s.secondOpinion!.value.grade) > 1 ? 'apart' : ''}>
                  <td>
                    <Link to={`/case/${caseId}/station/${s.station.id}`}>{s.station.name}</Link>
                  </td>
                  <td>
                    {gradeText(s.grade!.value.grade)} <span className="quiet">{s.grade!.version.author.name}</span>
                  </td>
                  <td>
                    {gradeText(s.secondOpinion!.value.grade)} <span className="quiet">{s.secondOpinion!.version.author.name}</span>
                  </td>
                  <td>{s.secondOpinion!.value.note}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </div>
  );
}

const WIDTH = 520;

function Blind({ station, rest }: { station: StationView; rest: readonly StationView[] }): ReactNode {
  const { caseId } = useCase();
  const record = useRecord();
  const navigate = useNavigate();
  const [photo, setPhoto] = useState(station.photos[0]?.value.sha256 ?? null);
  const [note, setNote] = useDraft('Note');
  const shown = station.photos.find((p) => p.value.sha256 === photo)?.value;
  const flat = useFlattened(caseId, station, photo ?? undefined);
  const canvas = useRef<HTMLCanvasElement>(null);
  const frame = station.station.surface;
  const height = frame ? Math.min(330, Math.round((WIDTH * frame.heightMm) / frame.widthMm)) : 0;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !frame || !flat.result) return;
    context.clearRect(0, 0, WIDTH, height);
    drawDeveloped(context, frame, flat.result, flat.turn, WIDTH, height);
  }, [flat, frame, height]);
  const leave = (): void => void navigate(`/case/${caseId}/second-opinion`);
  const give = (grade: Grade): void => {
    record({ kind: 'second-opinion', station: station.station.id, body: { grade, note: note.trim() } });
    const next = rest[0];
    void navigate(`/case/${caseId}/second-opinion${next ? `/${next.station.id}` : ''}`);
  };
  useKeys([
    { keys: 'Escape', what: 'Back to the list', run: leave },
    ...GRADES.map((g) => ({ keys: String(g), what: `Grade ${gradeText(g)}`, run: () => give(g) })),
  ]);
  return (
    <div className="page second-opinion">
      <div className="page-head">
        <h1>{station.station.name}</h1>
        <span className="quiet">graded blind: the first grade is not shown; {rest.length} more after this</span>
      </div>
      <div className="blind-grid">
        <section className="pane" aria-label="Pictures">
          {photo ? (
            <img
              className="blind-photo"
              width={shown?.width}
              height={shown?.height}
              src={`/api/cases/${caseId}/photos/${photo}/work`}
              alt={station.station.name}
            />
          ) : (
            <p className="quiet">No picture of this place: look at the part itself.</p>
          )}
          <div className="thumbs">
            {station.photos.map(({ value: p }) => (
              <button
                type="button"
                key={p.sha256}
                className={p.sha256 === photo ? 'here' : ''}
                onClick={() => setPhoto(p.sha256)}
                aria-label={`Show ${p.name}`}
              >
                <img src={`/api/cases/${caseId}/photos/${p.sha256}/thumb`} alt="" />
              </button>
            ))}
          </div>
        </section>
        <section className="pane" aria-label="Your grade">
          {flat.result && <canvas ref={canvas} width={WIDTH} height={height} role="img" aria-label="Developed surface" />}
          {flat.busy && <p className="quiet">flattening …</p>}
          <h2>Your grade</h2>
          <div className="grade-row" role="group" aria-label="Grade">
            {GRADES.map((g) => (
              <button type="button" key={g} className="grade-button" title={GRADE_INFO[g].meaning} onClick={() => give(g)}>
                <i style={{ background: GRADE_INFO[g].colour }} />
                {gradeText(g)}
              </button>
            ))}
          </div>
          <Input.TextArea
            value={note}
            onChange={(e) => setNote(e.target.value)}
            placeholder="What decides it for you"
            aria-label="Note"
            maxLength={500}
            autoSize={{ minRows: 2 }}
          />
          <Button onClick={leave}>Leave it for now</Button>
        </section>
      </div>
    </div>
  );
}
