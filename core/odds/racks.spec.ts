import { describe, expect, it } from 'vitest';
import { DATE, LOAD, PLANNED, Racks, SHUTS } from './racks';

const BOOTH = 0;
const RACK = 1;

/** Two that are sprayed, of which the second lies on the rack from then on; one that is brushed; one that leaves the rack for the booth. */
const course = {
  ids: ['spray', 'spray and lay', 'brush', 'take down'],
  uses: [[BOOTH, 1], [BOOTH, 1], [], [RACK, 1]],
  takes: [[], [RACK, 2], [], []],
  lets: [[], [], [], [RACK, 1]],
  capacity: Float64Array.of(1, 2),
};

function laid(booth: number, rack: number): { racks: Racks; free: Float64Array } {
  const free = Float64Array.of(booth, rack);
  const racks = new Racks(
    course,
    free,
    () => false,
    loadOf,
    () => '',
  );
  course.ids.forEach((_, i) => {
    racks.lay(i, PLANNED, i);
    racks.put(i, DATE, -i);
  });
  return { racks, free };
}

/** Grey is in the airbrush for both. */
const loadOf = (i: number): number => (i < 2 ? 7 : 0);
const always = (): boolean => true;

function all(racks: Racks, kind: number): string[] {
  const names: string[] = [];
  for (let i = racks.take(kind); i >= 0; i = racks.take(kind)) names.push(course.ids[i]!);
  return names;
}

describe('what is ready', () => {
  it('is picked by the least of the key that is asked for', () => {
    const { racks } = laid(1, 2);
    racks.look(false, always);
    expect(racks.least(DATE)).toBe(-3);
    expect(all(racks, PLANNED)).toEqual(['spray', 'spray and lay', 'brush', 'take down']);
    expect(all(racks, DATE)).toEqual(['take down', 'brush', 'spray and lay', 'spray']);
    expect(racks.least(SHUTS)).toBe(Infinity);
  });

  it('is not looked at while what it takes is missing; what it lets go of counts as free', () => {
    const { racks, free } = laid(0, 0);
    racks.look(false, always);
    expect(all(racks, PLANNED)).toEqual(['brush', 'take down']);
    free[BOOTH] = 1;
    free[RACK] = 1;
    racks.look(false, always);
    expect(all(racks, PLANNED)).toEqual(['spray']);
    free[RACK] = 2;
    racks.look(false, always);
    expect(all(racks, PLANNED)).toEqual(['spray and lay']);
  });

  it('does not wait for what it would hold where nothing is under way, but for what it works with', () => {
    const { racks, free } = laid(1, 0);
    racks.look(true, always);
    expect(all(racks, PLANNED)).toEqual(['spray', 'spray and lay', 'brush', 'take down']);
    free[BOOTH] = 0;
    racks.look(true, always);
    expect(all(racks, DATE)).toEqual(['take down', 'brush']);
  });

  it('is passed over once something else has taken what it needs', () => {
    const { racks, free } = laid(1, 2);
    racks.look(false, always);
    free[BOOTH] = 0;
    racks.narrow();
    expect(all(racks, PLANNED)).toEqual(['brush', 'take down']);
  });

  it('is gone with all its keys once it is away, and takes no more', () => {
    const { racks } = laid(1, 2);
    racks.away(3);
    racks.put(3, DATE, -9);
    racks.look(false, always);
    expect(racks.least(DATE)).toBe(-2);
    racks.clear();
    racks.look(false, always);
    expect(all(racks, PLANNED)).toEqual([]);
  });

  it('is always looked at where others may do it', () => {
    const racks = new Racks(
      course,
      Float64Array.of(0, 0),
      (i) => i === 1,
      loadOf,
      () => '',
    );
    racks.lay(0, PLANNED, 0);
    racks.lay(1, PLANNED, 1);
    racks.look(false, always);
    expect(all(racks, PLANNED)).toEqual(['spray and lay']);
  });

  it('is left where too little of the evening is left for its kind, and that is known', () => {
    const { racks } = laid(1, 2);
    racks.look(false, (i) => i !== 2);
    expect(all(racks, PLANNED)).toEqual(['spray', 'spray and lay', 'take down']);
    expect(racks.leavesSome).toBe(true);
    racks.look(false, always);
    expect(racks.leavesSome).toBe(false);
    // A full booth is no matter of time.
    const full = laid(0, 2);
    full.racks.look(false, (i) => i > 0);
    expect(full.racks.leavesSome).toBe(false);
  });

  it('is picked by date among what goes on with a load', () => {
    const { racks } = laid(1, 2);
    racks.look(false, always);
    expect(racks.least(LOAD + 7)).toBe(-1);
    expect(racks.least(LOAD + 9)).toBe(Infinity);
    const first = racks.take(LOAD + 7);
    expect(course.ids[first]).toBe('spray and lay');
    racks.put(first, LOAD + 7, -5);
    expect(racks.least(DATE)).toBe(-5);
  });
});
