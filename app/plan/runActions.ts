import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { dateTimeAfter, minutesSince, withoutPins, withPins, type Pin } from '#core/muster';
import { clockTime, dayName, pinned, type Plan, type PlanStep } from '#core/plan';
import { NEW_ID } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { Menu, type MenuEntry } from '../ui/menu';
import { Button } from '../ui/button';
import { CheckField } from '../ui/checkField';

/** What can be said of a run: it stays in its session, it is not to be in it, or it goes to another. The plan answers with what moved. */
@Component({
  selector: 'pm-run-actions',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CheckField, Button, Menu],
  template: `
    <div class="flex flex-wrap items-center gap-2">
      @if (isKept()) {
        <button pmButton="small" (click)="letGo()">Let it go</button>
        <span class="text-[0.9rem] text-lamp">{{ said() }}</span>
      } @else {
        <button pmButton="small" (click)="pin(here(), 'in')">Keep in {{ dayHere() }}</button>
        <button pmButton="small" (click)="pin(here(), 'out')">Not in {{ dayHere() }}</button>
      }
      <pm-menu word="Move to…" [menu]="sessions()" />
      @if (run().length > 1) {
        <pm-check label="only this piece" [value]="isAlone()" (valueChange)="isAlone.set($event)" />
      }
    </div>
  `,
})
export class RunActions {
  private readonly store = inject(MusterStore);
  private readonly newId = inject(NEW_ID);
  readonly plan = input.required<Plan>();
  readonly step = input.required<PlanStep>();
  readonly run = input.required<readonly PlanStep[]>();

  protected readonly isAlone = signal(false);
  private readonly meant = computed((): readonly PlanStep[] => (this.isAlone() ? [this.step()] : this.run()));
  /** The session that the step begins in. */
  private readonly session = computed(() => {
    const { start } = this.step();
    return this.plan().sessions.find((s) => s.start <= start && start < s.end) ?? null;
  });
  protected readonly here = computed(() => this.session()?.start ?? this.step().start);
  protected readonly dayHere = computed(() => dayName(this.plan().origin, this.here()));
  private readonly pins = computed((): readonly Pin[] => {
    const { piece, layer, round } = this.step();
    return (this.store.muster()?.pins ?? []).filter(
      (p) => p.piece === piece.id && p.layer === layer.id && p.round === round,
    );
  });
  protected readonly isKept = computed(() => this.pins().length > 0);
  protected readonly said = computed(() =>
    this.pins()
      .map((p) => `${p.is === 'in' ? 'kept in' : 'not in'} ${this.dayOf(p.session)}`)
      .join(', '),
  );
  private readonly dayOf = (session: string): string => {
    const { origin } = this.plan();
    return dayName(origin, minutesSince(origin, session));
  };
  protected readonly sessions = computed(() => {
    const { origin, sessions } = this.plan();
    return sessions
      .filter((s) => s !== this.session())
      .map((s): MenuEntry => ({
        word: `${dayName(origin, s.start)}, ${clockTime(origin, s.start)}–${clockTime(origin, s.end)}`,
        about: `${Math.round(100 * s.busy)} % busy`,
        run: () => this.pin(s.start, 'in'),
      }));
  });

  protected pin(session: number, is: Pin['is']): void {
    const [first] = this.meant();
    const at = dateTimeAfter(this.plan().origin, session);
    const where = is === 'in' ? 'kept in' : 'not in';
    this.store.change(`“${first!.layer.name}” ${where} ${dayName(this.plan().origin, session)}`, (m) =>
      withPins(m, this.meant().map(pinned), at, is, this.newId),
    );
  }

  protected letGo(): void {
    this.store.change(`“${this.step().layer.name}” let go`, (m) => withoutPins(m, this.meant().map(pinned)));
  }
}
