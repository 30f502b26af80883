/** Takes strands out, in one of the orders in which it can be worth to bring them back. */
import { pick } from '../../model/random';
import { MOST_OUT, spanOf, type Choice, type Ground } from './move';
import type { Minute } from '../../model/units';

/** Strands come back whole, one after the other, in a new order; now and then side by side. */
export function takeStrands({ schedule, structure, random, out }: Ground, chosen: number[]): Choice {
  const { strands } = structure;
  const kind = random();
  const rank = new Map<number, number>();
  for (const s of chosen) {
    const strand = strands[s]!;
    const noise = 0.7 + 0.6 * random();
    rank.set(
      s,
      kind < 0.35
        ? random()
        : kind < 0.6
          ? (footprint({ schedule, structure }, s) / Math.max(1e-6, strand.weight)) * noise
          : kind < 0.8
            ? strand.due * noise
            : strand.latestStart * noise,
    );
  }
  // Or side by side: everything by the time at which it stood, shaken.
  const sideBySide = random() < 0.15 ? 30 + 600 * random() : 0;
  chosen.sort((a, b) => rank.get(a)! - rank.get(b)!);
  chosen.forEach((s, n) => {
    if (out.size > MOST_OUT) return;
    strands[s]!.operations.forEach((i, k) => {
      out.take(i, sideBySide > 0 ? schedule.start[i]! + sideBySide * random() : n * 1e6 + k);
    });
  });
  return { isWhole: sideBySide === 0 };
}

/** Strands come back whole, in the order given. */
export function takeInOrder({ structure, out }: Ground, chosen: readonly number[]): Choice {
  chosen.forEach((s, n) => {
    if (out.size <= MOST_OUT)
      structure.strands[s]!.operations.forEach((i, k) => {
        out.take(i, n * 1e6 + k);
      });
  });
  return { isWhole: true };
}

/** What a strand takes up, in minutes of a whole resource: its work in open time, its holds as they stand. */
export function footprint(
  { schedule, structure }: Pick<Ground, 'schedule' | 'structure'>,
  s: number,
): number {
  const { model } = schedule;
  let sum = 1;
  for (const i of structure.strands[s]!.operations) {
    for (const use of model.uses[i]!)
      sum += (6 * model.minutes[i]! * use.amount) / model.capacity[use.resource]!;
    for (const hold of model.holdsOf[i]!)
      if (hold.from === i)
        sum +=
          (Math.max(0, schedule.start[hold.to]! - schedule.end[i]!) * hold.amount) /
          model.capacity[hold.resource]!;
  }
  return sum;
}

/** So many strands are looked at for some that stand there. */
const LOOKS = 60;

/** Some strands that are under way in [from, to), others than these. */
export function overlapping(
  { schedule, structure, random }: Ground,
  own: readonly number[],
  { from, to }: { readonly from: Minute; readonly to: Minute },
  many: number,
  looks = LOOKS,
): number[] {
  const { strands } = structure;
  const others: number[] = [];
  for (let look = 0; look < looks && others.length < many; look++) {
    const s = pick(random, strands.length);
    const [a, b] = spanOf(schedule, strands[s]!);
    if (a < to && from < b && !own.includes(s) && !others.includes(s)) others.push(s);
  }
  return others;
}

/** The strands of every unit. */
export function strandsByUnit({ schedule, structure }: Ground): readonly (readonly number[])[] {
  const of: number[][] = schedule.model.dues.map(() => []);
  structure.strands.forEach((strand, s) => {
    for (const u of strand.units) of[u]!.push(s);
  });
  return of;
}
