/** Saving a plan as it is changed: kept on this device at once, sent a moment later, again when the server was away or could not save; a stale one is refused. */
import { type Plan, planSchema, type StoredPlan } from '@waxwing/core/planning';

import { call, isRefusal, type Trouble, troubleOf } from '../api/http';
import { forgetHere, keepHere, keptHere } from '../shell/kept';

const PAUSE_MS = 400;
const RETRY_MS = 3_000;

export type Saving = 'saved' | 'saving' | Trouble | { refused: string };

interface Kept {
  version: number;
  plan: Plan;
}

const keyOf = (id: string): string => `waxwing-plan-${id}`;

/** What was changed on this device and not saved; null when there is nothing, or it was made from another version. */
export function keptDraft(id: string, version: number): Plan | null {
  try {
    const kept = JSON.parse(keptHere(keyOf(id)) ?? 'null') as Kept | null;
    if (kept?.version !== version) return null;
    const checked = planSchema.safeParse(kept.plan);
    return checked.success ? checked.data : null;
  } catch {
    return null;
  }
}

export const forgetDraft = (id: string): void => forgetHere(keyOf(id));

export class PlanSaver {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private busy = false;
  private waiting: Plan | null = null;

  constructor(
    private readonly id: string,
    private version: number,
    private readonly say: (saving: Saving) => void,
    private readonly saved: (plan: StoredPlan) => void,
  ) {}

  /** Takes a change. @param pause milliseconds before it is sent, so that typing is one change */
  put(plan: Plan, pause = PAUSE_MS): void {
    this.waiting = plan;
    keepHere(keyOf(this.id), JSON.stringify({ version: this.version, plan } satisfies Kept));
    this.say('saving');
    this.later(pause);
  }

  /** Sends what is waiting without a pause. */
  flush(): void {
    if (this.waiting) this.later(0);
  }

  private later(pause: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.send(), pause);
  }

  private async send(): Promise<void> {
    const plan = this.waiting;
    if (this.busy || !plan) return;
    this.busy = true;
    this.waiting = null;
    try {
      const answer = await call('PATCH /plans/{id}', { id: this.id, body: { version: this.version, plan } });
      this.version = answer.version;
      this.saved(answer);
      // A change that came meanwhile was made from this one.
      if (this.waiting) this.put(this.waiting, 0);
      else {
        forgetDraft(this.id);
        this.say('saved');
      }
    } catch (error) {
      if (isRefusal(error) && error.status === 409 && (await this.already(plan))) {
        this.put(this.waiting ?? plan, 0);
      } else if (isRefusal(error)) this.say({ refused: error.message });
      else {
        this.waiting ??= plan;
        this.say(troubleOf(error));
        this.later(RETRY_MS);
      }
    } finally {
      this.busy = false;
    }
  }

  /** Whether the newer version on the server is this very plan: it was stored, and only the answer was lost. Goes on from it then. */
  private async already(plan: Plan): Promise<boolean> {
    const stored = await call('GET /plans/{id}', { id: this.id }).catch(() => null);
    if (!stored || JSON.stringify(bare(stored)) !== JSON.stringify(plan)) return false;
    this.version = stored.version;
    return true;
  }
}

/** A stored plan without what the server adds. */
export const bare = ({ id: _, version: __, updatedAt: ___, ...plan }: StoredPlan): Plan => plan;
