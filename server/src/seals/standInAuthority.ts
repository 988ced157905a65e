import { STAMP_OIDS } from '@true-ledger/core/bundle';
import * as asn1js from 'asn1js';
import { createHash, createPrivateKey, createPublicKey, generateKeyPairSync, randomBytes, type KeyObject } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import {
  Attribute,
  AttributeTypeAndValue,
  BasicConstraints,
  Certificate,
  ContentInfo,
  EncapsulatedContentInfo,
  ExtKeyUsage,
  Extension,
  IssuerAndSerialNumber,
  PKIStatusInfo,
  SignedAndUnsignedAttributes,
  SignedData,
  SignerInfo,
  Time,
  TimeStampReq,
  TimeStampResp,
  TSTInfo,
} from 'pkijs';

const ROOT_NAME = 'Simulated time-stamp authority, root';
/** Stands in every certificate of the stand-in, so that its stamps are told from others by themselves. */
export const STAND_IN_NAME = 'Simulated time-stamp authority (proves nothing)';
/** An arc for documentation and trials (RFC 5612 keeps it free). */
const POLICY = '1.3.6.1.4.1.32473.1';
const DAY = 86_400_000;

interface Kept {
  /** PKCS 8, PEM. */
  readonly key: string;
  /** Certificates, DER in base64: the one that signs, then the root. */
  readonly certificates: readonly [string, string];
}

const buffer = (bytes: Uint8Array): ArrayBuffer => Uint8Array.from(bytes).buffer;
const sha256 = (bytes: Uint8Array): Buffer => createHash('sha256').update(bytes).digest();
const serial = (): asn1js.Integer => new asn1js.Integer({ valueHex: buffer(Buffer.concat([Buffer.of(0x01), randomBytes(9)])) });

/** A certificate for a key (P-256), signed by the root's key. */
async function certificate(name: string, issuer: string, of: KeyObject, by: CryptoKey, days: number, root: boolean): Promise<Certificate> {
  const made = new Certificate();
  made.version = 2;
  made.serialNumber = serial();
  const named = (value: string): AttributeTypeAndValue =>
    new AttributeTypeAndValue({ type: '2.5.4.3', value: new asn1js.Utf8String({ value }) });
  made.subject.typesAndValues.push(named(name));
  made.issuer.typesAndValues.push(named(issuer));
  // RFC 5280: whole seconds.
  const at = (offset: number): Time => new Time({ type: 0, value: new Date(Math.floor((Date.now() + offset * DAY) / 1000) * 1000) });
  made.notBefore = at(-1);
  made.notAfter = at(days);
  const extension = (extnID: string, critical: boolean, value: { toBER(): ArrayBuffer }): Extension =>
    new Extension({ extnID, critical, extnValue: value.toBER() });
  made.extensions = root
    ? [extension('2.5.29.19', true, new BasicConstraints({ cA: true }).toSchema())]
    : [extension(STAMP_OIDS.extKeyUsage, true, new ExtKeyUsage({ keyPurposes: [STAMP_OIDS.purpose] }).toSchema())];
  await made.subjectPublicKeyInfo.importKey(await cryptoKey(of, 'verify'));
  await made.sign(by, 'SHA-256');
  return made;
}

async function cryptoKey(key: KeyObject, use: 'sign' | 'verify'): Promise<CryptoKey> {
  const der = use === 'sign' ? key.export({ type: 'pkcs8', format: 'der' }) : createPublicKey(key).export({ type: 'spki', format: 'der' });
  return crypto.subtle.importKey(use === 'sign' ? 'pkcs8' : 'spki', buffer(der), { name: 'ECDSA', namedCurve: 'P-256' }, true, [use]);
}

/**
 * A small time-stamp authority after RFC 3161 that stands in for one outside: so that the whole way can be walked without a network. Its key lies beside the
 * shop's own, so it is no outside witness, and its name says so. `days` it signs for, `now` its clock.
 */
export class StandInAuthority {
  private readonly kept: Promise<Kept>;

  constructor(
    private readonly file: string,
    private readonly days = 3650,
    private readonly now: () => Date = () => new Date(),
  ) {
    this.kept = this.read();
  }

  private async read(): Promise<Kept> {
    const pair = (): KeyObject => generateKeyPairSync('ec', { namedCurve: 'P-256' }).privateKey;
    const [root, own] = [pair(), pair()];
    const by = await cryptoKey(root, 'sign');
    const certificates = [
      await certificate(STAND_IN_NAME, ROOT_NAME, own, by, this.days, false),
      await certificate(ROOT_NAME, ROOT_NAME, root, by, 3650, true),
    ].map((c) => Buffer.from(c.toSchema().toBER()).toString('base64'));
    const fresh = { key: own.export({ type: 'pkcs8', format: 'pem' }), certificates };
    try {
      writeFileSync(this.file, JSON.stringify(fresh, null, 2), { mode: 0o600, flag: 'wx' });
    } catch (error) {
      if ((error as { code?: string }).code !== 'EEXIST') throw error;
    }
    return JSON.parse(readFileSync(this.file, 'utf8')) as Kept;
  }

  /** The certificate to trust, DER. */
  async root(): Promise<Uint8Array> {
    return Buffer.from((await this.kept).certificates[1], 'base64');
  }

  /** The certificate to trust, PEM. */
  async rootPem(): Promise<string> {
    const lines = Buffer.from(await this.root())
      .toString('base64')
      .match(/.{1,64}/g)!;
    return `-----BEGIN CERTIFICATE-----\n${lines.join('\n')}\n-----END CERTIFICATE-----\n`;
  }

  /** Answers a `TimeStampReq` (DER) with a `TimeStampResp`; throws when it is none. */
  async answer(question: Uint8Array): Promise<Uint8Array> {
    const query = TimeStampReq.fromBER(buffer(question));
    const refused = (status: number): Uint8Array =>
      new Uint8Array(new TimeStampResp({ status: new PKIStatusInfo({ status }) }).toSchema().toBER());
    if (query.messageImprint.hashAlgorithm.algorithmId !== STAMP_OIDS.sha256) return refused(2);
    const info = new TSTInfo({
      version: 1,
      policy: POLICY,
      messageImprint: query.messageImprint,
      serialNumber: serial(),
      genTime: this.now(),
      ...(query.nonce ? { nonce: query.nonce } : {}),
    });
    return new Uint8Array(
      new TimeStampResp({ status: new PKIStatusInfo({ status: 0 }), timeStampToken: await this.token(info, query.certReq ?? false) })
        .toSchema()
        .toBER(),
    );
  }

  private async token(info: TSTInfo, withCertificates: boolean): Promise<ContentInfo> {
    const { key, certificates } = await this.kept;
    const ders = certificates.map((c) => Buffer.from(c, 'base64'));
    const own = Certificate.fromBER(buffer(ders[0]!));
    const content = Buffer.from(info.toSchema().toBER());
    const attribute = (type: string, value: asn1js.BaseBlock): Attribute => new Attribute({ type, values: [value] });
    const octets = (bytes: Uint8Array): asn1js.OctetString => new asn1js.OctetString({ valueHex: buffer(bytes) });
    const sequence = (...value: asn1js.BaseBlock[]): asn1js.Sequence => new asn1js.Sequence({ value });
    const signed = new SignedData({
      version: 3,
      encapContentInfo: new EncapsulatedContentInfo({ eContentType: STAMP_OIDS.info, eContent: octets(content) }),
      signerInfos: [
        new SignerInfo({
          version: 1,
          sid: new IssuerAndSerialNumber({ issuer: own.issuer, serialNumber: own.serialNumber }),
          signedAttrs: new SignedAndUnsignedAttributes({
            type: 0,
            attributes: [
              attribute('1.2.840.113549.1.9.3', new asn1js.ObjectIdentifier({ value: STAMP_OIDS.info })),
              attribute('1.2.840.113549.1.9.4', octets(sha256(content))),
              attribute(STAMP_OIDS.signingCertificateV2, sequence(sequence(sequence(octets(sha256(ders[0]!)))))),
            ],
          }),
        }),
      ],
      ...(withCertificates ? { certificates: ders.map((der) => Certificate.fromBER(buffer(der))) } : {}),
    });
    await signed.sign(await cryptoKey(createPrivateKey(key), 'sign'), 0, 'SHA-256', buffer(content));
    return new ContentInfo({ contentType: STAMP_OIDS.signedData, content: signed.toSchema(true) });
  }
}
