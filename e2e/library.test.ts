import { readFile } from 'node:fs/promises';

import type { Page } from '@playwright/test';

import { expect, test } from './studio.js';

test('a newcomer finds a movement by what it looks like, compares it, makes an easier version, breaks and mends its health, and takes the library out and in', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/library`);
  await page
    .getByRole('textbox', { name: 'Find a movement or a fault' })
    .fill('the lunge where the foot crosses behind');
  const found = page.getByRole('region', { name: 'Found movements' });
  await found.getByRole('link', { name: /Cross-behind lunge(?! with)/ }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Cross-behind lunge' })).toBeVisible();

  await page.getByRole('link', { name: 'Compare with another' }).click();
  const add = page.getByRole('combobox', { name: 'Add a movement' });
  await add.fill('Reverse lunge');
  await expect(page.getByRole('columnheader', { name: /^Reverse lunge/ })).toBeVisible();
  await add.fill('Side lunge');
  const move = page.getByRole('row', { name: /^The move/ });
  await expect(move).toContainText('Draw an arc on the floor behind to the other corner');
  await expect(move).toContainText('Reach the toe back to a tile behind you');
  await expect(page.getByText('The same in all')).toBeVisible();

  await page.getByRole('link', { name: 'Cross-behind lunge', exact: true }).click();
  await page.getByRole('link', { name: 'Make a copy' }).click();
  await page.getByRole('button', { name: 'An easier version' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Held cross-behind lunge');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Held cross-behind lunge' })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'Cross-behind lunge · less support' })).toBeVisible();

  await page.getByRole('link', { name: 'On its ladder' }).click();
  await page.getByRole('button', { name: 'Remove the link to Cross-behind lunge' }).click();
  await expect(page.getByRole('button', { name: /^Remove the link/ })).toHaveCount(0);
  await page.goto(`${studio.address}/library/health`);
  const gap = page.getByRole('listitem').filter({ hasText: 'Held cross-behind lunge · On no ladder' });
  await expect(gap).toBeVisible();
  await gap.getByRole('link', { name: /^Fix/ }).click();
  await page.getByRole('button', { name: 'Add a link' }).click();
  await page.getByLabel('Movement of link 1').selectOption('cross-behind-lunge');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('heading', { level: 1, name: 'Held cross-behind lunge' }).waitFor();
  await page.goto(`${studio.address}/library/health`);
  await expect(page.getByText('gaps, worst first')).toBeVisible();
  await expect(gap).toHaveCount(0);

  await page.goto(`${studio.address}/library/transfer`);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Library pack (JSON)' }).click();
  const text = await readFile(await (await download).path(), 'utf8');
  const changed = text.replace('"Held cross-behind lunge"', '"Steadied cross-behind lunge"');
  const file = (name: string, content: string) => ({
    name,
    mimeType: 'application/json',
    buffer: Buffer.from(content),
  });
  const chooser = page.getByLabel('File to import');
  await chooser.setInputFiles(file('cut.json', text.slice(0, 900)));
  await expect(page.getByRole('alert')).toContainText('line 1, column 901 is not JSON');
  await chooser.setInputFiles(file('waxwing.json', changed));
  const row = page.getByRole('listitem').filter({ hasText: 'changed here and in the file' });
  await expect(row).toHaveCount(1);
  await row.getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Import 1 movement' }).click();
  await expect(page.getByText('1 movement was imported.')).toBeVisible();
  await page.goto(`${studio.address}/library/held-cross-behind-lunge/history`);
  await expect(page.getByText('Held cross-behind lunge → Steadied cross-behind lunge')).toBeVisible();
});

test('a movement that says less than its figure shows is saved, and says so in the form, on its page and in the health', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/library/goblet-squat/edit?at=demands`);
  await page
    .getByRole('region', { name: 'Asks for' })
    .getByRole('combobox', { name: /^Deep knee bend/ })
    .selectOption('a little');
  const less = page.getByRole('status').filter({ hasText: 'Deep knee bend: shown clearly, said a little' });
  await expect(less).toBeVisible();
  await page.getByRole('button', { name: 'Save' }).click();
  await page.waitForURL(/goblet-squat$/);
  await expect(less).toBeVisible();
  await page.goto(`${studio.address}/library/health`);
  await expect(page.getByRole('listitem').filter({ hasText: 'Goblet squat · Figure shows more' })).toBeVisible();
});

test('unsaved changes survive a reload, leaving warns, errors stand at their fields, and a stale tab overwrites nothing', async ({
  context,
  page,
  studio,
}) => {
  const address = `${studio.address}/library/goblet-squat`;
  await page.goto(`${address}/edit`);
  const breath = page.getByLabel('Breath', { exact: true });
  await breath.fill('Out on the way up.');
  await expect(page.getByText('Not saved yet; kept on this device')).toBeVisible();
  page.once('dialog', (dialog) => void dialog.accept());
  await page.reload();
  await expect(page.getByText('Your unsaved changes are back.')).toBeVisible();
  await expect(breath).toHaveValue('Out on the way up.');
  await page.getByRole('link', { name: 'People' }).click();
  await expect(page.getByRole('alertdialog')).toContainText('These changes are not saved.');
  await page.getByRole('button', { name: 'Stay and save' }).click();

  // Another new movement does not inherit what was begun for the first.
  const begun = await context.newPage();
  await begun.goto(`${studio.address}/library/new?from=wall-sit&as=easier`);
  await begun.getByRole('textbox', { name: 'Name', exact: true }).first().fill('Quay sit');
  await expect(begun.getByText('Not saved yet; kept on this device')).toBeVisible();
  await begun.close();
  const fresh = await context.newPage();
  await fresh.goto(`${studio.address}/library/new`);
  await expect(fresh.getByRole('textbox', { name: 'Name', exact: true }).first()).toHaveValue('');
  await fresh.close();

  const first = page.getByLabel('Words of cue 1', { exact: true });
  await first.fill('');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.locator('.text-error', { hasText: /^must not be empty$/ })).toBeVisible();
  await first.fill('Hold the weight to your chest');

  // By keyboard: take the first cue up, carry it one down, put it down.
  await page.getByRole('button', { name: 'Move cue 1', exact: true }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(/^Now at place 1 of/).first()).toBeAttached();
  // The rows are measured after a cue is taken up: a key that comes before is not heard, and pressed again.
  await expect(async () => {
    if (await page.getByText(/^Now at place 1 of/).count()) await page.keyboard.press('ArrowDown');
    await expect(page.getByText(/^Now at place 2 of/).first()).toBeAttached({ timeout: 3000 });
  }).toPass();
  await page.keyboard.press('Space');
  await expect(page.getByLabel('Words of cue 2', { exact: true })).toHaveValue('Hold the weight to your chest');

  const other = await context.newPage();
  await other.goto(`${address}/edit`);
  await other.getByLabel('Name', { exact: true }).fill('Cup squat');
  await other.getByRole('button', { name: 'Save' }).click();
  await expect(other.getByRole('heading', { level: 1, name: 'Cup squat' })).toBeVisible();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert').first()).toContainText('is 1, but the current version is 2');

  // After a reload it is the trainer who decides between what was typed and what was saved since.
  page.once('dialog', (dialog) => void dialog.accept());
  await page.reload();
  const overtaken = page.getByRole('region', { name: /unsaved changes from version 1; version 2 was saved since/ });
  await expect(overtaken).toContainText('Cup squat → Goblet squat');
  await expect(breath).toBeDisabled();
  await overtaken.getByRole('button', { name: 'Put my changes into the form' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Goblet squat');
  await page.getByRole('button', { name: 'Discard them' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Cup squat');
  await other.goto(`${address}/history`);
  await expect(other.getByText('Goblet squat → Cup squat')).toBeVisible();
  await other.getByRole('button', { name: 'Restore version 1' }).click();
  await expect(other.getByText('Version 1 is back, as version 3.')).toBeVisible();
});

test('the ladder by arrow keys, a circle refused with its path, and where somebody stands', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/library/map?family=squat&at=goblet-squat`);
  const links = page.getByRole('complementary', { name: 'Links' });
  await expect(links.getByRole('heading', { name: 'Goblet squat' })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(links.getByRole('heading', { name: 'Bodyweight squat' })).toBeVisible();
  await page.getByLabel('Direction of the link').selectOption('easier');
  await page.getByRole('combobox', { name: 'Movement to link' }).fill('Barbell back squat');
  await expect(links.getByRole('alert')).toContainText('run in a circle');
  await expect(links.getByRole('alert')).toContainText('barbell-back-squat → bodyweight-squat');
  await page.getByRole('button', { name: 'Osei' }).click();
  await expect(page.getByTitle('Osei Brandt')).toBeVisible();
  await page.locator('h1').click();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Bodyweight squat' })).toBeVisible();
});

/** Where a rung of the map can be taken hold of. */
async function handle(page: Page, name: string, end: 'source' | 'target') {
  const rung = page.locator('.react-flow__node').filter({ has: page.getByText(name, { exact: true }) });
  const box = await rung.locator(`.react-flow__handle.${end}`).boundingBox();
  if (!box) throw new Error(`no handle at ${name}`);
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

/** Draws a link on the map, from the top of one rung to the bottom of another; a hand that misses opens the map anew and tries again. */
async function drag(page: Page, easier: string, harder: string): Promise<void> {
  const offered = page.getByRole('complementary', { name: 'Links' }).getByText(`A link to ${harder}`);
  let missed = false;
  await expect(async () => {
    if (missed) await page.reload();
    missed = true;
    await dragOnce(page, easier, harder);
    await expect(offered).toBeVisible({ timeout: 5000 });
  }).toPass();
}

async function dragOnce(page: Page, easier: string, harder: string): Promise<void> {
  await page.locator('.react-flow__controls-fitview').click();
  // The map glides to its place: a rung can be taken hold of when it has come to rest.
  let last = -1;
  await expect
    .poll(
      async () => {
        const { x, y } = await handle(page, easier, 'source');
        const rests = y < 800 && x + y === last;
        last = x + y;
        return rests;
      },
      { intervals: [200] },
    )
    .toBe(true);
  const from = await handle(page, easier, 'source');
  const to = await handle(page, harder, 'target');
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x + 15, to.y + 15, { steps: 8 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
}

test('a link is drawn by dragging from one rung to a harder one; one that closes a circle is refused with its path', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/library/map?family=hang&at=scapular-pull`);
  await drag(page, 'Dead hang', 'Flexed-arm hang');
  const links = page.getByRole('complementary', { name: 'Links' });
  const add = links.getByRole('button', { name: 'Add this link' });
  await add.waitFor();
  await links.getByLabel('Lever of the link').selectOption('a harder tempo');
  await add.click();
  await expect(links.getByRole('button', { name: 'Remove the link to Flexed-arm hang' })).toBeVisible();
  await drag(page, 'Slow lowering from the bar', 'Scapular pull');
  await add.click();
  await expect(links.getByRole('alert')).toContainText('flexed-arm-hang → slow-lowering');
  await page.goto(`${studio.address}/library/dead-hang`);
  await expect(page.getByRole('listitem').filter({ hasText: 'Flexed-arm hang · a harder tempo' })).toBeVisible();
});

test('filters, substitutes with their reasons, and another school', async ({ page, studio }) => {
  const joaquim = await studio.clientId('Joaquim Peel');
  await page.goto(`${studio.address}/library?q=squat&pattern=squat&client=${joaquim}`);
  const list = page.getByRole('region', { name: 'Found movements' });
  await expect(
    list.getByRole('link', { name: /Box squat Closed deep knee bend: left knee uneasy/ }).first(),
  ).toBeVisible();
  await page.getByLabel('Open or closed').selectOption('open only');
  await expect(list.getByRole('link', { name: /Closed/ })).toHaveCount(0);
  await page.getByLabel('Kit', { exact: true }).selectOption('No kit');
  // What can be done with nothing, whatever else it can be done with.
  await expect(list.getByRole('link', { name: /dumbbell/ }).filter({ hasNotText: /nothing|a wall/ })).toHaveCount(0);

  await page.goto(`${studio.address}/library/goblet-squat/swap?client=${joaquim}`);
  await page.getByRole('button', { name: 'Too hard' }).click();
  const best = page.getByRole('region', { name: 'Best first' });
  await expect(best.getByRole('listitem').first()).toContainText(/rungs? easier/);
  await expect(page.getByRole('region', { name: 'Ruled out' })).toContainText('left knee uneasy in depth');

  await page.goto(`${studio.address}/library/split-squat`);
  await expect(page.getByText('Chest upright over both feet')).toBeVisible();
  await page.getByText(/Other schools would say/).click();
  await expect(page.getByText('“Lean a little from the hip over the front thigh”')).toBeVisible();
  await page.goto(`${studio.address}/studio`);
  await page.getByLabel('Torso in a lunge').selectOption('A small lean from the hip');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved')).toBeVisible();
  await page.goto(`${studio.address}/library/split-squat`);
  await expect(page.getByText('Lean a little from the hip over the front thigh', { exact: true })).toBeVisible();
});

test('a fault that is searched for shows how it looks, and nothing is drawn while somebody types', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/library`);
  const box = page.getByRole('textbox', { name: 'Find a movement or a fault' });
  await box.fill('knees fall');
  const faults = page.getByRole('region', { name: 'Faults' });
  await faults.getByText('Knees fall in', { exact: true }).waitFor();
  // Pixels are on it, and a ring round what is wrong.
  const drawn = faults.getByRole('listitem').filter({ hasText: 'Knees fall in' }).first();
  await expect(drawn.locator('circle').first()).toBeVisible();
  await box.pressSequentially(' in', { delay: 20 });
  await expect(drawn.locator('circle').first()).toBeVisible();
  await drawn.getByRole('link').first().click();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
});
