import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { form, validate } from '@angular/forms/signals';
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
      [value]="entry().value()"
      (input)="look($any($event.target))"
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
  private readonly draft = linkedSignal(() => this.value());
  protected readonly entry = form(this.draft, (path) =>
    validate(path, ({ value }) =>
      value().trim() === '' && !this.optional() ? { kind: 'empty', message: this.whatItNeeds() } : null,
    ),
  );
  /** why the field as it stands was not taken, until something else is typed */
  private readonly refused = linkedSignal<string, string | null>({
    source: this.draft,
    computation: () => null,
  });
  protected readonly fault = computed(() => {
    const error = this.entry().errors()[0];
    return error ? (error.message ?? this.whatItNeeds()) : this.refused();
  });

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

  /** A date of which a part is missing is no text yet. */
  protected look(input: HTMLInputElement): void {
    if (!input.validity.badInput) this.draft.set(input.value);
  }

  protected take(input: HTMLInputElement): void {
    if (input.validity.badInput) return this.refused.set(this.whatItNeeds());
    if (this.entry().invalid()) return;
    const value = this.draft().trim();
    if (value === this.value()) this.draft.set(value);
    else this.refused.set(this.refusals.during(() => this.valueChange.emit(value)));
  }

  /** Escape: what was typed is given up. */
  protected drop(input: HTMLInputElement): void {
    input.value = this.value();
    this.draft.set(this.value());
    this.refused.set(null);
  }

  private whatItNeeds(): string {
    return this.type() === 'text'
      ? 'Needs a name.'
      : 'Needs a complete date or time; what stood before still holds.';
  }
}
