import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  contentChild,
  Directive,
  input,
  output,
  TemplateRef,
} from '@angular/core';
import { Button } from './button';

interface RowContext<T> {
  readonly $implicit: T;
  readonly index: number;
}

/** The fields of one item: `<ng-template [pmRow]="items()" let-item let-i="index">`. */
@Directive({ selector: 'ng-template[pmRow]' })
export class ListRow<T> {
  /** only for the type of what the row is given */
  readonly pmRow = input.required<readonly T[]>();

  static ngTemplateContextGuard<T>(_: ListRow<T>, context: unknown): context is RowContext<T> {
    return typeof context === 'object' && context !== null;
  }
}

/** A list of things with an id: fields of each, taking out, adding one. */
@Component({
  selector: 'pm-list-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, NgTemplateOutlet],
  template: `
    <ul class="flex flex-col gap-2" [attr.aria-label]="label() || null">
      @for (item of items(); track item.id; let i = $index) {
        <li class="flex flex-wrap items-end gap-2">
          <ng-container
            [ngTemplateOutlet]="row()"
            [ngTemplateOutletContext]="{ $implicit: item, index: i }"
          />
          <button
            pmButton="small"
            [attr.aria-label]="outWord() + ' ' + nameOf()(item, i)"
            (click)="taken.emit(item)"
          >
            {{ outWord() }}
          </button>
        </li>
      } @empty {
        @if (empty()) {
          <li class="text-mute">{{ empty() }}</li>
        }
      }
    </ul>
    @if (addText()) {
      <button pmButton="small" class="mt-2" (click)="added.emit()">{{ addText() }}</button>
    }
  `,
})
export class ListEditor<T extends { readonly id: string }> {
  readonly items = input.required<readonly T[]>();
  readonly label = input('');
  /** what an item is called where it is taken out */
  readonly nameOf = input.required<(item: T, index: number) => string>();
  readonly outWord = input('Take out');
  /** empty: nothing is added here by a press */
  readonly addText = input('');
  readonly empty = input('');
  readonly taken = output<T>();
  readonly added = output();
  protected readonly row = contentChild.required(ListRow, { read: TemplateRef<RowContext<T>> });
}
