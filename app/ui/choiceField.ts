import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { Refusals } from '../data/refusals';

export interface Choice {
  readonly value: string;
  readonly text: string;
}

let count = 0;

/** A labelled choice out of a few. */
@Component({
  selector: 'pm-choice',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="label" [for]="id">{{ label() }}</label>
    <select class="field" [id]="id" (change)="take($any($event.target))">
      @for (c of choices(); track c.value) {
        <option [value]="c.value" [selected]="c.value === value()">{{ c.text }}</option>
      }
    </select>
    @if (fault(); as fault) {
      <span class="mt-1 block text-[0.9rem] text-shut" role="alert">{{ fault }}</span>
    }
  `,
})
export class ChoiceField {
  readonly label = input.required<string>();
  readonly value = input.required<string>();
  readonly choices = input.required<readonly Choice[]>();
  readonly valueChange = output<string>();
  private readonly refusals = inject(Refusals);
  protected readonly id = `choice-${++count}`;
  protected readonly fault = signal<string | null>(null);

  /** What is refused is not shown as chosen. */
  protected take(select: HTMLSelectElement): void {
    this.fault.set(this.refusals.during(() => this.valueChange.emit(select.value)));
    if (this.fault() !== null) select.value = this.value();
  }
}
