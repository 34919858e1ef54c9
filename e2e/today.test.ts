/** The first page: the day as it is, other days, a plan that goes elsewhere, and the very first start. */
import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { emptyPlan } from '@waxwing/core/planning';

import { expect, type Studio, test } from './studio.js';

/** Plans of the demo come at fixed hours: the clock stands still at noon, so that what is past and to come is known. */
const NOON = new Date();
NOON.setHours(12, 0, 0, 0);

const planned = (page: Page, day: RegExp) =>
  page.getByRole('navigation', { name: 'Week' }).getByRole('button', { name: day });
const dayName = (days: number): RegExp => {
  const at = new Date(NOON);
  at.setDate(at.getDate() + days);
  return new RegExp(`\\b${at.getDate()} ${at.toLocaleDateString('en-GB', { month: 'long' })}\\b`);
};

async function planFor(page: Page, studio: Studio, name: string, at: Date): Promise<void> {
  const plan = { ...emptyPlan([await studio.clientId(name)], 60), name: `Hour of ${name}`, startsAt: at.toISOString() };
  const answer = await page.request.post(`${studio.address}/api/plans`, { data: { plan } });
  expect(answer.status()).toBe(201);
}

test('the day says who comes and what to know first, moves to other days, and a plan is moved and repeated by keyboard, and dragged', async ({
  page,
  studio,
}) => {
  await page.clock.setFixedTime(NOON);
  const evening = new Date(NOON);
  evening.setHours(19, 30);
  await planFor(page, studio, 'Osei Brandt', evening);
  await page.goto(studio.address);
  await page.getByRole('heading', { level: 1, name: 'Today' }).waitFor();
  const hour = (name: string) =>
    page.getByRole('listitem').filter({ has: page.getByRole('link', { name, exact: true }) });
  const dagny = hour('Dagny Holt').first();
  await expect(dagny.getByRole('list', { name: 'What to know of Dagny Holt' })).toContainText('was still there');
  await expect(hour('Joaquim Peel').first()).toContainText('Deep knee bend');
  await expect(hour('Osei Brandt').first()).toContainText('still empty');
  await expect(page.locator('[aria-busy=true]')).toHaveCount(0);
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);

  // By keyboard alone: to the day after tomorrow, and again a week later.
  const osei = hour('Osei Brandt').first();
  await osei.getByRole('button', { name: 'Move or repeat' }).press('Enter');
  const dialog = page.getByRole('dialog', { name: 'Move Hour of Osei Brandt' });
  await dialog.getByRole('combobox').selectOption('1');
  const later = new Date(evening);
  later.setDate(later.getDate() + 2);
  const field = new Date(later.getTime() - later.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
  await dialog.getByLabel('Day and time').fill(field);
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  await dialog.getByRole('button', { name: 'Move and repeat' }).press('Enter');
  await expect(dialog).toBeHidden();
  await expect(page.getByRole('link', { name: 'Osei Brandt', exact: true })).toHaveCount(0);
  const monday = new Date(NOON);
  if (monday.getDay() > 5 || monday.getDay() === 0) await page.getByRole('button', { name: 'The week after' }).click();
  await planned(page, dayName(2)).click();
  await expect(hour('Osei Brandt').first()).toContainText('19:30');
  await page.getByRole('button', { name: 'The week after' }).click();
  await expect(hour('Osei Brandt').first()).toContainText('19:30');

  // Dragged to the neighbouring day, at the same hour.
  const from = hour('Osei Brandt').first().getByTitle('Drag Hour of Osei Brandt to another day');
  const shown = page.getByRole('navigation', { name: 'Week' }).locator('[aria-current=date]');
  const days = page.getByRole('navigation', { name: 'Week' }).getByRole('listitem');
  const place = (await days.allInnerTexts()).indexOf(await shown.innerText());
  const to = place > 0 ? place - 1 : place + 1;
  const target = await days.nth(to).boundingBox();
  const grip = await from.boundingBox();
  if (!target || !grip) throw new Error('nothing to drag');
  await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
  await page.mouse.down();
  await page.mouse.move(grip.x + 30, grip.y - 20, { steps: 4 });
  const aim = { x: target.x + target.width / 2, y: target.y + target.height / 2 };
  await page.mouse.move(aim.x, aim.y, { steps: 8 });
  // A hand lets go when the day shows that it would take it.
  await expect(async () => {
    await page.mouse.move(aim.x + 3, aim.y);
    await page.mouse.move(aim.x, aim.y);
    await expect(days.nth(to).getByRole('button')).toHaveAttribute('data-over', 'true', { timeout: 1000 });
  }).toPass();
  await page.mouse.up();
  await expect(days.nth(to)).toContainText('Osei');
  await days.nth(to).getByRole('button').click();
  await expect(hour('Osei Brandt').first()).toContainText('19:30');
});

test('who has nobody yet is led in three steps to the first session', async ({ page, emptyStudio }) => {
  await page.goto(emptyStudio.address);
  await page.getByRole('heading', { name: 'Welcome to Waxwing' }).waitFor();
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  await page.getByRole('link', { name: 'Add a client' }).click();
  await page.getByLabel('Name').fill('Ada Bo');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('heading', { name: 'Ada Bo' }).waitFor();
  await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: 'Today' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Your first client' })).toContainText('done');
  await page.getByRole('link', { name: 'Plan a session' }).click();
  await page.getByRole('button', { name: 'Make the plan' }).click();
  await page.getByRole('region', { name: 'Tape' }).waitFor();
  await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: 'Today' }).click();
  await expect(page.getByRole('link', { name: 'Ada Bo', exact: true })).toBeVisible();
});
