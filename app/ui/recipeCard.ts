import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Recipe } from '#core/muster';
import { duration } from '#core/plan';
import { factsOf } from '#core/recipe';

/** What a recipe is, before it is taken: its stack, how long it takes, what it needs. */
@Component({
  selector: 'pm-recipe-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="flex gap-3">
      <span class="flex w-14 shrink-0 flex-col-reverse self-end border-b-4 border-line" aria-hidden="true">
        @for (layer of recipe().layers; track layer.id) {
          <span class="block h-[5px] border-t border-ground/60" [style.background]="layer.colour"></span>
        }
      </span>
      <span class="min-w-0">
        <strong class="block font-title text-[1.08rem] leading-tight">{{ recipe().name }}</strong>
        <span class="block text-[0.9rem] text-mute">{{ text() }}</span>
        <span class="block text-[0.9rem]" [class]="facts().hasSolvent ? 'text-shut' : 'text-open'">{{
          facts().hasSolvent ? 'with solvents' : 'no solvents'
        }}</span>
      </span>
    </span>
  `,
})
export class RecipeCard {
  readonly recipe = input.required<Recipe>();
  protected readonly facts = computed(() => factsOf(this.recipe()));
  protected readonly text = computed(() => {
    const { layers, handsMinutes, dryMinutes, isSprayed } = this.facts();
    return [
      `${layers} layers`,
      `${duration(handsMinutes)} of hands a piece`,
      `${duration(dryMinutes)} of drying`,
      isSprayed ? 'airbrush' : 'by brush',
    ].join(' · ');
  });
}
