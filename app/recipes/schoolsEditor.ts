import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Recipe } from '#core/muster';
import { QUESTIONS, schoolOf, withSchool } from '#core/recipe';
import { ChoiceField } from '../ui/choiceField';
import { WordHelp } from '../ui/word';

/** Where practitioners disagree: one school for each question, with its reason. */
@Component({
  selector: 'pm-schools-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [WordHelp, ChoiceField],
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
              (valueChange)="choose(q.id, q.name, $event)"
            />
            <p class="mt-0.5 text-[0.85rem] text-mute">{{ q.reason }}</p>
          </div>
        }
      </div>
    </details>
  `,
})
export class SchoolsEditor {
  readonly recipe = input.required<Recipe>();
  readonly changed = output<{ recipe: Recipe; what: string }>();

  protected readonly questions = computed(() =>
    QUESTIONS.map((q) => {
      const value = schoolOf(this.recipe(), q.id);
      return {
        id: q.id,
        name: q.name,
        value,
        reason: q.schools.find((s) => s.id === value)!.reason,
        choices: q.schools.map((s, k) => ({ value: s.id, text: k === 0 ? `${s.name} (default)` : s.name })),
      };
    }),
  );

  protected choose(question: string, name: string, school: string): void {
    this.changed.emit({ recipe: withSchool(this.recipe(), question, school), what: name.toLowerCase() });
  }
}
