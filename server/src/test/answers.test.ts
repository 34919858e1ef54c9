import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';

import { expect, test } from '@jest/globals';

import { listenTo } from './answers.js';

test('an answer with a field too many, of another kind, or of a route that nobody described is noticed', async () => {
  const answers: Record<string, string> = {
    '/api/health': '{"ok":true}',
    '/api/calendar': '{"since":null,"secret":"told"}',
    '/api/studio': '{"name":"Studio"}',
    '/api/nowhere': '{}',
  };
  const wrong: string[] = [];
  const server = createServer((request, response) => {
    response.setHeader('Content-Type', 'application/json');
    response.write(answers[request.url ?? '']?.slice(0, 4) ?? '');
    response.end(answers[request.url ?? '']?.slice(4));
  });
  listenTo(server, wrong);
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  for (const path of Object.keys(answers))
    await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}${path}`);
  server.close();
  expect(wrong).toEqual([
    expect.stringMatching(/^GET \/calendar: .*secret/),
    expect.stringMatching(/^GET \/studio: /),
    'GET /api/nowhere is not in the table',
  ]);
});
