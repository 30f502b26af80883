/**
 * Large-neighbourhood search: takes operations out of a complete plan (`moves`) and puts them back in another order or
 * manner; keeps the result when it is better or, early on, not much worse.
 * Deterministic for a seed.
 */
import { byYield } from './byYield';
import { gapCloser } from '../place/closeGaps';
import { inTime, latenessOf } from '../prove/inTime';
import type { Bounds } from '../prove/propagate';
import { PROMPT, type Manner } from '../place/insert';
import type { Model } from '../model/model';
import { sessionsOf } from './sessions';
import { late, MOVES, type Choice, type Ground, type Move } from './moves';
import { Pulled } from './pulled';
import { putBack, type Loose } from '../place/putBack';
import { pick, type Random } from '../model/random';
import type { Schedule } from '../place/schedule';
import type { Structure } from '../place/structure';

export interface Improver {
  /** Tries one change. @returns whether the plan is now the best so far */
  step(): boolean;
}

export interface ImproveOptions {
  /** share of the search gone by, 0 to 1: cools the search down */
  readonly progress: () => number;
  /** moves to leave out, by name */
  readonly without?: readonly string[];
  /** tries made before: default 0 */
  readonly tried?: number;
  /** only finer changes, and hardly anything worse is taken any more */
  readonly isFinishing?: boolean;
  /** tighter bounds than those within which nobody is late, which the plan keeps and is to go on keeping */
  readonly within?: Bounds | null;
}

/** At the beginning a change may be worse by about so many times what a unit costs on average. */
const WARMTH = 1.2;
/** Where runs count, no more than so many of them would cost: strands are long there, and few. */
const WARM_RUNS = 3;
/** Tries for each unit from which on the search may begin that warm; with fewer it begins cooler. */
const THOROUGH = 400;
/** From this share of the search on, this share of the tries of a thorough one moves pieces of strands and single operations. */
const FINE_FROM = 0.8;
const FINE = 0.9;
/** So many strands may make room, one after the other, before a try is given up … */
const MOST_EJECTED = 4;
/** … but only one when nobody is late and there is less than this share of the tries of a thorough search: these are worth more. */
const HASTY = 0.14;
/**
 * Gaps are closed in a share of the tries: eagerly, wherever an operation would miss a session, or only for strands that find no
 * place otherwise. Either is worth most with so many operations in a session; with fewer there is little to close, with more it
 * costs too much.
 */
const EAGER = 10;
/** Where runs count, so much less often, in a thorough search. */
const CLOSED_AMONG_RUNS = 0.1;
const IN_NEED = 16;
/** Share of tries in which nothing begins sooner than in the plan to keep close to. */
const HOMEWARD = 0.5;
/** Work that goes with any try, in changes of the plan. */
const WORK_OF_TRY = 100;

export function improver(
  schedule: Schedule,
  structure: Structure,
  random: Random,
  options: ImproveOptions,
): Improver {
  const { model } = schedule;
  const { strands } = structure;
  const { isFinishing = false } = options;
  const out = new Pulled(schedule, structure);
  /** cost with guidance: what changes are judged by */
  let cost = schedule.cost() + schedule.guidance();
  let tried = options.tried ?? 0;
  let best = schedule.cost();
  let lateness = schedule.lateness();
  /** what the plan costs without its lateness: the scale on which a change is small */
  let calm = schedule.cost() - lateness;
  schedule.commit();

  const sessions = sessionsOf(schedule);
  const timely = options.within ?? inTime(model, schedule.bounds);
  const unavoidable = latenessOf(model, schedule.bounds.endLow) + 1e-9;
  const isOnTime = (): boolean => lateness <= unavoidable;
  const closeGaps = gapCloser(schedule);
  const closing = closingShares(model, sessions.length);
  const ground: Ground = { schedule, structure, sessions, random, out };
  const all = MOVES.filter((m) => m.isFor(schedule) && !options.without?.includes(m.name));
  const coarse = all.filter((m) => m.stage === 'coarse');
  const choose = new Map(all.map((m) => [m, m.on(ground)]));
  const fine = all.filter((m) => m.stage === 'fine');
  const isLate = coarse.indexOf(late);
  const chances = byYield(coarse.length, random);

  function step(): boolean {
    if (strands.length === 0) return false;
    tried++;
    const progress = Math.min(1, options.progress());
    const thorough = Math.min(1, tried / Math.max(1e-6, progress) / strands.length / THOROUGH);
    const isFine = isOnTime() && progress > FINE_FROM && fine.length > 0 && random() < FINE * thorough;
    if (isFine) tryFinely(progress);
    else tryMove(progress, thorough);
    const real = schedule.cost();
    if (real >= best - 1e-9) return false;
    best = real;
    return true;
  }

  /** Tries a move that has been worth it lately, and learns how much it is worth. */
  function tryMove(progress: number, thorough: number): void {
    if (coarse.length === 0) return;
    // While anyone is late, nothing matters more.
    const m = isLate >= 0 && !isOnTime() && random() < 0.4 ? isLate : chances.choose();
    const begin = schedule.changes;
    out.startOver();
    takeOut(coarse[m]!);
    const gain = attempt(progress, thorough, manner);
    // What brings a unit home in time saves so much that all else would look like nothing: no try counts for more than a unit costs.
    const saved = Math.min(Math.max(0, gain), calm / strands.length);
    chances.learn(m, saved, WORK_OF_TRY + schedule.changes - begin);
  }

  function tryFinely(progress: number): void {
    out.startOver();
    const { delay = 0 } = takeOut(fine[pick(random, fine.length)]!);
    attempt(progress, 1, () => fineManner(delay));
  }

  function takeOut(move: Move): Choice {
    const choice = choose.get(move)!();
    out.isWhole = choice.isWhole;
    return choice;
  }

  /** Puts back in another way what is to come out. @returns how much cheaper the plan has become; -Infinity when nothing was changed */
  function attempt(progress: number, thorough: number, mannerOf: () => Manner): number {
    if (out.size === 0 || !out.removeAll()) return giveUp();
    // In the last part little warmth is left: enough to go round by another set-up, and that much helps however few the tries.
    const warmth = WARMTH * (isFinishing ? 1 : thorough) * (1 - progress) ** 2;
    const limit = cost - warmth * scale() * Math.log(Math.max(1e-12, random()));
    let left = isOnTime() && (isFinishing || thorough < HASTY) ? 1 : MOST_EJECTED;
    const makeRoom = out.isWhole
      ? (group: readonly number[]): Loose | null =>
          left-- > 0 ? out.eject(structure.strandOf[group[0]!]!, random) : null
      : null;
    const luck = isFinishing ? 1 : random() / worthClosing(thorough);
    const isEager = luck < closing.eager;
    const isNeedy = luck < closing.inNeed;
    const how = {
      manner: { ...mannerOf(), closeGaps: isEager ? closeGaps : null },
      limit,
      closeGaps: isNeedy && !isEager ? closeGaps : null,
      makeRoom,
    };
    if (putBack(schedule, structure, out.looseFrom(0), how) >= 0) return giveUp();
    const now = schedule.cost() + schedule.guidance();
    if (now > limit) return giveUp();
    const gain = cost - now;
    schedule.commit();
    cost = now;
    lateness = schedule.lateness();
    calm = schedule.cost() - lateness;
    return gain;
  }

  /** By how much a change may be worse, about, to be worth a thought. */
  function scale(): number {
    const usual = calm / strands.length;
    return schedule.runs === null ? usual : Math.min(usual, WARM_RUNS * model.weights.runs);
  }

  /** Among runs a closed gap brings little, and costs much: only a thorough search has the time for it. */
  function worthClosing(thorough: number): number {
    return schedule.runs === null ? 1 : CLOSED_AMONG_RUNS * thorough ** 3;
  }

  function giveUp(): number {
    schedule.undoTo(0);
    return -Infinity;
  }

  function manner(): Manner {
    const kind = random();
    // While nobody is late, what would make somebody so is given up where that begins to show.
    const within = isOnTime() ? timely : null;
    const isHomeward = schedule.calm !== null && random() < HOMEWARD;
    if (kind < 0.4) return { ...PROMPT, within, isHomeward };
    const weight = strands[pick(random, strands.length)]!.weight;
    const haste = (model.weights.completion * Math.max(0.2, weight)) / Math.max(1e-9, model.weights.setup);
    return {
      patience: kind < 0.8 ? 20 + pick(random, 240) : 1500,
      haste: haste * (0.1 + 1.5 * random()),
      delay: kind > 0.94 ? pick(random, 1440) : 0,
      within,
      isHomeward,
    };
  }

  /** Where set-ups are least, or nearly so. */
  function fineManner(delay: number): Manner {
    return {
      patience: random() < 0.5 ? 240 : 1500,
      haste: 0.01 * random(),
      delay,
      within: timely,
    };
  }

  return { step };
}

/** The shares of tries in which gaps are closed, by how many operations that take time a session of the plan has on average. */
function closingShares(model: Model, sessions: number): { eager: number; inNeed: number } {
  const busy = model.minutes.reduce((n, minutes) => (minutes > 0 ? n + 1 : n), 0);
  const crowd = busy / Math.max(1, sessions);
  const share = (best: number): number => Math.min(crowd / best, (best / crowd) ** 3);
  return { eager: share(EAGER), inNeed: share(IN_NEED) };
}
