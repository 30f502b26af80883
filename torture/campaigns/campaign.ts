/** Whole campaigns: a random painter lives with a muster, act by act, from the first evening to the last coat. */
import type { Verdict } from '../verdict';
import { ACTS, DONE, setRight, type Act } from './acts';
import { Life } from './life';
import { named, openAtTheEnd, TRUTHS } from './truths';

/** What came of one campaign. */
export interface Played {
  /** empty: nothing broke; otherwise the first that did, with its act */
  readonly faults: readonly string[];
  readonly acts: number;
  readonly steps: number;
}

/** @param acts number of acts before what is left is painted to its end */
export async function playCampaign(seed: number, acts = 40, mostSteps = 60): Promise<Played> {
  const loud = listening();
  const life = await Life.begin(seed, mostSteps);
  const done: string[] = [];
  try {
    for (let k = 0; k < acts; k++) {
      const act = drawn(life);
      done.push(act.name);
      const faults = [...(await lived(life, act)), ...loud.heard()];
      if (faults.length > 0) return told(faults, done, life);
    }
    const faults = [...(await toTheEnd(life, done)), ...loud.heard()];
    return told(faults, done, life);
  } catch (error) {
    const words = error instanceof Error ? (error.stack ?? error.message) : String(error);
    return told([`thrown: ${words.split('\n').slice(0, 4).join(' ')}`], done, life);
  } finally {
    life.close();
    loud.end();
  }

  function told(faults: readonly string[], names: readonly string[], { bench }: Life): Played {
    const last = names.slice(-3).join(' › ');
    return {
      faults: faults.map((f) => `seed ${seed}, act ${names.length} (${last}): ${f}`),
      acts: names.length,
      steps: bench.evening.plan()?.steps.size ?? 0,
    };
  }
}

export interface Season {
  readonly count: number;
  /** first seed; without it 1 */
  readonly from?: number;
  /** acts and steps of each; without them 20 to 80, and 20 to 200 */
  readonly acts?: number;
  readonly mostSteps?: number;
  /** hears of each campaign that broke, as it did */
  readonly onFault?: (text: string) => void;
}

export async function tortureCampaigns(season: Season): Promise<Verdict> {
  const { count, from = 1, acts, mostSteps, onFault } = season;
  const faults: string[] = [];
  let lived = 0;
  let steps = 0;
  for (let seed = from; seed < from + count; seed++) {
    const played = await playCampaign(
      seed,
      acts ?? 20 + ((seed * 7) % 60),
      mostSteps ?? 20 + ((seed * 37) % 180),
    );
    faults.push(...played.faults.slice(0, 2));
    played.faults.slice(0, 2).forEach((f) => onFault?.(f));
    lived += played.acts;
    steps += played.steps;
  }
  return { faults, told: `${count} campaigns of ${steps} steps, ${lived} acts` };
}

/** An act, and all that must hold after it. */
async function lived(life: Life, act: Act): Promise<string[]> {
  const faults = await act.run(life);
  await life.rest();
  for (const truth of TRUTHS) faults.push(...(await truth(life)));
  return faults;
}

function drawn(life: Life): Act {
  const can = ACTS.filter((a) => a.can?.(life) ?? true);
  let ticket = life.random() * can.reduce((sum, a) => sum + a.weight, 0);
  for (const act of can) {
    ticket -= act.weight;
    if (ticket < 0) return act;
  }
  return DONE;
}

/** More presses than any of these musters has steps, cures and passes. */
const MOST_PRESSES = 600;

/** … and more cures than an error has. */
const MOST_REPAIRS = 30;

/** She paints on until nothing is left: every piece can come to its end. */
async function toTheEnd(life: Life, done: string[]): Promise<string[]> {
  life.tab.planner.replan();
  await life.rest();
  let repairs = 0;
  for (let k = 0; k < MOST_PRESSES; k++) {
    const { planner } = life.tab;
    if (planner.state() !== 'planned') {
      if (++repairs > MOST_REPAIRS)
        return [
          `${planner.state()} for good: ${planner.problem() ?? life.tab.store.findings()[0]?.text ?? ''}`,
        ];
      await setRight(life);
      continue;
    }
    for (const pilot of life.bench.evening.pilots())
      if (pilot.verdict !== 'approved') await life.bench.evening.judge(pilot, 'approved');
    await life.rest();
    if (life.bench.evening.run().length === 0) break;
    done.push(DONE.name);
    const faults = await lived(life, DONE);
    if (faults.length > 0) return faults;
  }
  const open = openAtTheEnd(life.tab.planner.plan(), life.tab.logbook.entries());
  return open.length === 0
    ? []
    : [`${open.length} steps never come to their end, ${named(open[0]!)} among them`];
}

/** Hears what is thrown where nobody catches it, and what is written to the console as an error. */
function listening(): { heard(): string[]; end(): void } {
  const list: string[] = [];
  const take = (error: unknown): void =>
    void list.push(error instanceof Error ? (error.stack ?? error.message) : String(error));
  const consoleError = console.error;
  console.error = (...args: unknown[]) => void list.push(args.map(String).join(' '));
  process.on('unhandledRejection', take);
  return {
    heard: () => list.splice(0).map((text) => `on the console: ${text.split('\n').slice(0, 3).join(' ')}`),
    end: () => {
      console.error = consoleError;
      process.off('unhandledRejection', take);
    },
  };
}
