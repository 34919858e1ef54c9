import { expect, find, test } from './studio.js';

test('from finding a movement to reviewing the session, through a reload and a stopped server', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/library`);
  await page.getByRole('textbox', { name: 'Find a movement or a fault' }).waitFor();
  await page.keyboard.press('/');
  await page.keyboard.type('goblet');
  await page
    .getByRole('link', { name: /Goblet squat/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { level: 1, name: 'Goblet squat' })).toBeVisible();
  await expect(page.getByText('Drive your heels into the floor', { exact: true })).toBeVisible();
  await page.locator('summary', { hasText: 'Knees cave in' }).click();
  await expect(page.getByText('Loop band above the knees for one set.')).toBeVisible();

  await page.getByRole('link', { name: 'People' }).click();
  await page.getByRole('link', { name: /Osei Brandt/ }).click();
  await page.getByRole('button', { name: 'Start a session' }).click();
  await page.getByRole('button', { name: /^Goblet squat/ }).click();

  const now = page.getByRole('region', { name: 'Now' });
  const set = page.getByRole('region', { name: 'Set' });
  const saved = page.getByRole('status').filter({ hasText: /saved|kept|Saving/ });
  await expect(now).toContainText('Outward words helped');
  await set.getByRole('button', { name: 'Set done' }).click();
  await set.getByRole('button', { name: 'Medium' }).click();
  await expect(set).toContainText('Set 2');

  await page.getByRole('button', { name: 'Knees cave in' }).click();
  const said = now.locator('.big-words');
  await expect(said).toHaveText(/Screw both feet outward into the floor|Aim your elbows to slip inside your knees/);
  const first = await said.innerText();
  await expect(now).toContainText(/helped \d+ of \d+ times for this client/);
  await expect(now).toContainText('If not:');

  await expect(saved).toHaveText('All saved');
  await page.reload();
  await expect(said).toHaveText(first);
  await expect(set).toContainText('Set 2');

  await studio.stop();
  await now.getByRole('button', { name: 'No change' }).click();
  await expect(said).not.toHaveText(first);
  const second = await said.innerText();
  await now.getByRole('button', { name: 'Fixed' }).click();
  await set.getByRole('button', { name: 'Set done' }).click();
  await expect(set).toContainText('Set 3');
  await expect(saved).toContainText('5 taps kept on this device');
  await page.getByRole('button', { name: /^Easier/ }).click();
  await expect(now).toContainText('Bodyweight squat');

  await studio.start();
  await expect(saved).toHaveText('All saved', { timeout: 20_000 });
  await set.getByRole('button', { name: 'Set done' }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  // A swap keeps its place: what is left of the line is done so.
  await expect(set).toContainText('Set 3');
  await set.getByRole('button', { name: 'Set done' }).click();
  await expect(page.getByRole('heading', { name: 'All done' })).toBeVisible();
  await expect(saved).toHaveText('All saved');
  await page.getByRole('button', { name: 'Finish' }).click();

  await expect(page).toHaveURL(/\/review\//);
  await expect(page.getByRole('listitem').filter({ hasText: 'Goblet squat' }).first()).toContainText('2 sets');
  await expect(page.getByRole('listitem').filter({ hasText: 'Bodyweight squat' }).first()).toContainText('easier');
  const fault = page.getByRole('listitem').filter({ hasText: 'Knees cave in' }).first();
  await expect(fault).toContainText('Goblet squat · fixed');
  await expect(fault).toContainText(second);
  await expect(fault).toContainText(/fixed$/);
  await expect(page.getByText(/towards Goblet squat|ready for Goblet squat/)).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { level: 1, name: 'Osei Brandt' })).toBeVisible();

  // What was gone down from is not forgotten.
  await page.goto(`${studio.address}/people/${await studio.clientId('Osei Brandt')}`);
  const back = page.locator('section').filter({ has: page.getByRole('heading', { name: 'To come back to' }) });
  await expect(back.getByRole('listitem')).toContainText(/Goblet squat.*since.*Now Bodyweight squat\..*Goblet squat/s);
});

test('taps made while the server is away go out after the page was closed', async ({ context, page, studio }) => {
  await studio.openFloor(page, 'Tove Lindqvist', 'Goblet squat');
  const address = page.url();
  await expect(page.getByText('All saved')).toBeVisible();
  await studio.stop();
  await page.getByRole('button', { name: 'Set done' }).click();
  await expect(page.getByText('1 tap kept on this device')).toBeVisible();
  await page.close();
  await studio.start();
  const later = await context.newPage();
  await later.goto(address);
  await expect(later.getByRole('region', { name: 'Set' })).toContainText('Set 2');
  await expect(later.getByText('All saved')).toBeVisible();
});

test('limits close movements and never come back as a suggestion', async ({ page, studio }) => {
  await page.goto(`${studio.address}/people/${await studio.clientId('Wren Adeyemi')}`);
  await page.getByRole('button', { name: 'Start a session' }).click();
  await find(page, 'push-up');
  await expect(page.getByRole('button', { name: /^Push-up Closed.*right wrist dislikes weight on it/ })).toBeDisabled();
  await find(page, 'forearm plank');
  await page
    .getByRole('button', { name: /^Forearm plank/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Swap' }).click();
  const sheet = page.getByRole('dialog', { name: 'Swap the movement' });
  await sheet.getByRole('button', { name: 'Something else' }).click();
  await expect(sheet.getByRole('button', { name: /shoulder taps/ })).toHaveCount(0);
  await sheet.getByText(/^Ruled out/).click();
  await expect(sheet.getByText('Plank with shoulder taps')).toBeVisible();
  await expect(sheet.getByText(/weight on the wrist: right wrist dislikes/).first()).toBeVisible();
});

test('a stop fault takes over and holds everything harder until it is solved', async ({ page, studio }) => {
  await studio.openFloor(page, 'Osei Brandt', 'Romanian deadlift');
  const harder = page.getByRole('button', { name: /^Harder/ });
  await expect(harder).toHaveAttribute('aria-disabled', 'false');
  await page.getByRole('button', { name: 'Back rounds under load' }).click();
  await expect(page.getByRole('alert', { name: 'Stop' })).toContainText('Put the weights down');
  await expect(harder).toHaveAttribute('aria-disabled', 'true');
  await expect(page.getByRole('button', { name: 'More: load' })).toBeDisabled();
  await harder.click({ force: true });
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('alert', { name: 'Stop' })).toBeVisible();
  await page.getByRole('button', { name: 'Fixed' }).click();
  await expect(harder).toHaveAttribute('aria-disabled', 'false');
});

test('sharp pain ends the movement for today and offers what spares the region', async ({ page, studio }) => {
  await studio.openFloor(page, 'Dagny Holt', 'Dumbbell front squat');
  await page.getByRole('button', { name: 'Pain' }).click();
  await page.getByRole('button', { name: 'Sharp pain: knee' }).click();
  await expect(page.getByRole('alert')).toContainText('qualified clinician');
  await expect(page.getByRole('button', { name: /Set done/ })).toHaveCount(0);
  const instead = page.getByRole('region', { name: 'Instead' });
  await expect(instead.getByRole('button', { name: /squat|lunge/i })).toHaveCount(0);
  const first = instead.getByRole('button').first();
  await expect(first).toContainText('spares the knee');
  const name = (await first.locator('.font-bold').innerText()).trim();
  await first.click();
  await expect(page.getByRole('region', { name: 'Now' })).toContainText(name);
  await page.getByRole('button', { name: 'Next', exact: true }).click();
  await expect(page.getByRole('button', { name: /^Dumbbell front squat.*sharp pain in it today/ })).toBeDisabled();
});

test('the floor by keyboard alone, one side after the other', async ({ page, studio }) => {
  await studio.openFloor(page, 'Wren Adeyemi', 'Split squat');
  const set = page.getByRole('region', { name: 'Set' });
  await expect(set).toContainText('Left side');
  await page.keyboard.press('s');
  await expect(set).toContainText('Right side');
  await page.keyboard.press('s');
  await expect(set).toContainText('Set 2');
  await page.keyboard.press('3');
  await expect(set).toContainText('Last set felt hard');
  await page.keyboard.press('q');
  await expect(page.getByRole('group', { name: 'Did it work?' })).toBeVisible();
  await page.keyboard.press('f');
  await expect(page.getByRole('group', { name: 'Did it work?' })).toHaveCount(0);
  await page.keyboard.press('u');
  await expect(page.getByRole('group', { name: 'Did it work?' })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('region', { name: 'Now' })).toContainText('Supported split squat');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});
