import type { Page } from '@playwright/test';

import { expect, find, type Studio, test } from './studio.js';

interface Stored {
  type: string;
  clientId: string;
  at: string;
  data: Record<string, unknown>;
}

/** What the server has of a session. */
async function stored(studio: Studio, page: Page): Promise<Stored[]> {
  const id = /\/(?:floor|review)\/([\w-]+)/.exec(page.url())?.[1] ?? '';
  const answer = await fetch(`${studio.address}/api/sessions/${id}`);
  return ((await answer.json()) as { events: Stored[] }).events;
}

const countOf = (events: readonly Stored[], type: string) => events.filter((event) => event.type === type).length;
const save = (page: Page) => page.getByRole('status').filter({ hasText: /saved|kept|Saving/ });

test('an hour with one client, by keyboard, with the network cut twice and the page opened anew without a server', async ({
  page,
  studio,
}) => {
  await studio.plan(page, ['Tove Lindqvist'], 45);
  await page.getByRole('button', { name: 'To the floor' }).click();
  const set = page.getByRole('region', { name: 'Set' });
  const now = page.getByRole('region', { name: 'Now' });
  await set.waitFor();
  await expect(page.getByText('of 45 min')).toBeVisible();
  await expect(save(page)).toHaveText('All saved');
  await expect(page.getByText('Works without network')).toBeAttached({ timeout: 30_000 });
  const done = page.getByRole('heading', { name: 'All done' });
  const place = async (): Promise<string> =>
    [
      await now.locator('.font-bold').allInnerTexts(),
      await set.getByText(/^Set \d/).allInnerTexts(),
      await done.allInnerTexts(),
    ].join();
  let presses = 0;
  const doSets = async (most: number) => {
    for (let i = 0; i < most; i += 1) {
      if (await done.isVisible()) return;
      // Another set, another side or another movement: one of them changes with every set.
      const before = await place();
      await page.keyboard.press('s');
      presses += 1;
      await expect.poll(place).not.toBe(before);
      if (await page.getByRole('group', { name: 'How did it feel?' }).isVisible()) {
        await page.keyboard.press('2');
        await expect(page.getByRole('group', { name: 'How did it feel?' })).toHaveCount(0);
      }
    }
  };
  await doSets(5);
  await studio.stop();
  await doSets(4);
  await expect(save(page)).toContainText('kept on this device');
  // The server is gone and the page is opened anew: it is all here.
  const seen = await set.getByText(/^Set \d/).innerText();
  await page.reload();
  await expect(set.getByText(/^Set \d/)).toHaveText(seen, { timeout: 30_000 });
  await page.keyboard.press('m');
  await find(page, 'glute bridge');
  await expect(page.getByRole('button', { name: /^Glute bridge/ }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();
  await doSets(2);
  await studio.start();
  await expect(save(page)).toHaveText('All saved', { timeout: 30_000 });
  await page.context().setOffline(true);
  await doSets(3);
  await expect(save(page)).toContainText('kept on this device');
  await page.context().setOffline(false);
  await doSets(60);
  await expect(done).toBeVisible();
  await expect(save(page)).toHaveText('All saved', { timeout: 30_000 });
  expect(countOf(await stored(studio, page), 'set-done')).toBe(presses);
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page).toHaveURL(/\/review\//);
  await expect(page.getByRole('heading', { name: 'Planned and not done' })).toHaveCount(0);
  // Nobody was asked how the warm-up felt, and nothing is said of it.
  await expect(page.getByRole('listitem').filter({ hasText: /^Warm-up and stretch: the same again \(/ })).toBeVisible();
  await expect(page.getByText('not noted')).toHaveCount(0);
  await expect(page.getByRole('region', { name: 'Over the weeks' })).toBeVisible();
});

test.describe('by touch on a tablet', () => {
  test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true });

  test('an hour with four, round the stations by the clock, with the network cut: everybody was everywhere once a round', async ({
    page,
    studio,
  }) => {
    const names = ['Osei Brandt', 'Ilka Varga', 'Rasmus Tolle', 'Dagny Holt'];
    const people = await studio.openPlan(page, names, [
      { kind: 'strength', lines: [{ movementId: 'goblet-squat', sets: 1 }] },
      {
        kind: 'circuit',
        rounds: 2,
        workSeconds: 5,
        lines: ['hip-thrust', 'push-up', 'bodyweight-squat', 'glute-bridge'].map((movementId) => ({
          movementId,
          rest: 4,
        })),
      },
    ]);
    const lanes = page.getByRole('tablist', { name: 'Clients' });
    const lane = (name: string) => lanes.getByRole('tab', { name: new RegExp(`^${name}`) });
    const set = page.getByRole('region', { name: 'Set' });
    for (const name of ['Dagny', 'Ilka', 'Osei', 'Rasmus']) {
      await lane(name).tap();
      await expect(lane(name)).toHaveAttribute('aria-selected', 'true');
      await set.getByRole('button', { name: 'Set done' }).tap();
      await page.getByRole('group', { name: 'How did it feel?' }).getByRole('button', { name: 'Medium' }).tap();
      await expect(lane(name)).not.toContainText('Goblet squat');
    }
    await expect(lane('Osei')).toContainText(/Rest\s*0:\d\d/);
    const clock = page.getByRole('region', { name: 'Clock' });
    await expect(clock).toContainText('8 turns of 5 s, 4 s between');
    await clock.getByRole('button', { name: 'Start the clock' }).tap();
    await expect(clock).toContainText('turn 1 of 8');
    await expect(lane('Osei')).toContainText('Hip thrust');
    await expect(lane('Ilka')).toContainText('Push-up');
    // The change is announced, with where everybody goes.
    await expect(clock).toContainText('Osei → Push-up');
    await expect(clock).toContainText('turn 2 of 8');
    await page.context().setOffline(true);
    await clock.getByRole('button', { name: /^Log \d/ }).tap();
    await expect(save(page)).toContainText('kept on this device');
    await clock.getByRole('button', { name: 'Hold' }).tap();
    await expect(clock).toContainText('held');
    const time = clock.getByRole('timer', { name: 'Clock of the circuit' });
    const held = await time.innerText();
    await page.reload();
    await expect(time).toHaveText(held);
    await page.context().setOffline(false);
    await clock.getByRole('button', { name: 'Go on' }).tap();
    await expect(clock).toContainText('All turns done', { timeout: 90_000 });
    await clock.getByRole('button', { name: /^Log \d/ }).tap();
    await expect(page.getByRole('heading', { name: 'All done' })).toBeVisible();
    await expect(save(page)).toHaveText('All saved', { timeout: 30_000 });
    const events = await stored(studio, page);
    for (const clientId of people) {
      const begun = events.filter((event) => event.clientId === clientId && event.type === 'movement-started');
      expect(begun.map(({ data }) => data.movementId).sort()).toEqual(
        ['bodyweight-squat', 'glute-bridge', 'goblet-squat', 'hip-thrust', 'push-up'].sort(),
      );
      expect(events.filter((event) => event.clientId === clientId && event.type === 'set-done')).toHaveLength(9);
    }
  });

  test('four lanes keep their own timers, three levels go to each their own, and one for all', async ({
    page,
    studio,
  }) => {
    await studio.openPlan(
      page,
      ['Osei Brandt', 'Ilka Varga', 'Joaquim Peel'],
      [
        {
          kind: 'strength',
          lines: [
            { movementId: 'bodyweight-squat', sets: 2 },
            { movementId: 'forearm-plank', sets: 2, amount: 20 },
          ],
        },
      ],
    );
    const lane = (name: string) => page.getByRole('tab', { name: new RegExp(`^${name}`) });
    const set = page.getByRole('region', { name: 'Set' });
    await set.getByRole('button', { name: 'Tempo' }).tap();
    await lane('Joaquim').tap();
    await page.getByRole('button', { name: 'Order of the session' }).tap();
    const plank = page.getByRole('dialog').getByRole('listitem').filter({ hasText: 'Forearm plank' });
    await plank.getByRole('button', { name: 'Go to' }).tap();
    await set.getByRole('button', { name: 'Start' }).tap();
    await expect(lane('Joaquim')).toContainText(/Work\s*0:1\d/);
    await expect(lane('Ilka')).toContainText(/Work\s*Rep \d/);
    // A hold in pieces: what was held adds up.
    await set.getByRole('button', { name: 'Broke' }).tap();
    await expect(lane('Joaquim')).toContainText('Held');
    const left = await set.getByRole('timer').innerText();
    await set.getByRole('button', { name: 'Go on' }).tap();
    await expect(lane('Joaquim')).toContainText('Work');
    expect(left).toMatch(/0:\d\d/);
    await lane('Osei').tap();
    await page.getByRole('button', { name: 'Levels' }).tap();
    const sheet = page.getByRole('dialog', { name: 'Bodyweight squat, three levels' });
    const row = sheet.getByRole('listitem').filter({ hasText: 'Osei' });
    await row.getByRole('button').last().tap();
    await expect(lane('Osei')).not.toContainText('Bodyweight squat');
    await expect(lane('Ilka')).toContainText('Bodyweight squat');
    await sheet.getByRole('button', { name: 'Close', exact: true }).tap();
    await lane('Ilka').tap();
    await page.getByRole('button', { name: 'Levels' }).tap();
    const everybody = page.getByRole('button', { name: /^Everybody to/ });
    const name = /^Everybody to (.*): open to all/.exec(await everybody.innerText())?.[1] ?? 'nothing';
    await everybody.tap();
    for (const who of ['Osei', 'Ilka', 'Joaquim']) await expect(lane(who)).toContainText(new RegExp(name, 'i'));
  });
});

test('the order can be changed on the way, time that runs out names what to drop, and the record can be put right', async ({
  page,
  studio,
}) => {
  const lines = ['goblet-squat', 'push-up', 'glute-bridge'].map((movementId) => ({ movementId, sets: 3 }));
  await studio.openPlan(page, ['Dagny Holt'], [{ kind: 'strength', lines }], 5);
  const now = page.getByRole('region', { name: 'Now' });
  const set = page.getByRole('region', { name: 'Set' });
  await expect(page.getByRole('button', { name: /min over/ })).toBeVisible();
  await page.keyboard.press('o');
  const order = page.getByRole('dialog', { name: 'Order for Dagny' });
  const row = (name: string) => order.getByRole('listitem').filter({ hasText: name });
  const drop = order.getByRole('button', { name: /^Drop one set of/ }).first();
  const dropped = (await drop.innerText()).match(/one set of (.*): saves/)?.[1] ?? '';
  await drop.click();
  await expect(
    order
      .getByRole('listitem')
      .filter({ hasText: new RegExp(dropped, 'i') })
      .last(),
  ).toContainText('of 2');
  await row('Glute bridge').getByRole('button', { name: 'Drop', exact: true }).click();
  await expect(row('Glute bridge')).toHaveCount(0);
  await row('Push-up').getByRole('button', { name: 'Go to' }).click();
  await expect(now).toContainText('Push-up');
  await page.keyboard.press('s');
  await expect(set).toContainText('Set 2');
  await page.keyboard.press('k');
  await expect(page.getByRole('button', { name: /^Undo/ })).toContainText('left out');

  // A set that was written down wrongly is put right, and another one is taken back.
  await page.keyboard.press('l');
  const log = page.getByRole('dialog', { name: 'Log' });
  await log.getByLabel('Reps or seconds of this set').fill('5');
  await page.keyboard.press('Enter');
  await expect(log.getByText('set corrected: 5').first()).toBeVisible();
  await log.getByLabel(/^Note about/).fill('asked about the harbour race');
  await log.getByRole('button', { name: 'Note', exact: true }).click();
  await expect(log.getByText('note: asked about the harbour race').first()).toBeVisible();
  await log.getByRole('button', { name: /^Take back set 2 left out/ }).click();
  await page.keyboard.press('Escape');
  await expect(set).toContainText('so far 5');
  await expect(set).toContainText('Set 2');

  // A fault that has no button is found by how it looks; what is no fault becomes a note.
  await page.keyboard.press('/');
  await page.keyboard.type('hips sinck');
  await page
    .getByRole('button', { name: /Hips sag/ })
    .first()
    .click();
  await expect(page.getByRole('group', { name: 'Did it work?' })).toBeVisible();

  // The movement goes out of the library meanwhile; the session goes on with it.
  const { version } = (await (await fetch(`${studio.address}/api/movements/push-up`)).json()) as { version: number };
  const archived = await fetch(`${studio.address}/api/movements/push-up/archive`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ version, archived: true }),
  });
  expect(archived.ok).toBe(true);
  await page.reload();
  await expect(now).toContainText('Hips sag');
  await set.getByRole('button', { name: 'Set done' }).click();
  await expect(save(page)).toHaveText('All saved');
  await page.getByRole('button', { name: 'Finish' }).click();
  // What is open is asked about once.
  const open = page.getByRole('dialog', { name: 'Not all of it is done' });
  await expect(open.getByRole('listitem').first()).toContainText(/\d sets?/);
  await open.getByRole('button', { name: 'Finish, and keep it for next time' }).click();
  await expect(page.getByText('Planned and not done')).toBeVisible();
  await expect(page.getByText('asked about the harbour race')).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'Push-up' }).first()).toContainText(/5 · \d+ reps/);
  const href = await page.getByRole('link', { name: 'Sets as CSV' }).getAttribute('href');
  const csv = await (await fetch(`${studio.address}${href ?? ''}`)).text();
  expect(csv.split('\n').filter((one) => one.includes('push-up'))).toHaveLength(2);
});

test('a device that will not store a tap says so at once, sends it all the same, and gives a file', async ({
  page,
  studio,
}) => {
  await studio.openFloor(page, 'Tove Lindqvist', 'Goblet squat');
  await expect(save(page)).toHaveText('All saved');
  await page.evaluate(() => {
    const refuse = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    IDBObjectStore.prototype.put = refuse;
  });
  await studio.stop();
  await page.getByRole('button', { name: 'Set done' }).click();
  const alarm = page.getByRole('alert').filter({ hasText: 'only in memory' });
  await expect(alarm).toBeVisible();
  await expect(page.getByRole('region', { name: 'Set' })).toContainText('Set 2');
  const file = page.waitForEvent('download');
  await alarm.getByRole('button', { name: 'Save a file' }).click();
  expect((await file).suggestedFilename()).toMatch(/^waxwing-session-.*\.json$/);
  await studio.start();
  await expect(alarm).toHaveCount(0, { timeout: 30_000 });
  expect(countOf(await stored(studio, page), 'set-done')).toBe(1);
});

test('a clock set back by an hour changes no timer, and two devices far apart see one session', async ({
  browser,
  page,
  studio,
}) => {
  await studio.openFloor(page, 'Tove Lindqvist', 'Goblet squat');
  const set = page.getByRole('region', { name: 'Set' });
  await set.getByRole('button', { name: 'Set done' }).click();
  const rest = set.getByRole('timer', { name: 'Rest' });
  await expect(rest).toBeVisible();
  const seconds = async () => {
    const [, minutes = '0', left = '0'] = /(\d):(\d\d)/.exec(await rest.innerText()) ?? [];
    return Number(minutes) * 60 + Number(left);
  };
  const before = await seconds();
  await page.evaluate(() => {
    const real = Date.now.bind(Date);
    Date.now = () => real() - 3_600_000;
  });
  await expect.poll(seconds).toBeLessThan(before - 1);
  expect(await seconds()).toBeGreaterThan(before - 30);
  await set.getByRole('button', { name: 'Set done' }).click();
  await expect(set).toContainText('Set 3');
  const events = await stored(studio, page);
  expect(events.map(({ at }) => at)).toEqual(events.map(({ at }) => at).sort());

  const elsewhere = await browser.newContext();
  const other = await elsewhere.newPage();
  await other.goto(page.url());
  await expect(other.getByRole('region', { name: 'Set' })).toContainText('Set 3');
  await other.getByRole('button', { name: 'Knees cave in' }).click();
  await expect(page.getByRole('group', { name: 'Did it work?' })).toBeVisible();
  await elsewhere.close();
});

test('the emergency card is one press away everywhere, with the studio’s own words and number', async ({
  page,
  studio,
}) => {
  for (const path of ['/library', '/people', '/studio']) {
    await page.goto(`${studio.address}${path}`);
    await page.getByRole('button', { name: 'Emergency' }).click();
    const card = page.getByRole('dialog', { name: 'Emergency' });
    await expect(card.getByRole('link', { name: '112' })).toHaveAttribute('href', 'tel:112');
    await expect(card).toContainText('foot of the stairs');
    await page.keyboard.press('Escape');
  }
  await page.getByLabel('What is done here').fill('Ring the harbour office.');
  await page.getByLabel('Number to call').fill('call Bo');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('must be a telephone number')).toBeVisible();
  await page.getByLabel('Number to call').fill('+1 555 01 00');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await studio.openFloor(page, 'Tove Lindqvist', 'Goblet squat');
  await page.keyboard.press('h');
  await expect(page.getByRole('dialog', { name: 'Emergency' })).toContainText('Ring the harbour office.');
});
