/** What the sight of the application needs and nobody else: the model and its engine, served from here and fetched when first used. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

import type { Plugin } from 'vite';

import { poseModel } from './pose-model.js';

const MODULE = 'virtual:sight-files';
const ENGINE = ['vision_wasm_module_internal.js', 'vision_wasm_module_internal.wasm'];
const LICENCE = 'LICENSE.txt';
const TYPES: Record<string, string> = { js: 'text/javascript', wasm: 'application/wasm' };

const packageOf = (name: string): string => dirname(createRequire(import.meta.url).resolve(`${name}/package.json`));

function files(): Map<string, Uint8Array> {
  const weights = (name: string): Uint8Array => readFileSync(join(packageOf('@mediapipe/pose'), name));
  const model = poseModel(weights('pose_solution_packed_assets.data'), weights('pose_landmark_lite.tflite'));
  const engine = join(dirname(createRequire(import.meta.url).resolve('@mediapipe/tasks-vision')), 'wasm');
  const licence = join(import.meta.dirname, '../../licences/Apache-2.0.txt');
  return new Map<string, Uint8Array>([
    [LICENCE, readFileSync(licence)],
    ['pose.task', model],
    ...ENGINE.map((name) => [name, readFileSync(join(engine, name))] as const),
  ]);
}

export function sightFiles(): Plugin {
  const all = files();
  const hash = createHash('sha256');
  for (const bytes of all.values()) hash.update(bytes);
  // A new content has a new place, so that what is kept on a device is never out of date.
  const folder = `assets/sight-${hash.digest('hex').slice(0, 12)}`;
  const fetched = [...all].filter(([name]) => name !== LICENCE);
  const sizes = Object.fromEntries(fetched.map(([name, { length }]) => [name, length]));
  return {
    name: 'waxwing-sight-files',
    resolveId: (id) => (id === MODULE ? `\0${MODULE}` : undefined),
    load: (id) =>
      id === `\0${MODULE}`
        ? `export const FOLDER = '/${folder}'; export const SIZES = ${JSON.stringify(sizes)};`
        : undefined,
    generateBundle() {
      for (const [name, source] of all) this.emitFile({ type: 'asset', fileName: `${folder}/${name}`, source });
    },
    configureServer({ middlewares }) {
      middlewares.use(`/${folder}`, (request, response, next) => {
        const name = (request.url ?? '').slice(1).split('?')[0] as string;
        const bytes = all.get(name);
        if (!bytes) return next();
        response.setHeader('Content-Type', TYPES[name.split('.').at(-1) as string] ?? 'application/octet-stream');
        response.end(bytes);
      });
    },
  };
}
