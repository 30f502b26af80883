import { sharesResource } from '../../model/model';
import { pick } from '../../model/random';
import { ALWAYS, type Move } from './move';
import { takePiece } from './piece';

/** An operation goes to another moment within so many minutes: of the same session, or of sessions around it. */
const NEAR = 150;
const FAR = 3000;

export const shift: Move = {
  name: 'shift',
  purpose:
    'An operation goes to another moment; what is done there by the same hands or tools comes back after it.',
  stage: 'fine',
  isFor: ALWAYS,
  on: (ground) => () => {
    const { schedule, structure, random, out } = ground;
    const { model } = schedule;
    const seed = pick(random, structure.strands.length);
    const { operations } = structure.strands[seed]!;
    const i = operations[pick(random, operations.length)]!;
    const start = schedule.start[i]!;
    const minutes = schedule.end[i]! - start;
    const reach = random() < 0.5 ? NEAR : FAR;
    const low = Math.max(schedule.startLow(i), start - reach);
    const high = Math.min(schedule.endHigh(i) - minutes, start + reach);
    if (high < low) return takePiece(ground, seed);
    const from = low + pick(random, high - low + 1);
    out.take(i, 0);
    for (let k = 0; k < model.count; k++)
      if (
        k !== i &&
        schedule.start[k]! < from + minutes &&
        schedule.end[k]! > from &&
        model.minutes[k]! > 0 &&
        sharesResource(model, k, i)
      )
        out.take(k, 1 + random());
    return { isWhole: false, delay: from - schedule.startLow(i) };
  },
};
