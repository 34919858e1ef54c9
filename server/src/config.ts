/** Settings from the environment, checked once at start. */
import { accessSync, constants, existsSync, mkdirSync } from 'node:fs';
import { homedir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

import { KEY_BYTES } from './sealed/sealer.js';

/** The code runs from a folder of `server`, bundled or not. */
const fromHere = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

export interface Config {
  port: number;
  host: string;
  dataFolder: string;
  /** Folder of movement files, and where their checked form is kept. */
  libraryFolder: string;
  libraryChecked: string;
  /** The file of house rules. */
  houseRules: string;
  /** Where the fault kinds are. */
  faultKinds: string;
  causes: string;
  demandLevels: string;
  conditions: string;
  /** Folder of figure files, and where their checked form is kept. */
  figures: string;
  figuresChecked: string;
  /** Where is kept what the figures prove of their movements. */
  figuresProven: string;
  stills: string;
  /** Where the key lies with which health notes are sealed. */
  keys: KeyPlace;
  /** The address that a proxy in front answers at; null where there is none. Its headers are believed then. */
  proxy: URL | null;
  /** Requests that are taken of one address of the network within ten seconds. */
  mostRequests: number;
  /** Whether other devices come in over HTTPS of our own. */
  network: NetworkConfig | null;
}

export interface NetworkConfig {
  port: number;
  /** More names of this machine. */
  names: readonly string[];
  /** Files of an own certificate and its key; null for one made here. */
  own: { certificate: string; key: string } | null;
}

/** Where the key of a studio is. */
export interface KeyPlace {
  /** The folder of key files. */
  folder: string;
  /** A key that was given; null for one in a file. */
  given: Buffer | null;
}

/** What the configuration is asked for by. */
export const CONFIG = Symbol('config');

/** Something that stops the server from starting, in one line for the person who started it. */
export class StartError extends Error {}

/** Where the studio's data lies. */
export const dataFolderOf = (env: NodeJS.ProcessEnv): string => resolve(env.WAXWING_DATA ?? './data');

/** Folder by folder: Node's own recursive way never returns where a file system refuses new folders as "not found". */
function makeFolder(path: string): void {
  if (existsSync(path)) return;
  makeFolder(dirname(path));
  mkdirSync(path, { mode: 0o700 });
}

/** A library's pictures come by the hundred. */
export const MOST_REQUESTS = 600;

const LOOPBACK = ['127.0.0.1', 'localhost', '::1'];

const portOf = (name: string, said: string | undefined, usual: number): number => {
  const port = Number(said ?? usual);
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new StartError(`${name} must be a number from 0 to 65535, not "${said}".`);
  return port;
};

/** @throws StartError for a key that is none */
export function keyPlaceOf(env: NodeJS.ProcessEnv): KeyPlace {
  const folder = env.WAXWING_KEYS ?? join(env.XDG_CONFIG_HOME ?? join(homedir(), '.config'), 'waxwing');
  if (!env.WAXWING_KEY) return { folder, given: null };
  const given = Buffer.from(env.WAXWING_KEY, 'base64');
  if (given.length !== KEY_BYTES) throw new StartError('WAXWING_KEY must be 32 bytes in base64.');
  return { folder, given };
}

/** @throws StartError */
function proxyOf(said: string | undefined): URL | null {
  if (!said) return null;
  const url = URL.canParse(said) ? new URL(said) : null;
  if (url?.protocol !== 'https:')
    throw new StartError(`WAXWING_PROXY must be the https address of the proxy in front, not "${said}".`);
  return url;
}

/** @throws StartError */
function networkOf(env: NodeJS.ProcessEnv, port: number): NetworkConfig {
  const { WAXWING_CERTIFICATE: certificate, WAXWING_CERTIFICATE_KEY: key } = env;
  if (Boolean(certificate) !== Boolean(key))
    throw new StartError('WAXWING_CERTIFICATE and WAXWING_CERTIFICATE_KEY belong together: set both, or none.');
  return {
    port: portOf('NETWORK_PORT', env.NETWORK_PORT, port === 0 ? 0 : port + 1),
    names: (env.WAXWING_NAMES ?? '').split(',').flatMap((name) => name.trim() || []),
    own: certificate && key ? { certificate, key } : null,
  };
}

/**
 * Reads `PORT`, `HOST`, `WAXWING_DATA`, `WAXWING_LIBRARY`, `WAXWING_FIGURES`, `WAXWING_PROXY`, and for the network `NETWORK_PORT`,
 * `WAXWING_NAMES`, `WAXWING_CERTIFICATE` and `WAXWING_CERTIFICATE_KEY`; makes the data folder.
 * @throws StartError
 */
export function readConfig(env: NodeJS.ProcessEnv, network = false): Config {
  const port = portOf('PORT', env.PORT, 4310);
  const host = env.HOST ?? '127.0.0.1';
  if (!LOOPBACK.includes(host))
    throw new StartError(
      `HOST=${host} would send health notes over the network for everybody to read. Use npm start -- --network, or a proxy with HTTPS (see docs/network.md).`,
    );
  const proxy = proxyOf(env.WAXWING_PROXY);
  const dataFolder = dataFolderOf(env);
  try {
    makeFolder(dataFolder);
    accessSync(dataFolder, constants.W_OK);
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === 'ENOSPC')
      throw new StartError(`The disk of ${dataFolder} is full. Make room on it, then start again.`);
    throw new StartError(`Cannot write to the data folder ${dataFolder}. Choose another with WAXWING_DATA.`);
  }
  return {
    port,
    host,
    dataFolder,
    libraryFolder: env.WAXWING_LIBRARY ?? fromHere('../../library/movements'),
    libraryChecked: fromHere('../../library/dist/starter.json'),
    houseRules: fromHere('../../library/house-rules.yaml'),
    faultKinds: fromHere('../../library/fault-kinds.yaml'),
    causes: fromHere('../../library/causes.yaml'),
    demandLevels: fromHere('../../library/demands.yaml'),
    conditions: fromHere('../../library/conditions.yaml'),
    figures: env.WAXWING_FIGURES ?? fromHere('../../library/figures'),
    figuresChecked: fromHere('../../library/dist/figures.json'),
    figuresProven: fromHere('../../library/dist/proven.json'),
    stills: fromHere('../../library/stills'),
    keys: keyPlaceOf(env),
    proxy,
    mostRequests: MOST_REQUESTS,
    network: network ? networkOf(env, port) : null,
  };
}
