import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { usersOf, withVersion, type Piece, type Recipe } from '#core/muster';
import { begunPieces } from '#core/session';
import { NEW_ID } from '../data/environment';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { many } from '../ui/words';
import { Button } from '../ui/button';
import { PieceTicks } from './pieceTicks';

/** Who follows a recipe, and a version of it for some of them. */
@Component({
  selector: 'pm-recipe-use',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, PieceTicks, RouterLink],
  template: `
    <h3 class="mt-4 mb-1 text-[1.05rem]">Used by</h3>
    @if (users().length === 0) {
      <p class="text-mute">No piece follows it yet.</p>
    } @else {
      <ul class="mb-2 flex flex-col gap-0.5">
        @for (u of users(); track u.unit.id) {
          <li>
            <a class="underline" routerLink="/muster" [queryParams]="{ unit: u.unit.id }">{{
              u.unit.name
            }}</a>
            <span class="text-mute"> · {{ words(u.pieces.length, 'piece') }}{{ begunWords(u.pieces) }}</span>
          </li>
        }
      </ul>
      <p class="mb-2 text-[0.9rem] text-mute">A change of the recipe holds for all of them.</p>
      <details>
        <summary class="cursor-pointer py-2 font-semibold">A version for some of them</summary>
        <pm-piece-ticks [recipe]="recipe()" [(chosen)]="chosen" />
        <button pmButton class="mt-2" [disabled]="chosen().size === 0" (click)="make()">
          Make a version for {{ words(chosen().size, 'piece') }}
        </button>
      </details>
    }
  `,
})
export class RecipeUse {
  readonly recipe = input.required<Recipe>();
  private readonly store = inject(MusterStore);
  private readonly logbook = inject(Logbook);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  private readonly newId = inject(NEW_ID);
  protected readonly words = many;

  protected readonly users = computed(() => usersOf(this.store.muster()!, this.recipe().id));
  private readonly begun = computed(() => begunPieces(this.logbook.entries()));
  protected readonly chosen = linkedSignal<Recipe, ReadonlySet<string>>({
    source: () => this.recipe(),
    computation: (recipe, before) => (before?.source.id === recipe.id ? before.value : new Set()),
  });

  protected begunWords(pieces: readonly Piece[]): string {
    const n = pieces.filter((p) => this.begun().has(p.id)).length;
    return n === 0 ? '' : `, ${n} begun`;
  }

  protected make(): void {
    const recipe = this.recipe();
    let id = '';
    const isMade = this.store.change(
      `A version of ${recipe.name} for ${many(this.chosen().size, 'piece')}`,
      (m) => {
        const version = withVersion(m, recipe, this.chosen(), this.newId);
        id = version.id;
        return version.muster;
      },
    );
    if (!isMade) return;
    this.notices.tell(
      'Changes of this version hold for its pieces only; the others keep the recipe as it was.',
    );
    void this.router.navigate(['/recipes', id]);
  }
}
