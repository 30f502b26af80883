import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { form, FormField, validate } from '@angular/forms/signals';
import type { ZodType } from 'zod';
import { limitsOf, numberFault } from '#core/muster';
import { duration } from '#core/plan';
import { Refusals } from '../data/refusals';

let count = 0;

/** A labelled number with its unit. Says what is wrong with an entry while it is typed, and hands on only what is right. */
@Component({
  selector: 'pm-number',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FormField],
  template: `
    <label class="label" [for]="id">{{ label() }}</label>
    <span class="flex items-center gap-2">
      <input
        class="field max-w-28"
        inputmode="decimal"
        autocomplete="off"
        [id]="id"
        [formField]="entry"
        [placeholder]="isOptional() ? '—' : ''"
        [attr.aria-invalid]="fault() !== null"
        [attr.aria-describedby]="fault() ? id + '-fault' : null"
        (change)="take()"
      />
      <span class="text-[0.9rem] text-mute">{{ unitText() }}</span>
    </span>
    @if (fault(); as fault) {
      <span class="mt-1 block text-[0.9rem] text-shut" [id]="id + '-fault'">{{ fault }}</span>
    }
  `,
})
export class NumberField {
  readonly label = input.required<string>();
  /** as it stands behind the number; with "min" hours are understood too */
  readonly unit = input('');
  readonly value = input.required<number | null>();
  /** the schema of what is typed: its limits hold here */
  readonly of = input.required<ZodType>();
  readonly valueChange = output<number | null>();
  private readonly refusals = inject(Refusals);

  protected readonly id = `number-${count++}`;
  private readonly limits = computed(() => limitsOf(this.of()));
  private readonly isMinutes = computed(() => /^min\b/.test(this.unit()));
  /** A new value from outside replaces whatever was typed. */
  private readonly draft = linkedSignal(() => String(this.value() ?? ''));
  protected readonly entry = form(this.draft, (path) =>
    validate(path, ({ value }) => {
      const message = numberFault(this.read(value()), this.limits(), this.unit());
      return message === null ? null : { kind: 'limits', message };
    }),
  );
  /** why the door refused what was handed on, until something else is typed */
  private readonly refused = linkedSignal<string, string | null>({
    source: this.draft,
    computation: () => null,
  });
  protected readonly fault = computed(() => this.entry().errors()[0]?.message ?? this.refused());
  protected readonly isOptional = computed(() => this.limits().isOptional);
  protected readonly unitText = computed(() => {
    const value = this.value();
    return this.isMinutes() && value !== null && value >= LONG_MINUTES
      ? `${this.unit()} (${duration(value)})`
      : this.unit();
  });

  protected take(): void {
    if (this.entry().invalid()) return;
    const value = this.read(this.draft());
    if (value === this.value()) this.draft.set(String(value ?? ''));
    else this.refused.set(this.refusals.during(() => this.valueChange.emit(value)));
  }

  private read(text: string): number | null {
    const trimmed = text.trim();
    if (trimmed === '') return null;
    return this.isMinutes() ? minutesOf(trimmed) : Number(trimmed.replace(',', '.'));
  }
}

/** From here on minutes are told in hours too. */
const LONG_MINUTES = 120;

/** `90`, `1 h 30`, `1:30`, `1.5 h`, `2 days`: minutes; NaN where it is none of them. */
function minutesOf(text: string): number {
  const clean = text.toLowerCase().replace(/,/g, '.');
  const clock = /^(\d+):([0-5]\d)$/.exec(clean);
  if (clock) return Number(clock[1]) * 60 + Number(clock[2]);
  const parts =
    /^(?:(\d+(?:\.\d+)?)\s*d(?:ays?)?)?\s*(?:(\d+(?:\.\d+)?)\s*h(?:ours?)?)?\s*(?:(\d+(?:\.\d+)?)\s*(?:m(?:in(?:utes?)?)?)?)?$/.exec(
      clean,
    );
  if (!parts) return Number(clean);
  const [days, hours, minutes] = parts.slice(1).map((p) => Number(p ?? 0));
  return days! * 1440 + hours! * 60 + minutes!;
}
