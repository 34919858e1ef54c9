/** A plan as it is stored, and what a list shows of it. */
import type { Plan } from './plan.js';

export interface StoredPlan extends Plan {
  id: string;
  version: number;
  updatedAt: string;
}

/** The link by which calendar programs have somebody's planned hours. */
export interface Feed {
  /** When it was made (ISO); null where there is none. */
  since: string | null;
}

export type PlanSummary = Pick<StoredPlan, 'id' | 'name' | 'startsAt' | 'template' | 'minutes' | 'updatedAt'> & {
  clients: { id: string; name: string }[];
  /** Minutes that its lines take. */
  filled: number;
  /** The latest session that was held by it, in the span of time that was asked for; null where none was. */
  session: { id: string; finished: boolean } | null;
};
