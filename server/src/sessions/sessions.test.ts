import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Client, Studio } from '@waxwing/core/client';
import type { SetRow } from '@waxwing/core/formats';
import type { BlockKind, StoredPlan } from '@waxwing/core/planning';
import type { Problem } from '@waxwing/core/schema';
import type { EventOf, EventType, LaterEvents, SessionEvent, SessionView } from '@waxwing/core/session';
import Papa from 'papaparse';
import { v7 as uuidv7 } from 'uuid';

import { planFor } from '../test/plans.js';
import { startServer, type StudioServer } from '../test/studio-server.js';

let server: StudioServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

const problems = ({ body }: { body: unknown }): string[] =>
  ((body as { errors?: Problem[] }).errors ?? []).map(({ path }) => path);

const client = async (name: string): Promise<Client> =>
  (await server.http.post('/api/clients').send({ name }).expect(201)).body as Client;

async function plan(clientIds: string[], kind: BlockKind, movements: string[]): Promise<StoredPlan> {
  const body = { plan: planFor(clientIds, movements, { name: 'Friday' }, kind) };
  return (await server.http.post('/api/plans').send(body).expect(201)).body as StoredPlan;
}

const start = (clientIds: string[], planId?: string) =>
  server.http.post('/api/sessions').send({ clientIds, startedAt: new Date().toISOString(), planId });

async function begun(clientIds: string[], planId?: string): Promise<SessionView> {
  return (await start(clientIds, planId).expect(201)).body as SessionView;
}

function writer(session: SessionView) {
  let counter = 0;
  return <T extends EventType>(
    type: T,
    data: EventOf<T>['data'],
    clientId = session.clients[0]?.id ?? '',
  ): SessionEvent => {
    counter += 1;
    const at = new Date(Date.parse(session.startedAt) + counter * 1000).toISOString();
    return { id: uuidv7(), sessionId: session.id, clientId, counter, at, type, data } as SessionEvent;
  };
}

const send = (session: SessionView, events: SessionEvent[]) =>
  server.http.post(`/api/sessions/${session.id}/events`).send({ events });

describe('a session from a plan', () => {
  test('keeps the plan as it was, whatever becomes of it later', async () => {
    const ada = await client('Ada');
    const stored = await plan([ada.id], 'strength', ['goblet-squat', 'push-up']);
    const session = await begun([ada.id], stored.id);
    expect(session.programme).toMatchObject({ planId: stored.id, plan: { name: 'Friday', blocks: stored.blocks } });
    await server.http.delete(`/api/plans/${stored.id}`).expect(204);
    const later = (await server.http.get(`/api/sessions/${session.id}`).expect(200)).body as SessionView;
    expect(later.programme).toEqual(session.programme);
  });

  test('goes round as stations only where the kit is too short for everybody at once', async () => {
    const people = [await client('Ada'), await client('Bo'), await client('Cy')].map(({ id }) => id);
    const { version, name, trainer } = (await server.http.get('/api/studio')).body as Studio;
    const kit = [
      { item: 'bench', count: 1 },
      { item: 'chair', count: 3 },
    ];
    await server.http.patch('/api/studio').send({ version, name, trainer, kit }).expect(200);
    const short = await plan(people, 'circuit', ['hip-thrust', 'sit-to-stand', 'push-up']);
    const plenty = await plan(people, 'circuit', ['sit-to-stand', 'push-up']);
    const rotation = (session: SessionView) => Object.values(session.programme?.rotations ?? {})[0];
    const places = rotation(await begun(people, short.id)) ?? [];
    for (const turn of places) expect(turn.filter((at) => at === 0).length).toBeLessThanOrEqual(1);
    for (const who of people.keys()) expect(places.flatMap((turn) => turn[who] ?? []).sort()).toEqual([0, 1, 2]);
    expect(rotation(await begun(people, plenty.id))).toBeUndefined();
  });

  test('is refused by field when the plan is not there or is for others', async () => {
    const [ada, bo] = [await client('Ada'), await client('Bo')];
    const stored = await plan([ada.id], 'strength', ['goblet-squat']);
    expect(problems(await start([ada.id], uuidv7()).expect(422))).toEqual(['planId']);
    expect(problems(await start([ada.id], 'friday').expect(422))).toEqual(['planId']);
    expect(problems(await start([bo.id], stored.id).expect(422))).toEqual(['clientIds']);
  });
});

test('what another device sent is asked for by place, each event once', async () => {
  const ada = await client('Ada');
  const session = await begun([ada.id]);
  const record = writer(session);
  const [one, two, three] = ['one', 'two', 'three'].map((text) => record('note-written', { text }));
  if (!one || !two || !three) throw new Error('unreachable');
  const later = async (after: number) =>
    (await server.http.get(`/api/sessions/${session.id}/events?after=${after}`).expect(200)).body as LaterEvents;
  await send(session, [two]).expect(200);
  const first = await later(session.place);
  expect(first.events).toEqual([two]);
  // A device that was away sends what is earlier by its counter: it comes later here all the same.
  await send(session, [one, two, three]).expect(200);
  const second = await later(first.place);
  expect(second.events).toEqual([one, three]);
  expect(await later(second.place)).toMatchObject({ events: [], place: second.place, last: second.place });
  await server.http.get(`/api/sessions/${session.id}/events?after=-1`).expect(422);
});

test('a set that was put right, its effort and its load come out as JSON and as CSV', async () => {
  const ada = await client('=Ada');
  const session = await begun([ada.id]);
  const record = writer(session);
  const entry = record('movement-started', { movementId: 'split-squat', why: null });
  const set = (side: 'left' | 'right', amount: number) =>
    record('set-done', { entryId: entry.id, side, amount, kg: 11.34, loadLabel: '25 lb dumbbell' });
  const [left, right] = [set('left', 8), set('right', 8)];
  const seen = record('fault-seen', { entryId: entry.id, faultId: 'front-knee-wobbles' });
  const events = [
    entry,
    left,
    right,
    record('set-corrected', { setId: right.id, amount: 7, kg: 11.34, loadLabel: '25 lb dumbbell' }),
    record('effort-felt', { setId: right.id, effort: 'hard', left: 1 }),
    seen,
    set('left', 8),
  ];
  await send(session, events).expect(200);
  const rows = (await server.http.get(`/api/sessions/${session.id}/sets`).expect(200)).body as SetRow[];
  expect(rows.map(({ side, amount, set: n }) => [side, n, amount])).toEqual([
    ['left', 1, 8],
    ['right', 1, 7],
    ['left', 2, 8],
  ]);
  expect(rows[1]).toMatchObject({ effort: 'hard', repsLeft: 1, kg: 11.34, load: '25 lb dumbbell', faults: [] });
  const { text } = await server.http.get(`/api/clients/${ada.id}/sets.csv`).expect(200);
  const table = Papa.parse<Record<string, string>>(text.trim(), { header: true }).data;
  expect(table.map(({ side, amount, kg }) => [side, amount, kg])).toEqual(
    rows.map(({ side, amount, kg }) => [side, String(amount), String(kg)]),
  );
  // A name that a spreadsheet would reckon with.
  expect(table[0]?.client).toBe("'=Ada");
});

test.each([
  [
    'a timer of no length',
    'timer-started',
    { entryId: null, blockId: null, side: 'both', work: 0, rest: 0, count: 1 },
    'data.work',
  ],
  ['half a rep left', 'effort-felt', { setId: uuidv7(), effort: 'hard', left: 0.5 }, 'data.left'],
  ['a tempo in words', 'dose-changed', { itemId: uuidv7(), amount: 8, load: null, tempo: 'slow' }, 'data.tempo'],
  ['a set that never was', 'gone-to', { itemId: uuidv7(), set: 0 }, 'data.set'],
])('%s is refused by field', async (_, type, data, path) => {
  const ada = await client('Ada');
  const session = await begun([ada.id]);
  const event = { ...writer(session)('session-paused', {}), type, data } as SessionEvent;
  expect(problems(await send(session, [event]).expect(422))).toEqual([`events[0].${path}`]);
});

test('what is done in an emergency is the studio’s own, and a number must be one', async () => {
  const { version, name, trainer, kit } = (await server.http.get('/api/studio')).body as Studio;
  const edit = (fields: object) => server.http.patch('/api/studio').send({ version, name, trainer, kit, ...fields });
  expect(problems(await edit({ emergencyPhone: 'call Bo' }).expect(422))).toEqual(['emergencyPhone']);
  const saved = await edit({ emergencyText: 'Stop. Door.', emergencyPhone: '+1 (555) 01-00' }).expect(200);
  expect(saved.body).toMatchObject({ emergencyText: 'Stop. Door.', emergencyPhone: '+1 (555) 01-00' });
});

test('a clock that jumped poisons nothing: the tap is kept with the time of the server, marked, and what follows goes on', async () => {
  const ada = await client('Ada');
  const session = await begun([ada.id]);
  const record = writer(session);
  const ahead = new Date(Date.now() + 2 * 86_400_000).toISOString();
  const [one, two] = [1, 2].map((n) => ({ ...record('note-written', { text: `ahead ${n}` }), at: ahead }));
  const after = record('note-written', { text: 'right again' });
  await send(session, [one, two] as SessionEvent[]).expect(200);
  await send(session, [after]).expect(200);
  // The device sends what it has, as it has it: it is known again.
  expect((await send(session, [one, two] as SessionEvent[]).expect(200)).body).toMatchObject({ stored: 0, known: 2 });
  const { events } = (await server.http.get(`/api/sessions/${session.id}`).expect(200)).body as SessionView;
  expect(events.map(({ deviceAt }) => deviceAt)).toEqual([ahead, ahead, undefined]);
  for (const { at } of events) expect(Math.abs(Date.parse(at) - Date.now())).toBeLessThan(60_000);
  // Both were one tap, and stay one.
  expect(events[0]?.at).toBe(events[1]?.at);
});

test('a session that only a device still has is begun anew as it was, with its plan', async () => {
  const ada = await client('Ada');
  const stored = await plan([ada.id], 'strength', ['goblet-squat']);
  const { programme } = await begun([ada.id], stored.id);
  const yesterday = new Date(Date.now() - 30 * 3_600_000).toISOString();
  const again = { id: uuidv7(), clientIds: [ada.id], startedAt: yesterday };
  expect(problems(await server.http.post('/api/sessions').send(again).expect(422))).toEqual(['startedAt']);
  const back = await server.http
    .post('/api/sessions')
    .send({ ...again, again: true, programme })
    .expect(201);
  expect(back.body).toMatchObject({ id: again.id, startedAt: yesterday, programme });
  const wrong = { ...again, id: uuidv7(), again: true, programme: { ...programme, rotations: 7 } };
  expect(problems(await server.http.post('/api/sessions').send(wrong).expect(422))).toEqual(['programme.rotations']);
});

test('a long session comes in pieces, each event once', async () => {
  const ada = await client('Ada');
  const session = await begun([ada.id]);
  const record = writer(session);
  const taps = Array.from({ length: 2_300 }, (_, i) => record('note-written', { text: `${i}` }));
  for (let i = 0; i < taps.length; i += 500) await send(session, taps.slice(i, i + 500)).expect(200);
  const view = (await server.http.get(`/api/sessions/${session.id}`).expect(200)).body as SessionView;
  expect(view.events.length).toBeLessThan(taps.length);
  expect(view.place).toBeLessThan(view.last);
  const rest = (await server.http.get(`/api/sessions/${session.id}/events?after=${view.place}`).expect(200))
    .body as LaterEvents;
  expect([...view.events, ...rest.events].map(({ id }) => id)).toEqual(taps.map(({ id }) => id));
  expect(rest.place).toBe(rest.last);
});

test('sets of a client come page by page, the latest session first, without gap or repeat', async () => {
  const ada = await client('Ada');
  for (let n = 0; n < 4; n += 1) {
    const session = await begun([ada.id]);
    const record = writer(session);
    const entry = record('movement-started', { movementId: 'goblet-squat', why: null });
    const set = () => record('set-done', { entryId: entry.id, side: 'both', amount: n, kg: null, loadLabel: null });
    await send(session, [entry, set(), set(), set()]).expect(200);
  }
  const amounts: number[] = [];
  let cursor = '';
  do {
    const path = `/api/clients/${ada.id}/sets?limit=4${cursor ? `&cursor=${encodeURIComponent(cursor)}` : ''}`;
    const page = (await server.http.get(path).expect(200)).body as { items: SetRow[]; nextCursor: string | null };
    amounts.push(...page.items.map(({ amount }) => amount));
    cursor = page.nextCursor ?? '';
  } while (cursor);
  expect(amounts).toEqual([3, 3, 3, 2, 2, 2, 1, 1, 1, 0, 0, 0]);
  expect(problems(await server.http.get(`/api/clients/${ada.id}/sets?cursor=x`).expect(422))).toEqual(['cursor']);
});
