import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Client, ClientSummary } from '@waxwing/core/client';
import type { ClientRecord } from '@waxwing/core/coaching';
import type { ClientFile, OutboxMessage, Sheet } from '@waxwing/core/formats';
import type { Plan, PlanSummary, StoredPlan } from '@waxwing/core/planning';
import type { SessionEvent, SessionView } from '@waxwing/core/session';
import Database from 'better-sqlite3';
import { v7 as uuidv7 } from 'uuid';

import { bytes } from './test/bytes.js';
import { lane, planFor } from './test/plans.js';
import { startServer, type StudioServer, wrongFields } from './test/studio-server.js';

let server: StudioServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

describe('plans', () => {
  test('are kept, listed by client, changed with their version, and deleted', async () => {
    const [ada, bo] = [await server.client('Ada'), await server.client('Bo')];
    const kept = await server.keep(planFor([ada.id, bo.id]));
    const again = await server.http.post('/api/plans').send({ id: kept.id, plan: planFor([bo.id]) });
    expect((again.body as StoredPlan).clientIds).toEqual([ada.id, bo.id]);
    const listed = (
      (await server.http.get(`/api/plans?clientId=${bo.id}`).expect(200)).body as { items: PlanSummary[] }
    ).items;
    expect(listed.map(({ id, clients }) => [id, clients.map(({ name }) => name)])).toEqual([[kept.id, ['Ada', 'Bo']]]);
    const { id, version, updatedAt: _, ...plan } = kept;
    const edited = await server.http
      .patch(`/api/plans/${id}`)
      .send({ version, plan: { ...plan, name: 'Friday' } })
      .expect(200);
    expect(edited.body).toMatchObject({ name: 'Friday', version: 2 });
    await server.http.patch(`/api/plans/${id}`).send({ version, plan }).expect(409);
    await server.restart();
    expect((await server.http.get(`/api/plans/${id}`).expect(200)).body).toMatchObject({ name: 'Friday' });
    await server.http.delete(`/api/plans/${id}`).expect(204);
    await server.http.get(`/api/plans/${id}`).expect(404);
  });

  test('of a span of time come with the session that was held by them', async () => {
    const ada = await server.client('Ada');
    // The fifth day is today: nobody starts a session in the future.
    const now = Date.now();
    const at = (day: number) => new Date(now + (day - 5) * 86_400_000).toISOString();
    const [early, held, late] = await Promise.all(
      [1, 5, 9].map((day) => server.keep({ ...planFor([ada.id]), startsAt: at(day) })),
    );
    const list = async (query: object) =>
      (await server.http.get('/api/plans').query(query).expect(200)).body as { items: PlanSummary[] };
    const ids = async (query: object) => (await list(query)).items.map(({ id }) => id);
    expect(await ids({ from: at(2), to: at(9) })).toEqual([held?.id]);
    expect(await ids({ from: at(2) })).toEqual([late?.id, held?.id]);
    expect(await ids({ from: at(0), to: at(2) })).toEqual([early?.id]);
    const started = await server.http
      .post('/api/sessions')
      .send({ clientIds: [ada.id], startedAt: at(5), planId: held?.id })
      .expect(201);
    const sessionId = (started.body as { id: string }).id;
    expect((await list({ from: at(2), to: at(9) })).items[0]?.session).toEqual({ id: sessionId, finished: false });
    // Whoever looks at the people sees when each of them was here, and comes next.
    const people = (await server.http.get('/api/clients').expect(200)).body as { items: ClientSummary[] };
    expect(people.items.find(({ id }) => id === ada.id)).toMatchObject({
      last: at(5),
      came: [at(5)],
      next: { planId: late?.id, startsAt: at(9) },
      screened: false,
      checkedOn: null,
    });
    // The next time is asked with what the next plan is for and where, and without one with what was last.
    const aim = async () => ((await server.http.get(`/api/clients/${ada.id}/record`)).body as ClientRecord).aim;
    const home = { kind: 'home' as const, id: ada.id };
    const next = await server.keep({ ...planFor([ada.id]), startsAt: at(7), purpose: 'endurance', place: home });
    expect(await aim()).toEqual({ purpose: 'endurance', place: home });
    for (const plan of [next, late]) await server.http.delete(`/api/plans/${plan?.id}`).expect(204);
    expect(await aim()).toEqual({ purpose: 'strength', place: { kind: 'studio' } });
    await server.keep({ ...planFor([ada.id]), startsAt: at(9) });
    expect((await list({ from: at(6) })).items[0]?.session).toBeNull();
    expect(wrongFields(await server.http.get('/api/plans?from=yesterday').expect(422))).toEqual(['from']);
    expect(wrongFields(await server.http.get('/api/plans?to=2031-02-30T10:00:00.000Z').expect(422))).toEqual(['to']);
  });

  test('are in a calendar by a secret link: nobody is named in it, a new link ends the old one, and an ended one is none', async () => {
    const ada = await server.client('Ada Secret');
    await server.http.post('/api/door/begin').send({ name: 'Maren', open: true });
    const startsAt = new Date(Date.now() + 86_400_000).toISOString();
    await server.keep({ ...planFor([ada.id]), name: 'Hour on the quay', startsAt });
    await server.keep({ ...planFor([ada.id]), name: 'Without a day' });
    expect((await server.http.get('/api/calendar').expect(200)).body).toEqual({ since: null });
    const made = async () => ((await server.http.post('/api/calendar').expect(201)).body as { secret: string }).secret;
    const [first, second] = [await made(), await made()];
    await server.http.get(`/api/calendar/${first}.ics`).expect(404);
    const { text } = await server.http.get(`/api/calendar/${second}.ics`).expect(200);
    expect(text).toContain('SUMMARY:Hour on the quay');
    expect(text).not.toMatch(/Ada|Without a day/);
    const db = new Database(server.database, { readonly: true });
    expect(JSON.stringify(db.prepare('SELECT * FROM feeds').all())).not.toContain(second);
    db.close();
    await server.http.delete('/api/calendar').expect(204);
    await server.http.get(`/api/calendar/${second}.ics`).expect(404);
  });

  test('are refused by field: unknown people and movements, bad doses, longer than a day', async () => {
    const ada = await server.client('Ada');
    const send = (plan: object) => server.http.post('/api/plans').send({ plan }).expect(422);
    expect(wrongFields(await send(planFor([uuidv7()])))).toEqual(['plan.clientIds[0]']);
    expect(wrongFields(await send(planFor([ada.id], ['moon-squat'])))).toEqual([
      'plan.blocks[0].items[0].lanes[0].movementId',
    ]);
    const bad = planFor([ada.id]);
    bad.blocks[0]?.items[0]?.lanes.splice(0, 1, lane(ada.id, 'push-up', { amount: -2, tempo: '3-x-1' }));
    expect(wrongFields(await send(bad))).toEqual([
      'plan.blocks[0].items[0].lanes[0].amount',
      'plan.blocks[0].items[0].lanes[0].tempo',
    ]);
    // Reps that take no time make an hour of nothing; a hold has no tempo to speak of.
    const timeless = planFor([ada.id], ['push-up', 'forearm-plank']);
    timeless.blocks[0]?.items.forEach(({ lanes: all }) => all.forEach((one) => (one.tempo = '0-0-0-0')));
    expect(wrongFields(await send(timeless))).toEqual(['plan.blocks[0].items[0].lanes[0].tempo']);
    const endless = planFor([ada.id]);
    endless.blocks[0]?.items[0]?.lanes.splice(0, 1, lane(ada.id, 'push-up', { amount: 3600, sets: 20 }));
    expect(wrongFields(await send(endless))).toEqual(['plan.blocks']);
    expect(
      wrongFields(
        await server.http
          .post('/api/plans')
          .send({ plan: planFor([ada.id]), extra: 1 })
          .expect(422),
      ),
    ).toEqual(['extra']);
  });
});

describe('a sheet', () => {
  test('comes as data, Markdown, PDF on two papers and a calendar file, for who is in the plan only', async () => {
    const [ada, other] = [
      await server.client('Ada', {
        limits: [{ demand: 'weight-on-wrist', allowed: 0, reason: 'wrist' }],
        healthNote: 'secret of Ada',
      }),
      await server.client('Other'),
    ];
    const { id } = await server.keep(planFor([ada.id]));
    const sheet = (await server.http.get(`/api/plans/${id}/sheet`).expect(200)).body as Sheet;
    const [squat, push] = sheet.blocks[0]?.lines ?? [];
    expect(squat).toMatchObject({
      name: 'Goblet squat',
      dose: '3 × 10 reps, tempo 3-1-1-0, 60 s rest',
      changed: 'new',
    });
    expect(squat?.reminders.length).toBeGreaterThan(0);
    // Every easier push-up puts weight on the wrist: none is printed for a wrist that must not carry any.
    expect(push?.easier).toBeNull();
    const markdown = (await server.http.get(`/api/plans/${id}/sheet.md`).expect(200)).text;
    expect(markdown).toContain('1. **Goblet squat**');
    expect(markdown).not.toContain('secret');
    for (const [paper, size] of [
      ['a4', '595'],
      ['letter', '612'],
    ] as const) {
      const pdf = await server.http
        .get(`/api/plans/${id}/sheet.pdf?paper=${paper}`)
        .buffer(true)
        .parse(bytes)
        .expect(200);
      const text = (pdf.body as Buffer).toString('latin1');
      expect(text.slice(0, 5)).toBe('%PDF-');
      expect(text).toContain(`[0 0 ${size}`);
    }
    // Two columns: eight lines are one page.
    const eight = [
      'goblet-squat',
      'push-up',
      'hip-thrust',
      'reverse-lunge',
      'forearm-plank',
      'side-plank',
      'wall-sit',
      'box-squat',
    ];
    const hour = await server.keep(planFor([ada.id], eight));
    const printed = await server.http.get(`/api/plans/${hour.id}/sheet.pdf`).buffer(true).parse(bytes).expect(200);
    expect((printed.body as Buffer).toString('latin1').match(/\/Type \/Page\b/g)).toHaveLength(1);
    const calendar = (await server.http.get(`/api/plans/${id}/calendar.ics`).expect(200)).text;
    expect(calendar).toContain('DTSTART:20300307T160000Z');
    expect(calendar).toContain('DTEND:20300307T170000Z');
    expect(calendar).not.toContain('Ada');
    expect(wrongFields(await server.http.get(`/api/plans/${id}/sheet?clientId=${other.id}`).expect(422))).toEqual([
      'clientId',
    ]);
    const undated = await server.keep(planFor([ada.id], ['push-up'], { startsAt: null }));
    expect(wrongFields(await server.http.get(`/api/plans/${undated.id}/calendar.ics`).expect(422))).toEqual([
      'startsAt',
    ]);
  });

  test('is written as a message into the outbox, which shows it and lets it go', async () => {
    const ada = await server.client('Adá Ümlaut', { email: 'ada@example.org' });
    const { id } = await server.keep(planFor([ada.id], ['push-up'], { name: 'Für Adá' }));
    const sent = (await server.http.post(`/api/plans/${id}/send`).send({ clientId: ada.id }).expect(201))
      .body as OutboxMessage;
    const { items } = (await server.http.get('/api/outbox').expect(200)).body as { items: OutboxMessage[] };
    expect(items[0]).toMatchObject({ name: sent.name, subject: 'Für Adá' });
    expect(items[0]?.to).toBe('ada@example.org');
    expect(items[0]).toEqual(sent);
    const message = (await server.http.get(`/api/outbox/${sent.name}`).buffer(true).parse(bytes).expect(200))
      .body as Buffer;
    expect(message.toString()).toMatch(/Content-Type: application\/pdf; name=sheet.pdf/);
    await server.http.get('/api/outbox/..%2Fwaxwing.sqlite').expect(404);
    await server.http.delete(`/api/outbox/${sent.name}`).expect(204);
    await server.http.get(`/api/outbox/${sent.name}`).expect(404);
    const nowhere = await server.client('Nowhere');
    const other = await server.keep(planFor([nowhere.id]));
    const answer = await server.http.post(`/api/plans/${other.id}/send`).send({ clientId: nowhere.id }).expect(422);
    expect(wrongFields(answer)).toEqual(['to']);
  });
});

describe('a client file', () => {
  /** A shared session in which both did something and Ada's device ended it. */
  async function shared(ada: Client, bo: Client, planId: string): Promise<SessionView> {
    const startedAt = new Date().toISOString();
    const body = { clientIds: [ada.id, bo.id], planId, startedAt };
    const session = (await server.http.post('/api/sessions').send(body).expect(201)).body as SessionView;
    const event = (clientId: string, counter: number, type: string, data: object) => ({
      id: uuidv7(),
      sessionId: session.id,
      clientId,
      counter,
      at: startedAt,
      type,
      data,
    });
    const events = [
      event(ada.id, 1, 'note-written', { text: 'of Ada' }),
      event(bo.id, 2, 'note-written', { text: 'of Bo' }),
      event(ada.id, 3, 'session-finished', {}),
    ];
    await server.http.post(`/api/sessions/${session.id}/events`).send({ events }).expect(200);
    return session;
  }

  test('holds all of one client, and brings back what was deleted; what others did stays', async () => {
    const [ada, bo] = [
      await server.client('Ada File', {
        healthNote: 'knee',
        bodyKg: 61.5,
        benchmarks: [{ name: 'Plank', unit: 's', on: '2030-01-01', value: 40 }],
        readiness: { on: '2030-01-01', yes: ['joint'], clearedOn: null, clearedBy: '' },
      }),
      await server.client('Bo File'),
    ];
    const plan = await server.keep(planFor([ada.id, bo.id]));
    const session = await shared(ada, bo, plan.id);
    const own = await server.keep(planFor([ada.id]));
    for (const { id } of [ada, bo])
      await server.http
        .post(`/api/plans/${plan.id}/send`)
        .send({ clientId: id, to: 'somebody@example.org' })
        .expect(201);
    const file = (await server.http.get(`/api/clients/${ada.id}/file`).expect(200)).body as ClientFile;
    expect(file.client).toMatchObject({ name: 'Ada File', healthNote: 'knee', bodyKg: 61.5 });
    expect(file.sessions.flatMap(({ events }) => events.map(({ clientId }) => clientId))).toEqual([ada.id, ada.id]);
    expect(JSON.stringify(file)).not.toContain(bo.id);
    expect(file.sessions[0]?.programme?.plan.clientIds).toEqual([ada.id]);

    const wrong = await server.http.delete(`/api/clients/${ada.id}`).send({ name: 'Ada' }).expect(422);
    expect(wrongFields(wrong)).toEqual(['name']);
    await server.http.delete(`/api/clients/${ada.id}`).send({ name: 'Ada File' }).expect(204);
    await server.http.get(`/api/clients/${ada.id}`).expect(404);
    await server.http.get(`/api/plans/${own.id}`).expect(404);
    // A message that waits for somebody who is gone goes with them.
    const { items } = (await server.http.get('/api/outbox')).body as { items: OutboxMessage[] };
    expect(items.filter(({ to }) => to === 'somebody@example.org')).toHaveLength(1);
    const left = (await server.http.get(`/api/plans/${plan.id}`).expect(200)).body as StoredPlan;
    expect(left.clientIds).toEqual([bo.id]);
    const kept = (await server.http.get(`/api/sessions/${session.id}`).expect(200)).body as SessionView;
    expect(kept.finishedAt).not.toBeNull();
    expect(kept.events.map(({ clientId }) => clientId)).toEqual([bo.id, bo.id]);
    expect(JSON.stringify(kept)).not.toContain(ada.id);
    expect(kept.programme?.plan.clientIds).toEqual([bo.id]);

    await server.http.post('/api/clients/file').send(JSON.stringify(file)).expect(201);
    const back = (await server.http.get(`/api/clients/${ada.id}/file`).expect(200)).body as ClientFile;
    expect(back.client).toEqual(file.client);
    expect(back.plans).toHaveLength(file.plans.length);
    const notes = (events: SessionEvent[]) => events.filter(({ type }) => type === 'note-written');
    expect(back.sessions.flatMap(({ events }) => notes(events))).toEqual(
      file.sessions.flatMap(({ events }) => notes(events)),
    );
    await server.http.post('/api/clients/file').send(JSON.stringify(file)).expect(409);
    // Their part of the shared plan is back, so that it can go and come once more.
    expect(back.sessions[0]?.programme?.plan.clientIds).toEqual([ada.id]);
    await server.http.delete(`/api/clients/${ada.id}`).send({ name: 'Ada File' }).expect(204);
    await server.http.post('/api/clients/file').send(JSON.stringify(back)).expect(201);
    const again = (await server.http.get(`/api/clients/${ada.id}/file`).expect(200)).body as ClientFile;
    expect(again.sessions.map(({ events }) => events.length)).toEqual(back.sessions.map(({ events }) => events.length));
  });

  test('that is damaged is refused by path, and changes nothing', async () => {
    const ada = await server.client('Ada Damaged');
    const file = (await server.http.get(`/api/clients/${ada.id}/file`).expect(200)).body as ClientFile;
    await server.http.delete(`/api/clients/${ada.id}`).send({ name: 'Ada Damaged' }).expect(204);
    const send = async (change: (copy: ClientFile & Record<string, unknown>) => void) => {
      const copy = structuredClone(file) as ClientFile & Record<string, unknown>;
      change(copy);
      return wrongFields(await server.http.post('/api/clients/file').send(JSON.stringify(copy)).expect(422));
    };
    expect(wrongFields(await server.http.post('/api/clients/file').send('{"format": "waxw').expect(422))).toEqual([
      'file',
    ]);
    expect(await send((copy) => Object.assign(copy, { format: 'other' }))).toEqual(['format']);
    expect(
      await send((copy) => Object.assign(copy.client, { limits: [{ demand: 'flying', allowed: 1, reason: 'x' }] })),
    ).toEqual(['client.limits[0].demand']);
    expect(await send((copy) => Object.assign(copy.client, { shoeSize: 42 }))).toEqual(['client.shoeSize']);
    expect(await send((copy) => copy.plans.push(planFor([uuidv7()])))).toEqual(['plans[0].clientIds']);
    const startedAt = new Date().toISOString();
    const own = { id: uuidv7(), startedAt, finishedAt: null, programme: null, events: [] as SessionEvent[] };
    expect(await send((copy) => copy.sessions.push(own, structuredClone(own)))).toEqual(['sessions[1].id']);
    // An event that somebody has here cannot come in once more as another's.
    const bo = await server.client('Bo Damaged');
    const theirs = (
      await server.http
        .post('/api/sessions')
        .send({ clientIds: [bo.id], startedAt })
        .expect(201)
    ).body as SessionView;
    const note = { counter: 1, at: startedAt, type: 'note-written' as const, data: { text: 'x' } };
    const event: SessionEvent = { id: uuidv7(), sessionId: theirs.id, clientId: bo.id, ...note };
    await server.http
      .post(`/api/sessions/${theirs.id}/events`)
      .send({ events: [event] })
      .expect(200);
    const stolen = { ...own, events: [{ ...event, sessionId: own.id, clientId: ada.id }] };
    expect(await send((copy) => copy.sessions.push(stolen))).toEqual(['sessions[0].events[0].id']);
    const later = {
      ...own,
      events: [{ ...event, id: uuidv7(), sessionId: own.id, clientId: ada.id, at: '2199-01-01T00:00:00.000Z' }],
    };
    expect(await send((copy) => copy.sessions.push(later))).toEqual(['sessions[0].events[0].at']);
    await server.http.get(`/api/clients/${ada.id}`).expect(404);
  });

  test('notes are checked when they are written: questions, the check of today, benchmarks, kit', async () => {
    const ada = await server.client('Ada Checked');
    const edit = async (fields: object) =>
      wrongFields(
        await server.http
          .patch(`/api/clients/${ada.id}`)
          .send({ version: 1, ...fields })
          .expect(422),
      );
    expect(await edit({ today: { on: '2030-01-01', sleep: 9, energy: 3, pains: [] } })).toEqual(['today.sleep']);
    expect(await edit({ readiness: { on: 'soon', yes: [], clearedOn: null, clearedBy: '' } })).toEqual([
      'readiness.on',
    ]);
    expect(await edit({ benchmarks: [{ name: 'Plank', unit: 's', on: '2030-01-01', value: -1 }] })).toEqual([
      'benchmarks[0].value',
    ]);
    expect(await edit({ kit: [{ item: 'dumbbell', count: 2, plates: [{ kg: 0, count: 4 }] }] })).toEqual([
      'kit[0].plates[0].kg',
    ]);
    expect(await edit({ email: 'nowhere' })).toEqual(['email']);
    // An empty list is no limit and no piece of kit.
    expect(await edit({ limits: [[]] })).toEqual(['limits[0]']);
    expect(await edit({ kit: [[]] })).toEqual(['kit[0]']);
    expect(((await server.http.get(`/api/clients/${ada.id}`)).body as Client).version).toBe(1);
  });
});

describe('doses as trainers give them', () => {
  const [first, second] = ['goblet-squat', 'forearm-plank'];
  const parts = [
    { kind: 'reps' as const, count: 8, tempo: null },
    { kind: 'hold' as const, count: 8, at: null },
  ];
  const bell = (kg: number) => ({ item: 'bell' as const, count: 1, kg, label: `${kg} kg bell`, changeSeconds: 0 });

  /** A plan of one line for somebody. */
  async function planOf(
    change: object,
    block: object = {},
    movementId = first,
  ): Promise<{ plan: Plan; clientId: string }> {
    const { id } = await server.client('Ada');
    const plan = planFor([id]);
    const [only] = plan.blocks;
    if (!only) throw new Error('no block');
    const line = { id: uuidv7(), locked: false, tied: false, lanes: [{ ...lane(id, movementId), ...change }] };
    return { plan: { ...plan, blocks: [{ ...only, ...block, items: [line] }] }, clientId: id };
  }

  test.each<[string, object, string]>([
    ['parts that do not add up', { amount: 9, parts }, 'parts'],
    ['a rep of an hour', { tempo: '99-99-99-99' }, 'tempo'],
    ['a drop to more than is in hand', { load: bell(8), drops: [{ load: bell(12), amount: 5 }] }, 'drops[0].load'],
    [
      'a round with a movement that nobody knows',
      { bySet: [{ set: 1, movementId: 'sky-walk' }] },
      'bySet[0].movementId',
    ],
    ['a round of one side where there are none', { bySet: [{ set: 1, side: 'left' }] }, 'bySet[0].side'],
    ['a test without a unit', { test: { name: 'Own', seconds: null, clean: '' } }, 'test.unit'],
  ])('%s is refused by its field, and nothing is kept', async (_, change, field) => {
    const { plan, clientId } = await planOf(change);
    const refused = await server.http.post('/api/plans').send({ plan }).expect(422);
    expect(wrongFields(refused)).toContain(`plan.blocks[0].items[0].lanes[0].${field}`);
    const { items } = (await server.http.get(`/api/plans?clientId=${clientId}`)).body as { items: PlanSummary[] };
    expect(items).toEqual([]);
  });

  test('what is held is not composed of reps', async () => {
    const { plan } = await planOf({ amount: 8, parts }, {}, second);
    const refused = await server.http.post('/api/plans').send({ plan }).expect(422);
    expect(wrongFields(refused)).toEqual(['plan.blocks[0].items[0].lanes[0].parts']);
  });

  test('parts, a drop, a test and the mark come back from the record as they were tapped', async () => {
    const test = { name: 'Own', unit: 'reps' as const, seconds: null, clean: 'Deep.' };
    const { plan, clientId } = await planOf({
      amount: 8,
      parts,
      load: bell(12),
      drops: [{ load: bell(8), amount: 5 }],
      test,
    });
    const kept = await server.keep(plan);
    expect(kept.blocks).toEqual(plan.blocks);
    const session = (
      await server.http
        .post('/api/sessions')
        .send({ clientIds: [clientId], startedAt: new Date().toISOString(), planId: kept.id })
        .expect(201)
    ).body as SessionView;
    const entryId = uuidv7();
    const setId = uuidv7();
    const event = (type: string, data: object, id = uuidv7(), counter = 1) => ({
      id,
      sessionId: session.id,
      clientId,
      counter,
      at: new Date().toISOString(),
      type,
      data,
    });
    const numbers = { kg: 12, loadLabel: '12 kg bell' };
    const send = (events: object[]) => server.http.post(`/api/sessions/${session.id}/events`).send({ events });
    const done = { entryId, side: 'both', amount: 8, ...numbers, parts, test };
    await send([event('movement-started', { movementId: first, why: null }, entryId)]).expect(200);
    const wrong = await send([event('set-done', { ...done, amount: 9 }, uuidv7(), 2)]).expect(422);
    expect(wrongFields(wrong)).toEqual(['events[0].data.parts']);
    await send([
      event('set-done', done, setId, 2),
      event('drop-done', { setId, amount: 5, kg: 8, loadLabel: '8 kg bell' }, uuidv7(), 3),
      event('mark-noted', { entryId, took: 'fewer-sets' }, uuidv7(), 4),
      event('session-finished', {}, uuidv7(), 5),
    ]).expect(200);
    const record = (await server.http.get(`/api/clients/${clientId}/record`).expect(200)).body as ClientRecord;
    expect(record.sets[first]).toMatchObject([{ marked: true, sets: [{ amount: 8, kg: 12, parts }] }]);
    expect(record.tests).toMatchObject([{ name: 'Own', value: 8, unit: 'reps', movementId: first }]);
  });
});
