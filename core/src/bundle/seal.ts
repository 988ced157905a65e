import { bytesToHex, hexToBytes, utf8ToBytes } from '@noble/hashes/utils';
import Joi from 'joi';
import nacl from 'tweetnacl';
import { canonicalJson, sha256Hex } from '../kit/hash.js';

const SEAL_FORMAT = 'true-ledger/seal';

/** What a shop says with its key about a bundle: which files it holds, to the byte, and where its ledger stood. */
export interface SealClaims {
  readonly format: typeof SEAL_FORMAT;
  readonly version: 1;
  readonly caseId: string;
  /** Number of entries and hash of the last. */
  readonly entries: number;
  readonly head: string;
  readonly made: string;
  readonly shop: {
    readonly name: string;
    /** Ed25519 public key (RFC 8032), 32 bytes as hex. */
    readonly key: string;
  };
  /** SHA-256 of every file of the bundle but the seal itself, by name. */
  readonly files: Readonly<Record<string, string>>;
  /** Stretches of the ledger that were taken in from elsewhere, as the shop told of them. */
  readonly origins: ReadonlyArray<{ readonly from: number; readonly to: number; readonly shop: string }>;
}

/** A signed statement over a whole bundle, as `seal.json` holds it: what is claimed, the public key and the Ed25519 signature (RFC 8032), both hex. */
export interface Seal extends SealClaims {
  /** Ed25519 signature over the RFC 8785 form of everything else, hex. */
  readonly signature: string;
}

const hex = (bytes: number): Joi.StringSchema => Joi.string().pattern(new RegExp(`^[0-9a-f]{${bytes * 2}}$`));
const words = (max: number): Joi.StringSchema =>
  Joi.string()
    .allow('')
    .max(max)
    .pattern(/[\p{Cc}\p{Cs}]/u, { invert: true });
const sealSchema = Joi.object({
  format: Joi.string().valid(SEAL_FORMAT).required(),
  version: Joi.number().valid(1).required(),
  caseId: Joi.string().max(80).required(),
  entries: Joi.number().integer().min(0).required(),
  head: hex(32).required(),
  made: Joi.string().max(40).required(),
  shop: Joi.object({ name: words(80).required(), key: hex(32).required() }).required(),
  files: Joi.object().pattern(Joi.string().max(120), hex(32)).required(),
  origins: Joi.array()
    .max(1000)
    .items(Joi.object({ from: Joi.number().integer().required(), to: Joi.number().integer().required(), shop: words(160).required() }))
    .required(),
  signature: hex(64).required(),
});

/** The key pair of a shop, both hex: seed and public key of Ed25519 (RFC 8032). The secret never leaves the server. */
export interface ShopKey {
  /** Ed25519 seed (RFC 8032's private key), 32 bytes as hex; never leaves the shop. */
  readonly secret: string;
  readonly key: string;
}

/** A new key of a shop. */
export function makeShopKey(): ShopKey {
  const seed = nacl.randomBytes(32);
  return { secret: bytesToHex(seed), key: bytesToHex(nacl.sign.keyPair.fromSeed(seed).publicKey) };
}

/** How a key is read out and compared by people: the first 16 hex digits of its SHA-256 in fours. */
export function keyFingerprint(key: string): string {
  return sha256Hex(hexToBytes(key)).slice(0, 16).toUpperCase().match(/..../g)!.join(' ');
}

/** Signs a statement with a shop's key: Ed25519 over its RFC 8785 form. `purpose` keeps a signature of one kind from passing as another. */
export function signStatement(purpose: string, statement: unknown, secret: string): string {
  const { secretKey } = nacl.sign.keyPair.fromSeed(hexToBytes(secret));
  return bytesToHex(nacl.sign.detached(utf8ToBytes(`${purpose}\n${canonicalJson(statement)}`), secretKey));
}

/** Does the signature of a statement hold? False for anything malformed. */
export function statementHolds(purpose: string, statement: unknown, signature: string, key: string): boolean {
  try {
    return nacl.sign.detached.verify(utf8ToBytes(`${purpose}\n${canonicalJson(statement)}`), hexToBytes(signature), hexToBytes(key));
  } catch {
    return false;
  }
}

/** Signs the claims with the secret of a shop (hex). The same claims and secret always give the same seal. */
export function sealBundle(claims: SealClaims, secret: string): Seal {
  return { ...claims, signature: signStatement(SEAL_FORMAT, claims, secret) };
}

/** What a seal is worth: absent, holding for a named key, or broken with the reason. */
export type SealVerdict =
  | { readonly state: 'none' }
  | { readonly state: 'broken'; readonly reason: string }
  | { readonly state: 'holds'; readonly shop: string; readonly key: string; readonly fingerprint: string; readonly made: string };

/** Checks a seal (the text of `seal.json`, null when there is none) against the files that are there and the chain. */
export function sealVerdict(
  text: string | null,
  chain: { readonly caseId: string; readonly entries: number; readonly head: string },
  names: readonly string[],
  sha256: (name: string) => string | null,
): SealVerdict {
  if (text === null) return { state: 'none' };
  const broken = (reason: string): SealVerdict => ({ state: 'broken', reason });
  let seal: Seal;
  try {
    const { error, value } = sealSchema.validate(JSON.parse(text), { convert: false }) as { error?: Error; value: Seal };
    if (error) return broken('its seal has another shape');
    seal = value;
  } catch {
    return broken('its seal is not readable');
  }
  const { signature, ...claims } = seal;
  if (!statementHolds(SEAL_FORMAT, claims, signature, seal.shop.key)) return broken('its seal is not signed by the key it names');
  if (seal.caseId !== chain.caseId || seal.entries !== chain.entries || seal.head !== chain.head)
    return broken(`its seal is for ${seal.entries} entries ending in ${seal.head.slice(0, 12)}…, not for this ledger`);
  const held = names.filter((name) => name !== 'seal.json');
  const unsealed = held.find((name) => !Object.hasOwn(seal.files, name));
  if (unsealed) return broken(`"${unsealed}" is not under its seal`);
  const other = Object.keys(seal.files).find((name) => sha256(name) !== seal.files[name]);
  if (other) return broken(`"${other}" is missing or not the file that was sealed`);
  return { state: 'holds', shop: seal.shop.name, key: seal.shop.key, fingerprint: keyFingerprint(seal.shop.key), made: seal.made };
}
