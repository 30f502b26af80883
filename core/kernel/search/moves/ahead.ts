import { sharesResource } from '../../model/model';
import { intervalAfter } from '../../model/openHours';
import { pick } from '../../model/random';
import { ALWAYS, type Move } from './move';
import type { OperationIndex } from '../../model/units';

export const ahead: Move = {
  name: 'ahead',
  purpose: 'An operation comes back ahead of those done just before it in its session.',
  stage: 'coarse',
  isFor: ALWAYS,
  on: ({ schedule, structure, random, out }) => {
    const { model, start, end } = schedule;

    /** Up to `many` operations done last before `i` in its session by the same hands or tools, in their order. */
    function doneBefore(i: OperationIndex, many: number): number[] {
      const open = model.open[i]!;
      const opens = open === null ? 0 : (open.from[intervalAfter(open, start[i]!)] ?? 0);
      const found: number[] = [];
      for (let k = 0; k < model.count; k++)
        if (start[k]! >= opens && end[k]! <= start[i]! && end[k]! > start[k]! && sharesResource(model, k, i))
          found.push(k);
      return found.sort((a, b) => start[a]! - start[b]!).slice(-many);
    }

    return () => {
      const { operations } = structure.strands[pick(random, structure.strands.length)]!;
      // Most often the last: with it the unit is done.
      const i = operations[random() < 0.5 ? operations.length - 1 : pick(random, operations.length)]!;
      const before = doneBefore(i, 1 + pick(random, 3));
      [i, ...before].forEach((k, n) => {
        out.take(k, n);
      });
      return { isWhole: false };
    };
  },
};
