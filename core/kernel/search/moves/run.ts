import { pick } from '../../model/random';
import { ALWAYS, type Move } from './move';
import { takeStrands } from './taking';

export const run: Move = {
  name: 'run',
  purpose: 'The strands of some operations that follow one another on a tool: a colour run is made anew.',
  stage: 'coarse',
  isFor: ALWAYS,
  on: (ground) => () => {
    const { schedule, structure, random } = ground;
    const chosen = new Set<number>();
    const tools = schedule.sequences.filter((q) => q.length > 1);
    const sequence = tools[pick(random, tools.length)];
    if (sequence) {
      const at = pick(random, sequence.length);
      const many = 2 + pick(random, 5);
      for (let k = at; k < sequence.length && chosen.size < many; k++) {
        const s = structure.strandOf[sequence.at(k)]!;
        if (s >= 0) chosen.add(s);
      }
    }
    if (chosen.size === 0) chosen.add(pick(random, structure.strands.length));
    return takeStrands(ground, [...chosen]);
  },
};
