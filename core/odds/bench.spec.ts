/** What a bench's log makes of the trade's priors. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import type { LogEntry } from '#core/log';
import type { Layer, Muster } from '#core/muster';
import { pose, solvedPlan } from '#core/session';
import { layer, smallMuster } from '../plan/testing';
import { benchRisks, type BenchRisks } from './index';

const KINDS = ['coat', 'shade', 'edges', 'glaze', 'trim', 'eyes'];
const painted = (change: Partial<Layer> = {}): Muster =>
  smallMuster(KINDS.map((id) => layer(id, { name: id, minutes: 10, dryMinutes: 20, ...change })));

function risksOf(muster: Muster, log: readonly LogEntry[]): BenchRisks {
  const posed = pose(muster, [], null);
  const { plan, problem, steps, clocks } = solvedPlan(posed, solveProblem(posed.problem, { iterations: 5 }));
  return benchRisks(muster, problem, steps, clocks, plan, log, 0);
}

/** The first so many kinds of work, measured: so many times as long as planned, on the second evening of each. */
function measured(muster: Muster, kinds: number, times: number): LogEntry[] {
  const posed = pose(muster, [], null);
  return [...posed.steps]
    .filter(([, { layer: l }]) => KINDS.indexOf(l.id) < kinds)
    .flatMap(([step, { layer: l, piece }], k) =>
      [1, 2].map((day): LogEntry => {
        const id = `e${day}${String(k).padStart(5, '0')}`;
        const minutes = l.minutes * piece.count * times * (day === 1 ? 1.25 : 1);
        return { id, at: `2027-03-0${day}T20:00`, kind: 'done', step, minutes, isMeasured: true };
      }),
    );
}
const workOf = ({ risks, workNames }: BenchRisks, kind: string) => risks.works[workNames.indexOf(kind)]!;

describe('hands', () => {
  it('are thought to be as the recipes say, give or take, before any were measured', () => {
    const none = risksOf(painted(), []);
    // 0.35 for people and layers together, 0.25 of it for people: as in the lessons.
    expect(none.risks.pace).toBe(0.25);
    expect(workOf(none, 'eyes').mean).toBe(0);
    expect(Math.hypot(none.risks.pace, workOf(none, 'eyes').sigma)).toBeCloseTo(0.35, 10);
    // Wright (1936): 95 % at a doubling beforehand (from memory).
    expect(2 ** none.risks.slopes[0]!).toBeCloseTo(0.95, 10);
  });

  it('that were slow at some kinds of work are thought to be slow at the others, the surer the more were measured', () => {
    const few = risksOf(painted(), measured(painted(), 1, 1.5));
    const many = risksOf(painted(), measured(painted(), 4, 1.5));
    const eyes = [few, many].map((r) => workOf(r, 'eyes').mean);
    expect(eyes[0]).toBeGreaterThan(0.02);
    expect(eyes[1]).toBeGreaterThan(eyes[0]!);
    expect(eyes[1]).toBeLessThan(Math.log(1.5));
    expect(many.risks.pace).toBeLessThan(few.risks.pace);
    expect(few.risks.pace).toBeLessThan(0.25);
    // What was measured itself is as measured.
    expect(workOf(many, 'coat').mean).toBeGreaterThan(eyes[1]!);
    const quick = risksOf(painted(), measured(painted(), 4, 0.7));
    expect(workOf(quick, 'eyes').mean).toBeLessThan(-0.02);
  });

  it('count each look once: one of each of three kinds is worth what the two spreads and the noise say', () => {
    const seen = new Set<string>();
    const looks = measured(painted(), 3, 1.5).filter((e) => {
      const kind = e.kind === 'done' ? e.step.split('.').at(-1)! : '';
      return e.at.startsWith('2027-03-01') && seen.size < seen.add(kind).size;
    });
    expect(looks).toHaveLength(3);
    // Normal all of it: a look is the pace (0.25), the kind (what is left of 0.35), the first time (0.2) and the noise (0.25).
    const look = 1 / (0.35 ** 2 - 0.25 ** 2 + 0.2 ** 2 + 0.25 ** 2);
    const asked = risksOf(painted(), looks);
    expect(workOf(asked, 'eyes').mean).toBeCloseTo(
      (Math.log(1.5) * 3 * look) / (1 / 0.25 ** 2 + 3 * look),
      6,
    );
    expect(asked.risks.pace).toBeCloseTo(1 / Math.sqrt(1 / 0.25 ** 2 + 3 * look), 6);
  });

  it('do what their owner has set the minutes of as the owner says', () => {
    const own = painted({ minutesFrom: { source: 'yours', nominalMinutes: 10 } });
    const asked = risksOf(own, measured(own, 4, 1.5));
    expect(workOf(asked, 'eyes').mean).toBe(0);
  });

  it('are new to what they have never done, and no longer to what was measured', () => {
    const asked = risksOf(painted(), measured(painted(), 2, 1));
    const isNew = (kind: string): number => asked.risks.isNew[asked.workNames.indexOf(kind)]!;
    expect(KINDS.map(isNew)).toEqual([0, 0, 1, 1, 1, 1]);
  });
});

describe('mending', () => {
  it('is likelier where the log has more of it, and its rate is better known the more was done', () => {
    const muster = painted();
    const done = measured(muster, 6, 1);
    const mended = done.slice(0, 6).map((e, k): LogEntry => ({
      id: `f${k}`,
      at: '2027-03-02T21:00',
      kind: 'rework',
      step: (e as { step: string }).step,
      trouble: 'run',
      cure: 'sanded',
      minutes: 5,
      dryMinutes: 20,
    }));
    const [before, well, badly] = [[], done, [...done, ...mended]].map((log) => risksOf(muster, log).risks);
    const chance = (r: typeof before): number => r!.mendChance.find((c) => c > 0)!;
    expect(chance(well)).toBeLessThan(chance(before));
    expect(chance(badly)).toBeGreaterThan(chance(well));
    const spread = (r: typeof before): number => r!.mishaps[r!.mishap.find((k) => k >= 0)!]!;
    // A Beta of mean 0.02 and weight 25: its variance over the square of its mean is 0.98 / 0.02 / 26.
    expect(spread(before)).toBeCloseTo(Math.sqrt(Math.log(1 + 0.98 / 0.02 / 26)), 10);
    expect(spread(badly)).toBeLessThan(spread(before));
  });
});
