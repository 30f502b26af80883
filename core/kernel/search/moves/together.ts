import { pick } from '../../model/random';
import { ALWAYS, spanOf, type Move } from './move';
import { overlapping, takeStrands } from './taking';

/** Few: where hardly anything is under way beside it, fewer come out. */
const LOOKS = 30;

export const together: Move = {
  name: 'together',
  purpose: 'Strands that are under way at the same time change places.',
  stage: 'coarse',
  isFor: ALWAYS,
  on: (ground) => () => {
    const { schedule, structure, random } = ground;
    const seed = pick(random, structure.strands.length);
    const [from, to] = spanOf(schedule, structure.strands[seed]!);
    const others = overlapping(ground, [seed], { from, to }, 1 + pick(random, 4), LOOKS);
    return takeStrands(ground, [seed, ...others]);
  },
};
