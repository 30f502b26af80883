import { pick } from '../../model/random';
import { ALWAYS, type Move } from './move';
import { takePiece } from './piece';

export const row: Move = {
  name: 'row',
  purpose: 'Some operations that follow one another on a tool come back in any order.',
  stage: 'fine',
  isFor: ALWAYS,
  on: (ground) => () => {
    const { schedule, structure, random, out } = ground;
    const tools = schedule.sequences.filter((q) => q.length > 1);
    const sequence = tools[pick(random, tools.length)];
    if (!sequence) return takePiece(ground, pick(random, structure.strands.length));
    const at = pick(random, sequence.length);
    const end = Math.min(sequence.length, at + 2 + pick(random, 5));
    for (let k = at; k < end; k++) out.take(sequence.at(k), random());
    return { isWhole: false, delay: 0 };
  },
};
