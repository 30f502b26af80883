/** Why there is no plan, in words, with what would lift it. */
import type { Conflict, Lift } from '#core/kernel';
import { originOf, type Muster } from '#core/muster';
import { type Compiled } from './compile';
import { doneId, readyId } from './stepRef';
import { calendarName, wordsOf } from './naming';
import { clockTime, dayName, listed } from './words';

/** How ids and minutes of a problem are called. */
export interface Naming {
  operation(id: string): string;
  resource(id: string): string;
  calendar(id: string): string;
  moment(minute: number): string;
}

/** By its ids and minutes alone: for problems that come from nowhere else. */
export const BARE: Naming = {
  operation: (id) => `“${id}”`,
  resource: (id) => `“${id}”`,
  calendar: (id) => `“${id}”`,
  moment: (minute) => `minute ${minute}`,
};

const NAMED = 6;

/** @returns one or more sentences: what can't be, and what would help */
export function conflictWords(conflict: Conflict, naming: Naming): string {
  const name = (id: string): string => naming.operation(id);
  const all = (ids: readonly string[]): string => {
    const shown = ids.slice(0, NAMED).map(name);
    return shown.length < ids.length
      ? `${shown.join(', ')} and ${ids.length - shown.length} more`
      : shown.join(', ');
  };
  const first = name(conflict.operations[0] ?? '');
  switch (conflict.kind) {
    case 'cycle':
      return `These steps wait for each other in a circle: ${[...conflict.operations, conflict.operations[0]!].map(name).join(' → ')}. Take one of the waits out.`;
    case 'calendar':
      return conflict.longest === 0
        ? `${first} needs ${conflict.minutes} min, but nothing that it uses is ever open at the same time. Open them together.`
        : `${first} takes ${conflict.minutes} min at one go, but the longest session in which all it uses is open has ${conflict.longest} min. Make a session longer, or let the step be put down and taken up again.`;
    case 'span':
      return `${first} can't be done between its earliest start (${naming.moment(conflict.earliest)}) and its latest end (${naming.moment(conflict.latest)}): no open session of ${conflict.minutes} min lies between. Add a session, or move a date.`;
    case 'setup': {
      const [before, after] = conflict.operations;
      return `No time left to clean: between ${name(before)} and ${name(after)} the window closes after ${conflict.closes} min, but changing over the tool takes ${conflict.needs} min. Widen the window, use a second tool, or the same colour.`;
    }
    case 'history':
      return `What has already been done leaves no time for ${first}: ${all(conflict.operations)} can't all be kept. It is already too late for a window or a minimum wait here.`;
    case 'window':
      return `A window closes while the bench is shut: ${name(conflict.to)} must start at most ${Math.floor(conflict.closes)} min after ${name(conflict.from)}, and no session allows it (${all(conflict.operations)}). Make a session longer, begin earlier, or widen the window.`;
    case 'deadline':
      return `Too little time: ${first} can't start before ${naming.moment(conflict.soonest)}, which is too late for what must follow (${all(conflict.operations)}). Add sessions, begin earlier, or plan further ahead.`;
    case 'capacity':
      return `Too little room: ${all(conflict.operations)} need ${conflict.needs} of ${naming.resource(conflict.resource)} at the same time, and there are ${conflict.has}. Make room for more, or move a date.`;
    case 'search':
      return (
        `These cannot all be done: ${all(conflict.operations)}. Every order of them was tried, and in each hands, a tool or a rack is needed twice at once, or a window or a date is missed. ` +
        (conflict.lifts.length > 0
          ? `It would be lifted by ${conflict.lifts.map((lift) => liftWords(lift, naming)).join(', or by ')}.`
          : 'No single change lifts it: take one of them out, or move dates and windows together.')
      );
  }
}

function liftWords(lift: Lift, naming: Naming): string {
  switch (lift.kind) {
    case 'capacity':
      return `one more of ${naming.resource(lift.resource)}`;
    case 'hours':
      return `longer hours in ${naming.calendar(lift.calendar)}`;
    case 'window':
      return `a wider window between ${naming.operation(lift.from)} and ${naming.operation(lift.to)}`;
  }
}

/** Why a muster can't be planned, by the names of its layers, pieces and days. */
export function conflictInWords(conflict: Conflict, compiled: Compiled, muster: Muster): string {
  const names = new Map<string, string>();
  for (const [id, s] of compiled.steps)
    names.set(id, `“${s.layer.name}” on ${s.piece.name} (${s.unit.name})`);
  for (const unit of muster.units) {
    names.set(readyId(unit), `${unit.name} ready`);
    for (const piece of unit.pieces) names.set(doneId(piece), `${piece.name} done`);
  }
  for (const [id, name] of compiled.absences) names.set(id, `${name} being away`);
  const origin = originOf(muster);
  const pinned = involved(conflict).filter((id) => compiled.pins.has(id));
  const words = conflictWords(conflict, {
    operation: (id) => names.get(id) ?? 'a step that is no more in the muster',
    resource: (id) => wordsOf(id).name,
    calendar: calendarName,
    moment: (minute) => `${dayName(origin, minute)} ${clockTime(origin, minute)}`,
  });
  if (pinned.length === 0) return words;
  const shown = listed(pinned.map((id) => names.get(id) ?? id));
  return `${words} You have said in which session ${shown} may be: let ${pinned.length === 1 ? 'it' : 'them'} go from there.`;
}

/** Every operation that a conflict speaks of. */
function involved(conflict: Conflict): readonly string[] {
  return [...new Set([...conflict.operations, ...('to' in conflict ? [conflict.from, conflict.to] : [])])];
}
