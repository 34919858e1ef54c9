/** Reading movement files: every problem of every file is reported, by file and field path, before anything is used. */
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';

import { checkConditions, type Condition } from '@waxwing/core/client';
import { checkExceptions, checkReferences, type StandardException } from '@waxwing/core/ladder';
import {
  checkCauses,
  checkDemandLevels,
  checkFaultKinds,
  checkMovement,
  checkRules,
  checkSayings,
  type DemandLevel,
  type FaultKind,
  type HouseRule,
  type Movement,
  type Saying,
} from '@waxwing/core/movement';
import type { Checked, Problem } from '@waxwing/core/schema';
import { load, YAMLException } from 'js-yaml';

export interface FileProblem {
  file: string;
  path: string;
  message: string;
}

/** Thrown when any file of a library is wrong. The message has one line for each problem. */
export class LibraryError extends Error {
  constructor(readonly problems: readonly FileProblem[]) {
    super(problems.map(({ file, path, message }) => `${file}: ${path ? `${path} ` : ''}${message}`).join('\n'));
    this.name = 'LibraryError';
  }
}

export interface File {
  name: string;
  text: string;
}

export const readFiles = (folder: string): File[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.yaml'))
    .sort()
    .map((name) => ({ name, text: readFileSync(join(folder, name), 'utf8') }));

/** Reads and checks the house rules. @throws LibraryError naming the file and path. */
export const loadRules = (file: string): HouseRule[] => loadOne(file, checkRules);

/** Reads and checks the fault kinds. @throws LibraryError naming the file and path. */
export const loadFaultKinds = (file: string): FaultKind[] => loadOne(file, checkFaultKinds);

/** Reads how trainers name what they see: what the search is held to. @throws LibraryError naming the file and path. */
export const loadSayings = (file: string): Saying[] => loadOne(file, checkSayings);

/** Reads and checks the causes. @throws LibraryError naming the file and path. */
export const loadCauses = (file: string): string[] => loadOne(file, checkCauses);

/** Reads and checks what the levels of the demands mean. @throws LibraryError naming the file and path. */
export const loadDemandLevels = (file: string): DemandLevel[] => loadOne(file, checkDemandLevels);

/** Reads and checks the conditions. @throws LibraryError naming the file and path. */
export const loadConditions = (file: string): Condition[] => loadOne(file, checkConditions);

/** Reads and checks the exceptions from the standards. @throws LibraryError naming the file and path. */
export const loadExceptions = (file: string): StandardException[] => loadOne(file, checkExceptions);

function loadOne<T>(file: string, check: (input: unknown) => Checked<T>): T {
  const name = basename(file);
  const read = readYaml(readFileSync(file, 'utf8'));
  const checked = read.ok ? check(read.value) : read;
  if (!checked.ok) throw new LibraryError(checked.problems.map((one) => ({ file: name, ...one })));
  return checked.value;
}

/** Reads and checks all `.yaml` files below a folder. @throws LibraryError naming files and paths. */
export const loadLibrary = (folder: string): Movement[] => checkFiles(readFiles(folder));

/** Movements from their files. @throws LibraryError naming files and paths. */
export function checkFiles(files: readonly File[]): Movement[] {
  const problems: FileProblem[] = [];
  const fileOf = new Map<string, string>();
  const movements: Movement[] = [];
  for (const { name, text } of files) {
    const checked = readMovement(text);
    if (!checked.ok) problems.push(...checked.problems.map((problem) => ({ file: name, ...problem })));
    else {
      movements.push(checked.value);
      fileOf.set(checked.value.id, name);
    }
  }
  // References are only judged in a library whose files are all readable: a broken file would make its neighbours look wrong.
  if (problems.length === 0)
    for (const { movementId, path, message } of checkReferences(movements))
      problems.push({ file: fileOf.get(movementId) ?? movementId, path, message });
  if (problems.length > 0) throw new LibraryError(problems);
  return movements;
}

function readMovement(text: string): ReturnType<typeof checkMovement> {
  const read = readYaml(text);
  return read.ok ? checkMovement(read.value) : read;
}

/** YAML of unknown shape. */
export function readYaml(text: string): { ok: true; value: unknown } | { ok: false; problems: Problem[] } {
  try {
    return { ok: true, value: load(text) };
  } catch (error) {
    if (!(error instanceof YAMLException)) throw error;
    return { ok: false, problems: [{ path: '', message: `is not valid YAML: ${error.message.split('\n')[0]}` }] };
  }
}

/** Files that were checked before: their fingerprint, and what was read from them. */
interface Kept<T> {
  fingerprint: string;
  value: T;
}

const fingerprintOf = (files: readonly File[]): string =>
  createHash('sha256').update(JSON.stringify(files)).digest('hex');

/** Checks a folder's files and keeps the result in a file, for `loadKept`. @throws LibraryError */
export function keep<T>(folder: string, keptIn: string, check: (files: readonly File[]) => T): void {
  const files = readFiles(folder);
  const kept: Kept<T> = { fingerprint: fingerprintOf(files), value: check(files) };
  writeFileSync(keptIn, JSON.stringify(kept));
}

/** What a folder's files hold, quickly when they are still the ones that `keep` saw. @throws LibraryError */
export function loadKept<T>(folder: string, keptIn: string, check: (files: readonly File[]) => T): T {
  const files = readFiles(folder);
  if (existsSync(keptIn)) {
    const kept = JSON.parse(readFileSync(keptIn, 'utf8')) as Kept<T>;
    if (kept.fingerprint === fingerprintOf(files)) return kept.value;
  }
  return check(files);
}

/** Like `loadLibrary`, but quick when the files are still those of the build. @throws LibraryError */
export const loadChecked = (folder: string, keptIn: string): Movement[] => loadKept(folder, keptIn, checkFiles);
