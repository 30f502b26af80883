/**
 * Large-neighbourhood search: takes operations out of a complete plan (strands, a session, a colour run, what follows a moment)
 * and puts them back in another order or manner; keeps the result when it is better or, early on, not much worse.
 * Deterministic for a seed.
 */
import { arrange } from './arrange';
import { byYield } from './byYield';
import { gapCloser } from './closeGaps';
import { inTime } from './inTime';
import { PROMPT, type Manner } from './insert';
import type { Model } from './model';
import { mostPatient } from './mostPatient';
import { intervalAfter } from './openHours';
import { putBack, type Loose } from './putBack';
import { pick, type Random } from './random';
import type { Schedule } from './schedule';
import type { Strand, Structure } from './structure';

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
] as const;
export type Move = (typeof MOVES)[number];

export interface Improver {
  /** Tries one change. @returns whether the plan is now the best so far */
  step(): boolean;
}

export interface ImproveOptions {
  /** share of the search gone by, 0 to 1: cools the search down */
  readonly progress: () => number;
  readonly without?: readonly Move[];
  /** only finer changes, and nothing worse is taken any more */
  readonly isFinishing?: boolean;
}

/** At most so many operations are out of the plan at a time. */
const MOST_OUT = 90;
/** At most so many strands are asked whether they stand in the way. */
const MOST_LOOKED_AT = 120;
/** At the beginning a change may be worse by about so many times what a unit costs on average. */
const WARMTH = 1.2;
/** Tries for each unit from which on the search may begin that warm; with fewer it begins cooler. */
const THOROUGH = 400;
/** So many strands may make room, one after the other, before a try is given up … */
const MOST_EJECTED = 4;
/** … but only one when nobody is late and there is less than this share of the tries of a thorough search: these are worth more. */
const HASTY = 0.2;
/**
 * Gaps are closed in a share of the tries: eagerly, wherever an operation would miss a session, or only for strands that find no
 * place otherwise. Either is worth most with so many operations in a session; with fewer there is little to close, with more it
 * costs too much.
 */
const EAGER = 10;
const IN_NEED = 16;
/** Work that goes with any try, in changes of the plan. */
const WORK_OF_TRY = 100;
/** Of its own length a strand needs this share, behind the beginning of another, before it is due, to change places with it. */
const NEEDED = 0.7;

export function improver(
  schedule: Schedule,
  structure: Structure,
  random: Random,
  options: ImproveOptions,
): Improver {
  const { model } = schedule;
  const { strands } = structure;
  const { isFinishing = false } = options;
  const key = new Float64Array(model.count);
  const isOut = new Uint8Array(model.count);
  let out: number[] = [];
  /** where strands stood that have been taken out, and which they are */
  const was = { from: new Float64Array(strands.length), to: new Float64Array(strands.length) };
  const isMoved = new Uint8Array(strands.length);
  /** strand by strand, or all side by side? */
  let isWhole = true;
  /** cost with guidance: what changes are judged by */
  let cost = schedule.cost() + schedule.guidance();
  let tried = 0;
  let best = schedule.cost();
  let lateness = schedule.lateness();
  /** what the plan costs without its lateness: the scale on which a change is small */
  let calm = schedule.cost() - lateness;
  schedule.commit();

  const moves = MOVES.filter((m) => !options.without?.includes(m));
  const late = moves.indexOf('late');
  const chances = byYield(moves.length, random);
  const spans = sessionsOf(schedule);
  const timely = inTime(model);
  const closeGaps = gapCloser(schedule);
  const closing = closingShares(model, spans.length);
  const filling = model.ids.map((_, i) => fillingOf(model, i));
  const strandsOf: number[][] = model.dues.map(() => []);
  strands.forEach((strand, s) => strand.units.forEach((u) => strandsOf[u]!.push(s)));

  function step(): boolean {
    if (strands.length === 0) return false;
    tried++;
    // While anyone is late, nothing matters more.
    const m = late >= 0 && lateness > 0 && random() < 0.4 ? late : chances.choose();
    const begin = schedule.changes;
    const gain = attempt(moves[m]!);
    // What brings a unit home in time saves so much that all else would look like nothing: no try counts for more than a unit costs.
    const saved = Math.min(Math.max(0, gain), calm / strands.length);
    chances.learn(m, saved, WORK_OF_TRY + schedule.changes - begin);
    const real = schedule.cost();
    if (real >= best - 1e-9) return false;
    best = real;
    return true;
  }

  /** @returns how much cheaper the plan has become; -Infinity when nothing was changed */
  function attempt(move: Move): number {
    for (const i of out) isOut[i] = 0;
    isMoved.fill(0);
    out = [];
    isWhole = true;
    select(move);
    const progress = Math.min(1, options.progress());
    if (out.length === 0 || !removeAll()) return giveUp();
    const units = Math.max(1, strands.length);
    const thorough = Math.min(1, tried / Math.max(1e-6, progress) / units / THOROUGH);
    const temperature = isFinishing ? 0 : ((WARMTH * thorough * calm) / units) * (1 - progress) ** 2;
    const limit = cost - temperature * Math.log(Math.max(1e-12, random()));
    let left = lateness === 0 && (isFinishing || thorough < HASTY) ? 1 : MOST_EJECTED;
    const makeRoom = isWhole
      ? (group: readonly number[]): Loose | null =>
          left-- > 0 ? eject(structure.strandOf[group[0]!]!) : null
      : null;
    const luck = isFinishing ? 1 : random();
    const isEager = luck < closing.eager;
    const isNeedy = luck < closing.inNeed;
    const how = {
      manner: { ...manner(), closeGaps: isEager ? closeGaps : null },
      limit,
      closeGaps: isNeedy && !isEager ? closeGaps : null,
      makeRoom,
    };
    if (putBack(schedule, structure, looseFrom(0), how) >= 0) return giveUp();
    const now = schedule.cost() + schedule.guidance();
    if (now > limit) return giveUp();
    const gain = cost - now;
    schedule.commit();
    cost = now;
    lateness = schedule.lateness();
    calm = schedule.cost() - lateness;
    return gain;
  }

  /** What has been taken out since there were `begin` operations out, ready to be put back. */
  function looseFrom(begin: number): Loose {
    const list = out.slice(begin);
    const order = arrange(
      model,
      list.filter((i) => structure.strandOf[i]! >= 0),
      key,
    );
    const joints = list
      .filter((i) => structure.strandOf[i]! < 0)
      .sort((a, b) => structure.rank[a]! - structure.rank[b]!);
    return { groups: isWhole ? byStrand(order) : [order], joints };
  }

  /** A strand found no place: one that can wait longer makes room for it and comes back after all others. */
  function eject(s: number): Loose | null {
    if (s < 0) return null;
    const room = { from: was.from[s]!, length: was.to[s]! - was.from[s]!, due: strands[s]!.due };
    const other = mostPatient(schedule, strands, room, isMoved, random);
    if (other < 0) return null;
    // What is back in its place may have to come out again.
    for (const i of out) if (schedule.isPlaced(i)) isOut[i] = 0;
    const begin = out.length;
    strands[other]!.operations.forEach((i, k) => {
      key[i] = k;
      take(i);
    });
    return removeAll(begin) ? looseFrom(begin) : null;
  }

  /** Splits an order where one strand ends and the next begins. */
  function byStrand(order: readonly number[]): number[][] {
    const groups: number[][] = [];
    let last = -1;
    for (const i of order) {
      const s = structure.strandOf[i]!;
      if (s !== last) groups.push([]);
      groups[groups.length - 1]!.push(i);
      last = s;
    }
    return groups;
  }

  function giveUp(): number {
    schedule.undoTo(0);
    return -Infinity;
  }

  function take(i: number): void {
    if (isOut[i] || model.isFixed[i]) return;
    isOut[i] = 1;
    out.push(i);
    remember(structure.strandOf[i]!);
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
        const many = 2 + pick(random, 4);
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
      if (out.length > MOST_OUT) return;
      strands[s]!.operations.forEach((i, k) => {
        key[i] = sideBySide > 0 ? schedule.start[i]! + sideBySide * random() : n * 1e6 + k;
        take(i);
      });
    });
  }

  /**
   * All that begins in one or two sessions (or a part of one): by time, with like families side by side, or first what frees
   * a rack and last what fills one.
   */
  function takeSession(): void {
    isWhole = false;
    const at = pick(random, spans.length);
    const from = spans[at]!.from + (random() < 0.4 ? random() * (spans[at]!.to - spans[at]!.from) : 0);
    const to = (spans[at + (random() < 0.5 ? 1 : 0)] ?? spans[at]!).to;
    const tidy = random() < 0.33;
    const grouped = !tidy && random() < 0.5;
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
      } else key[i] = tidy ? s + 1000 * filling[i]! + 30 * random() : s + shake * random();
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
      key[k] = n;
      take(k);
    });
  }

  /** Up to `many` operations done last before `i` in its session by the same hands or tools, in their order. */
  function doneBefore(i: number, many: number): number[] {
    const { start, end } = schedule;
    const open = model.open[i]!;
    const session = open === null ? 0 : (open.from[intervalAfter(open, start[i]!)] ?? 0);
    const found: number[] = [];
    for (let k = 0; k < model.count; k++)
      if (start[k]! >= session && end[k]! <= start[i]! && end[k]! > start[k]! && sharesResource(k, i))
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
        if (schedule.start[i]! >= moment && out.length < MOST_OUT) {
          key[i] = n * first + schedule.start[i]! + shake * random();
          take(i);
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
      .map((s) => ({ s, end: spanOf(strands[s]!)[1] }))
      .sort((a, b) => b.end - a.end)
      .slice(0, 1 + pick(random, 5))
      .map((e) => e.s);
    let from = Infinity;
    let to = -1;
    for (const s of own) {
      const [a, b] = spanOf(strands[s]!);
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
      if (out.length <= MOST_OUT)
        strands[s]!.operations.forEach((i, k) => {
          key[i] = n * 1e6 + k;
          take(i);
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
    const [a, b] = spanOf(strands[chosen]!);
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
        key[i] = n * 1e6 + k;
        take(i);
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
      const [a, b] = spanOf(strands[s]!);
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
          if (minutes > 0 && sharesResource(k, w.i)) score.set(s, (score.get(s) ?? 0) + minutes);
        }
      }
    }
    return [...score.entries()]
      .map(([s, minutes]) => ({ s, luck: minutes * random() }))
      .sort((a, b) => b.luck - a.luck)
      .slice(0, many)
      .map((e) => e.s);
  }

  function sharesResource(a: number, b: number): boolean {
    for (const u of model.binding[a]!)
      for (const v of model.binding[b]!) if (u.resource === v.resource) return true;
    return false;
  }

  function spanOf(strand: Strand): [number, number] {
    const list = strand.operations;
    return [schedule.start[list[0]!]!, schedule.end[list[list.length - 1]!]!];
  }

  /** Windows that would be torn, joints that follow, setups that lose their place: all of it comes out too. */
  function removeAll(removed = 0): boolean {
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
      const begin = removed;
      const starts: number[] = [];
      for (; removed < out.length; removed++) {
        starts.push(schedule.start[out[removed]!]!);
        schedule.remove(out[removed]!);
      }
      for (let k = begin; k < removed; k++) {
        const i = out[k]!;
        if (schedule.mendAfter(i, starts[k - begin]!)) continue;
        const after = schedule.followerOn(i, starts[k - begin]!);
        if (isOut[after]) continue;
        key[after] = schedule.start[after]!;
        take(after);
      }
      if (removed === out.length) return true;
    }
  }

  /** Notes where a strand stands before the first of it goes: `eject` asks for it later. */
  function remember(s: number): void {
    if (s < 0 || isMoved[s]) return;
    isMoved[s] = 1;
    const [from, to] = spanOf(strands[s]!);
    was.from[s] = from;
    was.to[s] = to;
  }

  function alongWith(i: number, other: number): void {
    key[other] = key[i]!;
    take(other);
  }

  function manner(): Manner {
    const kind = random();
    // While nobody is late, what would make somebody so is given up where that begins to show.
    const within = lateness === 0 ? timely : null;
    if (kind < 0.4) return { ...PROMPT, within };
    const weight = strands[pick(random, strands.length)]!.weight;
    const haste = (model.weights.completion * Math.max(0.2, weight)) / Math.max(1e-9, model.weights.setup);
    return {
      patience: kind < 0.8 ? 20 + pick(random, 240) : 1500,
      haste: haste * (0.1 + 1.5 * random()),
      delay: kind > 0.94 ? pick(random, 1440) : 0,
      within,
    };
  }

  return { step };
}

/** 1: with this operation racks become fuller, -1: emptier. */
function fillingOf(model: Model, i: number): number {
  let change = 0;
  for (const hold of model.holdsOf[i]!)
    change += (hold.from === i ? hold.amount : -hold.amount) / model.capacity[hold.resource]!;
  return Math.abs(change) < 1e-9 ? 0 : Math.sign(change);
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

/** The shares of tries in which gaps are closed, by how many operations that take time a session of the plan has on average. */
function closingShares(model: Model, sessions: number): { eager: number; inNeed: number } {
  const busy = model.minutes.reduce((n, minutes) => (minutes > 0 ? n + 1 : n), 0);
  const crowd = busy / Math.max(1, sessions);
  const share = (best: number): number => Math.min(crowd / best, (best / crowd) ** 3);
  return { eager: share(EAGER), inNeed: share(IN_NEED) };
}
