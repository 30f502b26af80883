/**
 * Large-neighbourhood search: takes operations out of a complete plan (strands, a session, a colour run, what follows a moment)
 * and puts them back in another order or manner; keeps the result when it is better or, early on, not much worse.
 * Deterministic for a seed.
 */
import { arrange } from './arrange';
import { insert, PROMPT, type Manner } from './insert';
import { pick, type Random } from './random';
import type { Schedule } from './schedule';
import type { Strand, Structure } from './structure';

/** The ways to choose what is taken out. Named, so that a measurement can leave one out. */
export const MOVES = ['strands', 'together', 'run', 'unit', 'session', 'tail', 'late'] as const;
export type Move = (typeof MOVES)[number];

export interface Improver {
  /** Tries one change. @returns whether the plan is now the best so far */
  step(): boolean;
}

export interface ImproveOptions {
  /** share of the search gone by, 0 to 1: cools the search down */
  readonly progress: () => number;
  readonly without?: readonly Move[];
}

/** At most so many operations are out of the plan at a time. */
const MOST_OUT = 90;
/** A change may be worse by about this share of the cost at the beginning. */
const WARMTH = 0.004;
/** How fast the success of a move changes how often it is tried. */
const LEARNING = 0.02;

export function improver(
  schedule: Schedule,
  structure: Structure,
  random: Random,
  options: ImproveOptions,
): Improver {
  const { model } = schedule;
  const { strands } = structure;
  const key = new Float64Array(model.count);
  const isOut = new Uint8Array(model.count);
  let out: number[] = [];
  let cost = schedule.cost();
  let best = cost;
  schedule.commit();

  const moves = MOVES.filter((m) => !options.without?.includes(m));
  const appeal = moves.map(() => 1);
  const spans = sessionsOf(schedule);

  function step(): boolean {
    if (strands.length === 0) return false;
    const m = chooseMove();
    const gain = attempt(moves[m]!);
    appeal[m] = Math.max(
      0.15,
      appeal[m]! * (1 - LEARNING) + LEARNING * (gain > 1e-9 ? 4 : gain > -1e-9 ? 0.4 : 0),
    );
    if (cost >= best - 1e-9) return false;
    best = cost;
    return true;
  }

  function chooseMove(): number {
    let r = random() * appeal.reduce((a, b) => a + b, 0);
    for (let m = 0; m < moves.length; m++) if ((r -= appeal[m]!) < 0) return m;
    return moves.length - 1;
  }

  /** @returns how much cheaper the plan has become; -Infinity when nothing was changed */
  function attempt(move: Move): number {
    for (const i of out) isOut[i] = 0;
    out = [];
    select(move);
    const progress = Math.min(1, options.progress());
    if (out.length === 0 || !removeAll()) return giveUp();
    const order = arrange(model, out, key);
    if (insert(schedule, order, manner()) >= 0) return giveUp();
    const now = schedule.cost();
    const temperature = WARMTH * cost * (1 - progress) ** 2;
    if (now > cost - temperature * Math.log(Math.max(1e-12, random()))) return giveUp();
    const gain = cost - now;
    schedule.commit();
    cost = now;
    return gain;
  }

  function giveUp(): number {
    schedule.undoTo(0);
    return -Infinity;
  }

  function take(i: number): void {
    if (isOut[i] || model.isFixed[i]) return;
    isOut[i] = 1;
    out.push(i);
  }

  /** Chooses what to take out, and gives each operation the key of the order in which it comes back. */
  function select(move: Move): void {
    const seed = pick(random, strands.length);
    switch (move) {
      case 'strands': {
        const many = Math.min(strands.length, 1 + pick(random, 5));
        const chosen = new Set([seed]);
        while (chosen.size < many) chosen.add(pick(random, strands.length));
        return takeStrands([...chosen]);
      }
      case 'together': {
        const [from, to] = spanOf(strands[seed]!);
        const chosen = new Set([seed]);
        const many = 2 + pick(random, 5);
        for (let tries = 0; tries < 30 && chosen.size < many; tries++) {
          const s = pick(random, strands.length);
          const [a, b] = spanOf(strands[s]!);
          if (a < to && from < b) chosen.add(s);
        }
        return takeStrands([...chosen]);
      }
      case 'run': {
        const tools = schedule.sequences.filter((q) => q.length > 1);
        const sequence = tools[pick(random, tools.length)];
        if (!sequence) return takeStrands([seed]);
        const at = pick(random, sequence.length);
        const many = 2 + pick(random, 5);
        const chosen = new Set<number>();
        for (let k = at; k < sequence.length && chosen.size < many; k++) {
          const s = structure.strandOf[sequence[k]!]!;
          if (s >= 0) chosen.add(s);
        }
        return takeStrands(chosen.size > 0 ? [...chosen] : [seed]);
      }
      case 'unit': {
        const chosen: number[] = [];
        const unit = strands[seed]!.units[0];
        for (let s = 0; s < strands.length; s++)
          if (s === seed || (unit !== undefined && strands[s]!.units.includes(unit))) chosen.push(s);
        return takeStrands(chosen);
      }
      case 'session':
        return takeSession();
      case 'tail':
        return takeTails(seed);
      case 'late':
        return takeLate();
    }
  }

  /** Strands come back whole, one after the other, in a new order. */
  function takeStrands(chosen: number[]): void {
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
            ? -(strand.weight / (1 + strand.work)) * noise
            : kind < 0.8
              ? strand.due * noise
              : strand.latestStart * noise,
      );
    }
    // Or side by side: everything by the time at which it stood, shaken.
    const sideBySide = random() < 0.3 ? 30 + 600 * random() : 0;
    chosen.sort((a, b) => rank.get(a)! - rank.get(b)!);
    chosen.forEach((s, n) => {
      if (out.length > MOST_OUT) return;
      strands[s]!.operations.forEach((i, k) => {
        key[i] = sideBySide > 0 ? schedule.start[i]! + sideBySide * random() : n * 1e6 + k;
        take(i);
      });
    });
  }

  /** All that begins in one or two sessions (or a part of one), by time or with like families side by side. */
  function takeSession(): void {
    const at = pick(random, spans.length);
    const from = spans[at]!.from + (random() < 0.4 ? random() * (spans[at]!.to - spans[at]!.from) : 0);
    const to = (spans[at + (random() < 0.5 ? 1 : 0)] ?? spans[at]!).to;
    const grouped = random() < 0.5;
    const shake = 10 + 120 * random();
    const anchor = new Map<number, number>();
    for (let i = 0; i < model.count && out.length < MOST_OUT; i++) {
      const s = schedule.start[i]!;
      if (s < from || s >= to || model.minutes[i] === 0) continue;
      take(i);
      if (grouped && model.tool[i]! >= 0) {
        const f = model.family[i]!;
        if (!anchor.has(f)) anchor.set(f, from + random() * (to - from));
        key[i] = anchor.get(f)! + random();
      } else key[i] = s + shake * random();
    }
  }

  /** What follows a moment in a few strands. */
  function takeTails(seed: number): void {
    const list = strands[seed]!.operations;
    const moment = schedule.start[list[pick(random, list.length)]!]!;
    const many = 1 + pick(random, 5);
    const shake = 20 + 400 * random();
    const first = random() < 0.5 ? 0 : 1e6;
    for (let n = 0; n < many; n++) {
      const s = n === 0 ? seed : pick(random, strands.length);
      for (const i of strands[s]!.operations)
        if (schedule.start[i]! >= moment && out.length < MOST_OUT) {
          key[i] = n * first + schedule.start[i]! + shake * random();
          take(i);
        }
    }
  }

  /** A late (or costly) unit, and some of what stands in its way. The unit comes back first. */
  function takeLate(): void {
    let chosen = -1;
    let most = 0;
    for (const due of model.dues) {
      const end = schedule.end[due.ready]!;
      const late = Math.max(0, end - due.due);
      const excess = end - schedule.bounds.endLow[due.ready]!;
      const score =
        due.weight * (model.weights.tardiness * late + model.weights.completion * excess + 1e-6) * random();
      if (score > most) {
        most = score;
        chosen = due.unit;
      }
    }
    if (chosen < 0) return;
    let from = Infinity;
    let to = -1;
    let n = 0;
    for (const strand of strands) {
      if (!strand.units.includes(chosen) || out.length > MOST_OUT / 2) continue;
      for (const i of strand.operations) {
        key[i] = n++;
        take(i);
        from = Math.min(from, schedule.start[i]!);
        to = Math.max(to, schedule.end[i]!);
      }
    }
    const width = (to - from) * (0.15 + 0.4 * random());
    const begin = from + random() * (to - from - width);
    for (let i = 0; i < model.count && out.length < MOST_OUT; i++) {
      const s = schedule.start[i]!;
      if (isOut[i] || s < begin || s >= begin + width || model.minutes[i] === 0) continue;
      key[i] = 1e7 + s;
      take(i);
    }
  }

  function spanOf(strand: Strand): [number, number] {
    const list = strand.operations;
    return [schedule.start[list[0]!]!, schedule.end[list[list.length - 1]!]!];
  }

  /** Windows that would be torn, joints that follow, setups that lose their place: all of it comes out too. */
  function removeAll(): boolean {
    let removed = 0;
    for (;;) {
      for (let k = removed; k < out.length; k++) {
        const i = out[k]!;
        for (const lag of model.lagsOut[i]!) {
          if (lag.max !== Infinity && !isOut[lag.to]) alongWith(i, lag.to);
          else if (structure.strandOf[lag.to]! < 0 && !isOut[lag.to] && !model.isFixed[lag.to]) {
            key[lag.to] = 1e12;
            take(lag.to);
          }
        }
        for (const lag of model.lagsIn[i]!)
          if (lag.max !== Infinity && !isOut[lag.from]) alongWith(i, lag.from);
      }
      if (out.length > 2 * MOST_OUT) return false;
      for (; removed < out.length; removed++) schedule.remove(out[removed]!);
      for (let r = 0; r < schedule.sequences.length; r++)
        for (const i of schedule.mendSetups(r)) {
          if (isOut[i]) continue;
          key[i] = schedule.start[i]!;
          take(i);
        }
      if (removed === out.length) return true;
    }
  }

  function alongWith(i: number, other: number): void {
    key[other] = key[i]!;
    take(other);
  }

  function manner(): Manner {
    const kind = random();
    if (kind < 0.4) return PROMPT;
    const weight = strands[pick(random, strands.length)]!.weight;
    const haste = (model.weights.completion * Math.max(0.2, weight)) / Math.max(1e-9, model.weights.setup);
    return {
      patience: kind < 0.8 ? 20 + pick(random, 240) : 1500,
      haste: haste * (0.1 + 1.5 * random()),
      delay: kind > 0.94 ? pick(random, 1440) : 0,
    };
  }

  return { step };
}

/** Spans of time in which work is done: the open intervals that the most operations know; days where all is open. */
function sessionsOf(schedule: Schedule): { from: number; to: number }[] {
  const { model } = schedule;
  const open = model.open.find((o) => o !== null);
  const last = schedule.makespan();
  const spans: { from: number; to: number }[] = [];
  if (open) {
    for (let k = 0; k < open.from.length && open.from[k]! < last; k++)
      spans.push({ from: open.from[k]!, to: open.to[k]! });
  }
  if (spans.length > 1) return spans;
  const width = Math.max(1, Math.ceil(last / 8));
  return Array.from({ length: 8 }, (_, k) => ({ from: k * width, to: (k + 1) * width }));
}
