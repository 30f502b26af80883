import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { FIELDS } from './fields';
import { NumberField } from './numberField';
import { Button } from './button';

/** How many copies, and the button that makes them. What is no number of copies makes none. */
@Component({
  selector: 'pm-copies',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, NumberField],
  template: `
    <div class="flex items-end gap-2">
      <pm-number class="w-24" label="copies" [of]="of" [value]="count()" (valueChange)="count.set($event!)" />
      <button pmButton="small" (click)="copied.emit(count())">{{ word() }}</button>
    </div>
  `,
})
export class CopiesField {
  readonly word = input.required<string>();
  readonly copied = output<number>();
  protected readonly of = FIELDS.copies;
  protected readonly count = signal(1);
}
