import { ChangeDetectionStrategy, Component, effect, inject, input, output, signal } from '@angular/core';
import { NAME_LETTERS } from '#core/muster';
import { Refusals } from '../data/refusals';

let count = 0;

/**
 * A labelled line of text, date, time or date and time. What is typed is a draft of the field until it is whole: it is handed on when the
 * field is left or Enter is pressed, as one change; Escape takes the draft back. A refusal stands at the field, with the draft.
 */
@Component({
  selector: 'pm-text',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="label" [class.sr-only]="quiet()" [for]="id">{{ label() }}</label>
    <input
      class="field"
      autocomplete="off"
      [id]="id"
      [type]="type()"
      [value]="value()"
      [attr.maxlength]="type() === 'text' ? most : null"
      [attr.min]="earliest()"
      [attr.max]="latest()"
      [attr.aria-invalid]="fault() !== null"
      [attr.aria-describedby]="fault() ? id + '-fault' : null"
      (blur)="take($any($event.target))"
      (keydown.enter)="take($any($event.target))"
      (keydown.escape)="drop($any($event.target))"
    />
    @if (fault(); as fault) {
      <span class="mt-1 block text-[0.9rem] text-shut" [id]="id + '-fault'">{{ fault }}</span>
    }
  `,
})
export class TextField {
  readonly label = input.required<string>();
  readonly type = input<'text' | 'date' | 'time' | 'datetime-local'>('text');
  readonly value = input.required<string>();
  readonly optional = input(false);
  /** the label is for the ear only: the place says it to the eye */
  readonly quiet = input(false);
  readonly valueChange = output<string>();
  private readonly refusals = inject(Refusals);

  protected readonly id = `text-${count++}`;
  protected readonly most = NAME_LETTERS;
  protected readonly fault = signal<string | null>(null);

  constructor() {
    effect(() => {
      this.value();
      this.fault.set(null);
    });
  }

  /** The years that the program plans for, as the picker of dates is to offer them. */
  protected earliest(): string | null {
    return this.type() === 'date'
      ? '2000-01-01'
      : this.type() === 'datetime-local'
        ? '2000-01-01T00:00'
        : null;
  }
  protected latest(): string | null {
    return this.type() === 'date'
      ? '2199-12-31'
      : this.type() === 'datetime-local'
        ? '2199-12-31T23:59'
        : null;
  }

  protected take(input: HTMLInputElement): void {
    const value = input.value.trim();
    if (input.validity.badInput || (value === '' && !this.optional())) {
      this.fault.set(
        this.type() === 'text'
          ? 'Needs a name.'
          : 'Needs a complete date or time; what stood before still holds.',
      );
      return;
    }
    if (value === this.value()) {
      this.fault.set(null);
      return;
    }
    this.fault.set(this.refusals.during(() => this.valueChange.emit(value)));
  }

  protected drop(input: HTMLInputElement): void {
    input.value = this.value();
    this.fault.set(null);
  }
}
