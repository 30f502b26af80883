import { ChangeDetectionStrategy, Component, computed, inject, input, model } from '@angular/core';
import type { Recipe } from '#core/muster';
import { duration } from '#core/plan';
import { addedMinutes, type PilotState } from '#core/session';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Planner } from '../data/planner';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { many } from '../ui/words';

/** What the pilot of this recipe has shown: approved, it is frozen; to be changed, with what each change comes to for the others. */
@Component({
  selector: 'pm-pilot-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, Card],
  template: `
    <section pmCard="lamp" aria-label="What the pilot has shown">
      @if (state().verdict === 'approved') {
        <p>
          <strong>{{ isThawed() ? 'Thawed' : 'Frozen' }}:</strong> {{ state().pilot }} has shown it right ({{
            state().at.slice(0, 10)
          }}), and {{ words(state().others, 'other piece') }} follow it
          {{ isThawed() ? 'as you change it now' : 'as it is' }}.
        </p>
        <button pmButton="small" class="mt-2" (click)="isThawed.set(!isThawed())">
          {{ isThawed() ? 'Freeze it again' : 'Change it all the same' }}
        </button>
      } @else {
        <p>
          <strong>{{ state().pilot }} has shown that it must change.</strong>
          {{ words(state().others, 'other piece') }} wait for it.
        </p>
      }
      @if (comes(); as text) {
        <p class="mt-2" data-testid="pilot-cost">{{ text }}</p>
      }
      @if (state().verdict === 'changed') {
        <button pmButton="small lamp" class="mt-2" (click)="approve()">
          It is right now: freeze it, the others go on
        </button>
      }
    </section>
  `,
})
export class PilotNote {
  readonly recipe = input.required<Recipe>();
  /** as it was before the first change of this visit; null: it has not been changed */
  readonly before = input.required<Recipe | null>();
  readonly state = input.required<PilotState>();
  /** may it be changed although it is frozen? */
  readonly isThawed = model.required<boolean>();
  private readonly store = inject(MusterStore);
  private readonly planner = inject(Planner);
  private readonly logbook = inject(Logbook);
  protected readonly words = many;

  /** What the changes come to for the rest, in hands and in dates. */
  protected readonly comes = computed(() => {
    const before = this.before();
    const muster = this.store.muster();
    if (!before || !muster) return null;
    const added = addedMinutes(muster, before, this.recipe());
    const hands =
      added === 0
        ? 'no more and no less of hands'
        : `${duration(Math.abs(added))} ${added > 0 ? 'more' : 'less'} of hands`;
    const plan = this.planner.plan();
    const late = plan?.units.filter((u) => u.lateMinutes > 0) ?? [];
    const dates = !plan
      ? 'what becomes of the dates is being planned'
      : late.length === 0
        ? 'every date is kept'
        : late.map((u) => `${u.name} ${duration(u.lateMinutes)} late`).join(', ');
    return `For ${this.state().others === 1 ? 'the other' : `the other ${this.state().others}`}: ${hands}; ${dates}.`;
  });

  protected approve(): void {
    void this.logbook.add({ kind: 'verdict', step: this.state().step, verdict: 'approved' });
    this.isThawed.set(false);
    this.planner.replan();
  }
}
