/** What a trainer feels in the page with 5,000 movements, and what the server gives of them. */
import { performance } from 'node:perf_hooks';

import { startOn } from './big-studio.mjs';
import { many, starter } from './many-movements.mjs';
import { inFolder, inPage, median, p95, time } from './measure.mjs';

const { packOf } = await import('@waxwing/core/formats');

/** @typedef {import('./measure.mjs').Row} Row */

/**
 * @param {Row} row
 * @param {import('./measure.mjs').Page} page
 * @param {string} address
 */
async function felt(row, page, address) {
  await page.goto(`${address}/library`);
  const box = page.getByRole('textbox', { name: 'Find a movement or a fault' });
  // Five letters to warm up, as everywhere in this table.
  await box.pressSequentially('squat');
  await page.locator('[data-words="squat"]').waitFor({ timeout: 60_000 });
  // From the keystroke until the rows that answer it are in the page, one letter after the other.
  const keystrokes = await page.evaluate(async () => {
    const input = /** @type {HTMLInputElement} */ (document.querySelector('header input'));
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set;
    const took = [];
    for (const query of ['knees fall in', 'goblet squat', 'single leg', 'push up', 'foot crosses behind', 'band row'])
      for (let end = 1; end <= query.length; end += 1) {
        const words = query.slice(0, end).trim();
        const shown = () => document.querySelector('[data-words]')?.getAttribute('data-words') === words;
        if (shown()) continue;
        const start = performance.now();
        set?.call(input, query.slice(0, end));
        input.dispatchEvent(new Event('input', { bubbles: true }));
        await new Promise((/** @type {(value?: unknown) => void} */ resolve) => {
          const watch = new MutationObserver(() => {
            if (!shown()) return;
            watch.disconnect();
            resolve();
          });
          watch.observe(document.body, { subtree: true, childList: true, attributes: true });
        });
        took.push(performance.now() - start);
        // The next letter comes when this answer is painted, as no finger is quicker than that.
        await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
      }
    return took;
  });
  row('a keystroke of a search among 5,000 in the page, p95', p95(keystrokes), 'ms', 16);

  await box.fill('');
  await page.locator('[aria-label="Movements"]').waitFor();
  const frames = await page.evaluate(async () => {
    const pane = /** @type {HTMLElement} */ (document.querySelector('[aria-label="Movements"]'));
    const took = [];
    let last = performance.now();
    for (let i = 0; i < 240; i += 1) {
      pane.scrollTop += 300;
      await new Promise(requestAnimationFrame);
      took.push(performance.now() - last);
      last = performance.now();
    }
    return took;
  });
  row('the longest frame while scrolling 5,000 movements', Math.max(...frames), 'ms', 50);

  /** @type {number[]} */
  const opened = [];
  for (let i = 0; i < 9; i += 1) {
    await page.goto(`${address}/library`);
    const link = page.locator('[aria-label="Movements"] a[href^="/library/"]:not([href*="?"])').first();
    await link.waitFor();
    const start = performance.now();
    await link.click();
    await page.getByRole('link', { name: 'Edit', exact: true }).waitFor();
    opened.push(performance.now() - start);
  }
  row('a movement page after a click', median(opened), 'ms', 300);

  for (let i = 1; i <= 4; i += 1) await page.request.post(`${address}/api/clients`, { data: { name: `Client ${i}` } });
  await page.goto(`${address}/plan/new`);
  for (let i = 1; i <= 4; i += 1) await page.getByText(`Client ${i}`, { exact: true }).click();
  const make = page.getByRole('button', { name: 'Make the plan' });
  await make.isEnabled();
  const stalled = page.evaluate(async () => {
    let longest = 0;
    let last = performance.now();
    while (!document.querySelector('[aria-label="Tape"]') && location.pathname === '/plan/new') {
      await new Promise(requestAnimationFrame);
      longest = Math.max(longest, performance.now() - last);
      last = performance.now();
    }
    return longest;
  });
  await make.click();
  row('the longest frame while a session is suggested among 5,000', await stalled, 'ms', 100);
  await page.getByRole('region', { name: 'Tape' }).waitFor();

  await page.goto(`${address}/library/figures?family=bridge`);
  await page.getByRole('button', { name: 'Play all' }).click();
  await page.addStyleTag({
    content: `main ul.ruled { display: grid; grid-template-columns: repeat(5, 240px) }
      main ul.ruled > li { display: block } main ul.ruled > li:nth-child(n + 7), main ul.ruled > li > ul { display: none }
      main ul.ruled .h-36, main ul.ruled .h-36 > div { width: 240px; height: 300px }`,
  });
  await page.locator('main .h-36 canvas').nth(5).waitFor();
  const beats = await page.evaluate(async () => {
    const seconds = 2;
    await new Promise((resolve) => setTimeout(resolve, 500));
    const all = [];
    for (let i = 0; i < 5; i += 1) {
      const began = performance.now();
      let shown = 0;
      while (performance.now() - began < seconds * 1000) {
        await new Promise(requestAnimationFrame);
        shown += 1;
      }
      all.push((performance.now() - began) / shown);
    }
    return all;
  });
  row('a frame with six figures of 240 × 300 playing', median(beats), 'ms', 33);
}

/** @param {Row} row */
export const amongMany = (row) =>
  inFolder(async (folder) => {
    const { address, stop } = await startOn(folder);
    const start = performance.now();
    const fresh = packOf(many.filter((movement) => !starter.some(({ id }) => id === movement.id)));
    const look = await fetch(`${address}/api/imports?kind=pack`, { method: 'POST', body: JSON.stringify(fresh) });
    const { importId, rows: found } = /** @type {import('@waxwing/core/formats').ImportPreview} */ (await look.json());
    const take = found.map(({ id }) => id);
    const answer = await fetch(`${address}/api/imports/${importId}/apply`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ take }),
    });
    if (!(await answer.text()).includes('"finished"')) throw new Error('the import did not finish');
    row('a pack of 5,000 movements looked at and taken in', (performance.now() - start) / 1000, 's', 10);

    const get = (/** @type {string} */ path) => async () =>
      void (await (await fetch(`${address}/api/movements${path}`)).arrayBuffer());
    row('GET all of 5,000 movements', await time(40, get('')), 'ms', 50);
    row('GET the first 100 of 5,000', await time(40, get('?limit=100')), 'ms', 50);
    row('search among 5,000', await time(40, get('?q=knees+cave&limit=100')), 'ms', 50);
    await inPage((page) => felt(row, page, address));
    await stop();
  });
