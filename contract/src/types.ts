import type {
  Author,
  CaseState,
  EntryDraft,
  Gauge,
  GaugeFaults,
  GradeBook,
  LedgerEntry,
  Letterhead,
  Parties,
  PartClass,
  PriceBook,
  StampVerdict,
} from '@true-ledger/core';

export type Role = 'owner' | 'builder' | 'reader';
export const ROLES: readonly Role[] = ['owner', 'builder', 'reader'];

export interface Account {
  readonly id: string;
  readonly name: string;
  readonly signIn: string;
  readonly role: Role;
  readonly active: boolean;
  /** False: a reader who sees only the cases chosen for him. */
  readonly allCases: boolean;
}

export interface SessionInfo {
  readonly id: string;
  readonly created: string;
  readonly lastSeen: string;
  readonly agent: string;
  readonly current: boolean;
}

/** One line of the Shelf. */
export interface CaseSummary {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly reference: string;
  readonly engine: string;
  readonly stage: string;
  /** Put away: not on the shelf unless asked for; absent in figures of an earlier version. */
  readonly shelved?: 'archived' | 'withdrawn';
  readonly waitingOn: string;
  /** Newest signed version of its account; 0: none. */
  readonly signed: number;
  readonly coverage: number;
  readonly unexplained: number;
  readonly leading: string | null;
  readonly leadingProbability: number | null;
  readonly updated: string;
  /** Entries written since the figures were computed; 0 when they are of now. */
  readonly behind: number;
  readonly demo: boolean;
  /** Worst grade by bench row, for the strip on the Shelf; null where nothing was examined. */
  readonly strip: ReadonlyArray<{ readonly station: string; readonly grade: number | null }>;
}

/** A page of the shelf: the cases that hold all words looked for, the last written first. */
export interface ShelfPage {
  readonly total: number;
  readonly cases: readonly CaseSummary[];
}

export interface CaseResponse {
  readonly id: string;
  readonly state: CaseState;
}

export interface AppendRequest {
  readonly entries: readonly EntryDraft[];
}

export interface AppendResponse {
  readonly entries: readonly LedgerEntry[];
}

export interface UploadResponse {
  readonly entry: LedgerEntry;
  /** True when this very file was already filed here; nothing new was recorded. */
  readonly already: boolean;
}

export interface NewCaseRequest {
  readonly id: string;
  readonly title: string;
  readonly reference: string;
  readonly layout: import('@true-ledger/core').EngineLayout;
  /** Shop sheet whose limits the case takes a copy of. */
  readonly sheet?: { readonly id: string; readonly version: number } | null;
  /** Case of the same engine whose sizes and limits it takes a copy of, where it takes no sheet. */
  readonly like?: string;
}

/** A new sheet, or the next version of one: `basedOn` is the version it was edited from, 0 for a new sheet. */
export interface SheetRequest {
  readonly id: string;
  readonly basedOn: number;
  readonly name: string;
  readonly source: string;
  readonly layout: import('@true-ledger/core').EngineLayout;
  readonly specs: import('@true-ledger/core').SpecSheet['specs'];
  readonly limits: ReadonlyArray<import('@true-ledger/core').SheetLimit>;
}

export interface Me {
  readonly account: Account;
  readonly author: Author;
}

export type ShopGauge = Gauge;

/** A check of a gauge against a master. */
export interface GaugeCheck {
  readonly id: string;
  readonly gaugeId: string;
  readonly masterMm: number;
  readonly readMm: number;
  readonly note: string;
  readonly by: string;
  readonly time: string;
}

/** Where a gauge is put: a cell of a sheet of a case, or its own master. */
export interface GaugeSpot {
  readonly caseId: string;
  readonly station: string | null;
  readonly sheet: string;
  readonly cell: string;
}

/** A stand-in for a gauge on a wire. */
export interface StandIn {
  readonly gaugeId: string;
  readonly faults: GaugeFaults;
  readonly count: number;
  readonly last: string | null;
  readonly at: GaugeSpot | null;
}

/** What a gauge on a wire sends, to every open page of the shop. */
export type GaugeMessage =
  | { readonly type: 'reading'; readonly gauge: string; readonly text: string; readonly unit: string; readonly at: GaugeSpot | 'master' }
  | { readonly type: 'silent'; readonly gauge: string; readonly at: GaugeSpot | 'master' }
  | { readonly type: 'changed'; readonly gauge: string }
  | { readonly type: 'refused'; readonly sentence: string };

/** What a page says to the gauges: the hand has put one on a place, or pressed its data key there. */
export type GaugeCommand =
  | { readonly type: 'at'; readonly gauge: string; readonly at: GaugeSpot | null }
  | { readonly type: 'press'; readonly gauge: string; readonly at: GaugeSpot | 'master' | null };

/** Reading of all pictures of a case on the server, as it stands. */
export interface ReadingBatch {
  /** ISO time; null when none was ever started. */
  readonly started: string | null;
  readonly by: string | null;
  readonly running: boolean;
  readonly pictures: ReadonlyArray<{
    readonly station: string;
    readonly sha256: string;
    readonly status: ReadingStatus;
    /** Why it was refused. */
    readonly note: string;
  }>;
}
export type ReadingStatus = 'waiting' | 'reading' | 'read' | 'refused' | 'stopped';

/** A version of the shop's grade book. */
export interface GradeBookVersion {
  readonly book: GradeBook;
  readonly note: string;
  readonly by: string;
  readonly time: string;
}

/** A change of the shop's policy where builders disagree. */
export interface PolicyChange {
  readonly question: string;
  readonly position: string;
  readonly reason: string;
  readonly by: string;
  readonly time: string;
}

/** A part as it should be, photographed and measured once, to hold others against. */
export interface ReferencePart {
  readonly id: string;
  readonly name: string;
  readonly part: PartClass;
  readonly note: string;
  readonly sha256: string;
  /** Size of the picture, and where its corners lie in it. */
  readonly width: number;
  readonly height: number;
  readonly corners: ReadonlyArray<readonly [number, number]> | null;
  /** What was measured on it, as text with units. */
  readonly readings: ReadonlyArray<{ readonly what: string; readonly value: string }>;
  readonly by: string;
  readonly time: string;
}

/** Sent over the event stream of a case. */
export interface CaseEvent {
  readonly caseId: string;
  readonly seq: number;
}

export const LIMITS = {
  uploadBytes: 40 * 1024 * 1024,
  clipBytes: 60 * 1024 * 1024,
  bundleBytes: 1024 * 1024 * 1024,
  imagePixels: 100_000_000,
  entriesPerAppend: 500,
  jsonBytes: 4 * 1024 * 1024,
} as const;

/** A link by which somebody outside reads one signed version. The token itself is told once, when it is made. */
export interface ShareLink {
  readonly id: string;
  readonly version: number;
  readonly note: string;
  readonly by: string;
  readonly made: string;
  readonly expires: string;
  readonly revoked: string | null;
  readonly opened: number;
  readonly lastOpened: string | null;
  /** Does the account come with its cover sheet, which names client and engine? */
  readonly cover: boolean;
}

export interface NewShareLink {
  readonly link: ShareLink;
  /** Path on this server, with the token in it. */
  readonly path: string;
}

/** What somebody with a link is told. */
export interface SharedAccount {
  readonly number: string;
  readonly title: string;
  readonly version: number;
  readonly newest: number;
  readonly by: string;
  readonly time: string;
  /** Of the account as signed; with a cover sheet before it the file is another. */
  readonly sha256: string;
  readonly head: string;
  readonly expires: string;
  readonly cover: boolean;
}

export interface Present {
  readonly name: string;
  readonly place: string;
}

/** A version of the shop's prices. */
export interface PriceBookVersion {
  readonly version: number;
  readonly book: PriceBook;
  readonly note: string;
  readonly by: string;
  readonly time: string;
}

export interface ImportAnswer {
  readonly caseId: string;
  readonly number: string;
  readonly outcome: 'new' | 'continued' | 'same';
  readonly entries: number;
  readonly head: string;
}

/** How far a PDF is that is being made: its pictures are drawn, then its pages set. */
export interface PdfProgress {
  readonly stage: 'pictures' | 'pages';
  readonly done: number;
  readonly total: number;
}

/** A day's seal in the list. */
export interface SealLine {
  /** ISO date. */
  readonly day: string;
  readonly cases: number;
  /** Ed25519 public key it is signed with, hex. */
  readonly key: string;
  readonly stamped: boolean;
  /** By the stand-in that ships with the application: it proves nothing. */
  readonly simulated: boolean;
}

/** What the time-stamp of a seal proves. */
export interface StampSaid {
  readonly verdict: StampVerdict;
  readonly sentence: string;
  /** Given by the stand-in that ships with the application: it shows the way and proves nothing. */
  readonly simulated: boolean;
}

/** Public keys of the shop; `earlier` with the signature by which each gave way to the next. */
export interface ShopKeys {
  readonly key: string;
  readonly fingerprint: string;
  readonly made: string;
  readonly earlier: ReadonlyArray<{
    readonly key: string;
    readonly made: string;
    readonly until: string;
    readonly next: string;
    readonly signature: string;
  }>;
}

/** Head of the shop's papers. */
export interface ShopRecord {
  readonly letterhead: Letterhead;
  /** 0: never entered. */
  readonly version: number;
}

/** Client and engine of a case, kept beside the ledger. */
export interface CaseParties {
  readonly parties: Parties;
  /** 0: never entered. */
  readonly version: number;
}
