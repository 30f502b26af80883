/** The plan as iCalendar (RFC 5545), one event a session, in wall-clock ("floating") time as the plan itself is. */
import ical, { ICalCalendarMethod } from 'ical-generator';
import { dateTimeAfter } from '#core/muster';
import { clockTime, runSheet, type Plan } from '#core/plan';

/**
 * @param stamp moment of writing, for DTSTAMP
 * @returns the text of an .ics file
 */
export function writeCalendar(plan: Plan, name: string, stamp: Date): string {
  const calendar = ical({ name, prodId: '//Patient Muster//Plan 1//EN', method: ICalCalendarMethod.PUBLISH });
  for (const session of plan.sessions) {
    if (session.steps.length === 0) continue;
    const sheet = runSheet(plan, session.index);
    const lines = sheet.entries.map(
      (e) =>
        `${clockTime(plan.origin, e.start)} ${e.who ? `${e.who}: ` : ''}${e.verb} ${e.name}: ${e.pieces.map((p) => p.name).join(', ')}`,
    );
    const shuts = sheet.closings.map((c) => `By ${clockTime(plan.origin, c.minute)} ${c.text}.`);
    calendar.createEvent({
      id: `session-${dateTimeAfter(plan.origin, session.start)}@patient-muster`,
      stamp,
      start: wallClock(plan, session.start),
      end: wallClock(plan, session.end),
      floating: true,
      summary: `Bench: ${name}, ${sheet.entries.length} ${sheet.entries.length === 1 ? 'run' : 'runs'}`,
      description: [...lines, ...shuts].join('\n'),
    });
  }
  return calendar.toString();
}

/** A moment whose UTC fields read like the wall clock: what the generator writes for floating times. */
function wallClock(plan: Plan, minute: number): Date {
  return new Date(`${dateTimeAfter(plan.origin, minute)}:00Z`);
}
