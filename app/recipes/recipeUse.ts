import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { withVersion, type Piece, type Recipe, type Unit } from '#core/muster';
import { standing } from '#core/session';
import { NEW_ID } from '../data/environment';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { many } from '../ui/words';

/** Who follows a recipe, and a version of it for some of them. */
@Component({
  selector: 'pm-recipe-use',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
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
        <div class="mb-2 flex flex-wrap gap-2">
          <button type="button" class="btn btn-small" (click)="choose(all())">All</button>
          @if (begun().size > 0) {
            <button type="button" class="btn btn-small" (click)="choose(notBegun())">
              From here on: the {{ notBegun().length }} not begun
            </button>
          }
          <button type="button" class="btn btn-small" (click)="choose([])">None</button>
        </div>
        <ul class="max-h-60 overflow-auto rounded-md border border-line px-2">
          @for (u of users(); track u.unit.id) {
            @for (p of u.pieces; track p.id) {
              <li>
                <label class="flex min-h-11 items-center gap-2"
                  ><input
                    type="checkbox"
                    class="h-5 w-5 shrink-0 accent-lamp"
                    [checked]="chosen().has(p.id)"
                    (change)="toggle(p.id)"
                  />{{ p.name }} <span class="text-[0.9rem] text-mute">{{ u.unit.name }}</span></label
                >
              </li>
            }
          }
        </ul>
        <button type="button" class="btn mt-2" [disabled]="chosen().size === 0" (click)="make()">
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

  protected readonly users = computed((): { unit: Unit; pieces: Piece[] }[] =>
    (this.store.muster()?.units ?? [])
      .map((unit) => ({ unit, pieces: unit.pieces.filter((p) => p.recipe === this.recipe().id) }))
      .filter((u) => u.pieces.length > 0),
  );
  protected readonly all = computed(() => this.users().flatMap((u) => u.pieces.map((p) => p.id)));
  /** ids of pieces of which something is done */
  protected readonly begun = computed(() => {
    const done = standing(this.logbook.entries()).flatMap((e) => (e.kind === 'done' ? [e.step] : []));
    return new Set(this.all().filter((id) => done.some((step) => step.startsWith(`${id}.`))));
  });
  protected readonly notBegun = computed(() => this.all().filter((id) => !this.begun().has(id)));
  protected readonly chosen = linkedSignal<Recipe, ReadonlySet<string>>({
    source: () => this.recipe(),
    computation: (recipe, before) => (before?.source.id === recipe.id ? before.value : new Set()),
  });

  protected begunWords(pieces: readonly Piece[]): string {
    const n = pieces.filter((p) => this.begun().has(p.id)).length;
    return n === 0 ? '' : `, ${n} begun`;
  }

  protected choose(ids: readonly string[]): void {
    this.chosen.set(new Set(ids));
  }

  protected toggle(id: string): void {
    const next = new Set(this.chosen());
    if (!next.delete(id)) next.add(id);
    this.chosen.set(next);
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
