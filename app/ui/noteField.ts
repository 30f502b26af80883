import { ChangeDetectionStrategy, Component, inject, input, linkedSignal, output } from '@angular/core';
import { Refusals } from '../data/refusals';

let count = 0;

/** Labelled lines of text, handed on when the field is left. */
@Component({
  selector: 'pm-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="label" [for]="id">{{ label() }}</label>
    <textarea
      class="field block"
      [rows]="rows()"
      [id]="id"
      [attr.maxlength]="most()"
      [value]="value()"
      (input)="typed.emit($any($event.target).value)"
      (change)="take($any($event.target).value)"
    ></textarea>
    @if (refused(); as fault) {
      <span class="mt-1 block text-[0.9rem] text-shut" role="alert">{{ fault }}</span>
    }
  `,
})
export class NoteField {
  readonly label = input.required<string>();
  readonly value = input.required<string>();
  /** letters; null: as many as one likes */
  readonly most = input<number | null>(2000);
  /** lines that are seen */
  readonly rows = input(3);
  readonly valueChange = output<string>();
  /** every letter, as it comes */
  readonly typed = output<string>();
  private readonly refusals = inject(Refusals);
  protected readonly id = `note-${count++}`;
  protected readonly refused = linkedSignal<string, string | null>({
    source: this.value,
    computation: () => null,
  });

  protected take(text: string): void {
    this.refused.set(this.refusals.during(() => this.valueChange.emit(text)));
  }
}
