import type { StagePicture } from '@true-ledger/core/photo';
import { Modal } from 'antd';
import { useEffect, useRef, type ReactNode } from 'react';
import './station.css';

/** The picture of every stage of a reading, one below the other: why it is what it is. Nothing is recorded. */
export function StageStrip({ stages, onClose }: { readonly stages: readonly StagePicture[]; readonly onClose: () => void }): ReactNode {
  return (
    <Modal open title="How it was read" footer={null} width={900} onCancel={onClose}>
      <ol className="stage-strip">
        {stages.map((stage) => (
          <li key={stage.name}>
            <b>{stage.name}</b> <Shows words={stage.shows} />
            <Picture stage={stage} />
          </li>
        ))}
      </ol>
    </Modal>
  );
}

/** What a stage shows; colours are shown and not named. */
function Shows({ words }: { readonly words: string }): ReactNode {
  return (
    <span className="quiet">
      {words
        .split(/(#[0-9a-f]{6})/)
        .map((part, k) => (part.startsWith('#') ? <i key={k} className="stage-colour" style={{ background: part }} /> : part))}
    </span>
  );
}

function Picture({ stage: { name, pixels } }: { readonly stage: StagePicture }): ReactNode {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const { width, height, data } = pixels;
    canvas.current?.getContext('2d')?.putImageData(new ImageData(new Uint8ClampedArray(data), width, height), 0, 0);
  }, [pixels]);
  return <canvas ref={canvas} width={pixels.width} height={pixels.height} role="img" aria-label={`The stage ${name}`} />;
}
