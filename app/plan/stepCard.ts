import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { amountOf } from '#core/amounts';
import { cautionsFor, DEFER, familyOf, methodOf } from '#core/materials';
import {
  clockTime,
  dayName,
  duration,
  moment,
  type Plan,
  type PlanFinding,
  type PlanStep,
  type Why,
  factsOfRun,
} from '#core/plan';
import type { Finding } from '#core/recipe';
import { RunActions } from './runActions';
import { Button } from '../ui/button';
import { tenths } from '../ui/words';

/** The chosen step at the foot of the plan: what it is, why it stands where it stands, what it holds up. */
@Component({
  selector: 'pm-step-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, RouterLink, RunActions],
  template: `
    <section
      class="overflow-auto border-t-2 md:max-h-[34vh] border-line bg-raised px-3 py-2.5 md:px-5 text-[0.95rem]"
      aria-live="polite"
      aria-label="The chosen step"
    >
      @if (step(); as s) {
        <div class="mb-1.5 flex items-start justify-between gap-2 border-b border-line pb-1.5">
          <pm-run-actions [plan]="plan()" [step]="s" [run]="run()" />
          <button pmButton="small" class="shrink-0" (click)="shut.emit()">Close</button>
        </div>
        <div class="grid gap-x-6 gap-y-2 md:grid-cols-[minmax(0,1fr)_minmax(0,1.7fr)_minmax(0,1fr)]">
          <div>
            <h2 class="flex items-center gap-2 text-[1.2rem]">
              <span
                class="inline-block h-4 w-4 shrink-0 rounded-sm border border-line"
                [style.background]="s.layer.colour"
              ></span
              >{{ s.layer.name }}
            </h2>
            <p class="text-mute">
              {{ s.piece.name }} · {{ s.unit.name }}
              @if (s.doer; as d) {
                · <strong class="text-lamp">{{ d.who }}</strong>
                @for (h of d.handovers; track h.at) {
                  , then {{ h.to }}
                }
              }
            </p>
            @if (run().length > 1) {
              <details class="my-0.5">
                <summary class="cursor-pointer text-lamp">
                  {{ place() }} of {{ run().length }} in a run, {{ runWhen() }}
                </summary>
                <ul class="flex flex-wrap gap-1 py-1">
                  @for (other of run(); track other.id) {
                    <li>
                      <button
                        pmButton="small"
                        [attr.aria-pressed]="other.id === s.id"
                        (click)="choose.emit(other.id)"
                      >
                        {{ other.piece.name }}
                      </button>
                    </li>
                  }
                </ul>
              </details>
            }
            <p data-testid="when">{{ when() }}</p>
            <p class="text-[0.9rem] text-mute">{{ how() }}</p>
            @for (line of sayings(); track line) {
              <p class="text-[0.9rem]">{{ line }}</p>
            }
          </div>
          <div class="md:border-l md:border-line md:pl-5">
            <h3 class="mb-1 text-[1.05rem] text-lamp">Why then, and not sooner?</h3>
            @if (why(); as w) {
              <ol class="list-decimal pl-5">
                @for (r of w.reasons; track $index) {
                  <li>
                    {{ r.text }}
                    @if (r.step; as other) {
                      <button type="button" class="text-lamp underline" (click)="choose.emit(other)">
                        show
                      </button>
                    }
                    @if (r.leadsToAir) {
                      <a class="text-lamp underline" routerLink="/bench">the air</a>
                    }
                  </li>
                } @empty {
                  <li>It is the first thing to do.</li>
                }
              </ol>
            }
          </div>
          <div class="md:border-l md:border-line md:pl-5">
            <h3 class="mb-1 text-[1.05rem] text-lamp">It holds up</h3>
            <ul>
              @for (line of why()?.holdsUp ?? []; track $index) {
                <li>{{ line }}</li>
              }
            </ul>
          </div>
        </div>
        @for (f of findings(); track $index) {
          <p class="mt-1.5 border-t border-line pt-1.5 text-[0.9rem]" data-testid="step-finding">
            <strong [class]="f.severity === 'error' ? 'text-shut' : 'text-lamp'">{{
              f.severity === 'error' ? 'Breaks a rule.' : 'Watch.'
            }}</strong>
            {{ f.text }} <span class="text-mute">{{ f.cure }}</span>
            <a
              class="text-lamp underline"
              [routerLink]="['/recipes', f.place.recipe]"
              [queryParams]="{ layer: f.place.layer }"
              >its layer</a
            >
          </p>
        }
        @for (f of watch(); track f.rule) {
          <p class="mt-1.5 border-t border-line pt-1.5 text-[0.9rem]">
            <strong class="text-lamp">{{ f.severity === 'warning' ? 'Watch.' : 'Better.' }}</strong>
            {{ f.text }}
            <span class="text-mute">{{ f.cure }}</span>
            @if (f.sets; as s) {
              <button pmButton="small" class="ml-2" (click)="cured.emit(f)">{{ s.label }}</button>
            }
          </p>
        }
        @if (cautions().length > 0) {
          <p class="mt-1.5 border-t border-line pt-1.5 text-[0.9rem]">
            <strong class="text-shut">Care.</strong> {{ cautions().join(' ') }}
            <span class="text-mute">{{ defer }}</span>
          </p>
        }
      } @else {
        <p class="text-mute">
          Pick a run to see why it is then and not sooner, and to keep it there or move it. Arrow keys walk
          from step to step; up and down stay in the unit; with Shift, left and right carry the run to the
          next session.
        </p>
      }
    </section>
  `,
})
export class StepCard {
  readonly step = input.required<PlanStep | null>();
  readonly why = input.required<Why | null>();
  readonly plan = input.required<Plan>();
  /** the run that the step is of, itself among them; empty where no step is chosen */
  readonly run = input<readonly PlanStep[]>([]);
  readonly watch = input<readonly PlanFinding[]>([]);
  /** the cure of a finding over the plan is to be taken */
  readonly cured = output<PlanFinding>();
  readonly findings = input<readonly Finding[]>([]);
  readonly choose = output<string>();
  readonly shut = output();

  protected readonly defer = DEFER;
  protected readonly cautions = computed(() => {
    const s = this.step();
    return s ? cautionsFor(s.layer) : [];
  });
  protected readonly place = computed(() => this.run().findIndex((s) => s.id === this.step()?.id) + 1);
  protected readonly runWhen = computed(() => {
    const { origin } = this.plan();
    const run = this.run();
    const [start, end] = [run[0]!.start, run[run.length - 1]!.end];
    // What can be put down goes on in the next session.
    const words = dayName(origin, start) === dayName(origin, end) ? clockTime : moment;
    return `${words(origin, start)}–${words(origin, end)}`;
  });
  protected readonly when = computed(() => {
    const s = this.step()!;
    const { origin } = this.plan();
    const setup =
      s.setup > 0
        ? `, ${s.setup} min to ${s.layer.method === 'airbrush' ? 'clean and load' : 'lay out'} before it`
        : '';
    const sameDay = dayName(origin, s.start) === dayName(origin, s.end);
    return `${moment(origin, s.start)}–${sameDay ? clockTime(origin, s.end) : moment(origin, s.end)}${setup}`;
  });
  /** when to judge it, and how it can be taken back */
  protected readonly sayings = computed(() => {
    const { judge, takenBack } = factsOfRun([this.step()!]);
    return [...judge, ...takenBack];
  });
  protected readonly how = computed(() => {
    const s = this.step()!;
    const { origin } = this.plan();
    const amount = amountOf(s.recipe, s.layer, s.piece);
    const parts = [
      familyOf(s.layer.family).name,
      s.tool ?? methodOf(s.layer.method).name,
      s.layer.coats > 1 ? `${s.layer.coats} coats` : '1 coat',
      s.layer.mixture,
      amount.ml > 0 ? `${tenths(amount.ml)} ml: ${amount.from}` : '',
      s.rounds > 1 ? `round ${s.round} of ${s.rounds}` : '',
      s.tide.dryAt > s.end
        ? `dry for the next layer ${moment(origin, Math.ceil(s.tide.dryAt))} (${duration(s.tide.dryAt - s.end)})`
        : '',
    ];
    return parts.filter((p) => p !== '').join(' · ');
  });
}
