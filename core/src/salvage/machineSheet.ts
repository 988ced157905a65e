import Papa from 'papaparse';
import { sizeForAll } from '../measured/consequences.js';
import type { CaseView } from '../case/views.js';
import { MACHINE_WORK, OPERATION_NAMES, type Operation, type StandingDisposition } from '../workshop/operations.js';

/** One line of the machine-shop sheet. */
export interface MachineLine {
  readonly part: string;
  readonly stations: readonly string[];
  readonly work: Operation;
  readonly operation: string;
  /** Finished band, mm; null where the readings do not give one yet. */
  readonly sizeMm: readonly [number, number] | null;
  readonly finish: string;
  readonly limits: string;
  readonly quantity: number;
  readonly notes: string;
}

/** Finishes a good build aims at; the maker's data stands before them. */
const FINISH: Readonly<Record<string, string>> = {
  'crank.pin': 'Ra ≤ 0.25 µm, lapped with the rotation',
  'crank.main': 'Ra ≤ 0.25 µm, lapped with the rotation',
  bore: 'plateau hone, Rk ≤ 1.2 µm, Rvk 1.0–2.5 µm, 45°–60°',
  head: 'Ra ≤ 1.6 µm (steel gasket), ≤ 3.2 µm (composite)',
};

const kindOf = (id: string): 'crank.pin' | 'crank.main' | 'bore' | 'other' =>
  id.startsWith('crank.pin') ? 'crank.pin' : id.startsWith('crank.main') ? 'crank.main' : id.startsWith('bore') ? 'bore' : 'other';

/** What goes to the machine shop, one line per kind of work, sizes from the readings. */
export function machineSheet(view: CaseView, dispositions: readonly StandingDisposition[]): MachineLine[] {
  const groups = new Map<string, StandingDisposition[]>();
  for (const d of dispositions) {
    if (!MACHINE_WORK.has(d.operation)) continue;
    const kind = kindOf(d.station);
    const key = `${kind === 'other' ? d.station.split('.')[0] : kind}|${d.operation}`;
    groups.set(key, [...(groups.get(key) ?? []), d]);
  }
  return [...groups].map(([key, list]): MachineLine => {
    const [kind = '', operation = ''] = key.split('|');
    const sizing = (operation === 'grind' || operation === 'rebore') && (kind === 'crank.pin' || kind === 'crank.main' || kind === 'bore');
    const size = sizing ? sizeForAll(view, kind) : null;
    const spec = kind === 'crank.pin' || kind === 'crank.main' || kind === 'bore' ? view.specs[kind]?.value.spec : undefined;
    const limits = [
      spec?.outOfRoundMaxMm !== undefined ? `out of round ≤ ${spec.outOfRoundMaxMm.toFixed(3)} mm` : '',
      spec?.taperMaxMm !== undefined ? `taper ≤ ${spec.taperMaxMm.toFixed(3)} mm` : '',
      kind.startsWith('crank') && operation === 'grind' ? 'fillet radius kept, runout checked, crack test' : '',
    ].filter(Boolean);
    return {
      part: list.length > 1 ? (PART_WORDS[kind] ?? list.map((d) => d.name).join(', ')) : list[0]!.name,
      stations: list.map((d) => d.station),
      work: list[0]!.operation,
      operation: OPERATION_NAMES[list[0]!.operation],
      sizeMm: size?.finishMm ?? null,
      finish: sizing || operation === 'polish' || operation === 'hone' ? (FINISH[kind] ?? '') : operation === 'face' ? FINISH['head']! : '',
      limits: limits.join('; '),
      quantity: list.length,
      notes: [...new Set(list.map((d) => d.reason))].slice(0, 2).join('; '),
    };
  });
}

const PART_WORDS: Readonly<Record<string, string>> = {
  'crank.pin': 'Crankpins',
  'crank.main': 'Main journals',
  bore: 'Bores',
  rod: 'Rods',
  valves: 'Valves and seats',
  head: 'Chambers',
};

/** The sheet as CSV. */
export function machineSheetCsv(lines: readonly MachineLine[]): string {
  return (
    Papa.unparse(
      {
        fields: ['part', 'operation', 'size_min_mm', 'size_max_mm', 'finish', 'limits', 'quantity', 'places', 'notes'],
        data: lines.map((l) => [
          l.part,
          l.operation,
          l.sizeMm?.[0].toFixed(3) ?? '',
          l.sizeMm?.[1].toFixed(3) ?? '',
          l.finish,
          l.limits,
          l.quantity,
          l.stations.join(' '),
          l.notes,
        ]),
      },
      { newline: '\n', escapeFormulae: true },
    ) + '\n'
  );
}

export interface PartLine {
  readonly key: string;
  readonly part: string;
  readonly quantity: number;
  readonly size: string;
  readonly because: string;
}

/** Parts to buy, from what is replaced; sets where parts come in sets. */
export function partsList(dispositions: readonly StandingDisposition[]): PartLine[] {
  const sets: ReadonlyArray<readonly [key: string, part: string, test: RegExp, per: number]> = [
    ['rod-shells', 'Rod shells, pair', /^rod\.\d+\.(shell|bigend)/, 2],
    ['main-shells', 'Main shells, pair', /^main\.\d+\.shell/, 2],
    ['thrust-washers', 'Thrust washers, set', /\.thrust\./, 2],
    ['rollers', 'Rolling bearing', /\.rollers$/, 1],
    ['crank', 'Crankshaft', /^crank\./, 1e9],
    ['piston', 'Piston with pin', /^piston\.\d+\.(crown|skirt\.thrust|skirt\.antithrust)/, 3],
    ['rings', 'Ring set', /^rings\./, 1],
    ['rod', 'Rod', /^rod\.\d+$/, 1],
    ['gasket', 'Gasket set', /^gasket\./, 1],
    ['valves', 'Valves of a cylinder', /^valves\./, 1],
    ['cam', 'Camshaft with followers', /^cam\./, 1e9],
    ['pump', 'Oil pump', /^pump\./, 1e9],
    ['pickup', 'Pickup', /^pickup\./, 1],
    ['filter', 'Oil filter', /^filter\./, 1],
    ['cooler', 'Oil cooler', /^oil\.cooler/, 1],
    ['timing', 'Timing drive, set', /^timing\./, 1],
    ['bolts', 'Bolts, set', /^bolts\./, 1],
  ];
  return sets.flatMap(([key, part, test, per]) => {
    const out = dispositions.filter((d) => test.test(d.station) && (d.operation === 'replace' || d.operation === 'scrap'));
    if (out.length === 0) return [];
    const units = per > 1e6 ? 1 : new Set(out.map((d) => (per === 1 ? d.station : d.station.split('.').slice(0, 2).join('.')))).size;
    return [{ key, part, quantity: units, size: [...new Set(out.map((d) => d.size).filter(Boolean))].join(', '), because: out[0]!.reason }];
  });
}
