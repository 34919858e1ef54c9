/** The door, in real browsers: the first start, a tablet over HTTPS, losing it, and what is left unsent. */
import { createHash, X509Certificate } from 'node:crypto';

import { AxeBuilder } from '@axe-core/playwright';
import { type Browser, chromium, type Page } from '@playwright/test';

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
  // What hurts is reported here and known at the desk; whoever takes the tablet up next is told to stop, and not where it hurts.
  await tablet.getByRole('button', { name: 'Pain' }).click();
  await tablet.getByRole('button', { name: 'Sharp pain: wrist' }).click();
  await expect(tablet.getByRole('alert')).toContainText('sharp pain at the wrist');
  await expect(tablet.getByText('All saved')).toBeVisible();
  await tablet.reload();
  await expect(tablet.getByText('Where it hurts is not told on this device.')).toBeVisible();
  await expect(tablet.getByRole('alert')).toContainText('Stop: sharp pain');
  await expect(tablet.getByText('wrist')).toHaveCount(0);
  const session = tablet.url().split('/').at(-1) ?? '';
  await page.goto(`${studio.address}/floor/${session}`);
  await expect(page.getByRole('alert')).toContainText('sharp pain at the wrist');
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

  // Lost while it was without the network: one press at the desk, and it is empty when it next comes by. What it had not sent waits for a yes.
  await tablet.goto(`${new URL(address).origin}/floor`);
  await tablet.getByRole('link', { name: /Joaquim/ }).click();
  await tablet.getByRole('button', { name: 'Undo' }).waitFor();
  await tablet.context().setOffline(true);
  await tablet.getByRole('button', { name: 'Pain', exact: true }).click();
  await tablet.getByRole('button', { name: 'Dull pain: shoulder' }).click();
  await expect(tablet.getByText('All saved')).toHaveCount(0);
  await page.goto(`${studio.address}/studio`);
  await page.getByRole('button', { name: 'Shut out Stand' }).click();
  await expect(page.getByRole('button', { name: 'Shut out Stand' })).toHaveCount(0);
  await tablet.context().setOffline(false);
  await expect(tablet.getByRole('alert')).toContainText('shut out');
  await page.reload();
  const left = page.getByRole('region', { name: 'Left by devices that were shut out' });
  await expect(left).toContainText('1 tap of Joaquim');
  await left.getByRole('button', { name: 'Take them in' }).click();
  await expect(left).toHaveCount(0);
  expect(await (await page.request.get(`${studio.address}/api/sessions/${session}`)).text()).toContain('shoulder');
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

/** Somebody new in a browser of their own, who came in with the code that the owner made for them. */
async function joined(owner: Page, studio: Studio, name: string, role: string): Promise<Page> {
  await owner.goto(`${studio.address}/studio`);
  await owner.getByRole('button', { name: 'Add somebody' }).click();
  await owner.getByRole('dialog').getByLabel('Name').fill(name);
  await owner.getByRole('radio', { name: new RegExp(`^${role}`) }).check();
  await owner.getByRole('button', { name: 'Make a code for them' }).click();
  const code = await owner
    .getByRole('dialog', { name: `A code for ${name}` })
    .locator('.select-all')
    .innerText();
  const browser = owner.context().browser();
  if (!browser) throw new Error('there is no browser');
  const page = await (await browser.newContext()).newPage();
  await page.goto(studio.address);
  await page.getByRole('button', { name: 'I have a code' }).click();
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Code', { exact: true }).fill(code);
  await page.getByLabel('New passphrase').fill(`${PASSPHRASE} of ${name}`);
  await page.getByRole('button', { name: 'Choose it and sign in' }).click();
  await page.getByRole('button', { name: 'Open the studio' }).click();
  await page.getByRole('heading', { level: 1 }).waitFor();
  return page;
}

/** Where the links of a page lead. */
const hrefsIn = (page: Page, selector: string): Promise<string[]> =>
  page.locator(selector).evaluateAll((all) => all.map((link) => link.getAttribute('href') ?? ''));

test('two who change the same are told of each other, and an assistant is offered nothing that is refused', async ({
  page: maren,
  newStudio: studio,
}) => {
  await begin(maren, studio);
  await maren.goto(`${studio.address}/people`);
  await maren.getByRole('button', { name: 'Load the demo studio' }).click();
  await maren.getByRole('link', { name: /^Ilka/ }).first().waitFor();
  const other = await joined(maren, studio, 'Anselm', 'Owner');

  // A plan.
  await maren.goto(`${studio.address}/plan`);
  await maren.getByRole('main').getByRole('listitem').getByRole('link').first().click();
  const name = maren.getByLabel('Name of the plan');
  await name.waitFor();
  const plan = maren.url();
  await other.goto(plan);
  const theirs = other.getByLabel('Name of the plan');
  await theirs.waitFor();
  await name.fill('As Maren says');
  await name.press('Tab');
  await expect(maren.getByText('Saved', { exact: true })).toBeVisible();
  await theirs.fill('As Anselm says');
  await theirs.press('Tab');
  await expect(other.getByRole('alert')).toContainText('Somebody changed this plan in the meantime.');
  await other.getByRole('button', { name: 'Load it again' }).click();
  await expect(theirs).toHaveValue('As Maren says');
  await theirs.fill('As both say');
  await theirs.press('Tab');
  await expect(other.getByText('Saved', { exact: true })).toBeVisible();

  // A client.
  await maren.goto(`${studio.address}/people`);
  await maren.getByRole('link', { name: /^Ilka/ }).first().click();
  await maren.getByRole('link', { name: 'Edit' }).click();
  const goal = (page: Page) => page.getByRole('textbox', { name: 'Goal' });
  await goal(maren).waitFor();
  await other.goto(maren.url());
  await goal(other).fill('To carry a child');
  await goal(maren).fill('To lift a suitcase');
  await maren.getByRole('button', { name: 'Save' }).click();
  await maren.getByRole('heading', { name: 'Ilka', level: 1 }).waitFor();
  await expect(maren.getByText('To lift a suitcase')).toBeVisible();
  await other.getByRole('button', { name: 'Save' }).click();
  await expect(other.getByRole('alert')).toContainText('Somebody changed this client in the meantime.');

  // An assistant looks everywhere.
  const helper = await joined(maren, studio, 'Dorte', 'Assistant');
  await expect(helper.getByText('Nobody is shared with you yet')).toBeVisible();
  await maren.goto(plan);
  await name.waitFor();
  for (const href of await hrefsIn(maren, 'main a[href^="/people/"]:not([href$="/today"])')) {
    await maren.goto(`${studio.address}${href}`);
    await maren.getByRole('checkbox', { name: 'Dorte' }).click();
    await expect(maren.getByRole('checkbox', { name: 'Dorte', checked: true, disabled: false })).toBeVisible();
  }
  const refused: string[] = [];
  helper.on('response', (answer) => {
    if (answer.status() === 403 || answer.status() === 404) refused.push(`${answer.status()} ${answer.url()}`);
  });
  const visited = new Set<string>();
  const look = async (path: string) => {
    await helper.goto(`${studio.address}${path}`);
    await helper.getByRole('heading', { level: 1 }).first().waitFor();
    await expect(helper.getByText(/^Fetching .* …$/)).toHaveCount(0);
    visited.add(path);
    const links = await hrefsIn(helper, 'main a[href^="/"]');
    for (const href of links.filter((one) => one.startsWith('/api/'))) {
      const answer = await helper.request.get(`${studio.address}${href}`);
      if (!answer.ok()) refused.push(`${answer.status()} ${href} on ${path}`);
    }
    return links.filter((one) => !one.startsWith('/api/'));
  };
  for (const path of ['/', '/library', '/people', '/plan', '/review', '/studio', '/floor']) {
    const links = await look(path);
    // One of each kind of page that it leads to.
    const kinds = new Set<string>();
    for (const link of links) {
      const kind = link.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, ':id').replace(/[?#].*$/, '');
      if (kinds.has(kind) || visited.has(link) || (kind.startsWith('/library/') && kinds.size > 8)) continue;
      kinds.add(kind);
      await look(link);
    }
  }
  expect(refused).toEqual([]);
  expect([...visited].some((path) => /^\/plan\/[0-9a-f]{8}/.test(path))).toBe(true);
  await helper.goto(`${studio.address}/people`);
  await expect(helper.getByRole('link', { name: 'Add a client' })).toHaveCount(0);
  await helper.goto(`${studio.address}/plan`);
  await helper.getByRole('link', { name: /As both say/ }).click();
  await expect(helper.getByRole('heading', { name: 'As both say', level: 1 })).toBeVisible();
  await expect(helper.getByLabel('Name of the plan')).toHaveCount(0);
  await expect(helper.getByText('Those who train these clients can change the plan.')).toBeVisible();
  expect((await new AxeBuilder({ page: helper }).analyze()).violations).toEqual([]);
});
