import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Studio } from '@waxwing/core/client';
import type { Sheet } from '@waxwing/core/formats';
import type { StoredPlan } from '@waxwing/core/planning';
import type { SessionView } from '@waxwing/core/session';
import { v7 as uuidv7 } from 'uuid';

import { planFor } from './test/plans.js';
import { startServer, type StudioServer, wrongFields } from './test/studio-server.js';

let server: StudioServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

const studio = async (): Promise<Studio> => (await server.http.get('/api/studio').expect(200)).body as Studio;

test('places are kept with their kit and room, and what is wrong in one is named by its field', async () => {
  const { version } = await studio();
  const quay = { id: uuidv7(), name: 'Lower Quay', space: 'lane', kit: [{ item: 'bench', count: 2 }] };
  const edit = (places: unknown[]) =>
    server.http.patch('/api/studio').send({ version, name: 'Loft', trainer: 'Bo', kit: [], places });
  for (const [places, path] of [
    [[{ ...quay, name: '' }], 'places[0].name'],
    [[{ ...quay, space: 'sea' }], 'places[0].space'],
    [[quay, { ...quay, id: uuidv7(), kit: [{ item: 'bench', count: 0 }] }], 'places[1].kit[0].count'],
    [[quay, quay], 'places'],
  ] as const)
    expect(wrongFields(await edit([...places]).expect(422))).toContain(path);
  expect((await studio()).places).toEqual([]);
  await edit([quay]).expect(200);
  expect((await studio()).places).toMatchObject([quay]);
});

test('a plan, its session and its sheet are where it is held; the home of somebody who does not come is refused', async () => {
  const ada = await server.client('Ada', { kit: [{ item: 'backpack', count: 1, kg: 8 }], homeSpace: 'spot' });
  const bo = await server.client('Bo');
  expect(ada).toMatchObject({ homeSpace: 'spot' });
  const place = { kind: 'home', id: ada.id };
  const wrong = await server.http.post('/api/plans').send({ plan: planFor([bo.id], ['goblet-squat'], { place }) });
  expect([wrong.status, ...wrongFields(wrong)]).toEqual([422, 'plan.place.id']);
  const plan = await server.keep(planFor([ada.id, bo.id], ['goblet-squat', 'hip-thrust'], { place }));
  const session = await server.http
    .post('/api/sessions')
    .send({ clientIds: [ada.id], planId: plan.id, startedAt: new Date().toISOString() })
    .expect(201);
  expect((session.body as SessionView).programme?.plan.place).toEqual(place);
  const sheet = (await server.http.get(`/api/plans/${plan.id}/sheet?clientId=${ada.id}`).expect(200)).body as Sheet;
  expect(sheet.where).toBe('Ada’s home');
  // A bench is not there, and a sheet for home says so.
  const lines = sheet.blocks.flatMap((block) => block.lines);
  expect(lines.map(({ movementId, leaveOut }) => [movementId, leaveOut !== null])).toEqual([
    ['goblet-squat', false],
    ['hip-thrust', true],
  ]);
  // What was held at somebody's home is in the studio once they are gone.
  await server.http.delete(`/api/clients/${ada.id}`).send({ name: 'Ada' }).expect(204);
  const left = (await server.http.get(`/api/plans/${plan.id}`).expect(200)).body as StoredPlan;
  expect(left).toMatchObject({ clientIds: [bo.id], place: { kind: 'studio' } });
});
