import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';

let count = 0;

/** A labelled place on a way of so many steps, the first being 1. */
@Component({
  selector: 'pm-slider',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="label" [for]="id">{{ label() }}</label>
    <input
      type="range"
      class="h-11 w-full accent-lamp"
      min="1"
      [id]="id"
      [max]="steps()"
      [value]="value()"
      [attr.aria-valuetext]="words()"
      (input)="value.set(+$any($event.target).value)"
    />
  `,
})
export class Slider {
  readonly label = input.required<string>();
  readonly steps = input.required<number>();
  /** what stands at that place */
  readonly words = input.required<string>();
  readonly value = model.required<number>();
  protected readonly id = `slider-${++count}`;
}
