/** What is kept of a plan: the whole, and in columns what is listed. */
import type { Plan } from '@waxwing/core/planning';

export const planColumns = (document: Plan) => ({
  name: document.name,
  startsAt: document.startsAt,
  template: document.template,
  document,
  updatedAt: new Date().toISOString(),
});
