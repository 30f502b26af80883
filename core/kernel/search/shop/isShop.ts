import type { Model } from '../../model/model';

/** Is the problem a job shop: machines one step at a time, no calendars, windows, holds or setups, only the last end counts? */
export function isShop(model: Model): boolean {
  const { weights } = model;
  return (
    weights.makespan > 0 &&
    weights.tardiness === 0 &&
    weights.completion === 0 &&
    weights.overrun === 0 &&
    model.holds.length === 0 &&
    model.lags.every((l) => l.max === Infinity && l.prefer === Infinity && l.clock === null) &&
    model.tools.every((t) => t === null) &&
    model.open.every((o) => o === null) &&
    model.isFixed.every((f) => f === 0) &&
    model.earliest.every((e) => e === 0) &&
    model.latest.every((l) => l === model.horizon) &&
    model.uses.every((list) => list.length <= 1) &&
    model.capacity.every((c, r) =>
      model.uses.every((l) => l.every((u) => u.resource !== r || 2 * u.amount > c)),
    )
  );
}
