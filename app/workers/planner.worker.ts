/** A thin shell: the planning desk in a worker. */
import { expose } from 'comlink';
import { PlanningDesk } from './planningDesk';
import { sendPlansPacked } from './planTravels';

sendPlansPacked();
expose(new PlanningDesk());
