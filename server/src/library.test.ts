import { readdirSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { crc32 } from 'node:zlib';

import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { FigureLibrary } from '@waxwing/core/body';
import type { ImportPreview, Pack } from '@waxwing/core/formats';
import type { Health, MovementPage } from '@waxwing/core/ladder';
import type { FaultKind, HouseRule, Movement, MovementList, MovementVersion, Picture } from '@waxwing/core/movement';
import type { Problem } from '@waxwing/core/schema';

import { PNG } from './test/picture.js';
import { planFor } from './test/plans.js';
import { startServer, type StudioServer, wrongFields } from './test/studio-server.js';

let server: StudioServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

interface Answer {
  status: number;
  body: { detail?: string; errors?: Problem[] };
}

const address = () => `http://127.0.0.1:${(server.app.getHttpServer().address() as AddressInfo).port}`;
const get = async <T>(path: string): Promise<T> => (await server.http.get(path).expect(200)).body as T;
const page = (id: string) => get<MovementPage>(`/api/movements/${id}`);
const pack = () => get<Pack>('/api/library/pack');
const listed = async (): Promise<string[]> => (await get<MovementList>('/api/movements')).items.map(({ id }) => id);
const said = ({ body }: Answer): string =>
  (body.errors ?? []).map(({ path, message }) => `${path} ${message}`).join('; ');

const send = (kind: string, content: string | Buffer) =>
  server.http
    .post(`/api/imports?kind=${kind}`)
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from(content));
const take = (importId: string, ids: readonly string[]) =>
  server.http.post(`/api/imports/${importId}/apply`).send({ take: ids });
const lines = (text: string): unknown[] =>
  text
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as unknown);

async function bare(id: string, change: Partial<Movement> = {}): Promise<Movement> {
  const { movement } = await page('goblet-squat');
  return { ...movement, id, name: id, links: [], ...change };
}

describe('a movement of the studio', () => {
  test('is made, found, and its id is taken then', async () => {
    const movement = await bare('harbour-squat', { name: 'Harbour squat' });
    await server.http.post('/api/movements').send(movement).expect(201);
    expect(await listed()).toContain('harbour-squat');
    const again: Answer = await server.http.post('/api/movements').send(movement);
    expect([again.status, said(again)]).toEqual([409, 'id is taken; choose another name']);
    const reserved: Answer = await server.http.post('/api/movements').send({ ...movement, id: 'health' });
    expect([reserved.status, said(reserved)]).toEqual([422, 'id is a word that the library keeps for itself']);
  });

  test('is drawn as another one where it has no figure, and nothing but a movement’s name is taken for that', async () => {
    const borrowed = await bare('pier-squat', { name: 'Pier squat', drawnAs: 'goblet-squat' });
    await server.http.post('/api/movements').send(borrowed).expect(201);
    expect((await page('pier-squat')).movement.drawnAs).toBe('goblet-squat');
    const wrong: Answer = await server.http
      .post('/api/movements')
      .send({ ...borrowed, id: 'quay-squat', drawnAs: '../goblet' });
    expect([wrong.status, said(wrong).startsWith('drawnAs ')]).toEqual([422, true]);
    const { items, started } = await get<{ items: string[]; started: string[] }>('/api/library/stills');
    expect(items).toContain('stretch-calf');
    expect(started).toContain('goblet-squat');
    expect(started).not.toContain('stretch-calf');
    for (const file of ['goblet-squat.svg', 'goblet-squat/start.svg'])
      expect((await server.http.get(`/api/library/stills/${file}`).expect(200)).headers['content-type']).toContain(
        'svg',
      );
    const small = await server.http.get('/api/library/stills/goblet-squat/small.webp').expect(200);
    expect(small.headers['content-type']).toContain('webp');
    expect((small.body as Buffer).length).toBeLessThan(6_000);
    for (const none of ['stretch-calf/start.svg', 'nothing/small.webp'])
      await server.http.get(`/api/library/stills/${none}`).expect(404);
    await server.http.get('/api/library/stills/..%2Fpack.svg').expect(404);
  });

  test('keeps every version with author and difference, and any can come back', async () => {
    const before = await page('box-squat');
    const edit = (version: number, change: object) =>
      server.http
        .patch('/api/movements/box-squat')
        .send({ version, ...change })
        .expect(200);
    await edit(before.version, { name: 'Crate squat' });
    await edit(before.version + 1, { breath: 'Out as you stand.' });
    const versions = await get<MovementVersion[]>('/api/movements/box-squat/versions');
    expect(versions.map(({ version }) => version)).toEqual([3, 2, 1]);
    expect(versions[1]?.changes).toEqual([
      { kind: 'changed', where: 'name', before: 'Box squat', after: 'Crate squat' },
    ]);
    expect(versions.map(({ author }) => author)).toEqual(['the trainer', 'the trainer', '']);
    const { id: _, ...first } = versions[2]?.movement ?? before.movement;
    await edit(3, first);
    expect((await page('box-squat')).movement).toEqual(before.movement);
    expect(await get<MovementVersion[]>('/api/movements/box-squat/versions')).toHaveLength(4);
  });

  test('is archived, never deleted: out of list, ladder and search, but still readable, and back again', async () => {
    const { version } = await page('slow-squat');
    const archive = (archived: boolean) =>
      server.http.post('/api/movements/slow-squat/archive').send({ version, archived });
    await archive(true).expect(200);
    expect(await listed()).not.toContain('slow-squat');
    expect((await page('bodyweight-squat')).harder.map(({ to }) => to)).not.toContain('slow-squat');
    expect((await page('slow-squat')).archivedAt).not.toBeNull();
    const { items } = await get<{ items: MovementPage[] }>('/api/library/pages?ids=slow-squat,push-up');
    expect(items[0]).toEqual(await page('slow-squat'));
    expect((await get<MovementList>('/api/movements?archived=true')).items.map(({ id }) => id)).toEqual(['slow-squat']);
    await server.restart();
    expect(await listed()).not.toContain('slow-squat');
    await archive(false).expect(200);
    expect(await listed()).toContain('slow-squat');
    await server.http.post('/api/movements/slow-squat/archive').send({ version: 99, archived: true }).expect(409);
  });
});

test('pages of several movements come at once, and what is not here is left out', async () => {
  const { items } = await get<{ items: MovementPage[] }>('/api/library/pages?ids=goblet-squat,nothing,push-up,push-up');
  expect(items.map(({ movement }) => movement.id)).toEqual(['goblet-squat', 'push-up']);
  expect(items[0]).toEqual(await get('/api/movements/goblet-squat'));
  for (const none of ['', '?ids=']) expect(await get(`/api/library/pages${none}`)).toEqual({ items: [] });
  expect(wrongFields(await server.http.get('/api/library/pages?ids=a&ids=b').expect(422))).toContain('ids');
});

test('reps that take no time are refused by field, and change nothing', async () => {
  const { version, movement } = await page('push-up');
  const answer = await server.http
    .patch('/api/movements/push-up')
    .send({ version, dose: { ...movement.dose, tempo: '0-0-0-0' } })
    .expect(422);
  expect((answer.body as { errors: Problem[] }).errors.map(({ path }) => path)).toEqual(['dose.tempo']);
  expect(await page('push-up')).toMatchObject({ version });
});

describe('pictures', () => {
  /** The same, but it says that it is 60,000 points wide and high. */
  const bomb = (): Buffer => {
    const bytes = Buffer.from(PNG);
    bytes.writeUInt32BE(60_000, 16);
    bytes.writeUInt32BE(60_000, 20);
    bytes.writeUInt32BE(crc32(bytes.subarray(12, 29)), 29);
    return bytes;
  };
  const add = (bytes: Buffer) =>
    server.http
      .post('/api/movements/wall-sit/pictures?caption=Side')
      .set('Content-Type', 'application/octet-stream')
      .send(bytes);

  test('are kept beside the database, served as what they are, and taken away', async () => {
    const [picture] = (await add(PNG).expect(201)).body as Picture[];
    const served = await server.http.get(`/api/movements/wall-sit/pictures/${picture?.id}`).expect(200);
    expect(served.headers).toMatchObject({ 'content-type': 'image/png', 'x-content-type-options': 'nosniff' });
    expect((served.body as Buffer).subarray(1, 4).toString()).toBe('PNG');
    expect(readdirSync(join(server.config.dataFolder, 'pictures'))).toEqual([picture?.id]);
    await server.http.delete(`/api/movements/wall-sit/pictures/${picture?.id}`).expect(200);
    expect(readdirSync(join(server.config.dataFolder, 'pictures'))).toEqual([]);
  });

  test.each<[string, Buffer, number, string]>([
    [
      'an executable renamed .png',
      Buffer.from('MZ\x90\0 this program cannot be run'),
      422,
      'is not a PNG, JPEG or WebP',
    ],
    [
      'a script that calls itself a picture',
      Buffer.from('<svg onload="alert(1)"/>'),
      422,
      'is not a PNG, JPEG or WebP',
    ],
    ['a picture that was cut off', PNG.subarray(0, 50), 422, 'is not a PNG, JPEG or WebP'],
    ['a picture of more points than any camera has', bomb(), 422, 'is not a PNG, JPEG or WebP'],
    ['nothing', Buffer.alloc(0), 422, 'is empty'],
    ['more than 5 MB', Buffer.concat([PNG, Buffer.alloc(5 * 1024 * 1024)]), 422, 'must be at most 5 MB'],
    ['much more than 5 MB', Buffer.alloc(8 * 1024 * 1024), 413, 'must be at most 6 MB'],
  ])('refuse %s and keep nothing', async (_, bytes, status, message) => {
    const answer: Answer = await add(bytes);
    expect(answer.status).toBe(status);
    expect(said(answer)).toContain(message);
    expect(await get<Picture[]>('/api/movements/wall-sit/pictures')).toEqual([]);
  });

  test('hold nothing but their points afterwards', async () => {
    const polyglot = Buffer.concat([PNG, Buffer.from('<script>alert(1)</script>')]);
    const [picture] = (await add(polyglot).expect(201)).body as Picture[];
    const served = await server.http.get(`/api/movements/wall-sit/pictures/${picture?.id}`).expect(200);
    expect((served.body as Buffer).includes('script')).toBe(false);
    await server.http.delete(`/api/movements/wall-sit/pictures/${picture?.id}`).expect(200);
  });

  test('are at most six, however many come at once', async () => {
    const answers: Answer[] = await Promise.all(Array.from({ length: 12 }, () => add(PNG)));
    expect(answers.filter(({ status }) => status === 201)).toHaveLength(6);
    for (const answer of answers.filter(({ status }) => status !== 201))
      expect(said(answer)).toContain('at most 6 pictures');
    expect(await get<Picture[]>('/api/movements/wall-sit/pictures')).toHaveLength(6);
    expect(readdirSync(join(server.config.dataFolder, 'pictures'))).toHaveLength(6);
    await server.http.post('/api/movements/moon-squat/pictures').send(PNG).expect(404);
  });
});

describe('packs and lists', () => {
  test('out, in and out again is the same', async () => {
    const before = await pack();
    const preview = (await send('pack', JSON.stringify(before)).expect(201)).body as ImportPreview;
    expect(new Set(preview.rows.map(({ state }) => state))).toEqual(new Set(['same']));
    const answer = await take(
      preview.importId,
      preview.rows.map(({ id }) => id),
    ).expect(200);
    expect(lines(answer.text).at(-1)).toEqual({ finished: before.movements.length });
    expect(await pack()).toEqual(before);
  });

  test('only what was chosen of a pack is taken, with progress, and nothing when its ground has moved', async () => {
    const whole = await pack();
    const fresh = [await bare('quay-row'), await bare('quay-press')];
    const renamed = whole.movements.map((m) => (m.id === 'wall-sit' ? { ...m, name: 'Sail wall sit' } : m));
    const file = JSON.stringify({ ...whole, movements: [...renamed, ...fresh] });
    const look = async () => (await send('pack', file).expect(201)).body as ImportPreview;
    const first = await look();
    expect(first.rows.filter(({ state }) => state === 'new').map(({ id }) => id)).toEqual(['quay-row', 'quay-press']);
    expect(first.rows.find(({ id }) => id === 'wall-sit')).toMatchObject({
      changes: [{ kind: 'changed', where: 'name', before: 'Wall sit', after: 'Sail wall sit' }],
    });
    const answer = await take(first.importId, ['quay-row']).expect(200);
    expect(lines(answer.text)).toEqual([{ done: 1, total: 1 }, { finished: 1 }]);
    expect(await listed()).toContain('quay-row');
    expect(await listed()).not.toContain('quay-press');

    const second = await look();
    const { version } = await page('wall-sit');
    await server.http.patch('/api/movements/wall-sit').send({ version, breath: 'Slow.' }).expect(200);
    await take(second.importId, ['wall-sit', 'quay-press']).expect(409);
    expect((await page('wall-sit')).movement).toMatchObject({ name: 'Wall sit', breath: 'Slow.' });
    expect(await listed()).not.toContain('quay-press');
    const third = await look();
    expect(third.rows.find(({ id }) => id === 'wall-sit')?.state).toBe('conflict');
    await take(third.importId, ['moon-squat']).expect(422);
    await take('gone', []).expect(404);
  });

  test('a list changes its columns and nothing else', async () => {
    const before = await page('wall-sit');
    const csv = (await server.http.get('/api/library/movements.csv?ids=wall-sit').expect(200)).text;
    const preview = (await send('csv', csv.replace('Wall sit', 'Wall seat')).expect(201)).body as ImportPreview;
    expect(preview.rows[0]?.changes).toEqual([
      { kind: 'changed', where: 'name', before: 'Wall sit', after: 'Wall seat' },
    ]);
    await take(preview.importId, ['wall-sit']).expect(200);
    expect((await page('wall-sit')).movement).toEqual({ ...before.movement, name: 'Wall seat' });
  });

  test.each<[string, string, () => Promise<string | Buffer>, string]>([
    [
      'a pack that was cut short',
      'pack',
      async () => JSON.stringify(await pack()).slice(0, 5000),
      'line 1, column 5001',
    ],
    ['a later version', 'pack', async () => JSON.stringify({ ...(await pack()), version: 9 }), 'version is 9'],
    [
      'a link to nowhere',
      'pack',
      async () =>
        JSON.stringify({
          format: 'waxwing-library',
          version: 1,
          movements: [await bare('a1', { links: [{ to: 'moon', direction: 'harder', lever: 'load' }] })],
        }),
      'movements[0].links[0].to no movement "moon"',
    ],
    [
      'a circle',
      'pack',
      async () => {
        const links = [
          { to: 'goblet-squat', direction: 'easier' as const, lever: 'load' as const },
          { to: 'bodyweight-squat', direction: 'harder' as const, lever: 'load' as const },
        ];
        return JSON.stringify({ format: 'waxwing-library', version: 1, movements: [await bare('a1', { links })] });
      },
      'run in a circle',
    ],
    [
      'a script tag in a cue',
      'pack',
      async () => {
        const movement = await bare('a1');
        return JSON.stringify({
          format: 'waxwing-library',
          version: 1,
          movements: [{ ...movement, cues: [{ ...movement.cues[0], text: '<script>1</script>' }] }],
        });
      },
      'movements[0].cues[0].text must be plain text',
    ],
    ['a list with a wrong header', 'csv', () => Promise.resolve('id;name\na;b'), 'line 1 has no column "aliases"'],
    [
      'a list in another encoding',
      'csv',
      () => Promise.resolve(Buffer.from([0x69, 0x64, 0x2c, 0xfc, 0xe4])),
      'not UTF-8',
    ],
  ])('%s is refused with its place, and nothing is changed', async (_, kind, content, message) => {
    const before = await pack();
    const answer: Answer = await send(kind, await content());
    expect(answer.status).toBe(422);
    expect(said(answer)).toContain(message);
    expect(await pack()).toEqual(before);
  });

  test('a file of 50 MB is refused by its size', async () => {
    const answer: Answer = await send('pack', Buffer.alloc(50 * 1024 * 1024, 'x'));
    expect([answer.status, answer.body.detail]).toEqual([413, 'This file has 50 MB; at most 40 MB can be taken.']);
  });

  test('the schema of a pack is published, and a card can be had as Markdown', async () => {
    expect(await get('/api/schema/pack')).toMatchObject({ title: 'Waxwing library pack', type: 'object' });
    const card = await server.http.get('/api/movements/reverse-lunge/card.md').expect(200);
    expect(card.text).toMatch(/^# Reverse lunge/);
  });
});

test('figures come whole, each of a movement that is there, and stay the same', async () => {
  const { poses, figures } = await get<FigureLibrary>('/api/library/figures');
  const known = new Set(await listed());
  expect(Object.keys(figures).length).toBeGreaterThan(80);
  for (const id of Object.keys(figures)) expect(known.has(id)).toBe(true);
  expect(poses.squat?.['knee.flex']).toBeGreaterThan(90);
  expect(await get('/api/library/figures')).toEqual({ poses, figures });
});

test('fault kinds are served, and a search by what is seen finds movements that call it otherwise', async () => {
  const { items } = await get<{ items: FaultKind[] }>('/api/library/fault-kinds');
  expect(items.length).toBeGreaterThanOrEqual(55);
  expect((await get<MovementList>('/api/movements?q=bum%20tucks')).items.map(({ id }) => id)).toContain('goblet-squat');
});

test('nobody waits while the library is looked through, or a sheet is laid out', async () => {
  const client = await server.client('Ada');
  const plan = await server.keep(planFor([client.id]));
  for (const heavy of ['/api/library/health', `/api/plans/${plan.id}/sheet.pdf`]) {
    // Asked in one connection after the other; what is quick comes first all the same.
    const came: string[] = [];
    const ask = (path: string) => fetch(`${address()}${path}`).then(({ status }) => came.push(`${path} ${status}`));
    const slow = ask(heavy);
    await new Promise(setImmediate);
    await Promise.all([ask('/api/door'), slow]);
    expect(came).toEqual(['/api/door 200', `${heavy} 200`]);
  }
});

test('health comes worst first and changes when a gap is mended', async () => {
  const before = await get<Health>('/api/library/health');
  expect(before.gaps.length).toBeGreaterThan(0);
  await server.http
    .post('/api/movements')
    .send(await bare('lone-drill'))
    .expect(201);
  const broken = await get<Health>('/api/library/health');
  expect(broken.gaps.find((gap) => gap.movementId === 'lone-drill' && gap.kind === 'off-ladder')).toBeDefined();
  const links = [{ to: 'goblet-squat', direction: 'harder', lever: 'load' }];
  await server.http.patch('/api/movements/lone-drill').send({ version: 1, links }).expect(200);
  const mended = await get<Health>('/api/library/health');
  expect(mended.gaps.some((gap) => gap.movementId === 'lone-drill' && gap.kind === 'off-ladder')).toBe(false);
  // What is drawn as something deeper than it says.
  await server.http
    .patch('/api/movements/lone-drill')
    .send({ version: 2, drawnAs: 'goblet-squat', demands: { 'deep-knee-bend': 1 } })
    .expect(200);
  const drawn = await get<Health>('/api/library/health');
  const shown = drawn.gaps.find((gap) => gap.movementId === 'lone-drill' && gap.path === 'demands.deep-knee-bend');
  expect(shown?.kind).toBe('figure-shows-more');
  expect(shown?.message).toBe('Its figure shows deep knee bend (clearly), and it says: a little.');
});

test('house rules are chosen by the studio and by a client, and only from what exists', async () => {
  const { items } = await get<{ items: HouseRule[] }>('/api/library/house-rules');
  const [rule] = items;
  const studio = await get<{ version: number; name: string }>('/api/studio');
  const choose = (houseRules: object): Promise<Answer> =>
    server.http
      .patch('/api/studio')
      .send({ version: studio.version, name: studio.name, trainer: '', kit: [], houseRules });
  expect(said(await choose({ moon: 'x' }))).toBe('houseRules.moon is not a house rule');
  expect(said(await choose({ [rule?.id ?? '']: 'x' }))).toBe(`houseRules.${rule?.id} has no option "x"`);
  const card = async () => (await server.http.get('/api/movements/split-squat/card.md').expect(200)).text;
  expect(await card()).toContain('Front knee may slide past the toes');
  expect((await choose({ 'knee-travel': 'shin-upright' })).status).toBe(200);
  expect(await card()).not.toContain('Front knee may slide past the toes');
  expect(await card()).toContain('Front shin stays upright');
  const client = { name: 'Own School', houseRules: { [rule?.id ?? '']: rule?.options[0]?.id } };
  const made = (await server.http.post('/api/clients').send(client).expect(201)).body as { id: string };
  expect(await get(`/api/clients/${made.id}`)).toMatchObject(client);
});
