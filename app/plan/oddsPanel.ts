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
import { catchError, EMPTY, filter, switchMap, tap } from 'rxjs';
import { dayName } from '#core/plan';
import { oddsWords, type Forecast } from '#core/odds';
import { Planner } from '../data/planner';
import { Button } from '../ui/button';
import { many } from '../ui/words';
import { WaysOutPanel } from './waysOutPanel';

/** So many futures are played: a share of one in ten is then known to one in a hundred. */
const FUTURES = 1000;
/** From here on nobody need do anything. */
const GOOD = 0.9;
const WIDTH = 320;
const HEIGHT = 26;
const DAY = 1440;

/** “Will I make it?”: the odds of every date, how the day of each unit spreads, and what it hangs on. */
@Component({
  selector: 'pm-odds-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, WaysOutPanel],
  template: `
    <section
      class="mx-5 mb-2 max-h-[46vh] shrink-0 overflow-auto rounded-lg border border-lamp bg-board px-5 py-3"
      aria-labelledby="odds"
    >
      <div class="flex items-start justify-between gap-3">
        <h2 id="odds" class="text-[1.15rem]">Will I make it?</h2>
        <button pmButton="small" (click)="shut.emit()">Close</button>
      </div>
      @if (fault(); as text) {
        <p class="text-shut" role="alert">{{ text }} Close this and ask again.</p>
      }
      @if (told(); as t) {
        <p>
          That every date holds: <strong class="text-lamp" data-testid="odds-all">{{ t.all }}</strong>.
          <span class="text-mute">{{ t.from }}</span>
        </p>
        <ul class="mt-2 flex flex-col gap-3">
          @for (u of t.units; track u.id) {
            <li data-testid="unit-odds">
              <p class="grid items-center gap-x-4 gap-y-1 md:grid-cols-[15rem_10rem_14rem_minmax(0,1fr)]">
                <strong class="font-title text-[1.08rem]">{{ u.name }}</strong>
                <strong [class]="u.look">{{ u.odds }}</strong>
                <span class="text-mute">to be ready by {{ u.date }}</span>
                <svg
                  class="block max-w-full"
                  [attr.width]="WIDTH"
                  [attr.height]="HEIGHT"
                  role="img"
                  [attr.aria-label]="u.spread"
                >
                  <path [attr.d]="'M0 ' + (HEIGHT - 5) + 'H' + WIDTH" stroke="var(--line)" />
                  <path [attr.d]="u.fan" fill="var(--lamp)" fill-opacity="0.55" />
                  <path [attr.d]="u.middle" stroke="var(--lamp)" stroke-width="3" />
                  <path [attr.d]="u.flag" stroke="var(--shut)" stroke-width="2.5" />
                </svg>
              </p>
              <p class="text-[0.95rem]">{{ u.spread }}</p>
              @if (u.hangsOn.length > 0) {
                <ul class="mt-0.5 list-disc pl-5 text-[0.95rem]">
                  @for (h of u.hangsOn; track h.text) {
                    <li>
                      Hangs on {{ h.text }} <span class="text-mute">({{ h.share }})</span>: {{ h.remedy }}.
                    </li>
                  }
                </ul>
              }
            </li>
          }
        </ul>
        @if (t.tight.length > 0) {
          <p class="mt-2 text-[0.95rem]">
            <strong>Evenings that most likely overrun:</strong> {{ t.tight.join(', ') }}.
          </p>
        }
        @if (t.weak.length > 0) {
          <h3 class="mt-3 text-[1.02rem]">What would raise them</h3>
          <pm-ways-out [units]="t.weak" />
        }
      } @else if (!fault()) {
        <p class="text-mute" role="status">
          {{ planner.plan() ? 'Playing the plan through…' : 'As soon as there is a plan.' }}
        </p>
      }
    </section>
  `,
})
export class OddsPanel {
  protected readonly planner = inject(Planner);
  readonly shut = output<void>();
  protected readonly WIDTH = WIDTH;
  protected readonly HEIGHT = HEIGHT;
  protected readonly fault = signal<string | null>(null);
  private readonly forecast = signal<Forecast | null>(null);

  protected readonly told = computed(() => {
    const forecast = this.forecast();
    const plan = this.planner.plan();
    if (!forecast || !plan) return null;
    const named = new Map(plan.units.map((u) => [u.id, u]));
    const finite = forecast.units.flatMap((u) => u.readyBy.filter((m) => Number.isFinite(m)));
    const from = Math.min(...forecast.due, ...finite) - DAY;
    const to = Math.max(...forecast.due, ...finite) + DAY;
    const x = (minute: number): number => Math.min(WIDTH, (WIDTH * (minute - from)) / Math.max(1, to - from));
    const base = HEIGHT - 5;
    return {
      all: oddsWords(forecast.all),
      from: `${many(forecast.futures, 'future')} played; ${forecast.looks === 0 ? 'nothing of this bench has been seen yet: it rests on what is usual' : `rests on ${many(forecast.looks, 'look')} at this bench, else on what is usual`}.`,
      units: forecast.units.map((u, k) => {
        const [soon, middle, late] = u.readyBy;
        const due = forecast.due[k]!;
        return {
          id: u.id,
          name: named.get(u.id)?.name ?? u.id,
          odds: oddsWords(u.inTime),
          look: u.inTime >= 0.85 ? 'text-open' : u.inTime >= 0.5 ? 'text-lamp' : 'text-shut',
          date: dayName(plan.origin, due),
          spread: `Ready by ${day(plan.origin, soon)} in 1 of 10 futures, ${day(plan.origin, middle)} in half of them, ${day(plan.origin, late)} in 9 of 10.`,
          fan: `M${x(soon)} ${base}L${x(middle)} 3L${x(late)} ${base}Z`,
          middle: `M${x(middle)} 3V${base}`,
          flag: `M${x(due)} ${HEIGHT}V0`,
          hangsOn: forecast.hangsOn[k]!.slice(0, 3).map((h) => ({
            text: h.text,
            remedy: h.remedy,
            share: `${Math.max(1, Math.round(h.share * 10))} in 10 of it`,
          })),
        };
      }),
      weak: [...forecast.units]
        .filter((u) => u.inTime < GOOD)
        .sort((a, b) => a.inTime - b.inTime)
        .map((u) => u.id),
      tight: plan.sessions
        .flatMap((s) => {
          const share = overrunOf(forecast, s.start, s.end);
          return share > 0.5
            ? [{ share, text: `${dayName(plan.origin, s.start)} (${oddsWords(share)})` }]
            : [];
        })
        .sort((a, b) => b.share - a.share)
        .slice(0, 4)
        .map((s) => s.text),
    };
  });

  constructor() {
    toObservable(computed(() => (this.planner.state() === 'planned' ? this.planner.solved() : null)))
      .pipe(
        tap(() => {
          this.forecast.set(null);
          this.fault.set(null);
        }),
        filter((solved) => solved !== null),
        switchMap(() =>
          this.planner.odds(FUTURES).pipe(
            catchError((error: unknown) => {
              this.fault.set(error instanceof Error ? error.message : String(error));
              return EMPTY;
            }),
          ),
        ),
        takeUntilDestroyed(inject(DestroyRef)),
      )
      .subscribe((forecast) => this.forecast.set(forecast));
  }
}

function day(origin: Parameters<typeof dayName>[0], minute: number): string {
  return Number.isFinite(minute) ? dayName(origin, minute) : 'no day of this plan';
}

/** The odds speak of all hours, the plan of the sessions that it uses. */
function overrunOf({ overruns, begins }: Forecast, start: number, end: number): number {
  const k = begins.findIndex((b) => b >= start && b < end);
  return overruns[k] ?? 0;
}
