import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { materialsOf } from '#core/amounts';
import { cautionsFor, DEFER, familyOf, methodOf, sprayGuide, sprayWords } from '#core/materials';
import type { Layer, Piece } from '#core/muster';
import { duration } from '#core/plan';
import { dryingOf, factsOf, opensAfter, roundsOf } from '#core/recipe';
import { MusterStore } from '../data/musterStore';
import { many, tenths } from '../ui/words';
import { Button } from '../ui/button';

/** A recipe for one piece of the usual size, where no piece follows it yet. */
const ONE: Piece = { id: 'one', name: 'One piece', recipe: null, count: 1, places: 1, joins: null };

/** One recipe on paper: its stack from the bottom up, what it takes, what to beware of. */
@Component({
  selector: 'pm-recipe-sheet-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, RouterLink],
  template: `
    <div class="mx-auto max-w-[60rem] px-5 py-4">
      @if (found(); as r) {
        <div class="no-print mb-3 flex flex-wrap items-center gap-2">
          <a pmButton="small" [routerLink]="['/recipes', r.id]">← The recipe</a>
          <span class="grow"></span>
          <button pmButton="lamp" (click)="print()">Print</button>
        </div>
        <h1 class="text-[2rem]">{{ r.name }}</h1>
        <p class="mb-4 text-mute">{{ summary() }}</p>
        <ol class="mb-6">
          @for (l of r.layers; track l.id; let k = $index) {
            <li class="grid grid-cols-[2.2rem_1.2rem_minmax(0,1fr)] gap-x-3 border-t border-line py-2">
              <span class="text-right font-title text-[1.2rem] font-bold">{{ k + 1 }}</span>
              <span
                class="mt-1 inline-block h-4 w-4 rounded-sm border border-line"
                [style.background]="l.colour"
              ></span>
              <div>
                <strong class="font-title text-[1.1rem]">{{ l.name }}</strong>
                <span class="text-mute"> · {{ zones(l) }}</span>
                <div>{{ how(l) }}</div>
                <div class="text-mute">{{ when(l) }}</div>
                @if (l.note) {
                  <div>{{ l.note }}</div>
                }
              </div>
            </li>
          }
        </ol>
        <h2 class="mb-1 text-[1.3rem]">What it takes, {{ forWhom() }}</h2>
        <table class="mb-6 w-full text-[0.95rem]">
          <thead>
            <tr class="border-b border-line text-left">
              <th scope="col" class="py-1">Material</th>
              <th scope="col" class="py-1 text-right">ml</th>
              <th scope="col" class="py-1 pl-6">for</th>
            </tr>
          </thead>
          <tbody>
            @for (m of materials(); track m.name) {
              <tr class="border-b border-line/60">
                <td class="py-1">{{ m.name }}</td>
                <td class="py-1 text-right">{{ tenths(m.ml) }}</td>
                <td class="py-1 pl-6 text-mute">{{ m.layers.join(', ') }}</td>
              </tr>
            }
          </tbody>
        </table>
        <h2 class="mb-1 text-[1.3rem]">Beware</h2>
        <ul class="list-disc pl-5">
          @for (c of cautions(); track c) {
            <li>{{ c }}</li>
          }
        </ul>
        <p class="mt-1 text-mute">{{ defer }}</p>
      } @else {
        <p class="p-4">
          This recipe is not in the muster. <a class="underline" routerLink="/recipes">All recipes</a>
        </p>
      }
    </div>
  `,
})
export class RecipeSheetView {
  /** from the route: id of the recipe */
  readonly recipe = input.required<string>();
  private readonly store = inject(MusterStore);
  protected readonly defer = DEFER;
  protected readonly tenths = tenths;
  protected readonly found = computed(
    () => this.store.muster()?.recipes.find((r) => r.id === this.recipe()) ?? null,
  );
  private readonly pieces = computed(() =>
    (this.store.muster()?.units ?? []).flatMap((u) => u.pieces).filter((p) => p.recipe === this.recipe()),
  );
  protected readonly forWhom = computed(() => {
    const n = this.pieces().length;
    return n === 0
      ? 'for one small piece'
      : `for the ${many(n, 'piece')} that ${n === 1 ? 'follows' : 'follow'} it`;
  });
  protected readonly materials = computed(() => {
    const recipe = this.found();
    return recipe ? materialsOf(recipe, this.pieces().length > 0 ? this.pieces() : [ONE]) : [];
  });
  protected readonly cautions = computed(() => [
    ...new Set((this.found()?.layers ?? []).flatMap(cautionsFor)),
  ]);
  protected readonly summary = computed(() => {
    const recipe = this.found();
    if (!recipe) return '';
    const { layers, handsMinutes, dryMinutes, hasSolvent } = factsOf(recipe);
    return `${many(layers, 'layer')} · ${duration(handsMinutes)} of hands a piece · ${duration(dryMinutes)} of drying at 21 °C, 50 % · ${hasSolvent ? 'with solvents' : 'no solvents'}`;
  });

  protected zones(layer: Layer): string {
    const recipe = this.found()!;
    const names = recipe.zones.filter((z) => layer.zones.includes(z.id)).map((z) => z.name);
    return names.length > 0 ? names.join(', ') : 'all of it';
  }

  protected how(layer: Layer): string {
    const guide = sprayGuide(layer.family, layer.method, layer);
    return [
      methodOf(layer.method).name,
      familyOf(layer.family).name,
      layer.applicator ?? '',
      layer.mixture,
      layer.wetWith === undefined ? '' : `wet into wet with ${layer.wetWith}`,
      many(layer.coats, 'coat'),
      `${duration(layer.minutes * layer.coats)} of hands`,
      guide ? sprayWords(guide) : '',
    ]
      .filter((t) => t !== '')
      .join(' · ');
  }

  protected when(layer: Layer): string {
    const w = layer.window;
    return [
      roundsOf(layer) > 1 ? `${roundsOf(layer)} times` : '',
      dryingOf(layer) > 0 ? `dry for the next after ${duration(Math.ceil(dryingOf(layer)))}` : 'no wait',
      w ? `go on from ${duration(Math.ceil(opensAfter(layer)))}` : '',
      w?.preferMinutes != null ? `better by ${duration(w.preferMinutes)}` : '',
      w?.closesMinutes != null ? `no later than ${duration(w.closesMinutes)}` : '',
    ]
      .filter((t) => t !== '')
      .join(', ');
  }

  protected print(): void {
    window.print();
  }
}
