import { Select, Slider, Tooltip } from 'antd';
import type { SurfaceFrame } from '@true-ledger/core/engine';
import { LINE_DEPTHS, WEAR_CLASS_INFO, type LineDepth } from '@true-ledger/core/damage';
import type { ReactNode } from 'react';
import type { Pen, Tool } from './pen.js';
import './station.css';

const DEPTH_WORDS: Readonly<Record<LineDepth, string>> = {
  hair: 'Hair line, seen only',
  probe: 'Felt with a probe',
  nail: 'Catches the nail',
  through: 'Through to the lining',
};
const BRUSHES: readonly Tool[] = [
  'sound',
  'lining',
  'score',
  'heat',
  'rust',
  'embedded',
  'scuffed',
  'polished',
  'steel',
  'transfer',
  'deposit',
  'missing',
  'unseen',
  'erase',
];

function toolName(tool: Tool): string {
  if (tool === 'score') return 'Score line';
  if (tool === 'unseen') return 'Not seen';
  return tool === 'erase' ? 'Wipe marks' : WEAR_CLASS_INFO[tool].name;
}

/** What the pen leaves: the class or line, its size, and whether it was found so. */
export function Brushes({ pen, frame, marks }: { pen: Pen; frame: SurfaceFrame; marks: number }): ReactNode {
  const { tool, setTool, radius, setRadius, radiusMm, depth, setDepth, made, setMade } = pen;
  return (
    <>
      <div className="brushes" role="radiogroup" aria-label="What to mark">
        {BRUSHES.map((b) => (
          <Tooltip
            placement="bottom"
            mouseEnterDelay={0.7}
            key={b}
            title={b === 'score' || b === 'unseen' || b === 'erase' ? undefined : `${WEAR_CLASS_INFO[b].hint} (${WEAR_CLASS_INFO[b].key})`}
          >
            <button type="button" role="radio" aria-checked={tool === b} className={tool === b ? 'here' : ''} onClick={() => setTool(b)}>
              <i
                className={b === 'unseen' ? 'hatch' : b === 'score' ? 'line' : b === 'erase' ? 'wipe' : ''}
                style={b === 'score' || b === 'unseen' || b === 'erase' ? undefined : { background: WEAR_CLASS_INFO[b].colour }}
              />
              {toolName(b)}
            </button>
          </Tooltip>
        ))}
      </div>
      <div className="brush-size">
        {tool === 'score' ? (
          <Select
            size="small"
            value={depth}
            onChange={setDepth}
            aria-label="Depth of the line"
            style={{ width: 200 }}
            options={LINE_DEPTHS.map((d) => ({ value: d, label: DEPTH_WORDS[d] }))}
          />
        ) : (
          <>
            <span>
              Brush <span className="figure">{(radiusMm * 2).toFixed(1)} mm</span>
            </span>
            <Slider
              min={0.3}
              max={Math.round(frame.heightMm / 2)}
              step={0.1}
              value={radius}
              onChange={setRadius}
              style={{ width: 130 }}
              ariaLabelForHandle="Brush radius, mm"
              tooltip={{ open: false }}
            />
          </>
        )}
        <Select
          size="small"
          value={made}
          onChange={setMade}
          aria-label="Found so or made by us"
          style={{ width: 170 }}
          options={[
            { value: 'found-so', label: 'Found so' },
            { value: 'by-us', label: 'Done by us on removal' },
          ]}
        />
        <span className="quiet">
          {marks} mark{marks === 1 ? '' : 's'}; u takes the last entry back
        </span>
      </div>
    </>
  );
}
