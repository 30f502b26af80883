import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** A labelled tick. */
@Component({
  selector: 'pm-check',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="flex min-h-11 items-center gap-2"
      ><input
        type="checkbox"
        class="h-5 w-5 shrink-0 accent-lamp"
        [checked]="value()"
        (change)="valueChange.emit($any($event.target).checked)"
      /><span
        >{{ label() }} <span class="text-[0.9rem] text-mute">{{ beside() }}</span></span
      ></label
    >
  `,
})
export class CheckField {
  readonly label = input.required<string>();
  /** what it belongs to, said softly behind it */
  readonly beside = input('');
  readonly value = input.required<boolean>();
  readonly valueChange = output<boolean>();
}
