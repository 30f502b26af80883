import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

let count = 0;

/** A labelled colour, chosen by the system's own picker. */
@Component({
  selector: 'pm-colour',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="label" [for]="id">{{ label() }}</label>
    <input
      type="color"
      class="field !p-1"
      [id]="id"
      [value]="value()"
      (change)="valueChange.emit($any($event.target).value)"
    />
  `,
})
export class ColourField {
  readonly label = input('Colour');
  /** #rrggbb */
  readonly value = input.required<string>();
  readonly valueChange = output<string>();
  protected readonly id = `colour-${count++}`;
}
