import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';

let count = 0;

/** A labelled line that narrows what stands below it, as it is typed. */
@Component({
  selector: 'pm-search',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="label" [for]="id">{{ label() }}</label>
    <input
      class="field"
      type="search"
      autocomplete="off"
      [id]="id"
      [value]="value()"
      (input)="value.set($any($event.target).value)"
    />
  `,
})
export class SearchField {
  readonly label = input.required<string>();
  readonly value = model.required<string>();
  protected readonly id = `search-${count++}`;
}
