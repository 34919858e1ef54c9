/** The second way in: HTTPS for other devices, beside plain HTTP on the machine's own loopback. */
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import type { IncomingMessage, Server as HttpServer } from 'node:http';
import { createServer, type Server } from 'node:https';
import type { AddressInfo, Socket } from 'node:net';

import type { NestExpressApplication } from '@nestjs/platform-express';

import { type NetworkConfig, StartError } from '../config.js';
import { asHost, ownAddresses, ownNames } from './addresses.js';
import { type Certificates, certificatesIn, fingerprintOf } from './certificates.js';

/** What any browser of the last ten years speaks, and nothing that cannot tell whether it was changed on the way. */
const CIPHERS = [
  'TLS_AES_256_GCM_SHA384',
  'TLS_CHACHA20_POLY1305_SHA256',
  'TLS_AES_128_GCM_SHA256',
  ...['AES256-GCM-SHA384', 'CHACHA20-POLY1305', 'AES128-GCM-SHA256'].flatMap((one) => [
    `ECDHE-ECDSA-${one}`,
    `ECDHE-RSA-${one}`,
  ]),
].join(':');
/** Whoever connects says something within this time. */
const SILENT_MS = 10_000;
const CHECKED_EVERY_MS = 12 * 3_600_000;

export interface Network {
  server: Server;
  /** Where others find it, the likeliest first. */
  addresses: string[];
  /** PEM of the root that tablets must trust; null with certificates of the studio's own. */
  root: string | null;
  fingerprint: string;
}

/** Opens it. @throws StartError for an own certificate that cannot be used */
export async function openNetwork(
  app: NestExpressApplication,
  config: NetworkConfig,
  dataFolder: string,
): Promise<Network> {
  const made = await certificates(config, dataFolder);
  const server = createServer(
    {
      ...inUse(made),
      minVersion: 'TLSv1.2',
      ciphers: CIPHERS,
      handshakeTimeout: SILENT_MS,
      connectionsCheckingInterval: 1_000,
    },
    app.getHttpAdapter().getInstance(),
  );
  guardAgainstSlow(server, 'secureConnection');
  server.listen(config.port);
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  // Addresses come and go, and certificates end, while a studio's machine runs for months.
  const renewal = setInterval(() => {
    certificates(config, dataFolder).then(
      (next) => server.setSecureContext(inUse(next)),
      () => console.error('The certificate could not be made anew.'),
    );
  }, CHECKED_EVERY_MS);
  renewal.unref();
  server.once('close', () => clearInterval(renewal));
  const hosts = [...ownAddresses().map(asHost), ...ownNames(config.names)];
  return {
    server,
    addresses: hosts.map((host) => `https://${host}:${port}`),
    root: made.root,
    fingerprint: fingerprintOf(made.root ?? made.certificate),
  };
}

const inUse = ({ certificate, key }: Pick<Certificates, 'certificate' | 'key'>) => ({ cert: certificate, key });

async function certificates(
  { own, names }: NetworkConfig,
  dataFolder: string,
): Promise<Omit<Certificates, 'root'> & { root: string | null }> {
  if (!own) return certificatesIn(dataFolder, [...ownNames(names), ...ownAddresses(), 'localhost', '127.0.0.1']);
  try {
    return { certificate: readFileSync(own.certificate, 'utf8'), key: readFileSync(own.key, 'utf8'), root: null };
  } catch {
    throw new StartError(`Cannot read ${own.certificate} and ${own.key}: the certificate and its key.`);
  }
}

/** Whoever sends a request drop by drop is cut off, and so is who connects and says nothing. */
export function guardAgainstSlow(
  server: HttpServer | Server,
  connected: 'connection' | 'secureConnection' = 'connection',
): void {
  const silent = new WeakMap<Socket, NodeJS.Timeout>();
  server.on(connected, (socket: Socket) => {
    silent.set(socket, setTimeout(() => socket.destroy(), SILENT_MS).unref());
  });
  server.on('request', ({ socket }: IncomingMessage) => clearTimeout(silent.get(socket)));
  server.headersTimeout = 10_000;
  // Of the body too; an upload that is really large has its own limit by what comes through in a while.
  server.requestTimeout = 120_000;
  server.keepAliveTimeout = 10_000;
}
