import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  signal,
} from '@angular/core';
import { catchError, concat, defer, EMPTY, finalize, type Observable, Subject, switchMap } from 'rxjs';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { instantOf, minutesUntil } from '#core/muster';
import { oddsChange } from '#core/odds';
import { duration, inPairs, waysOut, type WayOut } from '#core/plan';
import { NOW } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { AS_IT_IS, Planner } from '../data/planner';
import type { Comes } from '../workers/planningDesk';
import { Button } from '../ui/button';

/** Odds with which one may rest, and so many single ways out are tried two at a time. */
const GOOD = 0.9;
const BEST = 3;

/** When a table date is in danger: single changes, each planned to see what it gains. One click takes it, undo takes it back. */
@Component({
  selector: 'pm-ways-out',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button],
  template: `
    @if (ways().length === 0) {
      <button pmButton="small lamp" (click)="find()">Find ways out</button>
    }
    <ul class="flex flex-col gap-1.5">
      @for (w of ways(); track w.id) {
        <li class="flex flex-wrap items-center gap-x-3 gap-y-0.5">
          <button pmButton="small" class="text-left" [disabled]="!w.isWeighed" (click)="take(w)">
            {{ w.label }}: <strong class="ml-1">{{ w.words }}</strong>
          </button>
          <span class="text-[0.92rem] text-mute">{{ w.price }}</span>
        </li>
      }
    </ul>
    @if (isPairing()) {
      <p class="mt-1 text-[0.95rem] text-mute" role="status">
        No single one makes it 9 in 10: two at a time…
      </p>
    }
    @if (fault(); as text) {
      <p class="text-shut" role="alert">{{ text }}</p>
    }
  `,
})
export class WaysOutPanel {
  /** where none is late: those to be helped, the least likely first */
  readonly units = input<readonly string[]>([]);
  /** products that may run out unforeseen */
  readonly spares = input<readonly string[]>([]);
  private readonly store = inject(MusterStore);
  private readonly planner = inject(Planner);
  private readonly now = inject(NOW);
  private readonly offered = signal<readonly WayOut[]>([]);
  private readonly weighed = signal<ReadonlyMap<string, Comes>>(new Map());
  private readonly asked = new Subject<readonly WayOut[]>();
  protected readonly fault = signal<string | null>(null);

  /** Ways out with what each gains, as far as they are weighed. */
  protected readonly ways = computed(() => {
    const worst = Math.max(0, ...(this.planner.plan()?.units.map((u) => u.lateMinutes) ?? []));
    const asItIs = this.weighed().get(AS_IT_IS.id);
    return this.offered().map((w) => {
      const comes = this.weighed().get(w.id);
      return {
        ...w,
        isWeighed: comes != null && comes.lateMinutes !== null,
        words: gainWords(comes, worst, asItIs?.allHold ?? null),
        price: priceWords(w, comes, asItIs),
      };
    });
  });
  protected readonly isPairing = signal(false);

  constructor() {
    this.asked
      .pipe(
        switchMap((ways) =>
          concat(
            this.weigh(ways),
            defer(() => this.weigh(this.pairs())),
          ).pipe(
            catchError((error: unknown) => {
              this.offered.set([]);
              this.fault.set(error instanceof Error ? error.message : String(error));
              return EMPTY;
            }),
            finalize(() => this.isPairing.set(false)),
          ),
        ),
        takeUntilDestroyed(inject(DestroyRef)),
      )
      .subscribe((w) => this.weighed.update((m) => new Map(m).set(w.id, w)));
  }

  private weigh(ways: readonly WayOut[]): Observable<Comes> {
    return ways.length === 0 ? EMPTY : this.planner.weigh(ways);
  }

  /** The best ones two at a time, where none alone is good enough. */
  private pairs(): readonly WayOut[] {
    const weighed = this.weighed();
    const odds = (w: WayOut): number => weighed.get(w.id)?.allHold ?? 0;
    const best = [...this.offered()].sort((a, b) => odds(b) - odds(a)).slice(0, BEST);
    if (best.length < 2 || odds(best[0]!) >= GOOD) return [];
    const pairs = inPairs(best);
    this.offered.update((ways) => [...ways, ...pairs]);
    this.isPairing.set(pairs.length > 0);
    return pairs;
  }

  protected find(): void {
    const plan = this.planner.plan();
    const muster = this.store.muster();
    if (!plan || !muster) return;
    const late = [...plan.units]
      .filter((u) => u.lateMinutes > 0)
      .sort((a, b) => b.lateMinutes - a.lateMinutes)
      .map((u) => u.id);
    const now = Math.max(0, minutesUntil(plan.origin, instantOf(this.now())));
    const ways = waysOut(muster, late.length > 0 ? late : this.units(), now, this.spares());
    this.fault.set(null);
    this.offered.set(ways);
    this.weighed.set(new Map());
    this.asked.next(ways);
  }

  protected take(way: WayOut): void {
    this.store.change(way.label, (m) => way.apply(m));
    this.offered.set([]);
    this.weighed.set(new Map());
  }
}

/** What it costs: hands, and what is lost. */
function priceWords(way: WayOut, comes: Comes | undefined, asItIs: Comes | undefined): string {
  const more = (comes?.handsMinutes ?? NaN) - (asItIs?.handsMinutes ?? NaN);
  const hands = Number.isFinite(more)
    ? Math.abs(more) < 1
      ? 'no more work'
      : more > 0
        ? `${duration(more)} more work`
        : `${duration(-more)} less work`
    : '';
  return [`costs ${way.costs}`, hands].filter((t) => t !== '').join('; ');
}

function gainWords(comes: Comes | undefined, worst: number, before: number | null): string {
  if (!comes) return 'weighing…';
  const late = comes.lateMinutes;
  if (late === null) return 'no plan';
  const dates =
    worst === 0 && late === 0
      ? ''
      : late === 0
        ? 'all on time; '
        : late < worst
          ? `gains ${duration(worst - late)}; `
          : late > worst
            ? `${duration(late - worst)} later; `
            : 'gains nothing; ';
  return `${dates}${oddsChange(before, comes.allHold)}`;
}
