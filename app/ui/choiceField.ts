import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

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
    <select class="field" [id]="id" (change)="valueChange.emit($any($event.target).value)">
      @for (c of choices(); track c.value) {
        <option [value]="c.value" [selected]="c.value === value()">{{ c.text }}</option>
      }
    </select>
  `,
})
export class ChoiceField {
  readonly label = input.required<string>();
  readonly value = input.required<string>();
  readonly choices = input.required<readonly Choice[]>();
  readonly valueChange = output<string>();
  protected readonly id = `choice-${++count}`;
}
