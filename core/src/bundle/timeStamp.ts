import * as asn1js from 'asn1js';
import {
  AlgorithmIdentifier,
  Certificate,
  CertificateChainValidationEngine,
  type ContentInfo,
  type ExtKeyUsage,
  getCrypto,
  MessageImprint,
  SignedData,
  TimeStampReq,
  TimeStampResp,
  TSTInfo,
} from 'pkijs';
import { bytesToHex } from '@noble/hashes/utils';
import { sha1 } from '@noble/hashes/legacy';
import { sha256 } from '@noble/hashes/sha2';

/** Longest reply of an authority that is read, bytes: with a long chain of certificates some ten thousand. */
export const STAMP_LIMIT = 65_536;
/** Object identifiers of RFC 3161, RFC 5035 (signing certificate) and FIPS 180-4 (SHA-256). */
export const STAMP_OIDS = {
  sha256: '2.16.840.1.101.3.4.2.1',
  signedData: '1.2.840.113549.1.7.2',
  info: '1.2.840.113549.1.9.16.1.4',
  purpose: '1.3.6.1.5.5.7.3.8',
  extKeyUsage: '2.5.29.37',
  signingCertificate: '1.2.840.113549.1.9.16.2.12',
  signingCertificateV2: '1.2.840.113549.1.9.16.2.47',
} as const;

/** What a time-stamp proves of some bytes. Times are ISO; `authority` is the name in the certificate that signed. */
export type StampVerdict =
  | { readonly state: 'missing' }
  | { readonly state: 'unreadable'; readonly reason: string }
  /** The authority answered that it gives none. */
  | { readonly state: 'refused'; readonly reason: string }
  /** It stands for other bytes, or its signature does not hold. */
  | { readonly state: 'wrong'; readonly reason: string }
  /** A stamp, or an answer, that was given for something else before. */
  | { readonly state: 'reused'; readonly reason: string }
  /** The certificate was not, or is no longer, in its time. */
  | { readonly state: 'expired'; readonly at: string; readonly authority: string; readonly reason: string }
  | { readonly state: 'unknown-authority'; readonly at: string; readonly authority: string }
  | { readonly state: 'holds'; readonly at: string; readonly authority: string; readonly serial: string };

/** What a stamp is held against: the certificates that are trusted, the question that was asked, the time, and other statements it may have been given for. */
export interface StampCheck {
  /** Certificates of authorities that are trusted, DER. */
  readonly trusted: readonly Uint8Array[];
  /** Nonce of the question this answers, when it is just being answered. */
  readonly nonce?: Uint8Array;
  /** Other things that were stamped, to name one whose stamp this is. */
  readonly others?: ReadonlyArray<{ readonly name: string; readonly bytes: Uint8Array }>;
  readonly now?: Date;
}

const buffer = (bytes: Uint8Array): ArrayBuffer => Uint8Array.from(bytes).buffer;
const same = (a: Uint8Array, b: Uint8Array): boolean => a.length === b.length && a.every((byte, i) => byte === b[i]);
const view = (block: { valueBlock: { valueHexView: Uint8Array } }): Uint8Array => block.valueBlock.valueHexView;
/** A nonce as an integer: the 1 before it keeps it positive, and whole where it begins with zeros. */
const integer = (bytes: Uint8Array): asn1js.Integer => new asn1js.Integer({ valueHex: buffer(Uint8Array.of(0x01, ...bytes)) });

/** The question to an authority for these bytes (RFC 3161, 2.4.1): their SHA-256 and a nonce; its certificate is asked for. DER. */
export function stampQuery(bytes: Uint8Array, nonce: Uint8Array): Uint8Array {
  const query = new TimeStampReq({
    version: 1,
    messageImprint: new MessageImprint({
      hashAlgorithm: new AlgorithmIdentifier({ algorithmId: STAMP_OIDS.sha256, algorithmParams: new asn1js.Null() }),
      hashedMessage: new asn1js.OctetString({ valueHex: buffer(sha256(bytes)) }),
    }),
    nonce: integer(nonce),
    certReq: true,
  });
  return new Uint8Array(query.toSchema().toBER());
}

/** Certificates in a PEM text, DER. */
export function certificatesOf(pem: string): Uint8Array[] {
  return [...pem.matchAll(/-----BEGIN CERTIFICATE-----([A-Za-z0-9+/=\s]+)-----END CERTIFICATE-----/g)].map(([, body = '']) =>
    Uint8Array.from(atob(body.replace(/\s/g, '')), (c) => c.charCodeAt(0)),
  );
}

function nameOf(certificate: Certificate): string {
  const common = certificate.subject.typesAndValues.find((t) => t.type === '2.5.4.3') ?? certificate.subject.typesAndValues[0];
  return String(common?.value.valueBlock.value ?? 'an authority without a name').replace(/\p{C}/gu, '');
}

/** Does the signer name, in what it signed, the certificate by which it is read (RFC 5816)? Without that any certificate of the same key would do. */
function namesItsCertificate(signed: SignedData, certificate: Certificate): boolean {
  const der = new Uint8Array(certificate.toSchema().toBER());
  for (const [type, hash] of [
    [STAMP_OIDS.signingCertificateV2, sha256(der)],
    [STAMP_OIDS.signingCertificate, sha1(der)],
  ] as const) {
    const attribute = signed.signerInfos[0]?.signedAttrs?.attributes.find((a) => a.type === type);
    if (!attribute) continue;
    // SigningCertificate: a sequence of sequences of identifiers, each with the hash first, after its algorithm when that is not the usual one.
    const first = (attribute.values[0] as asn1js.Sequence | undefined)?.valueBlock.value[0] as asn1js.Sequence | undefined;
    const id = first?.valueBlock.value[0] as asn1js.Sequence | undefined;
    const held = id?.valueBlock.value.find((v) => v instanceof asn1js.OctetString);
    return held instanceof asn1js.OctetString && same(view(held), hash);
  }
  return false;
}

/**
 * Checks an authority's answer (RFC 3161 `TimeStampResp`, DER; null: there is none) for some bytes: that it stands for them, that its signature holds, that the
 * certificate is one for time-stamps, was in its time when it signed and is now, and comes from an authority that is trusted. Never throws.
 */
export async function stampVerdict(reply: Uint8Array | null, bytes: Uint8Array, check: StampCheck): Promise<StampVerdict> {
  if (!reply) return { state: 'missing' };
  if (reply.length > STAMP_LIMIT) return { state: 'unreadable', reason: 'it is longer than any stamp is' };
  try {
    return await judged(reply, bytes, check);
  } catch {
    return { state: 'unreadable', reason: 'it is not built as an answer by RFC 3161 is' };
  }
}

async function judged(reply: Uint8Array, bytes: Uint8Array, check: StampCheck): Promise<StampVerdict> {
  const answer = TimeStampResp.fromBER(buffer(reply));
  if (answer.status.status > 1 || !answer.timeStampToken)
    return { state: 'refused', reason: `the authority answered with status ${answer.status.status}` };
  return tokenVerdict(answer.timeStampToken, bytes, check);
}

async function tokenVerdict(token: ContentInfo, bytes: Uint8Array, check: StampCheck): Promise<StampVerdict> {
  const wrong = (reason: string): StampVerdict => ({ state: 'wrong', reason });
  const signed = new SignedData({ schema: token.content as asn1js.Sequence });
  const content = signed.encapContentInfo.eContent;
  if (token.contentType !== STAMP_OIDS.signedData || signed.encapContentInfo.eContentType !== STAMP_OIDS.info || !content)
    return wrong('what is signed in it is no time');
  const info = TSTInfo.fromBER(content.getValue());
  const imprint = view(info.messageImprint.hashedMessage);
  if (info.messageImprint.hashAlgorithm.algorithmId !== STAMP_OIDS.sha256) return wrong('it rests on another hash than SHA-256');
  if (!same(imprint, sha256(bytes))) {
    const other = check.others?.find((o) => same(imprint, sha256(o.bytes)));
    return other ? { state: 'reused', reason: `it was given for ${other.name}` } : wrong('it stands for other words than these');
  }
  if (check.nonce && !(info.nonce && same(view(info.nonce), view(integer(check.nonce)))))
    return { state: 'reused', reason: 'it answers an earlier question, not this one' };
  const { signatureVerified, signerCertificate } = await signed
    .verify({ signer: 0, data: buffer(bytes), checkChain: false, extendedMode: true })
    .catch(() => ({ signatureVerified: false, signerCertificate: null }));
  if (!signatureVerified || !signerCertificate) return wrong('its signature does not hold');
  if (!namesItsCertificate(signed, signerCertificate)) return wrong('it does not name the certificate it is signed by');
  const purposes = signerCertificate.extensions?.find((e) => e.extnID === STAMP_OIDS.extKeyUsage)?.parsedValue as ExtKeyUsage | undefined;
  if (!purposes?.keyPurposes.includes(STAMP_OIDS.purpose)) return wrong('its certificate is not one for time-stamps');
  const at = info.genTime.toISOString();
  const authority = nameOf(signerCertificate);
  const [from, until] = [signerCertificate.notBefore.value, signerCertificate.notAfter.value];
  const now = check.now ?? new Date();
  if (info.genTime < from || info.genTime > until)
    return { state: 'expired', at, authority, reason: `its certificate is for ${day(from)} to ${day(until)}` };
  if (now > until)
    return {
      state: 'expired',
      at,
      authority,
      reason: `its certificate ran out on ${day(until)}; a stamp given again before that day would still hold`,
    };
  if (info.genTime.getTime() > now.getTime() + 600_000) return wrong(`its time, ${at}, has not come yet`);
  const trusted = check.trusted.map((der) => Certificate.fromBER(buffer(der)));
  const certificates = (signed.certificates ?? []).filter((c): c is Certificate => c instanceof Certificate && c !== signerCertificate);
  const chain = await new CertificateChainValidationEngine({
    trustedCerts: trusted,
    certs: [...certificates, signerCertificate],
    checkDate: info.genTime,
  })
    .verify({}, getCrypto(true))
    .catch(() => ({ result: false }));
  if (!chain.result) return { state: 'unknown-authority', at, authority };
  return { state: 'holds', at, authority, serial: bytesToHex(view(info.serialNumber)) };
}

const day = (date: Date): string => date.toISOString().slice(0, 10);

const SAID: { readonly [S in StampVerdict['state']]: (verdict: Extract<StampVerdict, { state: S }>) => string } = {
  missing: () => 'No outside witness has stamped it: when it was made rests on the word of the shop.',
  unreadable: (v) => `The stamp cannot be read: ${v.reason}. It proves nothing.`,
  refused: (v) => `No stamp was given: ${v.reason}.`,
  wrong: (v) => `The stamp is wrong: ${v.reason}. It proves nothing.`,
  reused: (v) => `The stamp is a re-used one: ${v.reason}. It proves nothing.`,
  expired: (v) => `The stamp of ${v.authority}, ${v.at}, is expired: ${v.reason}.`,
  'unknown-authority': (v) =>
    `The stamp says ${v.at}, by "${v.authority}", whose certificate is not among those trusted here. It proves what that authority's word is worth.`,
  holds: (v) => `Stamped by "${v.authority}" at ${v.at} (number ${v.serial}): it was there at that time and was not changed since.`,
};

/** A verdict in a sentence. */
export const stampWords = (verdict: StampVerdict): string => (SAID[verdict.state] as (v: StampVerdict) => string)(verdict);
