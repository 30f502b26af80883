/**
 * Large-neighbourhood search: takes a few strands out of a complete plan, puts them back in another order or manner,
 * keeps the result when it is better (or, early on, not much worse). Deterministic for a seed.
 */
import { insert, PROMPT, type Manner } from './insert';
import { pick, type Random } from './random';
import type { Schedule } from './schedule';
import type { Strand, Structure } from './structure';

/** At most so many strands are out of the plan at a time. */
const MOST_OUT = 12;

export interface Improver {
  /** Tries one change. @returns whether the plan is now the best so far */
  step(): boolean;
}

/**
 * @param schedule a complete plan, changed in place
 * @param temperature gives the cost by which a change may be worse and still be taken, for the share of the search done
 */
export function improver(
  schedule: Schedule,
  structure: Structure,
  random: Random,
  temperature: () => number,
): Improver {
  const { model } = schedule;
  const { strands } = structure;
  const joints = jointsOf(schedule, structure);
  let cost = schedule.cost();
  let best = cost;
  schedule.commit();

  function step(): boolean {
    if (strands.length === 0) return false;
    const out = choose();
    const removed = new Set<number>();
    for (const s of out) takeOut(s, removed);
    if (!mendOrEject(out, removed)) return giveUp();
    const order = arrange([...out]);
    for (const s of order) {
      const operations = strands[s]!.operations.filter((i) => !schedule.isPlaced(i));
      if (operations.length > 0 && insert(schedule, operations, manner(strands[s]!)) >= 0) return giveUp();
    }
    const milestones = structure.milestones.filter((i) => !schedule.isPlaced(i));
    if (milestones.length > 0 && insert(schedule, milestones) >= 0) return giveUp();
    const now = schedule.cost();
    if (now > cost - temperature() * Math.log(Math.max(1e-12, random()))) return giveUp();
    schedule.commit();
    cost = now;
    if (cost >= best - 1e-9) return false;
    best = cost;
    return true;
  }

  function giveUp(): false {
    schedule.undoTo(0);
    return false;
  }

  /** Which strands to take out together. */
  function choose(): Set<number> {
    const out = new Set<number>();
    const seed = pick(random, strands.length);
    out.add(seed);
    const kind = random();
    const many = 1 + pick(random, Math.min(6, strands.length));
    if (kind < 0.3) {
      // Strands at work in the same span of time.
      const [from, to] = span(strands[seed]!);
      for (let tries = 0; tries < 40 && out.size < many; tries++) {
        const s = pick(random, strands.length);
        const [a, b] = span(strands[s]!);
        if (a < to && from < b) out.add(s);
      }
    } else if (kind < 0.5) {
      // A run of neighbours on a tool.
      const tools = schedule.sequences.filter((q) => q.length > 1);
      const sequence = tools[pick(random, tools.length)];
      if (sequence) {
        out.clear();
        const at = pick(random, sequence.length);
        for (let k = at; k < sequence.length && out.size < many; k++) {
          const s = structure.strandOf[sequence[k]!]!;
          if (s >= 0) out.add(s);
        }
        if (out.size === 0) out.add(seed);
      }
    } else if (kind < 0.65) {
      // A whole unit.
      for (const u of strands[seed]!.units)
        for (let s = 0; s < strands.length && out.size < MOST_OUT; s++)
          if (strands[s]!.units.includes(u)) out.add(s);
    } else {
      while (out.size < many) out.add(pick(random, strands.length));
    }
    return out;
  }

  function span(strand: Strand): [number, number] {
    const list = strand.operations;
    return [schedule.start[list[0]!]!, schedule.end[list[list.length - 1]!]!];
  }

  function takeOut(s: number, removed: Set<number>): void {
    for (const i of [...joints[s]!, ...strands[s]!.operations])
      if (schedule.isPlaced(i)) {
        schedule.remove(i);
        removed.add(i);
      }
  }

  /** Takes out further strands whose setups have lost the place they stood in. */
  function mendOrEject(out: Set<number>, removed: Set<number>): boolean {
    for (;;) {
      let ejected = false;
      for (let r = 0; r < schedule.sequences.length; r++)
        for (const i of schedule.mendSetups(r)) {
          const s = structure.strandOf[i]!;
          if (s < 0 || out.has(s)) continue;
          if (out.size >= MOST_OUT) return false;
          out.add(s);
          takeOut(s, removed);
          ejected = true;
        }
      if (!ejected) return true;
    }
  }

  function arrange(out: number[]): number[] {
    const kind = random();
    const key = new Map<number, number>();
    for (const s of out) {
      const strand = strands[s]!;
      const noise = 0.7 + 0.6 * random();
      key.set(
        s,
        kind < 0.35
          ? random()
          : kind < 0.6
            ? -((strand.weight / (1 + strand.work)) * noise)
            : kind < 0.8
              ? strand.due * noise
              : strand.latestStart * noise,
      );
    }
    return out.sort((a, b) => key.get(a)! - key.get(b)!);
  }

  function manner(strand: Strand): Manner {
    const kind = random();
    if (kind < 0.45) return PROMPT;
    const haste = (model.weights.completion * Math.max(0.2, strand.weight)) / Math.max(1e-9, model.weights.setup);
    return {
      patience: kind < 0.8 ? 20 + pick(random, 240) : 1500,
      haste: haste * (0.2 + 1.8 * random()),
      delay: kind > 0.9 ? pick(random, 1440) : 0,
    };
  }

  return { step };
}

/** For each strand the joining milestones that come after it, the last first. */
function jointsOf(schedule: Schedule, structure: Structure): number[][] {
  const { model } = schedule;
  const isJoint = new Set(structure.milestones);
  return structure.strands.map((strand) => {
    const found = new Set<number>();
    const follow = (i: number): void => {
      for (const lag of model.lagsOut[i]!)
        if (isJoint.has(lag.to) && !found.has(lag.to)) {
          found.add(lag.to);
          follow(lag.to);
        }
    };
    strand.operations.forEach(follow);
    return [...found].sort((a, b) => structure.rank[b]! - structure.rank[a]!);
  });
}
