/**
 * Random problems wider than `smallProblem`. Ranges: 1 to 12 operations in any acyclic net of lags (0 to 16, each forward, minimum 0 to 90,
 * maximum none or up to 150 more, soft closings, clocks); 1 to 4 resources of capacity 1 to 4, with or without calendar, up to two of them
 * tools with set-ups, `between` and idling; runs that count on half of those of capacity 1; 0 to 8 holds anywhere, on tools too, sharing beginnings, ends and resources; amounts 1 to 3, above
 * capacity at times; earliest and latest; pausable and 0-minute operations; 0 to 3 fixed ones; several units on one operation; weights and
 * factors of 0; horizons of 200 to 6,000 minutes, now and then 10 million.
 */
import { seededRandom, type Problem } from '../index';

export function wideProblem(seed: number): Problem {
  const random = seededRandom(seed);
  const int = (from: number, to: number): number => from + Math.floor(random() * (to - from + 1));
  const chance = (p: number): boolean => random() < p;
  const pick = <T>(list: readonly T[]): T => list[int(0, list.length - 1)]!;
  const some = <T>(p: number, value: () => T): T | undefined => (chance(p) ? value() : undefined);

  const horizon = chance(0.01) ? 10_000_000 : int(200, 6000);
  const reach = Math.min(horizon, 6000);
  const calendars = Array.from({ length: int(0, 3) }, (_, c) => {
    const open: [number, number][] = [];
    let t = int(0, 60);
    for (let k = chance(0.1) ? int(0, 2) : int(6, 30); k > 0 && t < reach + 400; k--) {
      const end = t + int(20, 400);
      open.push([t, end]);
      t = end + int(1, 300);
    }
    return { id: `cal${c}`, open };
  });
  const clocks = Array.from({ length: int(0, 2) }, (_, c) => {
    const points: [number, number][] = [[0, 0]];
    for (let k = int(0, 4); k > 0; k--) {
      const [t, ticks] = points[points.length - 1]!;
      points.push([t + int(1, 900), ticks + 0.01 + random() * int(1, 1500)]);
    }
    return { id: `clock${c}`, points };
  });
  const families = ['', 'a', 'b', 'c'];
  const resources = Array.from({ length: int(1, 4) }, (_, r): NonNullable<Problem['resources']>[number] => {
    const isTool = r < 2 && chance(0.5);
    const calendar = calendars.length > 0 ? some(0.6, () => pick(calendars).id) : undefined;
    const pairs = new Map(
      Array.from({ length: int(0, 5) }, () => [pick(families), pick(families)] as const)
        .filter(([from, to]) => from !== to)
        .map(([from, to]) => [`${from}>${to}`, [from, to, int(0, 12)] as [string, string, number]]),
    );
    const idle = some(0.5, () => int(0, 90));
    const capacity = isTool ? 1 : int(1, 4);
    return {
      id: `r${r}`,
      capacity,
      ...(capacity === 1 && chance(0.5) ? { runs: true } : {}),
      ...(calendar === undefined ? {} : { calendar }),
      ...(isTool
        ? {
            setup: {
              minutes: int(0, 10),
              between: [...pairs.values()],
              ...(idle === undefined ? {} : { idle }),
            },
          }
        : {}),
    };
  });
  const count = int(1, 12);
  const id = (k: number): string => `o${k}`;
  const operations = Array.from({ length: count }, (_, k): Problem['operations'][number] => {
    let hasTool = false;
    const uses = resources.flatMap((r) => {
      if (!chance(0.45) || (r.setup && hasTool)) return [];
      hasTool ||= r.setup !== undefined;
      return [{ resource: r.id, amount: chance(0.004) ? r.capacity + 1 : int(1, r.capacity) }];
    });
    const earliest = some(0.12, () => int(0, Math.floor(reach / 2)));
    const latest = some(0.04, () => int(Math.floor(horizon / 3), horizon));
    return {
      id: id(k),
      minutes: chance(0.15) ? 0 : int(1, 60),
      uses,
      family: pick(families),
      pausable: chance(0.25),
      ...(earliest === undefined ? {} : { earliest }),
      ...(latest === undefined ? {} : { latest }),
    };
  });
  const lags = Array.from({ length: count < 2 ? 0 : int(0, 16) }, () => {
    const from = int(0, count - 2);
    const min = int(0, 90);
    const room = some(0.25, () => int(0, 150));
    const prefer = some(0.25, () => min + int(0, room ?? 60));
    const clock = clocks.length > 0 ? some(0.5, () => pick(clocks).id) : undefined;
    return {
      from: id(from),
      to: id(int(from + 1, count - 1)),
      min,
      ...(room === undefined ? {} : { max: min + room }),
      ...(prefer === undefined ? {} : { prefer }),
      ...(clock === undefined ? {} : { clock }),
    };
  });
  const holds = Array.from({ length: count < 2 ? 0 : chance(0.5) ? int(0, 2) : int(0, 8) }, () => {
    const resource = pick(resources);
    // Mostly along a lag, as a piece waits on a rack; now and then between any two.
    const along = lags.length > 0 && chance(0.92) ? pick(lags) : null;
    const from = int(0, count - 2);
    return {
      resource: resource.id,
      amount: chance(0.004) ? resource.capacity + 1 : int(1, Math.max(1, resource.capacity - 1)),
      from: along?.from ?? id(from),
      to: along?.to ?? id(int(from + 1, count - 1)),
    };
  });
  const fixed = operations
    .filter(() => chance(0.08))
    .slice(0, 3)
    .map((o) => {
      const start = int(0, Math.min(300, horizon - 200));
      return { id: o.id, start, end: start + (o.minutes === 0 ? int(0, 3) : o.minutes + int(0, 5)) };
    });
  const factor = (most: number): number => (chance(0.2) ? 0 : random() * most);
  return {
    format: 'muster-problem/1',
    horizon,
    calendars,
    clocks,
    resources,
    operations,
    lags,
    holds,
    units: Array.from({ length: int(0, 4) }, (_, u) => ({
      id: `u${u}`,
      ready: id(int(0, count - 1)),
      due: int(0, reach),
      weight: chance(0.2) ? 0 : int(1, 5),
    })),
    objective: {
      tardiness: factor(100),
      setup: factor(5),
      overrun: factor(2),
      completion: factor(0.1),
      runs: chance(0.4) ? 0 : factor(10),
      makespan: chance(0.6) ? 0 : factor(1),
    },
    fixed,
  };
}
