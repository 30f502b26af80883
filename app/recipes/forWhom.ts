import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { Router } from '@angular/router';
import { usersOf, withRecipe, withVersion, type Recipe } from '#core/muster';
import { NEW_ID } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { many } from '../ui/words';
import { PieceTicks } from './pieceTicks';

/** After the first change of a recipe that several pieces follow: does it hold for all of them, for some, from here on? */
@Component({
  selector: 'pm-for-whom',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, Card, PieceTicks],
  template: `
    <section pmCard="lamp" aria-label="For whom the change holds">
      <p class="mb-2">
        <strong>For whom?</strong> What you change here holds for all {{ words(count(), 'piece') }} of
        {{ words(users().length, 'unit') }} that follow it.
      </p>
      <div class="flex flex-wrap gap-2">
        <button pmButton="small lamp" (click)="settled.emit()">For all of them</button>
        <button pmButton="small" [attr.aria-expanded]="isSome()" (click)="isSome.set(!isSome())">
          Only for some…
        </button>
      </div>
      @if (isSome()) {
        <p class="mt-3 mb-2 text-[0.9rem] text-mute">
          Those ticked get a version with the changes; for the others the recipe is again as it was.
        </p>
        <pm-piece-ticks [recipe]="recipe()" [(chosen)]="chosen" />
        <button
          pmButton
          class="mt-2"
          [disabled]="chosen().size === 0 || chosen().size === count()"
          (click)="split()"
        >
          Only for {{ words(chosen().size, 'piece') }}
        </button>
      }
    </section>
  `,
})
export class ForWhom {
  /** as it is now */
  readonly recipe = input.required<Recipe>();
  /** as it was before the first change */
  readonly before = input.required<Recipe>();
  readonly settled = output();
  private readonly store = inject(MusterStore);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  private readonly newId = inject(NEW_ID);
  protected readonly words = many;
  protected readonly isSome = signal(false);
  protected readonly chosen = signal<ReadonlySet<string>>(new Set());
  protected readonly users = computed(() => usersOf(this.store.muster()!, this.recipe().id));
  protected readonly count = computed(() => this.users().reduce((n, u) => n + u.pieces.length, 0));

  protected split(): void {
    const recipe = this.recipe();
    let id = '';
    const isMade = this.store.change(
      `The changes of ${recipe.name} hold for ${many(this.chosen().size, 'piece')} only`,
      (m) => {
        const version = withVersion(withRecipe(m, this.before()), recipe, this.chosen(), this.newId);
        id = version.id;
        return version.muster;
      },
    );
    if (!isMade) return;
    this.settled.emit();
    this.notices.tell(`${recipe.name} is as it was; this version has the changes.`);
    void this.router.navigate(['/recipes', id]);
  }
}
