import { Column, CreateDateColumn, Entity, Index, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';
import type { Gauge } from '@true-ledger/core/units';
import type { PartClass } from '@true-ledger/core/engine';
import type { CaseFacts } from '@true-ledger/core/across';
import type { EngineRecord, LaboratoryFault, LogLine } from '@true-ledger/core/engineLog';
import type { GradeRule } from '@true-ledger/core/damage';
import type { PriceBook } from '@true-ledger/core/workshop';
import type { GaugeFaults, SpecSheet } from '@true-ledger/core/measure';
import type { CaseState } from '@true-ledger/core/ledger';
import type { Letterhead, LetterTemplates, Parties } from '@true-ledger/core/report';
import type { DailyStatement } from '@true-ledger/core/bundle';
import type { GaugeSpot, ReadingStatus, ReferencePart, Role } from '@true-ledger/contract';

@Entity('accounts')
export class AccountRow {
  @PrimaryColumn('uuid') id: string;
  @Column('text') name: string;
  @Index({ unique: true }) @Column('text') signIn: string;
  @Column('text') passwordHash: string;
  @Column('text') role: Role;
  @Column('boolean', { default: true }) active: boolean;
  /** False: a reader who sees only the cases named for him. */
  @Column('boolean', { default: true }) allCases: boolean;
  @CreateDateColumn({ type: 'timestamptz' }) created: Date;
}

@Entity('sessions')
export class SessionRow {
  @PrimaryColumn('uuid') id: string;
  @Index({ unique: true }) @Column('text') tokenHash: string;
  @Column('uuid') accountId: string;
  @Column('text') agent: string;
  @CreateDateColumn({ type: 'timestamptz' }) created: Date;
  @Column('timestamptz') lastSeen: Date;
  @Column('timestamptz') expires: Date;
}

/** A case that a reader with chosen cases may see. */
@Entity('account_cases')
export class AccountCaseRow {
  @PrimaryColumn('uuid') accountId: string;
  @PrimaryColumn('uuid') caseId: string;
}

@Entity('claims')
export class ClaimRow {
  @PrimaryColumn('text') tokenHash: string;
  @Column('timestamptz') expires: Date;
  /** Owner whose password it sets; null: it makes the first owner. */
  @Column('uuid', { nullable: true }) accountId: string | null;
}

@Entity('cases')
export class CaseRow {
  @PrimaryColumn('uuid') id: string;
  @Column('text') number: string;
  @Column('text') title: string;
  @Column('text') reference: string;
  @Column('integer') seq: number;
  @Column('text') head: string;
  /** Folded state as of `stateSeq`; entries after it are folded on when read. */
  @Column('jsonb') state: CaseState;
  @Column('integer') stateSeq: number;
  @Column('jsonb') summary: object;
  /** Entry the summary was computed from; behind `seq` while the next is being computed. */
  @Column('integer', { default: 0 }) summarySeq: number;
  /** What is counted of it across cases; null until its figures were computed. */
  @Column('jsonb', { nullable: true, select: false }) facts: CaseFacts | null;
  @Column('timestamptz') updated: Date;
}

/** An answer somebody gave to a drill. */
@Entity('drill_answers')
export class DrillAnswerRow {
  @PrimaryColumn('uuid') id: string;
  @Index() @Column('uuid') accountId: string;
  @Column('text') card: string;
  @Column('integer') seed: number;
  @Column('text') given: string;
  @Column('boolean') right: boolean;
  @Column('integer') tookMs: number;
  @Column('timestamptz') time: Date;
}

/** Practice engines: the seed is kept here and nowhere else until the truth is opened. */
@Entity('practice_engines')
export class PracticeEngineRow {
  @PrimaryColumn('uuid') caseId: string;
  @Column('integer') n: number;
  @Column('integer') level: number;
  @Column('integer') seed: number;
  @Column('integer') version: number;
  @Column('boolean') sealed: boolean;
  @Column('uuid') accountId: string;
  @Column('text') byName: string;
  @Column('timestamptz') time: Date;
  @Column('timestamptz', { nullable: true }) opened: Date | null;
}

/** Switches of the shop: whether its own frequencies move the priors of new cases. */
@Entity('shop_switches')
export class ShopSwitchRow {
  @PrimaryColumn('text') name: string;
  @Column('boolean') on: boolean;
  @Column('text') byName: string;
  @Column('timestamptz') time: Date;
}

@Entity('entries')
@Index(['caseId', 'seq'], { unique: true })
export class EntryRow {
  @PrimaryColumn('uuid') id: string;
  @Column('uuid') caseId: string;
  @Column('integer') seq: number;
  @Column('text') kind: string;
  @Column('text', { nullable: true }) station: string | null;
  @Column('uuid') authorId: string;
  @Column('text') authorName: string;
  @Column('text') time: string;
  @Column('uuid', { nullable: true }) supersedes: string | null;
  @Column('jsonb', { nullable: true }) body: object | null;
  @Column('text') salt: string;
  @Column('text') bodyHash: string;
  @Column('text') prev: string;
  @Column('text') hash: string;
  /** Shop it was taken in from; null: written here. */
  @Column('text', { nullable: true }) origin: string | null;
}

@Entity('photos')
export class PhotoRow {
  @PrimaryColumn('text') sha256: string;
  @Column('text') mime: string;
  @Column('integer') width: number;
  @Column('integer') height: number;
  @Column('bytea', { select: false }) original: Buffer;
  @Column('bytea', { select: false }) work: Buffer;
  @Column('bytea', { select: false }) thumb: Buffer;
}

/** Which cases may show which picture. */
@Entity('case_photos')
export class CasePhotoRow {
  @PrimaryColumn('uuid') caseId: string;
  @PrimaryColumn('text') sha256: string;
  /** Blurred renditions and the regions they were made with; made again when those are others. */
  @Column('text', { nullable: true, select: false }) sharedKey: string | null;
  @Column('bytea', { nullable: true, select: false }) sharedWork: Buffer | null;
  @Column('bytea', { nullable: true, select: false }) sharedThumb: Buffer | null;
  /** As the account shows it, and what it was drawn with. */
  @Column('text', { nullable: true, select: false }) accountKey: string | null;
  @Column('bytea', { nullable: true, select: false }) accountPicture: Buffer | null;
}

/** A photographed surface laid out on the frame of its place, in the sizes of the bench, and the name of what it was made from; made anew when that is another. */
@Entity('surface_renditions')
export class SurfaceRow {
  @PrimaryColumn('uuid') caseId: string;
  @PrimaryColumn('text') station: string;
  /** With what is blurred for others. */
  @PrimaryColumn('boolean') shared: boolean;
  @Column('text') key: string;
  @Column('bytea', { select: false }) large: Buffer;
  @Column('bytea', { select: false }) middle: Buffer;
  @Column('bytea', { select: false }) small: Buffer;
}

@Entity('clips')
export class ClipRow {
  @PrimaryColumn('text') sha256: string;
  @Column('text') mime: string;
  @Column('bytea', { select: false }) bytes: Buffer;
}

/** Which cases may play which clip. */
@Entity('case_clips')
export class CaseClipRow {
  @PrimaryColumn('uuid') caseId: string;
  @PrimaryColumn('text') sha256: string;
}

@Entity('spec_sheets')
export class SpecSheetRow {
  @PrimaryColumn('text') id: string;
  @PrimaryColumn('integer') version: number;
  @Column('jsonb') body: Omit<SpecSheet, 'id' | 'version' | 'by' | 'time'>;
  @Column('text', { name: 'authorName' }) byName: string;
  @Column('timestamptz') time: Date;
}

@Entity('gauges')
export class GaugeRow {
  @PrimaryColumn('text') id: string;
  @Column('jsonb') gauge: Gauge;
}

/** One check of a gauge against a master, as it was found. */
@Entity('gauge_checks')
export class GaugeCheckRow {
  @PrimaryColumn('uuid') id: string;
  @Index() @Column('text') gaugeId: string;
  @Column('double precision') masterMm: number;
  @Column('double precision') readMm: number;
  @Column('text') note: string;
  @Column('text') byName: string;
  @Column('timestamptz') time: Date;
}

/** A gauge stand-in: what is wrong with it and where it was last put. */
@Entity('stand_ins')
export class StandInRow {
  @PrimaryColumn('text') gaugeId: string;
  @Column('jsonb') faults: GaugeFaults;
  @Column('integer') count: number;
  @Column('text', { nullable: true }) last: string | null;
  @Column('jsonb', { nullable: true }) at: GaugeSpot | null;
}

/** One picture of a batch that is read on the server. */
@Entity('reading_items')
export class ReadingItemRow {
  @PrimaryColumn('uuid') id: string;
  @Index() @Column('uuid') caseId: string;
  @Column('uuid') batch: string;
  @Column('integer') n: number;
  @Column('text') station: string;
  @Column('text') sha256: string;
  @Column('text') status: ReadingStatus;
  @Column('text') note: string;
  @Column('text') byId: string;
  @Column('text') byName: string;
  @Column('timestamptz') made: Date;
  /** Last sign of life of who reads it. */
  @Column('timestamptz', { nullable: true }) taken: Date | null;
}

/** The shop's own grade book, every version. */
@Entity('grade_books')
export class GradeBookRow {
  @PrimaryColumn('integer') version: number;
  @Column('jsonb') rules: readonly GradeRule[];
  @Column('text') note: string;
  @Column('text') byName: string;
  @Column('timestamptz') time: Date;
}

/** A change of the shop's policy where builders disagree. */
@Entity('policy')
export class PolicyRow {
  @PrimaryGeneratedColumn('increment') id: number;
  @Column('text') question: string;
  @Column('text') position: string;
  @Column('text') reason: string;
  @Column('text') byName: string;
  @Column('timestamptz') time: Date;
}

/** A part as it should be. Its picture is the one of a case. */
@Entity('reference_parts')
export class ReferencePartRow {
  @PrimaryColumn('uuid') id: string;
  @Column('text') name: string;
  @Column('text') part: PartClass;
  @Column('text') note: string;
  @Column('text') sha256: string;
  @Column('integer') width: number;
  @Column('integer') height: number;
  @Column('jsonb', { nullable: true }) corners: ReferencePart['corners'];
  @Column('jsonb') readings: ReferencePart['readings'];
  @Column('text') byName: string;
  @Column('timestamptz') time: Date;
}

/** The PDF of a signed version of an account. */
@Entity('signed_accounts')
export class SignedAccountRow {
  @PrimaryColumn('uuid') caseId: string;
  @PrimaryColumn('integer') version: number;
  @Column('text') sha256: string;
  @Column('bytea', { select: false }) pdf: Buffer;
}

/** A link by which somebody outside reads one signed version. */
@Entity('share_links')
export class ShareLinkRow {
  @PrimaryColumn('uuid') id: string;
  @Index({ unique: true }) @Column('text', { select: false }) tokenHash: string;
  @Index() @Column('uuid') caseId: string;
  @Column('integer') version: number;
  @Column('text') note: string;
  @Column('text') byName: string;
  @Column('timestamptz') made: Date;
  @Column('timestamptz') expires: Date;
  @Column('timestamptz', { nullable: true }) revoked: Date | null;
  /** With the cover sheet, which names client and engine. */
  @Column('boolean') cover: boolean;
  @Column('integer') opened: number;
  @Column('timestamptz', { nullable: true }) lastOpened: Date | null;
}

/** A page somebody has open on a case. */
@Entity('presence')
class PresenceRow {
  @PrimaryColumn('uuid') page: string;
  @Index() @Column('uuid') caseId: string;
  @Column('uuid') accountId: string;
  @Column('text') name: string;
  @Column('text') place: string;
  @Column('timestamptz') seen: Date;
}

/** The shop's prices, every version. */
@Entity('price_books')
export class PriceBookRow {
  @PrimaryColumn('integer') version: number;
  @Column('jsonb') book: PriceBook;
  @Column('text') note: string;
  @Column('text') byName: string;
  @Column('timestamptz') time: Date;
}

/** Where every ledger stood on a day, under the shop's key. */
@Entity('daily_seals')
export class DailySealRow {
  @PrimaryColumn('text') day: string;
  @Column('jsonb') statement: DailyStatement;
  @Column('text') signature: string;
  /** Answer of a time-stamp authority (RFC 3161 `TimeStampResp`, DER) for the seal's text. */
  @Column('bytea', { nullable: true }) stamp: Buffer | null;
}

/** Head of the shop's papers and its own letters; one row. */
@Entity('shop_record')
export class ShopRow {
  @PrimaryColumn('smallint') id: number;
  @Column('jsonb') letterhead: Letterhead;
  @Column('jsonb') letters: Partial<LetterTemplates>;
  @Column('integer') version: number;
  @Column('text') byName: string;
  @Column('timestamptz') time: Date;
}

/** Client and engine of a case: beside the ledger, so that they are in no bundle and can be changed or emptied. */
@Entity('case_parties')
export class PartiesRow {
  @PrimaryColumn('uuid') caseId: string;
  @Column('jsonb') parties: Parties;
  @Column('integer') version: number;
  @Column('text') byName: string;
  @Column('timestamptz') time: Date;
}

/** An engine as a record of its own. */
@Entity('engines')
export class EngineRow {
  @PrimaryColumn('uuid') id: string;
  @Column('jsonb') record: EngineRecord;
  @Column('integer') version: number;
  /** The record it turned out to be the same as. */
  @Column('uuid', { nullable: true }) mergedInto: string | null;
  @Column('text') byName: string;
  @Column('timestamptz') time: Date;
}

/** A line of an engine's log; never changed. */
@Entity('engine_lines')
export class EngineLineRow {
  @PrimaryColumn('uuid') id: string;
  @Index() @Column('uuid') engineId: string;
  @Column('integer', { generated: 'increment' }) n: number;
  @Column('text') kind: LogLine['kind'];
  @Column('text') day: string;
  @Column('double precision', { nullable: true }) counter: number | null;
  @Column('uuid', { nullable: true }) supersedes: string | null;
  @Column('jsonb') body: object;
  @Column('text') byName: string;
  @Column('timestamptz') time: Date;
}

/** Which engine a case is of; the last that was said stands. */
@Entity('case_engines')
export class CaseEngineRow {
  @PrimaryGeneratedColumn('increment') id: number;
  @Index() @Column('uuid') caseId: string;
  @Column('uuid', { nullable: true }) engineId: string | null;
  @Column('text') byName: string;
  @Column('timestamptz') time: Date;
}

/** A sample at the stand-in of the laboratory. */
@Entity('laboratory_orders')
export class LaboratoryOrderRow {
  @PrimaryColumn('uuid') id: string;
  @Column('uuid') engineId: string;
  @Column('text') reference: string;
  @Column('text') fault: LaboratoryFault;
  @Column('timestamptz') due: Date;
  @Column('timestamptz', { nullable: true }) reported: Date | null;
}

export const ENTITIES = [
  DrillAnswerRow,
  PracticeEngineRow,
  ShopSwitchRow,
  EngineRow,
  EngineLineRow,
  CaseEngineRow,
  LaboratoryOrderRow,
  ShopRow,
  PartiesRow,
  DailySealRow,
  SignedAccountRow,
  ShareLinkRow,
  PresenceRow,
  PriceBookRow,
  ReadingItemRow,
  GradeBookRow,
  PolicyRow,
  ReferencePartRow,
  AccountRow,
  AccountCaseRow,
  SessionRow,
  ClaimRow,
  CaseRow,
  EntryRow,
  PhotoRow,
  CasePhotoRow,
  SurfaceRow,
  ClipRow,
  CaseClipRow,
  SpecSheetRow,
  GaugeRow,
  GaugeCheckRow,
  StandInRow,
];
