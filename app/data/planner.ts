/** Plans the muster whenever it changes, in a worker; what comes back is one solved plan that the views read. The page computes nothing. */
import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { proxy } from 'comlink';
import { debounceTime, firstValueFrom, merge, Observable, Subject, switchMap, tap } from 'rxjs';
import { instantOf, minutesUntil, originOf, type Muster } from '#core/muster';
import type { WayOut, Why } from '#core/plan';
import { hasHistory, type LogEntry, type New } from '#core/log';
import type { Shown } from '#core/session';
import type { Changed, Comes, LateChain, News, Order, Outcome, Posing, Told } from '../workers/planningDesk';
import type { Helper } from '../workers/playing';
import { BenchClock } from './benchClock';
import { Database } from './database';
import { OPEN_DESK, type Desk } from './desk';
import { CORES, NOW, PLANNING_PAUSE_MS } from './environment';
import { Logbook } from './logbook';
import { MusterStore } from './musterStore';

export type PlannerState =
  'waiting' | 'planning' | 'planned' | 'stopped' | 'impossible' | 'faulty' | 'failed';

/** Long enough for the demo to settle, short enough to watch. */
const SECONDS = 8;
const MORE_SECONDS = 30;
/** At the bench an answer is wanted at once: it ends sooner where nothing has to leave its session. */
const REPLAN_SECONDS = 6;
/** What a step costs that leaves its session while the evening is under way: as much as three runs. */
const CALM = 24;
/** What a step costs that changes its session because something else was edited: as much as two runs. */
const STABILITY = 16;
/** So many steps of futures keep one desk for a quarter of a minute: a second one helps. It is not worth its while for a first look. */
const MANY_STEPS_PLAYED = 4_000_000;

interface Result extends Posing {
  readonly solved: Shown;
}

/** What is weighed first: nothing is changed. Against it the others are told. */
export const AS_IT_IS: Changed = { id: 'as it is' };

type Said = News | Outcome | { readonly kind: 'failed'; readonly message: string };

@Injectable({ providedIn: 'root' })
export class Planner {
  private readonly store = inject(MusterStore);
  private readonly database = inject(Database);
  private readonly logbook = inject(Logbook);
  private readonly now = inject(NOW);
  private readonly orders = new Subject<Order | null>();
  private readonly result = signal<Result | null>(null);
  private readonly openDesk = inject(OPEN_DESK);
  private readonly cores = inject(CORES);
  private desk: Desk | null = null;
  /** told when the desk is lost */
  private readonly lost = new Subject<string>();
  private runs = 0;
  /** the search that the result is of has come to its end */
  private isWhole = false;
  /** id of the muster that the result is of */
  private of: string | null = null;

  readonly state = signal<PlannerState>('waiting');
  /** share of the planning time gone by, 0 to 1 */
  readonly share = signal(0);
  readonly tried = signal(0);
  /** planning runs that have come to an end, so that one can be waited for */
  readonly ended = signal(0);
  readonly naiveLateMinutes = signal<number | null>(null);
  /** a window that was open at the bench can no longer be met */
  readonly isMissed = signal(false);
  /** why there is no plan, in words */
  readonly problem = signal<string | null>(null);

  /** the newest solved plan of the muster as it is now; null while there is none */
  readonly solved = computed(() => {
    const result = this.result();
    return result?.muster === this.store.muster() ? (result?.solved ?? null) : null;
  });
  readonly plan = computed(() => this.solved()?.plan ?? null);
  /** the moment from which on that was planned; null: from the muster’s beginning */
  readonly plannedFrom = computed(() => (this.solved() ? (this.result()?.now ?? null) : null));
  /** ids of the steps that changed their session with the last change; null where there is nothing to compare */
  readonly moved = computed(() => this.solved()?.moved ?? null);
  /** What the craft says of the times of this plan, by step. */
  readonly cautions = computed(() => this.solved()?.cautions ?? []);

  constructor() {
    const planning = this.orders
      .pipe(
        debounceTime(inject(PLANNING_PAUSE_MS)),
        switchMap((order) => (order ? this.run(order).pipe(tap((said) => this.take(order, said))) : [])),
      )
      .subscribe();
    const watching = this.store.changes.subscribe((muster) => {
      if (muster) void this.onMuster(muster);
    });
    // After a rehearsal the plan is what it was.
    const rehearsing = inject(BenchClock).rehearsalEnded.subscribe(() => {
      const muster = this.store.muster();
      if (muster) void this.onMuster(muster);
    });
    inject(DestroyRef).onDestroy(() => {
      planning.unsubscribe();
      rehearsing.unsubscribe();
      watching.unsubscribe();
      this.desk?.close();
    });
  }

  /** Single changes that might bring late units home, with what each would come to; in a worker of its own. */
  weigh(ways: readonly WayOut[]): Observable<Comes> {
    const muster = this.store.muster();
    return this.weighed(
      muster ? [AS_IT_IS, ...ways.map((w) => ({ id: w.id, muster: w.apply(muster) }))] : [],
      this.history(),
    );
  }

  /** What would come of it if this happened now, each by itself; in a worker of its own. */
  weighEntries(
    wholes: readonly { readonly id: string; readonly entries: readonly New<LogEntry>[] }[],
  ): Observable<Comes> {
    const now = instantOf(this.now());
    return this.weighed(
      [
        AS_IT_IS,
        ...wholes.map(({ id, entries }) => ({
          id,
          happened: entries.map((e, k) => ({ ...e, id: `weighed-${k}`, at: now }) as LogEntry),
        })),
      ],
      { log: this.logbook.entries(), now },
    );
  }

  private weighed(changed: readonly Changed[], from: Pick<Order, 'log' | 'now'>): Observable<Comes> {
    const muster = this.store.muster();
    return new Observable((subscriber) => {
      if (!muster || changed.length < 2) return subscriber.complete();
      const { remote, close } = this.openDesk((message) => subscriber.error(new Error(message)));
      remote
        .weigh(
          { muster, ...from },
          changed,
          this.result()?.solved.solution ?? null,
          proxy((comes: Comes) => subscriber.next(comes)),
        )
        .then(
          () => subscriber.complete(),
          () => subscriber.error(new Error('The ways out could not be weighed.')),
        );
      return close;
    });
  }

  /** Why a step of the current plan is then and not sooner; null when there is no such plan or step. */
  async why(step: string): Promise<Why | null> {
    return this.plan()?.steps.has(step) ? this.atDesk().explain(step) : null;
  }

  /** Why the late units of the current plan are late; first how far the finding out is, 0 to 1. In a worker of its own. */
  lateBecause(): Observable<{ readonly share: number; readonly chains: readonly LateChain[] | null }> {
    const result = this.result();
    return new Observable((subscriber) => {
      if (!result || result.muster !== this.store.muster()) return subscriber.complete();
      const { remote, close } = this.openDesk((message) => subscriber.error(new Error(message)));
      const { solved, ...posing } = result;
      subscriber.next({ share: 0, chains: null });
      remote
        .explainLate(
          posing,
          solved.solution,
          this.isMissed(),
          proxy((share: number) => subscriber.next({ share, chains: null })),
          handsOf(solved),
        )
        .then(
          (chains) => {
            subscriber.next({ share: 1, chains });
            subscriber.complete();
          },
          () => subscriber.error(new Error('The reasons could not be found out.')),
        );
      return close;
    });
  }

  /** The odds of the plan as it stands, narrowing as more futures are played; at the desk that solved it. */
  odds(futures: number): Observable<Told> {
    const result = this.result();
    return new Observable((subscriber) => {
      if (!result || result.muster !== this.store.muster()) return subscriber.complete();
      const remote = this.atDesk();
      const { solved, ...posing } = result;
      const failed = (): void => subscriber.error(new Error('The odds could not be reckoned.'));
      const losing = this.lost.subscribe(failed);
      const second = this.helperFor(result, futures);
      remote
        .odds(
          posing,
          solved.solution,
          this.isMissed(),
          futures,
          proxy((told: Told) => subscriber.next(told)),
          handsOf(solved),
          second && proxy(second.helper),
        )
        .then(() => subscriber.complete(), failed);
      return () => {
        losing.unsubscribe();
        second?.close();
        void remote.stopOdds();
      };
    });
  }

  /** A second desk that plays futures of a large plan: what it cannot play the first one does. */
  private helperFor(
    { solved, ...posing }: Result,
    futures: number,
  ): { readonly helper: Helper; close(): void } | null {
    if (solved.plan.steps.size * futures < MANY_STEPS_PLAYED || this.cores < 2) return null;
    const lost = new Subject<never>();
    const { remote, close } = this.openDesk((message) => lost.error(new Error(message)));
    const ready = remote.helpWith(posing, solved.solution, this.isMissed(), handsOf(solved));
    const played: Helper['played'] = async (from, count) => {
      await ready;
      return remote.played(from, count);
    };
    return {
      helper: { played: (from, count) => firstValueFrom(merge(played(from, count), lost)) },
      close,
    };
  }

  /** Stops the search; the best plan so far stays. */
  cancel(): void {
    if (this.state() !== 'planning') return;
    void this.desk?.remote.stop();
    this.orders.next(null);
    this.state.set('stopped');
    this.keep();
  }

  /** Searches again, for longer and from another beginning; a worse result is never taken. */
  searchLonger(): void {
    const muster = this.store.muster();
    if (!muster || this.store.hasErrors()) return;
    this.order({
      muster,
      seconds: MORE_SECONDS,
      seed: 1 + this.runs,
      previous: this.solved()?.solution ?? null,
      stability: 0,
      ...this.history(),
    });
  }

  /** After something happened at the bench: what is done stays, tonight keeps calm, the rest moves as little as it must. */
  replan(): void {
    const muster = this.store.muster();
    if (!muster || this.store.hasErrors()) return;
    this.order({
      muster,
      seconds: REPLAN_SECONDS,
      seed: 1 + this.runs,
      previous: this.result()?.solved.solution ?? null,
      stability: CALM,
      endsCalm: true,
      log: this.logbook.entries(),
      now: instantOf(this.now()),
    });
  }

  /** The log as the kernel is to know it; nothing while nothing has been done, unless evenings have been given up for lost already. */
  private history(): Pick<Order, 'log' | 'now'> {
    const log = this.logbook.entries();
    const now = instantOf(this.now());
    const last = this.result();
    const isUnderWay = last !== null && last.now !== null && minutesUntil(originOf(last.muster), now) > 0;
    return { log, now: isUnderWay || hasHistory(log) ? now : null };
  }

  private async onMuster(muster: Muster): Promise<void> {
    const of = this.store.openId;
    if (of !== this.of) this.result.set(null);
    this.of = of;
    this.problem.set(null);
    this.share.set(0);
    if (this.store.hasErrors()) {
      this.state.set('faulty');
      this.orders.next(null);
      return;
    }
    this.state.set('waiting');
    const kept = of === null ? undefined : await this.database.newestPlan(of).catch(() => undefined);
    await this.logbook.ready;
    if (muster !== this.store.muster()) return;
    if (kept?.musterText === JSON.stringify(muster)) {
      const logged = new Set(kept.logged);
      const posing = { muster, log: this.logbook.entries().filter((e) => logged.has(e.id)), now: kept.now };
      const solved = await this.atDesk()
        .show(posing, kept.solution, kept.isMissed, new Map(Object.entries(kept.hands ?? {})))
        .catch(() => null);
      if (muster !== this.store.muster()) return;
      if (solved) {
        this.naiveLateMinutes.set(kept.naiveLateMinutes);
        this.isMissed.set(kept.isMissed);
        this.stand(posing, solved);
        return;
      }
    }
    if (await this.stillHolds(muster)) return;
    const last = this.result();
    // Who wishes for another kind of plan does not want the old one mended.
    const isNear =
      last !== null && isSameOrigin(last.muster, muster) && last.muster.bench.wish === muster.bench.wish;
    this.order({
      muster,
      seconds: SECONDS,
      seed: 1,
      previous: isNear ? last.solved.solution : null,
      stability: isNear ? STABILITY : 0,
      ...this.history(),
    });
  }

  /** Does the plan hold for another muster as it is? Then nothing is searched. */
  private async stillHolds(muster: Muster): Promise<boolean> {
    const last = this.result();
    const log = this.logbook.entries();
    if (!last || !this.isWhole || (this.history().now === null) !== (last.now === null)) return false;
    const { solved: plan, ...was } = last;
    const posing = { ...was, muster, log };
    const solved = await this.atDesk()
      .still(was, posing, plan.solution, this.isMissed(), handsOf(plan))
      .catch(() => null);
    if (muster !== this.store.muster()) return true;
    if (!solved) return false;
    this.stand(posing, solved);
    this.keep();
    return true;
  }

  /** A whole plan without a search. */
  private stand(posing: Posing, solved: Shown): void {
    this.result.set({ ...posing, solved });
    this.isWhole = true;
    this.share.set(1);
    this.state.set('planned');
    this.ended.update((n) => n + 1);
    this.orders.next(null);
  }

  private order(order: Order): void {
    this.state.set('planning');
    this.share.set(0);
    this.orders.next(order);
  }

  /** The desk at which plans are made and explained; a lost one is set up anew. */
  private atDesk(): Desk['remote'] {
    this.desk ??= this.openDesk((message) => {
      this.desk = null;
      this.lost.next(message);
    });
    return this.desk.remote;
  }

  /** One order at the desk: unsubscribing stops it. */
  private run(order: Order): Observable<Said> {
    return new Observable((subscriber) => {
      this.runs++;
      let isOver = false;
      const end = (said: Said): void => {
        isOver = true;
        subscriber.next(said);
        subscriber.complete();
      };
      const remote = this.atDesk();
      const losing = this.lost.subscribe((message) => end({ kind: 'failed', message }));
      remote
        .plan(
          order,
          proxy((news: News) => subscriber.next(news)),
        )
        .then(end, (error: unknown) =>
          end({ kind: 'failed', message: error instanceof Error ? error.message : String(error) }),
        );
      return () => {
        losing.unsubscribe();
        if (!isOver) void remote.stop();
      };
    });
  }

  private take(order: Order, said: Said): void {
    if (order.muster !== this.store.muster()) return;
    if (said.kind !== 'progress' && said.kind !== 'better') this.ended.update((n) => n + 1);
    switch (said.kind) {
      case 'progress':
        this.share.set(said.share);
        this.tried.set(said.tried);
        return;
      case 'better':
        this.takeSolved(order, said.solved);
        return;
      case 'left':
        return;
      case 'failed':
        this.state.set('failed');
        this.problem.set(said.message);
        return;
      case 'impossible':
        this.share.set(1);
        this.state.set('impossible');
        this.problem.set(said.why);
        return;
      case 'unknown':
        this.share.set(1);
        this.state.set('failed');
        this.problem.set(
          'No plan was found in this time, and none was proved impossible. Search longer, add sessions, or widen a window.',
        );
        return;
      case 'planned':
        if (order.now === null) this.naiveLateMinutes.set(said.naiveLateMinutes);
        this.share.set(1);
        this.isMissed.set(said.isMissed);
        this.takeSolved(order, said.solved);
        this.isWhole = true;
        this.state.set('planned');
        // Drawing it comes first, and writing a large one takes a moment of its own. A rehearsal may end meanwhile: its plan is not kept.
        if (!this.logbook.isRehearsal()) setTimeout(() => this.keep());
    }
  }

  private takeSolved({ muster, log, now, stability }: Order, solved: Shown): void {
    const before = this.solved();
    const isWorse = stability === 0 && before !== null && solved.plan.cost > before.plan.cost;
    if (isWorse) return;
    this.result.set({ muster, log, now, solved });
    this.isWhole = false;
  }

  /** A plan that can't be kept is only made again, so a failure here is no trouble of the user's. */
  private keep(): void {
    const best = this.result();
    const id = this.store.openId;
    // What a rehearsal led to is not kept.
    if (this.logbook.isRehearsal()) return;
    if (!best || id === null || best.muster !== this.store.muster()) return;
    this.database
      .keepPlan({
        id,
        musterText: JSON.stringify(best.muster),
        now: best.now,
        logged: best.now === null ? [] : best.log.map((e) => e.id),
        isMissed: this.isMissed(),
        solution: best.solved.solution,
        hands: Object.fromEntries(handsOf(best.solved)),
        naiveLateMinutes: this.naiveLateMinutes(),
      })
      .catch(() => undefined);
  }
}

function handsOf({ doers }: Shown): ReadonlyMap<string, string> {
  return new Map([...(doers ?? [])].map(([id, { who }]) => [id, who]));
}

function isSameOrigin(a: Muster, b: Muster): boolean {
  const [x, y] = [originOf(a), originOf(b)];
  return x.date === y.date && x.zone === y.zone;
}
