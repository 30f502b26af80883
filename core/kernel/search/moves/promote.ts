import { pick } from '../../model/random';
import { NEEDED } from '../mostPatient';
import { ALWAYS, spanOf, type Move } from './move';
import { footprint, overlapping, takeInOrder } from './taking';

export const promote: Move = {
  name: 'promote',
  purpose:
    'A unit that weighs much for what it takes up goes where lighter ones stand, and these come after it.',
  stage: 'coarse',
  isFor: ALWAYS,
  on: (ground) => {
    const { schedule, structure, random } = ground;
    const { strands } = structure;
    const soonest = (s: number): number => schedule.bounds.startLow[strands[s]!.operations[0]!]!;
    const ratioOf = (s: number): number => footprint(ground, s) / Math.max(1e-6, strands[s]!.weight);

    function heavy(): number {
      let chosen = -1;
      let most = 0;
      for (let tries = Math.min(strands.length, 40); tries > 0; tries--) {
        const s = pick(random, strands.length);
        const waits = schedule.start[strands[s]!.operations[0]!]! - soonest(s);
        const score = (waits * strands[s]!.weight * random()) / footprint(ground, s);
        if (score <= most) continue;
        most = score;
        chosen = s;
      }
      return chosen;
    }

    return () => {
      const chosen = heavy();
      if (chosen < 0) return { isWhole: true };
      const [a, b] = spanOf(schedule, strands[chosen]!);
      const ratio = ratioOf(chosen);
      const low = soonest(chosen);
      const from = low + (a - low) * random();
      // Only such as may come where it stands now.
      const others = overlapping(ground, [chosen], { from, to: from + (b - a) }, 12)
        .filter((s) => strands[s]!.due >= a + NEEDED * (b - a))
        .map((s) => ({ s, ratio: ratioOf(s) }))
        .filter((e) => e.ratio > ratio)
        .sort((x, y) => y.ratio - x.ratio)
        .slice(0, 1 + pick(random, 3))
        .sort((x, y) => x.ratio - y.ratio);
      return takeInOrder(ground, [chosen, ...others.map((e) => e.s)]);
    };
  },
};
