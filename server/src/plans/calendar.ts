/** Plans as a calendar file (RFC 5545). No client is named in it: calendars are shared. */
import type { StoredPlan } from '@waxwing/core/planning';

/** @param plans those without a time are left out */
export async function calendarOf(plans: readonly StoredPlan[], studio: string): Promise<string> {
  const { default: ical } = await import('ical-generator');
  const calendar = ical({ name: studio, prodId: { company: 'Waxwing', product: 'plan', language: 'EN' } });
  for (const { id, startsAt, minutes, updatedAt, version, name } of plans) {
    if (startsAt === null) continue;
    const start = new Date(startsAt);
    calendar.createEvent({
      id,
      start,
      end: new Date(start.getTime() + minutes * 60_000),
      stamp: new Date(updatedAt),
      sequence: version,
      summary: name,
      location: studio,
    });
  }
  return calendar.toString();
}
