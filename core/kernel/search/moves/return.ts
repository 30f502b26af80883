import { sharesResource } from '../../model/model';
import { pick } from '../../model/random';
import { MOST_OUT, type Ground, type Move } from './move';

export const goBack: Move = {
  name: 'return',
  purpose:
    'What has left the session it had in the plan to keep close to goes back, and what stands there now after it.',
  stage: 'coarse',
  isFor: (schedule) => schedule.calm !== null,
  on: (ground) => () => {
    const { schedule, structure, out } = ground;
    const { model, calm } = schedule;
    const chosen = strayed(ground);
    if (calm === null || chosen < 0) return { isWhole: false };
    const { operations } = structure.strands[chosen]!;
    const tail = operations.slice(operations.findIndex((i) => schedule.hasLeft(i)));
    const isAway = tail.map((i) => schedule.hasLeft(i));
    tail.forEach((i, k) => {
      out.take(i, k);
    });
    tail.forEach((i, n) => {
      const from = calm.start[i]!;
      if (!isAway[n] || from < 0) return;
      for (let k = 0; k < model.count && out.size < MOST_OUT; k++)
        if (
          schedule.start[k]! < from + model.minutes[i]! &&
          schedule.end[k]! > from &&
          model.minutes[k]! > 0 &&
          sharesResource(model, k, i)
        )
          out.take(k, tail.length + schedule.start[k]!);
    });
    return { isWhole: false };
  },
};

/** A strand with an operation that has left its session; -1: there is none. */
function strayed({ schedule, structure, random }: Ground): number {
  const { strands } = structure;
  const offset = pick(random, strands.length);
  for (let n = 0; n < strands.length; n++) {
    const s = (offset + n) % strands.length;
    if (strands[s]!.operations.some((i) => schedule.hasLeft(i))) return s;
  }
  return -1;
}
