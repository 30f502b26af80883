/** A general-purpose solver beside ours: HiGHS on the disjunctive model of a job shop (Manne 1960), one core. */
import loadHighs from 'highs';
import type { Problem } from '#core/kernel';

export interface MilpResult {
  readonly status: string;
  readonly objective: number;
  readonly seconds: number;
}

/** @returns null when the problem is more than a job shop: calendars, clocks, windows, setups and holds have no place in the model */
export async function byHighs(problem: Problem, seconds: number): Promise<MilpResult | null> {
  const isPlain =
    (problem.calendars ?? []).length === 0 &&
    (problem.holds ?? []).length === 0 &&
    (problem.resources ?? []).every((r) => r.setup === undefined && r.capacity === 1) &&
    (problem.lags ?? []).every((l) => l.max === undefined && l.clock === undefined);
  if (!isPlain) return null;
  const highs = await loadHighs();
  const begin = performance.now();
  const result = highs.solve(disjunctive(problem), { time_limit: seconds, threads: 1 });
  return {
    status: result.Status,
    objective: result.ObjectiveValue,
    seconds: (performance.now() - begin) / 1000,
  };
}

function disjunctive(problem: Problem): string {
  const at = new Map(problem.operations.map((o, i) => [o.id, i]));
  const big = problem.operations.reduce((sum, o) => sum + o.minutes, 0);
  const rows: string[] = [];
  for (const [i, o] of problem.operations.entries()) rows.push(`last - s${i} >= ${o.minutes}`);
  for (const lag of problem.lags ?? []) {
    const from = at.get(lag.from)!;
    rows.push(`s${at.get(lag.to)!} - s${from} >= ${problem.operations[from]!.minutes + lag.min}`);
  }
  const binaries: string[] = [];
  const onSame = (i: number, j: number): boolean =>
    (problem.operations[i]!.uses ?? []).some((u) =>
      (problem.operations[j]!.uses ?? []).some((v) => u.resource === v.resource),
    );
  for (let i = 0; i < problem.operations.length; i++)
    for (let j = i + 1; j < problem.operations.length; j++) {
      if (!onSame(i, j)) continue;
      const y = `y${i}_${j}`;
      binaries.push(y);
      rows.push(`s${j} - s${i} - ${big} ${y} >= ${problem.operations[i]!.minutes - big}`);
      rows.push(`s${i} - s${j} + ${big} ${y} >= ${problem.operations[j]!.minutes}`);
    }
  return [
    'Minimize',
    ' obj: last',
    'Subject To',
    ...rows.map((r, k) => ` c${k}: ${r}`),
    'Binary',
    ...binaries.map((b) => ` ${b}`),
    'End',
  ].join('\n');
}
