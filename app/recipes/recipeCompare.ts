import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { Layer, Product, Recipe } from '#core/muster';
import { duration } from '#core/plan';
import { appearanceOf, productsByName } from '#core/optics';
import {
  compareRecipes,
  factsOf,
  layersOn,
  QUESTIONS,
  schoolOf,
  underSchool,
  zonesToSee,
} from '#core/recipe';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { LookBlock } from './lookBlock';

/** A recipe beside another, or beside itself under another school, the top layer first. */
@Component({
  selector: 'pm-recipe-compare',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Card, Button, ChoiceField, LookBlock],
  template: `
    <section pmCard="lamp" class="mb-4" aria-labelledby="compare">
      <div class="mb-2 flex flex-wrap items-end gap-3">
        <h2 id="compare" class="grow text-[1.2rem]">Side by side</h2>
        <pm-choice
          class="w-64"
          label="Compare with"
          [value]="otherId()"
          [choices]="choices()"
          (valueChange)="otherId.set($event)"
        />
        <button pmButton="small" (click)="shut.emit()">Close</button>
      </div>
      @if (other(); as o) {
        <p class="mb-2" role="status">{{ summary() }}</p>
        <div class="mb-2 grid grid-cols-2 gap-3">
          @for (look of looks(); track $index) {
            @if (look.sight; as sight) {
              <pm-look-block class="block max-w-[14rem]" [sight]="sight" [label]="look.name" />
            }
          }
        </div>
        <table class="w-full table-fixed text-[0.95rem]">
          <thead>
            <tr class="text-left">
              <th scope="col" class="p-1">{{ recipe().name }}</th>
              <th scope="col" class="p-1">{{ o.name }}</th>
            </tr>
          </thead>
          <tbody>
            @for (row of rows(); track $index) {
              <tr class="border-t border-line align-top">
                <td class="p-1" [class]="row.right ? '' : 'text-open'">{{ shown(row.left) }}</td>
                <td class="p-1" [class]="row.left ? '' : 'text-open'">
                  {{ shown(row.right) }}
                  @for (d of row.differs; track d) {
                    <span class="block text-[0.9rem] text-lamp">{{ d }}</span>
                  }
                </td>
              </tr>
            }
          </tbody>
        </table>
      }
    </section>
  `,
})
export class RecipeCompare {
  readonly recipe = input.required<Recipe>();
  readonly recipes = input.required<readonly Recipe[]>();
  readonly products = input<readonly Product[]>([]);
  readonly shut = output();
  protected readonly otherId = signal('');
  protected readonly choices = computed((): readonly Choice[] => [
    { value: '', text: 'choose…' },
    ...this.recipes()
      .filter((r) => r.id !== this.recipe().id)
      .map((r) => ({ value: r.id, text: r.name })),
    ...this.schools().map(({ value, text }) => ({ value, text })),
  ]);
  /** this recipe as other schools would have it */
  private readonly schools = computed(() =>
    QUESTIONS.flatMap((q) =>
      q.schools
        .filter((s) => s.id !== schoolOf(this.recipe(), q.id))
        .map((s) => ({
          value: `${q.id}/${s.id}`,
          text: `this one, ${q.name.toLowerCase()}: ${s.name}`,
          question: q.id,
          school: s.id,
        })),
    ),
  );
  protected readonly other = computed((): Recipe | null => {
    const school = this.schools().find((s) => s.value === this.otherId());
    if (school) {
      const { recipe } = underSchool(this.recipe(), school.question, school.school);
      return { ...recipe, name: school.text };
    }
    return this.recipes().find((r) => r.id === this.otherId() && r.id !== this.recipe().id) ?? null;
  });
  protected readonly rows = computed(() => {
    const other = this.other();
    return other ? compareRecipes(this.recipe(), other).reverse() : [];
  });
  /** the first zone of each, when all is done */
  protected readonly looks = computed(() => {
    const shelf = productsByName(this.products());
    return [this.recipe(), this.other()].flatMap((r) => {
      if (!r) return [];
      const zone = zonesToSee(r)[0]!;
      const sight = appearanceOf(layersOn(r, zone.id), shelf).at(-1) ?? null;
      return [{ name: `${r.name}, ${zone.name}, when all is done`, sight }];
    });
  });
  protected readonly summary = computed(() => {
    const other = this.other();
    if (!other) return '';
    const [a, b] = [factsOf(this.recipe()), factsOf(other)];
    const alike = this.isAlike() ? ' · no difference: nothing here is decided by it' : '';
    return `${a.layers} and ${b.layers} layers · ${duration(a.handsMinutes)} and ${duration(b.handsMinutes)} of hands a piece · ${duration(a.dryMinutes)} and ${duration(b.dryMinutes)} of drying${alike}`;
  });
  protected readonly isAlike = computed(() =>
    this.rows().every((r) => r.left && r.right && r.differs.length === 0),
  );
  protected readonly shown = (layer: Layer | null): string => layer?.name ?? '—';
}
