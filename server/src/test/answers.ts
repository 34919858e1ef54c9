/** Listens to every answer of a server and holds it against the table of operations: what is not in the table is an answer that nobody expects. */
import type { IncomingMessage, Server, ServerResponse } from 'node:http';

import { isSchema, type Operation, OPERATIONS } from '@waxwing/core/api';
import { fieldPath } from '@waxwing/core/schema';

const KNOWN = Object.entries(OPERATIONS as Readonly<Record<string, Operation>>)
  .map(([name, operation]) => {
    const [method = '', path = ''] = name.split(' ');
    const pattern = path.replace(/[.]/g, '\\.').replace(/\{\w+\}/g, '[^/]+');
    return { name, operation, method, pattern: new RegExp(`^/api${pattern}$`) };
  })
  // `library/pages` is no movement: what has no names in its path comes first.
  .sort((a, b) => Number(a.name.includes('{')) - Number(b.name.includes('{')));

/** What is wrong with an answer; null when it is as the table says. */
function wrongIn(method: string, path: string, type: string, body: () => string): string | null {
  const known = KNOWN.find((one) => one.method === method && one.pattern.test(path));
  if (!known) return `${method} ${path} is not in the table`;
  const { answer } = known.operation;
  if (answer === null || !isSchema(answer)) return null;
  if (!type.startsWith('application/json')) return `${known.name} answered ${type || 'nothing'}`;
  const result = answer.safeParse(JSON.parse(body()));
  if (result.success) return null;
  const [issue] = result.error.issues;
  return `${known.name}: ${issue ? `${fieldPath(issue.path)} ${issue.message}` : 'is not as it is described'}`;
}

/** Collects into `wrong` whatever a server answers against the table. */
export function listenTo(server: Server, wrong: string[]): void {
  server.prependListener('request', (request: IncomingMessage, response: ServerResponse) => {
    const parts: Buffer[] = [];
    const end = response.end.bind(response) as (...args: unknown[]) => ServerResponse;
    const write = response.write.bind(response) as (...args: unknown[]) => boolean;
    const keep = (chunk: unknown) => {
      if (typeof chunk === 'string' || chunk instanceof Uint8Array) parts.push(Buffer.from(chunk as string));
    };
    const asked = new URL(request.url ?? '/', 'http://studio').pathname;
    response.write = (...args: unknown[]) => {
      keep(args[0]);
      return write(...args);
    };
    response.end = (...args: unknown[]) => {
      keep(args[0]);
      const { statusCode } = response;
      if (asked.startsWith('/api/') && !asked.startsWith('/api/docs') && statusCode >= 200 && statusCode < 300) {
        const type = String(response.getHeader('content-type') ?? '');
        const found = wrongIn(request.method ?? '', asked, type, () => Buffer.concat(parts).toString());
        if (found !== null) wrong.push(found);
      }
      return end(...args);
    };
  });
}
