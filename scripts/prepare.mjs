/** What every command needs first: packages installed, the application built, a browser for the journeys. */
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('..', import.meta.url));
export const SERVER = join(ROOT, 'server/bundle/main.js');
const STAMP = join(ROOT, 'node_modules/.cache/waxwing-built');

/**
 * Runs a command with its output shown; ends this process when it fails.
 * @param {string} command
 * @param {string[]} args
 */
export function must(command, args) {
  const { status } = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit' });
  if (status !== 0) {
    console.error(`${command} ${args.join(' ')} did not succeed.`);
    process.exit(status ?? 1);
  }
}

/** Installs the packages when they are missing or older than the lockfile. */
export function ensureInstalled() {
  const installed = join(ROOT, 'node_modules/.package-lock.json');
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(join(ROOT, 'package-lock.json')).mtimeMs) return;
  console.log('Installing packages (the database driver compiles for about a minute) …');
  must('npm', ['ci', '--no-audit', '--no-fund']);
}

/** Builds when a source file changed since the last build. */
export function ensureBuilt() {
  const hash = createHash('sha256');
  for (const folder of ['core', 'library', 'server', 'web'])
    for (const file of sources(join(ROOT, folder))) hash.update(file).update(readFileSync(file));
  hash.update(readFileSync(join(ROOT, 'package-lock.json')));
  const now = hash.digest('hex');
  if (
    existsSync(STAMP) &&
    readFileSync(STAMP, 'utf8') === now &&
    existsSync(SERVER) &&
    existsSync(join(ROOT, 'web/dist/index.html'))
  )
    return;
  console.log('Building …');
  must('npm', ['run', '--silent', 'build']);
  mkdirSync(join(STAMP, '..'), { recursive: true });
  writeFileSync(STAMP, now);
}

/**
 * Files that a build depends on.
 * @param {string} folder
 * @returns {string[]}
 */
function sources(folder) {
  return readdirSync(folder, { withFileTypes: true })
    .filter(({ name }) => !['dist', 'bundle', 'node_modules'].includes(name) && !name.endsWith('.tsbuildinfo'))
    .flatMap((entry) => (entry.isDirectory() ? sources(join(folder, entry.name)) : [join(folder, entry.name)]))
    .sort();
}

/** Nobody signs in on this machine, so that its pages open by themselves. */
export const OPEN_DOOR = { name: 'Trainer', open: true };

/**
 * Says on a fresh server who runs the studio.
 * @param {string} address
 * @param {{ name: string, open: boolean, passphrase?: string }} door
 */
export const openDoor = (address, door = OPEN_DOOR) =>
  fetch(`${address}/api/door/begin`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(door),
  });

const BROWSERS = ['chromium', 'chromium-browser', 'google-chrome', 'google-chrome-stable'];

/**
 * The path of a Chromium; installs Debian's when there is none and apt is there.
 * @returns {string | null}
 */
export function ensureBrowser() {
  const found = process.env.CHROMIUM ?? findBrowser();
  if (found) return found;
  if (spawnSync('apt-get', ['--version']).status !== 0) return null;
  console.log('Installing Chromium …');
  /** @type {import('node:child_process').SpawnSyncOptions} */
  const quiet = { stdio: ['ignore', 'ignore', 'inherit'] };
  spawnSync('apt-get', ['update'], quiet);
  spawnSync('apt-get', ['install', '-y', '--no-install-recommends', 'chromium'], quiet);
  return findBrowser();
}

function findBrowser() {
  for (const name of BROWSERS)
    try {
      return execFileSync('which', [name], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }).trim();
    } catch {
      // Not this one.
    }
  return null;
}
