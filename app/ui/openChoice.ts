import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** One of a few, as it lies open. */
export interface OpenChoice {
  readonly value: string;
  readonly text: string;
  /** what it means, in a line of its own */
  readonly about?: string;
}

let count = 0;

/** A choice out of a few that all lie open, each with what it means. The group is named by its label or by what it points to. */
@Component({
  selector: 'pm-open-choice',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div role="radiogroup" [class]="layout()" [attr.aria-labelledby]="labelledBy()">
      @for (c of choices(); track c.value) {
        <label
          class="flex min-h-11 cursor-pointer items-start gap-3 rounded-md border px-3 py-2"
          [class]="value() === c.value ? 'border-lamp bg-raised' : 'border-line'"
        >
          <input
            type="radio"
            class="mt-1 h-5 w-5 shrink-0 accent-lamp"
            [name]="name"
            [value]="c.value"
            [checked]="value() === c.value"
            (change)="valueChange.emit(c.value)"
          />
          <span
            ><span [class.font-semibold]="c.about">{{ c.text }}</span>
            @if (c.about) {
              <span class="block text-[0.95rem] text-mute">{{ c.about }}</span>
            }
          </span>
        </label>
      }
    </div>
  `,
})
export class OpenChoiceField {
  /** id of the element that names the group */
  readonly labelledBy = input.required<string>();
  readonly value = input.required<string>();
  readonly choices = input.required<readonly OpenChoice[]>();
  readonly layout = input('flex flex-col gap-2');
  readonly valueChange = output<string>();
  protected readonly name = `open-choice-${count++}`;
}
