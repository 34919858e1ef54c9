/**
 * `npm test`: everything that CI checks. Prints each part's total and ends with `N passed, N failed`.
 * A check that cannot be run counts as failed, so that a green end means that all of it ran.
 */
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

import { CHECKS } from './checks.mjs';
import { ensureBrowser, ensureBuilt, ensureInstalled, ROOT } from './prepare.mjs';

ensureInstalled();
ensureBuilt();
const reports = mkdtempSync(join(tmpdir(), 'waxwing-test-'));

/**
 * @param {string} command
 * @param {string[]} args
 * @param {Record<string, string>} env
 */
const run = (command, args, env = {}) =>
  spawnSync(command, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, ...env } })
    .status === 0;

/** @type {{ part: string, passed: number, failed: number }[]} */
const totals = [];

/**
 * @param {string} part
 * @param {boolean} succeeded whether the runner itself ended well
 * @param {() => { passed: number, failed: number }} count
 */
function add(part, succeeded, count) {
  try {
    const { passed, failed } = count();
    totals.push({ part, passed, failed: !succeeded && failed === 0 ? 1 : failed });
  } catch {
    totals.push({ part, passed: 0, failed: 1 });
  }
}

/**
 * Says what a check had to say when it is done, so that two beside each other can be read.
 * @param {import('./checks.mjs').Check} check
 * @returns {Promise<boolean>} whether all is well
 */
const pass = ({ name, command, args }) =>
  new Promise((resolve) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
    /** @type {Buffer[]} */
    const said = [];
    child.stdout.on('data', (part) => said.push(part));
    child.stderr.on('data', (part) => said.push(part));
    child.on('error', (error) => said.push(Buffer.from(`${error.message}\n`)));
    child.on('close', (code) => {
      process.stdout.write(Buffer.concat(said));
      console.log(`${code === 0 ? 'ok' : 'FAILED'} — ${name}`);
      resolve(code === 0);
    });
  });

// The first builds what the others read; those go two at a time.
const [build, ...others] = CHECKS;
let checksPassed = (await pass(build)) ? 1 : 0;
const waiting = [...others];
const lane = async () => {
  for (let check = waiting.shift(); check; check = waiting.shift()) if (await pass(check)) checksPassed += 1;
};
await Promise.all([lane(), lane()]);
totals.push({ part: 'checks', passed: checksPassed, failed: CHECKS.length - checksPassed });

const jestReport = join(reports, 'jest.json');
const jestGood = run('npx', ['jest', '--json', `--outputFile=${jestReport}`], {
  NODE_OPTIONS: '--experimental-vm-modules --no-warnings',
});
add('unit and server', jestGood, () => {
  const { numPassedTests, numFailedTests, numFailedTestSuites } = JSON.parse(readFileSync(jestReport, 'utf8'));
  return { passed: numPassedTests, failed: Math.max(numFailedTests, numFailedTestSuites) };
});

const browser = ensureBrowser();
if (browser) {
  const report = join(reports, 'playwright.json');
  const good = run(
    'npx',
    ['playwright', 'test', '--config', 'e2e/playwright.config.ts', '--project', 'journeys', '--reporter', 'list,json'],
    {
      CHROMIUM: browser,
      PLAYWRIGHT_JSON_OUTPUT_NAME: report,
    },
  );
  add('journeys', good, () => {
    const { expected, unexpected } = JSON.parse(readFileSync(report, 'utf8')).stats;
    return { passed: expected, failed: unexpected };
  });
} else {
  console.error(
    'No Chromium was found and none could be installed: the journeys did not run. Set CHROMIUM to the path of one.',
  );
  totals.push({ part: 'journeys', passed: 0, failed: 1 });
}

rmSync(reports, { recursive: true });
for (const { part, passed, failed } of totals) console.log(`${part}: ${passed} passed, ${failed} failed`);
const sum = (/** @type {'passed' | 'failed'} */ key) => totals.reduce((total, row) => total + row[key], 0);
console.log(`${sum('passed')} passed, ${sum('failed')} failed`);
process.exitCode = sum('failed') === 0 ? 0 : 1;
