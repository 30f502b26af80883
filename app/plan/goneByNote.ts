import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { instantOf, minutesUntil } from '#core/muster';
import { endedSteps } from '#core/log';
import { dayName } from '#core/plan';
import { goneBy } from '#core/session';
import { BenchClock } from '../data/benchClock';
import { Logbook } from '../data/logbook';
import { Planner } from '../data/planner';
import { Button } from '../ui/button';

/** An evening went by without what was planned for it: the plan is of a time that is over, and says so until it is made again. */
@Component({
  selector: 'pm-gone-by-note',
  imports: [Button],
  template: `@if (text(); as t) {
    <div
      role="status"
      class="flex flex-wrap items-center gap-x-3 gap-y-1 rounded border border-lamp px-3 py-1.5"
      data-testid="gone-by"
    >
      <p class="min-w-0 grow text-[0.95rem]">
        <strong class="text-lamp">{{ t }}</strong>
        <span class="text-mute"> If any of it was done, tick it off first.</span>
      </p>
      <button pmButton="small" (click)="planner.replan()">Plan the rest from now</button>
    </div>
  }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GoneByNote {
  protected readonly planner = inject(Planner);
  private readonly logbook = inject(Logbook);
  private readonly clock = inject(BenchClock);

  private readonly minute = computed(() => {
    const plan = this.planner.plan();
    return plan ? minutesUntil(plan.origin, instantOf(this.clock.now())) : 0;
  });
  protected readonly text = computed(() => {
    const plan = this.planner.plan();
    if (!plan || this.planner.state() === 'planning') return null;
    const over = goneBy(plan, endedSteps(this.logbook.entries()), this.minute());
    if (!over) return null;
    const when = dayName(plan.origin, over.first);
    const are = over.steps === 1 ? 'is' : 'are';
    return over.sessions === 1
      ? `${when} has gone by: ${over.steps} of its steps ${are} not done.`
      : `${over.sessions} sessions have gone by, the first ${when}: ${over.steps} of their steps ${are} not done.`;
  });
}
