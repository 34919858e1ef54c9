/** One picture of each main view, from the demo studio, for the README. */
import { join } from 'node:path';

import type { Page } from '@playwright/test';

import { expect, test } from './studio.js';

const FOLDER = join(import.meta.dirname, '../docs/screenshots');

/** The clock and the dates would make every picture new; the demo studio is counted from today in any case. */
const shoot = async (page: Page, name: string): Promise<void> => {
  await page.evaluate(() => document.fonts.ready);
  // Pictures in view are there: the first to ask for one waits until it is drawn. One behind others may never be asked for.
  const arePicturesThere = () =>
    [...document.images]
      .filter((image) => image.getBoundingClientRect().top < innerHeight)
      .every(({ complete, naturalWidth }) => complete && naturalWidth > 0);
  await page.waitForFunction(arePicturesThere, undefined, { timeout: 5_000 }).catch(() => undefined);
  await page.screenshot({ path: join(FOLDER, `${name}.png`), animations: 'disabled' });
};

test('the desk', async ({ page, studio }) => {
  await page.goto(studio.address);
  await page.locator('ul[aria-label^="What to know"][aria-busy=false] li').first().waitFor();
  await expect(page.locator('[aria-busy=true]')).toHaveCount(0);
  await shoot(page, 'today');
  await page.goto(`${studio.address}/library`);
  await page.locator('img[src*="/stills/"]').nth(5).waitFor();
  await page.waitForLoadState('networkidle');
  await shoot(page, 'library');
  await page.goto(`${studio.address}/library/goblet-squat`);
  await page.locator('summary', { hasText: 'Knees cave in' }).click();
  await page.getByRole('button', { name: 'Bottom' }).click();
  await shoot(page, 'movement');
  await page.goto(`${studio.address}/people/${await studio.clientId('Joaquim Peel')}`);
  await page
    .getByText(/helped \d+ of/)
    .first()
    .waitFor();
  await page.getByText('Rungs now').waitFor();
  await shoot(page, 'person');
});

test('the library at work', async ({ page, studio }) => {
  const open = (path: string) => page.goto(`${studio.address}/library${path}`);
  await open('');
  await page.getByRole('textbox', { name: 'Find a movement or a fault' }).fill('knees fall in');
  await page.getByRole('region', { name: 'Faults' }).locator('canvas').nth(1).waitFor();
  await shoot(page, 'library-search');
  await open('/compare?ids=cross-behind-lunge,reverse-lunge,side-lunge');
  await page.getByRole('table').waitFor();
  await shoot(page, 'compare');
  const who = await Promise.all(['Osei Brandt', 'Dagny Holt', 'Joaquim Peel'].map((name) => studio.clientId(name)));
  await open(`/map?family=squat&at=bodyweight-squat&who=${who.join(',')}`);
  await page.getByTitle('Osei Brandt').waitFor();
  await shoot(page, 'ladder');
  await open(`/goblet-squat/swap?reason=pain&client=${await studio.clientId('Joaquim Peel')}`);
  await page.getByText('spares the knee').first().waitFor();
  await shoot(page, 'swap');
  await open('/figures?family=squat');
  await page.getByRole('link', { name: 'Bodyweight squat', exact: true }).scrollIntoViewIfNeeded();
  await page
    .getByRole('img', { name: /^Bodyweight squat: / })
    .last()
    .waitFor();
  await shoot(page, 'figures');
  await open('/goblet-squat/edit?at=cues');
  await page.getByLabel('Words of cue 1', { exact: true }).waitFor();
  await shoot(page, 'edit');
});

test('planning', async ({ page, studio }) => {
  await studio.plan(page, ['Ilka Varga', 'Rasmus Tolle'], 45);
  await page.getByText('Saved', { exact: true }).waitFor();
  await shoot(page, 'plan');
  await page.getByRole('link', { name: 'Sheet' }).first().click();
  await page.getByRole('heading', { name: 'Mind' }).waitFor();
  await page.locator('main img, article img').first().scrollIntoViewIfNeeded();
  await shoot(page, 'sheet');
});

test('the floor and the review', async ({ page, studio }) => {
  await studio.openFloor(page, 'Osei Brandt', 'Goblet squat');
  const done = page.getByRole('button', { name: 'Set done' });
  const medium = page.getByRole('button', { name: 'Medium' });
  await done.click();
  await medium.click();
  await shoot(page, 'floor-teach');
  await page.getByRole('button', { name: 'Knees cave in' }).click();
  await page.getByRole('button', { name: 'Fixed' }).waitFor();
  await shoot(page, 'floor-correct');
  await page.getByRole('button', { name: 'No change' }).click();
  await page.getByRole('button', { name: 'Fixed' }).click();
  await done.click();
  await medium.click();
  await page.getByRole('button', { name: /^Easier/ }).click();
  await done.click();
  await page.getByRole('button', { name: 'Easy' }).click();
  await page.getByText('All saved').waitFor();
  await page.getByRole('button', { name: 'Finish' }).click();
  await page
    .getByText(/towards|ready for/)
    .first()
    .waitFor();
  await shoot(page, 'review');
});

test('the floor with four, at stations', async ({ page, studio }) => {
  const names = ['Osei Brandt', 'Ilka Varga', 'Rasmus Tolle', 'Dagny Holt'];
  const lines = ['hip-thrust', 'push-up', 'forearm-plank', 'two-hand-swing'].map((movementId) => ({
    movementId,
    amount: 10,
    rest: 20,
  }));
  await studio.openPlan(page, names, [{ kind: 'circuit', rounds: 2, workSeconds: 5, lines }]);
  await page.getByRole('button', { name: 'Start the clock' }).click();
  // The change of stations, with what is to be logged.
  await page.getByRole('button', { name: /^Log \d/ }).waitFor();
  await shoot(page, 'floor-four');
  await page.goto(`${page.url()}/wall`);
  await page.getByRole('timer').waitFor();
  await shoot(page, 'wall');
});

test('the floor in the dim theme, at a stop', async ({ page, studio }) => {
  await page.addInitScript(() => localStorage.setItem('waxwing-theme', 'waxwing-dim'));
  await studio.openFloor(page, 'Dagny Holt', 'Bent-over row');
  await page.getByRole('button', { name: 'Back rounds under load' }).click();
  await page.getByRole('alert', { name: 'Stop' }).waitFor();
  await shoot(page, 'floor-stop-dim');
});

test('watching', async ({ page, studio }) => {
  await page.goto(`${studio.address}/sight?clip=squat-side-short`);
  await page.getByRole('table', { name: 'By rep' }).waitFor({ timeout: 150_000 });
  await page.getByRole('img', { name: 'Bodyweight squat, clean, at the same moment' }).waitFor();
  await page.getByRole('region', { name: 'Clip' }).scrollIntoViewIfNeeded();
  await shoot(page, 'sight');
});
