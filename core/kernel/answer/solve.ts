/**
 * The door to the solver: propagate (or prove that there is no plan), build a first plan, improve it step by step.
 * Nothing here knows the time of day or waits: the caller steps it, asks for the best so far, and stops when it likes.
 */
import type { Problem, Solution } from '../document/document';
import { LONG_MINUTES, looks, upTo, withinReach } from '../document/horizon';
import { buildModel } from '../model/model';
import { overfull, propagate } from '../prove/propagate';
import { plainHolds, type PlainHolds } from '../document/plainHolds';
import { Running } from './running';
import { infeasible, UNKNOWN, type Search, type SearchOptions } from './search';

/** @throws KernelMistake from `best()` if a plan does not pass the validator */
export function startSearch(problem: Problem, options: SearchOptions = {}): Search {
  const near = withinReach(problem);
  const plain = plainHolds(near);
  if (plain === null) return searchFar(near, options);
  const { previous } = options;
  const search = searchFar(plain.problem, {
    ...options,
    ...(previous ? { previous: plain.lift(previous) } : {}),
  });
  return lowered(search, plain);
}

/**
 * A search of a long horizon: it looks so far ahead that there is a plan, and no farther. Such a plan is one of the whole problem; that
 * it is the best, or that there is none, is said only of the whole horizon.
 */
function searchFar(problem: Problem, options: SearchOptions): Search {
  if (problem.horizon <= LONG_MINUTES) return searchPlain(problem, options);
  const horizons = looks(problem);
  let tried = 0;
  let search = next();
  function next(): Search {
    const horizon = horizons.shift()!;
    return searchPlain(upTo(problem, horizon), options, horizon < problem.horizon);
  }
  return {
    step(tries) {
      search.step(tries);
      if (horizons.length === 0 || search.best().cost !== null || !search.isStuck) return;
      tried += search.tried;
      search = next();
    },
    best() {
      const best = search.best();
      return horizons.length > 0 && best.cost === null ? UNKNOWN : best;
    },
    get isDone() {
      return search.isDone && (horizons.length === 0 || search.best().cost !== null);
    },
    get isStuck() {
      return horizons.length === 0 && search.isStuck;
    },
    get tried() {
      return tried + search.tried;
    },
  };
}

/** A search of the problem with plain holds, told in terms of the problem that was asked. */
function lowered(search: Search, plain: PlainHolds): Search {
  let inner: Solution | null = null;
  let outer: Solution = UNKNOWN;
  return {
    step: (tries) => search.step(tries),
    best() {
      const best = search.best();
      // The same solution is the same object, so that a caller sees when it changes.
      if (best !== inner) outer = plain.lower(best);
      inner = best;
      return outer;
    },
    get isDone() {
      return search.isDone;
    },
    get isStuck() {
      return search.isStuck;
    },
    get tried() {
      return search.tried;
    },
  };
}

/** @param isCut the horizon is not the whole one: nothing is proved by it */
function searchPlain(problem: Problem, options: SearchOptions, isCut = false): Search {
  const model = buildModel(problem);
  const propagation = propagate(model);
  const conflict = propagation.ok ? overfull(model, propagation.bounds) : propagation.conflict;
  if (!propagation.ok || conflict) return settled(infeasible(conflict!));
  return new Running(model, propagation.bounds, propagation.order, options, isCut);
}

function settled(solution: Solution): Search {
  return { step: () => undefined, best: () => solution, isDone: true, isStuck: true, tried: 0 };
}
