/** Counts the runs of a plan in the making: on each resource where they count, how often something else is taken up (rule 9). */
import type { Model } from '../model/model';
import { intervalAfter } from '../model/openHours';
import { ToolSequence } from '../model/toolSequence';
import type { Minute, OperationIndex, ResourceIndex } from '../model/units';

export interface RunCount {
  /** runs of what is placed */
  readonly count: number;
  /** The operations on a resource by start; null where runs don't count. */
  on(resource: ResourceIndex): ToolSequence | null;
  /** Takes an operation in (sign 1), or out of where it stood (sign -1). */
  account(i: OperationIndex, start: Minute, end: Minute, sign: 1 | -1): void;
  /** How many runs more there would be on a resource with an operation that starts at `start` between these two (-1: none). */
  added(
    resource: ResourceIndex,
    i: OperationIndex,
    start: Minute,
    before: OperationIndex,
    after: OperationIndex,
  ): number;
  /** The open interval in which an operation on the resource began. */
  sessionOf(resource: ResourceIndex, i: OperationIndex): number;
}

/** Null where runs cost nothing. */
export function runCount(model: Model): RunCount | null {
  const many = model.capacity.map(() => 0);
  for (const list of model.runsOn) for (const r of list) many[r]!++;
  if (model.weights.runs === 0 || many.every((n) => n === 0)) return null;
  const sequences = [...many].map((most) => (most === 0 ? null : new ToolSequence(most)));
  const sessions = sequences.map((q) => (q === null ? null : new Int32Array(model.count)));
  const { family, isFixed } = model;
  let count = 0;

  function sessionAt(resource: ResourceIndex, i: OperationIndex, start: Minute): number {
    const open = model.openOn[resource]!;
    if (open === null) return 0;
    const k = intervalAfter(open, start);
    // History that ran outside every open interval stands alone.
    return k < open.from.length && open.from[k]! <= start ? k : -1 - i;
  }

  /** Is `i`, in this session, the first of a run when it comes after `before`? */
  function begins(
    resource: ResourceIndex,
    before: OperationIndex,
    i: OperationIndex,
    session: number,
  ): number {
    if (isFixed[i]) return 0;
    return before >= 0 && family[before] === family[i] && sessions[resource]![before] === session ? 0 : 1;
  }

  function change(
    resource: ResourceIndex,
    i: OperationIndex,
    session: number,
    before: OperationIndex,
    after: OperationIndex,
  ): number {
    let more = begins(resource, before, i, session);
    if (after < 0 || isFixed[after]) return more;
    const then = sessions[resource]![after]!;
    more += family[i] === family[after] && session === then ? 0 : 1;
    return more - begins(resource, before, after, then);
  }

  return {
    get count() {
      return count;
    },
    on: (resource) => sequences[resource]!,
    account(i, start, end, sign) {
      for (const r of model.runsOn[i]!) {
        const sequence = sequences[r]!;
        if (sign > 0) {
          const k = sequence.add(i, start, end);
          const session = sessionAt(r, i, start);
          sessions[r]![i] = session;
          count += change(r, i, session, sequence.at(k - 1), sequence.at(k + 1));
        } else {
          const k = sequence.remove(i, start);
          count -= change(r, i, sessions[r]![i]!, sequence.at(k - 1), sequence.at(k));
        }
      }
    },
    added: (resource, i, start, before, after) =>
      change(resource, i, sessionAt(resource, i, start), before, after),
    sessionOf: (resource, i) => sessions[resource]![i]!,
  };
}
