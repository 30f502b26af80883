import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MIX_PARTS, TO_BE_CHOSEN, type MadeOf, type Product } from '#core/muster';
import { NEW_ID } from '../data/environment';
import { Button } from './button';
import { ChoiceField, type Choice } from './choiceField';
import { FIELDS } from './fields';
import { ListEditor, ListRow } from './listEditor';
import { NumberField } from './numberField';
import { TextField } from './textField';
import { VERDICT_WORDS } from './verdicts';

type Part = MadeOf['parts'][number];

const OTHER = '~other';
const WATER = '~water';
const THINNER = '~thinner';

/** A mixture in parts of what stands on the shelf, of water and thinner, or of what has yet to be bought. */
@Component({
  selector: 'pm-made-of',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, ChoiceField, ListEditor, ListRow, NumberField, TextField],
  template: `
    <pm-list-editor
      [label]="label()"
      [items]="parts()"
      [nameOf]="nameOf"
      (taken)="emit(without($event.id), $event.name + ' is left out')"
    >
      <ng-template [pmRow]="parts()" let-p let-i="index">
        <pm-choice
          class="min-w-0 flex-1 basis-28"
          [label]="'Part ' + (i + 1)"
          [value]="chosen(p)"
          [choices]="choices()"
          (valueChange)="choose(p, $event)"
        />
        @if (chosen(p) === other) {
          <pm-text
            class="min-w-32 grow"
            label="What it is"
            [value]="p.name"
            (valueChange)="put(p, { name: $event }, 'a part of the mixture')"
          />
        }
        <pm-number
          class="w-16"
          label="Parts"
          [of]="fields.mixPart.parts"
          [value]="p.parts"
          (valueChange)="put(p, { parts: $event! }, 'parts of the mixture')"
        />
        @if (said(p); as text) {
          <p class="w-full text-[0.9rem]" [class]="text.isBad ? 'text-shut' : 'text-mute'">
            {{ text.words }}
          </p>
        }
      </ng-template>
    </pm-list-editor>
    <div class="mt-2 flex flex-wrap gap-2">
      @if (parts().length < most) {
        <button pmButton="small" (click)="add()">
          {{ parts().length === 0 ? 'Mix it of products' : 'One part more' }}
        </button>
      }
    </div>
  `,
})
export class MadeOfEditor {
  readonly label = input.required<string>();
  readonly parts = input.required<readonly Part[]>();
  readonly products = input.required<readonly Product[]>();
  /** what the paint is thinned with */
  readonly thinner = input('water');
  /** null: nothing is left of it */
  readonly changed = output<{ parts: readonly Part[] | null; what: string }>();
  private readonly newId = inject(NEW_ID);
  protected readonly fields = FIELDS;
  protected readonly most = MIX_PARTS;
  protected readonly other = OTHER;
  protected readonly nameOf = (p: Part): string => p.name;

  protected readonly choices = computed((): readonly Choice[] => {
    const thinner = this.thinner();
    return [
      ...[...this.products()]
        .sort((a, b) => a.name.localeCompare(b.name))
        .map((p) => ({
          value: p.id,
          text: p.verdict ? `${p.name} (${VERDICT_WORDS[p.verdict]})` : p.name,
        })),
      { value: WATER, text: 'water' },
      ...(thinner === 'water' ? [] : [{ value: THINNER, text: thinner }]),
      { value: OTHER, text: 'another, not on the shelf…' },
    ];
  });

  protected chosen({ product, name }: Part): string {
    if (product !== undefined) return product;
    if (name === 'water') return WATER;
    return name === this.thinner() ? THINNER : OTHER;
  }

  /** What was said of a product, when it is chosen again. */
  protected said({ product }: Part): { readonly words: string; readonly isBad: boolean } | null {
    const known = this.products().find((p) => p.id === product);
    if (!known || (known.character === undefined && known.verdict === undefined)) return null;
    const verdict = known.verdict ? `You said: ${VERDICT_WORDS[known.verdict]}.` : '';
    return { words: `${known.character ?? ''} ${verdict}`.trim(), isBad: known.verdict === 'never' };
  }

  protected choose(part: Part, value: string): void {
    const known = this.products().find((p) => p.id === value);
    const named: Part = known
      ? { ...part, product: known.id, name: known.name }
      : {
          ...part,
          product: undefined,
          name: value === WATER ? 'water' : value === THINNER ? this.thinner() : TO_BE_CHOSEN,
        };
    this.emit(
      this.parts().map((p) => (p.id === part.id ? named : p)),
      'a part of the mixture',
    );
  }

  protected put(part: Part, to: Partial<Part>, what: string): void {
    this.emit(
      this.parts().map((p) => (p.id === part.id ? { ...p, ...to } : p)),
      what,
    );
  }

  protected add(): void {
    const isFirst = this.parts().length === 0;
    const wantsThinner = !isFirst && !this.parts().some((p) => p.name === this.thinner());
    const [paint] = this.products();
    const part: Part =
      isFirst && paint
        ? { id: this.newId(), product: paint.id, name: paint.name, parts: 1 }
        : { id: this.newId(), name: wantsThinner ? this.thinner() : TO_BE_CHOSEN, parts: 1 };
    this.emit([...this.parts(), part], 'one part more');
  }

  protected without(id: string): readonly Part[] {
    return this.parts().filter((p) => p.id !== id);
  }

  protected emit(parts: readonly Part[], what: string): void {
    this.changed.emit({ parts: parts.length > 0 ? parts : null, what });
  }
}
