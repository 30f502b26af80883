import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** The tick at the head of a row in a list: choosing it among several. With Shift it reaches back to the last one ticked, so the press is handed on. */
@Component({
  selector: 'pm-row-tick',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="flex h-full w-12 cursor-pointer items-center justify-center">
      <input
        type="checkbox"
        class="h-5 w-5 accent-lamp"
        [checked]="value()"
        [attr.aria-label]="'Choose ' + name()"
        (click)="ticked.emit($event)"
      />
    </label>
  `,
})
export class RowTick {
  readonly name = input.required<string>();
  readonly value = input.required<boolean>();
  readonly ticked = output<MouseEvent>();
}
