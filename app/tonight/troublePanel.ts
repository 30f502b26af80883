import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  output,
  signal,
} from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { catchError, of, scan, switchMap } from 'rxjs';
import { oddsChange } from '#core/odds';
import { duration } from '#core/plan';
import type { PieceCure } from '#core/session';
import { AS_IT_IS, Planner } from '../data/planner';
import type { Comes } from '../workers/planningDesk';
import { Button } from '../ui/button';
import { FIELDS } from '../ui/fields';
import { NumberField } from '../ui/numberField';
import { TextField } from '../ui/textField';
import { Evening } from './evening';

/** What went wrong, and each cure with what it costs before it is chosen: minutes, drying, and what becomes of the dates. */
@Component({
  selector: 'pm-trouble-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, NumberField, TextField],
  template: `
    <section class="rounded-lg border border-shut bg-board p-4" aria-labelledby="trouble">
      <div class="flex items-start justify-between gap-3">
        <h2 id="trouble" class="text-[1.3rem]">What went wrong on {{ on() }}?</h2>
        <button pmButton="small" class="shrink-0 whitespace-nowrap" (click)="shut.emit()">Close</button>
      </div>
      @if (evening.troubled() === null) {
        <p class="mb-2 text-[0.95rem] text-mute">
          Tick the pieces it holds for first; what is not done on them stays to be done.
        </p>
      }
      @for (t of troubles(); track t.name) {
        <h3 class="mt-3 text-[1.1rem]">{{ t.name }}</h3>
        <ul class="flex flex-col gap-1.5">
          @for (c of t.cures; track c.key) {
            <li>
              <button
                type="button"
                class="btn w-full flex-wrap !justify-start gap-x-3 text-left"
                [disabled]="c.count === 0"
                (click)="take(c.cure)"
              >
                <strong class="grow">{{ c.cure.cure }}</strong>
                <span class="text-[0.95rem] text-mute">{{ c.cost }}</span>
                <span class="w-full text-[0.95rem]" [class]="c.isLate ? 'text-shut' : 'text-open'">{{
                  c.odds ? c.dates + '; ' + c.odds : c.dates
                }}</span>
              </button>
            </li>
          }
        </ul>
      }
      <h3 class="mt-4 text-[1.1rem]">Something else</h3>
      <div class="grid gap-2 sm:grid-cols-2">
        <pm-text
          label="What went wrong"
          [value]="trouble()"
          [optional]="true"
          (valueChange)="trouble.set($event)"
        />
        <pm-text
          label="What you do about it"
          [value]="cure()"
          [optional]="true"
          (valueChange)="cure.set($event)"
        />
        <pm-number
          label="Hands"
          unit="min"
          [of]="fields.asked.minutesMore"
          [value]="minutes()"
          (valueChange)="minutes.set($event!)"
        />
        <pm-number
          label="Drying after it"
          unit="min"
          [of]="fields.asked.minutesMore"
          [value]="drying()"
          (valueChange)="drying.set($event!)"
        />
      </div>
      <button pmButton class="mt-2" [disabled]="trouble() === '' || cure() === ''" (click)="takeOwn()">
        Take it, and remember it
      </button>
    </section>
  `,
})
export class TroublePanel {
  protected readonly evening = inject(Evening);
  private readonly planner = inject(Planner);
  readonly shut = output<void>();
  protected readonly fields = FIELDS;
  protected readonly trouble = signal('');
  protected readonly cure = signal('');
  protected readonly minutes = signal(5);
  protected readonly drying = signal(30);
  /** what each cure would come to, as far as they are weighed */
  private readonly weighed = signal<ReadonlyMap<string, Comes>>(new Map());

  protected readonly on = computed(() => {
    const about = this.evening.subject();
    return about.length === 1 ? about[0]!.piece.name : `${about.length} pieces`;
  });
  private readonly cures = computed(() =>
    this.evening.cures().map((cure) => ({
      key: keyOf(cure),
      cure,
      entries: this.evening.entriesFor(cure),
    })),
  );
  protected readonly troubles = computed(() => {
    const before = Math.max(0, ...(this.planner.plan()?.units.map((u) => u.lateMinutes) ?? []));
    const weighed = this.weighed();
    const groups = new Map<string, ReturnType<typeof tell>[]>();
    const tell = (c: {
      readonly key: string;
      readonly cure: PieceCure;
      readonly entries: readonly unknown[];
    }) => ({
      key: c.key,
      cure: c.cure,
      count: c.entries.length,
      cost: costOf(c.cure, c.entries.length),
      ...datesOf(weighed.get(c.key), before),
      odds: oddsChange(weighed.get(AS_IT_IS.id)?.allHold ?? null, weighed.get(c.key)?.allHold ?? null),
    });
    for (const c of this.cures())
      groups.set(c.cure.trouble, [...(groups.get(c.cure.trouble) ?? []), tell(c)]);
    return [...groups].map(([name, cures]) => ({ name, cures }));
  });

  constructor() {
    toObservable(this.cures)
      .pipe(
        switchMap((cures) =>
          this.planner.weighEntries(cures.map(({ key, entries }) => ({ id: key, entries }))).pipe(
            scan((all, w) => new Map(all).set(w.id, w), new Map<string, Comes>()),
            catchError(() =>
              of(
                new Map(
                  cures.map(
                    ({ key }) =>
                      [key, { id: key, lateMinutes: null, allHold: null, handsMinutes: null }] as const,
                  ),
                ),
              ),
            ),
          ),
        ),
        takeUntilDestroyed(inject(DestroyRef)),
      )
      .subscribe((all) => this.weighed.set(all));
  }

  protected async take(cure: PieceCure): Promise<void> {
    await this.evening.mend(cure);
    this.shut.emit();
  }

  protected async takeOwn(): Promise<void> {
    await this.evening.mend({
      trouble: this.trouble(),
      cure: this.cure(),
      minutes: this.minutes(),
      dryMinutes: this.drying(),
    });
    this.shut.emit();
  }
}

function keyOf(c: PieceCure): string {
  return `${c.trouble}\n${c.cure}\n${c.again.length}`;
}

function costOf({ minutes, dryMinutes, again }: PieceCure, pieces: number): string {
  if (pieces === 0) return 'does not hold for these pieces';
  if (minutes === 0 && again.length === 0) return 'costs nothing';
  const each = pieces > 1 ? ' a piece' : '';
  return `${duration(Math.round(minutes))} of hands${each}, ${dryMinutes > 0 ? `${duration(dryMinutes)} drying` : 'nothing has to dry'}`;
}

function datesOf(comes: Comes | undefined, before: number): { dates: string; isLate: boolean } {
  const late = comes?.lateMinutes;
  if (late === undefined) return { dates: 'weighing what becomes of the dates…', isLate: false };
  if (late === null) return { dates: 'no plan found for it in this short time', isLate: true };
  if (late === 0) return { dates: 'all dates are kept', isLate: false };
  if (late <= before) return { dates: `no later than now (${duration(late)} late)`, isLate: false };
  return { dates: `a unit would be ${duration(late)} late`, isLate: true };
}
