import { GRADE_INFO, gradeText, GRADES, WEAR_CLASS_INFO, WEAR_CLASSES } from '@true-ledger/core/damage';
import { readAgainstSound, type StationView } from '@true-ledger/core/case';
import type { ReactNode } from 'react';
import { stationWords } from '../../surface/stationWords.js';
import type { BenchOverlay, BenchScene } from './drawBench.js';
import './bench.css';

/** One line on the place the cursor stands on. */
export function Here({ view, onOpen, children }: { view: StationView; onOpen: () => void; children: ReactNode }): ReactNode {
  return (
    <div className="bench-here" aria-live="polite">
      <b>{view.station.name}</b>
      <span>{stationWords(view)}</span>
      <span className="quiet">
        {view.photos.length} picture{view.photos.length === 1 ? '' : 's'}, {view.marks.length} mark{view.marks.length === 1 ? '' : 's'},{' '}
        {view.remarks.length} remark{view.remarks.length === 1 ? '' : 's'}
      </span>
      <button type="button" className="linkish" onClick={onOpen}>
        Open (Enter)
      </button>
      {children}
    </div>
  );
}

const OVERLAY_WORDS: Partial<Record<BenchOverlay, string>> = {
  oil: 'Figure: how far along the oil route from the feed end of the gallery.',
  'not-examined': 'What still waits to be looked at stands out.',
  clearance: 'Running clearance as measured; red beyond its limit.',
  predicted: 'Chance of damage there had it been the leading cause.',
  difference: 'Against the leading cause: + found and not predicted, − predicted and not found.',
  alike: 'Strings go from the place under the cursor to those that look like it.',
};

/** What the colours mean, or what lies over the surfaces. */
export function Legend({ scene }: { scene: Omit<BenchScene, 'images' | 'fine'> }): ReactNode {
  const words = scene.overlay === 'load' ? scene.loaded.words : OVERLAY_WORDS[scene.overlay];
  if (words) return <div className="legend quiet">{words}</div>;
  const shown = new Set(
    [...scene.views.values()].flatMap((v) => WEAR_CLASSES.filter((c) => c !== 'sound' && (v.summary?.percent[c] ?? 0) > 0.5)),
  );
  const chips = scene.layers.has('read')
    ? [...shown].map((c) => [WEAR_CLASS_INFO[c].colour, WEAR_CLASS_INFO[c].name] as const)
    : GRADES.map((g) => [GRADE_INFO[g].colour, gradeText(g)] as const);
  return (
    <div className="legend">
      {chips.map(([colour, name]) => (
        <span key={name}>
          <i style={{ background: colour }} /> {name}
        </span>
      ))}
      <span>
        <i className="hatch" /> Not examined
      </span>
      {[...scene.views.values()].some((v) => readAgainstSound(v) !== null) && <span>? Called sound, and its picture reads worse</span>}
    </div>
  );
}
