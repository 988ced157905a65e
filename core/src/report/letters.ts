import type { CaseView } from '../case/views.js';
import { diagnose } from '../diagnosis/diagnose.js';
import { standingDispositions } from '../salvage/dispositions.js';
import { machineSheet, partsList } from '../salvage/machineSheet.js';
import type { SimulatedRoute } from '../salvage/simulate.js';
import { firstPage } from './firstPage.js';
import { layoutOf, pictureNumbers } from './model.js';
import { inspectedText, type Letterhead, type Parties } from './parties.js';

/** To whom letters are made ready. */
export const LETTERS = ['client', 'machine-shop', 'warranty'] as const;
export type LetterTo = (typeof LETTERS)[number];

/** What the shop wrote once for all its letters of a kind; fields stand in braces, and what stands in square brackets is left out where a field in it is empty. */
export interface LetterTemplate {
  readonly subject: string;
  /** Paragraphs with an empty line between them. */
  readonly body: string;
}
export type LetterTemplates = Readonly<Record<LetterTo, LetterTemplate>>;

/** Fields a template may name, and what stands in their place. The words of the first page of the account serve here too. */
export const LETTER_FIELDS = {
  client: 'Name of the client',
  case: 'Number of the case',
  reference: 'The client’s own reference',
  title: 'Title of the case',
  engine: 'Make, model and serial number of the engine',
  run: 'Hours or distance run',
  inspected: 'Days of the inspection',
  failed: 'What failed',
  why: 'Why, in the words of the account',
  sure: 'The leading cause with its range',
  rests: 'What the cause rests on, a line each',
  rival: 'The strongest other explanation',
  todo: 'What is to be done, with price and date, a line each',
  work: 'Work for the machine shop with sizes, a line each',
  parts: 'Parts to buy, a line each',
  unseen: 'What was not examined',
  account: 'The signed version of the account it goes with',
  deadline: 'Until when the engine is wanted',
  shop: 'Name of the shop',
} as const satisfies Readonly<Record<string, string>>;
type LetterField = keyof typeof LETTER_FIELDS;

/** Letters as they ship, until the shop writes its own. */
export const LETTER_TEMPLATES: LetterTemplates = {
  client: {
    subject: 'Your engine, our case {case}',
    body: `Good day[ {client}],

we have taken your engine apart and looked at it: {title}.

{failed}

{why}

How sure that is: {sure}.[ {rival}]

What we propose:

{todo}

{unseen} What nobody has looked at can still hold something.

{account}

Please say in writing whether we should go on, and by when you want the engine. Until then nothing is changed on it.

{shop}`,
  },
  'machine-shop': {
    subject: 'Work for you, our case {case}',
    body: `Good day,

with this come parts of an engine: {engine}. The sheet with drawings goes with them.

Please do:

{work}

These parts are ours to buy, and no work for you:

{parts}

Sizes follow from our readings; where the maker’s data differ, they hold. Please ask before you take off more, keep the fillet radii, and send your own readings back with the parts.

Wanted by {deadline}.

{shop}`,
  },
  warranty: {
    subject: 'Failure of an engine, our case {case}[, your reference {reference}]',
    body: `Good day,

we were asked to find out why an engine failed. Engine: {engine}.[ Run: {run}.][ Inspected: {inspected}.]

{failed}

{why}

The cause that explains it best: {sure}. It rests on:

{rests}

{rival}

{unseen}

[{account} ]All pictures, readings and parts are kept here, untouched since the strip; they can be looked at, or sent by agreement.

We state what was found and judge nobody’s duty.

{shop}`,
  },
};

const FIELD = /\{([^{}]*)\}/g;
const BRACKETS = /\[([^[\]]*)\]/g;

/** Names in braces that are no field, each once. */
export function unknownFields({ subject, body }: LetterTemplate): string[] {
  const named = [...`${subject}\n${body}`.matchAll(FIELD)].map((m) => m[1]!);
  return [...new Set(named.filter((name) => !Object.hasOwn(LETTER_FIELDS, name)))];
}

/** What the fields of a case stand for; empty where nothing was entered. */
export interface LetterOf {
  readonly parties: Parties;
  readonly letterhead: Letterhead | null;
  readonly routes: readonly SimulatedRoute[];
}

function fieldsOf(view: CaseView, { parties, letterhead, routes }: LetterOf): Readonly<Record<LetterField, string>> {
  const first = firstPage(view, diagnose(view), pictureNumbers(view, layoutOf(view)), routes);
  const { make, model, serial, hours } = parties.engine;
  const confirmed = standingDispositions(view).filter((d) => d.confirmed);
  const lines = (items: readonly string[]): string => items.map((i) => `${LINE}${i}`).join('\n');
  const signed = view.signed.at(-1)?.value.version;
  return {
    client: parties.client.name,
    case: view.number,
    reference: view.intake('reference'),
    title: view.title,
    engine: [make, model, serial && `serial number ${serial}`].filter(Boolean).join(', ') || view.title,
    run: hours,
    inspected: inspectedText(view),
    failed: first.failed,
    why: first.why,
    sure: first.sure ? [first.sure.cause, first.sure.place, first.sure.words].filter(Boolean).join(', ') : '',
    rests: lines(first.restsOn),
    rival: first.rival ?? '',
    todo: lines(first.todo),
    work: lines(
      machineSheet(view, confirmed).map((l) =>
        [
          `${l.part}: ${l.operation.toLowerCase()}`,
          l.sizeMm ? `to ${l.sizeMm[0].toFixed(3)} to ${l.sizeMm[1].toFixed(3)} mm` : '',
          l.finish,
          l.limits,
        ]
          .filter(Boolean)
          .join('; '),
      ),
    ),
    parts: lines(partsList(view.layout, confirmed).map((p) => `${p.quantity} × ${p.part}${p.size ? `, ${p.size}` : ''}`)),
    unseen: first.notSeen.join(' '),
    account: signed === undefined ? '' : `Version ${signed} of our account, signed, goes with this letter.`,
    deadline: view.plan?.deadline ?? '',
    shop: letterhead?.name ?? '',
  };
}

/** How a line of a list begins. */
const LINE = '– ';

/**
 * The template filled from the case. What stands in brackets goes where a field in it is empty; so does a paragraph whose fields are all empty, and with it the one before where that only leads to
 * it (ends with a colon). Unknown names stay as they are written, for whoever reads it over.
 */
export function filledLetter(view: CaseView, template: LetterTemplate, of: LetterOf): LetterTemplate {
  const fields: Readonly<Record<string, string>> = fieldsOf(view, of);
  const namedIn = (text: string): string[] => [...text.matchAll(FIELD)].map((m) => m[1]!).filter((name) => Object.hasOwn(fields, name));
  const fill = (text: string): string =>
    text
      .replace(BRACKETS, (_, inner: string) => (namedIn(inner).some((name) => fields[name] === '') ? '' : inner))
      .replace(FIELD, (whole, name: string) => (Object.hasOwn(fields, name) ? fields[name]! : whole))
      .trim();
  const paragraphs: string[] = [];
  for (const written of template.body.split(/\n\s*\n/)) {
    // What stands in brackets decides for itself.
    const asked = namedIn(written.replace(BRACKETS, ''));
    if (asked.length > 0 && asked.every((name) => fields[name] === '')) {
      if (paragraphs.at(-1)?.endsWith(':')) paragraphs.pop();
    } else paragraphs.push(fill(written));
  }
  return { subject: fill(template.subject), body: paragraphs.join('\n\n') };
}

/** A paragraph of a letter: words, or the lines of a list. */
export type LetterParagraph = string | readonly string[];

/** The body of a letter as it is set: an empty line parts paragraphs, lines that begin with a dash are a list. */
export function letterParagraphs(body: string): LetterParagraph[] {
  return body
    .split(/\n\s*\n/)
    .map((p) => p.trim())
    .filter(Boolean)
    .map((p) => {
      const lines = p.split('\n');
      return lines.every((l) => l.startsWith(LINE)) ? lines.map((l) => l.slice(LINE.length)) : p;
    });
}
