import { PROBLEMS, type Problem, type ProblemCode, type Result } from '@true-ledger/core/kit';
import type { SlotConflict } from '@true-ledger/core/ledger';

interface ErrorFact {
  /** HTTP status it is answered with. */
  readonly status: number;
  /** What it means, in one sentence; the answer's own sentence says what happened, what is safe and what to do. */
  readonly means: string;
}

const of = (status: number, means: string): ErrorFact => ({ status, means });

/** Refusals of the server, beside those of core. */
const SERVER_ERRORS = {
  'account-exists': of(400, 'The sign-in is taken.'),
  'account-failed': of(400, 'The account could not be set as a PDF.'),
  'account-flags': of(400, 'Sentences of the account say what the figures do not, and that was not accepted.'),
  'account-moved': of(409, 'Somebody wrote into the case since the page was looked at.'),
  'amendment-reason': of(400, 'A further version of an account says what it amends.'),
  'batch-running': of(409, 'The pictures of the case are being read already.'),
  'book-conflict': of(409, 'Somebody kept another version meanwhile.'),
  'bundle-broken': of(400, 'The reader of bundles failed on this one.'),
  'bundle-oversteps': of(403, 'The bundle belongs to a case that is not open to who brings it.'),
  'bundle-parted': of(409, 'The bundle and the case here went different ways.'),
  busy: of(503, 'The server has too much to do at once.'),
  claim: of(400, 'The shop has an owner already, or the key to claim it is another.'),
  'cut-off': of(400, 'The file did not arrive whole.'),
  'damaged-on-the-way': of(400, 'The bytes that arrived are not those that were sent.'),
  'disk-full': of(507, 'The disk of the server is full.'),
  'entry-conflict': of(409, 'The field was written meanwhile; `conflict` holds what stands there.'),
  'entry-id': of(400, 'The id was used for another entry.'),
  'drill-unknown': of(400, 'There is no such drill, or it offers no such answer.'),
  'practice-none': of(404, 'The case is no practice engine of this shop, or there is no such look.'),
  'practice-not-yet': of(409, 'The look is not laid bare, or gone for good.'),
  'practice-opened': of(409, 'The truth of the practice engine is open already.'),
  'engine-mark': of(400, 'Another engine has the mark.'),
  'engine-merge': of(400, 'The two records cannot be one engine.'),
  'engine-line': of(400, 'The line cannot stand where it should.'),
  'file-too-large': of(413, 'The file is larger than is taken.'),
  forbidden: of(403, 'The role, or the cases open to it, do not allow it.'),
  'gauge-no-master': of(400, 'The gauge has no master to be set on.'),
  'gauge-nowhere': of(400, 'The gauge lies at no place that is read.'),
  'gauge-silent': of(400, 'The gauge sends nothing.'),
  'image-damaged': of(400, 'The picture cannot be decoded.'),
  'image-too-large': of(413, 'The picture has more points than are taken.'),
  intake: of(400, 'The file could not be looked into.'),
  'last-owner': of(400, 'A shop keeps one owner at least.'),
  'link-dead': of(404, 'The link opens nothing, or nothing any more.'),
  'never-redacted': of(400, 'What carries the case or binds a signature is not struck.'),
  'no-file': of(400, 'No file came.'),
  'no-layout': of(400, 'The case has no engine yet.'),
  'no-places': of(400, 'None of the places named exists on this engine.'),
  'not-a-clip': of(400, 'The file is no clip that is taken.'),
  'not-an-image': of(400, 'The file is no picture that is taken.'),
  'not-computed': of(400, 'The computation took longer or more memory than it is given.'),
  'not-found': of(404, 'There is no such thing, or it is not open to who asks.'),
  'nothing-to-read': of(400, 'The case has no picture to read.'),
  origin: of(403, 'The request came from another page.'),
  'password-weak': of(400, 'The password is too easily guessed.'),
  'password-wrong': of(400, 'The password is not the one in use.'),
  picture: of(400, 'The picture could not be read.'),
  'policy-position': of(400, 'The question has no such position.'),
  'reading-stopped': of(400, 'The reading was stopped.'),
  'surface-stopped': of(400, 'The surface was not laid out.'),
  redacted: of(400, 'The entry was struck already.'),
  request: of(400, 'The request does not fit its schema.'),
  'request-encoding': of(415, 'The request is written in an encoding that is not read.'),
  'sheet-conflict': of(409, 'Somebody kept another version of the spec sheet meanwhile.'),
  'sheet-limit': of(400, 'A limit of the spec sheet is not known, or upside down.'),
  'sign-in-failed': of(401, 'Name and password do not belong together.'),
  'signed-elsewhere': of(400, 'The version was signed in another shop.'),
  'signed-out': of(401, 'Nobody is signed in.'),
  'stamp-failed': of(400, 'The time-stamp does not prove the seal.'),
  'store-unavailable': of(503, 'The database cannot be reached.'),
  'taken-meanwhile': of(409, 'Somebody recorded the same thing in the same moment.'),
  'too-many-attempts': of(429, 'Too many attempts to sign in.'),
  unexpected: of(500, 'Something failed that should not; the log has it.'),
  'witness-away': of(503, 'The time-stamping authority does not answer.'),
} as const;

/** What a page says of itself, in the same shape; never sent by the server. */
type PageErrorCode =
  | 'bytes-gone'
  | 'no-canvas'
  | 'not-a-picture'
  | 'stopped'
  | 'tag-contradicts'
  | 'tag-foreign'
  | 'tag-no-place'
  | 'tag-none'
  | 'tag-other-case'
  | 'trace'
  | 'unreachable'
  | 'worker';

export type ErrorCode = ProblemCode | keyof typeof SERVER_ERRORS | PageErrorCode;

/** Every refusal over HTTP: core's own are answered with 400. */
export const ERRORS: Readonly<Record<string, ErrorFact>> = {
  ...Object.fromEntries(Object.entries(PROBLEMS).map(([code, means]) => [code, of(400, means)])),
  ...SERVER_ERRORS,
};

/** The one shape of every refusal over HTTP. */
export interface ApiError {
  readonly code: ErrorCode;
  /** What happened, what is safe, what to do. */
  readonly sentence: string;
  readonly field?: string;
  /** Present with `entry-conflict`: what the field holds now. */
  readonly conflict?: SlotConflict;
}

/** A refusal of server or page, and a result that may end in one. */
export type Refusal = Problem<ErrorCode>;
export type Outcome<T> = Result<T, ErrorCode>;
