/** The odds of a solved plan, told in parts as futures are played: the first at once, then narrowing. */
import type { Problem, Solution } from '#core/kernel';
import { minutesUntil, originOf, type Instant, type Muster } from '#core/muster';
import type { LogEntry } from '#core/log';
import type { Solved } from '#core/session';
import { benchRisks } from './bench';
import { courseOf } from './course';
import { Oddsmaker, type Odds } from './odds';

export interface Forecast extends Odds {
  /** by unit in the order of the odds: its date as minute, and what its day hangs on, in words */
  readonly due: readonly number[];
  readonly hangsOn: readonly (readonly {
    readonly text: string;
    readonly remedy: string;
    readonly share: number;
  }[])[];
  /** when each session begins, in the order of `overruns` */
  readonly begins: readonly number[];
  /** looks and measured pieces of this bench that it rests on */
  readonly looks: number;
}

/** The same futures for every plan: what is compared meets the same luck. */
const SEED = 20_210;

/**
 * @param now the moment from which the rest is planned; null: nothing has happened yet
 * @returns plays so many futures more, and tells all that were played so far
 */
export function forecaster(
  solved: Pick<Solved, 'problem' | 'steps' | 'clocks' | 'plan'>,
  muster: Muster,
  solution: Solution,
  log: readonly LogEntry[],
  now: Instant | null,
): (futures: number) => Forecast {
  const { problem, steps, clocks, plan } = solved;
  const minute = now === null ? 0 : Math.max(0, Math.floor(minutesUntil(originOf(muster), now)));
  const hours = openHours(problem);
  const course = courseOf(problem, solution, hours);
  const bench = benchRisks(muster, problem, steps, clocks, plan.sessions, log, minute);
  const maker = new Oddsmaker(course, bench.risks, minute, SEED);
  return (futures) => {
    const odds = maker.more(futures);
    return {
      ...odds,
      due: course.units.map((u) => u.due),
      begins: hours.map(([from]) => from),
      looks: bench.looks,
      hangsOn: odds.units.map((u) =>
        u.drivers.map((d) => ({
          share: d.share,
          ...wordsOf(d.kind, d.kind === 'work' ? bench.workNames[d.of]! : (bench.productNames[d.of] ?? '')),
        })),
      ),
    };
  };
}

function wordsOf(
  kind: Odds['units'][number]['drivers'][number]['kind'],
  name: string,
): { text: string; remedy: string } {
  switch (kind) {
    case 'lost':
      return {
        text: 'evenings that are lost or cut short',
        remedy: 'an extra session in the week before its date',
      };
    case 'again':
      return {
        text: 'windows that are missed, and their coats done again',
        remedy: 'fewer pieces in such a sandwich at once',
      };
    case 'mended':
      return { text: 'what has to be mended', remedy: 'a session to spare; a test on a spare piece' };
    case 'product':
      return {
        text: `how “${name}” dries`,
        remedy: 'say “dry” or “not yet” of it at the bench: it is then known',
      };
    case 'work':
      return { text: `how long “${name}” takes`, remedy: 'time it once at the bench: it is then known' };
  }
}

/** When anybody may be at the bench. */
function openHours({ calendars = [] }: Pick<Problem, 'calendars'>): readonly (readonly [number, number])[] {
  return (calendars.find((c) => c.id === 'sessions') ?? calendars[0])?.open ?? [];
}
