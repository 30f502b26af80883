/** Faults that are put into the services on purpose, each of a kind that was once there or could be: the truths must notice every one. */
import { Database } from '../../app/data/database';
import { Logbook } from '../../app/data/logbook';
import { CupInHand } from '../../app/tonight/cupInHand';
import { Evening } from '../../app/tonight/evening';
import { PlanningDesk } from '../../app/workers/planningDesk';
import { playCampaign } from './campaign';

export interface Planted {
  readonly name: string;
  /** puts the fault in; the returned function takes it out again */
  readonly plant: () => () => void;
}

type Method = (this: unknown, ...args: never[]) => unknown;

/** The method of a class in another form. */
function changed<T extends Method>(
  type: { readonly prototype: object },
  name: string,
  as: (real: T) => T,
): () => void {
  const real = Reflect.get(type.prototype, name) as T;
  Reflect.set(type.prototype, name, as(real));
  return () => void Reflect.set(type.prototype, name, real);
}

export const PLANTED: readonly Planted[] = [
  {
    name: 'a coat that is done again counts as a repeat',
    plant: () => {
      const over = new Set<string>();
      return changed<Database['addToLog']>(
        Database,
        'addToLog',
        (real) =>
          async function (this: Database, of, entries) {
            const fresh = entries.filter((e) => e.kind !== 'done' || !over.has(`${of} ${e.step}`));
            for (const e of fresh) if (e.kind === 'done') over.add(`${of} ${e.step}`);
            return real.call(this, of, fresh);
          },
      );
    },
  },
  {
    name: 'an entry is shown and not written',
    plant: () => {
      let n = 0;
      return changed<Database['addToLog']>(
        Database,
        'addToLog',
        (real) =>
          async function (this: Database, of, entries) {
            return ++n % 9 === 0 ? [...entries] : real.call(this, of, entries);
          },
      );
    },
  },
  {
    name: 'a change is called saved and is not',
    plant: () => {
      let n = 0;
      return changed<Database['change']>(
        Database,
        'change',
        (real) =>
          async function (this: Database, id, wanted) {
            const kept = await real.call(this, id, wanted);
            if (++n % 4 === 0) await this.go(id, -1);
            return kept;
          },
      );
    },
  },
  {
    name: 'undo goes back two steps',
    plant: () =>
      changed<Database['go']>(
        Database,
        'go',
        (real) =>
          async function (this: Database, id, steps) {
            if (steps > 0) return real.call(this, id, steps);
            return (await real.call(this, id, steps * 2)) ?? real.call(this, id, steps);
          },
      ),
  },
  {
    name: 'what is rehearsed is written',
    plant: () =>
      changed<Logbook['addEach']>(
        Logbook,
        'addEach',
        (real) =>
          async function (this: Logbook, list) {
            const rehearsed = await real.call(this, list);
            if (this.isRehearsal()) await this.merge(rehearsed.added);
            return rehearsed;
          },
      ),
  },
  {
    name: 'what is taken back stands',
    plant: () =>
      changed<Logbook['takeBack']>(
        Logbook,
        'takeBack',
        () =>
          async function () {
            return { added: [], isSaved: true };
          },
      ),
  },
  {
    name: 'the log of another tab is never read',
    plant: () => changed(Logbook, 'catchUp', () => async () => undefined),
  },
  {
    name: 'the rest is planned from yesterday',
    plant: () =>
      changed<PlanningDesk['plan']>(
        PlanningDesk,
        'plan',
        (real) =>
          async function (this: PlanningDesk, order, tell) {
            const day = (at: string): string =>
              `${new Date(Date.parse(at) - 86_400_000).toISOString().slice(0, 19)}Z`;
            return real.call(this, order.now === null ? order : { ...order, now: day(order.now) }, tell);
          },
      ),
  },
  {
    name: 'half of what was poured is forgotten',
    plant: () =>
      changed<CupInHand['pour']>(
        CupInHand,
        'pour',
        (real) =>
          function (this: CupInHand, done) {
            const mixed = real.call(this, done);
            return (step) => {
              const own = mixed(step);
              return own.used ? { ...own, used: own.used.map((u) => ({ ...u, ml: u.ml / 2 })) } : own;
            };
          },
      ),
  },
  {
    name: 'a search ends and nobody hears of it',
    plant: () => {
      let n = 0;
      return changed<PlanningDesk['plan']>(
        PlanningDesk,
        'plan',
        (real) =>
          async function (this: PlanningDesk, order, tell) {
            const outcome = await real.call(this, order, tell);
            return ++n % 5 === 0 ? { kind: 'unknown' } : outcome;
          },
      );
    },
  },
  {
    name: 'Done says nothing and does nothing',
    plant: () => {
      let n = 0;
      return changed<Evening['done']>(
        Evening,
        'done',
        (real) =>
          async function (this: Evening, minutes) {
            if (++n % 6 !== 0) await real.call(this, minutes);
          },
      );
    },
  },
];

/**
 * Which of the faults are never noticed.
 * @param campaigns at most this number for each
 */
export async function unnoticed(campaigns: number, faults: readonly Planted[] = PLANTED): Promise<string[]> {
  const missed: string[] = [];
  for (const { name, plant } of faults) {
    const takeOut = plant();
    let isNoticed = false;
    for (let seed = 1; seed <= campaigns && !isNoticed; seed++)
      isNoticed = (await playCampaign(seed)).faults.length > 0;
    takeOut();
    if (!isNoticed) missed.push(`not noticed in ${campaigns} campaigns: ${name}`);
  }
  return missed;
}
