import {
  movedOperations,
  seededRandom,
  settle,
  startSearch,
  type Problem,
  type Solution,
} from '#core/kernel';
import { withReserve } from '#core/plan';
import { figure, percent, table } from './table';

/** What a step costs that leaves its session: as at the bench. */
const CALM = 24;
const SLIP = 30;
/** From this share of the time on, and so often, seconds, it is seen whether it has come to rest. */
const CALM_FROM = 0.3;
const LOOK = 0.2;

interface Slip {
  /** share of the steps of other sessions that changed their session */
  readonly moved: number;
  /** somebody would be late if everything simply went on later or found other room */
  readonly isAtStake: boolean;
}

/**
 * One step takes half an hour longer and the rest is planned again: how many steps of other sessions change their session.
 * @param seconds for the plan before, and for each plan after
 */
export function slips(
  name: string,
  problem: Problem,
  many: number,
  seconds: readonly [number, number],
): string {
  const before = settle(problem, withRoom(problem, seconds[0]));
  const random = seededRandom(11);
  const found: Slip[] = [];
  let late = 0;
  for (let k = 0; k < many; k++) {
    const slip = slipOf(problem, before, random());
    const search = planned(slip.problem, seconds[1], { previous: before, stability: CALM });
    const after = search.best();
    // What has happened can shut a window for good: then there is nothing to compare.
    if (after.cost === null) continue;
    if (after.cost.tardiness > 0) late++;
    const moved = new Set(movedOperations(slip.problem, before, after));
    const others = slip.others.filter((id) => moved.has(id)).length;
    found.push({
      moved: others / Math.max(1, slip.others.length),
      isAtStake: isAtStake(slip.problem, before),
    });
  }
  const row = (label: string, list: readonly Slip[]): string[] => {
    const shares = list.map((s) => s.moved).sort((a, b) => a - b);
    const at = (share: number): string =>
      shares.length === 0
        ? '–'
        : percent(shares[Math.min(shares.length - 1, Math.floor(share * shares.length))]!);
    return [
      label,
      figure(shares.length),
      at(0.5),
      at(0.9),
      at(0.95),
      at(1),
      figure(shares.filter((s) => s > 0.05).length),
    ];
  };
  return [
    `${name}: ${many} slips, ${late} of them with somebody late afterwards`,
    table(
      ['', 'slips', 'median', '90 %', '95 %', 'most', 'above 5 %'],
      [
        row(
          'no date at stake',
          found.filter((s) => !s.isAtStake),
        ),
        row(
          'a date at stake',
          found.filter((s) => s.isAtStake),
        ),
      ],
    ),
  ].join('\n');
}

/** As at the planning desk: with a part of each session kept free, at last made true with all hours. */
function withRoom(problem: Problem, seconds: number): Solution {
  const reserved = planned(withReserve(problem, 0), 0.95 * seconds, {}).best();
  if (reserved.cost?.tardiness !== 0) return planned(problem, seconds, {}).best();
  return planned(problem, 0.05 * seconds, { previous: reserved, stability: 1000 }).best();
}

function planned(problem: Problem, seconds: number, options: { previous?: Solution; stability?: number }) {
  const begin = performance.now();
  const gone = (): number => (performance.now() - begin) / 1000;
  const search = startSearch(problem, { seed: 1, progress: () => gone() / seconds, ...options });
  const { previous } = options;
  let looked = CALM_FROM * seconds;
  while (!search.isDone && gone() < seconds) {
    search.step(previous ? 1 : 20);
    if (!previous || gone() < looked) continue;
    // As at the bench it ends once nothing leaves its session any more.
    looked = gone() + LOOK;
    const best = search.best();
    if (best.cost?.tardiness === 0 && movedOperations(problem, previous, best).length === 0) break;
  }
  return search;
}

/** Is the old plan, mended at once and not yet improved, late? */
function isAtStake(problem: Problem, before: Solution): boolean {
  const search = startSearch(problem, { seed: 1, progress: () => 0, previous: before, stability: CALM });
  // One way to mend it a step.
  while (search.tried === 0 && !search.isDone) search.step(1);
  const { cost } = search.best();
  return cost === null || cost.tardiness > 0;
}

/** The problem as it stands when a step has taken longer, and the steps of other sessions that are still to come. */
function slipOf(problem: Problem, before: Solution, luck: number) {
  const operations = new Map(problem.operations.map((o) => [o.id, o]));
  const hands = before.operations
    .filter((o) => o.end > o.start)
    .sort((a, b) => a.start - b.start || a.end - b.end);
  const slipped = hands[Math.floor(luck * hands.length)]!;
  const now = slipped.end + SLIP;
  const fixed = before.operations
    .filter((o) => o.start < slipped.start || o.id === slipped.id)
    .map((o) => ({ id: o.id, start: o.start, end: o.id === slipped.id ? now : o.end }));
  const isDone = new Set(fixed.map((f) => f.id));
  const open = (problem.calendars ?? []).find((c) => c.id === 'sessions')?.open ?? [];
  const sessionAt = (t: number): number => open.findIndex(([a, b]) => a <= t && t < b);
  const here = sessionAt(slipped.start);
  return {
    problem: {
      ...problem,
      operations: problem.operations.map((o) =>
        isDone.has(o.id) ? o : { ...o, earliest: Math.max(o.earliest ?? 0, now) },
      ),
      fixed,
    },
    others: before.operations
      .filter((o) => !isDone.has(o.id) && operations.get(o.id)!.minutes > 0 && sessionAt(o.start) !== here)
      .map((o) => o.id),
  };
}
