/** The built application, really served, on a port and a folder of its own; it can be stopped and started again in the middle of a test. */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

import { type Page, test as base } from '@playwright/test';
import { type Block, emptyPlan, type PlanLane } from '@waxwing/core/planning';

const MAIN = join(import.meta.dirname, '../server/bundle/main.js');
const BACKUP = join(import.meta.dirname, '../server/bundle/backup.js');

export class Studio {
  address = '';
  private port = '0';
  private child: ChildProcess | undefined;
  /** Whether nobody signs in on the machine itself. */
  private readonly open: boolean;
  private readonly folder = mkdtempSync(join(tmpdir(), 'waxwing-e2e-'));

  constructor({ open = true } = {}) {
    this.open = open;
  }

  /** Says who runs it, once: later starts find it said. */
  private async openDoor(): Promise<void> {
    await fetch(`${this.address}/api/door/begin`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ name: 'Trainer', open: true }),
    });
  }

  async start(args: string[] = []): Promise<void> {
    const child = spawn(process.execPath, [MAIN, ...args], {
      env: this.environment,
    });
    child.stderr.pipe(process.stderr);
    let said = '';
    // The network opens after the machine itself.
    const isOpen = () => /localhost:\d+/.test(said) && (!args.includes('--network') || /Other devices/.test(said));
    while (!isOpen()) said += String(((await once(child.stdout, 'data')) as [Buffer])[0]);
    const address = /http:\/\/localhost:(\d+)/.exec(said);
    if (!address?.[1]) throw new Error(`the server said: ${said}`);
    this.child = child;
    this.address = address[0];
    this.port = address[1];
    if (this.open) await this.openDoor();
  }

  /** @param signal as a machine that fails does it, unless it is said otherwise */
  async stop(signal: NodeJS.Signals = 'SIGKILL'): Promise<void> {
    if (!this.child) return;
    const gone = once(this.child, 'exit');
    this.child.kill(signal);
    await gone;
    this.child = undefined;
  }

  /** Puts a backup beside the data while the server works. */
  backUp(name: string): void {
    execFileSync(process.execPath, [BACKUP, 'backup', join(this.folder, name)], { env: this.environment });
  }

  /** Brings a backup back while no server runs. */
  bringBack(name: string): void {
    execFileSync(process.execPath, [BACKUP, 'restore', join(this.folder, name)], { env: this.environment });
  }

  /** What it shows to devices of the network. */
  certificate(): Buffer {
    return readFileSync(join(this.folder, 'network/own.crt'));
  }

  private get environment(): NodeJS.ProcessEnv {
    return {
      ...process.env,
      WAXWING_DATA: this.folder,
      PORT: this.port,
      NETWORK_PORT: '0',
      WAXWING_KEYS: join(this.folder, 'keys'),
    };
  }

  async close(): Promise<void> {
    // Asked to end, it takes the backup that it is making with it: nothing is written into the folder any more.
    await this.stop('SIGTERM');
    rmSync(this.folder, { recursive: true });
  }

  /** The id of a client of the demo studio. */
  async clientId(name: string): Promise<string> {
    const answer = await fetch(`${this.address}/api/clients`);
    const { items } = (await answer.json()) as { items: { id: string; name: string }[] };
    const client = items.find((item) => item.name === name);
    if (!client) throw new Error(`no client ${name}`);
    return client.id;
  }

  /** Opens the floor for somebody, at a movement. */
  async openFloor(page: Page, name: string, movement: string): Promise<void> {
    await page.goto(`${this.address}/people/${await this.clientId(name)}`);
    await page.getByRole('button', { name: 'Start a session' }).click();
    await find(page, movement);
    await page
      .getByRole('button', { name: new RegExp(`^${movement}`) })
      .first()
      .click();
    await page.getByRole('button', { name: /done$/ }).waitFor();
  }

  /** Keeps a plan and opens it at the desk. @returns the ids of its clients */
  async keepPlan(
    page: Page,
    names: readonly string[],
    blocks: readonly PlannedBlock[],
    minutes = 60,
  ): Promise<string[]> {
    const people = await Promise.all(names.map((name) => this.clientId(name)));
    const answer = await fetch(`${this.address}/api/plans`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ plan: planOf(people, blocks, minutes) }),
    });
    const { id } = (await answer.json()) as { id: string };
    await page.goto(`${this.address}/plan/${id}`);
    return people;
  }

  /** Keeps a plan and opens the floor with it. @returns the ids of its clients */
  async openPlan(...kept: Parameters<Studio['keepPlan']>): Promise<string[]> {
    const people = await this.keepPlan(...kept);
    const [page] = kept;
    await page.getByRole('button', { name: 'To the floor' }).click();
    await page.getByRole('region', { name: 'Set' }).waitFor();
    return people;
  }

  /** Has a session suggested for some people and opens it. @returns the address of the plan */
  async plan(page: Page, names: readonly string[], minutes: number): Promise<string> {
    await page.goto(`${this.address}/plan/new`);
    for (const name of names) await page.getByText(name, { exact: true }).click();
    await page.getByLabel('Minutes').fill(String(minutes));
    await page.getByRole('button', { name: 'Make the plan' }).click();
    await page.getByRole('region', { name: 'Tape' }).waitFor();
    return page.url();
  }
}

/** A line of a plan; what is left out is as usual. */
type Line = Pick<PlanLane, 'movementId'> & Partial<Omit<PlanLane, 'clientId'>>;

export interface PlannedBlock {
  kind: string;
  rounds?: number;
  workSeconds?: number;
  clock?: Block['clock'];
  lines: Line[];
}

/** A plan in which everybody does the same. */
function planOf(people: readonly string[], blocks: readonly PlannedBlock[], minutes: number) {
  const lane = (clientId: string, line: Line) => ({
    clientId,
    withId: null,
    sets: 2,
    amount: 8,
    tempo: '2-0-1-0',
    rest: 30,
    load: null,
    why: '',
    ...line,
  });
  return {
    ...emptyPlan(people, minutes),
    name: 'Tried',
    blocks: blocks.map(({ kind, rounds = 1, workSeconds = null, clock, lines }) => ({
      id: randomUUID(),
      kind,
      rounds,
      workSeconds,
      ...(clock && { clock }),
      items: lines.map((line) => ({
        id: randomUUID(),
        locked: false,
        tied: false,
        lanes: people.map((id) => lane(id, line)),
      })),
    })),
  };
}

/** Types into the search of the floor. */
export const find = (page: Page, words: string): Promise<void> =>
  page.getByRole('searchbox', { name: 'Find a movement' }).fill(words);

interface Places {
  /** The demo studio. */
  studio: Studio;
  /** A place with the starter library and nobody in it. */
  emptyStudio: Studio;
  /** A place that was never opened. */
  newStudio: Studio;
}

const open =
  (args: string[], options = {}) =>
  // The first parameter must be destructured: that is how the runner learns what a fixture needs.
  // eslint-disable-next-line no-empty-pattern
  async ({}, use: (studio: Studio) => Promise<void>): Promise<void> => {
    const studio = new Studio(options);
    await studio.start(args);
    await use(studio);
    await studio.close();
  };

export const test = base.extend<Places>({
  studio: open(['--demo']),
  emptyStudio: open([]),
  newStudio: open([], { open: false }),
});
export { expect } from '@playwright/test';
