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
  await page.getByRole('button', { name: 'Dull pain: neck' }).click();
  await expect(harder).toHaveAttribute('aria-disabled', 'true');
  await expect(harder).toContainText('not after pain today');
  await expect(page.getByRole('button', { name: 'More: load' })).toBeDisabled();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(harder).toHaveAttribute('aria-disabled', 'false');
});

test('what pain has closed is never led into: its reason, one tap to what is open, and all the same only on purpose', async ({
  page,
  studio,
}) => {
  const [clientId = ''] = await studio.openPlan(
    page,
    ['Tove Lindqvist'],
    [
      {
        kind: 'strength',
        lines: [
          { movementId: 'split-squat', sets: 2 },
          { movementId: 'goblet-squat', sets: 2 },
          { movementId: 'push-up', sets: 2 },
        ],
      },
    ],
  );
  const set = page.getByRole('region', { name: 'Set' });
  await set.getByRole('button', { name: 'Tempo' }).click();
  await page.getByRole('button', { name: 'Pain' }).click();
  const sheet = page.getByRole('dialog', { name: 'Where does it hurt, and how?' });
  await sheet.getByRole('button', { name: 'Left' }).click();
  await sheet.getByRole('button', { name: 'Sharp pain: knee' }).click();
  await expect(page.getByRole('alert')).toContainText('Stop: sharp pain at the left knee');
  await expect(page.getByRole('timer', { name: 'Work' })).toHaveCount(0);
  // The squat loads the same knee: nothing goes on to it.
  await expect(page.getByRole('button', { name: 'Go on to goblet squat' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Go on to push-up' }).click();
  await expect(set).toContainText('Set 1');
  await page.getByRole('button', { name: 'Order of the session' }).click();
  const order = page.getByRole('dialog', { name: 'Order for Tove' });
  await order.getByRole('listitem').filter({ hasText: 'Goblet squat' }).getByRole('button', { name: 'Go to' }).click();
  const closed = page.getByRole('alert', { name: 'Closed' });
  await expect(closed).toContainText('Not goblet squat now');
  await expect(closed).toContainText('sharp pain at the left knee today');
  await expect(set).toHaveCount(0);
  await page.getByRole('button', { name: /^Do it all the same/ }).click();
  await expect(set).toContainText('All the same');
  await set.getByRole('button', { name: 'Set done' }).click();
  await expect(page.getByText('All saved')).toBeVisible();
  const answer = await page.request.get(`${studio.address}/api/sessions/${page.url().split('/').at(-1)}`);
  const { events } = (await answer.json()) as {
    events: { type: string; clientId: string; data: { despite?: string; side?: string } }[];
  };
  const done = events.filter(({ type }) => type === 'set-done');
  expect(done.map(({ data }) => data.despite)).toEqual([expect.stringContaining('sharp pain at the left knee today')]);
  expect(events.find(({ type }) => type === 'pain-reported')?.data.side).toBe('left');
  expect(done[0]?.clientId).toBe(clientId);
});

test('a fault seen in the set just done is marked for it, after the last set as well, and the next time holds', async ({
  page,
  studio,
}) => {
  await studio.openPlan(
    page,
    ['Osei Brandt'],
    [
      {
        kind: 'strength',
        lines: [{ movementId: 'goblet-squat', sets: 1 }],
      },
    ],
  );
  const set = page.getByRole('region', { name: 'Set' });
  await set.getByRole('button', { name: 'Set done' }).click();
  await expect(page.getByRole('heading', { name: 'All done' })).toBeVisible();
  await page.getByRole('button', { name: /^Mark a fault in the set just done/ }).click();
  const seen = page.getByRole('dialog', { name: /^Seen in goblet squat/ });
  await seen.getByRole('button', { name: /Knees cave in/ }).click();
  await page.getByRole('region', { name: 'Done' }).getByRole('button', { name: 'Easy' }).click();
  await expect(page.getByText('All saved')).toBeVisible();
  await page.getByRole('button', { name: 'Finish' }).click();
  const next = page.getByRole('listitem').filter({ hasText: /^Goblet squat:/ });
  await expect(next).toContainText(/knees cave in/i);
  await expect(next).not.toContainText(/^Goblet squat: Ready/);
});

test('a server that comes back from an older copy gets what it misses from the device, and only then all is saved', async ({
  page,
  studio,
}) => {
  await studio.openPlan(page, ['Dagny Holt'], [{ kind: 'strength', lines: [{ movementId: 'goblet-squat', sets: 6 }] }]);
  const save = page.getByText(/All saved|Saving|Checking|Server away/);
  const set = page.getByRole('region', { name: 'Set' });
  await set.getByRole('button', { name: 'Set done' }).click();
  await expect(save).toHaveText('All saved');
  studio.backUp('yesterday.backup');
  for (let i = 0; i < 3; i += 1) {
    await set.getByRole('button', { name: 'Medium' }).click();
    await set.getByRole('button', { name: 'Set done' }).click();
  }
  await expect(save).toHaveText('All saved');
  const id = page.url().split('/').at(-1);
  const events = async () => {
    const answer = await page.request.get(`${studio.address}/api/sessions/${id}`);
    return ((await answer.json()) as { events: { id: string }[] }).events.map((event) => event.id);
  };
  const before = await events();
  await studio.stop();
  studio.bringBack('yesterday.backup');
  await studio.start();
  await expect.poll(events, { timeout: 30_000 }).toHaveLength(before.length);
  expect(new Set(await events())).toEqual(new Set(before));
  await expect(save).toHaveText('All saved');
});

test('a disk that fills up is told, takes no room from what is pressed, and taps wait for it', async ({
  page,
  studio,
}) => {
  await page.route('**/api/studio/keeping', (route) =>
    route.fulfill({ json: { freeBytes: 60_000_000, low: true, backups: [], backupFailed: false, damaged: [] } }),
  );
  const people = ['Osei Brandt', 'Ilka Varga', 'Rasmus Tolle', 'Dagny Holt'];
  await studio.openPlan(page, people, [{ kind: 'strength', lines: [{ movementId: 'hip-thrust' }] }]);
  await expect(page.getByRole('alert').filter({ hasText: 'Only 60 MB free' })).toBeVisible();
  await page.route('**/api/sessions/*/events', (route) =>
    route.fulfill({ status: 507, contentType: 'application/problem+json', json: { status: 507, detail: 'full' } }),
  );
  await page.getByRole('button', { name: 'Set done' }).click();
  await expect(page.getByText('The disk of the studio is full · 2 taps kept on this device')).toBeVisible();
  for (const [width, height] of [
    [1280, 800],
    [820, 1180],
    [390, 844],
  ] as const) {
    await page.setViewportSize({ width, height });
    for (const name of ['Pain', 'Finish'])
      await expect(page.getByRole('button', { name, exact: true })).toBeInViewport({ ratio: 1 });
  }
  await page.unroute('**/api/sessions/*/events');
  await expect(page.getByText('All saved')).toBeVisible({ timeout: 20_000 });
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
  await set.getByRole('button', { name: 'Right done' }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(set).toContainText(`so far ${start + 1} left, ${start} right`);
  await expect(page.getByText('All saved')).toBeVisible();
  await page.getByRole('button', { name: 'Finish' }).click();
  const done = page.getByRole('listitem').filter({ hasText: 'Split squat' }).first();
  await expect(done).toContainText('1 set');
  await expect(done).toContainText(`${start + 1}`);
  await expect(done).toContainText(/hard/i);
  // A session that was finished too soon goes on.
  await page.getByRole('button', { name: 'Open it again' }).click();
  await page.getByRole('link', { name: 'Back to the floor' }).click();
  await expect(set).toBeVisible();
});

test('a set-up that is noted is there the next time', async ({ page, studio }) => {
  await studio.openFloor(page, 'Joaquim Peel', 'Sit to stand');
  await page.getByRole('button', { name: /^Note the set-up: .*box height/ }).click();
  const dialog = page.getByRole('dialog', { name: 'Set-up for sit to stand' });
  await dialog.getByLabel('Box height').fill('45 cm');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('button', { name: 'Box height 45 cm', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Set done' }).click();
  await expect(page.getByText('All saved')).toBeVisible();
  await page.getByRole('button', { name: 'Finish' }).click();
  await page
    .getByRole('heading', { name: /Joaquim/ })
    .first()
    .waitFor();
  await studio.openFloor(page, 'Joaquim Peel', 'Sit to stand');
  await expect(page.getByRole('button', { name: 'Box height 45 cm', exact: true })).toBeVisible();
});

test('on a tablet and a phone the floor has the screen for itself: what is pressed most is never under the fold, the rest is one press away', async ({
  page,
  studio,
}) => {
  await studio.openFloor(page, 'Osei Brandt', 'Goblet squat');
  const rail = page.getByRole('navigation', { name: 'Main' });
  for (const [width, height, folded] of [
    [1280, 800, false],
    [1180, 820, false],
    [820, 1180, true],
    [390, 844, true],
    [360, 740, true],
  ] as const) {
    await page.setViewportSize({ width, height });
    await expect(rail).toHaveCount(folded ? 0 : 1);
    for (const name of ['Set done', 'More: reps', 'Emergency', 'Pain'])
      await expect(page.getByRole('button', { name, exact: true })).toBeInViewport({ ratio: 1 });
  }
  // With two on a small phone there is least room.
  await studio.openPlan(
    page,
    ['Ilka Varga', 'Rasmus Tolle'],
    [{ kind: 'strength', lines: [{ movementId: 'push-up' }] }],
  );
  for (const name of ['Set done', 'More: reps'])
    await expect(page.getByRole('button', { name, exact: true })).toBeInViewport({ ratio: 1 });
  await page.getByRole('button', { name: 'Other screens' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Log' }).click();
  await expect(page.getByRole('dialog', { name: 'Log' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Other screens' }).click();
  await rail.getByRole('link', { name: 'People' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'People' })).toBeVisible();
  await expect(rail).toBeVisible();
});
