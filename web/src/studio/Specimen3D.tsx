import { useEffect, useImperativeHandle, useRef, useState, type KeyboardEvent, type ReactNode, type Ref } from 'react';
import { createStage, type Setting, type ShownSpecimen, type Stage } from './stage.js';
import './studio.css';

export interface SpecimenHandle {
  readonly picture: (width: number, height: number) => Promise<Blob>;
}

interface Props {
  readonly specimen: ShownSpecimen | null;
  readonly setting: Setting;
  readonly label: string;
  readonly handle?: Ref<SpecimenHandle>;
}

/** A specimen that can be turned by pointer and by arrow keys. */
export function Specimen3D({ specimen, setting, label, handle }: Props): ReactNode {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const stage = useRef<Stage | null>(null);
  const [fault, setFault] = useState(false);
  const [shown, setShown] = useState('');
  useEffect(() => {
    // Held: a change of size may be told once more when the page is gone.
    const frame = box.current;
    if (!canvas.current || !frame) return;
    let made: Stage;
    try {
      made = createStage(canvas.current);
    } catch {
      setFault(true);
      return;
    }
    stage.current = made;
    const fit = (): void => {
      const { clientWidth, clientHeight } = frame;
      if (clientWidth > 0 && clientHeight > 0) made.resize(clientWidth, clientHeight);
    };
    fit();
    const watch = new ResizeObserver(fit);
    watch.observe(frame);
    return () => {
      watch.disconnect();
      made.dispose();
      stage.current = null;
    };
  }, []);
  useEffect(() => {
    if (!specimen || !stage.current) return;
    stage.current.show(specimen, setting);
    setShown(specimen.key);
  }, [specimen, setting]);
  useImperativeHandle(handle, () => ({
    picture: (width, height) =>
      stage.current ? stage.current.picture(width, height) : Promise.reject(new Error('This browser draws no specimens.')),
  }));
  const keys = (e: KeyboardEvent): void => {
    const by: Record<string, readonly [number, number]> = { ArrowLeft: [-8, 0], ArrowRight: [8, 0], ArrowUp: [0, 6], ArrowDown: [0, -6] };
    const turn = by[e.key];
    if (turn) stage.current?.turn(...turn);
    else if (e.key === 'Home') stage.current?.home();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div className="specimen-box" ref={box}>
      <canvas
        ref={canvas}
        className="specimen-canvas"
        tabIndex={0}
        role="img"
        aria-label={`${label}. Drag or use the arrow keys to turn it, Home to put it back.`}
        data-shown={shown}
        onKeyDown={keys}
      />
      {fault && (
        <p className="fault">This browser cannot draw in three dimensions (WebGL). The pictures of the catalogue show the same parts.</p>
      )}
    </div>
  );
}
