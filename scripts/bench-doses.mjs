/** The figures of composed doses: a plan with all of them, their taps, and their signals while nobody looks at the page. */

const { amountOfParts } = await import('@waxwing/core/dosage');
const { partsSignals } = await import('@waxwing/core/session');

let ids = 0;
const uuid = () => `018f0000-0000-7000-8000-${(0x9000000 + (ids += 1)).toString(16).padStart(12, '0')}`;

/** @type {import('@waxwing/core/schema').Part[]} */
export const PARTS = [
  { kind: 'reps', count: 8, tempo: null },
  { kind: 'reps', count: 3, tempo: '4-0-2-0' },
  { kind: 'pulses', count: 8, at: 'bottom' },
  { kind: 'hold', count: 8, at: null },
];

/** @param {number} kg @returns {import('@waxwing/core/dosage').Load} */
const bell = (kg) => ({ item: 'bell', count: 1, kg, label: `${kg} kg bell`, changeSeconds: 0 });

/**
 * An hour for some people in which every line is of another kind: parts, rounds that differ, drops, tests and clocks.
 * @param {readonly string[]} people
 * @returns {import('@waxwing/core/planning').Plan}
 */
export function planOfAll(people) {
  /** @param {string} movementId @param {object} [more] */
  const item = (movementId, more = {}) => ({
    id: uuid(),
    locked: false,
    tied: false,
    lanes: people.map((clientId) => ({
      clientId,
      movementId,
      withId: null,
      sets: 4,
      amount: 11,
      tempo: '2-0-1-0',
      rest: 60,
      load: null,
      why: [],
      ...more,
    })),
  });
  const rounds = [1, 2, 3, 4].map((set) => ({ set, amount: 12 - set, tempo: '3-0-1-0' }));
  const sides = /** @type {const} */ (['left', 'right', 'alternating', 'left']).map((side, i) => ({
    set: i + 1,
    side,
  }));
  /** @param {'strength' | 'superset' | 'circuit'} kind @param {ReturnType<typeof item>[]} items @param {object} [more] */
  const block = (kind, items, more = {}) => ({ id: uuid(), kind, rounds: 4, workSeconds: null, items, ...more });
  return {
    name: 'All of it',
    clientIds: [...people],
    minutes: 60,
    startsAt: null,
    purpose: 'strength',
    place: { kind: 'studio' },
    space: 'lane',
    template: false,
    note: '',
    blocks: [
      block('strength', [
        item('bodyweight-squat', { parts: PARTS }),
        item('goblet-squat', { load: bell(16), drops: [{ load: bell(12), amount: 5 }], bySet: rounds }),
        item('push-up', { test: { name: 'Push-ups', unit: 'reps', seconds: null, clean: '' } }),
      ]),
      block('superset', [item('split-squat', { bySet: sides }), item('glute-bridge', { parts: PARTS })]),
      block('circuit', [item('push-up'), item('bodyweight-squat')], { clock: { mode: 'every', seconds: 60 } }),
      block('circuit', [item('push-up'), item('glute-bridge')], { clock: { mode: 'rounds-in', seconds: 600 } }),
    ],
  };
}

/**
 * Keeps a plan of one composed line for four people and opens the floor with it.
 * @param {import('@playwright/test').Page} page
 * @param {string} address
 * @param {import('@waxwing/core/schema').Part[]} parts
 */
async function openComposed(page, address, parts) {
  const { items } = /** @type {{ items: { id: string }[] }} */ (await (await fetch(`${address}/api/clients`)).json());
  const people = items.slice(0, 4).map(({ id }) => id);
  const plan = planOfAll(people);
  const [first] = plan.blocks;
  if (!first) throw new Error('no block');
  const lane = (/** @type {string} */ clientId) => ({
    clientId,
    movementId: 'glute-bridge',
    withId: null,
    sets: 20,
    amount: amountOfParts(parts),
    tempo: '2-0-1-0',
    rest: 0,
    load: null,
    why: [],
    parts,
  });
  const blocks = [{ ...first, items: [{ id: uuid(), locked: false, tied: false, lanes: people.map(lane) }] }];
  const answer = await fetch(`${address}/api/plans`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ plan: { ...plan, blocks } }),
  });
  if (!answer.ok) throw new Error(await answer.text());
  const { id } = /** @type {{ id: string }} */ (await answer.json());
  await page.goto(`${address}/plan/${id}`);
  await page.getByRole('button', { name: 'To the floor' }).click();
  await page.getByRole('button', { name: 'Set done' }).waitFor();
  const lanes = page.getByRole('tablist', { name: 'Clients' }).getByRole('tab');
  for (let i = 0; i < 4; i += 1) {
    await lanes.nth(i).click();
    await page.getByRole('button', { name: 'Tempo' }).click();
    await page.getByRole('button', { name: 'Pause' }).waitFor();
  }
}

/**
 * Taps with four composed lanes running: a set that is logged, from the press until the next one shows.
 * @param {import('@playwright/test').Page} page
 * @param {string} address
 */
export async function composedTaps(page, address) {
  await openComposed(page, address, PARTS);
  return page.evaluate(async () => {
    const took = [];
    const tabs = /** @type {HTMLElement[]} */ ([...document.querySelectorAll('[role="tab"]')]);
    for (let i = 0; i < 60; i += 1) {
      tabs[i % 4]?.click();
      await new Promise((resolve) => setTimeout(resolve, 150));
      const status = () => document.querySelector('[aria-label="Set"] [role="status"]')?.textContent ?? '';
      const button = /** @type {HTMLElement} */ (
        [...document.querySelectorAll('[aria-label="Set"] button')].find((one) => one.textContent === 'Set done')
      );
      const before = status();
      const start = performance.now();
      button.click();
      await new Promise((/** @type {(value?: unknown) => void} */ resolve) => {
        const watch = new MutationObserver(() => {
          if (status() === before) return;
          watch.disconnect();
          resolve();
        });
        watch.observe(document.body, { subtree: true, childList: true, characterData: true });
      });
      took.push(performance.now() - start);
    }
    return took;
  });
}

/** Twenty minutes of beats, a second apart. @type {import('@waxwing/core/schema').Part[]} */
const LONG = [200, 200].map((count) => ({ kind: 'reps', count, tempo: null }));

/** Minutes that the page is hidden for: after five of them a browser lets its timers run once a minute. */
const HIDDEN_MINUTES = Number(process.env.WAXWING_HIDDEN_MINUTES ?? 7);
/** How far a device's sound may drift from its clock: parts in a million that a cheap crystal is off. */
const DRIFT_PPM = 100;

/**
 * How far signals are from their time, in milliseconds, while the page is hidden: where each was last put against the second that it belongs to,
 * and what a sound device drifts from then on. The sound itself is not heard here: a machine without a device has no clock for it.
 * @param {import('@playwright/test').Page} page
 * @param {string} address
 */
export async function signalsOff(page, address) {
  await page.addInitScript(() => {
    const laid = /** @type {{ sounds: number; at: number }[]} */ ([]);
    Object.assign(window, { laid });
    const start = OscillatorNode.prototype.start;
    OscillatorNode.prototype.start = function (when = 0) {
      const at = Date.now();
      laid.push({ sounds: at + (when - this.context.currentTime) * 1000, at });
      start.call(this, when);
    };
  });
  await openComposed(page, address, LONG);
  const hidden = Date.now();
  const other = await page.context().newPage();
  await other.bringToFront();
  await new Promise((resolve) => setTimeout(resolve, HIDDEN_MINUTES * 60_000));
  const laid = await page.evaluate(
    () => /** @type {{ laid: { sounds: number; at: number }[] }} */ (/** @type {unknown} */ (window)).laid,
  );
  await other.close();
  const id = page.url().split('/').at(-1) ?? '';
  const session = /** @type {{ events: { type: string; at: string }[] }} */ (
    await (await fetch(`${address}/api/sessions/${id}`)).json()
  );
  const signals = partsSignals(LONG, '2-0-1-0', 'lower').map(({ at }) => at);
  const due = session.events
    .filter(({ type }) => type === 'timer-started')
    .flatMap(({ at }) => signals.map((after) => Date.parse(at) + after))
    .filter((at) => at > hidden + 1_000 && at < Date.now());
  const off = due.map((at) =>
    Math.min(
      ...laid
        .filter(({ sounds }) => Math.abs(sounds - at) < 500)
        .map(({ sounds, at: put }) => Math.abs(sounds - at) + (sounds - put) * (DRIFT_PPM / 1_000_000)),
    ),
  );
  console.log(`${due.length} signals of four lanes fell into ${HIDDEN_MINUTES} min in which the page was hidden`);
  return Math.max(...off);
}

/**
 * The events of a session in which every set has parts, one after the other.
 * @param {number} size
 * @param {string} session
 * @param {string} client
 * @returns {import('@waxwing/core/session').SessionEvent[]}
 */
export function composedEvents(size, session, client) {
  let [entryId, setId] = ['', ''];
  return Array.from({ length: size }, (_, i) => {
    const id = uuid();
    const envelope = {
      id,
      sessionId: session,
      clientId: client,
      counter: i + 1,
      at: new Date(Date.UTC(2030, 0, 1) + i * 1000).toISOString(),
    };
    const made = () => {
      if (i % 50 === 0) {
        entryId = id;
        return { type: 'movement-started', data: { movementId: 'goblet-squat', why: null } };
      }
      if (i % 3 === 1) {
        setId = id;
        return {
          type: 'set-done',
          data: { entryId, side: 'both', amount: 11, kg: 16, loadLabel: '16 kg', parts: PARTS },
        };
      }
      if (i % 3 === 2) return { type: 'drop-done', data: { setId, amount: 5, kg: 12, loadLabel: '12 kg' } };
      return { type: 'effort-felt', data: { setId, effort: 'medium' } };
    };
    return /** @type {import('@waxwing/core/session').SessionEvent} */ ({ ...envelope, ...made() });
  });
}
