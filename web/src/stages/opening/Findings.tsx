import { Alert } from 'antd';
import { THUMB, type Limited, type OpeningCheck, type OpeningResults } from '@true-ledger/core/opening';
import { limitSource } from '@true-ledger/core/diagnosis';
import type { ReactNode } from 'react';
import { useCase } from '../../app/caseContext.js';
import {
  CompressionBars,
  Cylinders,
  Dipstick,
  FourSides,
  Glass,
  KnockMap,
  Magnet,
  NosePlay,
  Pleats,
  PressureFace,
  Tank,
  TurningRose,
} from './drawings.js';
import './opening.css';

export function Picture({ check, results }: { check: OpeningCheck; results: OpeningResults }): ReactNode {
  const { view } = useCase();
  const value = (key: string): number | null => view.checks.get(`${check.id}:${key}`)?.value.value ?? null;
  const chosen = (key: string): readonly string[] => view.checks.get(`${check.id}:${key}`)?.value.chosen ?? [];
  const text = (key: string): string => view.checks.get(`${check.id}:${key}`)?.value.text ?? '';
  const each = (key: string, n: number): Array<number | null> => Array.from({ length: n }, (_, i) => value(`${key}.${i + 1}`));
  const limits = limitSource(view);
  switch (check.id) {
    case 'dipstick':
      return <Dipstick level={chosen('level')[0]} look={chosen('look')} />;
    case 'coolant':
      return <Tank level={chosen('level')[0]} film={chosen('film')} />;
    case 'oil-sample':
      return <Glass look={[]} filled={['mid-stream', 'pan'].includes(chosen('taken')[0] ?? '')} />;
    case 'fuel':
      return <Glass look={chosen('look')} filled={chosen('look').length > 0} />;
    case 'filter':
      return <Pleats found={chosen('found')} />;
    case 'magnet':
      return <Magnet clings={chosen('clings')} />;
    case 'compression':
      return (
        <CompressionBars dry={each('dry', view.layout.cylinders)} wet={each('wet', view.layout.cylinders)} result={results.compression} />
      );
    case 'turning':
      return <TurningRose ahead={each('ahead', 12)} back={each('back', 12)} result={results.turning} />;
    case 'end-float':
      return <NosePlay float={text('float')} play={text('play')} />;
    case 'oil-pressure':
      return (
        <div className="faces">
          {check.fields.map((f) => (
            <PressureFace
              key={f.id}
              name={f.label}
              value={value(f.id)}
              limit={f.id === 'hot-idle' ? (limits('oil-pressure.hot-idle')?.band.lower ?? THUMB.hotIdleBar) : null}
            />
          ))}
        </div>
      );
    case 'leak-down':
      return (
        <Cylinders
          layout={view.layout}
          word={(c) => (value(`loss.${c}`) === null ? '' : `${value(`loss.${c}`)} %`)}
          marked={(c) => (value(`loss.${c}`) ?? 0) > THUMB.leakPercent}
        />
      );
    case 'borescope':
      return (
        <Cylinders layout={view.layout} word={(c) => text(`seen.${c}`)} marked={(c) => chosen(`seen.${c}`).some((x) => x !== 'clear')} />
      );
    case 'knock':
      return <KnockMap where={chosen('where')} />;
    case 'arrival':
      return <FourSides count={view.photos.length} />;
  }
}

/** What the figures of a check say, with the limit they are held against. */
export function Told({ check, results }: { check: OpeningCheck; results: OpeningResults }): ReactNode {
  const lines: Array<readonly [string, Limited | null]> =
    check.id === 'oil-pressure'
      ? [['Hot, idle', results.hotIdle]]
      : check.id === 'end-float'
        ? [
            ['End float', results.endFloat],
            ['Play at the nose', results.nosePlay],
          ]
        : [];
  const words = check.id === 'compression' ? results.compression?.words : check.id === 'turning' ? results.turning?.words : undefined;
  const leaks = check.id === 'leak-down' ? results.leak.flatMap((v, i) => (v !== null && v > THUMB.leakPercent ? [i + 1] : [])) : [];
  return (
    <>
      {words && (
        <Alert
          type="info"
          title={`${words[0]?.toUpperCase()}${words.slice(1)}.`}
          description={
            check.id === 'compression'
              ? 'Low: more than 15 % below the highest (rule of thumb), or below the maker’s least where a sheet gives it.'
              : undefined
          }
        />
      )}
      {leaks.length > 0 && <Alert type="info" title={`Over ${THUMB.leakPercent} % (rule of thumb): cylinder ${leaks.join(', ')}.`} />}
      {lines.map(
        ([name, l]) =>
          l && (
            <p key={name}>
              {name}: <b className={`verdict-word ${l.verdict.word.replace(/ /g, '-')}`}>{l.verdict.word}</b>{' '}
              <span className="quiet">
                {l.verdict.reason} ({l.source}). {l.verdict.settle ?? ''}
              </span>
            </p>
          ),
      )}
    </>
  );
}
