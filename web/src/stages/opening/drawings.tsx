import { cylinderPlaces, type EngineLayout } from '@true-ledger/core/engine';
import { THUMB, TURN_POSITIONS, type CompressionResult, type TurningResult } from '@true-ledger/core/opening';
import type { ReactNode } from 'react';
import { COLOUR, through } from '../../app/tokens.js';
import './opening.css';

const INK = COLOUR.pencil;
const ACCENT = COLOUR.accent;
const LOW = COLOUR.copper;

function Drawing({ width, height, label, children }: { width: number; height: number; label: string; children: ReactNode }): ReactNode {
  return (
    <svg className="check-drawing" width={width} height={height} viewBox={`0 0 ${width} ${height}`} role="img" aria-label={label}>
      {children}
    </svg>
  );
}

const LEVELS: Readonly<Record<string, number>> = { none: 0, below: 0.16, between: 0.5, full: 0.74, above: 0.94 };

/** The blade of the dipstick with its marks and the oil on it. */
export function Dipstick({ level, look }: { level: string | undefined; look: readonly string[] }): ReactNode {
  const oil = level ? (LEVELS[level] ?? 0) : 0;
  const colour = look.includes('milky')
    ? COLOUR.oilMilky
    : look.includes('sludge')
      ? COLOUR.ink
      : look.includes('paste')
        ? COLOUR.oilBurnt
        : look.includes('dark')
          ? COLOUR.oilUsed
          : COLOUR.oilFresh;
  const top = 210 - oil * 190;
  return (
    <Drawing width={150} height={240} label={`Dipstick: ${level ?? 'not read'}`}>
      <path d="M62 6h20v212q0 10-10 10t-10-10z" fill={COLOUR.tin} stroke={INK} />
      {level && <path d={`M63 ${top}h18v${218 - top}q0 9-9 9t-9-9z`} fill={colour} />}
      {look.includes('glitter') &&
        [0, 1, 2, 3, 4, 5, 6].map((k) => <circle key={k} cx={66 + ((k * 7) % 13)} cy={218 - k * 9} r="1.4" fill={COLOUR.bubble} />)}
      <path d="M62 69h20M62 172h20" stroke={INK} strokeWidth="2" />
      <text x="92" y="74" fontSize="13" fill={INK}>
        upper
      </text>
      <text x="92" y="177" fontSize="13" fill={INK}>
        lower
      </text>
    </Drawing>
  );
}

/** Header tank with its level and what floats on it. */
export function Tank({ level, film }: { level: string | undefined; film: readonly string[] }): ReactNode {
  const y = level === 'full' ? 60 : level === 'low' ? 120 : level === 'gone' ? 172 : 176;
  return (
    <Drawing width={190} height={190} label={`Header tank: ${level ?? 'not looked at'}`}>
      <path d="M70 10h50v18H70z" fill={COLOUR.lineDark} stroke={INK} />
      <path d="M24 34q0-6 6-6h130q6 0 6 6v138q0 8-8 8H32q-8 0-8-8z" fill={COLOUR.paper} stroke={INK} strokeWidth="2" />
      {level && level !== 'gone' && (
        <path d={`M26 ${y}h138v${172 - y}q0 6-6 6H32q-6 0-6-6z`} fill={film.includes('rust') ? COLOUR.coolantRusty : COLOUR.coolant} />
      )}
      {film.includes('oil') && <path d={`M26 ${y}h138v7H26z`} fill={COLOUR.oilUsed} />}
      {film.includes('bubbles') &&
        [40, 70, 96, 130, 148].map((x, k) => <circle key={x} cx={x} cy={y + 12 + (k % 3) * 14} r="5" fill="none" stroke={ACCENT} />)}
      <path d="M24 60h14M24 120h14" stroke={INK} strokeWidth="2" />
    </Drawing>
  );
}

/** Compression of every cylinder as bars, wet beside dry; low ones hatched and named. */
export function CompressionBars({
  dry,
  wet,
  result,
}: {
  dry: ReadonlyArray<number | null>;
  wet: ReadonlyArray<number | null>;
  result: CompressionResult | null;
}): ReactNode {
  const most = Math.max(10, ...dry.map((v) => v ?? 0), ...wet.map((v) => v ?? 0)) * 1.1;
  const w = Math.min(64, 460 / dry.length);
  const y = (v: number): number => 150 - (v / most) * 140;
  return (
    <Drawing width={Math.max(220, dry.length * w + 50)} height={182} label={result ? result.words : 'Compression, nothing read yet'}>
      <defs>
        <pattern id="low-bar" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="5" height="5" fill={COLOUR.copperWash} />
          <line x1="0" y1="0" x2="0" y2="5" stroke={LOW} strokeWidth="3" />
        </pattern>
      </defs>
      {result && (
        <>
          <line
            x1="40"
            x2={dry.length * w + 44}
            y1={y(result.highest * (1 - THUMB.compressionSpread))}
            y2={y(result.highest * (1 - THUMB.compressionSpread))}
            stroke={INK}
            strokeDasharray="5 4"
          />
          <text x="2" y={y(result.highest * (1 - THUMB.compressionSpread)) + 4} fontSize="11" fill={INK}>
            −15 %
          </text>
        </>
      )}
      <line x1="40" x2={dry.length * w + 44} y1="150" y2="150" stroke={INK} />
      {dry.map((v, i) => {
        const x = 44 + i * w;
        const low = result?.low.includes(i + 1) ?? false;
        const wetHere = wet[i] ?? null;
        return (
          <g key={i}>
            {v === null ? (
              <rect x={x + 4} y="14" width={w - 12} height="136" fill="none" stroke={COLOUR.lineDark} strokeDasharray="3 4" />
            ) : (
              <rect x={x + 4} y={y(v)} width={w - 12} height={150 - y(v)} fill={low ? 'url(#low-bar)' : COLOUR.steel} stroke={INK} />
            )}
            {wetHere !== null && <line x1={x + 1} x2={x + w - 5} y1={y(wetHere)} y2={y(wetHere)} stroke={ACCENT} strokeWidth="3" />}
            <text x={x + w / 2 - 2} y="168" fontSize="13" textAnchor="middle" fill={COLOUR.ink}>
              {i + 1}
            </text>
          </g>
        );
      })}
    </Drawing>
  );
}

/** Turning torque round one turn, ahead outside and back inside; where it binds is marked. */
export function TurningRose({
  ahead,
  back,
  result,
}: {
  ahead: ReadonlyArray<number | null>;
  back: ReadonlyArray<number | null>;
  result: TurningResult | null;
}): ReactNode {
  const most = Math.max(10, ...ahead.map((v) => v ?? 0), ...back.map((v) => v ?? 0));
  const at = (deg: number, r: number): readonly [number, number] => [
    120 + r * Math.sin((deg * Math.PI) / 180),
    120 - r * Math.cos((deg * Math.PI) / 180),
  ];
  const trace = (list: ReadonlyArray<number | null>): string =>
    list
      .flatMap((v, i) =>
        v === null
          ? []
          : [
              at((i * 360) / TURN_POSITIONS, 24 + (v / most) * 80)
                .map((n) => n.toFixed(1))
                .join(','),
            ],
      )
      .join(' ');
  return (
    <Drawing width={240} height={240} label={result ? result.words : 'Turning torque, nothing read yet'}>
      {[44, 64, 84, 104].map((r) => (
        <circle key={r} cx="120" cy="120" r={r} fill="none" stroke={COLOUR.tin} />
      ))}
      {Array.from({ length: TURN_POSITIONS }, (_, i) => {
        const [x, y] = at((i * 360) / TURN_POSITIONS, 113);
        return (
          <text key={i} x={x} y={y + 4} fontSize="10" textAnchor="middle" fill={INK}>
            {(i * 360) / TURN_POSITIONS}
          </text>
        );
      })}
      <polygon points={trace(ahead)} fill={through('accent', 0.12)} stroke={ACCENT} strokeWidth="2" />
      <polygon points={trace(back)} fill="none" stroke={LOW} strokeWidth="2" strokeDasharray="5 3" />
      {result?.notches.map((deg) => {
        const [x, y] = at(deg, 104);
        return <path key={deg} d={`M${x - 6} ${y - 6}l12 12m0-12l-12 12`} stroke={LOW} strokeWidth="3" />;
      })}
      <circle cx="120" cy="120" r="14" fill={COLOUR.tin} stroke={INK} />
    </Drawing>
  );
}

/** Indicator on the crank nose: push along, lift and let down. */
export function NosePlay({ float, play }: { float: string; play: string }): ReactNode {
  return (
    <Drawing width={260} height={170} label={`End float ${float || 'not read'}, play at the nose ${play || 'not read'}`}>
      <rect x="10" y="40" width="70" height="90" fill={COLOUR.lineDark} stroke={INK} />
      <rect x="80" y="68" width="90" height="34" fill={COLOUR.tin} stroke={INK} />
      <circle cx="216" cy="85" r="30" fill={COLOUR.paper} stroke={INK} strokeWidth="2" />
      <path d="M216 85l14-16" stroke={ACCENT} strokeWidth="2" />
      <path d="M170 85h16" stroke={INK} strokeWidth="4" />
      <path d="M96 120h44m-8-6l8 6-8 6m-28-12l-8 6 8 6" fill="none" stroke={ACCENT} strokeWidth="2" />
      <text x="118" y="144" fontSize="12" textAnchor="middle" fill={INK}>
        {float || 'float'}
      </text>
      <path d="M126 30v30m-6-8l6 8 6-8m-12-14l6-8 6 8" fill="none" stroke={LOW} strokeWidth="2" />
      <text x="138" y="36" fontSize="12" fill={INK}>
        {play || 'lift'}
      </text>
    </Drawing>
  );
}

/** One gauge face; the needle stands where the reading is, the limit is a mark. */
export function PressureFace({ value, limit, name }: { value: number | null; limit: number | null; name: string }): ReactNode {
  const full = 8;
  const at = (v: number, r: number): readonly [number, number] => {
    const a = ((-130 + (Math.min(full, v) / full) * 260) * Math.PI) / 180;
    return [60 + r * Math.sin(a), 60 - r * Math.cos(a)];
  };
  const [nx, ny] = at(value ?? 0, 36);
  return (
    <Drawing width={120} height={132} label={`${name}: ${value === null ? 'not read' : `${value.toFixed(1)} bar`}`}>
      <circle cx="60" cy="60" r="50" fill={COLOUR.paper} stroke={INK} strokeWidth="2" />
      {[0, 2, 4, 6, 8].map((v) => {
        const [x, y] = at(v, 41);
        return (
          <text key={v} x={x} y={y + 4} fontSize="10" textAnchor="middle" fill={INK}>
            {v}
          </text>
        );
      })}
      {limit !== null && <path d={`M${at(limit, 32).join(' ')}L${at(limit, 50).join(' ')}`} stroke={LOW} strokeWidth="3" />}
      {value !== null && <path d={`M60 60L${nx} ${ny}`} stroke={ACCENT} strokeWidth="3" />}
      <circle cx="60" cy="60" r="4" fill={INK} />
      <text x="60" y="128" fontSize="12" textAnchor="middle" fill={COLOUR.ink}>
        {name}
      </text>
    </Drawing>
  );
}

/** Cylinders as they lie, each with a word; for leak-down and the look through the plug hole. */
export function Cylinders({
  layout,
  word,
  marked,
}: {
  layout: EngineLayout;
  word: (cylinder: number) => string;
  marked: (cylinder: number) => boolean;
}): ReactNode {
  const places = cylinderPlaces(layout);
  const banks = new Set(places.map((p) => p.bank)).size;
  const columns = Math.max(...places.map((p) => p.along)) + 1;
  return (
    <Drawing
      width={columns * 74 + 16}
      height={banks * 92 + 8}
      label={places.map((p) => `cylinder ${p.cylinder}: ${word(p.cylinder) || 'not looked at'}`).join('; ')}
    >
      {places.map((p) => (
        <g key={p.cylinder} transform={`translate(${p.along * 74 + 44} ${p.bank * 92 + 42})`}>
          <circle
            r="32"
            fill={marked(p.cylinder) ? COLOUR.copperWash : word(p.cylinder) ? COLOUR.tin : COLOUR.paper}
            stroke={marked(p.cylinder) ? LOW : INK}
            strokeWidth={marked(p.cylinder) ? 3 : 1.5}
            strokeDasharray={word(p.cylinder) ? undefined : '4 4'}
          />
          <text y="-6" fontSize="15" fontWeight="700" textAnchor="middle" fill={COLOUR.ink}>
            {p.cylinder}
          </text>
          <text y="12" fontSize="11" textAnchor="middle" fill={COLOUR.ink}>
            {word(p.cylinder).slice(0, 10)}
          </text>
        </g>
      ))}
    </Drawing>
  );
}

/** Side of the engine with the places a knock is heard at. */
export function KnockMap({ where }: { where: readonly string[] }): ReactNode {
  const spot = (id: string, x: number, y: number): ReactNode =>
    where.includes(id) ? (
      <path key={id} d={`M${x - 16} ${y}q8-14 16 0t16 0M${x - 10} ${y + 10}q5-9 10 0t10 0`} fill="none" stroke={LOW} strokeWidth="3" />
    ) : null;
  return (
    <Drawing width={260} height={170} label={`Knock: ${where.join(', ') || 'not said'}`}>
      <path d="M40 20h180v34H40zM30 54h200v62H30zM44 116h172l-14 38H58z" fill={COLOUR.head} stroke={INK} strokeWidth="2" />
      <path d="M230 60h16v50h-16z" fill={COLOUR.lineDark} stroke={INK} />
      <text x="4" y="90" fontSize="11" fill={INK}>
        front
      </text>
      {spot('top', 130, 38)}
      {spot('bottom', 130, 134)}
      {spot('front', 58, 88)}
      {spot('rear', 204, 88)}
      {spot('one', 130, 84)}
    </Drawing>
  );
}

/** Pleats of a filter with what was found on them. */
export function Pleats({ found }: { found: readonly string[] }): ReactNode {
  const colour: Readonly<Record<string, string>> = {
    copper: COLOUR.copperBright,
    aluminium: COLOUR.mist,
    steel: COLOUR.pencil,
    grit: COLOUR.grit,
    sealant: COLOUR.accent,
  };
  const specks = found.filter((f) => f in colour);
  return (
    <Drawing width={260} height={130} label={`On the media: ${found.join(', ') || 'not cut open'}`}>
      {Array.from({ length: 12 }, (_, k) => (
        <path
          key={k}
          d={`M${10 + k * 20} 15l10 100 10-100z`}
          fill={k % 2 === 0 ? COLOUR.paperDry : COLOUR.paperWet}
          stroke={INK}
          strokeWidth="0.8"
        />
      ))}
      {specks.flatMap((f, n) =>
        Array.from({ length: 9 }, (_, k) => (
          <circle
            key={`${f}${k}`}
            cx={24 + ((k * 53 + n * 31) % 216)}
            cy={26 + ((k * 37 + n * 17) % 78)}
            r={f === 'sealant' ? 4 : 2.6}
            fill={colour[f]}
            stroke={INK}
            strokeWidth="0.6"
          />
        )),
      )}
    </Drawing>
  );
}

/** A magnet with what clings to it. */
export function Magnet({ clings }: { clings: readonly string[] }): ReactNode {
  const fuzz = clings.includes('fuzz') ? 26 : 0;
  const slivers = clings.includes('slivers') ? 9 : 0;
  const pieces = clings.includes('pieces') ? 4 : 0;
  return (
    <Drawing width={180} height={150} label={`Magnet: ${clings.join(', ') || 'not tried'}`}>
      <path
        d="M60 14h24v74q0 10 6 10t6-10V14h24v78q0 34-30 34T60 92z"
        fill={COLOUR.slate}
        stroke={INK}
        strokeWidth="2"
        transform="rotate(180 90 70)"
      />
      {Array.from({ length: fuzz }, (_, k) => (
        <line
          key={k}
          x1={62 + ((k * 11) % 58)}
          y1="126"
          x2={60 + ((k * 13) % 62)}
          y2={134 + (k % 5)}
          stroke={COLOUR.ink}
          strokeWidth="0.8"
        />
      ))}
      {Array.from({ length: slivers }, (_, k) => (
        <line key={`s${k}`} x1={64 + k * 6} y1="124" x2={60 + k * 7} y2={138 + (k % 3) * 4} stroke={COLOUR.ink} strokeWidth="2.4" />
      ))}
      {Array.from({ length: pieces }, (_, k) => (
        <rect
          key={`p${k}`}
          x={62 + k * 15}
          y="128"
          width="9"
          height="7"
          fill={COLOUR.pencil}
          transform={`rotate(${k * 23} ${66 + k * 15} 131)`}
        />
      ))}
    </Drawing>
  );
}

/** A bottle or glass: colour of what is in it, water lying under fuel. */
export function Glass({ look, filled }: { look: readonly string[]; filled: boolean }): ReactNode {
  return (
    <Drawing width={120} height={170} label={`Sample: ${look.join(', ') || (filled ? 'taken' : 'not taken')}`}>
      <path d="M36 10h48v20q14 10 14 30v86q0 12-12 12H34q-12 0-12-12V60q0-20 14-30z" fill={COLOUR.paper} stroke={INK} strokeWidth="2" />
      {filled && (
        <path
          d="M24 74h72v72q0 10-10 10H34q-10 0-10-10z"
          fill={look.includes('none') ? COLOUR.fuelNone : look.includes('lean') ? COLOUR.fuelLean : COLOUR.fuelRich}
        />
      )}
      {look.includes('water') && <path d="M24 130h72v16q0 10-10 10H34q-10 0-10-10z" fill={COLOUR.water} />}
    </Drawing>
  );
}

/** Four sides of the engine to be pictured; those there are filled. */
export function FourSides({ count }: { count: number }): ReactNode {
  const sides = ['M70 14h80v26H70z', 'M160 50h26v70h-26z', 'M70 130h80v26H70z', 'M34 50h26v70H34z'];
  return (
    <Drawing width={220} height={170} label={`${count} pictures of the whole engine`}>
      <rect x="70" y="50" width="80" height="70" fill={COLOUR.tin} stroke={INK} strokeWidth="2" />
      {sides.map((d, k) => (
        <path
          key={d}
          d={d}
          fill={k < count ? COLOUR.steel : COLOUR.paper}
          stroke={k < count ? ACCENT : COLOUR.lineDark}
          strokeWidth="2"
          strokeDasharray={k < count ? undefined : '4 4'}
        />
      ))}
    </Drawing>
  );
}
