import type { EngineLayout } from '@true-ledger/core/engine';
import { benchOf, deckGrid, type Cell, type DrawingKey, type SheetPlace } from '@true-ledger/core/measure';
import type { ReactNode } from 'react';
import './measure.css';

interface Drawn {
  readonly place: SheetPlace;
  readonly cell: Cell;
  readonly layout: EngineLayout;
}

const line = (here: boolean): string => (here ? 'plane here' : 'plane');

/** Two jaws that point at each other along a line, as a gauge spans a part. */
function Jaws({ x1, y1, x2, y2, inside = false }: { x1: number; y1: number; x2: number; y2: number; inside?: boolean }): ReactNode {
  const length = Math.hypot(x2 - x1, y2 - y1) || 1;
  const ux = ((x2 - x1) / length) * (inside ? -1 : 1);
  const uy = ((y2 - y1) / length) * (inside ? -1 : 1);
  const jaw = (x: number, y: number, s: number): string =>
    `M${x} ${y}L${x - s * ux * 11 - uy * 6} ${y - s * uy * 11 + ux * 6}L${x - s * ux * 11 + uy * 6} ${y - s * uy * 11 - ux * 6}z`;
  return (
    <>
      <line x1={x1} y1={y1} x2={x2} y2={y2} className="plane here" />
      <path d={`${jaw(x1, y1, 1)}${jaw(x2, y2, -1)}`} className="jaw" />
    </>
  );
}

const JOURNAL_X: Readonly<Record<string, number>> = { front: 46, mid: 75, rear: 104 };

function Journal({ cell }: Drawn): ReactNode {
  const plane = String(cell.item?.['plane']);
  const axis = String(cell.item?.['axis']);
  const x = JOURNAL_X[plane] ?? 75;
  return (
    <>
      <rect x="8" y="12" width="22" height="126" className="web" />
      <rect x="120" y="12" width="22" height="126" className="web" />
      <path d="M30 40q4 0 4 4h82q0-4 4-4v70q-4 0-4-4H34q0 4-4 4z" className="steel" />
      {Object.entries(JOURNAL_X).map(([p, px]) => (
        <line key={p} x1={px} x2={px} y1="36" y2="114" className={line(p === plane)} />
      ))}
      <path d={`M${x - 6} 26l6 10 6-10zM${x - 6} 124l6-10 6 10z`} className="jaw" />
      <text x="19" y="150" textAnchor="middle">
        front
      </text>
      <text x="131" y="150" textAnchor="middle">
        rear
      </text>
      <circle cx="206" cy="75" r="44" className="steel" />
      {axis === 'A' ? <Jaws x1={206} y1={31} x2={206} y2={119} /> : <Jaws x1={162} y1={75} x2={250} y2={75} />}
      <text x="216" y="26">
        A
      </text>
      <text x="262" y="66" textAnchor="end">
        B
      </text>
    </>
  );
}

const AXIS_TURN: Readonly<Record<string, number>> = { A: 90, B: 0, C: 45, D: 135 };

function Bore({ place, cell, layout }: Drawn): ReactNode {
  const depth = Number(cell.item?.['depthMm'] ?? NaN);
  const depths = [...new Set(place.cells.flatMap((c) => (c.item?.['depthMm'] === undefined ? [] : [Number(c.item['depthMm'])])))];
  const y = (mm: number): number => 18 + (mm / (layout.strokeMm * 1.25)) * 112;
  const at = cell.key === 'unworn' ? 2 : depth;
  const axis = String(cell.item?.['axis'] ?? 'A');
  const r = ((AXIS_TURN[axis] ?? 0) * Math.PI) / 180;
  return (
    <>
      <path d="M14 14h22v124H14zM104 14h22v124h-22z" className="web" />
      <rect x="36" y="14" width="68" height="124" className="steel" />
      {depths.map((d) => (
        <line key={d} x1="36" x2="104" y1={y(d)} y2={y(d)} className={line(d === depth)} />
      ))}
      <text x="70" y="11" textAnchor="middle">
        deck
      </text>
      {cell.quantity === 'length' && <Jaws x1={36} y1={y(at)} x2={104} y2={y(at)} inside />}
      <circle cx="206" cy="76" r="46" className="steel" />
      <line x1="156" x2="256" y1="76" y2="76" className="plane" />
      {cell.quantity === 'length' ? (
        <Jaws x1={206 - 46 * Math.cos(r)} y1={76 + 46 * Math.sin(r)} x2={206 + 46 * Math.cos(r)} y2={76 - 46 * Math.sin(r)} inside />
      ) : (
        <text x="206" y="80" textAnchor="middle">
          °C
        </text>
      )}
      <text x="206" y="20" textAnchor="middle">
        A: across the crank
      </text>
      <text x="206" y="142" textAnchor="middle">
        B: along it
      </text>
    </>
  );
}

function Piston({ cell }: Drawn): ReactNode {
  const spans: Readonly<Record<string, ReactNode>> = {
    piston: <Jaws x1={60} y1={118} x2={150} y2={118} />,
    new: <Jaws x1={60} y1={118} x2={150} y2={118} />,
    bore: <Jaws x1={30} y1={118} x2={180} y2={118} inside />,
    crown: <Jaws x1={62} y1={24} x2={148} y2={24} />,
    pinBoss: <Jaws x1={105} y1={74} x2={105} y2={98} inside />,
    print: <Jaws x1={75} y1={70} x2={75} y2={128} inside />,
  };
  return (
    <>
      <path d="M16 8h14v134H16zM180 8h14v134h-14z" className="web" />
      <path d="M62 16h86v38h2v80l-26 4v-24H86v24l-26-4V54h2z" className="steel" />
      {[26, 34, 43].map((y) => (
        <rect key={y} x="60" y={y} width="90" height="4" className="web" />
      ))}
      <circle cx="105" cy="86" r="12" className="web" />
      {spans[cell.key] ?? (
        <text x="214" y="80">
          °C
        </text>
      )}
      <text x="200" y="122" className="small">
        gauge point
      </text>
    </>
  );
}

function Ring({ cell }: Drawn): ReactNode {
  const gap = cell.key.startsWith('gap') || cell.key === 'freeGap' || cell.key === 'tension';
  const groove = { groove: 1, ring: 1, grooveDepth: 1, ringDepth: 1 }[cell.key];
  return (
    <>
      <path d="M70 22a54 54 0 1 0 22 0" className="ring-line" />
      {gap && <Jaws x1={68} y1={22} x2={94} y2={22} inside />}
      <text x="81" y="80" textAnchor="middle">
        {cell.key === 'gapWorn'
          ? 'in the ring travel'
          : cell.key === 'gapUnworn'
            ? 'unworn bore'
            : cell.key === 'freeGap'
              ? 'out of the bore'
              : ''}
      </text>
      <path d="M166 22h90v34h-60v44h60v38h-90z" className="web" />
      <rect x="206" y="62" width="50" height="36" className="steel" />
      {groove && (
        <>
          {cell.key === 'groove' && <Jaws x1={200} y1={56} x2={200} y2={100} inside />}
          {cell.key === 'ring' && <Jaws x1={240} y1={62} x2={240} y2={98} />}
          {cell.key === 'grooveDepth' && <Jaws x1={196} y1={59} x2={256} y2={59} inside />}
          {cell.key === 'ringDepth' && <Jaws x1={206} y1={80} x2={256} y2={80} />}
        </>
      )}
    </>
  );
}

const polar = (cx: number, cy: number, r: number, deg: number): readonly [number, number] => [
  cx + r * Math.cos((deg * Math.PI) / 180),
  cy - r * Math.sin((deg * Math.PI) / 180),
];

/** A housing with its two halves and journal, seen along the crank; the parting line lies level. */
function Bearing({ cell }: Drawn): ReactNode {
  const [cx, cy] = [130, 76];
  const across: Readonly<Record<string, number>> = { vertical: 90, left: 150, right: 30 };
  const direction = cell.key.startsWith('housing.') ? cell.key.slice(8) : String(cell.item?.['direction'] ?? '');
  const span = across[direction];
  const walls: Readonly<Record<string, number>> = { upper: 90, lower: 270, upperSide: 155, lowerSide: 205, newWall: 270 };
  const wall = walls[cell.key];
  const [x1, y1] = polar(cx, cy, 60, (span ?? 0) + 180);
  const [x2, y2] = polar(cx, cy, 60, span ?? 0);
  const [w1, v1] = polar(cx, cy, 46, wall ?? 0);
  const [w2, v2] = polar(cx, cy, 60, wall ?? 0);
  return (
    <>
      <path d={`M${cx - 92} 4h184v144h-184z`} className="web" />
      <circle cx={cx} cy={cy} r="60" className="steel" />
      <circle cx={cx} cy={cy} r="46" className="lining" />
      <circle cx={cx} cy={cy} r="42" className="steel" />
      <line x1={cx - 92} x2={cx - 46} y1={cy} y2={cy} className="plane" />
      <line x1={cx + 46} x2={cx + 92} y1={cy} y2={cy} className="plane" />
      {span !== undefined && <Jaws x1={x1} y1={y1} x2={x2} y2={y2} inside />}
      {wall !== undefined && <Jaws x1={w1} y1={v1} x2={w2} y2={v2} />}
      {cell.key === 'journal' && <Jaws x1={cx} y1={cy - 42} x2={cx} y2={cy + 42} />}
      {['protrusion', 'freeSpread', 'housing'].includes(cell.key) && <FitMark cell={cell.key} cx={cx} cy={cy} />}
    </>
  );
}

function FitMark({ cell, cx, cy }: { cell: string; cx: number; cy: number }): ReactNode {
  if (cell === 'protrusion') return <Jaws x1={cx + 53} y1={cy - 14} x2={cx + 53} y2={cy} />;
  return cell === 'freeSpread' ? (
    <Jaws x1={cx - 56} y1={cy} x2={cx + 56} y2={cy} />
  ) : (
    <Jaws x1={cx - 60} y1={cy} x2={cx + 60} y2={cy} inside />
  );
}

function Strip({ cell }: Drawn): ReactNode {
  const at = String(cell.item?.['at'] ?? '');
  return (
    <>
      <path d="M30 30q6 0 6 6h198q0-6 6-6v90q-6 0-6-6H36q0 6-6 6z" className="steel" />
      <path d="M44 70h182v10H44z" className="strip-mark" />
      {(['front', 'mid', 'rear'] as const).map((p, i) => (
        <line key={p} x1={60 + i * 75} x2={60 + i * 75} y1="40" y2="110" className={line(p === at)} />
      ))}
      {at !== '' && (
        <Jaws
          x1={60 + ['front', 'mid', 'rear'].indexOf(at) * 75}
          y1={70}
          x2={60 + ['front', 'mid', 'rear'].indexOf(at) * 75}
          y2={80}
          inside
        />
      )}
      <text x="40" y="140">
        front
      </text>
      <text x="230" y="140" textAnchor="end">
        rear
      </text>
    </>
  );
}

function Travel({ cell }: Drawn): ReactNode {
  const front = cell.key === 'towards';
  return (
    <>
      <rect x="96" y="20" width="60" height="110" className="web" />
      <rect x={front ? 78 : 92} y="34" width="80" height="82" className="steel" />
      <path d={front ? 'M74 75l16-10v20z' : 'M178 75l-16-10v20z'} className="jaw" />
      <line x1={front ? 90 : 162} x2={front ? 130 : 122} y1="75" y2="75" className="plane here" />
      <circle cx="226" cy="56" r="22" className="steel" />
      <line x1="226" y1="56" x2={front ? 214 : 238} y2="44" className="plane here" />
      <line x1="204" y1="66" x2={front ? 160 : 174} y2="75" className="plane" />
      <text x="40" y="146">
        front
      </text>
      <text x="226" y="146" textAnchor="middle">
        rear
      </text>
    </>
  );
}

function Rod({ cell }: Drawn): ReactNode {
  return (
    <>
      <path d="M58 48h146v14H58zM58 88h146v14H58z" className="steel" />
      <path d="M58 62l146 6v14l-146 6z" className="web" />
      <circle cx="52" cy="75" r="40" className="steel" />
      <circle cx="52" cy="75" r="26" className="lining" />
      <circle cx="216" cy="75" r="24" className="steel" />
      <circle cx="216" cy="75" r="13" className="lining" />
      {cell.key === 'centres' && <Jaws x1={52} y1={75} x2={216} y2={75} />}
      {cell.key === 'bend' && <Jaws x1={120} y1={110} x2={120} y2={40} />}
      {cell.key === 'twist' && <path d="M216 40a36 36 0 0 1 30 36M246 76l-8-8M246 76l8-10" className="ring-line thin" />}
      <text x="130" y="144" textAnchor="middle">
        {cell.key === 'bend' ? 'bars out of parallel, up and down' : cell.key === 'twist' ? 'bars out of parallel, sideways' : ''}
      </text>
    </>
  );
}

/** The crank on its outer mains under an indicator, or its housings under a straight edge. */
function Along({ place, cell, edge = false }: Drawn & { readonly edge?: boolean }): ReactNode {
  const mains = [...new Set(place.cells.map((c) => Number(c.item?.['main'])))];
  const here = Number(cell.item?.['main']);
  const x = (i: number): number => 24 + (i * 212) / Math.max(1, mains.length - 1);
  return (
    <>
      {edge && <rect x="8" y="50" width="244" height="8" className="jaw" />}
      {mains.map((m, i) => (
        <g key={m}>
          <rect x={x(i) - 9} y="60" width="18" height="46" className={m === here ? 'steel here' : 'steel'} />
          {i < mains.length - 1 && <rect x={x(i) + 9} y={i % 2 ? 78 : 66} width={x(1) - x(0) - 18} height="22" className="web" />}
          <text x={x(i)} y="124" textAnchor="middle">
            {m}
          </text>
        </g>
      ))}
      {!edge && <path d={`M${x(mains.indexOf(here)) - 6} 42l6 14 6-14z`} className="jaw" />}
      {cell.quantity === 'angle' && (
        <text x="130" y="24" textAnchor="middle">
          crank angle where it stands highest
        </text>
      )}
    </>
  );
}

function Deck({ cell, layout }: Drawn): ReactNode {
  const { xs, ys } = deckGrid(layout);
  const x = (mm: number): number => 24 + (mm / Math.max(1, xs.at(-1)!)) * 212;
  const y = (mm: number): number => 40 + (mm / Math.max(1, ys.at(-1)!)) * 70;
  const r = Math.min(30, ((x(xs[1] ?? 0) - x(0)) * layout.boreMm) / (2 * (xs[1] ?? layout.boreMm)) - 1);
  return (
    <>
      <rect x="10" y="26" width="240" height="98" className="web" />
      {xs.slice(0, -1).map((mm, i) => (
        <circle key={mm} cx={(x(mm) + x(xs[i + 1]!)) / 2} cy="75" r={r} className="lining" />
      ))}
      {xs.flatMap((mx) =>
        ys.map((my) => {
          const here = cell.item?.['xMm'] === mx && cell.item['yMm'] === my;
          return <circle key={`${mx} ${my}`} cx={x(mx)} cy={y(my)} r={here ? 8 : 3} className={here ? 'jaw' : 'point'} />;
        }),
      )}
      <text x="12" y="144">
        front
      </text>
    </>
  );
}

function Cam({ cell }: Drawn): ReactNode {
  const base = cell.key.endsWith('base');
  const journal = cell.key.startsWith('journal');
  return (
    <>
      {journal ? (
        <circle cx="130" cy="76" r="46" className="steel" />
      ) : (
        <path d="M90 92a42 42 0 1 0 80 0l-18-66q-22-22-44 0z" className="steel" />
      )}
      {journal ? (
        <Jaws x1={130} y1={30} x2={130} y2={122} inside={cell.key.endsWith('bore')} />
      ) : base ? (
        <Jaws x1={86} y1={92} x2={174} y2={92} />
      ) : (
        <Jaws x1={130} y1={16} x2={130} y2={134} />
      )}
      <text x="190" y="30">
        {cell.row}
      </text>
    </>
  );
}

function Seat({ cell }: Drawn): ReactNode {
  return (
    <>
      <path d="M20 96l60-40h100l60 40v40H20z" className="web" />
      <path d="M124 16h12v72h30l22 18H72l22-18h30z" className="steel" />
      <path d="M70 106h120v28H70z" className="lining" />
      <text x="130" y="126" textAnchor="middle">
        {cell.column}
      </text>
      <text x="196" y="40">
        cup on the port
      </text>
    </>
  );
}

function Pump({ cell }: Drawn): ReactNode {
  const marks: Readonly<Record<string, ReactNode>> = {
    end: <Jaws x1={130} y1={14} x2={130} y2={28} inside />,
    tip: <Jaws x1={104} y1={75} x2={116} y2={75} inside />,
    side: <Jaws x1={42} y1={75} x2={54} y2={75} inside />,
    springLength: <Jaws x1={206} y1={40} x2={206} y2={118} />,
    popPressure: (
      <text x="206" y="136" textAnchor="middle">
        opens at
      </text>
    ),
  };
  return (
    <>
      <path d="M40 28h140v94H40z" className="web" />
      <circle cx="80" cy="75" r="30" className="steel" strokeDasharray="7 5" />
      <circle cx="140" cy="75" r="30" className="steel" strokeDasharray="7 5" />
      <path d="M196 42l20 8-20 8 20 8-20 8 20 8-20 8 20 8-20 8 20 8" className="ring-line thin" />
      {marks[cell.key]}
    </>
  );
}

const DRAWINGS: Readonly<Record<DrawingKey, (d: Drawn) => ReactNode>> = {
  journal: Journal,
  bore: Bore,
  piston: Piston,
  ring: Ring,
  bearing: Bearing,
  strip: Strip,
  travel: Travel,
  rod: Rod,
  'crank-on-rests': Along,
  'straight-edge': (drawn) => <Along {...drawn} edge />,
  deck: Deck,
  cam: Cam,
  seat: Seat,
  pump: Pump,
};

/** The part with the spot where the next figure is read. */
export function PlaceDrawing(drawn: Drawn): ReactNode {
  const Draw = DRAWINGS[benchOf(drawn.place.kind).drawing];
  return (
    <svg
      viewBox="0 0 270 152"
      role="img"
      aria-label={`${drawn.place.name}: take the reading at ${drawn.cell.name}`}
      className="place-drawing"
    >
      <Draw {...drawn} />
    </svg>
  );
}
