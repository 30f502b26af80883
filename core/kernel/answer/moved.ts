import type { Problem, Solution } from '../document/document';
import { lastMinute, upTo } from '../document/horizon';
import { buildModel } from '../model/model';
import { sessionsOf } from '../place/calm';

/** Operations that begin in another session than before (those in both plans that take time and are not history). */
export function movedOperations(problem: Problem, before: Solution, after: Solution): string[] {
  const model = buildModel(upTo(problem, lastMinute(problem, after)));
  const sessionAt = sessionsOf(model);
  const old = new Map(before.operations.map((o) => [o.id, o.start]));
  const at = new Map(model.ids.map((id, i) => [id, i]));
  return after.operations
    .filter((o) => {
      const i = at.get(o.id)!;
      const start = old.get(o.id);
      return (
        start !== undefined &&
        !model.isFixed[i] &&
        model.minutes[i]! > 0 &&
        sessionAt(start) !== sessionAt(o.start)
      );
    })
    .map((o) => o.id);
}
