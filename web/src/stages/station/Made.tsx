import { Button } from 'antd';
import { useEffect, useState, type ReactNode } from 'react';
import type { MadeSurface } from '../../workers/film.worker.js';
import './station.css';

/** What was made of the film, before it is kept. */
export function Made({
  made,
  kept,
  onKeep,
  onAgain,
}: {
  readonly made: MadeSurface;
  readonly kept: boolean;
  readonly onKeep: () => void;
  readonly onAgain: () => void;
}): ReactNode {
  const src = useObjectUrl(made.png);
  const { read, told } = made;
  const relief = useObjectUrl(told.kind === 'lamp' ? told.relief : null);
  return (
    <>
      {src && <img className="made-surface" src={src} alt={MADE_ALT[told.kind]} width={made.width} height={made.height} />}
      {relief && <img className="made-surface" src={relief} alt="Relief of its face by the shading, front edge below" />}
      <p>
        <Told told={told} /> Its reading has a confidence of <b className="figure">{Math.round(read.confidence * 100)} %</b>.{' '}
        {read.doubts.join(' ')}
      </p>
      <div className="row">
        <Button type="primary" loading={kept} onClick={onKeep}>
          Keep this surface
        </Button>
        <Button disabled={kept} onClick={onAgain}>
          {told.kind === 'drawn' ? 'Begin again' : 'Place the corners again'}
        </Button>
        <span className="quiet">It is filed as made from a film; the film stays.</span>
      </div>
    </>
  );
}

const MADE_ALT: Readonly<Record<MadeSurface['told']['kind'], string>> = {
  turn: 'The surface all round, front edge below',
  drawn: 'The wall of the bore all round, where the scope came out above',
  lamp: 'The part without glare',
};

function Told({ told }: { readonly told: MadeSurface['told'] }): ReactNode {
  if (told.kind === 'turn') return <TurnTold told={told} />;
  return told.kind === 'lamp' ? <LampTold told={told} /> : <BoreTold told={told} />;
}

function BoreTold({ told: { seenPercent, longMm, ends } }: { readonly told: Extract<MadeSurface['told'], { kind: 'drawn' }> }): ReactNode {
  const missing = [!ends.near && 'where the scope came out', !ends.far && 'at the far end'].filter(Boolean);
  return (
    <>
      <b className="figure">{Math.round(longMm)} mm</b> of the wall, <b className="figure">{Math.round(seenPercent)} %</b> of it seen.
      {missing.length > 0 && ` The wall was not seen to end ${missing.join(' nor ')}.`}
    </>
  );
}

function TurnTold({ told: { closingErrorDeg, seenDeg } }: { readonly told: Extract<MadeSurface['told'], { kind: 'turn' }> }): ReactNode {
  return (
    <>
      {closingErrorDeg === null ? (
        'The turn did not close on itself.'
      ) : (
        <>
          The turn closed <b className="figure">{Math.abs(closingErrorDeg).toFixed(1)}°</b> off and was made to meet.
        </>
      )}{' '}
      <b className="figure">{Math.round(seenDeg)}°</b> seen.
    </>
  );
}

function LampTold({
  told: { seenPercent, framesUsed, walls },
}: {
  readonly told: Extract<MadeSurface['told'], { kind: 'lamp' }>;
}): ReactNode {
  return (
    <>
      <b className="figure">{Math.round(seenPercent)} %</b> of the face seen without glare, from <b className="figure">{framesUsed}</b>{' '}
      frames.
      {walls.with + walls.without > 0 && (
        <>
          {' '}
          <b className="figure">{walls.with}</b> of its lines have walls as scores have, <b className="figure">{walls.without}</b> have
          none.
        </>
      )}
      {walls.unknown > 0 && (
        <>
          {' '}
          Of <b className="figure">{walls.unknown}</b> the film does not tell.
        </>
      )}
    </>
  );
}

/** Address of a picture in memory, let go with the page; empty for none. */
function useObjectUrl(blob: Blob | null): string {
  const [src, setSrc] = useState('');
  useEffect(() => {
    if (!blob) return;
    const url = URL.createObjectURL(blob);
    setSrc(url);
    return () => URL.revokeObjectURL(url);
  }, [blob]);
  return src;
}
