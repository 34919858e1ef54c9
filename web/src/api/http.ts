/** Talking to the server: JSON in and out, and errors that carry the fields which are wrong. */
import type { Problem } from '@waxwing/core/schema';

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

type Method = 'GET' | 'POST' | 'PATCH' | 'DELETE';

/** Calls the API. A file goes as it is, anything else as JSON. @throws ProblemError */
export async function call<T>(method: Method, path: string, body?: unknown): Promise<T> {
  const response = await send(method, path, body);
  return (response.status === 204 ? undefined : await response.json()) as T;
}

/** Calls the API and reads an answer that comes in lines of JSON, each as it arrives. @throws ProblemError */
export async function callLines<T>(path: string, body: unknown, take: (line: T) => void): Promise<void> {
  const response = await send('POST', path, body);
  const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (let read = await reader?.read(); read && !read.done; read = await reader?.read()) {
    const lines = (rest + read.value).split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) take(JSON.parse(line) as T);
  }
}

async function send(method: Method, path: string, body?: unknown): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
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
    throw new ProblemError(0, 'The server does not answer.');
  }
  if (response.ok) return response;
  if (response.status === 401 || response.status === 403) turnedAway();
  const problem = (await response.json().catch(() => ({}))) as ProblemAnswer;
  throw new ProblemError(response.status, problem.detail ?? problem.title ?? response.statusText, problem.errors);
}
