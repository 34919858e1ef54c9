/** The figures of the desk: how soon a screen stands after a press, and what jumps while it comes. */

import { median } from './measure.mjs';

/** @typedef {import('./measure.mjs').Row} Row */
/** @typedef {import('./measure.mjs').Page} Page */

const RUNS = 9;
const SCREENS = [
  '/',
  '/library',
  '/library/goblet-squat',
  '/people',
  '/plan',
  '/plan/new',
  '/floor',
  '/review',
  '/studio',
];

/**
 * Milliseconds from a press on a link until something stands on the page.
 * @param {Page} page
 * @param {string} selector of the link
 * @param {string} stands a selector
 */
const pressed = (page, selector, stands) =>
  page.evaluate(
    ([link, wanted]) =>
      new Promise((resolve, reject) => {
        const from = document.querySelector(link ?? '');
        if (!(from instanceof HTMLElement)) return reject(new Error(`no ${link}`));
        const began = performance.now();
        const look = () =>
          document.querySelector(wanted ?? '') ? resolve(performance.now() - began) : requestAnimationFrame(look);
        from.click();
        requestAnimationFrame(look);
      }),
    [selector, stands],
  );

/**
 * What moved by itself while a screen came, as a browser scores it.
 * @param {Page} page
 * @param {string} address
 */
async function shifts(page, address) {
  await page.goto(address);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await page.waitForLoadState('networkidle');
  return page.evaluate(
    () =>
      new Promise((resolve) => {
        new PerformanceObserver((list) =>
          resolve(list.getEntries().reduce((sum, one) => sum + ('value' in one ? Number(one.value) : 0), 0)),
        ).observe({ type: 'layout-shift', buffered: true });
        // Nothing moved, and nothing is reported.
        setTimeout(() => resolve(0), 300);
      }),
  );
}

/**
 * @param {Row} row
 * @param {Page} page
 * @param {string} address of the demo
 */
export async function atTheDesk(row, page, address) {
  /** @type {number[]} */
  const today = [];
  /** @type {number[]} */
  const movement = [];
  for (let run = 0; run < RUNS; run += 1) {
    await page.goto(`${address}/review`);
    await page.getByRole('heading', { level: 1 }).waitFor();
    today.push(
      /** @type {number} */ (
        await pressed(page, 'nav a[href="/"]', 'ul[aria-label^="What to know"][aria-busy="false"] li')
      ),
    );
    await page.goto(`${address}/library`);
    await page.locator('a[href^="/library/"] img').first().waitFor();
    movement.push(
      /** @type {number} */ (await pressed(page, '[role=list] a[href^="/library/"]:not([href*="map"])', 'article h1')),
    );
  }
  row('Today after a press, with what to know of everybody', median(today), 'ms', 500);
  row('a movement page after a press', median(movement), 'ms', 300);
  /** @type {[string, number][]} */
  const moved = [];
  for (const screen of SCREENS) moved.push([screen, /** @type {number} */ (await shifts(page, `${address}${screen}`))]);
  const [worst, score] = moved.reduce((most, one) => (one[1] > most[1] ? one : most));
  row(`what jumps while a screen comes, at most (${worst})`, score, 'CLS', 0.02);
}
