/** Who works when: pools of hands, one within the other, and who of them may do a layer. */
import type { Problem, ProblemOperation } from '#core/kernel';
import { familyOf } from '#core/materials';
import {
  presenceOf,
  type Ability,
  type Layer,
  type Muster,
  type Person,
  merged,
  without,
} from '#core/muster';

/** Everybody at the bench. */
export const HANDS = 'hands';
/** Those of them who may do everything, where some may not. */
export const SKILLED = 'skilled';

/** Tasks with a blade, glue or dust. */
const SHARP: readonly Layer['task'][] = ['mask', 'decal', 'glue', 'polish'];

/** May somebody with this ability do a layer? The careful keep to brush, sponge and hand, and to what water thins. */
export function mayDo(may: Ability, layer: Layer): boolean {
  if (may === 'all') return true;
  const { drying } = familyOf(layer.family);
  return (
    ['brush', 'sponge', 'hand'].includes(layer.method) &&
    (drying === 'water' || drying === 'none') &&
    !SHARP.includes(layer.task)
  );
}

export const abilityOf = (person: Person): Ability => person.may ?? 'all';

export interface Hands {
  readonly calendars: NonNullable<Problem['calendars']>;
  readonly resources: NonNullable<Problem['resources']>;
  /** when not all of a pool are there: history, so to speak, that takes up the hands of those who are away */
  readonly operations: readonly ProblemOperation[];
  readonly fixed: NonNullable<Problem['fixed']>;
  /** names of people by the operation that stands for an absence of theirs */
  readonly absences: ReadonlyMap<string, string>;
  /** the pools that a layer takes hands from */
  usesOf(layer: Layer): readonly string[];
  /** Is there but one pair of hands for everything? Then what lies ready on the table is known. */
  readonly isAlone: boolean;
}

/** A pool of one is there when that one is; of more, some are, and those who are not take up their share. */
export function handsOf(muster: Muster, days: number): Hands {
  const { people } = muster.bench;
  const skilled = people.filter((p) => abilityOf(p) === 'all');
  const isMixed = skilled.length < people.length;
  const horizon = days * 1440;
  const presence = new Map(
    people.map((p) => [
      p.id,
      presenceOf(muster, p, days).map(({ start, end }): [number, number] => [start, end]),
    ]),
  );
  const openOf = (pool: readonly Person[]): [number, number][] =>
    merged(
      pool.flatMap((p) => presence.get(p.id)!),
      horizon,
    );
  const open = openOf(people);
  const skilledOpen = openOf(skilled);
  const operations: ProblemOperation[] = [];
  const fixed: { id: string; start: number; end: number }[] = [];
  const absences = new Map<string, string>();
  for (const person of people) {
    const isSkilled = isMixed && abilityOf(person) === 'all';
    const own = presence.get(person.id)!;
    // Away from a pool that is open: where it is shut nobody is missed.
    const missed = people.length > 1 ? without(open, own) : [];
    missed.forEach(([start, end], k) => {
      const uses = [
        { resource: HANDS, amount: 1 },
        ...(isSkilled && skilled.length > 1 ? [{ resource: SKILLED, amount: 1 }] : []),
      ];
      const id = `away.${person.id}.${k}`;
      operations.push({ id, minutes: end - start, uses });
      fixed.push({ id, start, end });
      absences.set(id, person.name);
    });
  }
  return {
    calendars: [
      { id: 'sessions', open },
      ...(isMixed && skilled.length > 0 ? [{ id: SKILLED, open: skilledOpen }] : []),
    ],
    resources: [
      // Runs are counted where one pair of hands works: what several do at once has no order.
      { id: HANDS, capacity: Math.max(1, people.length), calendar: 'sessions', runs: people.length === 1 },
      ...(isMixed && skilled.length > 0
        ? [{ id: SKILLED, capacity: skilled.length, calendar: SKILLED, runs: skilled.length === 1 }]
        : []),
    ],
    operations,
    fixed,
    absences,
    usesOf: (layer) => (isMixed && !mayDo('careful', layer) ? [HANDS, SKILLED] : [HANDS]),
    isAlone: people.length === 1,
  };
}
