/**
 * HTTPS on the studio's own network: a certificate authority of this studio alone, made once, and by it a certificate for the names and
 * addresses of this machine, made anew before it ends and when they change. Both lie in the data folder, for its user alone.
 */
import 'reflect-metadata';

import {
  createHash,
  createPrivateKey,
  randomBytes,
  type webcrypto as WebCrypto,
  webcrypto,
  X509Certificate,
} from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { join } from 'node:path';

import * as x509 from '@peculiar/x509';

import { constraintsFor, speaksFor } from './name-constraints.js';

x509.cryptoProvider.set(webcrypto as Crypto);

const DAY = 86_400_000;
/** Browsers take no certificate that lasts longer than 398 days, and tablets keep a root for years. */
const LASTS = { root: 3650 * DAY, own: 390 * DAY } as const;
/** Made anew so long before it ends. */
const RENEWED = 30 * DAY;
const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' } as const;

export interface Certificates {
  /** PEM: the machine's own, then the root. */
  certificate: string;
  key: string;
  /** PEM. */
  root: string;
}

interface Kept {
  certificate: string;
  key: string;
}

/** SHA-256 of a certificate, as it is compared by eye. */
export const fingerprintOf = (pem: string): string => new X509Certificate(pem).fingerprint256;

/** The certificates of a data folder, made where there are none or they do not do any more. */
export async function certificatesIn(
  dataFolder: string,
  hosts: readonly string[],
  now = new Date(),
): Promise<Certificates> {
  const folder = join(dataFolder, 'network');
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  let root = kept(folder, 'root');
  const does = root && speaksFor(new x509.X509Certificate(root.certificate), hosts);
  if (!root || !does || endsBefore(root.certificate, new Date(now.getTime() + LASTS.own))) {
    root = await rootMade(hosts, now);
    keep(folder, 'root', root);
  }
  let own = kept(folder, 'own');
  const wanted = hosts.toSorted().join();
  const isFor = own && hostsOf(own.certificate).toSorted().join() === wanted;
  const issued = own && new X509Certificate(own.certificate).verify(new X509Certificate(root.certificate).publicKey);
  if (!own || !isFor || !issued || endsBefore(own.certificate, new Date(now.getTime() + RENEWED))) {
    own = await ownMade(root, hosts, now);
    keep(folder, 'own', own);
  }
  return { certificate: `${own.certificate}\n${root.certificate}\n`, key: own.key, root: root.certificate };
}

const endsBefore = (pem: string, time: Date): boolean => Date.parse(new X509Certificate(pem).validTo) < time.getTime();

const hostsOf = (pem: string): string[] =>
  (new X509Certificate(pem).subjectAltName ?? '')
    .split(', ')
    .map((one) => one.replace(/^(DNS|IP Address):/, '').toLowerCase())
    .map((one) => (isIP(one) === 6 ? shortened(one) : one));

/** An IPv6 address in its one short form. */
const shortened = (address: string): string => new URL(`http://[${address}]`).hostname.slice(1, -1);

function kept(folder: string, name: string): Kept | null {
  const [certificate, key] = [join(folder, `${name}.crt`), join(folder, `${name}.key`)];
  if (!existsSync(certificate) || !existsSync(key)) return null;
  const found = { certificate: readFileSync(certificate, 'utf8'), key: readFileSync(key, 'utf8') };
  try {
    // One half of a pair, or a file that was cut off, is none.
    return new X509Certificate(found.certificate).checkPrivateKey(createPrivateKey(found.key)) ? found : null;
  } catch {
    return null;
  }
}

function keep(folder: string, name: string, { certificate, key }: Kept): void {
  for (const [ending, text] of [
    ['key', key],
    ['crt', certificate],
  ] as const) {
    const path = join(folder, `${name}.${ending}`);
    writeFileSync(`${path}.part`, text, { mode: 0o600, flush: true });
    renameSync(`${path}.part`, path);
  }
}

const newKeys = (): Promise<WebCrypto.CryptoKeyPair> =>
  webcrypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify']);

const pemOf = async ({ privateKey }: WebCrypto.CryptoKeyPair): Promise<string> =>
  x509.PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', privateKey), 'PRIVATE KEY');

const serial = (): string =>
  randomBytes(16)
    .toString('hex')
    .replace(/^[89a-f]/, '7');

/** Clocks of tablets may be behind. */
const since = (now: Date): Date => new Date(now.getTime() - DAY);

async function rootMade(hosts: readonly string[], now: Date): Promise<Kept> {
  const keys = await newKeys();
  const certificate = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=Waxwing studio ${createHash('sha256').update(randomBytes(8)).digest('hex').slice(0, 8)}`,
    notBefore: since(now),
    notAfter: new Date(now.getTime() + LASTS.root),
    signingAlgorithm: ALGORITHM,
    keys: keys as CryptoKeyPair,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey as CryptoKey),
      constraintsFor(hosts),
    ],
  });
  return { certificate: certificate.toString('pem'), key: await pemOf(keys) };
}

async function ownMade(root: Kept, hosts: readonly string[], now: Date): Promise<Kept> {
  const keys = await newKeys();
  const issuer = new x509.X509Certificate(root.certificate);
  const pkcs8 = createPrivateKey(root.key).export({ type: 'pkcs8', format: 'der' });
  const certificate = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: 'CN=Waxwing',
    issuer: issuer.subject,
    notBefore: since(now),
    notAfter: new Date(now.getTime() + LASTS.own),
    signingAlgorithm: ALGORITHM,
    publicKey: keys.publicKey as CryptoKey,
    signingKey: (await webcrypto.subtle.importKey('pkcs8', pkcs8, ALGORITHM, false, ['sign'])) as CryptoKey,
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(
        hosts.map((host) => ({ type: isIP(host) ? ('ip' as const) : ('dns' as const), value: host })),
      ),
      await x509.AuthorityKeyIdentifierExtension.create(issuer),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey as CryptoKey),
    ],
  });
  return { certificate: certificate.toString('pem'), key: await pemOf(keys) };
}
