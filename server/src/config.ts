/** Settings from the environment, checked once at start. */
import { accessSync, constants, existsSync, mkdirSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

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
  conditions: string;
  /** Folder of figure files, and where their checked form is kept. */
  figures: string;
  figuresChecked: string;
  stills: string;
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

/** Reads `PORT`, `HOST`, `WAXWING_DATA`, `WAXWING_LIBRARY` and `WAXWING_FIGURES`, and makes the data folder. @throws StartError */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const port = Number(env.PORT ?? 4310);
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new StartError(`PORT must be a number from 0 to 65535, not "${env.PORT}".`);
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
    host: env.HOST ?? '127.0.0.1',
    dataFolder,
    libraryFolder: env.WAXWING_LIBRARY ?? fromHere('../../library/movements'),
    libraryChecked: fromHere('../../library/dist/starter.json'),
    houseRules: fromHere('../../library/house-rules.yaml'),
    faultKinds: fromHere('../../library/fault-kinds.yaml'),
    causes: fromHere('../../library/causes.yaml'),
    conditions: fromHere('../../library/conditions.yaml'),
    figures: env.WAXWING_FIGURES ?? fromHere('../../library/figures'),
    figuresChecked: fromHere('../../library/dist/figures.json'),
    stills: fromHere('../../library/stills'),
  };
}
