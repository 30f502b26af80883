import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { Subject, switchMap } from 'rxjs';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { instantOf, minutesUntil } from '#core/muster';
import { duration, waysOut, type WayOut } from '#core/plan';
import { NOW } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { Planner } from '../data/planner';
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
        <button pmButton="small" [disabled]="w.gain === null" (click)="take(w)">
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
  private readonly store = inject(MusterStore);
  private readonly planner = inject(Planner);
  private readonly now = inject(NOW);
  private readonly offered = signal<readonly WayOut[]>([]);
  private readonly weighed = signal<ReadonlyMap<string, number | null>>(new Map());
  private readonly asked = new Subject<readonly WayOut[]>();
  protected readonly fault = signal<string | null>(null);

  /** Ways out with what each gains, as far as they are weighed. */
  protected readonly ways = computed(() => {
    const worst = Math.max(0, ...(this.planner.plan()?.units.map((u) => u.lateMinutes) ?? []));
    return this.offered().map((w) => {
      const late = this.weighed().get(w.id);
      return {
        ...w,
        gain: late === undefined || late === null ? null : worst - late,
        words: gainWords(late, worst),
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
        next: (w) => this.weighed.update((m) => new Map(m).set(w.id, w.lateMinutes)),
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
    const late = plan.units.filter((u) => u.lateMinutes > 0).sort((a, b) => b.lateMinutes - a.lateMinutes);
    const now = Math.max(0, minutesUntil(plan.origin, instantOf(this.now())));
    const ways = waysOut(
      muster,
      late.map((u) => u.id),
      now,
    );
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

function gainWords(late: number | null | undefined, worst: number): string {
  if (late === undefined) return 'weighing…';
  if (late === null) return 'no plan';
  if (late === 0) return 'all on time';
  return late < worst ? `gains ${duration(worst - late)}` : 'gains nothing';
}
