import { pick } from '../../model/random';
import { ALWAYS, type Move } from './move';
import { takeStrands } from './taking';

const MOST = 5;

export const strands: Move = {
  name: 'strands',
  purpose: 'Any few strands in another order.',
  stage: 'coarse',
  isFor: ALWAYS,
  on: (ground) => () => {
    const { structure, random } = ground;
    const count = structure.strands.length;
    const many = Math.min(count, 1 + pick(random, MOST));
    const chosen = new Set<number>();
    while (chosen.size < many) chosen.add(pick(random, count));
    return takeStrands(ground, [...chosen]);
  },
};
