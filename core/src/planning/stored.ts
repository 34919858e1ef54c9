/** A plan as it is stored, and what a list shows of it. */
import type { Plan } from './plan.js';

export interface StoredPlan extends Plan {
  id: string;
  version: number;
  updatedAt: string;
}

export type PlanSummary = Pick<StoredPlan, 'id' | 'name' | 'startsAt' | 'template' | 'minutes' | 'updatedAt'> & {
  clients: { id: string; name: string }[];
};
