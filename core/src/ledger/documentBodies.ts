import Joi from 'joi';
import { SECTION_IDS, type SectionId } from '../report/blocks.js';
import { TEMPLATE_IDS, type Detail, type TemplateId } from '../report/templates.js';
import { id, text } from './schemaParts.js';

/** How the account is laid out, worded and signed, and what was struck from the ledger. */
export interface DocumentBodies {
  'account-laid-out': {
    template: TemplateId;
    order: readonly SectionId[];
    left: readonly SectionId[];
    detail: Detail;
    /** Pictures left out, by SHA-256; the others come in the order given, those not named after them. */
    picturesLeft: readonly string[];
    pictureOrder: readonly string[];
    marks: boolean;
    insets: boolean;
  };
  /** A generated sentence in other words; an empty text: as generated. */
  'sentence-set': { sentence: string; text: string; generated: string };
  'account-signed': {
    version: number;
    reason: string;
    template: TemplateId;
    sha256: string;
    bytes: number;
    /** Ledger it was made from. */
    head: string;
    entries: number;
    /** SHA-256 of every section's canonical JSON: what changed between versions. */
    sections: Readonly<Partial<Record<SectionId, string>>>;
    /** Sentences signed although they say what the figures do not. */
    flags: number;
  };
  redacted: { target: string; kind: string; slot: string; station: string | null; reason: string };
}

const anySha = Joi.string().pattern(/^[0-9a-f]{64}$/);
const sha = anySha.required();
const section = Joi.string().valid(...SECTION_IDS);
const template = Joi.string()
  .valid(...TEMPLATE_IDS)
  .required();
const shas = Joi.array().items(anySha).max(2000).unique().required();

export const DOCUMENT_SCHEMAS: Readonly<Record<keyof DocumentBodies, Joi.ObjectSchema>> = {
  'account-laid-out': Joi.object({
    template,
    order: Joi.array().items(section).unique().max(SECTION_IDS.length).required(),
    left: Joi.array().items(section).unique().max(SECTION_IDS.length).required(),
    detail: Joi.string().valid('full', 'short').required(),
    picturesLeft: shas,
    pictureOrder: shas,
    marks: Joi.boolean().required(),
    insets: Joi.boolean().required(),
  }),
  'sentence-set': Joi.object({
    sentence: Joi.string()
      .pattern(/^[A-Za-z0-9._:@>-]{1,160}$/)
      .required(),
    text: text(4000).required(),
    generated: text(4000).required(),
  }),
  'account-signed': Joi.object({
    version: Joi.number().integer().min(1).max(999).required(),
    reason: text(2000).required(),
    template,
    sha256: sha,
    bytes: Joi.number().integer().positive().required(),
    head: sha,
    entries: Joi.number().integer().min(1).required(),
    sections: Joi.object().pattern(section, sha).required(),
    flags: Joi.number().integer().min(0).required(),
  }),
  redacted: Joi.object({
    target: id.required(),
    kind: text(40).required(),
    slot: text(300).required(),
    station: text(80).allow(null).required(),
    reason: text(500).invalid('').min(3).required(),
  }),
};

export const DOCUMENT_SLOTS: { readonly [K in keyof DocumentBodies]: (body: DocumentBodies[K]) => string } = {
  'account-laid-out': () => 'account-layout',
  'sentence-set': (b) => `sentence:${b.sentence}`,
  'account-signed': (b) => `signed:${b.version}`,
  redacted: (b) => `redacted:${b.target}`,
};

/** Entries that carry the case or bind a signature, and so are never struck. */
export const NEVER_REDACTED: ReadonlySet<string> = new Set(['case-opened', 'layout-set', 'account-signed', 'redacted', 'case-released']);
/** Entries only the server writes, each beside something it stores. */
export const SERVER_KINDS: ReadonlySet<string> = new Set(['account-signed', 'redacted']);
