import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { expect, find, test } from './studio.js';

const tape = (page: Page) => page.getByRole('region', { name: 'Tape' });
const saved = (page: Page) => page.getByText('Saved', { exact: true }).waitFor();

/** Seconds that the tape says. */
async function seconds(page: Page): Promise<number> {
  const words = await tape(page)
    .getByText(/^\d+ min.* of \d+/)
    .innerText();
  const [, minutes, rest] = /^(\d+) min(?: (\d+) s)?/.exec(words) ?? [];
  return Number(minutes) * 60 + Number(rest ?? 0);
}

test('a pair is planned in time: suggested, locked, suggested again, cut to a shorter slot, taken back, and kept', async ({
  page,
  studio,
}) => {
  const address = await studio.plan(page, ['Ilka Varga', 'Rasmus Tolle'], 45);
  expect(await seconds(page)).toBeLessThanOrEqual(45 * 60);
  await expect(page.getByText('Nothing: limits, kit, minutes and order are in line.')).toBeVisible();
  const strength = page.getByRole('region', { name: 'Strength', exact: true });
  const lock = strength.getByRole('button', { name: /^Lock / }).first();
  const kept = (await lock.getAttribute('aria-label'))?.replace('Lock ', '') ?? '';
  await lock.click();
  const before = await strength.getByRole('button', { name: /^Lock / }).count();
  await page.getByRole('button', { name: 'Suggest what is not locked' }).click();
  await expect(strength.getByRole('button', { name: `Lock ${kept}`, pressed: true })).toBeVisible();
  expect(await strength.getByRole('button', { name: /^Lock / }).count()).toBeGreaterThan(1);
  expect(before).toBeGreaterThan(1);

  await page.getByLabel('Minutes').fill('20');
  const over = page.getByText(/over the 20 minutes/);
  await expect(over).toBeVisible();
  await page.getByRole('button', { name: /^Take off / }).click();
  await expect(over).toBeHidden();
  expect(await seconds(page)).toBeLessThanOrEqual(20 * 60);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(over).toBeVisible();
  await saved(page);
  await page.goto(address);
  await expect(over).toBeVisible();
  await expect(strength.getByRole('button', { name: `Lock ${kept}`, pressed: true })).toBeVisible();
  await page.goto(`${studio.address}/plan`);
  await expect(page.getByRole('link', { name: /Ilka Varga and Rasmus Tolle.*20 min/ })).toBeVisible();
});

test('wrong doses are refused where they are typed, and a weight, a rung and the order change the tape', async ({
  page,
  studio,
}) => {
  await studio.plan(page, ['Osei Brandt'], 60);
  const reps = page.getByLabel(/^Reps of Push-up/);
  const right = await reps.inputValue();
  for (const wrong of ['0', '-5', 'many']) {
    await reps.fill(wrong);
    await expect(page.getByText('must be a whole number from 1 to 3600')).toBeVisible();
  }
  await reps.fill(right);
  const tempo = page.getByLabel(/^Tempo of Push-up/);
  await tempo.fill('3-x-1');
  await expect(page.getByText('must be lower-pause-rise-pause in seconds, such as 3-1-1-0')).toBeVisible();
  const before = await seconds(page);
  await tempo.fill('9-1-1-0');
  expect(await seconds(page)).toBeGreaterThan(before);
  await page.getByLabel(/^Weight of Romanian deadlift/).selectOption({ label: '2 × 20 kg' });
  await page.getByRole('button', { name: /^Easier than Push-up/ }).click();
  await expect(page.getByLabel(/^Reps of Push-up/)).toBeHidden();

  const items = tape(page).getByRole('button');
  const names = () => items.evaluateAll((all) => all.map((one) => one.getAttribute('aria-label')?.split(',')[0] ?? ''));
  const old = await names();
  // The first item of the strength block, one place later, without a mouse.
  await items.nth(3).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText(/Now at place 1 of/)).toBeAttached();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText(/Now at place 2/)).toBeAttached();
  await page.keyboard.press('Space');
  await expect.poll(names).toEqual([...old.slice(0, 3), old[4], old[3], ...old.slice(5)]);
  await page.getByRole('button', { name: 'Best order' }).click();
  await expect(page.getByText(/fewer|saved|rest better|already the best/)).toBeVisible();
  const next = page.getByRole('region', { name: 'What if' });
  await next.getByLabel('Reps done').fill('12');
  await next.getByLabel('Felt').selectOption('Easy');
  await expect(next.getByRole('status')).toContainText('Next:');
  await saved(page);
});

test('a closed movement is named with a way out, and changes made while the server is away are sent when it is back', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/plan/new`);
  await page.getByText('Joaquim Peel', { exact: true }).click();
  await page.getByText('Start empty').click();
  await page.getByRole('button', { name: 'Make the plan' }).click();
  await page.getByLabel('Add a block').selectOption('Strength');
  await page.getByLabel('Add a movement to strength').fill('Goblet squat');
  const warning = page.getByText(/Goblet squat is closed for Joaquim Peel: deep knee bend/);
  await expect(warning).toBeVisible();
  await page
    .getByRole('button', { name: /^Take / })
    .first()
    .click();
  await expect(warning).toBeHidden();
  await saved(page);
  await studio.stop();
  await page.getByLabel('Minutes').fill('35');
  await expect(page.getByText('Server away: kept here, sent when it is back')).toBeVisible();
  await studio.start();
  await saved(page);
  await page.reload();
  await expect(page.getByLabel('Minutes')).toHaveValue('35');
});

test('a sheet is printed, kept as files, and sent into the outbox', async ({ page, studio }) => {
  await studio.plan(page, ['Tove Lindqvist'], 45);
  await page.getByRole('link', { name: 'Sheet' }).click();
  await expect(page.getByRole('heading', { name: 'Mind' })).toBeVisible();
  await expect(page.getByText('Watch out:').first()).toBeVisible();
  for (const name of ['PDF, A4', 'PDF, Letter', 'Markdown', 'Calendar']) {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name, exact: true }).click(),
    ]);
    expect((await readFile(await download.path())).length).toBeGreaterThan(200);
  }
  await page.getByRole('button', { name: 'Send' }).click();
  await expect(page.getByRole('alert')).toContainText('has no address');
  await page.getByLabel('Send to').fill('tove@example.org');
  await page.getByRole('button', { name: 'Send' }).click();
  await page.getByRole('link', { name: 'outbox' }).click();
  await expect(page.getByText(/tove@example\.org/)).toBeVisible();
  await page.getByRole('button', { name: /^Remove Tove/ }).click();
  await expect(page.getByText(/tove@example\.org/)).toBeHidden();
});

test('who somebody is today, what a clinician must clear, what was measured, and their data out, gone and back', async ({
  page,
  studio,
}) => {
  const address = `${studio.address}/people/${await studio.clientId('Dagny Holt')}`;
  await page.goto(address);
  await page.getByRole('button', { name: 'Ask the questions' }).click();
  await page.getByLabel(/bone, joint or back trouble/).check();
  await page.getByRole('button', { name: 'Keep the answers' }).click();
  await expect(page.getByText('Speak with a qualified clinician first.')).toBeVisible();
  await page.getByLabel('Who gave clearance').fill('Dr Example');
  await page.getByRole('button', { name: 'Note clearance' }).click();
  await expect(page.getByText(/Cleared by Dr Example/)).toBeVisible();
  await page.getByLabel('Value').fill('14');
  await page.getByRole('button', { name: 'Note', exact: true }).click();
  await expect(page.getByText('14 reps')).toBeVisible();

  await page.getByRole('link', { name: 'Today' }).click();
  const knee = page.getByRole('button', { name: /^left knee/ });
  for (let i = 0; i < 3; i += 1) await knee.click();
  await expect(page.getByText('Impact: none')).toBeVisible();
  await expect(page.getByText(/Stop this movement and do not go back to it today/)).toBeVisible();
  await page.getByTitle('badly').click();
  await page.getByRole('button', { name: 'Save for today' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Dagny Holt' })).toBeVisible();
  await page.getByRole('link', { name: 'Plan', exact: true }).last().click();
  await page.getByText('Carry last time forward').click();
  await page.getByRole('button', { name: 'Make the plan' }).click();
  await tape(page).waitFor();
  // A lunge asks for balance and depth that a sharp knee must not give today.
  await expect(page.getByText(/Held today: poor sleep/).first()).toBeVisible();
  await expect(page.getByText('Forward lunge')).toHaveCount(0);
  await expect(page.getByText(/is closed for/)).toHaveCount(0);

  // Nor does the floor, whatever it is asked for.
  await page.goto(address);
  await page.getByRole('button', { name: 'Start a session' }).click();
  await find(page, 'Forward lunge');
  await expect(page.getByRole('button', { name: /^Forward lunge.*sharp pain at the knee today/ })).toBeDisabled();

  await page.goto(address);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Export all data' }).click(),
  ]);
  const path = await file.path();
  await page.getByRole('button', { name: 'Delete …' }).click();
  const forGood = page.getByRole('button', { name: 'Delete for good' });
  await page.getByLabel('Type the name to confirm').fill('Dagny');
  await expect(forGood).toBeDisabled();
  await page.getByLabel('Type the name to confirm').fill('Dagny Holt');
  await forGood.click();
  await expect(page.getByRole('link', { name: /Osei Brandt/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /Dagny Holt/ })).toHaveCount(0);
  const back = page.getByLabel('Bring back from a file');
  await back.setInputFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from('{"format":') });
  await expect(page.getByRole('alert')).toContainText('is not a client file');
  await back.setInputFiles(path);
  await expect(page.getByRole('heading', { level: 1, name: 'Dagny Holt' })).toBeVisible();
  await expect(page.getByText('14 reps')).toBeVisible();
});
