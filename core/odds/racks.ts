/**
 * What is ready, where it may be picked by several keys: as planned, by what shuts first, by date, by load. What takes the same lies on the
 * same rack, and a rack is not looked at while any of that is missing, or too little of the evening is left: a full booth costs nothing,
 * however much waits for it, nor do the last minutes of an evening.
 */
import type { Course } from './course';
import { Heap } from './heap';

/** By what is picked; `LOAD + l` is by date as well, among what goes on with load `l`. */
export const PLANNED = 0;
export const SHUTS = 1;
export const DATE = 2;
export const LOAD = 3;

const NOWHERE = -1;

/** Resource and amount in turn. */
type Needs = readonly number[];

/** What each operation uses while it is worked on, takes from then on, and lets go of. */
type Takes = Pick<Course, 'ids' | 'uses' | 'takes' | 'lets' | 'capacity'>;

/** The racks of what takes the same. */
interface Bay {
  /** what must be free while it is worked on, and what it holds from then on */
  readonly works: Needs;
  readonly holds: Needs;
  readonly racks: Rack[];
  /** how many operations lie on them */
  count: number;
}

interface Rack {
  readonly bay: Bay;
  /** one that lies on it: all of them are alike */
  readonly one: number;
  /** what is in the tool while it is worked on */
  readonly load: number;
  readonly byKind: (Heap | undefined)[];
  /** how many operations lie on it */
  count: number;
}

export class Racks {
  private readonly bays: readonly Bay[];
  private readonly racks: Rack[] = [];
  private readonly home: Int32Array;
  private readonly isLaid: Uint8Array;
  /** those that are looked at now */
  private readonly open: Rack[] = [];
  /** is there anything for which too little of the evening is left? */
  leavesSome = false;

  /**
   * @param free by resource: how much of it is free, as it stands when asked
   * @param isAnyones may others do it? Then it is looked at whoever is free
   * @param loadOf what is in the tool while it is worked on
   * @param kindOf what else is alike on one rack
   */
  constructor(
    course: Takes,
    private readonly free: Float64Array,
    isAnyones: (i: number) => boolean,
    loadOf: (i: number) => number,
    kindOf: (i: number) => string,
  ) {
    const { length } = course.ids;
    const bays = new Map<string, Bay>();
    const racks = new Map<string, number>();
    this.isLaid = new Uint8Array(length);
    this.home = Int32Array.from({ length }, (_, i) => {
      const { works, holds } = isAnyones(i) ? { works: [], holds: [] } : needsOf(course, i);
      const takes = `${works.join()};${holds.join()}`;
      const bay = bays.get(takes) ?? { works, holds, racks: [], count: 0 };
      bays.set(takes, bay);
      const kind = `${takes};${loadOf(i)};${kindOf(i)}`;
      const known = racks.get(kind);
      if (known !== undefined) return known;
      const rack = { bay, one: i, load: loadOf(i), byKind: [], count: 0 };
      bay.racks.push(rack);
      racks.set(kind, this.racks.length);
      return this.racks.push(rack) - 1;
    });
    this.bays = [...bays.values()];
  }

  clear(): void {
    for (const rack of this.racks) {
      for (const heap of rack.byKind) heap?.clear();
      rack.count = 0;
      rack.bay.count = 0;
    }
    this.isLaid.fill(0);
  }

  /** Puts an operation on its rack, with the first of its keys. */
  lay(i: number, kind: number, key: number): void {
    if (this.isLaid[i] === 0) this.count(i, 1);
    this.isLaid[i] = 1;
    this.put(i, kind, key);
  }

  /** One more key of an operation; nothing for what is on no rack. */
  put(i: number, kind: number, key: number): void {
    if (this.isLaid[i] === 0) return;
    const { byKind } = this.racks[this.home[i]!]!;
    (byKind[heapOf(kind)] ??= new Heap()).put(key, i);
  }

  /** It is on no rack any more, whatever keys it has there. */
  away(i: number): void {
    if (this.isLaid[i] === 1) this.count(i, -1);
    this.isLaid[i] = 0;
  }

  /**
   * Sees again what is free.
   * @param isIdle nothing is under way, so nothing lets go: what is held keeps nobody waiting
   * @param isLongEnough is enough left of the evening for what is like this one?
   */
  look(isIdle: boolean, isLongEnough: (i: number) => boolean): void {
    this.open.length = 0;
    this.leavesSome = false;
    for (const { works, holds, racks, count } of this.bays) {
      if (count === 0 || !this.isFree(works) || !(isIdle || this.isFree(holds))) continue;
      for (const rack of racks) {
        if (rack.count === 0) continue;
        if (isLongEnough(rack.one)) this.open.push(rack);
        else this.leavesSome = true;
      }
    }
  }

  /** The same once something has been taken and nothing let go: no other rack can have become free. */
  narrow(): void {
    const { open } = this;
    let kept = 0;
    for (const rack of open)
      if (rack.count > 0 && this.isFree(rack.bay.works) && this.isFree(rack.bay.holds)) open[kept++] = rack;
    open.length = kept;
  }

  /** The least key of a kind on the racks that are looked at; Infinity: none. */
  least(kind: number): number {
    return this.first(kind)?.least ?? Infinity;
  }

  /** The operation with the least key of a kind; −1: none. Its other keys stay. */
  take(kind: number): number {
    return this.first(kind)?.take() ?? NOWHERE;
  }

  private count(i: number, by: 1 | -1): void {
    const rack = this.racks[this.home[i]!]!;
    rack.count += by;
    rack.bay.count += by;
  }

  private first(kind: number): Heap | undefined {
    let best: Heap | undefined;
    for (const { load, byKind } of this.open) {
      if (kind >= LOAD && load !== kind - LOAD) continue;
      const heap = byKind[heapOf(kind)];
      if (!heap) continue;
      // What went away since is dropped from the top.
      while (heap.size > 0 && this.isLaid[heap.first!] === 0) heap.take();
      if (heap.size > 0 && !(best && heap.least >= best.least)) best = heap;
    }
    return best;
  }

  private isFree(needs: Needs): boolean {
    for (let k = 0; k < needs.length; k += 2) if (this.free[needs[k]!]! < needs[k + 1]!) return false;
    return true;
  }
}

function heapOf(kind: number): number {
  return kind >= LOAD ? DATE : kind;
}

/** What of each resource must be free before an operation begins: what it lets go of as it begins counts as free. */
function needsOf(course: Takes, i: number): { works: Needs; holds: Needs } {
  const uses = course.uses[i]!;
  const takes = course.takes[i]!;
  const lets = course.lets[i]!;
  const works = needs(uses, course, (r, much) => much - amountOf(lets, r));
  const holds = needs(takes, course, (r, much) => much + amountOf(uses, r) - amountOf(lets, r));
  return { works, holds };
}

/** What there is least of comes first: that is missing most often. */
function needs(list: Needs, { capacity }: Takes, need: (resource: number, much: number) => number): Needs {
  const all: [resource: number, much: number][] = [];
  for (let k = 0; k < list.length; k += 2) all.push([list[k]!, need(list[k]!, list[k + 1]!)]);
  return all.sort(([a], [b]) => capacity[a]! - capacity[b]!).flat();
}

/** How much of a resource a list of needs speaks of. */
export function amountOf(list: Needs, resource: number): number {
  for (let k = 0; k < list.length; k += 2) if (list[k] === resource) return list[k + 1]!;
  return 0;
}
