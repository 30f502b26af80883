/** What no plan goes below, sum by sum, before the factors of the objective: each proved by itself. */
import { withinReach } from '../document/horizon';
import type { Problem } from '../document/document';
import { buildModel, change, type Model } from '../model/model';
import { longestInterval, type OpenHours } from '../model/openHours';
import { overload } from './overload';
import { propagate, type Known } from './propagate';
import { timesTakenUp } from './takenUp';
import type { OperationIndex, ResourceIndex } from '../model/units';

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
  const known = { model, bounds, order: propagation.order };
  return { tardiness, setup: leastSetups(known), runs: leastRuns(known), completion };
}

/** Every family is put on a tool as often as it has to be taken up there, each time the cheapest way. */
export function leastSetups(known: Known): number {
  const { model } = known;
  let minutes = 0;
  model.tools.forEach((tool, resource) => {
    if (tool === null) return;
    const families = familiesOn(known, resource, (i) => model.tool[i] === resource);
    for (const [family, { wanted, begun }] of families) {
      let least = change(tool, 0, family);
      for (const from of families.keys())
        if (from !== family) least = Math.min(least, change(tool, from, family));
      const times = timesTakenUp(known, { resource, operations: wanted, open: null });
      minutes += least * Math.max(0, times - begun);
    }
  });
  return minutes;
}

/** Every family is taken up as often as it has to be, and at least as often as its work fills a session. */
export function leastRuns(known: Known): number {
  const { model } = known;
  let runs = 0;
  for (let resource = 0; resource < model.capacity.length; resource++) {
    const open = model.openOn[resource]!;
    for (const { wanted, begun } of familiesOn(known, resource, (i) =>
      model.runsOn[i]!.includes(resource),
    ).values()) {
      const times = timesTakenUp(known, { resource, operations: wanted, open });
      runs += Math.max(0, Math.max(times, sessionsFilled(model, open, wanted)) - begun);
    }
  }
  return runs;
}

interface Family {
  /** what is still to be done */
  readonly wanted: OperationIndex[];
  /** how often what is fixed has taken it up, as far as something may still go on with it */
  begun: number;
}

function familiesOn(
  { model, bounds }: Known,
  resource: ResourceIndex,
  counts: (i: OperationIndex) => boolean,
): ReadonlyMap<number, Family> {
  const families = new Map<number, Family>();
  const past = new Set<number>();
  const fixed: OperationIndex[] = [];
  let first = Infinity;
  for (let i = 0; i < model.count; i++) {
    if (!counts(i)) continue;
    if (!families.has(model.family[i]!)) families.set(model.family[i]!, { wanted: [], begun: 0 });
    if (model.isFixed[i]) fixed.push(i);
    else {
      families.get(model.family[i]!)!.wanted.push(i);
      first = Math.min(first, bounds.startLow[i]!);
    }
  }
  for (const i of fixed) {
    // Before anything else can begin: only the last of it can be gone on with.
    if (model.fixedStart[i]! < first) past.add(model.family[i]!);
    else families.get(model.family[i]!)!.begun++;
  }
  for (const family of past) families.get(family)!.begun++;
  return families;
}

/** The least number of sessions that hold so much work. */
function sessionsFilled(model: Model, open: OpenHours | null, wanted: readonly OperationIndex[]): number {
  if (open === null || wanted.length === 0) return 0;
  const work = wanted.reduce((sum, i) => sum + (model.pausable[i] ? 1 : model.minutes[i]!), 0);
  return Math.ceil(work / longestInterval(open));
}
