import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import type { Product, Recipe } from '#core/muster';
import { QUESTIONS, schoolOf, underSchool, type Revision } from '#core/recipe';
import { ChoiceField } from '../ui/choiceField';
import { LayerDiff } from './layerDiff';
import { WordHelp } from '../ui/word';

/** Where practitioners disagree: one school for each question, with its reason. */
@Component({
  selector: 'pm-schools-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LayerDiff, WordHelp, ChoiceField],
  template: `
    <details>
      <summary class="cursor-pointer py-1 text-[1.05rem] font-semibold">Schools</summary>
      <p class="mb-3 text-[0.9rem] text-mute">
        Where the trade disagrees. The first of each is the default; choosing another changes windows, aids
        and rules with it. <pm-word name="school" />
      </p>
      <div class="flex flex-col gap-3">
        @for (q of questions(); track q.id) {
          <div>
            <pm-choice
              [label]="q.name"
              [value]="q.value"
              [choices]="q.choices"
              (valueChange)="choose(q.id, $event)"
            />
            <p class="mt-0.5 text-[0.85rem] text-mute">{{ q.reason }}</p>
            @if (pending(); as p) {
              @if (p.question === q.id) {
                <pm-layer-diff
                  class="mt-2 block"
                  [changes]="p.changes"
                  [kept]="p.kept"
                  [from]="recipe()"
                  [to]="p.recipe"
                  [products]="products()"
                  word="Choose it"
                  (accepted)="changed.emit({ recipe: p.recipe, what: q.name.toLowerCase() })"
                  (left)="pending.set(null)"
                />
              }
            }
          </div>
        }
      </div>
    </details>
  `,
})
export class SchoolsEditor {
  readonly recipe = input.required<Recipe>();
  readonly products = input<readonly Product[]>([]);
  readonly changed = output<{ recipe: Recipe; what: string }>();

  protected readonly questions = computed(() =>
    QUESTIONS.map((q) => {
      const pending = this.pending();
      const value = schoolOf(pending?.question === q.id ? pending.recipe : this.recipe(), q.id);
      return {
        id: q.id,
        name: q.name,
        value,
        reason: q.schools.find((s) => s.id === value)!.reason,
        choices: q.schools.map((s, k) => ({ value: s.id, text: k === 0 ? `${s.name} (default)` : s.name })),
      };
    }),
  );

  /** the school that is looked at before it is chosen, and what it would change */
  protected readonly pending = linkedSignal<Recipe, Pending | null>({
    source: this.recipe,
    computation: () => null,
  });

  protected choose(question: string, school: string): void {
    this.pending.set({ question, ...underSchool(this.recipe(), question, school) });
  }
}

interface Pending extends Revision {
  readonly question: string;
}
