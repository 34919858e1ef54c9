/** Ending: told once, the server takes nothing new, finishes what it has, and is gone within five seconds, whoever still hangs on. */
import type { Server } from 'node:http';

/** Requests under way may take so long to finish. */
const GRACE_MS = 2_000;
/** Then the process ends, whatever it waits for. Nothing acknowledged is lost by it. */
const LAST_MS = 4_500;

export function endWhenTold(server: Server): void {
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => {
      server.closeIdleConnections();
      setTimeout(() => server.closeAllConnections(), GRACE_MS).unref();
      setTimeout(() => process.exit(0), LAST_MS).unref();
    });
}
