import { afterEach, expect, test } from '@jest/globals';

import { call, callLines, ProblemError } from './http';

const real = globalThis.fetch;
afterEach(() => {
  globalThis.fetch = real;
});

/** Answers every request with the same, and remembers what was sent. */
function answering(answer: () => Response | Promise<Response>): RequestInit[] {
  const sent: RequestInit[] = [];
  globalThis.fetch = ((_path: string, init: RequestInit) => {
    sent.push(init);
    return Promise.resolve().then(answer);
  }) as typeof fetch;
  return sent;
}

const failure = async (work: Promise<unknown>): Promise<ProblemError> => {
  const error: unknown = await work.then(
    () => new Error('it went well'),
    (reason: unknown) => reason,
  );
  if (!(error instanceof ProblemError)) throw error;
  return error;
};

test('an object goes as JSON, a file as it is, and nothing as nothing', async () => {
  const sent = answering(() => Response.json({ good: true }));
  expect(await call('PATCH /door', { body: { open: true } })).toEqual({ good: true });
  await call('POST /clients/file', { body: new Blob(['bytes']) });
  await call('GET /studio');
  expect(sent.map(({ headers }) => (headers as Record<string, string> | undefined)?.['Content-Type'])).toEqual([
    'application/json',
    'application/octet-stream',
    undefined,
  ]);
  expect(sent[0]?.body).toBe('{"open":true}');
  expect(sent[2]).not.toHaveProperty('body');
});

test('an address has its names and its query filled in, whatever is in them', async () => {
  const asked: string[] = [];
  globalThis.fetch = ((path: string) => {
    asked.push(path);
    return Promise.resolve(Response.json({}));
  }) as typeof fetch;
  await call('GET /movements/{id}', { id: 'a/b?c' });
  await call('GET /clients/{id}/on/{day}', { id: 'ada', day: '2030-01-02' });
  await call('GET /movements', { query: { q: 'knees & toes', limit: '5' } });
  await call('GET /studio');
  expect(asked).toEqual([
    '/api/movements/a%2Fb%3Fc',
    '/api/clients/ada/on/2030-01-02',
    '/api/movements?q=knees+%26+toes&limit=5',
    '/api/studio',
  ]);
});

test('a problem keeps its status, its words and the fields that are wrong', async () => {
  const errors = [{ path: 'name', message: 'must not be empty' }];
  answering(() => Response.json({ title: 'Unprocessable', detail: 'Some fields.', errors }, { status: 422 }));
  expect(await failure(call('PATCH /door', { body: { open: true } }))).toMatchObject({
    status: 422,
    message: 'Some fields.',
    errors,
  });
  answering(() => Response.json({ title: 'Conflict' }, { status: 409 }));
  expect(await failure(call('GET /studio'))).toMatchObject({ status: 409, message: 'Conflict', errors: [] });
  answering(() => new Response('<html>', { status: 502, statusText: 'Bad Gateway' }));
  expect(await failure(call('GET /studio'))).toMatchObject({ status: 502, message: 'Bad Gateway' });
});

test('a server that does not answer is told apart from one that refuses', async () => {
  answering(() => Promise.reject(new TypeError('network')));
  expect(await failure(call('GET /studio'))).toMatchObject({ status: 0, message: 'The server does not answer.' });
});

test('lines are read as they come, however the network cuts them, umlauts included', async () => {
  const bytes = new TextEncoder().encode('{"done":1}\n{"problem":"Überlauf"}\n{"finished":2}\n');
  for (const size of [1, 3, 7, 100]) {
    const chunks = Array.from({ length: Math.ceil(bytes.length / size) }, (_, i) =>
      bytes.slice(i * size, (i + 1) * size),
    );
    answering(
      () =>
        new Response(
          new ReadableStream<Uint8Array>({
            start(stream) {
              for (const chunk of chunks) stream.enqueue(chunk);
              stream.close();
            },
          }),
        ),
    );
    const lines: unknown[] = [];
    await callLines('POST /imports/{id}/apply', { id: 'x', body: { take: [] } }, (line) => lines.push(line));
    expect(lines).toEqual([{ done: 1 }, { problem: 'Überlauf' }, { finished: 2 }]);
  }
});
