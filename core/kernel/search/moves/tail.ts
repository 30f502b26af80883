import { pick } from '../../model/random';
import { ALWAYS, MOST_OUT, type Move } from './move';

export const tail: Move = {
  name: 'tail',
  purpose: 'What follows a moment in a few strands goes on in another way.',
  stage: 'coarse',
  isFor: ALWAYS,
  on: ({ schedule, structure, random, out }) => {
    const { strands } = structure;
    return () => {
      const seed = pick(random, strands.length);
      const list = strands[seed]!.operations;
      const moment = schedule.start[list[pick(random, list.length)]!]!;
      const many = 1 + pick(random, 5);
      const shake = 20 + 400 * random();
      const first = random() < 0.5 ? 0 : 1e6;
      for (let n = 0; n < many; n++) {
        const s = n === 0 ? seed : pick(random, strands.length);
        for (const i of strands[s]!.operations)
          if (schedule.start[i]! >= moment && out.size < MOST_OUT)
            out.take(i, n * first + schedule.start[i]! + shake * random());
      }
      return { isWhole: first > 0 };
    };
  },
};
