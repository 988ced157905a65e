import { diagnose } from '../diagnosis/diagnose.js';
import type { EntryBodies } from '../entries/entries.js';
import { canonicalJson, sha256Hex } from '../kit/hash.js';
import type { CaseView } from '../case/views.js';
import { standingDispositions } from '../salvage/dispositions.js';
import { partsList } from '../salvage/machineSheet.js';
import { MACHINE_WORK, OPERATION_NAMES } from '../workshop/operations.js';
import type { SimulatedRoute } from '../salvage/simulate.js';
import type { ReportBlock, ReportModel, ReportSection, SignedVersion } from './blocks.js';
import type { SectionId } from '../entries/account.js';
import type { Letterhead } from './parties.js';
import { appendix } from './sections/appendix.js';
import { firstPage } from './firstPage.js';
import { answers } from './sections/answers.js';
import { causes } from './sections/causes.js';
import { conclusion } from './sections/conclusion.js';
import { decided, machineBlocks } from './sections/decided.js';
import { examined } from './sections/examined.js';
import { findings } from './sections/findings.js';
import { oil } from './sections/oil.js';
import { opening } from './sections/opening.js';
import { question } from './sections/question.js';
import { routes } from './sections/routes.js';
import { sequence } from './sections/sequence.js';
import { measured } from './sections/measured.js';
import { standing } from './sections/standing.js';
import { figuresIn, figuresOf, ownWordFlags, withEdited } from './sentences.js';
import { ALWAYS, TEMPLATES, templateFor } from './templates.js';

/** How the account is laid out: by hand, else as the template for who asks. */
export function layoutOf(view: CaseView): EntryBodies['account-laid-out'] {
  if (view.accountLayout) return view.accountLayout;
  const template = templateFor(view.intake('questionOwner'));
  return {
    template: template.id,
    order: template.order,
    left: [],
    detail: template.detail,
    picturesLeft: [],
    pictureOrder: [],
    marks: true,
    insets: true,
  };
}

/** Numbers of the pictures in the account, in their order; those left out have none. */
export function pictureNumbers(view: CaseView, layout: EntryBodies['account-laid-out']): ReadonlyMap<string, number> {
  // What was found sound is told in words.
  const all = [...new Set(view.stations.filter((s) => s.state === 'findings').flatMap((s) => s.photos.map((p) => p.value.sha256)))];
  const wanted = [...layout.pictureOrder.filter((sha) => all.includes(sha)), ...all.filter((sha) => !layout.pictureOrder.includes(sha))];
  const left = new Set(layout.picturesLeft);
  return new Map(wanted.filter((sha) => !left.has(sha)).map((sha, i) => [sha, i + 1]));
}

/** Versions signed so far with what each changed. */
export function signedVersions(view: CaseView): SignedVersion[] {
  return view.signed.map(({ value, version }, i) => ({
    version: value.version,
    by: version.author.name,
    time: version.time,
    reason: value.reason,
    changed: i === 0 ? [] : changedSections(view.signed[i - 1]!.value.sections, value.sections),
  }));
}

function changedSections(before: EntryBodies['account-signed']['sections'], now: EntryBodies['account-signed']['sections']): string[] {
  const ids = [...new Set([...Object.keys(before), ...Object.keys(now)])] as SectionId[];
  return ids.filter((s) => before[s] !== now[s]).map((s) => HEADINGS[s]);
}

/** Heading of every section. */
export const HEADINGS: Readonly<Record<ReportSection['id'], string>> = {
  question: 'Question and engine',
  opening: 'Before opening and strip',
  oil: 'Oil and service',
  examined: 'What was and was not examined',
  findings: 'Findings',
  sheets: 'Measurements',
  causes: 'Causes',
  sequence: 'Order of events',
  answers: 'What answers it',
  decided: 'What is to be done',
  routes: 'Ways on',
  conclusion: 'Conclusion',
  standing: 'Method and standing',
  appendix: 'Appendix: measuring sheets',
  assembly: 'Assembly',
};

/** What a person reads of a block: words and figures. Coordinates of drawings stay out, since the last digits of logarithms differ between machines. */
function reads(block: ReportBlock): unknown {
  switch (block.kind) {
    case 'drawing':
      return { caption: block.caption, words: block.shapes.flatMap((s) => (s.kind === 'text' ? [s.text] : [])) };
    case 'wear':
      return { station: block.station, caption: block.caption };
    default:
      return block;
  }
}

/** SHA-256 of every section as it reads; the ledger's own head and length, which always differ, stay out. */
export function sectionHashes(model: ReportModel): Readonly<Partial<Record<SectionId, string>>> {
  const own = `Ledger: ${model.entries} entries, head ${model.ledgerHead}.`;
  const read = (s: ReportSection): unknown =>
    JSON.parse(JSON.stringify({ heading: s.heading, blocks: s.blocks.filter((b) => b.kind !== 'text' || b.text !== own).map(reads) }));
  return Object.fromEntries(model.sections.map((s) => [s.id, sha256Hex(canonicalJson(read(s)))]));
}

/** What an account is made with, beside the case. */
export interface ReportOptions {
  /** Simulated routes; left out, the account has none. */
  readonly routes?: readonly SimulatedRoute[];
  /** Head of the shop's paper. */
  readonly letterhead?: Letterhead | null;
  /** Fingerprint of the shop's key. */
  readonly key?: string;
  /** The signature the account is being made for. */
  readonly signing?: { readonly by: string; readonly time: string; readonly reason: string };
}

/** Builds the account of a case. `entries` and `ledgerHead` identify the ledger it was made from. */
export function reportModel(view: CaseView, ledgerHead: string, entries: number, options: ReportOptions = {}): ReportModel {
  const layout = layoutOf(view);
  const template = TEMPLATES.find((t) => t.id === layout.template) ?? TEMPLATES[0]!;
  const d = diagnose(view);
  const made: Readonly<Record<SectionId, () => readonly ReportSection[]>> = {
    question: () => [question(view)],
    opening: () => [opening(view)],
    oil: () => oil(view),
    examined: () => [examined(view)],
    findings: () => [findings(view, pictureNumbers(view, layout))],
    sheets: () => [measured(view, layout.detail)],
    causes: () => [causes(view, d, layout.detail)],
    sequence: () => [sequence(view, d)],
    answers: () => answers(view, d, layout.template === 'warranty'),
    decided: () => decided(view),
    routes: () => routes(view, options.routes ?? []),
    conclusion: () => [conclusion(view, d)],
    standing: () => [standing(view, d, ledgerHead, entries)],
    appendix: () => (layout.detail === 'full' ? appendix(view) : []),
  };
  const order = [
    ...layout.order,
    // An order made before there were logs does not know of one that was taken since.
    ...(layout.order.includes('oil') || layout.left.includes('oil') ? [] : (['oil'] as const)),
    ...[...ALWAYS, ...(layout.order.includes('sheets') && !layout.left.includes('sheets') ? (['appendix'] as const) : [])].filter(
      (s) => !layout.order.includes(s),
    ),
  ];
  const generated = order.filter((s) => ALWAYS.has(s) || !layout.left.includes(s)).flatMap((s) => made[s]());
  const own = ['conclusion', 'actions'] as const;
  // What the builder wrote must not vouch for itself.
  const byHand = new Set(own.map((field) => view.report(field)).filter(Boolean));
  const known = [
    ...figuresOf(generated.map((s) => ({ ...s, blocks: s.blocks.filter((b) => b.kind !== 'text' || !byHand.has(b.text)) }))),
    ...figuresIn(view.title),
    ...figuresIn(view.number),
  ];
  const sections = withEdited(generated, view.sentences, known);
  const flags = [
    ...sections.flatMap((s) =>
      s.blocks.flatMap((b) =>
        b.kind === 'text' && b.edited && b.edited.flags.length > 0 ? [{ section: s.id, text: b.text, flags: b.edited.flags }] : [],
      ),
    ),
    ...own.flatMap((field) => {
      const found = ownWordFlags(view.report(field), known);
      return found.length > 0 ? [{ section: 'conclusion' as const, text: view.report(field), flags: found }] : [];
    }),
  ];
  const signed = signedVersions(view);
  const model: ReportModel = {
    kind: 'account',
    heading: template.heading,
    title: view.title,
    number: view.number,
    reference: view.intake('reference'),
    ledgerHead,
    entries,
    letterhead: options.letterhead ?? null,
    ...(options.key ? { key: options.key } : {}),
    first: firstPage(
      view,
      d,
      pictureNumbers(view, layout),
      order.includes('routes') && !layout.left.includes('routes') ? (options.routes ?? []) : [],
    ),
    sections: withEditCount(sections, flags.length),
    signed,
    signing: null,
    flags,
  };
  const before = view.signed.at(-1)?.value.sections;
  const changed = before ? changedSections(before, sectionHashes(model)) : [];
  if (!options.signing) return before ? { ...model, sinceSigned: changed } : model;
  return {
    ...model,
    signing: {
      ...options.signing,
      version: (signed.at(-1)?.version ?? 0) + 1,
      changed,
    },
  };
}

/** The section on method says how many sentences were put in other words. */
function withEditCount(sections: readonly ReportSection[], flagged: number): readonly ReportSection[] {
  const edited = sections.reduce((n, s) => n + s.blocks.filter((b) => b.kind === 'text' && b.edited).length, 0);
  if (edited === 0 && flagged === 0) return sections;
  const words =
    `${edited} sentence${edited === 1 ? '' : 's'} made from the ledger ${edited === 1 ? 'was' : 'were'} put in other words by the builder.` +
    (flagged > 0 ? ` ${flagged} passage${flagged === 1 ? ' says' : 's say'} what the figures do not carry; the tables hold.` : '');
  return sections.map((s) => (s.id === 'standing' ? { ...s, blocks: [{ kind: 'text' as const, text: words }, ...s.blocks] } : s));
}

/** The sheet that goes to the machine shop, with the parts to buy: what the builder confirmed, and what is proposed marked so. */
export function machineShopModel(view: CaseView, ledgerHead: string, entries: number, letterhead: Letterhead | null = null): ReportModel {
  const all = standingDispositions(view);
  const confirmed = all.filter((d) => d.confirmed);
  const open = all.filter((d) => !d.confirmed && MACHINE_WORK.has(d.operation));
  const parts = partsList(view.layout, confirmed);
  const none = (text: string): ReportSection['blocks'] => [{ kind: 'text', text }];
  const shop = machineBlocks(view, confirmed);
  return {
    kind: 'sheet',
    heading: 'Machine-shop sheet',
    title: view.title,
    number: view.number,
    reference: view.intake('reference'),
    ledgerHead,
    entries,
    letterhead,
    first: null,
    sections: [
      {
        id: 'decided',
        heading: 'Work',
        blocks: [
          ...(shop.length > 0 ? shop : none('No machine work is confirmed.')),
          ...(open.length > 0
            ? none(
                `Proposed and not confirmed, so not ordered by this sheet: ${open.map((d) => `${d.name}: ${OPERATION_NAMES[d.operation].toLowerCase()}`).join('; ')}.`,
              )
            : []),
          {
            kind: 'text',
            text: 'Sizes follow from the readings in the ledger; where the engine maker’s data differ, they apply. Ask before taking off more.',
          },
        ],
      },
      {
        id: 'routes',
        heading: 'Parts to buy',
        blocks:
          parts.length > 0
            ? [
                {
                  kind: 'table',
                  head: ['Part', 'Size', 'Qty', 'Because'],
                  rows: parts.map((p) => [p.part, p.size || '–', String(p.quantity), p.because]),
                  figures: [2],
                },
              ]
            : none('No part is confirmed to be replaced.'),
      },
    ],
    signed: [],
    signing: null,
    flags: [],
  };
}

/** Under the title: which version this is, who signed it, and what it amends. */
export function versionLines(model: ReportModel): string[] {
  const line = (v: SignedVersion): string =>
    `Version ${v.version}, signed by ${v.by}, ${v.time.slice(0, 16).replace('T', ' ')} UTC` +
    (v.version === 1
      ? '.'
      : `; amends version ${v.version - 1}: ${v.reason} Sections that read differently: ${v.changed.join(', ') || 'none'}.`);
  if (model.kind === 'cover') return ['The sheet names who had the work done; the account behind it does not.'];
  if (model.kind === 'sheet') return ['Not an account: it is handed on with the work.'];
  if (model.signing) return [...model.signed, model.signing].map(line);
  const last = model.signed.at(-1)?.version;
  const since = model.sinceSigned ?? [];
  const draft =
    last === undefined
      ? ''
      : since.length === 0
        ? ` Reads as version ${last}.`
        : ` Reads differently from version ${last}: ${since.join(', ')}.`;
  return [`Draft, not signed.${draft}`, ...model.signed.map((v) => `Signed before: ${line(v)}`)];
}

/** Who signs with what, under the last section of an account: lines to be written on by hand, and what the ledger holds. */
export function signatureLines(model: ReportModel): string[] {
  if (model.kind !== 'account') return [];
  const signed = model.signing
    ? `Signed in the ledger by ${model.signing.by}, ${model.signing.time.slice(0, 16).replace('T', ' ')} UTC.`
    : 'Not signed.';
  return model.key ? [signed, `Key of the shop: ${model.key}.`] : [signed];
}
