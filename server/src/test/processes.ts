/** The built server as a process of its own: to be killed, told to end, or started on a folder that is not as it was. */
import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';

import { v7 as uuidv7 } from 'uuid';

const BUNDLE = join(import.meta.dirname, '../../bundle');

export interface Running {
  child: ChildProcess;
  address: string;
  /** Everything that it wrote to its error stream. */
  errors: () => string;
  /** Ends it at once, as a crash would. */
  kill: () => Promise<void>;
  /** Tells it to end; resolves with how many milliseconds it took. */
  end: () => Promise<number>;
}

const environment = (folder: string, env: Record<string, string> = {}) => ({
  ...process.env,
  NODE_OPTIONS: '',
  WAXWING_DATA: folder,
  PORT: '0',
  WAXWING_KEYS: join(folder, 'keys'),
  ...env,
});

/** Starts a server. @throws Error with what it said when it gives up */
export async function startProcess(folder: string, args: readonly string[] = []): Promise<Running> {
  const child = spawn(process.execPath, [join(BUNDLE, 'main.js'), ...args], { env: environment(folder) });
  let said = '';
  let failed = '';
  child.stderr.on('data', (data: Buffer) => (failed += data.toString()));
  const address = await new Promise<string>((found, gaveUp) => {
    child.stdout.on('data', (data: Buffer) => {
      said += data.toString();
      const at = /http:\/\/localhost:(\d+)/.exec(said);
      if (at) found(`http://127.0.0.1:${at[1]}`);
    });
    child.once('exit', () => gaveUp(new Error(failed.trim())));
  });
  const gone = once(child, 'exit');
  return {
    child,
    address,
    errors: () => failed,
    kill: async () => {
      child.kill('SIGKILL');
      await gone;
    },
    end: async () => {
      const start = performance.now();
      child.kill('SIGTERM');
      await gone;
      return performance.now() - start;
    },
  };
}

/** Runs the program of backups, and tells how it ended and what it said. */
export function backupProgram(folder: string, ...args: string[]): { code: number | null; said: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, [join(BUNDLE, 'backup.js'), ...args], {
    env: environment(folder),
    encoding: 'utf8',
  });
  return { code: status, said: `${stdout}${stderr}`.trim() };
}

/** One request; the body of its answer as JSON. */
export async function ask<T>(
  address: string,
  method: string,
  path: string,
  body?: unknown,
): Promise<{ status: number; body: T }> {
  const answer = await fetch(`${address}/api${path}`, {
    method,
    ...(body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
  });
  const text = await answer.text();
  return { status: answer.status, body: (text ? JSON.parse(text) : undefined) as T };
}

/** A client and a session of theirs on a running server, and a maker of taps. */
export async function sessionOn(address: string, name = 'Ada', fields: object = {}) {
  const { body: client } = await ask<{ id: string }>(address, 'POST', '/clients', { name, ...fields });
  const startedAt = new Date().toISOString();
  const { body: session } = await ask<{ id: string }>(address, 'POST', '/sessions', {
    clientIds: [client.id],
    startedAt,
  });
  let counter = 0;
  const tap = (text = `tap ${counter + 1}`) => ({
    id: uuidv7(),
    sessionId: session.id,
    clientId: client.id,
    counter: (counter += 1),
    at: new Date().toISOString(),
    type: 'note-written',
    data: { text },
  });
  return { clientId: client.id, sessionId: session.id, tap };
}
