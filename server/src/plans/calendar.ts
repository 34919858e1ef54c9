/** The date of a plan as a calendar file (RFC 5545). No client is named in it: calendars are shared. */
import type { StoredPlan } from '@waxwing/core/planning';

export async function calendarOf(plan: StoredPlan, startsAt: string, studio: string): Promise<string> {
  const { default: ical } = await import('ical-generator');
  const calendar = ical({ name: studio, prodId: { company: 'Waxwing', product: 'plan', language: 'EN' } });
  const start = new Date(startsAt);
  calendar.createEvent({
    id: plan.id,
    start,
    end: new Date(start.getTime() + plan.minutes * 60_000),
    stamp: new Date(plan.updatedAt),
    sequence: plan.version,
    summary: plan.name,
    location: studio,
  });
  return calendar.toString();
}
