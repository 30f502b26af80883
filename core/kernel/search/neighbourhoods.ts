/**
 * What a try of the search takes out of the plan, and in what order it is to come back: strands, a session, a colour run, what follows
 * a moment, units that change places.
 */
import { sharesResource, type Model } from '../model/model';
import { NEEDED } from './mostPatient';
import { intervalAfter } from '../model/openHours';
import { pick, type Random } from '../model/random';
import { UNPLACED, type Schedule } from '../place/schedule';
import type { Strand, Structure } from '../place/structure';

/** The ways to choose what is taken out. Named, so that a measurement can leave one out. */
export const MOVES = [
  'strands',
  'together',
  'run',
  'unit',
  'session',
  'tail',
  'late',
  'promote',
  'ahead',
  'gather',
  'return',
] as const;
export type Move = (typeof MOVES)[number];

/** Where what is chosen goes. */
export interface TakenOut {
  readonly size: number;
  /** @param key smaller comes back first */
  take(operation: number, key: number): void;
}

export interface Neighbourhoods {
  /** Chooses what is taken out. @returns whether it comes back strand by strand, or else all side by side */
  choose(move: Move): boolean;
}

/** At most about so many operations are out of the plan at a time. */
export const MOST_OUT = 90;
/** At most so many strands are asked whether they stand in the way. */
const MOST_LOOKED_AT = 120;

/** @param sessions spans of time in which work is done */
export function neighbourhoods(
  schedule: Schedule,
  structure: Structure,
  sessions: readonly Span[],
  random: Random,
  out: TakenOut,
): Neighbourhoods {
  const { model } = schedule;
  const { strands } = structure;
  const filling = model.ids.map((_, i) => fillingOf(model, i));
  const strandsOf: number[][] = model.dues.map(() => []);
  strands.forEach((strand, s) => strand.units.forEach((u) => strandsOf[u]!.push(s)));
  let isWhole = true;

  function choose(move: Move): boolean {
    isWhole = true;
    select(move);
    return isWhole;
  }

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
        const [from, to] = spanOf(schedule, strands[seed]!);
        const chosen = new Set([seed]);
        const many = 2 + pick(random, 4);
        for (let tries = 0; tries < 30 && chosen.size < many; tries++) {
          const s = pick(random, strands.length);
          const [a, b] = spanOf(schedule, strands[s]!);
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
          const s = structure.strandOf[sequence.at(k)]!;
          if (s >= 0) chosen.add(s);
        }
        return takeStrands(chosen.size > 0 ? [...chosen] : [seed]);
      }
      case 'unit': {
        const unit = strands[seed]!.units[0];
        return takeStrands(unit === undefined ? [seed] : [...strandsOf[unit]!]);
      }
      case 'session':
        return takeSession();
      case 'tail':
        return takeTails(seed);
      case 'late':
        return takeLate();
      case 'promote':
        return takeHeavy();
      case 'ahead':
        return takeAhead(seed);
      case 'return':
        return takeBack(seed);
      case 'gather':
        return takeApart(seed);
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
            ? (footprint(s) / Math.max(1e-6, strand.weight)) * noise
            : kind < 0.8
              ? strand.due * noise
              : strand.latestStart * noise,
      );
    }
    // Or side by side: everything by the time at which it stood, shaken.
    const sideBySide = random() < 0.15 ? 30 + 600 * random() : 0;
    isWhole = sideBySide === 0;
    chosen.sort((a, b) => rank.get(a)! - rank.get(b)!);
    chosen.forEach((s, n) => {
      if (out.size > MOST_OUT) return;
      strands[s]!.operations.forEach((i, k) => {
        out.take(i, sideBySide > 0 ? schedule.start[i]! + sideBySide * random() : n * 1e6 + k);
      });
    });
  }

  /**
   * All that begins in one or two sessions (or a part of one): by time, with like families side by side, or first what frees
   * a rack and last what fills one.
   */
  function takeSession(): void {
    isWhole = false;
    const at = pick(random, sessions.length);
    const from =
      sessions[at]!.from + (random() < 0.4 ? random() * (sessions[at]!.to - sessions[at]!.from) : 0);
    const to = (sessions[at + (random() < 0.5 ? 1 : 0)] ?? sessions[at]!).to;
    const tidy = random() < 0.33;
    const grouped = !tidy && random() < 0.5;
    const shake = 10 + 120 * random();
    const anchor = new Map<number, number>();
    for (let i = 0; i < model.count && out.size < MOST_OUT; i++) {
      const s = schedule.start[i]!;
      if (s < from || s >= to || model.minutes[i] === 0) continue;
      if (grouped && model.tool[i]! >= 0) {
        const f = model.family[i]!;
        if (!anchor.has(f)) anchor.set(f, from + random() * (to - from));
        out.take(i, anchor.get(f)! + random());
      } else out.take(i, tidy ? s + 1000 * filling[i]! + 30 * random() : s + shake * random());
    }
  }

  /** An operation, and those done just before it in its session: it comes back ahead of them. */
  function takeAhead(seed: number): void {
    isWhole = false;
    const { operations } = strands[seed]!;
    // Most often the last: with it the unit is done.
    const i = operations[random() < 0.5 ? operations.length - 1 : pick(random, operations.length)]!;
    const before = doneBefore(i, 1 + pick(random, 3));
    [i, ...before].forEach((k, n) => {
      out.take(k, n);
    });
  }

  /** What has left the session it had in the plan to keep close to, and what stands there now. */
  function takeBack(seed: number): void {
    isWhole = false;
    const chosen = strayFrom(seed);
    if (chosen < 0) return;
    const home = schedule.calm!.start;
    const { operations } = strands[chosen]!;
    const first = operations.findIndex((i) => schedule.hasLeft(i));
    operations.slice(first).forEach((i, k) => {
      out.take(i, k);
    });
    for (const i of operations.slice(first)) {
      const from = home[i]!;
      const to = from + model.minutes[i]!;
      if (from < 0 || !schedule.hasLeft(i)) continue;
      for (let k = 0; k < model.count && out.size < MOST_OUT; k++)
        if (
          schedule.start[k]! < to &&
          schedule.end[k]! > from &&
          schedule.end[k]! > schedule.start[k]! &&
          sharesResource(model, k, i)
        )
          out.take(k, 1000 + schedule.start[k]!);
    }
  }

  /** From a strand on the first one with an operation that has left its session; -1: there is none. */
  function strayFrom(seed: number): number {
    if (schedule.calm === null) return -1;
    for (let n = 0; n < strands.length; n++) {
      const s = (seed + n) % strands.length;
      if (strands[s]!.operations.some((i) => schedule.hasLeft(i))) return s;
    }
    return -1;
  }

  /** A run goes where the same is done before or after it, and all that stands in between makes way, in its order. */
  function takeApart(seed: number): void {
    isWhole = false;
    const runs = schedule.runs;
    const { operations } = strands[seed]!;
    const i = operations[pick(random, operations.length)]!;
    const resource = runs === null ? undefined : model.runsOn[i]![0];
    if (resource === undefined) return takeStrands([seed]);
    const sequence = runs!.on(resource)!;
    const isSame = (k: number): boolean => {
      const j = sequence.at(k);
      return j >= 0 && model.family[j] === model.family[i];
    };
    const at = sequence.position(schedule.start[i]!, UNPLACED);
    const session = runs!.sessionOf(resource, i);
    const isOfRun = (k: number): boolean =>
      isSame(k) && runs!.sessionOf(resource, sequence.at(k)) === session;
    let first = at;
    while (isOfRun(first - 1)) first--;
    let last = at;
    while (isOfRun(last + 1)) last++;
    // Only a part of a long run may go.
    if (random() < 0.3) {
      if (random() < 0.5) first = at;
      else last = at;
    }
    const step = random() < 0.5 ? -1 : 1;
    let to = step < 0 ? first - 1 : last + 1;
    let skip = pick(random, 3) === 0 ? 1 : 0;
    for (; sequence.at(to) >= 0; to += step) {
      if (Math.abs(to - at) > MOST_OUT - 10) return takeStrands([seed]);
      if (isSame(to) && skip-- <= 0) break;
    }
    if (sequence.at(to) < 0) return takeStrands([seed]);
    // Either run may go to the other.
    const isComing = random() < 0.5;
    const from = Math.min(first, to);
    const end = Math.max(last, to);
    let low = from;
    let high = end;
    if (isComing) {
      // The other run is moved: all of it.
      const other = runs!.sessionOf(resource, sequence.at(to));
      const isOther = (k: number): boolean =>
        isSame(k) && runs!.sessionOf(resource, sequence.at(k)) === other;
      if (step < 0) while (isOther(low - 1)) low--;
      else while (isOther(high + 1)) high++;
    }
    for (let k = low; k <= high; k++) {
      const j = sequence.at(k);
      const isMoving = isComing ? (step < 0 ? k <= to : k >= to) : k >= first && k <= last;
      const isEarly = isComing ? step > 0 : step < 0;
      // At the far end of all that comes out, or else where it stood.
      out.take(j, k + (isMoving ? (isEarly ? -1000 : 1000) : 0));
    }
  }

  /** Up to `many` operations done last before `i` in its session by the same hands or tools, in their order. */
  function doneBefore(i: number, many: number): number[] {
    const { start, end } = schedule;
    const open = model.open[i]!;
    const session = open === null ? 0 : (open.from[intervalAfter(open, start[i]!)] ?? 0);
    const found: number[] = [];
    for (let k = 0; k < model.count; k++)
      if (start[k]! >= session && end[k]! <= start[i]! && end[k]! > start[k]! && sharesResource(model, k, i))
        found.push(k);
    return found.sort((a, b) => start[a]! - start[b]!).slice(-many);
  }

  /** What follows a moment in a few strands. */
  function takeTails(seed: number): void {
    const list = strands[seed]!.operations;
    const moment = schedule.start[list[pick(random, list.length)]!]!;
    const many = 1 + pick(random, 5);
    const shake = 20 + 400 * random();
    const first = random() < 0.5 ? 0 : 1e6;
    isWhole = first > 0;
    for (let n = 0; n < many; n++) {
      const s = n === 0 ? seed : pick(random, strands.length);
      for (const i of strands[s]!.operations)
        if (schedule.start[i]! >= moment && out.size < MOST_OUT) {
          out.take(i, n * first + schedule.start[i]! + shake * random());
        }
    }
  }

  /** A late (or costly) unit, and strands with time in hand that stand in its way. The unit comes back first. */
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
    // Of a unit of many strands those that end last: they make it late.
    const own = [...strandsOf[chosen]!]
      .map((s) => ({ s, end: spanOf(schedule, strands[s]!)[1] }))
      .sort((a, b) => b.end - a.end)
      .slice(0, 1 + pick(random, 5))
      .map((e) => e.s);
    let from = Infinity;
    let to = -1;
    for (const s of own) {
      const [a, b] = spanOf(schedule, strands[s]!);
      from = Math.min(from, a);
      to = Math.max(to, b);
    }
    from -= (to - from) * random();
    const many = 1 + pick(random, 3);
    const others = random() < 0.7 ? blockersOf(own, many) : overlapping(own, from, to, many);
    const weighted = random() < 0.5;
    const rank = (s: number): number =>
      weighted ? footprint(s) / Math.max(1e-6, strands[s]!.weight) : strands[s]!.due;
    others.sort((a, b) => rank(a) - rank(b));
    [...own, ...others].forEach((s, n) => {
      if (out.size <= MOST_OUT)
        strands[s]!.operations.forEach((i, k) => {
          out.take(i, n * 1e6 + k);
        });
    });
  }

  /** A unit that weighs much for what it takes up goes where lighter ones stand, and these come after it. */
  function takeHeavy(): void {
    let chosen = -1;
    let most = 0;
    for (let tries = Math.min(strands.length, 40); tries > 0; tries--) {
      const s = pick(random, strands.length);
      const strand = strands[s]!;
      const first = strand.operations[0]!;
      const score =
        ((schedule.start[first]! - schedule.bounds.startLow[first]!) * strand.weight * random()) /
        footprint(s);
      if (score > most) {
        most = score;
        chosen = s;
      }
    }
    if (chosen < 0) return;
    const [a, b] = spanOf(schedule, strands[chosen]!);
    const ratio = footprint(chosen) / Math.max(1e-6, strands[chosen]!.weight);
    const low = schedule.bounds.startLow[strands[chosen]!.operations[0]!]!;
    const from = low + (a - low) * random();
    // Only such as may come where it stands now.
    const others = overlapping([chosen], from, from + (b - a), 12)
      .filter((s) => strands[s]!.due >= a + NEEDED * (b - a))
      .map((s) => ({ s, ratio: footprint(s) / Math.max(1e-6, strands[s]!.weight) }))
      .filter((e) => e.ratio > ratio)
      .sort((x, y) => y.ratio - x.ratio)
      .slice(0, 1 + pick(random, 3))
      .sort((x, y) => x.ratio - y.ratio);
    [chosen, ...others.map((e) => e.s)].forEach((s, n) =>
      strands[s]!.operations.forEach((i, k) => {
        out.take(i, n * 1e6 + k);
      }),
    );
  }

  /** What a strand takes up, in minutes of a whole resource: its work in open time, its holds as they stand. */
  function footprint(s: number): number {
    let sum = 1;
    for (const i of strands[s]!.operations) {
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

  function overlapping(own: readonly number[], from: number, to: number, many: number): number[] {
    const others: number[] = [];
    for (let tries = 0; tries < 60 && others.length < many; tries++) {
      const s = pick(random, strands.length);
      const [a, b] = spanOf(schedule, strands[s]!);
      if (a < to && from < b && !own.includes(s) && !others.includes(s)) others.push(s);
    }
    return others;
  }

  /** Strands that stand where these could have begun sooner: by their minutes in the way, with some luck. */
  function blockersOf(own: readonly number[], many: number): number[] {
    const waits: { from: number; to: number; i: number }[] = [];
    for (const s of own)
      for (const i of strands[s]!.operations) {
        const from = schedule.startLow(i);
        const to = schedule.start[i]!;
        if (to - from > 1) waits.push({ from, to, i });
      }
    if (waits.length === 0) return [];
    const first = Math.min(...waits.map((w) => w.from));
    const last = Math.max(...waits.map((w) => w.to));
    const score = new Map<number, number>();
    // Of very many strands a sample: luck decides among them anyway.
    const looks = Math.min(strands.length, MOST_LOOKED_AT);
    const stride = Math.floor(strands.length / looks);
    const offset = stride > 1 ? pick(random, strands.length) : 0;
    for (let n = 0; n < looks; n++) {
      const s = (offset + n * stride) % strands.length;
      const { operations } = strands[s]!;
      if (schedule.end[operations[operations.length - 1]!]! <= first || own.includes(s)) continue;
      for (const k of operations) {
        const a = schedule.start[k]! - schedule.setup[k]!;
        const b = schedule.end[k]!;
        if (b <= first || a >= last || model.minutes[k] === 0) continue;
        for (const w of waits) {
          const minutes = Math.min(b, w.to) - Math.max(a, w.from);
          if (minutes > 0 && sharesResource(model, k, w.i)) score.set(s, (score.get(s) ?? 0) + minutes);
        }
      }
    }
    return [...score.entries()]
      .map(([s, minutes]) => ({ s, luck: minutes * random() }))
      .sort((a, b) => b.luck - a.luck)
      .slice(0, many)
      .map((e) => e.s);
  }

  return { choose };
}

/** When a strand begins and ends. */
export function spanOf(schedule: Schedule, strand: Strand): [number, number] {
  const list = strand.operations;
  return [schedule.start[list[0]!]!, schedule.end[list[list.length - 1]!]!];
}

/** 1: with this operation racks become fuller, -1: emptier. */
function fillingOf(model: Model, i: number): number {
  let change = 0;
  for (const hold of model.holdsOf[i]!)
    change += (hold.from === i ? hold.amount : -hold.amount) / model.capacity[hold.resource]!;
  return Math.abs(change) < 1e-9 ? 0 : Math.sign(change);
}

export interface Span {
  readonly from: number;
  readonly to: number;
}

/** Spans of time in which work is done: the open intervals that the most operations know; days where all is open. */
export function sessionsOf(schedule: Schedule): Span[] {
  const { model } = schedule;
  const open = model.open.find((o) => o !== null);
  const last = schedule.makespan();
  const spans: Span[] = [];
  if (open) {
    for (let k = 0; k < open.from.length && open.from[k]! < last; k++)
      spans.push({ from: open.from[k]!, to: open.to[k]! });
  }
  if (spans.length > 1) return spans;
  const width = Math.max(1, Math.ceil(last / 8));
  return Array.from({ length: 8 }, (_, k) => ({ from: k * width, to: (k + 1) * width }));
}
