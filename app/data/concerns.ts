/** What the checks have found, as every view counts and looks it up. */
import { computed, inject, Injectable } from '@angular/core';
import type { Finding } from '#core/recipe';
import { MusterStore } from './musterStore';

/** Breaks and warnings; advice is told where it belongs, and counted nowhere. */
const COUNTED: readonly Finding['severity'][] = ['error', 'warning'];

@Injectable({ providedIn: 'root' })
export class Concerns {
  private readonly store = inject(MusterStore);
  readonly counted = computed(() => this.store.findings().filter((f) => COUNTED.includes(f.severity)));
  readonly breaks = computed(() => this.store.findings().filter((f) => f.severity === 'error'));
  private readonly recipeCounts = computed(() => countBy(this.counted(), (f) => f.place.recipe));
  private readonly byLayer = computed(() => {
    const found = new Map<string, Finding[]>();
    for (const f of this.counted())
      if (f.place.recipe && f.place.layer) {
        const key = `${f.place.recipe} ${f.place.layer}`;
        found.set(key, [...(found.get(key) ?? []), f]);
      }
    return found;
  });

  /** so many breaks and warnings has a recipe */
  ofRecipe(recipe: string): number {
    return this.recipeCounts().get(recipe) ?? 0;
  }

  ofLayer(recipe: string, layer: string): readonly Finding[] {
    return this.byLayer().get(`${recipe} ${layer}`) ?? [];
  }

  /** Takes the cure that one press takes. */
  cure(finding: Finding): void {
    const { fix } = finding;
    if (!fix) return;
    this.store.change(`${finding.where}: ${fix.label}`, fix.apply);
  }
}

function countBy<T>(list: readonly T[], keyOf: (item: T) => string | undefined): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  for (const item of list) {
    const key = keyOf(item);
    if (key !== undefined) counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  return counts;
}
