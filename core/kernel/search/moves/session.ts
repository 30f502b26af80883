import type { Model } from '../../model/model';
import { pick } from '../../model/random';
import { ALWAYS, MOST_OUT, type Move } from './move';
import type { OperationIndex } from '../../model/units';

export const session: Move = {
  name: 'session',
  purpose:
    'All that begins in one or two sessions, or a part of one: by time, like by like, or first what frees a rack and last what fills one.',
  stage: 'coarse',
  isFor: ALWAYS,
  on: ({ schedule, sessions, random, out }) => {
    const { model } = schedule;
    const filling = model.ids.map((_, i) => fillingOf(model, i));
    return () => {
      const at = pick(random, sessions.length);
      const { from: opens, to: closes } = sessions[at]!;
      const from = opens + (random() < 0.4 ? random() * (closes - opens) : 0);
      const to = (sessions[at + (random() < 0.5 ? 1 : 0)] ?? sessions[at]!).to;
      const tidy = random() < 0.33;
      const grouped = !tidy && random() < 0.5;
      const shake = 10 + 120 * random();
      const anchor = new Map<number, number>();
      for (let i = 0; i < model.count && out.size < MOST_OUT; i++) {
        const s = schedule.start[i]!;
        if (s < from || s >= to || model.minutes[i] === 0) continue;
        if (grouped && (model.tool[i]! >= 0 || model.runsOn[i]!.length > 0)) {
          const f = model.family[i]!;
          if (!anchor.has(f)) anchor.set(f, from + random() * (to - from));
          out.take(i, anchor.get(f)! + random());
        } else out.take(i, tidy ? s + 1000 * filling[i]! + 30 * random() : s + shake * random());
      }
      return { isWhole: false };
    };
  },
};

/** 1: with this operation racks become fuller, -1: emptier. */
function fillingOf(model: Model, i: OperationIndex): number {
  let change = 0;
  for (const hold of model.holdsOf[i]!)
    change += (hold.from === i ? hold.amount : -hold.amount) / model.capacity[hold.resource]!;
  return Math.abs(change) < 1e-9 ? 0 : Math.sign(change);
}
