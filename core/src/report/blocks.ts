import type { WearMap } from '../damage/wearMap.js';
import { WEAR_CLASS_INFO, WEAR_CLASSES } from '../damage/classes.js';
import type { SectionId } from '../entries/account.js';
import type { SurfaceFrame } from '../engine/stations.js';
import type { Letterhead } from './parties.js';
import type { Shape } from '../diagnosis/sequence/drawing.js';

/** A generated sentence that was put in other words. */
interface EditedSentence {
  readonly generated: string;
  /** What the words say that the figures do not; empty when they agree. */
  readonly flags: readonly string[];
}

/** A piece of the account, drawn alike on the page and in the PDF. */
export type ReportBlock =
  | {
      readonly kind: 'text';
      readonly text: string;
      readonly strong?: boolean;
      /** What the sentence tells, for editing it; absent where it is somebody's own words or a heading. */
      readonly key?: string;
      readonly edited?: EditedSentence;
    }
  | { readonly kind: 'list'; readonly items: readonly string[] }
  | {
      readonly kind: 'table';
      readonly head: readonly string[];
      readonly rows: ReadonlyArray<readonly string[]>;
      readonly figures?: readonly number[];
    }
  | {
      readonly kind: 'photo';
      readonly number: number;
      readonly sha256: string;
      readonly station: string;
      readonly caption: string;
      readonly standIn: boolean;
      /** Entry of the corners and marks it is drawn with, so that an old drawing is never shown for a new one. */
      readonly stamp: string;
      /** Beside the words it goes with, not looked at for itself. */
      readonly small?: true;
    }
  | { readonly kind: 'wear'; readonly station: string; readonly map: WearMap; readonly frame: SurfaceFrame; readonly caption: string }
  | {
      readonly kind: 'drawing';
      readonly shapes: readonly Shape[];
      readonly width: number;
      readonly height: number;
      readonly caption: string;
    }
  | { readonly kind: 'plan' };

/** A section of the account. */
export interface ReportSection {
  readonly id: SectionId | 'assembly';
  readonly heading: string;
  readonly blocks: readonly ReportBlock[];
}

/** The first page of an account: the answer by itself. */
export interface FirstPage {
  /** What failed, one sentence. */
  readonly failed: string;
  /** Why: the builder's conclusion, else how the differential ends. */
  readonly why: string;
  /** Null while nothing was found that asks for a cause. */
  readonly sure: {
    readonly cause: string;
    readonly place: string | null;
    readonly probability: number;
    readonly low: number;
    readonly high: number;
    readonly words: string;
  } | null;
  readonly restsOn: readonly string[];
  /** The strongest other cause; null for none. */
  readonly rival: string | null;
  /** The picture that shows it; null where the account has none. */
  readonly picture: Extract<ReportBlock, { kind: 'photo' }> | null;
  readonly bench: Extract<ReportBlock, { kind: 'drawing' }>;
  readonly todo: readonly string[];
  readonly notSeen: readonly string[];
}

/** One signed version of the account. */
export interface SignedVersion {
  readonly version: number;
  readonly by: string;
  readonly time: string;
  readonly reason: string;
  /** Sections that read differently from the version before; empty for the first. */
  readonly changed: readonly string[];
}

/** The report as data; screen, print and PDF draw the same sections. */
export interface ReportModel {
  /** A sheet is handed on as it is and never signed; a cover goes before an account. */
  readonly kind: 'account' | 'sheet' | 'cover';
  readonly heading: string;
  readonly title: string;
  readonly number: string;
  readonly reference: string;
  readonly ledgerHead: string;
  readonly entries: number;
  /** Head of the shop's paper; null where none was entered. */
  readonly letterhead: Letterhead | null;
  /** Fingerprint of the key the shop signs with; absent where it is not known. */
  readonly key?: string;
  /** Null for sheets and covers. */
  readonly first: FirstPage | null;
  readonly sections: readonly ReportSection[];
  /** Versions signed before, oldest first. */
  readonly signed: readonly SignedVersion[];
  /** Of a draft: sections that read differently from the newest signed version; absent where none is signed. */
  readonly sinceSigned?: readonly string[];
  /** The version this one is being signed as; null for a draft. */
  readonly signing: SignedVersion | null;
  /** Every sentence that says what the figures do not. */
  readonly flags: ReadonlyArray<{ readonly section: ReportSection['id']; readonly text: string; readonly flags: readonly string[] }>;
}

/** Dominant class colour of every cell; null where the cell was not seen. Row 0 is v = 0. */
export function cellColours(map: WearMap): Array<string | null> {
  return Array.from(map.seen, (seen, cell) => {
    if (seen < 0.25) return null;
    let best: (typeof WEAR_CLASSES)[number] = 'sound';
    let most = 0;
    for (const c of WEAR_CLASSES) {
      // Damage shows in small as soon as it holds a quarter of the cell, or the pattern across an engine would be lost.
      const share = (map.shares[c][cell] as number) * (c === 'sound' ? 0.33 : 1);
      if (share > most) {
        most = share;
        best = c;
      }
    }
    return WEAR_CLASS_INFO[best].colour;
  });
}
