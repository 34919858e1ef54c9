/** Talking to the server: JSON in and out, and errors that carry the fields which are wrong. */
import type { Answer, Body, OperationName, PathNames, Query } from '@waxwing/core/api';
import type { Problem } from '@waxwing/core/schema';

import { say } from '../words/say';

/** An answer that is not a success. `status` 0 means that nothing answered. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly errors: readonly Problem[] = [],
  ) {
    super(message);
    this.name = 'ProblemError';
  }
}

/** Why something must be sent again later: no answer, a full disk there, nobody signed in here, or another failure there. */
export type Trouble = 'away' | 'full' | 'shut' | 'failing';

/** Who is not signed in, or was not heard to the end, or came too often: the same is taken later. */
const LATER: readonly number[] = [401, 403, 408, 429];

/** Whether the server looked at what was sent and would not take it: sending the same again is of no use. */
export const isRefusal = (error: unknown): error is ProblemError =>
  error instanceof ProblemError && error.status >= 400 && error.status < 500 && !LATER.includes(error.status);

const DISK_IS_FULL = 507;

export function troubleOf(error: unknown): Trouble {
  if (!(error instanceof ProblemError) || error.status === 0) return 'away';
  if (error.status === DISK_IS_FULL) return 'full';
  return error.status === 401 || error.status === 403 ? 'shut' : 'failing';
}

interface ProblemAnswer {
  title?: string;
  detail?: string;
  errors?: Problem[];
}

/** Goes with everything that changes something, so that no page of another site can send it. */
let token: string | null = null;
export const setToken = (next: string | null): void => {
  token = next;
};

let turnedAway: () => void = () => undefined;
/** Called when the server asks who is there. */
export const onTurnedAway = (heard: () => void): void => {
  turnedAway = heard;
};

/** What stands in the braces of an operation's path, what its query holds, and what it is sent: JSON, or a file as it is. */
type Given<K extends OperationName> = Record<PathNames<K>, string> &
  ([Query<K>] extends [never] ? unknown : { query?: Partial<Record<Query<K>, string>> }) &
  ([Body<K>] extends [never] ? unknown : { body: Body<K> extends 'file' ? Blob : Body<K> });

/** Nothing has to be given where nothing is asked for. */
type Asked<K extends OperationName> = Record<never, never> extends Given<K> ? [given?: Given<K>] : [given: Given<K>];

/** Calls the API. @throws ProblemError */
export async function call<K extends OperationName>(operation: K, ...[given]: Asked<K>): Promise<Answer<K>> {
  const response = await send(operation, given);
  return (response.status === 204 ? undefined : await response.json()) as Answer<K>;
}

/** Calls the API and reads an answer that comes in lines of JSON, each as it arrives. @throws ProblemError */
export async function callLines<K extends OperationName, Line>(
  operation: K,
  given: Given<K>,
  take: (line: Line) => void,
): Promise<void> {
  const response = await send(operation, given);
  const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (let read = await reader?.read(); read && !read.done; read = await reader?.read()) {
    const lines = (rest + read.value).split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) take(JSON.parse(line) as Line);
  }
}

/** The address of an operation, as a link or a request has it. */
export function addressOf(path: string, given: Readonly<Record<string, unknown>> = {}): string {
  const filled = path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(String(given[name])));
  const query = String(new URLSearchParams((given.query ?? {}) as Record<string, string>));
  return `/api${filled}${query && `?${query}`}`;
}

async function send(operation: OperationName, given: { body?: unknown } = {}): Promise<Response> {
  const [method = '', path = ''] = operation.split(' ');
  const { body } = given;
  let response: Response;
  try {
    response = await fetch(addressOf(path, given as Record<string, unknown>), {
      method,
      headers: {
        ...(method === 'GET' || token === null ? {} : { 'X-Waxwing-Token': token }),
        ...(body === undefined
          ? {}
          : { 'Content-Type': body instanceof Blob ? 'application/octet-stream' : 'application/json' }),
      },
      ...(body === undefined ? {} : { body: body instanceof Blob ? body : JSON.stringify(body) }),
    });
  } catch {
    throw new ProblemError(0, say.shell.theServerDoesNotAnswer);
  }
  if (response.ok) return response;
  if (response.status === 401 || response.status === 403) turnedAway();
  const problem = (await response.json().catch(() => ({}))) as ProblemAnswer;
  throw new ProblemError(response.status, problem.detail ?? problem.title ?? response.statusText, problem.errors);
}
