import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils';
import canonicalize from 'canonicalize';

type Sha256 = (data: string | Uint8Array) => string;

let digest: Sha256 = (data) => bytesToHex(sha256(typeof data === 'string' ? utf8ToBytes(data) : data));

/**
 * Gives core the SHA-256 of the platform it runs on, for all that is hashed from now on; without it one in script is used, which is the same and slower.
 * Text is hashed as UTF-8, the answer is lower-case hex.
 */
export function hashWith(platform: Sha256): void {
  digest = platform;
}

/** SHA-256 of text (as UTF-8) or bytes, lower-case hex. */
export function sha256Hex(data: string | Uint8Array): string {
  return digest(data);
}

/** RFC 8785 canonical JSON. Throws a TypeError for what has none, such as undefined. */
export function canonicalJson(value: unknown): string {
  const text = canonicalize(value);
  if (text === undefined) throw new TypeError('value has no canonical JSON form');
  return text;
}
