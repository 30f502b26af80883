/** A thin shell over the core: searches in slices, so that a cancel is heard between two of them. */
import { settle, startSearch, type Problem, type Search, type Solution } from '#core/kernel';
import { minutesSince, originOf, type Muster } from '#core/muster';
import { withHistory, withoutOpenWindows } from '#core/session';
import { compile, oneAfterAnother, worstLateness } from '#core/plan';
import type { FromPlanner, ToPlanner } from './protocol';

const SLICE_MS = 20;
const TELL_MS = 200;
/** The naive order needs no polish, only its first plans. */
const NAIVE_MS = 600;
/** … which a slow machine may need longer for. */
const NAIVE_MOST_MS = 10_000;

/** Up to so many operations settling is a matter of a twentieth of a second: every plan told is settled, beyond only the last. */
const SETTLED_AT_ONCE = 1000;
/** While there is no plan at all, so many times the time is given. */
const PATIENT_TIMES = 4;

let wanted = -1;

addEventListener('message', ({ data }: MessageEvent<ToPlanner>) => {
  if (data.kind === 'cancel') {
    if (wanted === data.run) wanted = -1;
    return;
  }
  wanted = data.run;
  if (data.kind === 'weigh') {
    void weigh(data);
    return;
  }
  plan(data).catch((error: unknown) =>
    tell({ kind: 'failed', run: data.run, message: error instanceof Error ? error.message : String(error) }),
  );
});

function tell(message: FromPlanner): void {
  postMessage(message);
}

/** Lets waiting messages in. */
function breathe(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, 0));
}

async function plan(order: ToPlanner & { kind: 'plan' }): Promise<void> {
  const { run, muster, seconds, seed, previous, stability } = order;
  const { log, now } = order;
  const compiled = compile(muster).problem;
  const problem =
    now === null
      ? compiled
      : withHistory(compiled, log, originOf(muster), minutesSince(originOf(muster), now));
  const budget = seconds * 1000;
  const begun = performance.now();
  const share = (): number => Math.min(1, (performance.now() - begun) / budget);
  let asked = problem;
  let search = begin(asked);
  let isMissed = false;
  // What has happened can make a window unreachable, proved or not; the rest is planned all the same, and that is said.
  const relax = (): void => {
    isMissed = true;
    asked = withoutOpenWindows(problem);
    search = begin(asked);
  };
  if (now !== null && search.best().status === 'infeasible') relax();

  function begin(p: Problem): Search {
    return startSearch(p, {
      seed,
      progress: share,
      stability,
      ...(previous ? { previous } : {}),
    });
  }

  const isUnknown = (): boolean => search.best().status === 'unknown';
  const hasNone = (): boolean => isUnknown() || search.best().status === 'infeasible';
  let shown: Solution | null = null;
  let told = 0;
  const patience = PATIENT_TIMES * budget;
  while (!search.isDone && (share() < 1 || (isUnknown() && performance.now() - begun < patience))) {
    const slice = performance.now() + SLICE_MS;
    do search.step(1);
    while (!search.isDone && performance.now() < slice);
    if (now !== null && !isMissed && (share() > 0.5 || search.isDone) && hasNone()) relax();
    if (shown === null || performance.now() - told > TELL_MS) {
      const best = search.best();
      if (best !== shown && best.status !== 'unknown')
        tell({
          kind: 'better',
          run,
          solution: asked.operations.length > SETTLED_AT_ONCE ? best : settle(asked, best),
        });
      shown = best;
      told = performance.now();
      tell({ kind: 'progress', run, share: share(), tried: search.tried });
    }
    await breathe();
    if (wanted !== run) return;
  }
  const naiveLateMinutes = order.now === null ? await naive(run, muster) : null;
  if (wanted === run)
    tell({ kind: 'done', run, solution: settle(asked, search.best()), naiveLateMinutes, isMissed });
}

const WEIGH_MS = 1800;

/** Plans each change for a short while and tells what it would come to. */
async function weigh(order: ToPlanner & { kind: 'weigh' }): Promise<void> {
  for (const [k, { id, muster }] of order.musters.entries()) {
    const origin = originOf(muster);
    const compiled = compile(muster).problem;
    const problem =
      order.now === null
        ? compiled
        : withHistory(compiled, order.log, origin, minutesSince(origin, order.now));
    let solution = await briefly(problem, order);
    if (solution.cost === null && order.now !== null)
      solution = await briefly(withoutOpenWindows(problem), order);
    if (wanted !== order.run) return;
    tell({
      kind: 'weighed',
      run: order.run,
      id,
      lateMinutes: solution.cost === null ? null : worstLateness(problem, solution),
      isLast: k === order.musters.length - 1,
    });
  }
}

async function briefly(problem: Problem, order: ToPlanner & { kind: 'weigh' }): Promise<Solution> {
  const begun = performance.now();
  const search = startSearch(problem, {
    progress: () => Math.min(1, (performance.now() - begun) / WEIGH_MS),
    ...(order.previous ? { previous: order.previous } : {}),
  });
  while (!search.isDone && performance.now() - begun < WEIGH_MS && wanted === order.run) {
    const slice = performance.now() + SLICE_MS;
    do search.step(1);
    while (!search.isDone && performance.now() < slice);
    await breathe();
  }
  return search.best();
}

async function naive(run: number, muster: Muster): Promise<number | null> {
  const problem = oneAfterAnother(muster);
  const begun = performance.now();
  const search = startSearch(problem, { progress: () => 1 });
  const gone = (): number => performance.now() - begun;
  const isOver = (): boolean =>
    gone() > (search.best().cost === null ? NAIVE_MOST_MS : NAIVE_MS) || wanted !== run;
  while (!search.isDone && !isOver()) {
    search.step(1);
    await breathe();
  }
  const solution = search.best();
  return solution.cost === null ? null : worstLateness(problem, solution);
}
