/**
 * The odds: how fast futures are played, how near the rule by which they are played comes to planning each anew, and whether what is
 * said comes true: simulated benches, each with drying, hands and luck of its own, planned and played once for real.
 */
import { seededRandom, solveProblem, type Problem, type Solution } from '#core/kernel';
import { compile, present, type Plan } from '#core/plan';
import type { LogEntry } from '#core/log';
import { instantAfter, originOf, type Muster } from '#core/muster';
import { pose, solvedPlan, withoutOpenWindows } from '#core/session';
import { benchRisks, courseOf, noRisks, Oddsmaker, Player, type Course, type Risks } from '#core/odds';
import { instance } from './instance';
import { Truth } from './truth';
import { fenMuster } from '../demo/fen';
import { foggyMuster } from '../demo/foggy';
import { figure, percent } from './table';

const MONDAY = '2027-03-01';
/** Futures in which the rule is held against planning anew: each takes a second. */
const NEAR = Number(process.env['NEAR'] ?? 200);
/** Benches against which what is given is held. */
const BENCHES = Number(process.env['BENCHES'] ?? 300);

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
  return (problem.calendars!.find((c) => c.id === 'sessions') ?? problem.calendars![0]!).open;
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

/**
 * Futures in which only evenings are lost: by the rule, planned anew by the kernel after each that was lost, and planned by a kernel that knows
 * beforehand which will be.
 */
function nearness(
  print: (text: string) => void,
  { problem, solution, course, risks }: Posed,
  futures: number,
): void {
  const none = new Float64Array(course.ids.length);
  const only: Risks = {
    ...risks,
    products: risks.products.map(() => ({ mean: 0, sigma: 0 })),
    works: risks.works.map(() => ({ mean: 0, sigma: 0 })),
    evening: 0,
    pace: 0,
    firstTime: { mean: 0, sigma: 0 },
    usage: 0,
    helpers: [],
    piece: 0,
    air: 0,
    cut: 0,
    mendChance: none,
  };
  const player = new Player(course, only, 7);
  let rule = 0;
  let anew = 0;
  let hindsight = 0;
  for (let f = 0; f < futures; f++) {
    const { ready } = player.play(f, 0);
    const lost = player.lostSessions();
    const told = [
      afterEach(problem, solution, lost),
      solveProblem(without(problem, lost), { iterations: 120 }),
    ];
    const ends = told.map((s) => new Map(s.operations.map((o) => [o.id, o.end])));
    course.units.forEach((u, k) => {
      const [after, knowing] = ends.map((end) => (end.get(course.ids[u.ready]!) ?? Infinity) <= u.due);
      if (ready[k]! <= u.due) rule++;
      if (after) anew++;
      if (knowing) hindsight++;
    });
  }
  print(
    `of ${futures * course.units.length} units in ${futures} futures with lost evenings in time: ${rule} by the rule, ${anew} planned anew after each, ${hindsight} planned with hindsight`,
  );
}

type Spell = readonly [from: number, to: number];

function without(problem: Problem, lost: readonly Spell[]): Problem {
  const isLost = ([from, to]: Spell): boolean => lost.some(([a, b]) => from >= a && to <= b);
  return {
    ...problem,
    calendars: problem.calendars!.map((c) => ({ ...c, open: c.open.filter((o) => !isLost(o)) })),
  };
}

/** As people do it: what was begun before an evening was lost stays, the rest is planned anew after it, with no knowledge of the next. */
function afterEach(problem: Problem, solution: Solution, lost: readonly Spell[]): Solution {
  const had = new Map((problem.fixed ?? []).map((f) => [f.id, f]));
  let plan = solution;
  [...lost]
    .sort((a, b) => a[0] - b[0])
    .forEach(([from, to], nth, all) => {
      const fixed = plan.operations
        .filter((o) => had.has(o.id) || o.start < from)
        .map(({ id, start, end }) => had.get(id) ?? { id, start, end });
      const isFixed = new Set(fixed.map((f) => f.id));
      const rest: Problem = {
        ...without(problem, all.slice(0, nth + 1)),
        operations: problem.operations.map((o) =>
          isFixed.has(o.id) ? o : { ...o, earliest: Math.max(o.earliest ?? 0, to) },
        ),
        fixed,
      };
      const options = { iterations: 120, previous: plan };
      const anew = solveProblem(rest, options);
      plan = anew.cost === null ? solveProblem(withoutOpenWindows(rest), options) : anew;
    });
  return plan;
}

/** How often the user thinks that an evening is lost: in words, so never quite. */
const SAID = [0, 0.05, 0.1, 1 / 6, 0.25, 1 / 3] as const;

/** Units given so many in ten, and those that were ready; the score beside that of one who knows the truth’s own distributions. */
function calibration(print: (text: string) => void, plans: readonly Posed[], benches: number): void {
  const bins = Array.from({ length: 10 }, () => ({ given: 0, came: 0 }));
  let brier = 0;
  let ideal = 0;
  let count = 0;
  for (let b = 0; b < benches; b++) {
    const random = seededRandom(500 + b);
    const { course: planned, risks } = plans[b % plans.length]!;
    // Dates nearer and farther, so that odds of every size are given.
    const course = {
      ...planned,
      units: planned.units.map((u) => ({ ...u, due: u.due + 1440 * Math.floor(9 * random() - 2) })),
    };
    const lostShare = 0.03 + 0.27 * random();
    const said = SAID.reduce((near, s) => (Math.abs(s - lostShare) < Math.abs(near - lostShare) ? s : near));
    const told = { ...risks, lost: said, cut: 0.6 * said };
    const odds = new Oddsmaker(course, told, 0, 11).more(200);
    const { ready } = new Player(course, told, b, new Truth(course, told, b, lostShare)).play(b, 0);
    // Who knows how such benches are, but not which this one is.
    const knows = course.units.map(() => 0);
    for (let f = 0; f < IDEAL; f++) {
      const other = 100_000 + b * IDEAL + f;
      const { ready: drawn } = new Player(course, told, b, new Truth(course, told, other, lostShare)).play(
        f,
        0,
      );
      course.units.forEach((u, k) => (knows[k]! += drawn[k]! <= u.due ? 1 / IDEAL : 0));
    }
    course.units.forEach((u, k) => {
      const p = odds.units[k]!.inTime;
      const came = ready[k]! <= u.due ? 1 : 0;
      const bin = bins[Math.min(9, Math.round(p * 10) - (p < 0.05 ? 0 : 1))]!;
      bin.given++;
      bin.came += came;
      brier += (p - came) ** 2;
      ideal += (knows[k]! - came) ** 2;
      count++;
    });
  }
  const told = bins.flatMap(({ given, came }, k) =>
    given > 0 ? [`${k + 1} in 10: ${percent(came / given)} of ${given}`] : [],
  );
  print(`${benches} benches of another truth, given → came: ${told.join(' · ')}`);
  print(
    `Brier ${figure(brier / count, 3)}, of one who knows how such benches are ${figure(ideal / count, 3)}`,
  );
}

/** Futures by which the ideal forecaster knows. */
const IDEAL = 100;

/** Days at the bench after which it is asked again. */
const WEEK = 7 * 1440;

/**
 * What a week of log is worth: every bench is played for a week as it is, its log written (minutes by the clock, looks at what dries), the
 * rest planned again; then both are asked, who has read the log and who has not.
 */
function sharpened(
  print: (text: string) => void,
  { muster, solution, course, risks }: Posed,
  benches: number,
): void {
  let before = 0;
  let after = 0;
  let count = 0;
  for (let b = 0; b < benches; b++) {
    const truth = new Truth(course, risks, b, 0.1);
    const player = new Player(course, risks, b, truth);
    player.play(b, 0);
    const log = logOf(muster, course, player, truth, WEEK);
    const now = instantAfter(originOf(muster), WEEK);
    // What the truth differs by is told against the minutes by the book: they stay as they are.
    const posedAgain = pose({ ...muster, bench: { ...muster.bench, usesLessons: false } }, log, now);
    const rest = solveProblem(posedAgain.problem, { iterations: 60, previous: solution, stability: 1 });
    if (rest.cost === null) continue;
    const { plan } = solvedPlan(posedAgain, rest);
    const again = courseOf(posedAgain.problem, rest, sessionsIn(posedAgain.problem));
    const asked = (entries: readonly LogEntry[]): Risks => ({
      ...benchRisks(
        posedAgain.muster,
        posedAgain.problem,
        posedAgain.steps,
        posedAgain.clocks,
        plan,
        entries,
        WEEK,
      ).risks,
      lost: 0.1,
    });
    const blind = asked([]);
    const reads = asked(log);
    const odds = [blind, reads].map((r) => new Oddsmaker(again, r, WEEK, 11).more(150));
    const { ready } = new Player(again, blind, b, new Truth(again, blind, b, 0.1)).play(b, WEEK);
    again.units.forEach((u, k) => {
      const came = ready[k]! <= u.due ? 1 : 0;
      before += (odds[0]!.units[k]!.inTime - came) ** 2;
      after += (odds[1]!.units[k]!.inTime - came) ** 2;
      count++;
    });
  }
  print(
    `${count} units after a week: Brier ${figure(before / count, 3)} without its log, ${figure(after / count, 3)} with it`,
  );
}

/** What a week at a bench leaves in its log. */
function logOf(muster: Muster, course: Course, player: Player, truth: Truth, until: number): LogEntry[] {
  const origin = originOf(muster);
  const log: LogEntry[] = [];
  const write = (minute: number, entry: object): void => {
    const at = instantAfter(origin, Math.round(minute));
    log.push({ id: `e${String(log.length).padStart(6, '0')}`, at, ...entry } as LogEntry);
  };
  const ended = course.ids
    .map((step, i) => ({ step, i, end: player.endOf(i) }))
    .filter(({ i, end }) => course.minutes[i] !== 0 && end > 0 && end <= until)
    .sort((a, b) => a.end - b.end);
  /** pieces of each kind of work done on a day */
  const pieces = new Map<string, number>();
  ended.forEach(({ step, i, end }) => {
    const row = `${truth.workOf(i)} ${Math.floor(end / 1440)}`;
    const nth = (pieces.get(row) ?? 0) + 1;
    pieces.set(row, nth);
    write(end, { kind: 'done', step, minutes: truth.took[i]!, isMeasured: true, nth });
    const dry = course.after[i]!.find((l) => l.clock >= 0 && l.min > 0);
    if (!dry) return;
    // A look when it should be dry, and others until it is.
    const product = truth.productOf(i);
    const really = dry.min * (product < 0 ? 1 : truth.drying(product, end));
    for (let look = dry.min; end + look <= until; look *= 1.3) {
      if (look >= really) {
        write(end + look, { kind: 'dry', step });
        break;
      }
      write(end + look, { kind: 'not-dry', step, moreMinutes: Math.max(1, Math.round(0.3 * look)) });
    }
  });
  return log.sort((a, b) => a.at.localeCompare(b.at) || a.id.localeCompare(b.id));
}

/** A plan of ten thousand steps, each with some risk. */
function large(print: (text: string) => void): void {
  const problem = instance('batch-10000-1');
  const begin = performance.now();
  const solution = solveProblem(problem, { iterations: 1 });
  const solved = performance.now() - begin;
  const { length } = problem.operations;
  const course = courseOf(problem, solution, sessionsIn(problem));
  const kind = (k: number): Int32Array =>
    Int32Array.from(problem.operations, (o, i) => (o.minutes > 0 ? i % k : -1));
  const risks: Risks = {
    ...noRisks(length),
    product: kind(30),
    products: Array.from({ length: 30 }, () => ({ mean: 0, sigma: 0.3 })),
    evening: 0.2,
    work: kind(60),
    works: Array.from({ length: 60 }, () => ({ mean: 0, sigma: 0.3 })),
    piece: 0.2,
    air: 0.05,
    lost: 1 / 6,
    cut: 0.1,
    mendChance: new Float64Array(length).fill(0.03),
    mendMinutes: new Float64Array(length).fill(8),
    mendDrying: new Float64Array(length).fill(45),
  };
  const first = performance.now();
  const maker = new Oddsmaker(course, risks, 0, 7);
  maker.more(10);
  const ten = performance.now() - first;
  maker.more(990);
  const whole = performance.now() - first;
  print(
    `${length} operations (planned in ${figure(solved / 1000, 1)} s): ten futures in ${figure(ten)} ms, a thousand in ${figure(whole / 1000, 1)} s`,
  );
}

export function benchOdds(print: (text: string) => void): void {
  print('\nWill I make it? The odds');
  const demo = posed(fenMuster(MONDAY), 1500);
  speed(print, demo);
  nearness(print, demo, NEAR);
  const plans = [
    demo,
    posed(foggyMuster(MONDAY, ['folk', 'patience']), 300),
    posed(foggyMuster(MONDAY, ['herons', 'market']), 300),
  ];
  calibration(print, plans, BENCHES);
  sharpened(print, demo, 100);
  large(print);
}
