/** The second way in: HTTPS for other devices, beside plain HTTP on the machine's own loopback. */
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:https';
import type { AddressInfo } from 'node:net';

import type { NestExpressApplication } from '@nestjs/platform-express';

import { type NetworkConfig, StartError } from '../config.js';
import { asHost, ownAddresses, ownNames } from './addresses.js';
import { type Certificates, certificatesIn, fingerprintOf } from './certificates.js';

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
    { ...inUse(made), minVersion: 'TLSv1.2', connectionsCheckingInterval: 1_000 },
    app.getHttpAdapter().getInstance(),
  );
  guardAgainstSlow(server);
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

/** Whoever sends a request drop by drop is cut off. */
export function guardAgainstSlow(server: {
  headersTimeout: number;
  requestTimeout: number;
  keepAliveTimeout: number;
}): void {
  server.headersTimeout = 10_000;
  // Of the body too; an upload that is really large has its own limit by what comes through in a while.
  server.requestTimeout = 120_000;
  server.keepAliveTimeout = 10_000;
}
