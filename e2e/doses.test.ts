import type { Page } from '@playwright/test';

import { expect, test } from './studio.js';

const bell = (kg: number) => ({ item: 'bell' as const, count: 1, kg, label: `${kg} kg bell`, changeSeconds: 0 });
const set = (page: Page) => page.getByRole('region', { name: 'Set' });
const felt = async (page: Page, effort = 'Medium') => {
  await page.getByRole('group', { name: 'How did it feel?' }).getByRole('button', { name: effort }).click();
  await expect(page.getByRole('group', { name: 'How did it feel?' })).toHaveCount(0);
};
const review = async (page: Page) => {
  await page.goto(page.url().replace('/floor/', '/review/'));
  await page.getByRole('heading', { name: 'Done' }).first().waitFor();
};

test('a set is built of parts by a typed line and by taps, wrong parts are refused where they stand, and the tape and the sheet agree', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/plan/new?client=${await studio.clientId('Dagny Holt')}`);
  await page.getByLabel('Minutes').fill('45');
  await page.getByRole('button', { name: 'Make the plan' }).click();
  const strength = page.getByRole('region', { name: 'Strength', exact: true });
  const first = strength.getByRole('group', { name: /./ }).or(strength).locator('details').first();
  await first.locator('summary').click();
  const parts = first.getByLabel(/^Parts of one set/);
  for (const [typed, said] of [
    ['0 singles', 'must be 1 to 200'],
    ['8 hops', '“8 hops” is not a part of a set'],
    ['3 slow (99-0-99-0)', 'must take at most 60 seconds a rep'],
    ['200 slow (10-0-10-0)', 'a set takes at most 30'],
  ] as const) {
    await parts.fill(typed);
    await expect(first.getByRole('alert')).toContainText(said);
  }
  await parts.fill('8, 3 slow (2-0-2-0), 8 pulses at the bottom, hold 8 s');
  await expect(first.getByRole('alert')).toHaveCount(0);
  await expect(first.locator('summary')).toContainText(
    '8 singles · 3 slow (2-0-2-0) · 8 pulses at the bottom · hold 8 s',
  );
  await first.getByRole('button', { name: '+ half-and-full' }).click();
  await expect(parts).toHaveValue(/hold 8 s · 4 half-and-full$/);
  await first.getByRole('button', { name: 'Take the last off' }).click();
  await expect(parts).toHaveValue(/hold 8 s$/);
  await first.getByLabel(/^Rounds of/).selectOption('as many as went clean');
  await page.getByText('Saved', { exact: true }).waitFor();
  await page.getByRole('link', { name: 'Sheet' }).click();
  await expect(page.getByText(/\(8 singles · 3 slow \(2-0-2-0\) · 8 pulses at the bottom · hold 8 s\)/)).toBeVisible();
  await expect(page.getByText(/then as many as went clean/)).toBeVisible();
});

test.describe('by touch on a tablet', () => {
  test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true });

  test('parts, a drop and rounds of one side are logged by one tap each, and the review adds them up', async ({
    page,
    studio,
  }) => {
    const parts = [
      { kind: 'reps' as const, count: 8, tempo: null },
      { kind: 'pulses' as const, count: 8, at: null },
      { kind: 'hold' as const, count: 5, at: null },
    ];
    await studio.openPlan(
      page,
      ['Dagny Holt'],
      [
        {
          kind: 'strength',
          lines: [
            { movementId: 'bodyweight-squat', sets: 2, amount: 8, parts },
            { movementId: 'goblet-squat', sets: 1, load: bell(16), drops: [{ load: bell(12), amount: 5 }] },
          ],
        },
        {
          kind: 'superset',
          rounds: 3,
          lines: [
            {
              movementId: 'split-squat',
              amount: 6,
              bySet: [
                { set: 1, side: 'left' },
                { set: 2, side: 'right' },
                { set: 3, side: 'alternating' },
              ],
            },
            { movementId: 'push-up', amount: 5 },
          ],
        },
      ],
    );
    await expect(set(page).getByText('8 reps, 8 pulses, 5 s held')).toBeVisible();
    await page.getByRole('button', { name: 'Tempo' }).tap();
    await expect(page.getByRole('timer', { name: 'Work' })).toContainText('of 8');
    await page.getByRole('button', { name: 'Set done' }).tap();
    await felt(page);
    // All of it went well: one part grows.
    await page.getByRole('button', { name: /^Take / }).tap();
    await expect(page.getByRole('button', { name: 'hold 7 s: the set ended here' })).toBeVisible();
    await page.getByRole('button', { name: '8 pulses: the set ended here' }).tap();
    await page.getByRole('button', { name: 'Less: of it' }).tap();
    await page.getByRole('button', { name: 'Done to here' }).tap();
    await felt(page);

    await page.getByRole('button', { name: 'Set done' }).tap();
    await expect(page.getByText('Now 12 kg bell, no rest')).toBeVisible();
    await page.getByRole('button', { name: 'More: reps' }).tap();
    await page.getByRole('button', { name: 'Done with 12 kg bell' }).tap();
    await felt(page);

    for (const side of ['Left', 'Right'] as const) {
      await expect(set(page).getByText(`${side} side only`)).toBeVisible();
      await page.getByRole('button', { name: `${side} done` }).tap();
      await felt(page);
      await page.getByRole('button', { name: 'Set done' }).tap();
      await felt(page);
    }
    await expect(set(page).getByText('Sides in turn')).toBeVisible();
    await page.getByRole('button', { name: 'Set done' }).tap();
    await felt(page);
    await page.getByRole('button', { name: 'Set done' }).tap();
    await page.getByRole('heading', { name: 'All done' }).waitFor();
    await review(page);
    const row = (name: string) =>
      page.getByRole('listitem').filter({ has: page.getByRole('link', { name, exact: true }) });
    await expect(row('Bodyweight squat')).toContainText('8 singles · 8 pulses · hold 5 s');
    await expect(row('Bodyweight squat')).toContainText('8 singles · 7 pulses');
    await expect(row('Bodyweight squat')).toContainText('2 sets · 16 reps in all, 15 pulses, 5 s held');
    await expect(row('Goblet squat')).toContainText('8 reps with 16 kg bell, then 6 with 12 kg bell');
    await expect(row('Goblet squat')).toContainText(`${8 * 16 + 6 * 12} kg moved`);
    await expect(row('Split squat')).toContainText('L 6 · R 6 · 12 reps');
    await expect(row('Split squat')).toContainText('24 reps in all');
  });

  test('two faults of one cause are one thing to say, which stays in sight; the trainer may know another cause, and goes on lighter at once', async ({
    page,
    studio,
  }) => {
    await studio.openPlan(
      page,
      ['Dagny Holt'],
      [{ kind: 'strength', lines: [{ movementId: 'goblet-squat', sets: 2, load: bell(16) }] }],
    );
    const now = page.getByRole('region', { name: 'Now', exact: true });
    const faults = page.getByRole('region', { name: 'Faults' });
    await faults.getByRole('button', { name: 'Heels lift' }).tap();
    await faults.getByRole('button', { name: 'Knees cave in' }).tap();
    await expect(now).toContainText('Knees cave in + Heels lift');
    await expect(now).toContainText('Stance too narrow: one cause of both');
    // The lowest fault is in sight, and so is what to say.
    await expect(faults.getByRole('button', { name: 'Knees cave in' })).toBeInViewport();
    await expect(now.getByRole('button', { name: 'Fixed' })).toBeInViewport({ ratio: 1 });
    const search = page.getByRole('searchbox', { name: 'Something else you see' });
    await search.fill('weight is too heavy');
    await page.getByRole('button', { name: 'Because: too heavy' }).tap();
    await expect(now).toContainText('Too heavy: the cause that you named');
    const causes = page.getByRole('group', { name: 'What makes it?' });
    await expect(causes.getByRole('button', { name: 'Too heavy' })).toHaveAttribute('aria-pressed', 'true');
    await now.getByRole('button', { name: 'Fixed' }).tap();
    await expect(causes).toHaveCount(0);
    await page.getByRole('button', { name: 'Set done' }).tap();
    await page.getByRole('button', { name: 'On at once with 12 kg bell, no rest' }).tap();
    await page.getByRole('button', { name: 'Done with 12 kg bell' }).tap();
    await page.getByRole('button', { name: 'Not today: rest' }).tap();
    await felt(page);
    await page.getByRole('button', { name: 'Set done' }).tap();
    await page.getByRole('heading', { name: 'All done' }).waitFor();
    await review(page);
    await expect(page.getByRole('listitem').filter({ hasText: 'Goblet squat' }).first()).toContainText(
      / reps with 16 kg bell, then \d+ with 12 kg bell/,
    );
  });

  test('a test ends with the first rep that is not clean and stands among the benchmarks; less is offered when form goes, once', async ({
    page,
    studio,
  }) => {
    const [client] = await studio.openPlan(
      page,
      ['Dagny Holt'],
      [
        {
          kind: 'skill',
          lines: [
            {
              movementId: 'push-up',
              sets: 1,
              test: { name: 'Push-ups to a cup', unit: 'reps', seconds: null, clean: 'Chest touches the cup.' },
            },
          ],
        },
        { kind: 'strength', lines: [{ movementId: 'bodyweight-squat', sets: 4, amount: 12 }] },
        { kind: 'stretch', lines: [{ movementId: 'stretch-calf', sets: 1, amount: 20 }] },
      ],
    );
    await expect(set(page).getByText('Chest touches the cup.')).toBeVisible();
    for (let rep = 1; rep <= 3; rep += 1) await page.getByRole('button', { name: /^Count/ }).tap();
    await page
      .getByRole('region', { name: 'Faults' })
      .getByRole('button', { name: /hips sag/i })
      .first()
      .tap();
    await expect(page.getByText(/the test ends here/)).toBeVisible();
    await page.getByRole('button', { name: 'End at 3' }).tap();
    await expect(page.getByText('Push-ups to a cup: 3 reps')).toBeVisible();
    await felt(page, 'Hard');

    const mark = page.getByRole('region', { name: 'Mark for today' });
    await page.getByRole('button', { name: 'Set done' }).tap();
    await felt(page, 'Medium');
    await expect(mark).toHaveCount(0);
    for (let less = 0; less < 5; less += 1) await page.getByRole('button', { name: 'Less: reps' }).tap();
    await page.getByRole('button', { name: 'Set done' }).tap();
    await felt(page, 'Hard');
    await expect(mark).toContainText(/second set down by 5, it turned hard. Wind down\?/);
    const left = page.getByText(/ left$/);
    const before = await left.innerText();
    await mark.getByRole('button', { name: 'On to the stretch' }).tap();
    await expect(mark).toHaveCount(0);
    await expect(left).not.toHaveText(before);
    await expect(page.getByRole('region', { name: 'Now' })).toContainText(/calf/i);
    await page.goto(`${studio.address}/people/${client ?? ''}`);
    await expect(page.getByText('Push-ups to a cup')).toBeVisible();
  });

  test('a class goes by turns and by rounds: counted for each, with a level for each and a screen for the wall', async ({
    page,
    studio,
  }) => {
    await studio.openPlan(
      page,
      ['Ilka Varga', 'Rasmus Tolle'],
      [
        {
          kind: 'circuit',
          rounds: 2,
          clock: { mode: 'rounds-in', seconds: 600 },
          lines: [
            { movementId: 'bodyweight-squat', amount: 5 },
            { movementId: 'banded-bridge', amount: 5 },
          ],
        },
      ],
    );
    await expect(page.getByText('As many rounds as go into 10 min.')).toBeVisible();
    await page.getByRole('button', { name: 'Start the clock' }).tap();
    const round = (name: string) => page.getByRole('button', { name: new RegExp(`^${name}: round done`) });
    for (let n = 1; n <= 3; n += 1) {
      await round('Ilka').tap();
      await expect(round('Ilka')).toContainText(String(n));
    }
    await round('Rasmus').tap();
    await page.getByRole('button', { name: 'Levels' }).tap();
    await page.getByRole('dialog').getByRole('button', { name: /^1 / }).first().tap();
    await page.keyboard.press('Escape');
    const wall = await page.context().newPage();
    await wall.goto(`${page.url()}/wall`);
    await expect(wall.getByText('3 rounds')).toBeVisible();
    await expect(wall.getByText(/^Anybody, any time/)).toBeVisible();
    // It has the screen for itself.
    await expect(wall.getByRole('navigation', { name: 'Main' })).toHaveCount(0);
    await wall.close();
    await page.getByRole('button', { name: 'End the rounds' }).tap();
    await page.getByRole('heading', { name: 'All done' }).waitFor();
    await review(page);
    await expect(page.getByText('3 sets · 15 reps in all').first()).toBeVisible();
  });
});

test('a circuit by time has seconds of its own each round: in its minutes, on its sheet and by its clock', async ({
  page,
  studio,
}) => {
  await page.clock.install();
  await studio.keepPlan(
    page,
    ['Ilka Varga'],
    [{ kind: 'circuit', rounds: 3, workSeconds: 40, lines: [{ movementId: 'bodyweight-squat', rest: 10 }] }],
  );
  const circuit = page.getByRole('region', { name: 'Circuit', exact: true });
  const seconds = circuit.getByLabel('Seconds each');
  await seconds.fill('40, 3');
  await expect(circuit.getByRole('alert')).toContainText('whole seconds from 5 to 600');
  const minutes = circuit.getByRole('heading', { level: 2 });
  await expect(minutes).toContainText('2 min 20 s');
  await seconds.fill('40, 30, 20');
  await expect(circuit.getByRole('alert')).toHaveCount(0);
  await expect(minutes).toContainText('1 min 50 s');
  await page.getByText('Saved', { exact: true }).waitFor();
  await page.getByRole('link', { name: 'Sheet' }).click();
  await expect(page.getByText('40, 30, 20 s round by round').first()).toBeVisible();
  await page.goBack();
  await page.getByRole('button', { name: 'To the floor' }).click();
  await expect(page.getByText('3 turns of 40, 30, 20 s round by round, 10 s between.')).toBeVisible();
  await page.getByRole('button', { name: 'Start the clock' }).click();
  const clock = page.getByRole('timer', { name: 'Clock of the circuit' });
  await expect(clock).toContainText('0:40');
  await page.clock.fastForward(51_000);
  await expect(page.getByText(/turn 2 of 3/)).toBeVisible();
  await expect(clock).toContainText('0:2');
  await page.clock.fastForward(60_000);
  await expect(clock).toContainText('Over');
  await page.getByRole('button', { name: 'Log 3 sets' }).click();
  await review(page);
  await expect(page.getByText('3 sets').first()).toBeVisible();
});

test('a combination waits until both parts were clean alone, and has the faults of both', async ({ page, studio }) => {
  await studio.openPlan(
    page,
    ['Dagny Holt'],
    [{ kind: 'strength', lines: [{ movementId: 'hands-behind-head-squat', withId: 'wall-push-up', sets: 1 }] }],
  );
  const note = page.getByRole('note');
  await expect(note).toContainText('clean alone first');
  await note.getByRole('button', { name: 'Do wall push-up alone' }).click();
  await page.getByRole('button', { name: 'Set done' }).click();
  await felt(page);
  await expect(note).toContainText('Not together yet: hands-behind-head deep squat');
  await note.getByRole('button', { name: /alone$/ }).click();
  await page.getByRole('button', { name: 'Set done' }).click();
  await felt(page);
  await expect(note).toHaveCount(0);
  const faults = page.getByRole('region', { name: 'Faults' }).getByRole('listitem');
  expect(await faults.count()).toBeGreaterThan(6);
});

test('without a heavier weight the levers are one tap each', async ({ page, studio }) => {
  await studio.openPlan(page, ['Dagny Holt'], [{ kind: 'strength', lines: [{ movementId: 'push-up', sets: 3 }] }]);
  await page.getByRole('button', { name: 'Harder otherwise' }).click();
  const sheet = page.getByRole('dialog', { name: 'Harder without more weight' });
  await sheet.getByRole('button', { name: /^Slower down.*4-0-1-0/ }).click();
  await expect(sheet).toHaveCount(0);
  await page.getByRole('button', { name: 'Harder otherwise' }).click();
  await expect(sheet.getByRole('button', { name: /^Slower down.*6-0-1-0/ })).toBeVisible();
});
