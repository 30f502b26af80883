import { booleanAttribute, ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** A button that asks for a file. The same file may be chosen twice. */
@Component({
  selector: 'pm-file',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="btn cursor-pointer focus-within:outline-3 focus-within:outline-lamp"
      >{{ word()
      }}<input
        class="sr-only"
        type="file"
        [accept]="accept()"
        [attr.capture]="camera() ? 'environment' : null"
        (change)="take($any($event.target))"
    /></label>
  `,
})
export class FileButton {
  readonly word = input.required<string>();
  readonly accept = input.required<string>();
  /** a phone may take the picture on the spot */
  readonly camera = input(false, { transform: booleanAttribute });
  readonly chosen = output<File>();

  protected take(field: HTMLInputElement): void {
    const file = field.files?.[0];
    field.value = '';
    if (file) this.chosen.emit(file);
  }
}
