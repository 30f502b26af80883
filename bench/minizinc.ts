/**
 * A general constraint solver beside ours: the whole problem class as a MiniZinc model, solved by Gecode through the
 * `minizinc` package, which under Node runs the native program of that name (Debian: `apt-get install minizinc`).
 */
import { spawnSync } from 'node:child_process';
import { Model } from 'minizinc';
import type { Problem } from '#core/kernel';

export interface CpResult {
  readonly status: string;
  readonly objective: number | null;
  readonly seconds: number;
}

export function hasMiniZinc(): boolean {
  return spawnSync('minizinc', ['--version']).status === 0;
}

/** Ticks and costs as whole numbers: so many to one. */
const SCALE = 100;

/** @returns null when the horizon is too long for tables by the minute */
export async function byMiniZinc(problem: Problem, seconds: number): Promise<CpResult | null> {
  if ((problem.clocks ?? []).length > 0 && problem.horizon > 10_000) return null;
  const begin = performance.now();
  const model = new Model();
  model.addString(written(problem));
  const result = await model.solve({
    options: { solver: 'gecode', 'time-limit': seconds * 1000, 'output-objective': true },
  });
  const objective = result.solution?.output.json?.['_objective'];
  return {
    status: result.status.toLowerCase().replaceAll('_', ' '),
    objective: typeof objective === 'number' ? objective / SCALE : null,
    seconds: (performance.now() - begin) / 1000,
  };
}

/** The problem in the solver's language (rules 1 to 7 of docs/formats.md). */
export function written(problem: Problem): string {
  const { operations, horizon } = problem;
  const at = new Map(operations.map((o, i) => [o.id, i + 1]));
  const resources = problem.resources ?? [];
  const fixed = new Map((problem.fixed ?? []).map((f) => [f.id, f]));
  const out: string[] = [
    'include "cumulative.mzn";',
    'include "alldifferent.mzn";',
    `array[1..${operations.length}] of var 0..${horizon}: s;`,
    `array[1..${operations.length}] of var 0..${horizon}: e;`,
    `array[1..${operations.length}] of var 0..${horizon}: setup;`,
  ];
  const say = (text: string): number => out.push(`constraint ${text};`);
  for (const clock of problem.clocks ?? [])
    out.push(
      `array[0..${horizon}] of int: clock_${clock.id} = array1d(0..${horizon}, ${list(ticks(clock.points, horizon))});`,
    );

  const onTool = new Map<string, number[]>();
  operations.forEach((o, k) => {
    const i = k + 1;
    const history = fixed.get(o.id);
    const uses = o.minutes === 0 ? [] : (o.uses ?? []);
    for (const u of uses) {
      const r = resources.find((x) => x.id === u.resource)!;
      if (r.setup) onTool.set(r.id, [...(onTool.get(r.id) ?? []), i]);
    }
    if (!uses.some((u) => resources.find((r) => r.id === u.resource)?.setup) || history)
      say(`setup[${i}] = 0`);
    if (history) return say(`s[${i}] = ${history.start} /\\ e[${i}] = ${history.end}`);
    if (o.earliest !== undefined) say(`s[${i}] >= ${o.earliest}`);
    if (o.latest !== undefined) say(`e[${i}] <= ${o.latest}`);
    say(`s[${i}] - setup[${i}] >= 0`);
    const calendars = [
      ...new Set(uses.flatMap((u) => resources.find((r) => r.id === u.resource)!.calendar ?? [])),
    ];
    if (calendars.length === 0) return say(`e[${i}] = s[${i}] + ${o.minutes}`);
    // By the minute: where the open interval begins (horizon + 1: closed), and when work begun there is done.
    const open = openMinutes(problem, calendars);
    const since: number[] = [];
    for (let t = 0; t <= horizon; t++)
      since.push(open[t] ? (t > 0 && open[t - 1] ? since[t - 1]! : t) : horizon + 1);
    const done = since.map((_, t) => endOf(open, t, o.minutes, o.pausable ?? false, horizon));
    say(`e[${i}] = array1d(0..${horizon}, ${list(done)})[s[${i}]]`);
    say(`s[${i}] - setup[${i}] >= array1d(0..${horizon}, ${list(since)})[s[${i}]]`);
    return undefined;
  });

  for (const lag of problem.lags ?? []) {
    if (fixed.has(lag.from) && fixed.has(lag.to)) continue;
    const [i, j] = [at.get(lag.from)!, at.get(lag.to)!];
    const c = lag.clock;
    const between =
      c === undefined ? `(s[${j}] - e[${i}]) * ${SCALE}` : `clock_${c}[s[${j}]] - clock_${c}[e[${i}]]`;
    say(`${between} >= ${Math.round(lag.min * SCALE)}`);
    if (lag.max !== undefined) say(`${between} <= ${Math.round(lag.max * SCALE)}`);
  }

  for (const r of resources) {
    const tasks: string[] = [];
    operations.forEach((o, k) => {
      for (const u of o.minutes === 0 ? [] : (o.uses ?? []))
        if (u.resource === r.id)
          tasks.push(`s[${k + 1}] - setup[${k + 1}]|e[${k + 1}] - s[${k + 1}] + setup[${k + 1}]|${u.amount}`);
    });
    for (const h of problem.holds ?? [])
      if (h.resource === r.id)
        tasks.push(`e[${at.get(h.from)!}]|s[${at.get(h.to)!}] - e[${at.get(h.from)!}]|${h.amount}`);
    if (tasks.length === 0) continue;
    const column = (n: number): string => `[${tasks.map((t) => t.split('|')[n]).join(', ')}]`;
    // Named, with their ranges: the solver asks for proof that none is negative.
    for (const [n, name] of [`from_${r.id}`, `long_${r.id}`].entries()) {
      out.push(`array[1..${tasks.length}] of var 0..${horizon}: ${name};`);
      say(`${name} = ${column(n)}`);
    }
    say(`cumulative(from_${r.id}, long_${r.id}, ${column(2)}, ${r.capacity})`);
  }

  // Who is directly before whom on a tool (0: nobody), and the setup that follows from it and from how long the tool stood.
  for (const [id, members] of onTool) {
    const { setup } = resources.find((r) => r.id === id)!;
    const family = (i: number): string => operations[i - 1]!.family ?? '';
    const change = (from: string, to: string): number =>
      from === to ? 0 : (setup!.between?.find(([a, b]) => a === from && b === to)?.[2] ?? setup!.minutes);
    for (const j of members) {
      if (fixed.has(operations[j - 1]!.id)) continue;
      const others = members.filter((a) => a !== j);
      const isFirst = others.map((a) => `s[${a}] > s[${j}]`).join(' /\\ ') || 'true';
      say(`(${isFirst}) -> setup[${j}] = ${change('', family(j))}`);
      for (const a of others) {
        const isNext = [
          `s[${a}] < s[${j}]`,
          ...others.filter((b) => b !== a).map((b) => `(s[${b}] < s[${a}] \\/ s[${b}] > s[${j}])`),
        ].join(' /\\ ');
        const loaded = change(family(a), family(j));
        const right =
          setup!.idle === undefined
            ? String(loaded)
            : `if s[${j}] - ${loaded} - e[${a}] > ${setup!.idle} then ${change('', family(j))} else ${loaded} endif`;
        say(`(${isNext}) -> (setup[${j}] = ${right} /\\ s[${j}] - setup[${j}] >= e[${a}])`);
      }
    }
    if (members.length > 1) say(`alldifferent([${members.map((i) => `s[${i}]`).join(', ')}])`);
  }

  const { tardiness = 0, setup = 0, completion = 0, makespan = 0, overrun = 0 } = problem.objective;
  const terms = [`${Math.round(setup * SCALE)} * sum(setup)`];
  for (const u of problem.units ?? []) {
    const end = `e[${at.get(u.ready)!}]`;
    terms.push(`${Math.round(tardiness * u.weight * SCALE)} * max(0, ${end} - ${u.due})`);
    terms.push(`${Math.round(completion * u.weight * SCALE)} * ${end}`);
  }
  if (makespan > 0) terms.push(`${Math.round(makespan * SCALE)} * max(e)`);
  if (overrun > 0)
    for (const lag of problem.lags ?? [])
      if (lag.prefer !== undefined && lag.clock === undefined)
        terms.push(
          `${Math.round(overrun * SCALE)} * max(0, s[${at.get(lag.to)!}] - e[${at.get(lag.from)!}] - ${lag.prefer})`,
        );
  out.push(`var int: cost = ${terms.join(' + ')};`);
  out.push('solve :: int_search(s, dom_w_deg, indomain_min) minimize cost;');
  return out.join('\n');
}

const list = (numbers: readonly number[]): string => `[${numbers.join(',')}]`;

function ticks(points: readonly (readonly [number, number])[], horizon: number): number[] {
  const result: number[] = [];
  for (let t = 0, k = 0; t <= horizon; t++) {
    while (k < points.length - 2 && points[k + 1]![0] <= t) k++;
    const [t0, c0] = points[k]!;
    const [t1, c1] = points[k + 1] ?? [t0 + 1, c0 + 1];
    result.push(Math.round((c0 + ((c1 - c0) * (t - t0)) / (t1 - t0)) * SCALE));
  }
  return result;
}

function openMinutes(problem: Problem, calendars: readonly string[]): boolean[] {
  const open = Array.from({ length: problem.horizon + 1 }, () => true);
  for (const id of calendars) {
    const intervals = problem.calendars!.find((c) => c.id === id)!.open;
    for (let t = 0; t < open.length; t++) if (!intervals.some(([a, b]) => a <= t && t < b)) open[t] = false;
  }
  return open;
}

/** When work of `minutes` begun at `t` is done; beyond the horizon when it cannot begin there. */
function endOf(
  open: readonly boolean[],
  t: number,
  minutes: number,
  pausable: boolean,
  horizon: number,
): number {
  let left = minutes;
  for (let k = t; k <= horizon; k++) {
    if (left === 0) return k;
    if (open[k]) left--;
    else if (!pausable || k === t) return horizon + 1;
  }
  return horizon + 1;
}
