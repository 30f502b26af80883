import { pick } from '../../model/random';
import { ALWAYS, type Choice, type Ground, type Move } from './move';

export const piece: Move = {
  name: 'piece',
  purpose:
    'Some operations of a strand, and such of up to two others done at about the same time, come back at other moments.',
  stage: 'fine',
  isFor: ALWAYS,
  on: (ground) => () => takePiece(ground, pick(ground.random, ground.structure.strands.length)),
};

export function takePiece({ schedule, structure, random, out }: Ground, seed: number): Choice {
  const { strands } = structure;
  const { operations } = strands[seed]!;
  const at = pick(random, operations.length);
  const first = operations[at]!;
  const moment = schedule.start[first]!;
  const takeFrom = (strand: number, from: number, many: number, key: number): void => {
    strands[strand]!.operations.slice(from, from + many).forEach((i, k) => {
      out.take(i, key + k);
    });
  };
  const many = 1 + pick(random, 6);
  const isFirst = random() < 0.5;
  takeFrom(seed, at, many, isFirst ? 0 : 1e6);
  for (let n = pick(random, 3); n > 0; n--) {
    const other = pick(random, strands.length);
    const then = strands[other]!.operations.findIndex((i) => schedule.start[i]! >= moment);
    if (other !== seed && then >= 0)
      takeFrom(other, Math.max(0, then - pick(random, 3)), 1 + pick(random, 4), 1e5 * n);
  }
  if (!isFirst || random() < 0.5) return { isWhole: true, delay: 0 };
  const room = schedule.end[operations[operations.length - 1]!]! - schedule.startLow(first);
  // Little more often than much.
  return { isWhole: true, delay: Math.floor(Math.max(0, room) * random() ** 3) };
}
