/** Work of the page that is counted, where time would depend on the machine: bytes of programs and pictures, and parts that are drawn. */
import { gzipSync } from 'node:zlib';

import type { Page } from '@playwright/test';

import { expect, test } from './studio.js';

/** The bytes of what a page fetches of a kind, each file once. */
function fetched(page: Page, isWanted: (url: string) => boolean): Map<string, number> {
  const sizes = new Map<string, number>();
  page.on('response', (answer) => {
    const url = answer.url();
    if (isWanted(url)) void answer.body().then((body) => sizes.set(url, gzipSync(body).length));
  });
  return sizes;
}

test('a screen fetches little to begin with, and draws no more of a library than is seen', async ({ page, studio }) => {
  const programs = fetched(page, (url) => /\/assets\/.*\.js$/.test(url));
  const pictures = fetched(page, (url) => url.includes('/stills/'));
  await page.goto(`${studio.address}/library`);
  const list = page.getByRole('region', { name: 'Movements' });
  await list.getByRole('listitem').nth(5).waitFor();
  const total = [...programs.values()].reduce((sum, size) => sum + size, 0);
  expect(total).toBeGreaterThan(100_000);
  expect(total).toBeLessThan(260_000);
  const parts = () => page.evaluate(() => document.querySelectorAll('main *').length);
  expect(await parts()).toBeLessThan(800);
  await list.evaluate((pane) => pane.scrollTo(0, 9_000));
  await expect.poll(() => pictures.size).toBeGreaterThan(8);
  expect(await parts()).toBeLessThan(800);
  // Small ones: drawings of hundreds of curves made every list slow to scroll.
  expect(Math.max(...pictures.values())).toBeLessThan(6_000);
});
