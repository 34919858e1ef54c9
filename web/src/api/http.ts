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

/** Why something must be sent again later: no answer, a full disk there, or another failure there. */
export type Trouble = 'away' | 'full' | 'failing';

/** Whether the server looked at what was sent and would not take it: sending the same again is of no use. */
export const isRefusal = (error: unknown): error is ProblemError =>
  error instanceof ProblemError && error.status >= 400 && error.status < 500;

const DISK_IS_FULL = 507;

export function troubleOf(error: unknown): Trouble {
  if (!(error instanceof ProblemError) || error.status === 0) return 'away';
  return error.status === DISK_IS_FULL ? 'full' : 'failing';
}

interface ProblemAnswer {
  title?: string;
  detail?: string;
  errors?: Problem[];
}

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
      ...(body === undefined
        ? {}
        : body instanceof Blob
          ? { headers: { 'Content-Type': 'application/octet-stream' }, body }
          : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
    });
  } catch {
    throw new ProblemError(0, 'The server does not answer.');
  }
  if (response.ok) return response;
  const problem = (await response.json().catch(() => ({}))) as ProblemAnswer;
  throw new ProblemError(response.status, problem.detail ?? problem.title ?? response.statusText, problem.errors);
}
