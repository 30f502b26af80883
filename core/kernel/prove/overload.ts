/**
 * What the hours before the dates can't hold. All work of the units that are due up to some date has to be done by the last of them; where the
 * hours of one resource hold less than that, the last is late by what is lacking, whoever it is.
 */
import type { Model } from '../model/model';
import type { OpenHours } from '../model/openHours';
import type { Bounds } from './propagate';
import type { Minute } from '../model/units';

/** Weighted minutes of lateness that the hours of the busiest resource force; 0 where they may hold all that is due. */
export function overload(model: Model, bounds: Bounds): number {
  const dues = model.dues.filter((d) => d.weight > 0).sort((a, b) => a.due - b.due);
  const dueOf = earliestDues(model);
  let most = 0;
  model.capacity.forEach((capacity, r) => {
    const work = [...dueOf.keys()]
      .filter((i) => dueOf[i]! < Infinity && !model.isFixed[i] && model.minutes[i]! > 0)
      .flatMap((i) => {
        const use = model.uses[i]!.find((u) => u.resource === r);
        return use
          ? [{ due: dueOf[i]!, begin: bounds.startLow[i]!, minutes: model.minutes[i]! * use.amount }]
          : [];
      })
      .sort((a, b) => a.due - b.due);
    let begin = Infinity;
    let minutes = 0;
    let k = 0;
    dues.forEach(({ due }, last) => {
      for (; k < work.length && work[k]!.due <= due; k++) {
        begin = Math.min(begin, work[k]!.begin);
        minutes += work[k]!.minutes;
      }
      // All that are due together are looked at together.
      if (minutes === 0 || dues[last + 1]?.due === due) return;
      const end = worked(model.openOn[r]!, begin, minutes / capacity);
      if (end <= due) return;
      // The last of them is the one that can best be late.
      let least = Infinity;
      for (let d = 0; d <= last; d++) least = Math.min(least, dues[d]!.weight * (end - dues[d]!.due));
      most = Math.max(most, least);
    });
  });
  return most;
}

/** By operation: the earliest due date of the units that wait for it; Infinity: none does. */
function earliestDues(model: Model): Float64Array {
  const dueOf = new Float64Array(model.count).fill(Infinity);
  for (const { ready, due, weight } of [...model.dues].sort((a, b) => a.due - b.due)) {
    if (weight === 0) continue;
    const todo = [ready];
    while (todo.length > 0) {
      const i = todo.pop()!;
      if (dueOf[i]! <= due) continue;
      dueOf[i] = due;
      // What may still go on afterwards need not be over.
      for (const { from, min } of model.lagsIn[i]!) if (min >= 0) todo.push(from);
    }
  }
  return dueOf;
}

/** The first minute by which so many open minutes have gone by since another. */
function worked(open: OpenHours | null, from: Minute, minutes: number): number {
  if (open === null) return from + minutes;
  let left = minutes;
  for (let k = 0; k < open.from.length; k++) {
    const begin = Math.max(from, open.from[k]!);
    if (begin >= open.to[k]!) continue;
    if (begin + left <= open.to[k]!) return begin + left;
    left -= open.to[k]! - begin;
  }
  return open.to.at(-1) ?? from;
}
