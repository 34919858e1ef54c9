import { expect, find, test } from './studio.js';

test('an empty place says what to do, takes a first client, and shows errors beside their fields', async ({
  page,
  emptyStudio,
}) => {
  await page.goto(`${emptyStudio.address}/review`);
  await expect(page.getByText('No finished sessions yet')).toBeVisible();
  await page.goto(`${emptyStudio.address}/floor`);
  await expect(page.getByText('Nobody to train yet')).toBeVisible();
  await page.getByRole('link', { name: 'To the people' }).click();
  await page.getByRole('link', { name: 'Add a client' }).click();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('must not be empty')).toBeVisible();
  await page.getByLabel('Name').fill('x'.repeat(81));
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('must be at most 80 characters')).toBeVisible();
  await page.getByLabel('Name').fill('Ada Example');
  await page.getByRole('button', { name: 'Add a limit' }).click();
  await page.getByLabel('Demand of limit 1').selectOption('weight-on-wrist');
  await page.getByLabel('Most allowed for limit 1').selectOption('none');
  await page.getByLabel('Reason of limit 1').fill('sore wrist');
  await page.getByRole('button', { name: 'Add kit', exact: true }).click();
  await page.getByLabel('Weight of item 1').fill('8');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Ada Example' })).toBeVisible();
  await expect(page.getByText('Weight on the wrist')).toBeVisible();
  await expect(page.getByText('2 × dumbbell 8 kg')).toBeVisible();
});

test('the demo studio can be loaded into an empty place', async ({ page, emptyStudio }) => {
  await page.goto(`${emptyStudio.address}/people`);
  await page.getByRole('button', { name: 'Load the demo studio' }).click();
  await expect(page.getByRole('link', { name: /Joaquim Peel/ })).toBeVisible();
});

test('an edit from a stale page is refused and overwrites nothing', async ({ context, page, studio }) => {
  const address = `${studio.address}/people/${await studio.clientId('Ilka Varga')}`;
  await page.goto(`${address}/edit`);
  await page.getByLabel('Goal').fill('First');
  const other = await context.newPage();
  await other.goto(`${address}/edit`);
  await other.getByLabel('Goal').fill('Second');
  await other.getByRole('button', { name: 'Save' }).click();
  await expect(other.getByText('Second')).toBeVisible();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert')).toContainText('Somebody changed this client in the meantime.');
  await other.reload();
  await expect(other.getByText('Second')).toBeVisible();
});

test('the studio keeps its kit, and a movement without that kit is closed on the floor', async ({ page, studio }) => {
  await page.goto(`${studio.address}/studio`);
  const items = page.getByRole('button', { name: /^Remove item/ });
  await items.first().waitFor();
  while ((await items.count()) > 0) await items.first().click();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved')).toBeVisible();
  await page.goto(`${studio.address}/people/${await studio.clientId('Osei Brandt')}`);
  await page.getByRole('button', { name: 'Start a session' }).click();
  await expect(page.getByRole('button', { name: /^Goblet squat.*kit that is not here/ })).toBeDisabled();
  await find(page, 'push-up');
  await expect(page.getByRole('button', { name: /^Push-up Push-up/ })).toBeEnabled();
});

test('addresses that lead nowhere, and a server that is away, are told plainly', async ({ page, studio }) => {
  await page.goto(`${studio.address}/nowhere`);
  await expect(page.getByText('There is no such page')).toBeVisible();
  await page.goto(`${studio.address}/library/moon-squat`);
  await expect(page.getByText('There is nothing here')).toBeVisible();
  await page.getByRole('link', { name: 'To the day' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Today' })).toBeVisible();
  await page.goto(`${studio.address}/library/map?family=moon`);
  await expect(page.getByRole('combobox', { name: 'Family' })).toHaveValue('squat');
  // Of somebody who is not here nobody knows what is closed: no movement passes for open.
  for (const path of ['/library?fit=open&client=nobody', '/library/goblet-squat/swap?client=nobody']) {
    await page.goto(`${studio.address}${path}`);
    await expect(page.getByText('There is nothing here')).toBeVisible();
    await expect(page.getByRole('link', { name: /Bodyweight squat/ })).toHaveCount(0);
  }
  await page.goto(`${studio.address}/library`);
  await expect(page.getByRole('link', { name: /Bodyweight squat/ })).toBeVisible();
  await studio.stop();
  await page.getByRole('link', { name: 'Review' }).click();
  await expect(page.getByText('The server does not answer')).toBeVisible();
  await studio.start();
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Review' })).toBeVisible();
});

test('a browser that remembers nothing still shows every screen', async ({ page, studio }) => {
  await page.addInitScript(() => {
    Object.defineProperty(window, 'localStorage', {
      get: () => {
        throw new DOMException('refused', 'SecurityError');
      },
    });
  });
  for (const path of ['/', '/library', '/people', '/plan/new', '/studio']) {
    await page.goto(`${studio.address}${path}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  }
});

test('no screen breaks the content policy or says anything in the console', async ({ page, studio }) => {
  const said: string[] = [];
  page.on('console', (message) => message.type() === 'error' && said.push(message.text()));
  page.on('pageerror', (error) => said.push(error.message));
  for (const path of [
    '/',
    '/library',
    '/library/goblet-squat',
    '/people',
    '/plan/new',
    '/floor',
    '/review',
    '/studio',
  ]) {
    await page.goto(`${studio.address}${path}`);
    await page.getByRole('heading', { level: 1 }).waitFor();
    await expect(page.getByText(/^Fetching/)).toHaveCount(0);
  }
  await studio.openFloor(page, 'Tove Lindqvist', 'Goblet squat');
  expect(said).toEqual([]);
});

test('a condition is dated and proposes its usual limits, stands together on the page, and ends by a word that is kept', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/people/new`);
  await page.getByLabel('Name').fill('Ada Example');
  await page.getByLabel('Propose limits for').selectOption('High blood pressure');
  await expect(page.getByText(/Clear it with .* first; what they allow counts/)).toBeVisible();
  await expect(page.getByLabel(/^Demand of limit/)).toHaveCount(0);
  await page.getByLabel(/^Since /).fill('2026-01-05');
  await page.getByRole('button', { name: 'Propose its limits' }).click();
  const rows = page.getByLabel(/^Demand of limit/);
  await expect(rows).not.toHaveCount(0);
  const proposed = await rows.count();
  await expect(page.getByLabel('Reason of limit 1')).toHaveValue(/^High blood pressure: clear it with /);
  await expect(page.getByLabel('Last day of limit 1, empty if it lasts')).toHaveValue('');
  // The same again proposes nothing more, and what is taken out is not kept.
  await page.getByRole('button', { name: 'Propose its limits' }).click();
  await expect(page.getByText('The limits above cover what is usual.')).toBeVisible();
  await page.getByRole('button', { name: 'Remove limit 1', exact: true }).click();
  await page.getByRole('button', { name: 'Save' }).click();
  const held = page.getByRole('region', { name: 'High blood pressure' });
  await expect(held.getByText(/5 Jan/)).toBeVisible();
  await expect(held.getByRole('listitem')).toHaveCount(proposed - 1);
  await held.getByRole('button', { name: 'End “High blood pressure”' }).click();
  await held.getByLabel('Whose word ends it').fill('Dr Example');
  await held.getByRole('button', { name: 'End “High blood pressure”' }).click();
  await expect(held).toHaveCount(0);
  await expect(page.getByText(/High blood pressure: ended on the word of Dr Example/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/ended on the word of Dr Example/)).toBeVisible();
});

test('what stands in a form about somebody is not left to the browser to keep', async ({ page, studio }) => {
  const person = `${studio.address}/people/${await studio.clientId('Joaquim Peel')}`;
  for (const path of ['edit', 'today', '']) {
    await page.goto(`${person}/${path}`);
    const fields = page.locator('main :is(input, textarea, select)');
    await fields.first().waitFor();
    const kept = await fields.evaluateAll((all) =>
      all
        .map((one) => one as HTMLInputElement)
        .filter(({ autocomplete, form }) => (autocomplete || form?.autocomplete) !== 'off')
        .map(({ outerHTML }) => outerHTML.slice(0, 120)),
    );
    expect(kept, path).toEqual([]);
  }
});
