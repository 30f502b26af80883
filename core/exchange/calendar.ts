/** The plan as iCalendar (RFC 5545), one event a session, and one for each table date; times are instants, the bench's zone stands beside them. */
import ical, { ICalAlarmType, ICalCalendarMethod } from 'ical-generator';
import { dateTimeAfter, instantOfWall } from '#core/muster';
import { clockTime, duration, runSheet, type Plan } from '#core/plan';

/**
 * @param stamp moment of writing, for DTSTAMP
 * @returns the text of an .ics file
 */
export function writeCalendar(plan: Plan, name: string, stamp: Date): string {
  const calendar = ical({ name, prodId: '//Patient Muster//Plan 1//EN', method: ICalCalendarMethod.PUBLISH });
  calendar.x('X-WR-TIMEZONE', plan.origin.zone);
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
      start: instantAt(plan, session.start),
      end: instantAt(plan, session.end),
      alarms: [{ type: ICalAlarmType.display, trigger: SESSION_ALARM_SECONDS }],
      summary: `Bench: ${name}, ${sheet.entries.length} ${sheet.entries.length === 1 ? 'run' : 'runs'}`,
      description: [...lines, ...shuts].join('\n'),
    });
  }
  for (const unit of plan.units)
    calendar.createEvent({
      id: `table-${unit.id}@patient-muster`,
      stamp,
      start: instantAt(plan, unit.due),
      end: instantAt(plan, unit.due),
      summary: `On the table: ${unit.name}`,
      description:
        unit.lateMinutes > 0
          ? `Planned to be late by ${duration(unit.lateMinutes)}.`
          : 'Planned to be ready in time.',
      alarms: [{ type: ICalAlarmType.display, trigger: TABLE_ALARM_SECONDS }],
    });
  return calendar.toString();
}

/** Time to lay out; and an evening more before the table. */
const SESSION_ALARM_SECONDS = 15 * 60;
const TABLE_ALARM_SECONDS = 24 * 3600;

function instantAt(plan: Plan, minute: number): Date {
  return new Date(instantOfWall(plan.origin.zone, dateTimeAfter(plan.origin, minute)));
}
