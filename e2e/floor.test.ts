import { expect, find, test } from './studio.js';

test('a client without a history chooses by pattern or by search, and closed movements say why', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/people`);
  await page.getByRole('link', { name: 'Add a client' }).click();
  await page.getByLabel('Name').fill('Ada Example');
  await page.getByRole('button', { name: 'Add a limit' }).click();
  await page.getByLabel('Demand of limit 1').selectOption('overhead');
  await page.getByLabel('Most allowed for limit 1').selectOption('none');
  await page.getByLabel('Reason of limit 1').fill('stiff shoulder');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('button', { name: 'Start a session' }).click();

  await expect(page.getByText('As last time')).toHaveCount(0);
  const patterns = page.getByRole('group', { name: 'By pattern' });
  await patterns.getByRole('button', { name: 'Push', exact: true }).click();
  await expect(
    page.getByRole('button', { name: /^Standing overhead press Closed: overhead: stiff shoulder/ }),
  ).toBeDisabled();
  await patterns.getByRole('button', { name: 'Pull', exact: true }).click();
  await expect(page.getByRole('button', { name: /overhead press/ })).toHaveCount(0);
  await find(page, 'wall push');
  await page.getByRole('button', { name: /^Wall push-up/ }).click();
  await expect(page.getByRole('region', { name: 'Now' })).toContainText('Wall push-up');
  await expect(page.getByRole('region', { name: 'Now' })).toContainText('not tried yet');
});

test('two devices on one session see one record', async ({ context, page, studio }) => {
  await studio.openFloor(page, 'Tove Lindqvist', 'Goblet squat');
  await expect(page.getByText('All saved')).toBeVisible();
  const other = await context.newPage();
  await other.goto(page.url());
  const set = (on: typeof page) => on.getByRole('region', { name: 'Set' });
  // Each shows what the other has done without being asked.
  await set(other).getByRole('button', { name: 'Set done' }).click();
  for (const device of [other, page]) await expect(set(device)).toContainText('Set 2');
  await set(page).getByRole('button', { name: 'Set done' }).click();
  for (const device of [other, page]) await expect(set(device)).toContainText('Set 3');
  await expect(other.getByText('All saved')).toBeVisible();
  await expect(page.getByText('All saved')).toBeVisible();
  await page.reload();
  await other.reload();
  await expect(set(page)).toContainText('Set 3');
  await expect(set(other)).toContainText('Set 3');
});

test('dull pain eases off and holds what is harder, in words, until it is taken back', async ({ page, studio }) => {
  await studio.openFloor(page, 'Osei Brandt', 'Goblet squat');
  const harder = page.getByRole('button', { name: /^Harder/ });
  await expect(harder).toHaveAttribute('aria-disabled', 'false');
  await page.getByRole('button', { name: 'Pain' }).click();
  await page.getByRole('button', { name: 'Dull pain: knee' }).click();
  await expect(harder).toHaveAttribute('aria-disabled', 'true');
  await expect(harder).toContainText('not after pain today');
  await expect(page.getByRole('button', { name: 'More: load' })).toBeDisabled();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(harder).toHaveAttribute('aria-disabled', 'false');
});

test('what a set was, how it felt and what was undone stand in the review to the rep', async ({ page, studio }) => {
  await studio.openFloor(page, 'Dagny Holt', 'Split squat');
  const set = page.getByRole('region', { name: 'Set' });
  const amount = set.getByRole('group', { name: 'reps' }).getByRole('status');
  const start = Number((await amount.innerText()).match(/\d+/)?.[0]);
  await set.getByRole('button', { name: 'More: reps' }).click();
  await set.getByRole('button', { name: 'Left done' }).click();
  await set.getByRole('button', { name: 'Less: reps' }).click();
  await set.getByRole('button', { name: 'Right done' }).click();
  await set.getByRole('button', { name: 'Hard' }).click();
  await set.getByRole('button', { name: 'Left done' }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(set).toContainText(`so far ${start + 1} left, ${start} right`);
  await expect(page.getByText('All saved')).toBeVisible();
  await page.getByRole('button', { name: 'Finish' }).click();
  const done = page.getByRole('listitem').filter({ hasText: 'Split squat' }).first();
  await expect(done).toContainText('1 set');
  await expect(done).toContainText(`${start + 1}`);
  await expect(done).toContainText(/hard/i);
});
