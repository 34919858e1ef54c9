/** The eye of the page: fetched when first wanted, then open for as long as the page is. */
import { type Remote, wrap } from 'comlink';
import { FOLDER, SIZES } from 'virtual:sight-files';

import { say } from '../words/say';
import type { Eye } from './eye.worker';

export class NoEye extends Error {}

const LOADER = `${FOLDER}/vision_wasm_module_internal.js`;
const ENGINE = `${FOLDER}/vision_wasm_module_internal.wasm`;
const MODEL = `${FOLDER}/pose.task`;

/** All that is fetched, by its address. */
export const EYE_FILES = [LOADER, ENGINE, MODEL] as const;
/** Of all files together, in bytes. */
export const EYE_BYTES = Object.values(SIZES).reduce((sum, size) => sum + size, 0);

/** A module of nothing but one instruction on several numbers at once: whether the engine can run here. */
const SIMD = new Uint8Array([
  0, 97, 115, 109, 1, 0, 0, 0, 1, 5, 1, 96, 0, 1, 123, 3, 2, 1, 0, 10, 10, 1, 8, 0, 65, 0, 253, 15, 253, 98, 11,
]);

const canSee = (): boolean => typeof WebAssembly === 'object' && WebAssembly.validate(SIMD);

/** A file with its progress; what was fetched before comes from what the browser keeps. */
async function fetched(path: string, gone: (bytes: number) => void): Promise<Uint8Array<ArrayBuffer>> {
  const answer = await fetch(path).catch(() => null);
  if (!answer?.ok || !answer.body || answer.headers.get('content-type')?.startsWith('text/html'))
    throw new NoEye(say.sight.eyeNotFetched);
  const parts: Uint8Array[] = [];
  const reader = answer.body.getReader();
  for (let step = await reader.read(); !step.done; step = await reader.read()) {
    parts.push(step.value);
    gone(step.value.length);
  }
  return new Uint8Array(await new Blob(parts as BlobPart[]).arrayBuffer());
}

let opening: Promise<Remote<Eye>> | undefined;

async function open(progress: (share: number) => void): Promise<Remote<Eye>> {
  if (!canSee()) throw new NoEye(say.sight.browserTooOld);
  let sum = 0;
  const gone = (bytes: number): void => progress((sum += bytes) / EYE_BYTES);
  // The engine fetches its own two files: they are asked for before, so that it finds them here, and to see them come.
  const [model] = await Promise.all([fetched(MODEL, gone), fetched(LOADER, gone), fetched(ENGINE, gone)]);
  const worker = new Worker(new URL('./eye.worker.ts', import.meta.url), { type: 'module' });
  const eye = wrap<Eye>(worker);
  await eye.open({ loader: LOADER, engine: ENGINE, model });
  return eye;
}

/** @throws NoEye with words for whoever waits. Tried again at the next call after it failed. */
export function openEye(progress: (share: number) => void = () => {}): Promise<Remote<Eye>> {
  opening ??= open(progress).catch((error: unknown) => {
    opening = undefined;
    throw error instanceof NoEye ? error : new NoEye(say.sight.eyeDoesNotStart);
  });
  return opening;
}

let busy: Promise<unknown> = Promise.resolve();

/** The eye follows one clip at a time: whoever comes while it looks at another waits for their turn. */
export function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const turn = busy.then(work, work);
  busy = turn.catch(() => undefined);
  return turn;
}
