/** The odds of a solved plan, told in parts as futures are played: the first at once, then narrowing. */
import type { Problem, Solution } from '#core/kernel';
import { instantAfter, minutesUntil, originOf, type Instant, type Muster } from '#core/muster';
import type { LogEntry } from '#core/log';
import type { Solved } from '#core/session';
import { plannedAfter } from './air';
import { benchRisks, type BenchRisks } from './bench';
import { courseOf, type Course } from './course';
import { sessionOf } from './hours';
import { Oddsmaker, type Odds } from './odds';
import { Player } from './play';
import { correction, judged, type Given } from './record';
import { noRisks } from './risks';
import type { Tally } from './tally';

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
  /** units whose day has come: what came of them corrects the odds */
  readonly judged: number;
  /** products that may run out though the shelf seems to hold enough: share of the futures */
  readonly mayRunOut: readonly { readonly name: string; readonly share: number }[];
}

/** The least margin of a unit over all single evenings that may be lost, nothing else coming otherwise. */
export interface Margin {
  /** minutes from being ready to its date; negative: so late */
  readonly minutes: number;
  /** when that evening begins; null: whichever is lost, it is ready as planned */
  readonly evening: number | null;
  /** evenings of which none may be lost, as they begin */
  readonly needed: readonly number[];
}

/** The latest that a unit can be begun. */
export interface LatestStart {
  readonly unit: string;
  /** minute of the session; null: even begun as planned the odds are less */
  readonly minute: number | null;
  /** it is begun already: nothing is left to choose */
  readonly isBegun: boolean;
}

/** The same futures for every plan: what is compared meets the same luck. */
const SEED = 20_210;
/** So many futures tell nine in ten from less. */
const TRIAL = 120;

/** Plays a solved plan through its futures and tells what comes of it. */
export class Forecaster {
  private readonly course: Course;
  private readonly bench: BenchRisks;
  private readonly maker: Oddsmaker;
  private readonly hours: readonly (readonly [number, number])[];
  private readonly minute: number;
  private readonly corrected: (share: number) => number;
  private readonly judgedUnits: number;
  private player: Player | null = null;

  /** @param now the moment from which the rest is planned; null: nothing has happened yet */
  constructor(
    private readonly solved: Pick<Solved, 'problem' | 'steps' | 'clocks' | 'plan'>,
    private readonly muster: Muster,
    solution: Solution,
    log: readonly LogEntry[],
    now: Instant | null,
  ) {
    const { problem, steps, clocks, plan } = solved;
    this.minute = now === null ? 0 : Math.max(0, Math.floor(minutesUntil(originOf(muster), now)));
    this.hours = openHours(problem);
    this.course = courseOf(problem, solution, this.hours);
    this.bench = benchRisks(muster, problem, steps, clocks, plan, log, this.minute);
    this.maker = new Oddsmaker(this.course, this.bench.risks, this.minute, SEED);
    const { judged: units } = judged(log, instantAfter(originOf(muster), this.minute));
    this.judgedUnits = units.length;
    this.corrected = correction(units);
  }

  /** how many units it speaks of */
  get units(): number {
    return this.course.units.length;
  }

  /** Plays so many futures more, and tells all that were played so far. */
  more(futures: number): Forecast {
    for (let k = 0; k < futures; k++) this.play();
    return this.told();
  }

  /** Plays one future more. */
  play(): void {
    this.maker.play();
  }

  /** Leaves the next so many futures to another of the same plan. @returns the first of them */
  leave(futures: number): number {
    return this.maker.leave(futures);
  }

  /** So many futures from one on, for whoever has left them to this one. */
  played(from: number, futures: number): Tally {
    return this.maker.played(from, futures);
  }

  /** What was left to another has been played. */
  take(tally: Tally): void {
    this.maker.take(tally);
  }

  /** What is known by all that were played so far. */
  told(): Forecast {
    const { bench, course } = this;
    const odds = this.maker.count();
    return {
      ...odds,
      all: this.corrected(odds.all),
      units: odds.units.map((u) => ({ ...u, inTime: this.corrected(u.inTime) })),
      due: course.units.map((u) => u.due),
      begins: this.hours.map(([from]) => from),
      looks: bench.looks,
      judged: this.judgedUnits,
      mayRunOut: odds.ranOut
        .map((share, s) => ({ name: bench.supplyNames[s]!, share }))
        .filter((s) => s.share > 0)
        .sort((a, b) => b.share - a.share),
      hangsOn: odds.units.map((u) =>
        u.drivers.map((d) => ({
          share: d.share,
          ...wordsOf(d.kind, d.kind === 'work' ? bench.workNames[d.of]! : (bench.productNames[d.of] ?? '')),
        })),
      ),
    };
  }

  /** By unit: each evening lost in turn, with nothing else coming otherwise. It rests after each, so that it can be stopped. */
  *margins(): Generator<void, readonly Margin[]> {
    const { course, hours, minute } = this;
    const player = new Player(course, noRisks(course.ids.length), SEED);
    const found = course.units.map((u) => ({
      minutes: u.due - course.end[u.ready]!,
      evening: null as number | null,
      needed: [] as number[],
    }));
    const last = course.units.reduce((most, u) => Math.max(most, course.end[u.ready]!), 0);
    for (const [k, [from, to]] of hours.entries()) {
      if (to <= minute || from > last) continue;
      const { ready } = player.play(0, minute, { lost: k });
      course.units.forEach((u, n) => {
        const margin = found[n]!;
        const left = Number.isFinite(ready[n]!) ? u.due - ready[n]! : -Infinity;
        if (left < 0 && u.due >= course.end[u.ready]!) margin.needed.push(from);
        if (left >= margin.minutes) return;
        margin.minutes = left;
        margin.evening = from;
      });
      yield;
    }
    return found;
  }

  /**
   * The latest session in which a unit can be begun and still be ready by its date with these odds: all of it waits, the rest goes on.
   * It rests after each future, so that it can be stopped.
   * @param share the odds asked for, 0 to 1
   */
  *latestStart(unit: string, share: number): Generator<void, LatestStart> {
    const { course, solved, hours, minute } = this;
    const of = Uint8Array.from(course.ids, (id) => (solved.steps.get(id)?.unit.id === unit ? 1 : 0));
    const own = [...course.order].filter((i) => of[i] === 1 && course.minutes[i]! > 0);
    const nth = course.units.findIndex((u) => u.id === unit);
    const isBegun = course.ids.some((_, i) => of[i] === 1 && course.isFixed[i] === 1);
    if (nth < 0 || own.length === 0 || isBegun) return { unit, minute: null, isBegun };
    const due = course.units[nth]!.due;
    this.player ??= new Player(course, this.bench.risks, SEED);
    const player = this.player;
    const corrected = this.corrected;
    const holds = function* (k: number): Generator<void, boolean> {
      let inTime = 0;
      for (let f = 0; f < TRIAL; f++) {
        if (player.play(f, minute, { later: { of, minute: hours[k]![0] } }).ready[nth]! <= due) inTime++;
        yield;
      }
      return corrected(inTime / TRIAL) >= share;
    };
    let low = Math.max(0, sessionOf(course.sessions, course.start[own[0]!]!));
    if (!(yield* holds(low))) return { unit, minute: null, isBegun };
    let high = low;
    while (high + 1 < hours.length && hours[high + 1]![0] < due) high++;
    while (low < high) {
      const middle = Math.ceil((low + high) / 2);
      if (yield* holds(middle)) low = middle;
      else high = middle - 1;
    }
    return { unit, minute: hours[low]![0], isBegun };
  }

  /** What is to be kept of it, so that it can be seen afterwards what came: units that are not ready yet. */
  given(forecast: Forecast): Given[] {
    const { course, muster, solved } = this;
    const names = new Map(muster.units.map((u) => [u.id, u.name]));
    return course.units.flatMap((u, k): Given[] => {
      const last = this.lastSteps(u.ready);
      if (last.length === 0 || last.every(({ i }) => course.isFixed[i] === 1)) return [];
      return [
        {
          unit: u.id,
          name: names.get(u.id) ?? u.id,
          share: Math.round(forecast.units[k]!.inTime * 1000) / 1000,
          due: instantAfter(originOf(muster), u.due),
          last: last
            .filter(({ i }) => solved.steps.has(course.ids[i]!))
            .map(({ i, dry }) => ({ step: course.ids[i]!, dry: Math.round(dry) })),
        },
      ];
    });
  }

  /** The steps after which nothing of it has to be done, each with the minutes that it then dries as planned. */
  private lastSteps(ready: number): { i: number; dry: number }[] {
    const { course } = this;
    const found = new Map<number, number>();
    const back = (i: number): void =>
      course.before[i]!.forEach(({ from, min, clock }) => {
        if (course.minutes[from] === 0) return back(from);
        const end = course.end[from]!;
        const dry = clock < 0 ? min : plannedAfter(course.clocks[clock]!, end, min) - end;
        found.set(from, Math.max(found.get(from) ?? 0, dry));
      });
    back(ready);
    return [...found].map(([i, dry]) => ({ i, dry }));
  }
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
    case 'absent':
      return {
        text: 'evenings from which a helper stays away',
        remedy: 'ask them which evenings are sure, and give their tasks to these',
      };
    case 'again':
      return {
        text: 'windows that are missed, and their coats done again',
        remedy: 'fewer pieces in such a sandwich at once',
      };
    case 'mended':
      return { text: 'what has to be mended', remedy: 'a session to spare; a test on a spare piece' };
    case 'short':
      return { text: 'products that run out', remedy: 'a spare bottle in the house' };
    case 'pace':
      return {
        text: 'how quick these hands are on the whole',
        remedy: 'time a few steps of each kind at the bench: it is then known',
      };
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
