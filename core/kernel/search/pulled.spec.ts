/** What comes out along with what was taken, and what makes room. */
import { describe, expect, it } from 'vitest';
import { parseProblem, seededRandom } from '../index';
import { planned } from '../testing/planned';
import { Pulled } from './pulled';

const hands = [{ resource: 'hands', amount: 1 }];

/** Two pieces, each with a coat, a window on it, and a coat whenever one likes. */
const problem = parseProblem({
  format: 'muster-problem/1',
  horizon: 2000,
  resources: [{ id: 'hands', capacity: 1 }],
  operations: ['a', 'b'].flatMap((p) => [
    { id: `${p}.medium`, minutes: 30, uses: hands },
    { id: `${p}.top`, minutes: 30, uses: hands },
    { id: `${p}.wash`, minutes: 30, uses: hands },
    { id: `${p}.ready`, minutes: 0 },
  ]),
  lags: ['a', 'b'].flatMap((p) => [
    { from: `${p}.medium`, to: `${p}.top`, min: 10, max: 120 },
    { from: `${p}.top`, to: `${p}.wash`, min: 20 },
    { from: `${p}.wash`, to: `${p}.ready`, min: 60 },
  ]),
  units: ['a', 'b'].map((p) => ({ id: p, ready: `${p}.ready`, due: 1900, weight: 1 })),
  objective: { tardiness: 100, completion: 0.01 },
});

function pulled() {
  const plan = planned(problem);
  const out = new Pulled(plan.schedule, plan.structure);
  const i = (id: string): number => plan.model.ids.indexOf(id);
  const isPlaced = (): string[] => plan.model.ids.filter((_, k) => plan.schedule.isPlaced(k));
  return { ...plan, out, i, isPlaced };
}

describe('what a try takes out', () => {
  it('takes along what a window ties to it, and the milestone that waits for it', () => {
    const { out, i, isPlaced } = pulled();
    out.take(i('a.top'), 1);
    out.take(i('a.wash'), 2);
    expect(out.removeAll()).toBe(true);
    expect(isPlaced()).toEqual(['b.medium', 'b.top', 'b.wash', 'b.ready']);
    const { groups, joints } = out.looseFrom(0);
    expect(groups.flat().map((k) => problem.operations[k]!.id)).toEqual(['a.medium', 'a.top', 'a.wash']);
    expect(joints).toEqual([i('a.ready')]);
  });

  it('leaves what waits without a window', () => {
    const { out, i, isPlaced } = pulled();
    out.take(i('a.medium'), 1);
    out.removeAll();
    expect(isPlaced()).toContain('a.wash');
    expect(isPlaced()).not.toContain('a.top');
  });

  it('goes back strand by strand, or all side by side', () => {
    const { out, i } = pulled();
    for (const id of ['a.wash', 'b.wash']) out.take(i(id), 1);
    out.removeAll();
    expect(out.looseFrom(0).groups.length).toBe(2);
    out.isWhole = false;
    expect(out.looseFrom(0).groups.length).toBe(1);
  });

  it('takes nothing twice, and nothing is out any more once it starts over', () => {
    const { out, i } = pulled();
    out.take(i('a.wash'), 1);
    out.take(i('a.wash'), 2);
    expect(out.size).toBe(1);
    out.startOver();
    expect(out.size).toBe(0);
    out.take(i('a.wash'), 1);
    expect(out.size).toBe(1);
  });

  it('lets another strand make room, but none for a milestone', () => {
    const { out, i, structure, isPlaced } = pulled();
    out.take(i('a.medium'), 1);
    out.removeAll();
    const random = seededRandom(1);
    expect(out.eject(-1, random)).toBeNull();
    const room = out.eject(structure.strandOf[i('a.medium')]!, random);
    expect(room).not.toBeNull();
    for (const k of room!.groups.flat()) expect(isPlaced()).not.toContain(problem.operations[k]!.id);
  });
});
