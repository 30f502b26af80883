import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { Refusals } from '../data/refusals';

let count = 0;

/** A labelled number with its unit. Says what is wrong with an entry and hands on only what is right. */
@Component({
  selector: 'pm-number',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="label" [for]="id">{{ label() }}</label>
    <span class="flex items-center gap-2">
      <input
        class="field max-w-28"
        inputmode="decimal"
        autocomplete="off"
        [id]="id"
        [value]="text()"
        [placeholder]="optional() ? '—' : ''"
        [attr.aria-invalid]="fault() !== null"
        [attr.aria-describedby]="fault() ? id + '-fault' : null"
        (change)="take($any($event.target).value)"
      />
      <span class="text-[0.9rem] text-mute">{{ unit() }}</span>
    </span>
    @if (fault(); as fault) {
      <span class="mt-1 block text-[0.9rem] text-shut" [id]="id + '-fault'">{{ fault }}</span>
    }
  `,
})
export class NumberField {
  readonly label = input.required<string>();
  readonly unit = input('');
  readonly value = input.required<number | null>();
  readonly min = input(0);
  readonly max = input(1_000_000);
  readonly whole = input(false);
  /** may be left empty: null */
  readonly optional = input(false);
  readonly valueChange = output<number | null>();
  private readonly refusals = inject(Refusals);

  protected readonly id = `number-${count++}`;
  protected readonly fault = signal<string | null>(null);
  private readonly typed = signal<string | null>(null);
  protected readonly text = computed(() => this.typed() ?? String(this.value() ?? ''));

  constructor() {
    // A new value from outside replaces whatever was typed.
    effect(() => {
      this.value();
      this.typed.set(null);
      this.fault.set(null);
    });
  }

  protected take(text: string): void {
    const trimmed = text.trim().replace(',', '.');
    const value = trimmed === '' ? null : Number(trimmed);
    const fault = this.faultOf(value);
    const refused =
      fault ?? (value === this.value() ? null : this.refusals.during(() => this.valueChange.emit(value)));
    this.fault.set(refused);
    this.typed.set(refused === null ? null : text);
  }

  private faultOf(value: number | null): string | null {
    if (value === null) return this.optional() ? null : 'Needs a number.';
    if (!Number.isFinite(value)) return 'That is no number.';
    if (this.whole() && !Number.isInteger(value)) return 'Needs a whole number.';
    if (value < this.min() || value > this.max())
      return `Between ${this.min()} and ${this.max()} ${this.unit()}.`;
    return null;
  }
}
