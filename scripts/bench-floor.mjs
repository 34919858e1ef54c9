/** The figures of the floor: taps, timers and long sessions. */
import { performance } from 'node:perf_hooks';

const { steadyClock, timerAt } = await import('@waxwing/core/session');

const MINUTE = 60_000;

/** The same numbers every time. */
let seed = 11;
/** @param {number} most */
const pick = (most) => {
  seed = (seed * 1103515245 + 12345) & 0x7fffffff;
  return seed % most;
};
let ids = 0;
const uuid = () => `018f0000-0000-7000-8000-${(ids += 1).toString(16).padStart(12, '0')}`;

/**
 * @param {string} address
 * @param {string} path
 * @param {unknown} body
 */
async function post(address, path, body) {
  const answer = await fetch(`${address}/api${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
  return /** @type {Promise<{ id: string }>} */ (answer.json());
}

/** Sixty minutes with the tab mostly hidden: the page wakes now and then, and the device sleeps in between. The largest error in milliseconds. */
export function timerDrift() {
  let wall = Date.UTC(2030, 0, 1, 10);
  let ticks = 0;
  const clock = steadyClock(
    // Browsers give whole milliseconds here, and tenths there.
    () => Math.floor(wall),
    () => Math.round(ticks * 10) / 10,
  );
  const began = wall;
  /** @type {import('@waxwing/core/session').Timer} */
  const timer = {
    id: 't',
    entryId: 'e',
    blockId: null,
    side: 'both',
    work: 40,
    rest: 20,
    count: 60,
    startedAt: new Date(clock.now()).toISOString(),
    pauses: [],
    extended: false,
    stoppedAt: null,
  };
  let worst = 0;
  while (wall - began < 60 * MINUTE) {
    const [awake, asleep] = [50 + pick(1_000) + Math.random(), pick(10) === 0 ? pick(2 * MINUTE) : 0];
    ticks += awake;
    wall += awake + asleep;
    worst = Math.max(worst, Math.abs(timerAt(timer, clock.now()).elapsed - (wall - began)));
  }
  return worst;
}

/**
 * A session of four people and three hours on a demo server, or an empty one.
 * @param {string} address
 * @param {number} size how many events
 */
export async function longSession(address, size) {
  const { items } = /** @type {{ items: { id: string }[] }} */ (await (await fetch(`${address}/api/clients`)).json());
  const people = items.slice(0, 4).map(({ id }) => id);
  const began = Date.now() - 3 * 60 * MINUTE;
  const session = await post(address, '/sessions', { clientIds: people, startedAt: new Date(began).toISOString() });
  const movements = ['goblet-squat', 'push-up', 'glute-bridge', 'forearm-plank', 'two-hand-swing', 'split-squat'];
  /** @type {Record<string, string>[]} */
  const at = people.map(() => ({ entry: '', set: '', item: '' }));
  const events = Array.from({ length: size }, (_, i) => {
    const who = i % people.length;
    const own = at[who] ?? {};
    const n = Math.floor(i / people.length) % 60;
    const id = uuid();
    const movementId = movements[Math.floor(i / people.length / 60) % movements.length];
    const kinds = () => {
      if (n === 0) {
        const itemId = (own.item = uuid());
        const lane = {
          clientId: people[who],
          movementId,
          withId: null,
          sets: 6,
          amount: 10,
          tempo: '2-0-1-0',
          rest: 60,
          load: null,
          why: '',
        };
        return { type: 'item-added', data: { itemId, afterId: null, lane } };
      }
      if (n === 1) {
        own.entry = id;
        return { type: 'movement-started', data: { movementId, why: null, itemId: own.item } };
      }
      if (n % 12 === 0) {
        own.set = id;
        return { type: 'set-done', data: { entryId: own.entry, side: 'both', amount: 10, kg: null, loadLabel: null } };
      }
      if (n % 12 === 1 && own.set) return { type: 'effort-felt', data: { setId: own.set, effort: 'medium' } };
      return { type: 'rep-counted', data: { entryId: own.entry, side: 'both' } };
    };
    return {
      id,
      sessionId: session.id,
      clientId: people[who],
      counter: i + 1,
      at: new Date(began + Math.floor((i / size) * 3 * 60 * MINUTE)).toISOString(),
      ...kinds(),
    };
  });
  for (let i = 0; i < events.length; i += 500)
    await post(address, `/sessions/${session.id}/events`, { events: events.slice(i, i + 500) });
  return session.id;
}

/**
 * Opens a session from the list of those that are open, as a trainer who comes back to it. Milliseconds.
 * @param {import('@playwright/test').Page} page
 * @param {string} address
 * @param {string} id
 */
export async function openings(page, address, id) {
  /** @type {number[]} */
  const took = [];
  for (let i = 0; i < 7; i += 1) {
    await page.goto(`${address}/floor`);
    const link = page.locator(`a[href="/floor/${id}"]`);
    await link.waitFor();
    const start = performance.now();
    await link.click();
    await page.getByRole('tablist', { name: 'Clients' }).waitFor();
    took.push(performance.now() - start);
  }
  return took;
}

/**
 * Taps with four lanes and their timers running: from the press until its outcome is in the page, written down on the way.
 * @param {import('@playwright/test').Page} page
 */
export async function taps(page) {
  const lanes = page.getByRole('tablist', { name: 'Clients' }).getByRole('tab');
  for (let i = 0; i < 4; i += 1) {
    await lanes.nth(i).click();
    await page
      .getByRole('button', { name: 'Next', exact: true })
      .click()
      .catch(() => undefined);
    const sheet = page.getByRole('dialog', { name: 'Next movement' });
    const where = (await sheet.isVisible()) ? sheet : page;
    await where.getByRole('searchbox', { name: 'Find a movement' }).fill('glute bridge');
    await where
      .getByRole('button', { name: /^Glute bridge/ })
      .first()
      .click();
    await page.getByRole('button', { name: 'Tempo' }).click();
    await page.getByRole('button', { name: 'Pause' }).waitFor();
  }
  return page.evaluate(async () => {
    const took = [];
    for (let i = 0; i < 60; i += 1) {
      const button = /** @type {HTMLElement} */ (
        [...document.querySelectorAll('[aria-label="Set"] button')].find((one) => one.textContent?.startsWith('Count'))
      );
      const before = button.textContent;
      const start = performance.now();
      button.click();
      await new Promise((/** @type {(value?: unknown) => void} */ resolve) => {
        const watch = new MutationObserver(() => {
          if (button.textContent === before) return;
          watch.disconnect();
          resolve();
        });
        watch.observe(document.body, { subtree: true, childList: true, characterData: true });
      });
      took.push(performance.now() - start);
      await new Promise((resolve) => setTimeout(resolve, 120));
    }
    return took;
  });
}
