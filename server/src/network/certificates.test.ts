/** The studio's own authority: made once, kept while it does, and trusted for this machine alone. */
import 'reflect-metadata';

import { createPrivateKey, webcrypto } from 'node:crypto';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connect, createServer } from 'node:tls';

import { afterEach, beforeEach, expect, test } from '@jest/globals';
import * as x509 from '@peculiar/x509';

import { type Certificates, certificatesIn } from './certificates.js';

const HOSTS = ['quay', 'quay.local', '192.168.1.7', '203.0.113.9', 'localhost', '127.0.0.1'];
const EC = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' } as const;

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'waxwing-network-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

/** What a device says that trusts the root, and asks for a host. */
async function said({ certificate, key, root }: Certificates, servername: string): Promise<string> {
  const server = createServer({ cert: certificate, key }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  const socket = connect({ port, host: '127.0.0.1', servername, ca: root });
  const answer = await new Promise<string>((done) => {
    socket.once('secureConnect', () => done('trusted'));
    socket.once('error', ({ message }) => done(message));
  });
  socket.destroy();
  server.close();
  return answer;
}

/** What a thief makes who has the key of the authority. */
async function forged({ root }: Certificates, host: string): Promise<Certificates> {
  const keys = (await webcrypto.subtle.generateKey(EC, true, ['sign', 'verify'])) as CryptoKeyPair;
  const issuer = new x509.X509Certificate(root);
  const pkcs8 = createPrivateKey(readFileSync(join(folder, 'network/root.key'), 'utf8')).export({
    type: 'pkcs8',
    format: 'der',
  });
  const certificate = await x509.X509CertificateGenerator.create({
    serialNumber: '7001',
    subject: 'CN=thief',
    issuer: issuer.subject,
    notBefore: new Date(Date.now() - 86_400_000),
    notAfter: new Date(Date.now() + 86_400_000),
    signingAlgorithm: EC,
    publicKey: keys.publicKey,
    signingKey: (await webcrypto.subtle.importKey('pkcs8', pkcs8, EC, false, ['sign'])) as CryptoKey,
    extensions: [new x509.SubjectAlternativeNameExtension([{ type: 'dns', value: host }])],
  });
  const key = x509.PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', keys.privateKey), 'PRIVATE KEY');
  return { certificate: `${certificate.toString('pem')}\n${root}\n`, key, root };
}

test('whoever has the key of the authority deceives about this machine alone', async () => {
  const made = await certificatesIn(folder, HOSTS);
  for (const host of ['quay', 'quay.local', 'localhost'])
    expect([host, await said(made, host)]).toEqual([host, 'trusted']);
  for (const host of ['bank.example', 'quay.example'])
    expect([host, await said(await forged(made, host), host)]).toEqual([host, 'permitted subtree violation']);
  expect(await said(await forged(made, 'quay.local'), 'quay.local')).toBe('trusted');
});

test('the authority stays while it speaks for the machine, and is made anew for a name or a public address that it does not know', async () => {
  const { root } = await certificatesIn(folder, HOSTS);
  const rootFor = async (...hosts: string[]) => (await certificatesIn(folder, hosts)).root;
  expect(await rootFor(...HOSTS, '10.1.2.3', 'fd00::7', 'other.local')).toBe(root);
  expect(await rootFor('quay', 'localhost')).toBe(root);
  const next = await rootFor(...HOSTS, 'elsewhere');
  expect(next).not.toBe(root);
  expect(await rootFor(...HOSTS, '203.0.113.10')).not.toBe(next);
});
