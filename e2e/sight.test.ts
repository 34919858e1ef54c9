import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

import { AxeBuilder } from '@axe-core/playwright';
import { chromium, type Page } from '@playwright/test';

import config from './playwright.config.js';
import { expect, find, test } from './studio.js';

/** Reading a clip takes about as long as the clip, and longer on a busy machine. */
const READING = 150_000;
const read = (page: Page) => page.getByRole('region', { name: 'What was seen' });

test('a clip that ships is read on this device: sentences, reps, a table; nothing comes from elsewhere, or before it is wanted', async ({
  page,
  studio,
}) => {
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  await page.goto(`${studio.address}/library/push-up`);
  await page.getByRole('link', { name: 'Watch a clip' }).click();
  await expect(page.getByRole('button', { name: /^Push-up from the side/ })).toBeVisible();
  expect(asked.filter((url) => /vision_wasm|pose\.task|eye\.worker/.test(url))).toEqual([]);
  await page.getByRole('button', { name: /^Push-up from the side/ }).click();
  await expect(read(page)).toContainText('5 reps.', { timeout: READING });
  await expect(read(page)).toContainText('Hips sag: every rep');
  await expect(read(page)).toContainText('Not seen: Hips pike up');
  await expect(page.getByRole('group', { name: 'Reps' }).getByRole('button')).toHaveCount(5);
  await expect(page.getByRole('table', { name: 'By rep' }).getByRole('row')).toHaveCount(6);
  // Each rep is a press away, by keyboard too.
  await page.getByRole('button', { name: /^Rep 5/ }).focus();
  await page.keyboard.press('Enter');
  await expect
    .poll(async () => Number(await page.getByRole('slider', { name: 'Moment of the clip' }).inputValue()))
    .toBeGreaterThan(10);
  // Told that it was filmed from elsewhere, it says what that means.
  await page.getByLabel('Filmed from').selectOption('In front');
  await expect(read(page)).toContainText('Film this one from the side');
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id, nodes }) => [id, nodes[0]?.html])).toEqual([]);
  const foreign = asked.filter((url) => !url.startsWith(studio.address) && !/^(blob|data):/.test(url));
  expect(foreign).toEqual([]);
});

/** A second of sound and nothing to see. */
function sound(): Buffer {
  const rate = 8000;
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + rate, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20);
  head.writeUInt16LE(1, 22);
  head.writeUInt32LE(rate, 24);
  head.writeUInt32LE(rate, 28);
  head.writeUInt16LE(1, 32);
  head.writeUInt16LE(8, 34);
  head.write('data', 36);
  head.writeUInt32LE(rate, 40);
  return Buffer.concat([head, Buffer.alloc(rate, 128)]);
}

test('only who agreed is filmed; what is no clip is refused in words; without camera or model the page stays usable', async ({
  page,
  studio,
}) => {
  const who = page.getByLabel('Who');
  await page.goto(`${studio.address}/sight?movement=goblet-squat`);
  await who.selectOption('Dagny Holt');
  await expect(page.getByText('Dagny Holt has not agreed to be filmed.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Choose a clip' })).toHaveCount(0);
  await who.selectOption('Tove Lindqvist');
  await expect(page.getByText('Where to film from')).toBeVisible();
  const choose = (name: string, buffer: Buffer) =>
    page.locator('input[type=file]').setInputFiles({ name, mimeType: 'video/mp4', buffer });
  for (const [name, buffer, words] of [
    ['empty.mp4', Buffer.alloc(0), 'This file is empty.'],
    ['damaged.mp4', Buffer.from('no clip at all '.repeat(500)), 'This file cannot be played'],
    ['song.mp4', sound(), 'This file has sound but no picture.'],
  ] as const) {
    await choose(name, buffer);
    await expect(page.getByRole('alert')).toContainText(words);
  }
  // Nobody is asked in a test: whatever was not allowed is refused.
  await page.context().grantPermissions([]);
  await page.getByRole('button', { name: 'Use the camera' }).click();
  await expect(page.getByRole('alert')).toContainText(/camera/);
  await page.getByRole('button', { name: 'Back' }).click();
  await expect(page.getByRole('button', { name: 'Choose a clip' })).toBeVisible();

  await page.route('**/pose.task', (route) => route.abort());
  await page.goto(`${studio.address}/sight?clip=squat-side`);
  await expect(page.getByRole('alert')).toContainText('could not be fetched', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Back' }).click();
  await expect(page.getByRole('heading', { name: 'Clips to try' })).toBeVisible();
});

/** The pictures of a clip that ships, thirty a second, as a camera would give them. */
async function cameraFrom(page: Page, address: string, clip: string): Promise<Buffer> {
  await page.goto(`${address}/studio`);
  const frames = await page.evaluate(async (source) => {
    const video = document.createElement('video');
    video.muted = true;
    video.src = source;
    await new Promise((resolve) => video.addEventListener('loadeddata', resolve));
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [video.videoWidth, video.videoHeight];
    const pen = canvas.getContext('2d');
    const taken: [number, string][] = [];
    await new Promise<void>((resolve) => {
      const take = (_: number, { mediaTime }: VideoFrameCallbackMetadata): void => {
        pen?.drawImage(video, 0, 0);
        taken.push([mediaTime, canvas.toDataURL('image/jpeg', 0.7).split(',')[1] ?? '']);
        if (!video.ended) video.requestVideoFrameCallback(take);
      };
      video.addEventListener('ended', () => resolve());
      video.requestVideoFrameCallback(take);
      void video.play();
    });
    return taken;
  }, `/clips/${clip}.webm`);
  const last = frames.at(-1)?.[0] ?? 0;
  return Buffer.concat(
    Array.from({ length: Math.floor(last * 30) }, (_, i) => {
      const [, picture = ''] = frames.findLast(([at]) => at <= i / 30) ?? frames[0] ?? [];
      return Buffer.from(picture, 'base64');
    }),
  );
}

test('on the floor the camera counts, what it saw is a button of the usual flow, and a picture of a clip is kept and let go', async ({
  page,
  studio,
}) => {
  const folder = mkdtempSync(join(tmpdir(), 'waxwing-camera-'));
  const file = join(folder, 'camera.mjpeg');
  writeFileSync(file, await cameraFrom(page, studio.address, 'goblet-front-knees'));
  const { executablePath, args = [] } = config.use?.launchOptions ?? {};
  const browser = await chromium.launch({
    ...(executablePath ? { executablePath } : {}),
    args: [
      ...args,
      '--use-fake-device-for-media-stream',
      '--use-fake-ui-for-media-stream',
      `--use-file-for-fake-video-capture=${file}`,
    ],
  });
  try {
    const floor = await browser.newPage();
    const id = await studio.clientId('Tove Lindqvist');
    await floor.goto(`${studio.address}/people/${id}`);
    await floor.getByRole('button', { name: 'Start a session' }).click();
    await find(floor, 'Goblet squat');
    await floor
      .getByRole('button', { name: /^Goblet squat/ })
      .first()
      .click();
    await floor.getByRole('button', { name: 'Watch the set' }).click();
    const watching = floor.getByRole('region', { name: 'Watching' });
    await expect(watching.getByRole('status')).toHaveText(/^[2-9]$/, { timeout: READING });
    // What is counted fills the counter of the set.
    await expect(
      floor.getByRole('region', { name: 'Set' }).getByRole('button', { name: /^Count [2-9]/ }),
    ).toBeVisible();
    await watching.getByRole('button', { name: 'Stop watching' }).click();
    const seen = floor.getByRole('region', { name: 'Seen by the camera' });
    await expect(seen).toContainText('Can’t tell, not from the front: Heels lift.');
    // Nothing is marked until it is pressed.
    await expect(floor.getByRole('group', { name: 'Did it work?' })).toHaveCount(0);
    await seen.getByRole('button', { name: /^Knees cave in: / }).click();
    await expect(seen).toContainText('Marked: Knees cave in');
    await expect(floor.getByRole('group', { name: 'Did it work?' })).toBeVisible();
    const said = floor.getByRole('region', { name: 'Now' }).locator('.big-words');
    const first = await said.innerText();
    // The next set with the cue is measured against this one, and what came of it is offered.
    await seen.getByRole('button', { name: 'Watch the next set' }).click();
    await expect(watching.getByRole('status')).toHaveText(/^[1-9]$/, { timeout: READING });
    await watching.getByRole('button', { name: 'Stop watching' }).click();
    await seen.getByRole('button', { name: 'Note it: No change' }).click();
    await expect(said).not.toHaveText(first);

    // A clip of theirs, taken with the same camera.
    await floor.goto(`${studio.address}/sight?client=${id}&movement=goblet-squat`);
    await floor.getByRole('button', { name: 'Use the camera' }).click();
    await floor.getByRole('button', { name: 'Film in 5 s' }).click();
    await floor.getByRole('button', { name: /^Stop after 9 s/ }).click();
    await expect(read(floor)).toContainText(/rep/, { timeout: READING });
    await floor.getByRole('button', { name: 'Keep this picture in Tove’s file' }).click();
    await expect(floor.getByRole('button', { name: /^Kept/ })).toBeVisible();
    await floor.goto(`${studio.address}/people/${id}`);
    await floor.getByRole('button', { name: /^Goblet squat/ }).click();
    await floor.getByRole('button', { name: 'Delete this picture for good' }).click();
    await expect(floor.getByRole('heading', { name: 'Pictures kept of clips' })).toHaveCount(0);
  } finally {
    await browser.close();
    rmSync(folder, { recursive: true });
  }
});
