import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, output } from '@angular/core';
import { instantOf, minutesUntil } from '#core/muster';
import { dayName, duration, listed, type Plan } from '#core/plan';
import { oddsWords, type LatestStart, type Margin } from '#core/odds';
import { NOW } from '../data/environment';
import { Forecasts } from '../data/forecasts';
import { Planner } from '../data/planner';
import { Button } from '../ui/button';
import { many } from '../ui/words';
import { spreadWords } from './fan';
import { overrunOf } from './overrun';
import { WaysOutPanel } from './waysOutPanel';

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
      @if (forecasts.fault(); as text) {
        <p class="text-shut" role="alert">{{ text }} Close this and ask again.</p>
      }
      @if (told(); as t) {
        <p>
          That every date holds: <strong class="text-lamp" data-testid="odds-all">{{ t.all }}</strong>.
          @if (t.past; as names) {
            The date of {{ names }} is past.
          }
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
              <p class="text-[0.95rem]">{{ u.spread }} {{ u.margin }}</p>
              @if (u.latest) {
                <p class="text-[0.95rem]" data-testid="latest-start">{{ u.latest }}</p>
              }
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
        @if (t.mayRunOut.length > 0) {
          <p class="mt-2 text-[0.95rem]">
            <strong>May run out before anybody sees it coming:</strong> {{ t.mayRunOut.join(', ') }}.
          </p>
        }
        @if (t.weak.length > 0) {
          <h3 class="mt-3 text-[1.02rem]">What would raise them</h3>
          <pm-ways-out [units]="t.weak" [spares]="t.spares" />
        }
      } @else if (!forecasts.fault()) {
        <p class="text-mute" role="status">
          {{ waiting() }}
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
  protected readonly forecasts = inject(Forecasts);
  private readonly now = inject(NOW);

  protected readonly told = computed(() => {
    const told = this.forecasts.told();
    const plan = this.planner.plan();
    if (!told || !plan) return null;
    const { forecast, margins, latest } = told;
    const now = minutesUntil(plan.origin, instantOf(this.now()));
    const isPast = (k: number): boolean => forecast.due[k]! < now && forecast.units[k]!.inTime === 0;
    const named = new Map(plan.units.map((u) => [u.id, u]));
    const finite = forecast.units.flatMap((u) => u.readyBy.filter((m) => Number.isFinite(m)));
    const from = Math.min(...forecast.due, ...finite) - DAY;
    const to = Math.max(...forecast.due, ...finite) + DAY;
    const x = (minute: number): number => Math.min(WIDTH, (WIDTH * (minute - from)) / Math.max(1, to - from));
    const base = HEIGHT - 5;
    return {
      all: oddsWords(forecast.all),
      past: listed(forecast.units.flatMap((u, k) => (isPast(k) ? [named.get(u.id)?.name ?? u.id] : []))),
      from: `${many(forecast.futures, 'future')} played; ${forecast.looks === 0 ? 'nothing of this bench has been seen yet: it rests on what is usual' : `rests on ${many(forecast.looks, 'look')} at this bench, else on what is usual`}${forecast.judged > 0 ? `, corrected by what came of ${many(forecast.judged, 'unit')}` : ''}.`,
      mayRunOut: forecast.mayRunOut.map((s) => `${s.name} (${oddsWords(s.share)})`),
      spares: forecast.mayRunOut.map((s) => s.name),
      units: forecast.units.map((u, k) => {
        const [soon, middle, late] = u.readyBy;
        const due = forecast.due[k]!;
        return {
          id: u.id,
          name: named.get(u.id)?.name ?? u.id,
          odds: isPast(k) ? 'not any more' : oddsWords(u.inTime),
          look: u.inTime >= 0.85 ? 'text-open' : u.inTime >= 0.5 ? 'text-lamp' : 'text-shut',
          date: dayName(plan.origin, due),
          spread: spreadWords(plan.origin, u.readyBy),
          margin: marginWords(plan, margins[k]),
          latest: latestWords(
            plan,
            latest.find((l) => l.unit === u.id),
          ),
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
        .filter((u, k) => u.inTime < GOOD && !isPast(k))
        .sort((a, b) => a.inTime - b.inTime)
        .map((u) => u.id),
      tight: plan.sessions
        .flatMap((s) => {
          const share = overrunOf(forecast, s);
          return share > 0.5
            ? [{ share, text: `${dayName(plan.origin, s.start)} (${oddsWords(share)})` }]
            : [];
        })
        .sort((a, b) => b.share - a.share)
        .slice(0, 4)
        .map((s) => s.text),
    };
  });

  protected readonly waiting = computed(() => {
    if (['planning', 'waiting'].includes(this.planner.state())) return 'As soon as the plan is made.';
    return this.planner.plan()
      ? 'Playing the plan through…'
      : 'There is no plan, and so there are no odds. What stands in its way is told above.';
  });

  constructor() {
    inject(DestroyRef).onDestroy(this.forecasts.ask());
  }
}

/** What one lost evening would leave. */
function marginWords(plan: Plan, margin: Margin | undefined): string {
  if (!margin) return '';
  const { minutes, evening, needed } = margin;
  if (needed.length > 0) {
    const days = [...new Set(needed.map((s) => dayName(plan.origin, s)))];
    if (days.length === 1) return `${days[0]} can’t be spared: losing it alone makes it late.`;
    const named = days.slice(0, 4);
    const more = days.length > named.length ? ` and ${days.length - named.length} more` : '';
    return `No evening to spare among ${named.join(', ')}${more}: losing one of them alone makes it late.`;
  }
  if (minutes < 0) return '';
  return evening === null
    ? `Any one evening may be lost: ${duration(minutes)} are left all the same.`
    : `Any one evening may be lost; least is left, ${duration(minutes)}, when it is ${dayName(plan.origin, evening)}.`;
}

function latestWords(plan: Plan, latest: LatestStart | undefined): string {
  if (!latest || latest.isBegun) return '';
  return latest.minute === null
    ? 'Even begun as planned it is less than 9 in 10.'
    : `Begun as late as ${dayName(plan.origin, latest.minute)} it is still 9 in 10.`;
}
