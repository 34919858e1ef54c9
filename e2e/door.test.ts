/** The door, in real browsers: the first start, a tablet over HTTPS, losing it, and what is left unsent. */
import { createHash, X509Certificate } from 'node:crypto';
import { AxeBuilder } from '@axe-core/playwright';
import { chromium, type Browser, type Page } from '@playwright/test';
import { expect, find, type Studio, test } from './studio.js';

const PASSPHRASE = 'harbour lantern seventeen';
const PIN = '2468';

/** The first start, by keyboard alone. */
async function begin(page: Page, studio: Studio): Promise<void> {
  await page.goto(studio.address);
  await page.getByLabel('Your name').waitFor();
  await page.keyboard.type('Maren');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Tab');
  await page.keyboard.type(PASSPHRASE);
  await page.keyboard.press('Enter');
  await page.getByRole('heading', { name: 'If you forget your passphrase' }).waitFor();
  await page.getByRole('button', { name: 'Open the studio' }).click();
  await page.getByRole('heading', { name: 'Welcome to Waxwing' }).waitFor();
}

async function signIn(page: Page, passphrase = PASSPHRASE): Promise<void> {
  await page.getByLabel('Name').fill('Maren');
  await page.getByLabel('Passphrase').fill(passphrase);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

test('who starts a studio says who runs it, and from then on nobody else comes in', async ({ page, newStudio }) => {
  await page.goto(newStudio.address);
  await page.getByLabel('Your name').fill('Maren');
  await page.getByLabel('Passphrase', { exact: true }).fill('password1234');
  await page.getByRole('button', { name: 'Open the studio' }).click();
  await expect(page.getByRole('alert')).toContainText('too easy to guess');
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  await begin(page, newStudio);

  await page.goto(`${newStudio.address}/studio`);
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByRole('heading', { name: 'Sign in' }).waitFor();
  expect((await page.request.get(`${newStudio.address}/api/clients`)).status()).toBe(401);
  await signIn(page, 'something else entirely');
  await expect(page.getByRole('alert')).toHaveText('Name and passphrase do not belong together.');
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  await signIn(page);
  await page.getByRole('heading', { name: 'Studio', level: 1 }).waitFor();
  await page.getByRole('link', { name: 'Who did what' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'did not get in' })).toBeVisible();
  await expect(page.getByText('Every entry is as it was written.')).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
});

/** A browser of another device, which trusts the studio as one does that was shown its certificate. */
async function deviceFor(studio: Studio): Promise<Browser> {
  const own = new X509Certificate(studio.certificate());
  const key = createHash('sha256')
    .update(own.publicKey.export({ type: 'spki', format: 'der' }))
    .digest('base64');
  return chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', `--ignore-certificate-errors-spki-list=${key}`],
  });
}

test('a tablet is paired over HTTPS, runs a session beside the desk, and is shut out when it is lost', async ({
  page,
  newStudio: studio,
}) => {
  await begin(page, studio);
  await page.goto(`${studio.address}/people/new`);
  await page.getByLabel('Name').fill('Joaquim');
  await page.getByLabel(/^Health note/).fill('takes anticoagulants');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('heading', { name: 'Joaquim' }).waitFor();
  await studio.stop('SIGTERM');
  await studio.start(['--network']);

  await page.goto(`${studio.address}/studio`);
  await page.getByRole('button', { name: 'Pair a tablet' }).click();
  const dialog = page.getByRole('dialog', { name: 'Pair a tablet' });
  const address = await dialog.getByText(/#/).innerText();
  expect(address).toMatch(/^https:\/\/.+\/pair#/);
  await dialog.getByRole('img').waitFor();
  await dialog.getByRole('button', { name: 'Close' }).click();

  const device = await deviceFor(studio);
  const tablet = await (await device.newContext({ viewport: { width: 820, height: 1180 } })).newPage();
  await tablet.goto(address);
  await tablet.getByLabel('What is it called?').fill('Stand');
  await tablet.getByLabel('PIN').fill(PIN);
  expect((await new AxeBuilder({ page: tablet }).analyze()).violations).toEqual([]);
  await tablet.getByRole('button', { name: 'Pair' }).click();
  await tablet.getByRole('heading', { name: 'Floor' }).waitFor();
  // What a tablet needs of its browser is there only where nobody can listen.
  expect(await tablet.evaluate(() => [isSecureContext, 'wakeLock' in navigator, 'mediaDevices' in navigator])).toEqual([
    true,
    true,
    true,
  ]);
  await tablet.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));

  await tablet.getByRole('button', { name: 'Start with Joaquim' }).click();
  await find(tablet, 'Push-up');
  await tablet
    .getByRole('button', { name: /^Push-up\b/ })
    .first()
    .click();
  await tablet.getByRole('button', { name: /done$/ }).waitFor();
  await expect(tablet.getByText('All saved')).toBeVisible();
  await tablet.goto(`${new URL(address).origin}/studio`);
  await expect(tablet.getByRole('heading', { name: 'Who works here' })).toHaveCount(0);
  const person = await tablet.request.get(`${new URL(address).origin}/api/clients`, { ignoreHTTPSErrors: true });
  expect(JSON.stringify(await person.json())).not.toContain('anticoagulants');

  // Put down and taken up again.
  await tablet.evaluate(() => fetch('/api/door/lock', { method: 'POST' }).then(() => undefined));
  await tablet.reload();
  for (const digit of PIN) await tablet.getByRole('button', { name: digit, exact: true }).click();
  expect((await new AxeBuilder({ page: tablet }).analyze()).violations).toEqual([]);
  await tablet.getByRole('button', { name: 'Open' }).click();
  await tablet.getByRole('heading', { name: 'Studio', level: 1 }).waitFor();

  // Lost: one press at the desk, and it is empty when it next comes by.
  await page.reload();
  await page.getByRole('button', { name: 'Shut out Stand' }).click();
  await expect(page.getByRole('button', { name: 'Shut out Stand' })).toHaveCount(0);
  await tablet.goto(`${new URL(address).origin}/floor`);
  await expect(tablet.getByRole('alert')).toContainText('shut out');
  await expect
    .poll(() =>
      tablet.evaluate(async () => {
        const names = (await indexedDB.databases()).flatMap(({ name }) => name ?? []);
        const counts = await Promise.all(
          names.map(
            (name) =>
              new Promise<number>((resolve, reject) => {
                const opening = indexedDB.open(name);
                opening.onerror = () => reject(new Error(name));
                opening.onsuccess = () => {
                  const db = opening.result;
                  const stores = [...db.objectStoreNames];
                  if (stores.length === 0) return resolve(0);
                  const counting = db
                    .transaction(stores)
                    .objectStore(stores[0] ?? '')
                    .count();
                  counting.onsuccess = () => resolve(counting.result);
                };
              }),
          ),
        );
        return counts.reduce((sum, n) => sum + n, 0);
      }),
    )
    .toBe(0);
  await device.close();
});

test('what is unsent when somebody signs out is sealed, and goes out when the same person is back', async ({
  page,
  newStudio: studio,
}) => {
  await begin(page, studio);
  await page.goto(`${studio.address}/people/new`);
  await page.getByLabel('Name').fill('Tove');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('button', { name: 'Start a session' }).click();
  await find(page, 'Push-up');
  await page
    .getByRole('button', { name: /^Push-up\b/ })
    .first()
    .click();
  await expect(page.getByText('All saved')).toBeVisible();
  const sessionId = new URL(page.url()).pathname.split('/').at(-1) ?? '';

  await page.route('**/api/sessions/*/events', (route) => route.abort());
  await page.getByRole('button', { name: /done$/ }).click();
  await expect(page.getByText(/kept on this device/).first()).toBeVisible();
  await page.goto(`${studio.address}/studio`);
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByRole('heading', { name: 'Sign in' }).waitFor();
  const left = await page.evaluate(
    () =>
      new Promise<string>((resolve) => {
        const opening = indexedDB.open('waxwing-outbox');
        opening.onsuccess = () => {
          const all = opening.result.transaction('events').objectStore('events').getAll();
          all.onsuccess = () => resolve(JSON.stringify(all.result));
        };
      }),
  );
  expect(left).toBe('[]');

  await page.unroute('**/api/sessions/*/events');
  await signIn(page);
  await page.getByRole('heading', { name: 'Studio', level: 1 }).waitFor();
  await expect
    .poll(async () => {
      const answer = await page.request.get(`${studio.address}/api/sessions/${sessionId}/sets`);
      return ((await answer.json()) as unknown[]).length;
    })
    .toBe(1);
});
