import { sharesResource } from '../../model/model';
import { pick } from '../../model/random';
import { ALWAYS, spanOf, type Ground, type Move } from './move';
import { footprint, overlapping, strandsByUnit, takeInOrder } from './taking';
import type { Minute, OperationIndex } from '../../model/units';

/** At most so many strands are asked whether they stand in the way. */
const MOST_LOOKED_AT = 120;

export const late: Move = {
  name: 'late',
  purpose: 'A late (or costly) unit comes back first, and strands that stand in its way after it.',
  stage: 'coarse',
  isFor: ALWAYS,
  on: (ground) => {
    const { schedule, structure, random } = ground;
    const { strands } = structure;
    const strandsOf = strandsByUnit(ground);
    return () => {
      const chosen = costly(ground);
      if (chosen < 0) return { isWhole: true };
      // Of a unit of many strands those that end last: they make it late.
      const own = [...strandsOf[chosen]!]
        .map((s) => ({ s, end: spanOf(schedule, strands[s]!)[1] }))
        .sort((a, b) => b.end - a.end)
        .slice(0, 1 + pick(random, 5))
        .map((e) => e.s);
      const spans = own.map((s) => spanOf(schedule, strands[s]!));
      const to = Math.max(...spans.map((span) => span[1]));
      const first = Math.min(...spans.map((span) => span[0]));
      const from = first - (to - first) * random();
      const many = 1 + pick(random, 3);
      const others =
        random() < 0.7 ? blockersOf(ground, own, many) : overlapping(ground, own, { from, to }, many);
      const weighted = random() < 0.5;
      const rank = (s: number): number =>
        weighted ? footprint(ground, s) / Math.max(1e-6, strands[s]!.weight) : strands[s]!.due;
      others.sort((a, b) => rank(a) - rank(b));
      return takeInOrder(ground, [...own, ...others]);
    };
  },
};

/** The unit that costs most beyond what it must, with some luck; -1: there is none. */
function costly({ schedule, random }: Ground): number {
  const { model, bounds } = schedule;
  let chosen = -1;
  let most = 0;
  for (const due of model.dues) {
    const end = schedule.end[due.ready]!;
    const late = Math.max(0, end - due.due);
    const excess = end - bounds.endLow[due.ready]!;
    const byDate = due.weight * (model.weights.tardiness * late + model.weights.completion * excess + 1e-6);
    const score = (byDate + model.weights.overrun * schedule.overrunOf(due.ready)) * random();
    if (score <= most) continue;
    most = score;
    chosen = due.unit;
  }
  return chosen;
}

/** Strands that stand where these could have begun sooner: by their minutes in the way, with some luck. */
function blockersOf({ schedule, structure, random }: Ground, own: readonly number[], many: number): number[] {
  const { model } = schedule;
  const { strands } = structure;
  const waits: { from: Minute; to: Minute; i: OperationIndex }[] = [];
  for (const s of own)
    for (const i of strands[s]!.operations) {
      const from = schedule.startLow(i);
      const to = schedule.start[i]!;
      if (to - from > 1) waits.push({ from, to, i });
    }
  if (waits.length === 0) return [];
  const first = Math.min(...waits.map((w) => w.from));
  const last = Math.max(...waits.map((w) => w.to));
  const score = new Map<number, number>();
  // Of very many strands a sample: luck decides among them anyway.
  const looks = Math.min(strands.length, MOST_LOOKED_AT);
  const stride = Math.floor(strands.length / looks);
  const offset = stride > 1 ? pick(random, strands.length) : 0;
  for (let n = 0; n < looks; n++) {
    const s = (offset + n * stride) % strands.length;
    const { operations } = strands[s]!;
    if (schedule.end[operations[operations.length - 1]!]! <= first || own.includes(s)) continue;
    for (const k of operations) {
      const a = schedule.start[k]! - schedule.setup[k]!;
      const b = schedule.end[k]!;
      if (b <= first || a >= last || model.minutes[k] === 0) continue;
      for (const w of waits) {
        const minutes = Math.min(b, w.to) - Math.max(a, w.from);
        if (minutes > 0 && sharesResource(model, k, w.i)) score.set(s, (score.get(s) ?? 0) + minutes);
      }
    }
  }
  return [...score.entries()]
    .map(([s, minutes]) => ({ s, luck: minutes * random() }))
    .sort((a, b) => b.luck - a.luck)
    .slice(0, many)
    .map((e) => e.s);
}
