import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { withRecipe, type Recipe, type Unit } from '#core/muster';
import { coveredIn, duration, goesOn, listed, moment, type Covered } from '#core/plan';
import { maskingOf, zonesTouch } from '#core/recipe';
import { recipesOf } from '#core/session';
import { MusterStore } from '../data/musterStore';
import { Planner } from '../data/planner';
import { MaskOrderNote } from '../recipes/maskOrderNote';
import { Card } from '../ui/card';
import { many } from '../ui/words';

/** What of the unit is covered, with what, from when to when; along the stack and in the plan. */
@Component({
  selector: 'pm-masks-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Card, MaskOrderNote, RouterLink],
  template: `
    @for (r of recipes(); track r.id) {
      <pm-mask-order-note [recipe]="r" (changed)="change($event.recipe, $event.what)" />
    }
    @if (masks(); as list) {
      @for (m of list; track m.key) {
        <section pmCard class="mb-4" [attr.aria-label]="m.name">
          <h2 class="text-[1.25rem]">{{ m.name }}: {{ m.zones }}</h2>
          <p class="mb-2 text-mute">{{ m.under }}</p>
          <ol class="mb-3 flex gap-0.5 overflow-x-auto" aria-label="Along the stack, bottom to top">
            @for (l of m.stack; track l.id) {
              <li class="w-24 shrink-0">
                <span
                  class="block h-4 border border-line"
                  [style.background]="l.colour"
                  aria-hidden="true"
                ></span>
                <span
                  class="mt-0.5 block h-2"
                  [class]="l.isCovered ? 'bg-lamp' : 'bg-line/40'"
                  aria-hidden="true"
                ></span>
                <span class="block text-[0.8rem] leading-tight" [class.text-mute]="!l.isCovered">{{
                  l.name
                }}</span>
                @if (l.word) {
                  <span class="block text-[0.8rem] leading-tight text-lamp">{{ l.word }}</span>
                }
              </li>
            }
          </ol>
          <ul class="grid gap-x-6 md:grid-cols-2" aria-label="In the plan">
            @for (p of m.pieces; track p.name) {
              <li class="border-b border-line/60 py-1">
                <strong>{{ p.name }}</strong> {{ p.when }}
                @if (p.watch) {
                  <strong class="text-shut">{{ p.watch }}</strong>
                }
              </li>
            }
          </ul>
        </section>
      } @empty {
        <p pmCard>
          Nothing of it is masked. <a class="text-lamp underline" routerLink="/recipes">Its recipes</a> say
          what is.
        </p>
      }
    } @else {
      <p class="text-mute" role="status">The masks come with the plan…</p>
    }
  `,
})
export class MasksPanel {
  readonly unit = input.required<Unit>();
  private readonly planner = inject(Planner);
  private readonly store = inject(MusterStore);

  protected readonly recipes = computed(() => {
    const muster = this.store.muster();
    return muster ? recipesOf(muster, this.unit()) : [];
  });

  protected readonly masks = computed(() => {
    const plan = this.planner.plan();
    return plan ? coveredIn(plan, this.unit().id).map((c) => told(c, plan.origin)) : null;
  });

  protected change(recipe: Recipe, what: string): void {
    this.store.change(`${recipe.name}: ${what}`, (m) => withRecipe(m, recipe));
  }
}

/** What the mask's edge runs along. */
function borders(recipe: Recipe, zones: readonly string[]): string {
  const beside = recipe.zones.filter(
    (z) => !zones.includes(z.id) && zones.some((covered) => zonesTouch(recipe, covered, z.id)),
  );
  return zones.length === 0 || beside.length === 0
    ? ''
    : `Edge along ${listed(beside.map((z) => z.name))} · `;
}

function told({ recipe, mask, zones, over, pieces }: Covered, origin: Parameters<typeof moment>[0]) {
  const { layer, from, to } = mask;
  const masking = maskingOf(layer);
  return {
    key: `${recipe.id} ${layer.id}`,
    name: layer.name,
    zones: zones.length > 0 ? listed(zones) : 'parts of what it lies on',
    under: `${borders(recipe, mask.zones)}${recipe.name} · ${masking?.name ?? ''} · ${many(pieces.length, 'mask')}${masking?.isCut ? ' to cut' : ''}${
      over.length > 0
        ? ` · ${listed(over.map((l) => `“${l.name}”`))} ${over.length === 1 ? 'goes' : 'go'} over it`
        : ''
    }`,
    stack: recipe.layers.map((l, k) => ({
      id: l.id,
      name: l.name,
      colour: l.colour,
      isCovered: k >= from && k <= (to ?? recipe.layers.length - 1),
      word:
        k === from
          ? 'covered from here'
          : k === to
            ? 'off'
            : over.includes(l) && zones.length > 0
              ? `on ${listed(goesOn(recipe, l))} only`
              : '',
    })),
    pieces: pieces.map((p) => ({
      name: p.name,
      when:
        p.to === null
          ? `from ${moment(origin, p.from)}`
          : `from ${moment(origin, p.from)} to ${moment(origin, p.to)}, ${duration(p.to - p.from)}`,
      watch:
        p.to === null
          ? 'never taken off: add the unmasking to its recipe'
          : p.age !== null && p.age > (masking?.staysMinutes ?? Infinity) && over.length > 0
            ? `off ${duration(p.age)} after the last paint: ${masking?.sticks ? 'cut along the edge first' : 'lift it straight up'}`
            : '',
    })),
  };
}
