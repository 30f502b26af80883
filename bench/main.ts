/**
 * `npm run bench [-- quick | table | dates | runs | calm | growth | change | moves | highs | minizinc | demo | check | page | lists | looks | odds | learning | variety]`: measures the kernel side by side in one run. Times on a
 * shared machine are noisy; ratios within a run and growth with size say more than any single figure.
 */
import { BARE, conflictWords } from '#core/plan';
import {
  movedOperations,
  seededRandom,
  solveProblem,
  startSearch,
  validateSolution,
  MOVES,
  type Problem,
} from '#core/kernel';
import { checkMuster, compile } from '#core/plan';
import { appearanceOf, effectsOf, productsByName } from '#core/optics';
import { checkCraft, composed, FIRST_LOOKS, LOOKS, withLook } from '#core/recipe';
import { fenMuster } from '../demo/fen';
import { byHighs } from './highs';
import { instance } from './instance';
import { byMiniZinc, hasMiniZinc } from './minizinc';
import { benchLearning } from './learning';
import { benchLists } from './lists';
import { benchOdds } from './odds';
import { benchPage } from './page';
import { PEERS } from './peers';
import { dates, rhythm } from './rhythm';
import { run } from './run';
import { slips } from './slips';
import { figure, percent, table } from './table';
import { benchVariety } from './variety';

const print = (text: string): boolean => process.stdout.write(`${text}\n`);
const wanted = process.argv.slice(2);
const wants = (part: string): boolean => wanted.length === 0 || wanted.includes(part);

if (wants('variety')) benchVariety(fenMuster('2027-03-01'), print);

if (wants('demo')) {
  print('\nThe demo muster, compiled and planned');
  const begin = performance.now();
  const { problem } = compile(fenMuster('2027-03-01'));
  const compiled = performance.now() - begin;
  const result = run(problem, 8);
  print(
    `${problem.operations.length} operations; compiled in ${figure(compiled)} ms; first plan after ${figure(result.firstMs)} ms; ` +
      `after ${figure(result.seconds, 1)} s cost ${figure(result.solution.cost?.total, 2)}, ` +
      `${figure(result.solution.cost?.tardiness)} weighted minutes late, bound ${figure(result.solution.bound, 2)}`,
  );
}

if (wants('odds')) benchOdds(print);

if (wants('learning')) benchLearning(print);

if (wants('looks')) {
  print('\nHow it will look: 30 layers, each figure the best of ten');
  const hull = fenMuster('2027-03-01').recipes.find((r) => r.id === 'dredger')!.layers;
  const layers = [...hull, ...hull.slice(0, 10).map((l) => ({ ...l, id: `${l.id}-again` }))];
  const shelf = productsByName([]);
  const best = (work: () => unknown): string => {
    const times = Array.from({ length: 10 }, () => {
      const begin = performance.now();
      work();
      return performance.now() - begin;
    });
    return figure(Math.min(...times), 1);
  };
  const zones = Array.from({ length: 6 });
  print(`colour on 6 zones × 3 surfaces: ${best(() => zones.map(() => appearanceOf(layers, shelf)))} ms`);
  print(`what becomes of its effects: ${best(() => effectsOf(layers, shelf))} ms`);
  const looks = LOOKS.reduce((made, l) => withLook(made, l.kind), FIRST_LOOKS);
  print(`composing all ${looks.list.length} wishes: ${best(() => composed({ zones: [] }, looks))} ms`);
}

if (wants('table') || wants('quick')) {
  print(
    '\nCost by instance: this kernel at its seconds, a native peer, the greedy plan, the optimum where known',
  );
  const rows: string[][] = [];
  for (const [name, peer] of Object.entries(PEERS)) {
    if (wants('quick') && wanted.length > 0 && peer.seconds > 5) continue;
    const problem = instance(name);
    const result = run(problem, peer.seconds);
    const { solution } = result;
    const cost = solution.cost!.total;
    const reference = peer.optimum ?? peer.native;
    rows.push([
      name,
      String(problem.operations.length),
      figure(peer.seconds),
      figure(cost, 2),
      solution.status,
      figure(solution.cost!.tardiness),
      percent((cost - solution.bound!) / cost),
      figure(result.first, 2),
      figure(result.firstMs),
      peer.native === undefined ? '–' : `${figure(peer.native, 2)} (${peer.nativeSeconds} s)`,
      figure(peer.optimum, 2),
      reference === undefined ? '–' : percent(cost / reference - 1),
      figure(peer.greedy, 2),
    ]);
  }
  print(
    table(
      [
        'instance',
        'ops',
        's',
        'cost',
        'status',
        'late',
        'gap',
        'first',
        'ms',
        'native',
        'optimum',
        'to peer',
        'greedy',
      ],
      rows,
    ),
  );
  for (const name of ['tiny-bad-no-time-to-clean', 'tiny-bad-rack-small', 'tiny-bad-window-shut']) {
    const { solution } = run(instance(name), 2);
    print(
      `${name}: ${solution.status} – ${solution.conflict === null ? '' : conflictWords(solution.conflict, BARE)}`,
    );
  }
}

if (wants('dates')) {
  print('\nBatches whose dates can all be kept, and whose first plans are late: how soon nobody is');
  print(dates(['tight-600', 'tight-2000', 'rhythm-300-1', 'batch-600-1', 'batch-2000-1', 'batch-10000-1']));
}

if (wants('runs')) {
  print('\nRuns: musters planned with and without them, the plans counted alike; means over three seeds');
  print(rhythm(3));
}

if (wants('calm')) {
  print('\nOne step takes 30 min longer: steps of other sessions that change their session');
  print(slips('demo', compile(fenMuster('2027-03-01')).problem, 200, [8, 6]));
  print(slips('rhythm-700-1', instance('rhythm-700-1'), 200, [20, 6]));
}

if (wants('growth')) {
  print('\nGrowth: the first plan, and the memory of the process after ten seconds of search');
  const rows: string[][] = [];
  let before: { operations: number; ms: number } | null = null;
  for (const name of ['batch-600-1', 'batch-2000-1', 'batch-10000-1']) {
    const problem = instance(name);
    run(problem, 0.001);
    const result = run(problem, 10);
    const operations = problem.operations.length;
    rows.push([
      name,
      String(operations),
      figure(result.firstMs),
      before === null
        ? '–'
        : `${(Math.log(result.firstMs / before.ms) / Math.log(operations / before.operations)).toFixed(2)}`,
      `${figure(process.memoryUsage().rss / 1e6)} MB`,
      figure(result.tried / 10),
    ]);
    before = { operations, ms: result.firstMs };
  }
  print(table(['instance', 'ops', 'first ms', 'exponent', 'memory', 'tries/s'], rows));
}

if (wants('change')) {
  print('\nAnswering a change: one operation fixed later, the plan mended (12 changes to batch-600-1)');
  const problem = instance('batch-600-1');
  const base = solveProblem(problem, { iterations: 3000, seed: 2 });
  const random = seededRandom(5);
  const busy = base.operations.filter((o) => o.end > o.start);
  const rows: string[][] = [];
  for (let k = 0; k < 12; k++) {
    const o = busy[Math.floor(random() * busy.length)]!;
    const later = [5, 30, 1440][k % 3]!;
    const changed: Problem = {
      ...problem,
      fixed: [{ id: o.id, start: o.start + later, end: o.end + later }],
    };
    const begin = performance.now();
    const search = startSearch(changed, { previous: base, stability: 5 });
    search.step(1);
    const mended = search.best();
    const ms = performance.now() - begin;
    while (!search.isDone && performance.now() - begin < 1000) search.step(20);
    const calmer = search.best();
    const verdict =
      mended.cost === null ? mended.status : validateSolution(changed, mended).violations.length;
    rows.push([
      `${o.id} +${later} min`,
      figure(ms),
      String(verdict),
      mended.cost === null ? '–' : String(movedOperations(changed, base, mended).length),
      figure(mended.cost?.total),
      calmer.cost === null ? '–' : String(movedOperations(changed, base, calmer).length),
      figure(calmer.cost?.total),
    ]);
  }
  print(table(['change', 'ms', 'faults', 'moved', 'cost', 'moved, 1 s', 'cost, 1 s'], rows));
}

if (wants('moves')) {
  print(
    '\nWhat each move of the search is worth: cost when it is left out, the same number of tries, mean of 3 seeds',
  );
  const rows: string[][] = [];
  const all = MOVES.map((m) => m.name);
  for (const [name, iterations] of [
    ['batch-60-1', 6000],
    ['batch-200-1', 6000],
    ['batch-600-1', 4000],
  ] as const) {
    const problem = instance(name);
    const mean = (without: readonly string[]): number =>
      [1, 2, 3].reduce((sum, seed) => {
        const search = startSearch(problem, { seed, without, progress: () => search.tried / iterations });
        while (!search.isDone && search.tried < iterations) search.step(20);
        return sum + search.best().cost!.total / 3;
      }, 0);
    const whole = mean([]);
    rows.push([name, figure(whole, 1), ...all.map((m) => percent(mean([m]) / whole - 1))]);
  }
  print(table(['instance', 'all', ...all.map((m) => `no ${m}`)], rows));
}

if (wants('highs')) {
  print('\nA general-purpose solver (HiGHS, disjunctive model) beside this kernel on job shops');
  const rows: string[][] = [];
  for (const [name, seconds] of [
    ['jobshop-ft06', 10],
    ['jobshop-la01', 20],
    ['jobshop-ft10', 20],
  ] as const) {
    const problem = instance(name);
    const milp = await byHighs(problem, seconds);
    const ours = run(problem, Math.min(seconds, 10));
    rows.push([
      name,
      milp === null ? '–' : `${figure(milp.objective)} ${milp.status}`,
      milp === null ? '–' : figure(milp.seconds, 1),
      `${figure(ours.solution.cost!.total)} ${ours.solution.status}`,
      figure(ours.seconds, 1),
    ]);
  }
  print(table(['instance', 'HiGHS', 's', 'this kernel', 's'], rows));
}

if (wants('minizinc')) {
  print('\nA general constraint solver (MiniZinc with Gecode, the whole model) beside this kernel');
  if (!hasMiniZinc())
    print('Left out: there is no `minizinc` on the PATH (Debian: apt-get install minizinc).');
  else {
    const rows: string[][] = [];
    for (const [name, peer] of Object.entries(PEERS)) {
      if (peer.optimum === undefined) continue;
      const problem = instance(name);
      const cp = await byMiniZinc(problem, 20);
      const ours = run(problem, Math.min(peer.seconds, 10));
      rows.push([
        name,
        cp === null ? 'too long for tables' : `${figure(cp.objective, 2)} ${cp.status}`,
        cp === null ? '–' : figure(cp.seconds, 1),
        `${figure(ours.solution.cost!.total, 2)} ${ours.solution.status}`,
        figure(ours.seconds, 1),
        figure(peer.optimum, 2),
      ]);
    }
    print(table(['instance', 'MiniZinc', 's', 'this kernel', 's', 'optimum'], rows));
  }
}

if (wants('check')) {
  print(
    '\nChecking 500 pieces of 20 layers: the whole muster, and at worst (every piece a recipe of its own)',
  );
  const demo = fenMuster('2027-03-01');
  const recipe = demo.recipes.find((r) => r.layers.length === 20)!;
  const recipes = Array.from({ length: 500 }, (_, k) => ({ ...recipe, id: `r${k}` }));
  const unit = demo.units[4]!;
  const pieces = recipes.map((_, k) => ({ ...unit.pieces[0]!, id: `p${k}`, recipe: `r${k % 25}` }));
  const muster = { ...demo, recipes: recipes.slice(0, 25), units: [{ ...unit, pieces }] };
  const rows = [1, 2, 3, 4].map((round) => {
    const a = performance.now();
    checkMuster(muster);
    const b = performance.now();
    for (const r of recipes) checkCraft(r, ['played']);
    return [`round ${round}`, figure(b - a, 1), figure(performance.now() - b, 1)];
  });
  print(table(['', '500 pieces, 25 recipes, ms', '500 recipes, ms'], rows));
}

// In a browser, and long: only when it is asked for.
if (wanted.includes('page')) await benchPage();
if (wanted.includes('lists')) await benchLists();
