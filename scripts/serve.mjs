/** Runs the built server until it ends or is told to. */
import { spawn } from 'node:child_process';

import { ROOT, SERVER } from './prepare.mjs';

/**
 * @param {string[]} args
 * @param {Record<string, string>} env
 */
export function serve(args, env = {}) {
  // A roomier young generation: most of a start is short-lived objects.
  const child = spawn(process.execPath, ['--max-semi-space-size=64', SERVER, ...args], {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  });
  for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM'])) process.on(signal, () => child.kill(signal));
  child.on('exit', (code) => process.exit(code ?? 0));
}
