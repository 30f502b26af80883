import { CdkMenu, CdkMenuItem, CdkMenuTrigger } from '@angular/cdk/menu';
import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { Button } from './button';

export interface MenuEntry {
  readonly word: string;
  /** what it does, said beneath */
  readonly about?: string;
  readonly run: () => void;
}

/** A button that holds what is seldom wanted. Arrow keys, Home, End, letters and Escape as everywhere. */
@Component({
  selector: 'pm-menu',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, CdkMenu, CdkMenuItem, CdkMenuTrigger],
  template: `
    <button pmButton="small" [cdkMenuTriggerFor]="entries">
      {{ word() }} <span aria-hidden="true">▾</span>
    </button>
    <ng-template #entries>
      <div
        cdkMenu
        class="flex max-h-[80vh] max-w-[92vw] min-w-56 flex-col overflow-auto rounded-lg border border-lamp bg-raised p-1 text-ink shadow-2xl"
      >
        @for (entry of menu(); track entry.word) {
          <button
            cdkMenuItem
            type="button"
            class="min-h-11 rounded px-4 py-2 text-left hover:bg-board focus-visible:bg-board"
            (cdkMenuItemTriggered)="entry.run()"
          >
            <strong class="block">{{ entry.word }}</strong>
            @if (entry.about; as about) {
              <span class="block text-[0.85rem] text-mute">{{ about }}</span>
            }
          </button>
        }
      </div>
    </ng-template>
  `,
})
export class Menu {
  readonly word = input.required<string>();
  readonly menu = input.required<readonly MenuEntry[]>();
}
