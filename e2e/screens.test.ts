import type { Page } from '@playwright/test';

import { expect, test } from './studio.js';

/** How far a screen is wider than its window: what a finger would have to push sideways. */
const overflow = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const main = document.querySelector('main');
    return Math.max(
      0,
      (main?.scrollWidth ?? 0) - (main?.clientWidth ?? 0),
      document.body.scrollWidth - window.innerWidth,
    );
  });

/** Words that a line ends in the middle of. */
const torn = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    const found: string[] = [];
    for (let node = walk.nextNode(); node; node = walk.nextNode()) {
      if (!node.parentElement?.checkVisibility() || node.parentElement.closest('.sr-only, svg')) continue;
      for (const word of (node.textContent ?? '').matchAll(/[\p{L}\d’']+/gu)) {
        const range = document.createRange();
        range.setStart(node, word.index);
        range.setEnd(node, word.index + word[0].length);
        const lines = [...range.getClientRects()].filter(({ width }) => width > 0).map(({ top }) => Math.round(top));
        if (new Set(lines).size > 1) found.push(word[0]);
      }
    }
    return found;
  });

for (const [name, width, height] of [
  ['a tablet upright', 820, 1180],
  ['a phone', 390, 844],
] as const)
  test(`no screen is cut off, and no word torn, on ${name}`, async ({ page, studio }) => {
    await page.setViewportSize({ width, height });
    const person = `/people/${await studio.clientId('Joaquim Peel')}`;
    const plan = new URL(await studio.plan(page, ['Ilka Varga', 'Rasmus Tolle'], 45)).pathname;
    for (const path of [
      '/library',
      '/library?q=knees+fall+in',
      '/library/reverse-lunge',
      '/library/goblet-squat/edit',
      '/library/goblet-squat/history',
      '/library/goblet-squat/swap?reason=pain',
      '/library/goblet-squat/card',
      '/library/map?family=lunge',
      '/library/figures?family=hinge',
      '/library/health',
      '/library/transfer',
      '/people',
      person,
      `${person}/edit`,
      `${person}/today`,
      '/plan',
      '/plan/new',
      plan,
      `${plan}/sheet/${await studio.clientId('Ilka Varga')}`,
      '/sight',
      `/sight?client=${await studio.clientId('Tove Lindqvist')}&movement=goblet-squat`,
      '/floor',
      '/review',
      '/studio',
    ]) {
      await page.goto(`${studio.address}${path}`);
      await page.getByRole('heading', { level: 1 }).waitFor();
      await expect(page.getByText(/^Fetching/)).toHaveCount(0);
      expect.soft(await overflow(page), path).toBe(0);
      expect.soft(await torn(page), path).toEqual([]);
    }
  });

test('a picture is attached, a wrong one refused, and both leave the movement as it was', async ({ page, studio }) => {
  await page.goto(`${studio.address}/library/wall-sit`);
  const chooser = page.getByLabel('Picture file');
  const png = await page.getByRole('heading', { level: 1 }).screenshot();
  await chooser.setInputFiles({ name: 'side.png', mimeType: 'image/png', buffer: png });
  const picture = page.getByRole('img', { name: 'side.png' });
  await expect(picture).toBeVisible();
  // An image is in the page before its bytes are.
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(10);
  await chooser.setInputFiles({ name: 'side.png', mimeType: 'image/png', buffer: Buffer.from('MZ not a picture') });
  await expect(page.getByRole('alert')).toContainText('is not a PNG, JPEG or WebP picture');
  await page.reload();
  await expect(page.getByRole('img', { name: 'side.png' })).toHaveCount(1);
  await page.getByRole('button', { name: 'Remove picture side.png' }).click();
  await expect(page.getByRole('img', { name: 'side.png' })).toHaveCount(0);
  await page.reload();
  await expect(page.getByText('None yet. PNG, JPEG or WebP')).toBeVisible();
});

test('a movement that a session used is archived and stays in its review', async ({ page, studio }) => {
  await page.goto(`${studio.address}/review`);
  await page
    .getByRole('link', { name: /Osei Brandt/ })
    .first()
    .click();
  const done = page.getByRole('listitem').filter({ hasText: 'Goblet squat' }).first();
  await expect(done).toContainText(/\d+ sets?/);
  const review = page.url();
  await page.goto(`${studio.address}/library/goblet-squat/history`);
  await page.getByRole('button', { name: 'Archive this movement' }).click();
  await expect(page.getByText('Archived. Sessions that used it keep it.')).toBeVisible();
  await page.goto(`${studio.address}/library?q=goblet`);
  await expect(
    page.getByRole('region', { name: 'Found movements' }).getByRole('link', { name: /^Level \d+ ?Goblet squat/ }),
  ).toHaveCount(0);
  await page.goto(review);
  await expect(done).toContainText(/\d+ sets?/);
  await page.goto(`${studio.address}/library/transfer`);
  await page.getByRole('region', { name: 'Archived' }).getByRole('link', { name: 'Goblet squat' }).click();
  await page.getByRole('button', { name: 'Put it back in the library' }).click();
  await expect(page.getByText('Back in the library.')).toBeVisible();
});

test('a list from a spreadsheet changes names, and a wrong header changes nothing', async ({ page, emptyStudio }) => {
  await page.goto(`${emptyStudio.address}/library/transfer`);
  const csv = await (
    await page.request.get(`${emptyStudio.address}/api/library/movements.csv?ids=wall-sit,box-squat`)
  ).text();
  const chooser = page.getByLabel('File to import');
  const file = (content: string) => ({ name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(content) });
  await chooser.setInputFiles(file(csv.replace('tempo', 'pace')));
  await expect(page.getByRole('alert')).toContainText('has no column "tempo"');
  await chooser.setInputFiles(file(csv.replace('Box squat', 'Crate squat')));
  await page.getByText('1 difference').click();
  await expect(page.getByText('Box squat → Crate squat')).toBeVisible();
  await page.getByRole('button', { name: 'Import 1 movement' }).click();
  await expect(page.getByText('1 movement was imported.')).toBeVisible();
  await page.goto(`${emptyStudio.address}/library/box-squat`);
  await expect(page.getByRole('heading', { level: 1, name: 'Crate squat' })).toBeVisible();
});

test('the library by keyboard alone, in a place with nobody in it', async ({ page, emptyStudio }) => {
  await page.goto(`${emptyStudio.address}/library`);
  await page.getByRole('link', { name: /Bodyweight squat/ }).waitFor();
  await page.keyboard.press('/');
  await page.keyboard.type('side plank');
  const first = page.getByRole('region', { name: 'Found movements' }).getByRole('link').first();
  await expect(first).toContainText('Side plank');
  await first.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Side plank' })).toBeVisible();
  await page.locator('summary', { hasText: 'Hip sags' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('As the hip starts to sink.')).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('textbox', { name: 'Find a movement or a fault' })).toHaveValue('side plank');
  await page.keyboard.press('/');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('navigation', { name: 'Families' })).toBeVisible();
});
