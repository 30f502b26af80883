/** What no plan goes below, sum by sum, before the factors of the objective: each proved by itself. */
import { withinReach } from '../document/horizon';
import type { Problem } from '../document/document';
import { buildModel, change, type Model } from '../model/model';
import { intervalAfter } from '../model/openHours';
import { overload } from './overload';
import { propagate, type Bounds } from './propagate';
import type { ResourceIndex } from '../model/units';

export interface Sums {
  /** weighted minutes */
  readonly tardiness: number;
  /** minutes of set-up */
  readonly setup: number;
  readonly runs: number;
  /** weighted minutes */
  readonly completion: number;
}

/** @returns null when there is no plan at all */
export function leastSums(problem: Problem): Sums | null {
  const model = buildModel(withinReach(problem));
  const propagation = propagate(model);
  if (!propagation.ok) return null;
  const { bounds } = propagation;
  let tardiness = 0;
  let completion = 0;
  for (const { ready, due, weight } of model.dues) {
    tardiness += weight * Math.max(0, bounds.endLow[ready]! - due);
    completion += weight * bounds.endLow[ready]!;
  }
  tardiness = Math.max(tardiness, overload(model, bounds));
  return { tardiness, setup: leastSetups(model), runs: leastRuns(model, bounds), completion };
}

/** Every family that is still to be put on a tool is set up for once at least, the cheapest way. */
export function leastSetups(model: Model): number {
  let minutes = 0;
  model.tools.forEach((tool, resource) => {
    if (tool === null) return;
    const wanted = new Set<number>();
    const past = new Set<number>();
    for (let i = 0; i < model.count; i++)
      if (model.tool[i] === resource) (model.isFixed[i] ? past : wanted).add(model.family[i]!);
    for (const family of wanted) {
      if (past.has(family)) continue;
      let least = change(tool, 0, family);
      for (const from of [...wanted, ...past])
        if (from !== family) least = Math.min(least, change(tool, from, family));
      minutes += least;
    }
  });
  return minutes;
}

/** For each family as many runs as it must be taken up in different sessions; one fewer where history may be gone on with. */
export function leastRuns(model: Model, bounds: Bounds): number {
  let runs = 0;
  for (let r = 0; r < model.capacity.length; r++) {
    const families = new Map<number, { wanted: number[]; isPast: boolean }>();
    model.runsOn.forEach((on, i) => {
      if (!on.includes(r)) return;
      const of = families.get(model.family[i]!) ?? { wanted: [], isPast: false };
      if (model.isFixed[i]) of.isPast = true;
      else of.wanted.push(i);
      families.set(model.family[i]!, of);
    });
    for (const { wanted, isPast } of families.values())
      if (wanted.length > 0) runs += Math.max(0, sessionsFor(model, bounds, r, wanted) - (isPast ? 1 : 0));
  }
  return runs;
}

/** The least number of sessions in which all of these can begin (stabbing of intervals, the soonest end first), and that hold their work. */
function sessionsFor(
  model: Model,
  bounds: Bounds,
  resource: ResourceIndex,
  wanted: readonly number[],
): number {
  const open = model.openOn[resource]!;
  if (open === null) return 1;
  const spans = wanted
    .map((i) => ({
      first: intervalAfter(open, bounds.startLow[i]!),
      last: intervalAfter(open, bounds.startHigh[i]!),
    }))
    .sort((a, b) => a.last - b.last);
  let sessions = 0;
  let taken = -1;
  for (const { first, last } of spans) {
    if (first <= taken) continue;
    taken = last;
    sessions++;
  }
  const longest = open.from.reduce((most, from, k) => Math.max(most, open.to[k]! - from), 1);
  const work = wanted.reduce((sum, i) => sum + (model.pausable[i] ? 1 : model.minutes[i]!), 0);
  return Math.max(sessions, Math.ceil(work / longest));
}
