/** The way to a planning desk: a worker of its own, spoken to by comlink. Tests put a desk on their own thread in its place. */
import { InjectionToken } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import type { PlanningDesk } from '../workers/planningDesk';
import { sendPlansPacked } from '../workers/planTravels';

export interface Desk {
  readonly remote: Pick<
    Remote<PlanningDesk>,
    | 'plan'
    | 'show'
    | 'still'
    | 'stop'
    | 'explain'
    | 'explainLate'
    | 'weigh'
    | 'odds'
    | 'stopOdds'
    | 'helpWith'
    | 'played'
  >;
  /** Lets the desk go, whatever it is at. */
  close(): void;
}

/** @param onLost is called once when the desk can't go on; it is closed then */
export type OpenDesk = (onLost: (message: string) => void) => Desk;

export const OPEN_DESK = new InjectionToken<OpenDesk>('planning desk', { factory: () => openWorker });

const openWorker: OpenDesk = (onLost) => {
  sendPlansPacked();
  const worker = new Worker(new URL('../workers/planner.worker', import.meta.url), { type: 'module' });
  worker.addEventListener('error', (event) => {
    worker.terminate();
    onLost(event.message || 'The planning worker could not start.');
  });
  return { remote: wrap<PlanningDesk>(worker), close: () => worker.terminate() };
};
