import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  signal,
} from '@angular/core';
import { Subject, switchMap } from 'rxjs';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { instantOf, minutesUntil } from '#core/muster';
import { oddsChange } from '#core/odds';
import { duration, waysOut, type WayOut } from '#core/plan';
import { NOW } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { AS_IT_IS, Planner } from '../data/planner';
import type { Comes } from '../workers/planningDesk';
import { Button } from '../ui/button';

/** When a table date is in danger: single changes, each planned to see what it gains. One click takes it, undo takes it back. */
@Component({
  selector: 'pm-ways-out',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button],
  template: `
    <div class="flex flex-wrap items-center gap-2">
      @if (ways().length === 0) {
        <button pmButton="small lamp" (click)="find()">Find ways out</button>
      }
      @for (w of ways(); track w.id) {
        <button pmButton="small" [disabled]="!w.isWeighed" (click)="take(w)">
          {{ w.label }}: <strong class="ml-1">{{ w.words }}</strong>
        </button>
      }
      @if (fault(); as text) {
        <span class="text-shut" role="alert">{{ text }}</span>
      }
    </div>
  `,
})
export class WaysOutPanel {
  /** where none is late: those to be helped, the least likely first */
  readonly units = input<readonly string[]>([]);
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
    const before = this.weighed().get(AS_IT_IS.id)?.allHold ?? null;
    return this.offered().map((w) => {
      const comes = this.weighed().get(w.id);
      return {
        ...w,
        isWeighed: comes != null && comes.lateMinutes !== null,
        words: gainWords(comes, worst, before),
      };
    });
  });

  constructor() {
    this.asked
      .pipe(
        switchMap((ways) => this.planner.weigh(ways)),
        takeUntilDestroyed(inject(DestroyRef)),
      )
      .subscribe({
        next: (w) => this.weighed.update((m) => new Map(m).set(w.id, w)),
        error: (error: unknown) => {
          this.offered.set([]);
          this.fault.set(error instanceof Error ? error.message : String(error));
        },
      });
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
    const ways = waysOut(muster, late.length > 0 ? late : this.units(), now);
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
