/** What the figures share: middle values, folders and servers that are gone afterwards, and a browser where there is one. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';

import { startOn } from './big-studio.mjs';
import { ensureBrowser } from './prepare.mjs';

/** @typedef {(what: string, figure: number, unit: string, most: number) => void} Row */
/** @typedef {import('@playwright/test').Page} Page */

/** @param {number[]} numbers @param {number} share */
const at = (numbers, share) => numbers.toSorted((a, b) => a - b)[Math.floor(numbers.length * share)] ?? NaN;
/** @param {number[]} numbers */
export const median = (numbers) => at(numbers, 0.5);
/** @param {number[]} numbers */
export const p95 = (numbers) => at(numbers, 0.95);
/** @param {number[]} numbers */
export const p99 = (numbers) => at(numbers, 0.99);

/** Unmeasured runs first: enough for every kind of query to have run twice. */
const WARM_UP = 14;

/**
 * Milliseconds of `runs` calls after a few to warm up.
 * @param {number} runs
 * @param {(run: number) => unknown} act
 */
export async function times(runs, act) {
  /** @type {number[]} */
  const took = [];
  for (let run = -WARM_UP; run < runs; run += 1) {
    const start = performance.now();
    await act(run < 0 ? run + WARM_UP : run);
    if (run >= 0) took.push(performance.now() - start);
  }
  return took;
}

/**
 * Their median.
 * @param {number} runs
 * @param {(run: number) => unknown} act
 */
export const time = async (runs, act) => median(await times(runs, act));

/**
 * @template T
 * @param {(folder: string) => Promise<T>} act
 */
export async function inFolder(act) {
  const folder = mkdtempSync(join(tmpdir(), 'waxwing-bench-'));
  try {
    return await act(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/**
 * In a page of a window of its own, which is closed afterwards; not at all, and said so, where there is no browser.
 * @param {(page: Page) => Promise<void>} act
 */
export async function inPage(act) {
  const executablePath = ensureBrowser();
  if (!executablePath) {
    console.error('No Chromium was found and none could be installed: the page was not measured.');
    return;
  }
  const { chromium } = await import('@playwright/test');
  const browser = await chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu'] });
  try {
    // A context of its own: what is measured may open a second page beside it.
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    await act(await context.newPage());
  } finally {
    await browser.close();
  }
}

/**
 * The same in front of a demo studio of its own.
 * @param {(page: Page, address: string) => Promise<void>} act
 */
export const inDemo = (act) =>
  inFolder(async (folder) => {
    const { address, stop } = await startOn(folder, {}, undefined, ['--demo']);
    await inPage((page) => act(page, address));
    await stop();
  });
