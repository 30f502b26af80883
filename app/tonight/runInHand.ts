/** What is in hand now: the plan, the minute of it, the run that comes next for the hands that are looked at. */
import { computed, inject, Injectable, signal } from '@angular/core';
import { instantOf, minutesUntil } from '#core/muster';
import { factsOfRun, type PlanStep } from '#core/plan';
import { agenda } from '#core/session';
import { BenchClock } from '../data/benchClock';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Planner } from '../data/planner';

@Injectable()
export class RunInHand {
  private readonly store = inject(MusterStore);
  private readonly logbook = inject(Logbook);
  private readonly clock = inject(BenchClock);

  readonly plan = inject(Planner).plan;
  /** whose hands are looked at; null: everybody's */
  readonly chosenHands = signal<string | null>(null);
  readonly minute = computed(() => {
    const plan = this.plan();
    return plan ? minutesUntil(plan.origin, instantOf(this.clock.now())) : 0;
  });
  /** Who has something to do in this plan; none where one works alone. */
  readonly doers = computed(() =>
    [...new Set([...(this.plan()?.steps.values() ?? [])].flatMap((s) => s.doer?.who ?? []))].sort(),
  );
  readonly whose = computed(() => {
    const name = this.chosenHands();
    return name !== null && this.doers().includes(name) ? name : null;
  });
  readonly agenda = computed(() => {
    const plan = this.plan();
    return plan ? agenda(plan, this.logbook.entries(), this.whose()) : null;
  });
  readonly run = computed(() => this.agenda()?.run ?? []);
  readonly step = computed<PlanStep | null>(() => this.run()[0] ?? null);
  readonly facts = computed(() =>
    this.run().length > 0 ? factsOfRun(this.run(), this.store.muster()?.bench.cupMl) : null,
  );
}
