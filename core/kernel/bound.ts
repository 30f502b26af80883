/** A proven lower bound on the total cost: what no plan can avoid. */
import { change, type Model } from './model';
import type { Bounds } from './propagate';

/**
 * Every unit ends no sooner than its critical path over calendars and clocks, and every family that the plan must
 * still put on a tool is set up at least once, the cheapest way.
 */
export function lowerBound(model: Model, bounds: Bounds): number {
  const { weights } = model;
  let total = 0;
  for (const due of model.dues) {
    const end = bounds.endLow[due.ready]!;
    total +=
      weights.tardiness * due.weight * Math.max(0, end - due.due) + weights.completion * due.weight * end;
  }
  total += weights.setup * leastSetups(model);
  let last = 0;
  for (const end of bounds.endLow) if (end > last) last = end;
  return total + weights.makespan * last;
}

function leastSetups(model: Model): number {
  let minutes = 0;
  model.tools.forEach((tool, resource) => {
    if (tool === null) return;
    const wanted = new Set<number>();
    const past = new Set<number>();
    for (let i = 0; i < model.count; i++)
      if (model.tool[i] === resource) (model.isFixed[i] ? past : wanted).add(model.family[i]!);
    for (const family of wanted) {
      if (past.has(family)) continue;
      let least = change(tool, 0, family);
      for (const from of [...wanted, ...past])
        if (from !== family) least = Math.min(least, change(tool, from, family));
      minutes += least;
    }
  });
  return minutes;
}
