import type { Page } from '@playwright/test';

import { expect, test } from './studio.js';

const drawn = (page: Page, name: string) => page.getByRole('img', { name, exact: true });
/** A picture as it is now; empty until something is on it. */
const picture = (page: Page, name: string) =>
  drawn(page, name).evaluate((figure) => {
    const canvas = figure.querySelector('canvas');
    const pixels = canvas?.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height).data ?? [];
    return pixels.some((value) => value > 0) ? (canvas?.toDataURL() ?? '') : '';
  });

test('a movement is shown moving, stopped at a phase, seen from another side, and beside its fault', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/library/bodyweight-squat`);
  const figure = page.getByRole('region', { name: 'Figure' });
  await drawn(page, 'Bodyweight squat').waitFor();
  await expect.poll(() => picture(page, 'Bodyweight squat')).not.toBe('');
  const first = await picture(page, 'Bodyweight squat');
  await expect.poll(() => picture(page, 'Bodyweight squat')).not.toBe(first);

  await figure.getByRole('button', { name: 'Bottom' }).click();
  await expect(figure.getByRole('button', { name: 'Play' })).toBeVisible();
  const low = await picture(page, 'Bodyweight squat');
  await figure.getByRole('button', { name: 'Lower' }).click();
  await expect.poll(() => picture(page, 'Bodyweight squat')).not.toBe(low);
  await figure.getByRole('button', { name: 'Bottom' }).click();
  await expect.poll(() => picture(page, 'Bodyweight squat')).toBe(low);

  await figure.getByLabel('Seen from').selectOption('In front');
  await expect.poll(() => picture(page, 'Bodyweight squat')).not.toBe(low);
  const front = await picture(page, 'Bodyweight squat');
  // Turned by keyboard, and by drawing it along.
  await figure.getByLabel('Turn').focus();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(() => picture(page, 'Bodyweight squat')).not.toBe(front);
  const keyed = await picture(page, 'Bodyweight squat');
  const at = await drawn(page, 'Bodyweight squat').boundingBox();
  await page.mouse.move((at?.x ?? 0) + 40, (at?.y ?? 0) + 80);
  await page.mouse.down();
  await page.mouse.move((at?.x ?? 0) + 120, (at?.y ?? 0) + 80);
  await page.mouse.up();
  await expect.poll(() => picture(page, 'Bodyweight squat')).not.toBe(keyed);
  await figure.getByLabel('Seen from').selectOption('At the side');
  await figure.getByRole('button', { name: 'Angle' }).click();
  await expect(figure.getByText(/^1\d\d°$/)).toBeVisible();

  await figure.getByLabel('Fault shown').selectOption('Knees cave in');
  const fault = drawn(page, 'Bodyweight squat: Knees cave in');
  await expect(fault.locator('.mark').first()).toBeVisible();
  await expect(drawn(page, 'Bodyweight squat')).toBeVisible();
  await figure.getByRole('button', { name: 'Laid over' }).click();
  await expect(fault).toHaveAttribute('data-ghost', 'true');
  await expect(drawn(page, 'Bodyweight squat')).toHaveCount(0);
});

test('a movement made from another keeps its figure; its muscles are named, and one may come closer', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/library/new?from=goblet-squat&as=copy`);
  await page.getByLabel('Name', { exact: true }).fill('Anchor squat');
  await expect(page.getByLabel('Drawn as')).toHaveValue('goblet-squat');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('heading', { name: 'Anchor squat' }).waitFor();
  const figure = page.getByRole('region', { name: 'Figure' });
  await expect.poll(() => picture(page, 'Anchor squat')).not.toBe('');
  await figure.getByRole('button', { name: 'Bottom' }).click();
  const plain = await picture(page, 'Anchor squat');
  await figure.getByRole('button', { name: 'Muscles' }).click();
  await expect(figure.getByText('works most: quads, glutes')).toBeVisible();
  await expect.poll(() => picture(page, 'Anchor squat')).not.toBe(plain);
  const coloured = await picture(page, 'Anchor squat');
  await figure.getByRole('button', { name: 'Closer' }).click();
  await expect.poll(() => picture(page, 'Anchor squat')).not.toBe(coloured);
  const near = await picture(page, 'Anchor squat');
  // The wheel with Ctrl, which is what two fingers on a pad send, comes nearer still.
  await drawn(page, 'Anchor squat').hover();
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -200);
  await page.keyboard.up('Control');
  await expect.poll(() => picture(page, 'Anchor squat')).not.toBe(near);
});

test('without a graphics context the figure is drawn all the same, and moves', async ({ page, studio }) => {
  await page.addInitScript(() => {
    const usual = HTMLCanvasElement.prototype.getContext;
    HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, kind: string, ...more: unknown[]) {
      return kind.startsWith('webgl') ? null : (usual.call(this, kind as '2d', ...(more as [])) as never);
    } as typeof usual;
  });
  await page.goto(`${studio.address}/library/bodyweight-squat`);
  await expect.poll(() => picture(page, 'Bodyweight squat')).not.toBe('');
  const first = await picture(page, 'Bodyweight squat');
  await expect.poll(() => picture(page, 'Bodyweight squat')).not.toBe(first);
});

test('a lost graphics context comes back to the same figure', async ({ page, studio }) => {
  await page.addInitScript(() => {
    const usual = HTMLCanvasElement.prototype.getContext;
    const lose: (() => void)[] = [];
    Object.assign(window, { loseAll: () => lose.forEach((one) => one()) });
    HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, kind: string, ...more: unknown[]) {
      const context = usual.call(this, kind as '2d', ...(more as [])) as never;
      if (kind === 'webgl2') {
        const card = (context as WebGL2RenderingContext | null)?.getExtension('WEBGL_lose_context');
        lose.push(() => {
          card?.loseContext();
          setTimeout(() => card?.restoreContext(), 50);
        });
      }
      return context;
    } as typeof usual;
  });
  await page.goto(`${studio.address}/library/bodyweight-squat`);
  await expect.poll(() => picture(page, 'Bodyweight squat')).not.toBe('');
  await page.evaluate(() => (window as unknown as { loseAll: () => void }).loseAll());
  for (let n = 0; n < 2; n += 1) {
    const now = await picture(page, 'Bodyweight squat');
    await expect.poll(() => picture(page, 'Bodyweight squat')).not.toBe(now);
  }
});

test('whoever wants no motion gets the key postures, and a movement without a figure says so', async ({
  page,
  studio,
}) => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.goto(`${studio.address}/library/goblet-squat`);
  await expect(drawn(page, 'Goblet squat, posture 3 of 3')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Play' })).toHaveCount(0);
  await page.goto(`${studio.address}/library/compare?ids=goblet-squat,push-up`);
  await expect(drawn(page, 'Push-up, posture 3 of 3')).toBeVisible();
  const { movement } = (await (await fetch(`${studio.address}/api/movements/goblet-squat`)).json()) as {
    movement: object;
  };
  const made = await fetch(`${studio.address}/api/movements`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ ...movement, id: 'mast-squat', name: 'Mast squat', links: [] }),
  });
  expect(made.status).toBe(201);
  await page.goto(`${studio.address}/library/mast-squat`);
  await expect(page.getByText('No figure is drawn for this movement yet.')).toBeVisible();
});

test('a row of the library shows its movement, and one without a figure keeps its room', async ({ page, studio }) => {
  await page.goto(`${studio.address}/library?q=goblet%20squat`);
  const row = page
    .getByRole('listitem')
    .filter({ hasText: /^1?\d*Goblet squat|Goblet squat/ })
    .first();
  const shown = row.locator('img');
  await expect(shown).toHaveAttribute('src', '/api/library/stills/goblet-squat/small.webp');
  await expect.poll(() => shown.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(0);
});

test('figures stand beside one another in a comparison, on the ladder, on a card, on the floor and on their sheet', async ({
  page,
  studio,
}) => {
  await page.goto(`${studio.address}/library/compare?ids=reverse-lunge,side-lunge`);
  for (const name of ['Reverse lunge', 'Side lunge']) await expect(drawn(page, name)).toBeVisible();
  await page.goto(
    `${studio.address}/library/compare?ids=reverse-lunge,side-lunge,forward-lunge,walking-lunge,split-squat`,
  );
  for (const name of ['Forward lunge', 'Walking lunge'])
    await expect(page.getByRole('columnheader', { name: new RegExp(name) })).toBeVisible();
  // What does not fit is named, and not dropped in silence.
  await expect(page.getByText('Not shown: Split squat.')).toBeVisible();
  await page.goto(`${studio.address}/library/map?family=hinge&at=good-morning`);
  await expect(page.locator('.react-flow__node img').first()).toBeVisible();
  await page.goto(`${studio.address}/library/goblet-squat/card`);
  await expect(drawn(page, 'Goblet squat, posture 3 of 3')).toBeVisible();

  await page.goto(`${studio.address}/library/figures?family=hinge`);
  await expect(page.getByText(/^All \d{3} movements are drawn\.$/)).toBeVisible();
  // A row is drawn when somebody comes near it.
  const row = page.getByRole('listitem').filter({ has: page.getByRole('link', { name: 'Good morning', exact: true }) });
  await row.scrollIntoViewIfNeeded();
  await expect(row.getByRole('img', { name: /^Good morning: / }).first()).toBeVisible();

  await studio.openFloor(page, 'Osei Brandt', 'Goblet squat');
  await page.getByRole('button', { name: 'Knees cave in' }).click();
  await page.getByRole('group', { name: 'Did it work?' }).waitFor();
  await page.keyboard.press('d');
  const sheet = page.getByRole('dialog', { name: 'Goblet squat' });
  await expect(sheet.getByRole('img', { name: 'Goblet squat: Knees cave in' })).toBeVisible();
  await studio.stop();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Demonstrate' }).click();
  await expect(sheet.getByRole('img', { name: 'Goblet squat: Knees cave in' })).toBeVisible();
});
