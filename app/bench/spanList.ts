import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { NEW_ID } from '../data/environment';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { ListEditor, ListRow } from '../ui/listEditor';
import { TextField } from '../ui/textField';
import { weekdayName } from '../ui/words';

/** From one time of day, or date, to another; on a weekday where that matters. */
export interface SpanItem {
  readonly id: string;
  readonly weekday?: number;
  readonly from: string;
  readonly to: string;
}

const WEEKDAYS: readonly Choice[] = [1, 2, 3, 4, 5, 6, 7].map((k) => ({
  value: String(k),
  text: weekdayName(k),
}));

/** A list of spans of time: hours of a helper, quiet hours, days away. */
@Component({
  selector: 'pm-span-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceField, ListEditor, ListRow, TextField],
  template: `
    <pm-list-editor
      [items]="items()"
      [nameOf]="nameOf"
      [addText]="addText()"
      (taken)="changed.emit(without($event.id))"
      (added)="add()"
    >
      <ng-template [pmRow]="items()" let-item let-i="index">
        @if (item.weekday !== undefined) {
          <pm-choice
            class="w-36"
            [label]="'Day ' + (i + 1)"
            [value]="'' + item.weekday"
            [choices]="weekdays"
            (valueChange)="set(item.id, { weekday: +$event })"
          />
        }
        <pm-text
          class="w-36"
          [type]="type()"
          [label]="what() + ', from'"
          [value]="item.from"
          (valueChange)="set(item.id, { from: $event })"
        />
        <pm-text
          class="w-36"
          [type]="type()"
          [label]="what() + ', to'"
          [value]="item.to === '24:00' ? '23:59' : item.to"
          (valueChange)="set(item.id, { to: $event === '23:59' ? '24:00' : $event })"
        />
      </ng-template>
    </pm-list-editor>
  `,
})
export class SpanList<T extends SpanItem> {
  private readonly newId = inject(NEW_ID);
  readonly items = input.required<readonly T[]>();
  readonly type = input.required<'time' | 'date'>();
  /** what one of them is, for labels */
  readonly what = input.required<string>();
  readonly addText = input.required<string>();
  /** a new one, but for its id */
  readonly fresh = input.required<Omit<T, 'id'>>();
  readonly changed = output<T[]>();

  protected readonly weekdays = WEEKDAYS;
  protected readonly nameOf = (_: T, index: number): string => `${this.what()} ${index + 1}`;

  protected set(id: string, part: Partial<SpanItem>): void {
    this.changed.emit(this.items().map((item) => (item.id === id ? { ...item, ...part } : item)));
  }

  protected without(id: string): T[] {
    return this.items().filter((item) => item.id !== id);
  }

  protected add(): void {
    this.changed.emit([...this.items(), { ...this.fresh(), id: this.newId() } as T]);
  }
}
