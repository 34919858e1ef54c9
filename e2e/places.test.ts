import { expect, test } from './studio.js';

test('a session at home goes by what is at home: the plan, the floor, a weight that is typed and kept, and the sheet', async ({
  page,
  studio,
}) => {
  const clientId = await studio.clientId('Osei Brandt');
  await page.goto(`${studio.address}/plan/new`);
  await page.getByText('Osei Brandt', { exact: true }).click();
  await page.getByLabel('Where').selectOption({ label: 'Osei’s home' });
  await page.getByLabel('Minutes').fill('30');
  await page.getByRole('button', { name: 'Make the plan' }).click();
  await page.getByRole('region', { name: 'Tape' }).waitFor();
  await expect(page.getByText(/kit is not here|cannot be made/)).toHaveCount(0);
  // What he squats with in the studio is not at home; the bell and the backpack are.
  const weights = page.getByLabel(/^Weight of /).first();
  await expect(weights.locator('option')).toContainText([/weight/, '10 kg backpack', '12 kg bell']);

  // In the studio the same lines are dosed with what is there.
  await page.getByLabel('Where').selectOption({ label: 'The Net Loft' });
  await expect(weights.locator('option', { hasText: '20 kg' }).first()).toBeAttached();
  await page.getByLabel('Where').selectOption({ label: 'Osei’s home' });
  await expect(weights.locator('option', { hasText: '20 kg' })).toHaveCount(0);
  await page.getByText('Saved', { exact: true }).waitFor();
  await page.getByRole('link', { name: /sheet/i }).first().click();
  await expect(page.getByRole('article')).toContainText('Osei’s home');
  await page.goBack();

  await page.getByRole('button', { name: 'To the floor' }).click();
  await expect(page.getByText('at Osei’s home')).toBeVisible();
  await page.getByRole('button', { name: 'Order of the session' }).click();
  await page.getByRole('button', { name: 'Put in a movement' }).click();
  await page.getByRole('searchbox', { name: 'Find a movement' }).fill('goblet');
  await page.getByRole('button', { name: /^Goblet squat/ }).click();
  const set = page.getByRole('region', { name: 'Set' });
  const load = set.getByRole('group', { name: 'load' });
  await load.locator('output').getByRole('button').click();
  const sheet = page.getByRole('dialog', { name: 'Weight for goblet squat' });
  const form = sheet.getByRole('form', { name: 'Another weight' });
  await form.getByLabel('What').selectOption('Jug');
  await form.getByRole('button', { name: /keep it/ }).click();
  await expect(form.getByRole('alert')).toContainText('from 0.1 to 500 kg');
  await form.getByLabel('Weighs, kg').fill('6,5');
  await form.getByRole('button', { name: 'Use it, and keep it at Osei’s home' }).click();
  await expect(sheet).toBeHidden();
  await expect(load).toContainText('6.5 kg jug');
  await set.getByRole('button', { name: 'Set done' }).click();
  await expect(page.getByText('All saved')).toBeVisible();
  await page.goto(`${studio.address}/people/${clientId}`);
  await expect(page.getByText('jug 6.5 kg')).toBeVisible();
});

test('a place beside the studio is kept with its kit and room, and a plan there goes by them', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/studio`);
  await page.getByRole('button', { name: 'Add a place' }).click();
  await page.getByLabel('Name of place 2').fill('Room 12');
  await page.getByLabel('Room of place 2').selectOption({ label: 'a mat' });
  await page.getByRole('button', { name: 'Add kit of Room 12' }).click();
  await page.getByLabel('Room 12: item 1').selectOption('Chair');
  await page.getByLabel('Room 12: how many of item 1').fill('1');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.goto(`${studio.address}/plan/new`);
  await page.getByText('Dagny Holt', { exact: true }).click();
  await page.getByLabel('Where').selectOption({ label: 'Room 12' });
  await expect(page.getByRole('combobox', { name: 'Room', exact: true })).toHaveValue('mat');
  await page.getByRole('button', { name: 'Make the plan' }).click();
  await page.getByRole('region', { name: 'Tape' }).waitFor();
  await expect(page.getByText(/kit is not here|cannot be made/)).toHaveCount(0);
  await expect(page.getByLabel(/^Weight of /)).toHaveCount(0);
});
