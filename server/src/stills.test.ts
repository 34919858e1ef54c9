import { readFileSync } from 'node:fs';

import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Still } from '@waxwing/core/client';
import { v7 as uuidv7 } from 'uuid';

import { startServer, type StudioServer, wrongFields } from './test/studio-server.js';

let server: StudioServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

/** Something that begins as a JPEG does, told apart by a word that is in no other. */
const MARK = 'left-knee-of-ada';
const picture = Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), Buffer.from(MARK)]).toString('base64');
const still = (more: Partial<Still> = {}): Still => ({
  id: uuidv7(),
  takenAt: '2026-05-02T10:00:00.000Z',
  movementId: 'goblet-squat',
  says: 'Rep 3. Knees cave in.',
  picture,
  ...more,
});
const listOf = async (id: string): Promise<Still[]> =>
  ((await server.http.get(`/api/clients/${id}/stills`).expect(200)).body as { items: Still[] }).items;

test('a picture is kept for who agreed to be filmed, once however often it is sent, and what is wrong is named', async () => {
  const ada = await server.client('Ada', { filmConsentOn: '2026-05-01' });
  const bo = await server.client('Bo');
  const one = still();
  const refused = await server.http.post(`/api/clients/${bo.id}/stills`).send(one);
  expect([refused.status, ...wrongFields(refused)]).toEqual([422, 'clientId']);
  for (const [wrong, path] of [
    [{ picture: Buffer.from('<svg/>').toString('base64') }, 'picture'],
    [{ picture: `/9j/${'A'.repeat(500_000)}` }, 'picture'],
    [{ says: '' }, 'says'],
    [{ id: 'x' }, 'id'],
    [{ more: 1 }, 'more'],
  ] as const) {
    const answer = await server.http.post(`/api/clients/${ada.id}/stills`).send({ ...one, ...wrong });
    expect([answer.status, ...wrongFields(answer)]).toEqual([422, path]);
  }
  expect(await listOf(ada.id)).toEqual([]);
  for (let i = 0; i < 2; i += 1) await server.http.post(`/api/clients/${ada.id}/stills`).send(one).expect(201);
  expect(await listOf(ada.id)).toEqual([one]);
  // Nobody else's list, and no list of clients, holds it.
  expect(await listOf(bo.id)).toEqual([]);
  expect(JSON.stringify((await server.http.get('/api/clients')).body)).not.toContain(picture);
  await server.http.delete(`/api/clients/${bo.id}/stills/${one.id}`).expect(404);
  await server.http.delete(`/api/clients/${ada.id}/stills/${one.id}`).expect(204);
  expect(await listOf(ada.id)).toEqual([]);
});

test('pictures go with the file of a client, come back with it, and are gone from the disk with them', async () => {
  const cy = await server.client('Cy', { filmConsentOn: '2026-05-01' });
  const one = still({
    picture: Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), Buffer.from(`${MARK}-of-cy`)]).toString('base64'),
  });
  await server.http.post(`/api/clients/${cy.id}/stills`).send(one).expect(201);
  const file = (await server.http.get(`/api/clients/${cy.id}/file`).expect(200)).body as { stills: Still[] };
  expect(file.stills).toEqual([one]);
  await server.http.delete(`/api/clients/${cy.id}`).send({ name: 'Cy' }).expect(204);
  expect(readFileSync(server.database).includes(one.picture)).toBe(false);
  const restore = (content: object) =>
    server.http
      .post('/api/clients/file')
      .set('Content-Type', 'application/octet-stream')
      .send(Buffer.from(JSON.stringify(content)));
  const wrong = await restore({ ...file, stills: [{ ...one, picture: 'no' }] });
  expect([wrong.status, ...wrongFields(wrong)]).toEqual([422, 'stills[0].picture']);
  // A file of an earlier version has none.
  const { stills: _, ...earlier } = file;
  await restore(earlier).expect(201);
  expect(await listOf(cy.id)).toEqual([]);
  await server.http.delete(`/api/clients/${cy.id}`).send({ name: 'Cy' }).expect(204);
  await restore(file).expect(201);
  expect(await listOf(cy.id)).toEqual([one]);
});
