import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { emptyPlan, type Plan, type StoredPlan } from '@waxwing/core/planning';

import { addBlock, blockUp, changeItem, copyOf, moveItem, toBlock } from './edit';
import { keptDraft, PlanSaver, type Saving } from './plan-saver';
import { changed, type Edited, undone } from './undo';

const ID = '018f0000-0000-7000-8000-00000000a1a1';
const CLIENT = '018f0000-0000-7000-8000-00000000c11e';

const PLAN = emptyPlan([CLIENT], 60);
const named = (name: string): Plan => ({ ...PLAN, name });

const real = globalThis.fetch;
let kept: Map<string, string>;
let sent: { version: number; plan: Plan }[];
let answers: (() => Response | Promise<Response>)[];
let said: Saving[];

beforeEach(() => {
  jest.useFakeTimers();
  kept = new Map();
  sent = [];
  answers = [];
  said = [];
  Object.defineProperty(globalThis, 'localStorage', {
    configurable: true,
    value: {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
      removeItem: (key: string) => void kept.delete(key),
    },
  });
  globalThis.fetch = ((_path: string, init: RequestInit) => {
    const body = (init.body ? JSON.parse(String(init.body)) : {}) as { version: number; plan: Plan };
    if (init.body) sent.push(body);
    const answer = answers.shift();
    return answer
      ? Promise.resolve(answer())
      : Promise.resolve(
          Response.json({ ...body.plan, id: ID, version: body.version + 1, updatedAt: '' } as StoredPlan),
        );
  }) as typeof fetch;
});
afterEach(() => {
  jest.useRealTimers();
  globalThis.fetch = real;
});

const saver = () =>
  new PlanSaver(
    ID,
    1,
    (saving) => said.push(saving),
    () => undefined,
  );
const pass = (milliseconds: number) => jest.advanceTimersByTimeAsync(milliseconds);

test('changes that come quickly are one save, and are kept on the device until it is answered', async () => {
  const one = saver();
  one.put(named('a'));
  await pass(100);
  one.put(named('b'));
  expect(sent).toEqual([]);
  expect(keptDraft(ID, 1)?.name).toBe('b');
  await pass(1_000);
  expect(sent.map(({ version, plan }) => [version, plan.name])).toEqual([[1, 'b']]);
  expect(said.at(-1)).toBe('saved');
  expect(kept.size).toBe(0);
  one.put(named('c'));
  await pass(1_000);
  expect(sent.at(-1)).toMatchObject({ version: 2, plan: { name: 'c' } });
});

test('a change made while another is on its way is sent after it, from its version', async () => {
  const one = saver();
  let arrive: (response: Response) => void = () => undefined;
  answers.push(() => new Promise<Response>((resolve) => (arrive = resolve)));
  one.put(named('a'));
  await pass(500);
  one.put(named('b'));
  await pass(5_000);
  expect(sent).toHaveLength(1);
  arrive(Response.json({ ...PLAN, id: ID, version: 2, updatedAt: '' }));
  await pass(1_000);
  expect(sent.map(({ version, plan }) => [version, plan.name])).toEqual([
    [1, 'a'],
    [2, 'b'],
  ]);
  expect(said.at(-1)).toBe('saved');
});

test('a server that is away or full is asked again until it answers; a refusal is told and nothing is lost', async () => {
  const one = saver();
  answers.push(
    () => Promise.reject(new TypeError('away')),
    () => Promise.reject(new TypeError('away')),
  );
  one.put(named('a'));
  await pass(500);
  expect(said.at(-1)).toBe('away');
  expect(keptDraft(ID, 1)?.name).toBe('a');
  await pass(10_000);
  expect(sent).toHaveLength(3);
  expect(said.at(-1)).toBe('saved');

  answers.push(() => Response.json({ detail: 'The disk is full.' }, { status: 507 }));
  one.put(named('b'));
  await pass(500);
  expect(said.at(-1)).toBe('full');
  await pass(5_000);
  expect([sent.length, said.at(-1)]).toEqual([5, 'saved']);

  answers.push(() => Response.json({ detail: 'This plan is at version 9 by now.' }, { status: 409 }));
  one.put(named('late'));
  await pass(10_000);
  expect(said.at(-1)).toEqual({ refused: 'This plan is at version 9 by now.' });
  expect(sent).toHaveLength(6);
  // Kept for the version it was made from, and not shown over a newer one.
  expect(keptDraft(ID, 3)?.name).toBe('late');
  expect(keptDraft(ID, 9)).toBeNull();
  kept.set(`waxwing-plan-${ID}`, '{"version":3,"plan":{"name":""}}');
  expect(keptDraft(ID, 3)).toBeNull();
});

test('items and blocks are moved without losing any, and a copy shares no id', () => {
  const lane = {
    clientId: CLIENT,
    movementId: 'push-up',
    withId: null,
    sets: 3,
    amount: 8,
    tempo: '2-0-1-0',
    rest: 60,
    load: null,
    why: [],
  };
  const item = (id: string) => ({ id, locked: false, tied: false, lanes: [lane] });
  let plan = addBlock(addBlock(PLAN, 'strength'), 'trunk');
  const [strength, trunk] = plan.blocks.map(({ id }) => id) as [string, string];
  plan = {
    ...plan,
    blocks: plan.blocks.map((block, i) => (i === 0 ? { ...block, items: ['a', 'b', 'c'].map(item) } : block)),
  };
  const ids = () => plan.blocks.map(({ items }) => items.map(({ id }) => id).join(''));
  plan = moveItem(plan, strength, 0, 2);
  expect(ids()).toEqual(['bca', '']);
  plan = toBlock(plan, item('c'), trunk);
  expect(ids()).toEqual(['ba', 'c']);
  plan = blockUp(plan, trunk);
  expect(ids()).toEqual(['c', 'ba']);
  expect(blockUp(plan, trunk)).toBe(plan);
  const locked = changeItem(plan, 'b', (one) => ({ ...one, locked: true }));
  expect(locked.blocks[1]?.items.map((one) => one.locked)).toEqual([true, false]);
  const all = (one: Plan) => one.blocks.flatMap(({ id, items }) => [id, ...items.map((each) => each.id)]);
  expect(all(copyOf(plan)).filter((id) => all(plan).includes(id))).toEqual([]);
});

test('a plan that was stored while its answer got lost is not refused the second time', async () => {
  const one = saver();
  const stored = { ...named('a'), id: ID, version: 2, updatedAt: 'then' };
  answers.push(
    () => Promise.reject(new TypeError('the answer got lost')),
    () => Response.json({ detail: 'version 2 by now' }, { status: 409 }),
    () => Response.json(stored),
  );
  one.put(named('a'));
  await pass(10_000);
  expect(said.at(-1)).toBe('saved');
  one.put(named('b'));
  await pass(1_000);
  expect(sent.at(-1)).toMatchObject({ version: 3, plan: { name: 'b' } });
  // Somebody else's newer plan is not taken for one's own.
  answers.push(
    () => Response.json({ detail: 'version 9 by now' }, { status: 409 }),
    () => Response.json({ ...stored, version: 9, name: 'of somebody else' }),
  );
  one.put(named('c'));
  await pass(10_000);
  expect(said.at(-1)).toEqual({ refused: 'version 9 by now' });
});

test('a step back takes what was typed into one field, and every step until the first', () => {
  const [name, minutes] = [{}, {}];
  const start: Edited = { plan: named(''), past: [], field: null };
  const typed = [...'Friday'].reduce<Edited>((now, letter) => changed(now, named(now.plan.name + letter), name), start);
  const later = changed(typed, named('Friday, late'), null);
  expect([later.plan.name, undone(later).plan.name, undone(undone(later)).plan]).toEqual([
    'Friday, late',
    'Friday',
    start.plan,
  ]);
  expect(undone(start)).toBe(start);
  // What comes right after a step back, or in another field, or by pressing twice, is a step of its own.
  const other = changed(undone(later), named('Saturday'), name);
  expect(undone(other).plan.name).toBe('Friday');
  const elsewhere = changed(typed, named('Friday, 30'), minutes);
  expect(undone(elsewhere).plan.name).toBe('Friday');
  expect(undone(changed(later, named('Friday, later'), null)).plan.name).toBe('Friday, late');
  expect(changed(later, later.plan, name)).toEqual(later);
});
