import { ChangeDetectionStrategy, Component, computed, inject, input, model } from '@angular/core';
import { usersOf, type Recipe } from '#core/muster';
import { begunPieces } from '#core/session';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Button } from '../ui/button';
import { CheckField } from '../ui/checkField';

/** The pieces of a recipe, to be ticked one by one, all, or those that are not begun. */
@Component({
  selector: 'pm-piece-ticks',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, CheckField],
  template: `
    <div class="mb-2 flex flex-wrap gap-2">
      <button pmButton="small" (click)="choose(all())">All</button>
      @if (notBegun().length < all().length) {
        <button pmButton="small" (click)="choose(notBegun())">
          From here on: the {{ notBegun().length }} not begun
        </button>
      }
      <button pmButton="small" (click)="choose([])">None</button>
    </div>
    <ul class="max-h-60 overflow-auto rounded-md border border-line px-2">
      @for (u of users(); track u.unit.id) {
        @for (p of u.pieces; track p.id) {
          <li>
            <pm-check
              [label]="p.name"
              [beside]="u.unit.name"
              [value]="chosen().has(p.id)"
              (valueChange)="toggle(p.id)"
            />
          </li>
        }
      }
    </ul>
  `,
})
export class PieceTicks {
  readonly recipe = input.required<Recipe>();
  /** ids of pieces */
  readonly chosen = model.required<ReadonlySet<string>>();
  private readonly store = inject(MusterStore);
  private readonly logbook = inject(Logbook);

  protected readonly users = computed(() => usersOf(this.store.muster()!, this.recipe().id));
  protected readonly all = computed(() => this.users().flatMap((u) => u.pieces.map((p) => p.id)));
  protected readonly notBegun = computed(() => {
    const begun = begunPieces(this.logbook.entries());
    return this.all().filter((id) => !begun.has(id));
  });

  protected choose(ids: readonly string[]): void {
    this.chosen.set(new Set(ids));
  }

  protected toggle(id: string): void {
    const next = new Set(this.chosen());
    if (!next.delete(id)) next.add(id);
    this.chosen.set(next);
  }
}
