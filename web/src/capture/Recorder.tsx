import { Button } from 'antd';
import { LIMITS } from '@true-ledger/contract';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useCase } from '../app/caseContext.js';
import { useAppDispatch } from '../app/store.js';
import { addFiles } from './queue.js';
import './capture.css';

const LONGEST_SECONDS = { audio: 300, video: 60 } as const;

function pickType(kind: 'audio' | 'video'): string {
  const wanted =
    kind === 'audio'
      ? ['audio/webm;codecs=opus', 'audio/webm', 'audio/mp4', 'audio/ogg']
      : ['video/webm;codecs=vp8,opus', 'video/webm', 'video/mp4'];
  return wanted.find((t) => MediaRecorder.isTypeSupported(t)) ?? '';
}

/** Records a voice note or a short film in the page and puts it into the queue. Limits are said beforehand. */
export function Recorder({ station }: { station: string }): ReactNode {
  const { caseId, me } = useCase();
  const dispatch = useAppDispatch();
  const [on, setOn] = useState<'audio' | 'video' | null>(null);
  const [seconds, setSeconds] = useState(0);
  const [problem, setProblem] = useState<string | null>(null);
  const recorder = useRef<MediaRecorder | null>(null);
  const picture = useRef<HTMLVideoElement>(null);
  useEffect(() => () => recorder.current?.stop(), []);
  useEffect(() => {
    if (!on) return;
    const from = Date.now();
    const timer = setInterval(() => {
      const now = (Date.now() - from) / 1000;
      setSeconds(now);
      if (now >= LONGEST_SECONDS[on]) recorder.current?.stop();
    }, 250);
    return () => clearInterval(timer);
  }, [on]);

  const start = async (kind: 'audio' | 'video'): Promise<void> => {
    setProblem(null);
    if (!navigator.mediaDevices || typeof MediaRecorder === 'undefined') {
      setProblem(
        'This browser records only on a trusted page (https or this computer itself). Record with the phone’s own program and add the file.',
      );
      return;
    }
    try {
      const stream = await navigator.mediaDevices.getUserMedia(
        kind === 'audio' ? { audio: true } : { audio: true, video: { facingMode: 'environment' } },
      );
      const type = pickType(kind);
      const made = new MediaRecorder(stream, type ? { mimeType: type } : {});
      const parts: Blob[] = [];
      let from = Date.now();
      made.ondataavailable = (e) => parts.push(e.data);
      made.onstart = () => (from = Date.now());
      made.onstop = () => {
        for (const track of stream.getTracks()) track.stop();
        recorder.current = null;
        setOn(null);
        const blob = new Blob(parts, { type: made.mimeType.split(';')[0] ?? made.mimeType });
        if (blob.size === 0) return;
        const name = `${kind === 'audio' ? 'voice' : 'film'}-${new Date(from).toISOString().slice(0, 19).replace(/[:T]/g, '-')}.${blob.type.includes('mp4') ? 'mp4' : blob.type.includes('ogg') ? 'ogg' : 'webm'}`;
        void dispatch(addFiles(caseId, [{ blob, name, station, kind: 'clip', seconds: (Date.now() - from) / 1000 }], me));
      };
      made.start(1000);
      recorder.current = made;
      setSeconds(0);
      setOn(kind);
      if (kind === 'video') requestAnimationFrame(() => picture.current && (picture.current.srcObject = stream));
    } catch (error) {
      setProblem(
        error instanceof DOMException && error.name === 'NotAllowedError'
          ? 'The browser was not allowed to listen. Allow the microphone for this page, or add a file.'
          : 'No microphone or camera answered. Add a file instead.',
      );
    }
  };
  return (
    <div className="recorder">
      <div className="row">
        {on ? (
          <Button danger onClick={() => recorder.current?.stop()}>
            Stop and keep <span className="figure">{seconds.toFixed(0)} s</span>
          </Button>
        ) : (
          <>
            <Button onClick={() => void start('audio')}>Voice note</Button>
            <Button onClick={() => void start('video')}>Short film</Button>
          </>
        )}
        <span className="quiet">
          voice up to {LONGEST_SECONDS.audio / 60} min, film up to {LONGEST_SECONDS.video} s, files up to {LIMITS.clipBytes / 1048576} MB
        </span>
      </div>
      {on === 'video' && <video ref={picture} muted autoPlay playsInline className="preview" aria-label="What the camera sees" />}
      {problem && (
        <p className="fault" role="alert">
          {problem}
        </p>
      )}
    </div>
  );
}
