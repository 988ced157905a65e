import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';

/** Addresses of this machine in its own networks, loopback left out. */
export function ownAddresses() {
  return Object.values(networkInterfaces())
    .flat()
    .filter((a) => a && a.family === 'IPv4' && !a.internal)
    .map((a) => a.address);
}

function name(forge, commonName) {
  return [
    { name: 'commonName', value: commonName },
    { name: 'organizationName', value: 'True Ledger, this workshop' },
  ].map((a) => ({ ...a, valueTagClass: forge.asn1.Type.UTF8 }));
}

function certificate(forge, { subject, issuer, publicKey, signWith, days, extensions }) {
  const cert = forge.pki.createCertificate();
  cert.publicKey = publicKey;
  // A leading 01 keeps the number positive and free of the padding DER forbids: 00 in front of a small byte is refused by TLS libraries.
  cert.serialNumber = `01${forge.util.bytesToHex(forge.random.getBytesSync(15))}`;
  cert.validity.notBefore = new Date(Date.now() - 86_400_000);
  cert.validity.notAfter = new Date(Date.now() + days * 86_400_000);
  cert.setSubject(name(forge, subject));
  cert.setIssuer(name(forge, issuer));
  cert.setExtensions(extensions);
  cert.sign(signWith, forge.md.sha256.create());
  return cert;
}

/**
 * Certificate for the addresses of this machine, issued by an authority of its own that lives in `folder` and nowhere else. Phones trust the authority
 * once; the certificate is made again when the addresses change or it is about to end.
 */
export async function ownCertificate(folder, addresses) {
  const { default: forge } = await import('node-forge');
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const at = (file) => join(folder, file);
  const authority = 'True Ledger workshop authority';
  if (!existsSync(at('authority.key'))) {
    const keys = forge.pki.rsa.generateKeyPair({ bits: 2048 });
    const cert = certificate(forge, {
      subject: authority,
      issuer: authority,
      publicKey: keys.publicKey,
      signWith: keys.privateKey,
      days: 3650,
      extensions: [
        { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
        { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
        { name: 'subjectKeyIdentifier' },
      ],
    });
    writeFileSync(at('authority.key'), forge.pki.privateKeyToPem(keys.privateKey), { mode: 0o600 });
    writeFileSync(at('authority.crt'), forge.pki.certificateToPem(cert));
  }
  const names = ['127.0.0.1', ...addresses];
  const wanted = JSON.stringify(names);
  const fresh =
    existsSync(at('server.json')) &&
    (() => {
      const held = JSON.parse(readFileSync(at('server.json'), 'utf8'));
      return JSON.stringify(held.names) === wanted && held.until > Date.now() + 14 * 86_400_000;
    })();
  if (!fresh) {
    const keys = forge.pki.rsa.generateKeyPair({ bits: 2048 });
    const days = 390;
    const cert = certificate(forge, {
      subject: addresses[0] ?? 'localhost',
      issuer: authority,
      publicKey: keys.publicKey,
      signWith: forge.pki.privateKeyFromPem(readFileSync(at('authority.key'), 'utf8')),
      days,
      extensions: [
        { name: 'basicConstraints', cA: false },
        { name: 'keyUsage', digitalSignature: true, keyEncipherment: true, critical: true },
        { name: 'extKeyUsage', serverAuth: true },
        { name: 'subjectAltName', altNames: [{ type: 2, value: 'localhost' }, ...names.map((ip) => ({ type: 7, ip }))] },
      ],
    });
    writeFileSync(at('server.key'), forge.pki.privateKeyToPem(keys.privateKey), { mode: 0o600 });
    writeFileSync(at('server.crt'), forge.pki.certificateToPem(cert));
    writeFileSync(at('server.json'), JSON.stringify({ names, until: Date.now() + days * 86_400_000 }));
  }
  const der = Buffer.from(
    readFileSync(at('authority.crt'), 'utf8')
      .replace(/-----[^-]+-----/g, '')
      .replace(/\s/g, ''),
    'base64',
  );
  const fingerprint = createHash('sha256').update(der).digest('hex').toUpperCase().match(/../g).join(':');
  return { cert: at('server.crt'), key: at('server.key'), authority: at('authority.crt'), fingerprint };
}
