import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Button } from './button';

/**
 * A list, and beside it what is chosen of it. Where there is no room for both the chosen comes first, with a way back; with nothing chosen
 * the list does. Content: `[list]` and `[detail]`.
 */
@Component({
  selector: 'pm-list-detail',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button],
  template: `
    <div class="grid items-start gap-5 xl:grid-cols-[minmax(0,1fr)_27rem]">
      <div class="min-w-0"><ng-content select="[list]" /></div>
      <aside
        class="rounded-lg border border-line bg-raised p-4 xl:sticky xl:pb-28 xl:top-3 xl:order-none xl:max-h-[calc(100vh-5rem)] xl:overflow-auto"
        [class.order-first]="open()"
      >
        @if (open()) {
          <button pmButton class="mb-3 xl:hidden" (click)="shut.emit()">← {{ back() }}</button>
        }
        <ng-content select="[detail]" />
      </aside>
    </div>
  `,
})
export class ListDetail {
  /** whether something is chosen */
  readonly open = input.required<boolean>();
  /** what the way back says */
  readonly back = input.required<string>();
  readonly shut = output();
}
