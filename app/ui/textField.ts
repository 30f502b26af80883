import { ChangeDetectionStrategy, Component, effect, input, output, signal } from '@angular/core';

let count = 0;

/** A labelled line of text, date, time or date and time, handed on when it is complete. */
@Component({
  selector: 'pm-text',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="label" [for]="id">{{ label() }}</label>
    <input
      class="field"
      autocomplete="off"
      [id]="id"
      [type]="type()"
      [value]="value()"
      [attr.maxlength]="type() === 'text' ? 120 : null"
      [attr.aria-invalid]="fault() !== null"
      [attr.aria-describedby]="fault() ? id + '-fault' : null"
      (change)="take($any($event.target))"
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
  readonly valueChange = output<string>();

  protected readonly id = `text-${count++}`;
  protected readonly fault = signal<string | null>(null);

  constructor() {
    effect(() => {
      this.value();
      this.fault.set(null);
    });
  }

  protected take(input: HTMLInputElement): void {
    const value = input.value.trim();
    if (value === '' && !this.optional()) {
      this.fault.set(this.type() === 'text' ? 'Needs a name.' : 'Needs a complete date or time.');
      input.value = this.value();
      return;
    }
    this.fault.set(null);
    if (value !== this.value()) this.valueChange.emit(value);
  }
}
