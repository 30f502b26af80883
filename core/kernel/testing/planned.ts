/** A schedule with a first plan, and what is known of its problem. */
import { builder } from '../search/construct';
import { seededRandom, type Problem } from '../index';
import { buildModel, type Model } from '../model/model';
import { propagate, type Bounds } from '../prove/propagate';
import { Schedule } from '../place/schedule';
import { structureOf, type Structure } from '../place/structure';

export interface Planned {
  readonly model: Model;
  readonly bounds: Bounds;
  readonly order: Int32Array;
  readonly structure: Structure;
  readonly schedule: Schedule;
}

/** @throws Error when there is no plan, or the first try finds none */
export function planned(problem: Problem): Planned {
  const model = buildModel(problem);
  const propagation = propagate(model);
  if (!propagation.ok) throw new Error('There is a plan.');
  const { bounds, order } = propagation;
  const structure = structureOf(model, bounds, order);
  const schedule = new Schedule(model, bounds);
  if (!builder(schedule, structure, seededRandom(1)).build()) throw new Error('A first plan is found.');
  schedule.commit();
  return { model, bounds, order, structure, schedule };
}
