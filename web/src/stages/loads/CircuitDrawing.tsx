import { oilRoute } from '@true-ledger/core/engine';
import { mixedColour } from '@true-ledger/core/kit';
import type { Run } from '@true-ledger/core/running';
import { memo, useRef, type ReactNode } from 'react';
import { App, Button } from 'antd';
import { useCase } from '../../app/caseContext.js';
import { svgPicture } from '../../app/svgPicture.js';
import { saveBlob } from '../../app/saveBlob.js';
import { COLOUR } from '../../app/tokens.js';

const BAR = 1e5;
const L_MIN = 60_000;
const WIDTH = 900;
const HEIGHT = 300;
const GALLERY_Y = 96;
/** Highest pressure the needle and the colour tell, bar. */
const FULL_BAR = 8;

/** The engine's own oil route with what flows in it, how much it stands under, and the gauge where the real one sits. */
export const CircuitDrawing = memo(function CircuitDrawing({ run }: { run: Run }): ReactNode {
  const { layout } = useCase().view;
  const svg = useRef<SVGSVGElement>(null);
  const { message } = App.useApp();
  const picture = async (): Promise<void> => {
    try {
      if (svg.current) saveBlob('oil-circuit.png', await svgPicture(svg.current));
    } catch (error) {
      void message.error(`The picture was not made: ${error instanceof Error ? error.message : String(error)} Take the drawing instead.`);
    }
  };
  if (!run.oil) return <p>{run.noOil}</p>;
  const { circuit, healthy, starved, driver } = run.oil;
  const route = oilRoute(layout);
  const mains = Array.from({ length: layout.mains }, (_, i) => `main.${i + 1}`);
  const first = 300;
  const pitch = (WIDTH - first - 110) / Math.max(1, mains.length - 1);
  const bar = (node: string): number => Math.max(0, circuit.pressure.get(node) ?? 0) / BAR;
  const flow = (element: string): number => Math.max(0, circuit.flow.get(element) ?? circuit.flow.get(`before ${element}`) ?? 0) * L_MIN;
  const total = circuit.pumpFlow * L_MIN;
  const width = (litres: number): number => (litres < total * 1e-3 ? 1 : 2 + 16 * Math.sqrt(litres / Math.max(total, 1e-9)));
  const ink = (pressure: number): string =>
    mixedColour(COLOUR.paper, COLOUR.oilUsed, 0.15 + (0.85 * Math.min(pressure, FULL_BAR)) / FULL_BAR);
  const pipe = (key: string, d: string, litres: number, pressure: number): ReactNode => (
    <path
      key={key}
      d={d}
      fill="none"
      stroke={litres < total * 1e-3 ? COLOUR.fault : ink(pressure)}
      strokeWidth={width(litres)}
      strokeDasharray={litres < total * 1e-3 ? '4 4' : undefined}
    />
  );
  const x = (i: number): number => first + i * pitch;
  const relief = (circuit.flow.get('relief') ?? 0) * L_MIN;
  const gaugeX = run.gaugeAt?.startsWith('gallery') ? x(Number(run.gaugeAt.split('.')[1]) - 1) : 240;
  return (
    <>
      <p role="status" className={starved.length > 0 ? 'driver fault' : 'driver'}>
        {driver}
      </p>
      <svg
        ref={svg}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Oil circuit: ${driver}`}
        className="circuit"
        xmlns="http://www.w3.org/2000/svg"
        fontFamily="sans-serif"
        fontSize={12}
        fill={COLOUR.ink}
      >
        {pipe('pickup', `M40 250 V160 H90`, total, 0)}
        <Part x={15} y={250} w={110} name="pan" />
        {pipe('pump', `M120 160 H190`, total, bar('pump'))}
        {relief > total * 1e-3 && pipe('relief', `M105 175 V250`, relief, bar('pump'))}
        <Part x={70} y={145} w={70} name="pump" told={`${total.toFixed(1)} L/min`} />
        {relief > total * 1e-3 && (
          <text x={112} y={222}>
            relief {relief.toFixed(1)}
          </text>
        )}
        {pipe('filter', `M200 160 H250 V${GALLERY_Y} H${first}`, flow('filter'), bar('filtered'))}
        <Part
          x={circuit.pressure.has('cooled') ? 158 : 175}
          y={145}
          w={circuit.pressure.has('cooled') ? 92 : 62}
          name={circuit.pressure.has('cooled') ? 'cooler, filter' : 'filter'}
          told={`${bar('pump').toFixed(1)} bar`}
        />
        {mains.map((main, i) => {
          const rods = (route.feeds[main] ?? []).filter((r) => r.startsWith('rod.'));
          const unfiltered = circuit.flow.has(`before feed ${main}`);
          // The gallery passes by what a branch before the filter feeds.
          const before = unfiltered ? undefined : mains.findLastIndex((m, k) => k < i && !circuit.flow.has(`before feed ${m}`));
          return (
            <g key={main}>
              {before !== undefined &&
                before >= 0 &&
                pipe(`gallery ${main}`, `M${x(before)} ${GALLERY_Y} H${x(i)}`, flow(`to gallery.${i + 1}`), bar(`gallery.${i + 1}`))}
              {unfiltered
                ? pipe(`feed ${main}`, `M150 160 V212 H${x(i) - 22} V165 H${x(i)}`, flow(`feed ${main}`), bar(main))
                : pipe(`feed ${main}`, `M${x(i)} ${GALLERY_Y} V160`, flow(`feed ${main}`), bar(main))}
              <Place
                x={x(i)}
                y={172}
                name={main}
                bar={bar(main)}
                litres={flow(`leak ${main}`)}
                dry={starved.includes(main)}
                here={run.setting.bearing === main}
              />
              {rods.map((rod, k) => {
                const rx = x(i) + pitch * 0.5 + (k - (rods.length - 1) / 2) * 44 * Math.min(1, pitch / 90);
                return (
                  <g key={rod}>
                    {pipe(`crank ${rod}`, `M${x(i) + 14} 186 L${rx} 232`, flow(`crank ${rod}`), bar(rod))}
                    <Place
                      x={rx}
                      y={246}
                      name={rod}
                      bar={bar(rod)}
                      litres={flow(`leak ${rod}`)}
                      dry={starved.includes(rod)}
                      here={run.setting.bearing === rod}
                    />
                  </g>
                );
              })}
            </g>
          );
        })}
        {['head', 'turbo', 'jet.1', 'followers'].map((name, k) => {
          const litres =
            name === 'jet.1'
              ? [...circuit.flow].filter(([n]) => n.includes('jet.')).reduce((sum, [, q]) => sum + q, 0) * L_MIN
              : flow(name);
          if (![...circuit.flow.keys()].some((n) => n === name || n === `before ${name}`)) return null;
          const end = x(mains.length - 1);
          return (
            <g key={name}>
              {pipe(name, `M${end} ${GALLERY_Y} H${end + 26} V${22 + 30 * k} H${end + 40}`, litres, bar(`gallery.${mains.length}`))}
              <text x={end + 46} y={26 + 30 * k}>
                {name === 'jet.1' ? 'jets' : name} {litres.toFixed(1)}
              </text>
            </g>
          );
        })}
        <Gauge x={gaugeX} bar={circuit.gaugePa / BAR} healthy={healthy.gaugePa / BAR} />
      </svg>
      <div className="row">
        <Button
          size="small"
          onClick={() => {
            if (svg.current)
              saveBlob('oil-circuit.svg', new Blob([new XMLSerializer().serializeToString(svg.current)], { type: 'image/svg+xml' }));
          }}
        >
          Take drawing
        </Button>
        <Button size="small" onClick={() => void picture()}>
          Take picture
        </Button>
        <span className="quiet">{route.rule} Width of a line: flow; darkness: pressure.</span>
      </div>
    </>
  );
});

function Part({ x, y, w, name, told }: { x: number; y: number; w: number; name: string; told?: string }): ReactNode {
  return (
    <g>
      <rect x={x} y={y} width={w} height={30} fill={COLOUR.paper} stroke={COLOUR.ink} />
      <text x={x + w / 2} y={y + 19} textAnchor="middle">
        {name}
      </text>
      {told && (
        <text x={x + w / 2} y={y - 6} textAnchor="middle" className="figure">
          {told}
        </text>
      )}
    </g>
  );
}

function Place({
  x,
  y,
  name,
  bar,
  litres,
  dry,
  here,
}: {
  x: number;
  y: number;
  name: string;
  bar: number;
  litres: number;
  dry: boolean;
  here: boolean;
}): ReactNode {
  const [kind = '', number = ''] = name.split('.');
  return (
    <g>
      <circle cx={x} cy={y} r={15} fill={COLOUR.paper} stroke={dry ? COLOUR.fault : COLOUR.ink} strokeWidth={here ? 3.5 : 1.5} />
      <text x={x} y={y + 4} textAnchor="middle">
        {kind === 'main' ? 'M' : 'R'}
        {number}
      </text>
      <text x={x} y={y + 28} textAnchor="middle" className={dry ? 'figure dry' : 'figure'} fill={dry ? COLOUR.fault : COLOUR.ink}>
        {dry ? 'dry' : `${litres.toFixed(2)}`}
      </text>
      <title>{`${kind} ${number}: ${bar.toFixed(1)} bar, ${litres.toFixed(2)} L/min`}</title>
    </g>
  );
}

/** The gauge with its needle, and faint where the needle stands without the fault. */
function Gauge({ x, bar, healthy }: { x: number; bar: number; healthy: number }): ReactNode {
  const tip = (value: number): string => {
    const turn = Math.PI * (1 - Math.min(value, FULL_BAR) / FULL_BAR);
    return `${x + 26 * Math.cos(turn)},${44 - 26 * Math.sin(turn)}`;
  };
  return (
    <g>
      <path d={`M${x} ${GALLERY_Y} V46`} stroke={COLOUR.line} />
      <path d={`M${x - 32} 44 A32 32 0 0 1 ${x + 32} 44 Z`} fill={COLOUR.paper} stroke={COLOUR.ink} />
      <path d={`M${x} 44 L${tip(healthy)}`} stroke={COLOUR.lineDark} strokeWidth={2} />
      <path d={`M${x} 44 L${tip(bar)}`} stroke={COLOUR.ink} strokeWidth={2} />
      <text x={x + 38} y={40} className="figure">
        {bar.toFixed(1)} bar
      </text>
    </g>
  );
}
