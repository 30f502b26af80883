import { pick } from '../../model/random';
import { ALWAYS, type Move } from './move';
import { strandsByUnit, takeStrands } from './taking';

export const unit: Move = {
  name: 'unit',
  purpose: 'All strands of a unit: what is done last decides, so its parts go best together.',
  stage: 'coarse',
  isFor: ALWAYS,
  on: (ground) => {
    const strandsOf = strandsByUnit(ground);
    return () => {
      const seed = pick(ground.random, ground.structure.strands.length);
      const of = ground.structure.strands[seed]!.units[0];
      return takeStrands(ground, of === undefined ? [seed] : [...strandsOf[of]!]);
    };
  },
};
