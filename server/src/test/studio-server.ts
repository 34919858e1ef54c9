/** A real server on a port of its own, over a database file in a folder of its own. */
import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

import type { NestExpressApplication } from '@nestjs/platform-express';
import type { Client } from '@waxwing/core/client';
import type { StoredPlan } from '@waxwing/core/planning';
import type { Problem } from '@waxwing/core/schema';
import request from 'supertest';

import { createApp } from '../app.js';
import type { Config } from '../config.js';
import { NetworkService } from '../network/network.service.js';
import { type Network, openNetwork } from '../network/network-server.js';
import { listenTo } from './answers.js';

export const LIBRARY = join(import.meta.dirname, '../../../library/movements');

export interface StudioServer {
  app: NestExpressApplication;
  config: Config;
  database: string;
  http: ReturnType<typeof request>;
  /** Puts a client in. */
  client: (name: string, more?: object) => Promise<Client>;
  /** Keeps a plan. */
  keep: (plan: object) => Promise<StoredPlan>;
  /** The way in for other devices: HTTPS on a port of its own. */
  network: string;
  /** Opens it on what is there. */
  open: () => Promise<void>;
  /** Stops the server and opens it again on the same data. */
  restart: () => Promise<void>;
  /** @throws when an answer was not as it is described */
  stop: () => Promise<void>;
}

/** The fields that an answer names as wrong. */
export const wrongFields = ({ body }: { body: unknown }): string[] =>
  ((body as { errors?: Problem[] }).errors ?? []).map(({ path }) => path);

/** @param network whether other devices come in as well */
export async function startServer({
  network = false,
  proxy = null as URL | null,
  mostRequests = Infinity,
} = {}): Promise<StudioServer> {
  const dataFolder = mkdtempSync(join(tmpdir(), 'waxwing-'));
  const config: Config = {
    port: 0,
    host: '127.0.0.1',
    dataFolder,
    libraryFolder: LIBRARY,
    libraryChecked: join(LIBRARY, '../dist/starter.json'),
    houseRules: join(LIBRARY, '../house-rules.yaml'),
    faultKinds: join(LIBRARY, '../fault-kinds.yaml'),
    causes: join(LIBRARY, '../causes.yaml'),
    demandLevels: join(LIBRARY, '../demands.yaml'),
    conditions: join(LIBRARY, '../conditions.yaml'),
    figures: join(LIBRARY, '../figures'),
    figuresChecked: join(LIBRARY, '../dist/figures.json'),
    figuresProven: join(LIBRARY, '../dist/proven.json'),
    stills: join(LIBRARY, '../stills'),
    keys: { folder: join(dataFolder, 'keys'), given: null },
    proxy,
    mostRequests,
    network: network ? { port: 0, names: [], own: null } : null,
  };
  const server = { config, database: join(dataFolder, 'waxwing.sqlite') } as StudioServer;
  let other: Network | undefined;
  const wrong: string[] = [];
  const close = async () => {
    other?.server.closeAllConnections();
    other?.server.close();
    await server.app.close();
  };
  server.open = async () => {
    server.app = await createApp(config);
    await server.app.listen(0, config.host);
    listenTo(server.app.getHttpServer(), wrong);
    server.http = request(server.app.getHttpServer());
    if (!config.network) return;
    other = await openNetwork(server.app, config.network, dataFolder);
    server.app.get(NetworkService).opened(other);
    server.network = `https://127.0.0.1:${(other.server.address() as AddressInfo).port}`;
  };
  server.client = async (name, more = {}) =>
    (
      await server.http
        .post('/api/clients')
        .send({ name, ...more })
        .expect(201)
    ).body as Client;
  server.keep = async (plan) => (await server.http.post('/api/plans').send({ plan }).expect(201)).body as StoredPlan;
  server.restart = async () => {
    await close();
    await server.open();
  };
  server.stop = async () => {
    await close();
    rmSync(dataFolder, { recursive: true });
    if (wrong.length > 0) throw new Error(`Answers are not as they are described:\n${[...new Set(wrong)].join('\n')}`);
  };
  await server.open();
  return server;
}
