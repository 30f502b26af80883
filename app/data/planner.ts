/** Plans the muster whenever it changes, in a worker; what comes back is a signal the views read. */
import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { debounceTime, Observable, Subject, switchMap, tap } from 'rxjs';
import { movedOperations, type Solution } from '#core/kernel';
import { localDateTime, originOf, type Muster } from '#core/muster';
import {
  checkPlan,
  compile,
  conflictInWords,
  hasErrors,
  lateBecause,
  present,
  whyOf,
  type WayOut,
  type Why,
} from '#core/plan';
import type { FromPlanner, ToPlanner } from '../workers/protocol';
import { standing, withReworks, type LogEntry } from '#core/session';
import { Database } from './database';
import { NOW } from './environment';
import { Logbook } from './logbook';
import { MusterStore } from './musterStore';

export type PlannerState =
  'waiting' | 'planning' | 'planned' | 'stopped' | 'impossible' | 'faulty' | 'failed';

/** Long enough for the demo to settle, short enough to watch. */
const SECONDS = 8;
const MORE_SECONDS = 30;
/** At the bench an answer is wanted at once. */
const REPLAN_SECONDS = 2;
/** What a step costs that leaves its session while the evening is under way. */
const CALM = 8;
/** What a step costs that changes its session because something else was edited: as much as an hour of a middling unit. */
const STABILITY = 2;
/** A burst of keystrokes is one change. */
const CALM_MS = 350;

interface Result {
  readonly muster: Muster;
  readonly solution: Solution;
}

interface Order {
  readonly muster: Muster;
  readonly seconds: number;
  readonly seed: number;
  readonly previous: Solution | null;
  readonly stability: number;
  readonly log: readonly LogEntry[];
  /** local time from which on the rest is planned; null: nothing has happened yet */
  readonly now: string | null;
}

@Injectable({ providedIn: 'root' })
export class Planner {
  private readonly store = inject(MusterStore);
  private readonly database = inject(Database);
  private readonly logbook = inject(Logbook);
  private readonly now = inject(NOW);
  private readonly orders = new Subject<Order | null>();
  private readonly result = signal<Result | null>(null);
  /** what the last change started from */
  private readonly before = signal<Result | null>(null);
  private runs = 0;

  readonly state = signal<PlannerState>('waiting');
  /** share of the planning time gone by, 0 to 1 */
  readonly share = signal(0);
  readonly tried = signal(0);
  readonly naiveLateMinutes = signal<number | null>(null);
  /** a window that was open at the bench can no longer be met */
  readonly isMissed = signal(false);
  /** why there is no plan, in words */
  readonly problem = signal<string | null>(null);

  private readonly shown = computed(() => {
    const result = this.result();
    if (!result || result.muster !== this.store.muster() || result.solution.cost === null) return null;
    const whole = compile(result.muster);
    const compiled = { ...whole, steps: withReworks(whole.steps, this.logbook.entries()) };
    return { ...result, compiled, plan: present(result.muster, compiled, result.solution) };
  });
  /** the newest plan of the muster as it is now; null while there is none */
  readonly plan = computed(() => this.shown()?.plan ?? null);
  private readonly answers = computed(() => {
    const shown = this.shown();
    return shown && whyOf(shown.compiled, shown.solution, shown.plan);
  });

  /** how many steps changed their session with the last change; null where there is nothing to compare */
  readonly moved = computed(() => {
    const shown = this.shown();
    const before = this.before();
    if (!shown || !before || before.solution === shown.solution) return null;
    return movedOperations(shown.compiled.problem, before.solution, shown.solution).length;
  });

  constructor() {
    this.orders
      .pipe(
        debounceTime(CALM_MS),
        switchMap((order) => (order ? this.run(order).pipe(tap((said) => this.take(order, said))) : [])),
      )
      .subscribe();
    effect(() => {
      const muster = this.store.muster();
      if (muster) untracked(() => void this.onMuster(muster));
    });
  }

  /** Single changes that might bring late units home, with what each would come to; in a worker of its own. */
  weigh(ways: readonly WayOut[]): Observable<{ readonly id: string; readonly lateMinutes: number | null }> {
    const muster = this.store.muster();
    return new Observable((subscriber) => {
      if (!muster || ways.length === 0) return subscriber.complete();
      const worker = new Worker(new URL('../workers/planner.worker', import.meta.url), { type: 'module' });
      worker.addEventListener('message', ({ data }: MessageEvent<FromPlanner>) => {
        if (data.kind !== 'weighed') return;
        subscriber.next({ id: data.id, lateMinutes: data.lateMinutes });
        if (data.isLast) subscriber.complete();
      });
      worker.addEventListener('error', () =>
        subscriber.error(new Error('The ways out could not be weighed.')),
      );
      const order: ToPlanner = {
        kind: 'weigh',
        run: 1,
        musters: ways.map((w) => ({ id: w.id, muster: w.apply(muster) })),
        previous: this.result()?.solution ?? null,
        ...this.history(),
      };
      worker.postMessage(order);
      return () => worker.terminate();
    });
  }

  /** Why a step of the current plan is then and not sooner; null when there is no such plan or step. */
  why(step: string): Why | null {
    const plan = this.plan();
    return plan?.steps.has(step) ? (this.answers()?.(step) ?? null) : null;
  }

  /** What the craft says of the times of this plan, by step. */
  readonly cautions = computed(() => {
    const shown = this.shown();
    return shown ? checkPlan(shown.plan, shown.compiled) : [];
  });

  /** Why a unit of the current plan is late, from its table date back. */
  lateBecause(unit: string): readonly { readonly text: string; readonly step: string | null }[] {
    const shown = this.shown();
    return shown ? lateBecause(shown.compiled, shown.solution, shown.plan, unit) : [];
  }

  /** Stops the search; the best plan so far stays. */
  cancel(): void {
    if (this.state() !== 'planning') return;
    this.orders.next(null);
    this.state.set('stopped');
    this.keep();
  }

  /** Searches again, for longer and from another beginning; a worse result is never taken. */
  searchLonger(): void {
    const muster = this.store.muster();
    if (!muster || hasErrors(this.store.findings())) return;
    const best = this.result();
    const previous = best?.muster === muster && best.solution.cost !== null ? best.solution : null;
    this.order({
      muster,
      seconds: MORE_SECONDS,
      seed: 1 + this.runs,
      previous,
      stability: 0,
      ...this.history(),
    });
  }

  /** After something happened at the bench: what is done stays, tonight keeps calm, the rest moves as little as it must. */
  replan(): void {
    const muster = this.store.muster();
    const last = this.result();
    if (!muster || hasErrors(this.store.findings())) return;
    const previous = last && last.solution.cost !== null ? last.solution : null;
    this.before.set(previous ? { muster: last!.muster, solution: previous } : null);
    this.order({
      muster,
      seconds: REPLAN_SECONDS,
      seed: 1 + this.runs,
      previous,
      stability: CALM,
      log: this.logbook.entries(),
      now: localDateTime(this.now()),
    });
  }

  /** The log as the kernel is to know it; nothing while nothing has been done. */
  private history(): Pick<Order, 'log' | 'now'> {
    const log = this.logbook.entries();
    const isUsed = standing(log).some((e) => e.kind !== 'noted' && e.kind !== 'dry');
    return { log, now: isUsed ? localDateTime(this.now()) : null };
  }

  private async onMuster(muster: Muster): Promise<void> {
    this.problem.set(null);
    this.share.set(0);
    if (hasErrors(this.store.findings())) {
      this.state.set('faulty');
      this.orders.next(null);
      return;
    }
    this.state.set('waiting');
    const kept = await this.database.newestPlan().catch(() => undefined);
    await this.logbook.ready;
    if (muster !== this.store.muster()) return;
    if (kept && kept.musterText === JSON.stringify(muster)) {
      this.result.set({ muster, solution: kept.solution });
      this.naiveLateMinutes.set(kept.naiveLateMinutes);
      this.state.set('planned');
      this.orders.next(null);
      return;
    }
    const last = this.result();
    const isNear = last !== null && last.solution.cost !== null && originOf(last.muster) === originOf(muster);
    this.before.set(isNear ? last : null);
    this.order({
      muster,
      seconds: SECONDS,
      seed: 1,
      previous: isNear ? last.solution : null,
      stability: isNear ? STABILITY : 0,
      ...this.history(),
    });
  }

  private order(order: Order): void {
    this.state.set('planning');
    this.share.set(0);
    this.orders.next(order);
  }

  /** One worker for one run: unsubscribing cancels it and lets the worker go. */
  private run(order: Order): Observable<FromPlanner> {
    return new Observable((subscriber) => {
      const run = ++this.runs;
      const worker = new Worker(new URL('../workers/planner.worker', import.meta.url), { type: 'module' });
      const say = (message: ToPlanner): void => worker.postMessage(message);
      worker.addEventListener('message', ({ data }: MessageEvent<FromPlanner>) => {
        subscriber.next(data);
        if (data.kind === 'done' || data.kind === 'failed') subscriber.complete();
      });
      worker.addEventListener('error', (event) => {
        subscriber.next({
          kind: 'failed',
          run,
          message: event.message || 'The planning worker could not start.',
        });
        subscriber.complete();
      });
      say({ kind: 'plan', run, ...order });
      return () => {
        say({ kind: 'cancel', run });
        worker.terminate();
      };
    });
  }

  private take(order: Order, said: FromPlanner): void {
    if (order.muster !== this.store.muster()) return;
    switch (said.kind) {
      case 'progress':
        this.share.set(said.share);
        this.tried.set(said.tried);
        return;
      case 'better':
        this.takeSolution(order, said.solution);
        return;
      case 'weighed':
        return;
      case 'failed':
        this.state.set('failed');
        this.problem.set(said.message);
        return;
      case 'done': {
        if (order.now === null) this.naiveLateMinutes.set(said.naiveLateMinutes);
        this.share.set(1);
        this.isMissed.set(said.isMissed);
        if (said.solution.status === 'infeasible') {
          this.state.set('impossible');
          this.problem.set(conflictInWords(said.solution.conflict!, compile(order.muster), order.muster));
          return;
        }
        if (said.solution.status === 'unknown') {
          this.state.set('failed');
          this.problem.set(
            'No plan was found in this time, and none was proved impossible. Search longer, add sessions, or widen a window.',
          );
          return;
        }
        this.takeSolution(order, said.solution);
        this.state.set('planned');
        this.keep();
      }
    }
  }

  private takeSolution({ muster, stability }: Order, solution: Solution): void {
    const before = this.result();
    const isWorse =
      stability === 0 &&
      before?.muster === muster &&
      before.solution.cost !== null &&
      (solution.cost?.total ?? Infinity) > before.solution.cost.total;
    if (solution.status !== 'infeasible' && !isWorse) this.result.set({ muster, solution });
  }

  /** A plan that can't be kept is only made again, so a failure here is no trouble of the user's. */
  private keep(): void {
    const best = this.result();
    if (!best || best.muster !== this.store.muster()) return;
    const naiveLateMinutes = this.naiveLateMinutes();
    this.database
      .keepPlan({ musterText: JSON.stringify(best.muster), solution: best.solution, naiveLateMinutes })
      .catch(() => undefined);
  }
}
