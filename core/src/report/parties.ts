import type { Gauge } from '../units/gauge.js';
import type { CaseView } from '../case/views.js';
import type { Sourced } from '../ledger/state.js';
import type { ReportBlock, ReportModel, ReportSection } from './blocks.js';
import { orDash } from './words.js';

/** Who the shop is, as it stands at the head of its papers; lines may be empty. */
export interface Letterhead {
  readonly name: string;
  /** Address, a line each. */
  readonly address: string;
  /** Telephone, mail. */
  readonly contact: string;
  /** Register or licence under which the shop works. */
  readonly register: string;
}

/** For whom the work is, and of which engine: kept beside the ledger, in no bundle and behind no link unless chosen. */
export interface Parties {
  readonly client: { readonly name: string; readonly address: string; readonly contact: string };
  readonly engine: {
    readonly make: string;
    readonly model: string;
    readonly serial: string;
    /** Hours or distance run, in the client's words. */
    readonly hours: string;
    /** Vessel, vehicle or machine it came from. */
    readonly fitted: string;
  };
}

/** Client and engine of whom nothing is entered. */
export const NO_PARTIES: Parties = {
  client: { name: '', address: '', contact: '' },
  engine: { make: '', model: '', serial: '', hours: '', fitted: '' },
};

/** The head of the papers under its name, line by line; empty lines left out. */
export const letterheadLines = (l: Letterhead): string[] =>
  [...l.address.split('\n'), l.contact, l.register].map((line) => line.trim()).filter(Boolean);

/** First and last day (ISO) on which something was photographed, marked, read or answered; null where nothing was. */
function inspectionDays(view: CaseView): readonly [string, string] | null {
  const seen: Array<Sourced<unknown>> = [...view.stations.flatMap((s) => [...s.photos, ...s.marks, ...s.readings]), ...view.readings];
  const days = seen.map((s) => s.version.time.slice(0, 10)).sort();
  return days.length === 0 ? null : [days[0]!, days.at(-1)!];
}

/** The days of the inspection in words. */
export function inspectedText(view: CaseView): string {
  const days = inspectionDays(view);
  if (!days) return '';
  return days[0] === days[1] ? days[0] : `${days[0]} to ${days[1]}`;
}

/** Gauges the readings of a case were taken with, each as it stood beside its last reading. */
function gaugesUsed(view: CaseView): Gauge[] {
  const all = [...view.stations.flatMap((s) => s.readings), ...view.readings].sort((a, b) => a.version.seq - b.version.seq);
  return [...new Map(all.map((r) => [r.value.gauge.id, r.value.gauge])).values()].sort((a, b) => a.name.localeCompare(b.name, 'en'));
}

/** Gauges used, with when each was last checked; null where none was. */
export function gaugeTable(view: CaseView): ReportBlock | null {
  const gauges = gaugesUsed(view);
  if (gauges.length === 0) return null;
  return {
    kind: 'table',
    head: ['Gauge', 'Serial', 'Resolution mm', 'U (k = 2) mm', 'Last check'],
    rows: gauges.map((g) => [
      g.name,
      orDash(g.serial ?? ''),
      String(g.resolutionMm),
      String(g.expandedUncertaintyMm),
      g.checkedOn ? g.checkedOn : 'none on record',
    ]),
    figures: [2, 3],
  };
}

/** What the cover sheet of an account is made of. */
export interface CoverOf {
  /** The signed version it goes with, and the hash of its PDF; null: with a draft. */
  readonly signed: { readonly version: number; readonly sha256: string } | null;
  readonly letterhead: Letterhead | null;
}

/** The sheet that says for whom an account is and of which engine; it goes before the account and names it by hash. */
export function coverModel(
  view: CaseView,
  parties: Parties,
  ledgerHead: string,
  entries: number,
  { signed, letterhead }: CoverOf,
): ReportModel {
  const { client, engine } = parties;
  const table = (id: ReportSection['id'], heading: string, rows: ReadonlyArray<readonly [string, string]>): ReportSection => {
    const said = rows.filter(([, text]) => text.trim() !== '');
    return {
      id,
      heading,
      blocks: said.length > 0 ? [{ kind: 'table', head: ['', ''], rows: said }] : [{ kind: 'text', text: 'Nothing was entered.' }],
    };
  };
  return {
    kind: 'cover',
    heading: 'Cover sheet to account',
    title: view.title,
    number: view.number,
    reference: view.intake('reference'),
    ledgerHead,
    entries,
    letterhead,
    first: null,
    sections: [
      table('question', 'For', [
        ['Client', client.name],
        ['Address', client.address],
        ['Contact', client.contact],
      ]),
      table('examined', 'Engine', [
        ['Make', engine.make],
        ['Model', engine.model],
        ['Serial number', engine.serial],
        ['Run', engine.hours],
        ['Fitted in', engine.fitted],
        ['Inspected', inspectedText(view)],
      ]),
      {
        id: 'standing',
        heading: 'Goes with',
        blocks: [
          {
            kind: 'text',
            text: signed
              ? `Version ${signed.version} of the account, signed; its PDF without this sheet has the SHA-256 ${signed.sha256}.`
              : 'A draft of the account, not signed.',
          },
        ],
      },
    ],
    signed: [],
    signing: null,
    flags: [],
  };
}
