/**
 * The odds: how fast futures are played, how near the rule by which they are played comes to planning each anew, and whether what is
 * said comes true: simulated benches, each with drying, hands and luck of its own, planned and played once for real.
 */
import { solveProblem, type Problem, type Solution } from '#core/kernel';
import { compile, present, type Plan } from '#core/plan';
import type { Muster } from '#core/muster';
import { benchRisks, courseOf, Oddsmaker, Player, type Course, type Risks } from '#core/odds';
import { fenMuster } from '../demo/fen';
import { foggyMuster } from '../demo/foggy';
import { figure, percent } from './table';

const MONDAY = '2027-03-01';

interface Posed {
  readonly muster: Muster;
  readonly problem: Problem;
  readonly solution: Solution;
  readonly plan: Plan;
  readonly course: Course;
  readonly risks: Risks;
}

function posed(muster: Muster, iterations: number): Posed {
  const compiled = compile(muster);
  const solution = solveProblem(compiled.problem, { iterations });
  const plan = present(muster, compiled, solution);
  const course = courseOf(compiled.problem, solution, sessionsIn(compiled.problem));
  const { risks } = benchRisks(muster, compiled.problem, compiled.steps, compiled.clocks, plan, [], 0);
  return { muster, problem: compiled.problem, solution, plan, course, risks };
}

function sessionsIn(problem: Problem): readonly (readonly [number, number])[] {
  return problem.calendars!.find((c) => c.id === 'sessions')!.open;
}

function speed(print: (text: string) => void, { course, risks }: Posed): void {
  const maker = new Oddsmaker(course, risks, 0, 7);
  const begin = performance.now();
  maker.more(10);
  const first = performance.now() - begin;
  maker.more(990);
  print(
    `${course.ids.length} operations: ten futures in ${figure(first)} ms, a thousand in ${figure(performance.now() - begin)} ms`,
  );
}

/** Futures in which only evenings are lost: by the rule, and planned anew by the kernel that knows which. */
function nearness(print: (text: string) => void, { problem, course, risks }: Posed, futures: number): void {
  const none = new Float64Array(course.ids.length);
  const only: Risks = {
    ...risks,
    products: risks.products.map(() => ({ mean: 0, sigma: 0 })),
    works: risks.works.map(() => ({ mean: 0, sigma: 0 })),
    evening: 0,
    piece: 0,
    air: 0,
    cut: 0,
    mendChance: none,
  };
  const player = new Player(course, only, 7);
  let rule = 0;
  let kernel = 0;
  for (let f = 0; f < futures; f++) {
    const { ready } = player.play(f, 0);
    const lost = player.lostSessions();
    const isLost = ([from, to]: [number, number]): boolean => lost.some(([a, b]) => from >= a && to <= b);
    const anew = solveProblem(
      {
        ...problem,
        calendars: problem.calendars!.map((c) => ({ ...c, open: c.open.filter((o) => !isLost(o)) })),
      },
      { iterations: 120 },
    );
    const end = new Map(anew.operations.map((o) => [o.id, o.end]));
    course.units.forEach((u, k) => {
      if (ready[k]! <= u.due) rule++;
      if ((end.get(course.ids[u.ready]!) ?? Infinity) <= u.due) kernel++;
    });
  }
  print(
    `of ${futures * course.units.length} units in ${futures} futures with lost evenings in time: ${rule} by the rule, ${kernel} planned anew with hindsight`,
  );
}

/**
 * Benches whose truth is drawn wider or narrower than the risks say: each is forecast without knowing it, then played once as it is.
 * @param width by how much the true spreads are larger than those that are reckoned with
 */
function calibration(
  print: (text: string) => void,
  plans: readonly Posed[],
  benches: number,
  width: number,
): void {
  const bins = Array.from({ length: 10 }, () => ({ given: 0, came: 0 }));
  let brier = 0;
  let count = 0;
  for (let b = 0; b < benches; b++) {
    const { course, risks } = plans[b % plans.length]!;
    const lost = [0, 0.05, 0.1, 1 / 6, 0.25][b % 5]!;
    const told = { ...risks, lost };
    const odds = new Oddsmaker(course, told, 0, 11).more(200);
    const wider = (f: { mean: number; sigma: number }) => ({ ...f, sigma: f.sigma * width });
    const truth = {
      ...told,
      products: told.products.map(wider),
      works: told.works.map(wider),
      evening: told.evening * width,
      piece: told.piece * width,
    };
    const { ready } = new Player(course, truth, 9000 + b).play(b, 0);
    course.units.forEach((u, k) => {
      const p = odds.units[k]!.inTime;
      const came = ready[k]! <= u.due ? 1 : 0;
      const bin = bins[Math.min(9, Math.floor(p * 10))]!;
      bin.given++;
      bin.came += came;
      brier += (p - came) ** 2;
      count++;
    });
  }
  const told = bins.flatMap(({ given, came }, k) =>
    given > 0 ? [`${k / 10}–${(k + 1) / 10}: ${percent(came / given)} of ${given}`] : [],
  );
  print(`true spreads × ${width}: Brier ${figure(brier / count, 3)}; given → came: ${told.join(' · ')}`);
}

export function benchOdds(print: (text: string) => void): void {
  print('\nWill I make it? The odds');
  const demo = posed(fenMuster(MONDAY), 400);
  speed(print, demo);
  nearness(print, demo, 12);
  const plans = [
    demo,
    posed(foggyMuster(MONDAY, ['folk', 'patience']), 300),
    posed(foggyMuster(MONDAY, ['herons', 'market']), 300),
  ];
  for (const width of [1, 0.7, 1.4]) calibration(print, plans, 300, width);
}
