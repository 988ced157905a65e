import { schema as s, type Held } from '@true-ledger/core/kit';
import { GAUGE_KINDS, type Gauge } from '@true-ledger/core/units';
import type { PartClass } from '@true-ledger/core/engine';
import type { AcrossStatistics, PartsShelf } from '@true-ledger/core/across';
import type { EntryBodies } from '@true-ledger/core/entries';
import type { DrillAnswer } from '@true-ledger/core/practice';
import type { DueThing, EngineRecord, LogLine, OtherOil } from '@true-ledger/core/engineLog';
import type { GradeBook } from '@true-ledger/core/damage';
import type { PriceBook } from '@true-ledger/core/workshop';
import type { GaugeFaults, SpecSheet } from '@true-ledger/core/measure';
import type { Author, CaseState, KeptEntry, LedgerEntry } from '@true-ledger/core/ledger';
import type { DiagnosisJson } from '@true-ledger/core/diagnosis';
import type { Letterhead, LetterTemplates, Parties } from '@true-ledger/core/report';
import type { StampVerdict } from '@true-ledger/core/bundle';
import Joi from 'joi';
import { ROLES, WAITS } from './limits.js';
import type { GaugeSpot } from './requests.js';

const { list, listOf, nullable, number, optional, typed } = s;

/** Any text at all: what is answered was checked when it was taken in. */
const text = typed<string>(Joi.string().allow(''));
/** What core defines and checks itself. */
const ofCore = <T>(): s.Schema<T> => typed<T>(Joi.object().unknown());
const count = typed<number>(Joi.number().integer().min(0));
const share = typed<number>(Joi.number().min(0).max(1));
/** Time, ISO 8601; empty for what ships with the application. */
const time = text;
/** What no schema here bounds. */
const many = <S extends Joi.AnySchema>(items: S): s.Schema<ReadonlyArray<s.Held<S>>> => listOf(items);

export const done = s.object({ ok: typed<true>(Joi.valid(true)) });

export const account = s.object({
  id: text,
  name: text,
  signIn: text,
  role: s.oneOf(ROLES),
  active: s.flag,
  /** False: a reader who sees only the cases chosen for him. */
  allCases: s.flag,
});
export type Account = Held<typeof account>;
export const accounts = many(account);
export const accountCases = s.object({ cases: nullable(many(text)) });

export const me = s.object({ account, author: ofCore<Author>() });
export type Me = Held<typeof me>;

export const session = s.object({ id: text, created: time, lastSeen: time, agent: text, current: s.flag });
export type SessionInfo = Held<typeof session>;
export const sessions = many(session);

/** One line of the Shelf. */
export const caseSummary = s.object({
  id: text,
  number: text,
  title: text,
  reference: text,
  engine: text,
  stage: text,
  /** Put away: not on the shelf unless asked for; absent in figures of an earlier version. */
  shelved: optional(s.oneOf(['archived', 'withdrawn'])),
  waitingOn: text,
  /** Whom or what it waits for outside; absent in figures of an earlier version. */
  waits: optional(many(s.oneOf(WAITS))),
  /** Accounts of this shop that wrote in it; absent in figures of an earlier version. */
  writers: optional(many(text)),
  /** Newest signed version of its account; 0: none. */
  signed: count,
  coverage: share,
  unexplained: count,
  leading: nullable(text),
  leadingProbability: nullable(share),
  updated: time,
  /** Entries written since the figures were computed; 0 when they are of now. */
  behind: count,
  demo: s.flag,
  /**
   * The engine unrolled in small: its size and, for every place, left, top, width and height in whole mm and the grade, -1 where nobody looked. Absent in figures of an earlier version.
   */
  bench: optional(s.object({ widthMm: number, heightMm: number, cells: many(number) })),
});
export type CaseSummary = Held<typeof caseSummary>;
export const shelf = many(caseSummary);

/** A page of the shelf: the cases that hold all words looked for, the last written first. */
export const shelfPage = s.object({ total: count, cases: shelf });
export type ShelfPage = Held<typeof shelfPage>;

export const caseAnswer = s.object({ id: text, state: ofCore<CaseState>() });
export type CaseResponse = Held<typeof caseAnswer>;

const entry = ofCore<LedgerEntry>();
export const oneEntry = entry;
export const keptEntries = many(ofCore<KeptEntry>());
export const appended = s.object({ entries: many(entry) });
export type AppendResponse = Held<typeof appended>;

/** `already`: this very file was filed here before; nothing new was recorded. */
export const uploaded = s.object({ entry, already: s.flag });
export type UploadResponse = Held<typeof uploaded>;

export const rebuilt = s.object({ entries: count, same: s.flag });
export const demoProgress = s.object({ taken: count, total: count });
export const room = s.object({ freeMb: number });
export const network = s.object({ addresses: many(text) });

export const gauge = typed<Gauge>(
  s
    .object({
      id: text,
      name: text,
      kind: s.oneOf(GAUGE_KINDS),
      resolutionMm: number,
      expandedUncertaintyMm: number,
      repeatabilityMm: number,
    })
    .unknown(),
);
export const gauges = many(gauge);

/** A check of a gauge against a master. */
export const gaugeCheck = s.object({ id: text, gaugeId: text, masterMm: number, readMm: number, note: text, by: text, time });
export type GaugeCheck = Held<typeof gaugeCheck>;
export const gaugeChecks = many(gaugeCheck);

/** A stand-in for a gauge on a wire. */
export const standIn = s.object({
  gaugeId: text,
  faults: ofCore<GaugeFaults>(),
  count,
  last: nullable(text),
  at: nullable(ofCore<GaugeSpot>()),
});
export type StandIn = Held<typeof standIn>;
export const standIns = many(standIn);

/** What a gauge on a wire sends, to every open page of the shop. */
export type GaugeMessage =
  | { readonly type: 'reading'; readonly gauge: string; readonly text: string; readonly unit: string; readonly at: GaugeSpot | 'master' }
  | { readonly type: 'silent'; readonly gauge: string; readonly at: GaugeSpot | 'master' }
  | { readonly type: 'changed'; readonly gauge: string }
  | { readonly type: 'refused'; readonly sentence: string };
export const gaugeMessage = typed<GaugeMessage>(
  Joi.object({ type: Joi.valid('reading', 'silent', 'changed', 'refused').required() }).unknown(),
);

export const READING_STATUSES = ['waiting', 'reading', 'read', 'refused', 'stopped'] as const;
export type ReadingStatus = (typeof READING_STATUSES)[number];
/** Reading of all pictures of a case on the server, as it stands. */
export const readingBatch = s.object({
  /** ISO time; null when none was ever started. */
  started: nullable(time),
  by: nullable(text),
  running: s.flag,
  /** `note`: why one was refused. */
  pictures: many(s.object({ station: text, sha256: text, status: s.oneOf(READING_STATUSES), note: text })),
});
export type ReadingBatch = Held<typeof readingBatch>;

/** A version of the shop's grade book. */
export const gradeBookVersion = s.object({ book: ofCore<GradeBook>(), note: text, by: text, time });
export type GradeBookVersion = Held<typeof gradeBookVersion>;
export const gradeBooks = many(gradeBookVersion);

/** A version of the shop's prices. */
export const priceBookVersion = s.object({ version: count, book: ofCore<PriceBook>(), note: text, by: text, time });
export type PriceBookVersion = Held<typeof priceBookVersion>;
export const priceBooks = many(priceBookVersion);

export const specSheet = ofCore<SpecSheet>();
export const specSheets = many(specSheet);

/** A change of the shop's policy where builders disagree. */
export const policyChange = s.object({ question: text, position: text, reason: text, by: text, time });
export type PolicyChange = Held<typeof policyChange>;
export const policyChanges = many(policyChange);

/** A part as it should be, photographed and measured once, to hold others against. */
export const referencePart = s.object({
  id: text,
  name: text,
  part: typed<PartClass>(text),
  note: text,
  sha256: text,
  /** Size of the picture, and where its corners lie in it. */
  width: number,
  height: number,
  corners: nullable(many(s.pair(-1e6, 1e6))),
  /** What was measured on it, as text with units. */
  readings: many(s.object({ what: text, value: text })),
  by: text,
  time,
});
export type ReferencePart = Held<typeof referencePart>;
export const referenceParts = many(referencePart);

/** A link by which somebody outside reads one signed version. The token itself is told once, when it is made. */
export const shareLink = s.object({
  id: text,
  version: count,
  note: text,
  by: text,
  made: time,
  expires: time,
  revoked: nullable(time),
  opened: count,
  lastOpened: nullable(time),
  /** Does the account come with its cover sheet, which names client and engine? */
  cover: s.flag,
});
export type ShareLink = Held<typeof shareLink>;
export const shareLinks = many(shareLink);

/** `path`: on this server, with the token in it. */
export const newShareLink = s.object({ link: shareLink, path: text });
export type NewShareLink = Held<typeof newShareLink>;

/** What somebody with a link is told. */
export const sharedAccount = s.object({
  number: text,
  title: text,
  version: count,
  newest: count,
  by: text,
  time,
  /** Of the account as signed; with a cover sheet before it the file is another. */
  sha256: text,
  head: text,
  expires: time,
  cover: s.flag,
});
export type SharedAccount = Held<typeof sharedAccount>;

export const present = list(s.object({ name: text, place: text }), 1000);
export type Present = Held<typeof present>[number];

export const imported = s.object({
  caseId: text,
  number: text,
  outcome: s.oneOf(['new', 'continued', 'same']),
  entries: count,
  head: text,
});
export type ImportAnswer = Held<typeof imported>;

/** How far a PDF is that is being made: its pictures are drawn, then its pages set. */
const pdfProgress = s.object({ stage: s.oneOf(['pictures', 'pages']), done: count, total: count });
export type PdfProgress = Held<typeof pdfProgress>;
export const pdfRun = s.object({ progress: nullable(pdfProgress) });

/** A day's seal in the list. */
export const sealLine = s.object({
  /** ISO date. */
  day: text,
  cases: count,
  /** Ed25519 public key it is signed with, hex. */
  key: text,
  stamped: s.flag,
  /** By the stand-in that ships with the application: it proves nothing. */
  simulated: s.flag,
});
export type SealLine = Held<typeof sealLine>;
export const sealLines = many(sealLine);

/** What the time-stamp of a seal proves. `simulated`: given by the stand-in, it shows the way and proves nothing. */
export const stampSaid = s.object({ verdict: ofCore<StampVerdict>(), sentence: text, simulated: s.flag });
export type StampSaid = Held<typeof stampSaid>;

/** Public keys of the shop; `earlier` with the signature by which each gave way to the next. */
export const shopKeys = s.object({
  key: text,
  fingerprint: text,
  made: time,
  earlier: many(s.object({ key: text, made: time, until: time, next: text, signature: text })),
});
export type ShopKeys = Held<typeof shopKeys>;

/** Head of the shop's papers and the templates of its letters; version 0: never entered. */
export const shopRecord = s.object({ letterhead: ofCore<Letterhead>(), letters: ofCore<LetterTemplates>(), version: count });
export type ShopRecord = Held<typeof shopRecord>;

/** A letter made ready from a case, to be read over before it goes out. */
export const letter = s.object({ addressee: text, subject: text, body: text });
export type Letter = Held<typeof letter>;

/** Client and engine of a case, kept beside the ledger; version 0: never entered. */
export const caseParties = s.object({ parties: ofCore<Parties>(), version: count });
export type CaseParties = Held<typeof caseParties>;

/** An engine of the shop in a line: how far its log goes, what of it wants doing. */
export const engineLine = s.object({
  id: text,
  record: ofCore<EngineRecord>(),
  version: count,
  cases: count,
  lines: count,
  /** Day of its newest line, and the last reading of its counter. */
  newest: nullable(text),
  counter: nullable(number),
  /** Things its log says that should be looked at before it runs on. */
  urgent: many(text),
  due: nullable(ofCore<DueThing>()),
});
export type EngineLine = Held<typeof engineLine>;
export const engineLines = many(engineLine);

/** An engine with its log, the cases that hang on it, and what tells its oil from that of others. */
export const engineLogAnswer = s.object({
  id: text,
  record: ofCore<EngineRecord>(),
  version: count,
  /** The record it was merged into, whose log it is part of; null: it stands by itself. */
  mergedInto: nullable(s.object({ id: text, mark: text })),
  /** Records that turned out to be this engine; their lines and cases are among these. */
  merged: many(s.object({ id: text, mark: text })),
  lines: many(ofCore<LogLine>()),
  cases: many(s.object({ id: text, number: text, title: text, stage: text, leading: nullable(text), updated: time })),
  others: many(ofCore<OtherOil>()),
  /** References of samples that the stand-in of the laboratory has. */
  awaited: many(text),
});
export type EngineLogAnswer = Held<typeof engineLogAnswer>;

/** What many cases say, with the case numbers behind every figure, and what should be asked of whom it was given back to. */
export const across = s.object({
  statistics: ofCore<AcrossStatistics>(),
  /** Number and title by id. */
  cases: typed<Readonly<Record<string, { readonly number: string; readonly title: string }>>>(Joi.object().unknown()),
  /** Mark and name by id of the engines among them. */
  engines: typed<Readonly<Record<string, { readonly mark: string; readonly name: string }>>>(Joi.object().unknown()),
  asked: many(s.object({ id: text, number: text, title: text, due: text, why: text })),
  ownPriors: s.flag,
});
export type AcrossAnswer = Held<typeof across>;

/** Cases that found much the same as one, the likest first, and how many it was laid beside. */
export const likeCases = s.object({
  among: number,
  cases: many(
    s.object({
      caseId: text,
      number: text,
      title: text,
      likeness: number,
      shared: many(text),
      sameFamily: s.flag,
      was: many(text),
      proved: s.flag,
    }),
  ),
});
export type LikeCases = Held<typeof likeCases>;

/** Answers somebody gave to drills, oldest first; how he stands follows from them. */
export const drillAnswers = s.object({ answers: many(ofCore<DrillAnswer>()) });
export type DrillAnswers = Held<typeof drillAnswers>;

/** Practice engines somebody may see, the newest first; the seed of a sealed one once its truth is opened. */
export const practiceEngines = many(
  s.object({
    caseId: text,
    number: text,
    level: number,
    seed: nullable(number),
    by: text,
    time: text,
    opened: nullable(text),
  }),
);
export type PracticeEngines = Held<typeof practiceEngines>;
/** What a look at a practice engine brought to light. */
export const practiceShown = s.object({ look: text, minutes: number, words: many(text), picture: s.flag });
export type PracticeShown = Held<typeof practiceShown>;

/** The shop's own frequencies for a kind of engine, as factors; null while nothing was proved. */
export const shopPriors = s.object({ on: s.flag, priors: nullable(ofCore<NonNullable<EntryBodies['priors-taken']['priors']>>()) });
export type ShopPriors = Held<typeof shopPriors>;

/** What lies on the parts shelf, and what is wanted. */
export const partsShelf = ofCore<PartsShelf>();

/** Cases in which all words were found, with the place where. */
export const foundCases = s.object({
  total: count,
  cases: many(s.object({ id: text, number: text, title: text, engine: text, where: text })),
});
export type FoundCases = Held<typeof foundCases>;

/** The engine a case hangs on; null: none. */
export const caseEngine = s.object({ engine: nullable(s.object({ id: text, mark: text, name: text })) });
export type CaseEngine = Held<typeof caseEngine>;

export const diagnosis = ofCore<DiagnosisJson>();
export const measured = ofCore<object>();

/** Sent over the event stream of a case. */
export interface CaseEvent {
  readonly caseId: string;
  readonly seq: number;
}
