import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { SEEN, SHEENS, type Recipe } from '#core/muster';
import { withTouch, withZones, zonesTouch } from '#core/recipe';
import { NEW_ID } from '../data/environment';
import { Button } from '../ui/button';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { FIELDS } from '../ui/fields';
import { ListEditor, ListRow } from '../ui/listEditor';
import { NumberField } from '../ui/numberField';
import { TextField } from '../ui/textField';

/** The zones of a recipe: parts of a piece that get layers of their own. */
@Component({
  selector: 'pm-zones-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, ChoiceField, ListEditor, ListRow, NumberField, TextField],
  template: `
    <h3 class="mb-2 text-[1.05rem]">Zones</h3>
    <pm-list-editor
      label="Zones"
      [items]="recipe().zones"
      [nameOf]="nameOf"
      outWord="Delete"
      addText="Add a zone"
      empty="None: every layer goes on the whole piece."
      (taken)="remove($event.id)"
      (added)="add()"
    >
      <ng-template [pmRow]="recipe().zones" let-z let-i="index">
        <pm-text
          class="grow"
          [label]="'Zone ' + (i + 1)"
          [value]="z.name"
          (valueChange)="rename(z.id, $event)"
        />
        <pm-choice
          label="Sheen aimed at"
          [value]="z.sheen ?? ''"
          [choices]="sheens"
          (valueChange)="setSheen(z.id, $event)"
        />
        <pm-number
          class="w-36"
          label="Of the surface"
          unit="%"
          [of]="fields.zone.percent"
          [value]="z.percent ?? null"
          (valueChange)="setPercent(z.id, $event)"
        />
        <pm-choice
          class="w-28"
          label="Is seen"
          [value]="z.seen ?? ''"
          [choices]="seen"
          (valueChange)="setSeen(z.id, $event)"
        />
      </ng-template>
    </pm-list-editor>
    @if (recipe().zones.length > 2) {
      <details class="mt-2">
        <summary class="min-h-11 cursor-pointer py-2">What touches what</summary>
        <p class="mb-1 text-[0.9rem] text-mute">
          A colour sprayed on one zone spoils what touches it: only that is masked.
        </p>
        @for (z of recipe().zones; track z.id) {
          <div
            class="flex flex-wrap items-center gap-2 py-1"
            role="group"
            [attr.aria-label]="z.name + ' touches'"
          >
            <strong class="min-w-24">{{ z.name }}</strong>
            @for (other of recipe().zones; track other.id) {
              @if (other.id !== z.id) {
                <button
                  pmButton="small"
                  [attr.aria-pressed]="touch(z.id, other.id)"
                  (click)="turnTouch(z.id, other.id)"
                >
                  {{ other.name }}
                </button>
              }
            }
          </div>
        }
      </details>
    }
  `,
})
export class ZonesEditor {
  protected readonly fields = FIELDS;
  protected readonly nameOf = (zone: { readonly name: string }): string => `zone ${zone.name}`;
  readonly recipe = input.required<Recipe>();
  readonly changed = output<{ recipe: Recipe; what: string }>();
  private readonly newId = inject(NEW_ID);

  protected readonly sheens: readonly Choice[] = [
    { value: '', text: 'any' },
    ...SHEENS.map((s) => ({ value: s, text: s })),
  ];

  protected readonly seen: readonly Choice[] = [
    { value: '', text: 'well' },
    ...SEEN.map((s) => ({ value: s, text: s })),
  ];

  protected setSheen(id: string, value: string): void {
    const recipe = this.recipe();
    const sheen = SHEENS.find((s) => s === value);
    const zones = recipe.zones.map((z) => (z.id === id ? { ...z, sheen } : z));
    this.changed.emit({ recipe: withZones(recipe, zones), what: 'sheen of a zone' });
  }

  protected setPercent(id: string, percent: number | null): void {
    const recipe = this.recipe();
    const zones = recipe.zones.map((z) => (z.id === id ? { ...z, percent: percent ?? undefined } : z));
    this.changed.emit({ recipe: withZones(recipe, zones), what: 'share of a zone' });
  }

  protected setSeen(id: string, value: string): void {
    const recipe = this.recipe();
    const seen = SEEN.find((s) => s === value);
    const zones = recipe.zones.map((z) => (z.id === id ? { ...z, seen } : z));
    this.changed.emit({ recipe: withZones(recipe, zones), what: 'how a zone is seen' });
  }

  protected touch(a: string, b: string): boolean {
    return zonesTouch(this.recipe(), a, b);
  }

  protected turnTouch(a: string, b: string): void {
    const recipe = withTouch(this.recipe(), a, b, !this.touch(a, b));
    this.changed.emit({ recipe, what: 'what touches what' });
  }

  protected add(): void {
    const recipe = this.recipe();
    const zone = { id: this.newId(), name: `Zone ${recipe.zones.length + 1}` };
    this.changed.emit({ recipe: { ...recipe, zones: [...recipe.zones, zone] }, what: 'zone added' });
  }

  protected rename(id: string, name: string): void {
    const recipe = this.recipe();
    const zones = recipe.zones.map((z) => (z.id === id ? { ...z, name } : z));
    this.changed.emit({ recipe: { ...recipe, zones }, what: 'zone renamed' });
  }

  protected remove(id: string): void {
    const recipe = this.recipe();
    const zones = recipe.zones.filter((z) => z.id !== id);
    const layers = recipe.layers.map((l) => ({ ...l, zones: l.zones.filter((z) => z !== id) }));
    this.changed.emit({ recipe: { ...recipe, zones, layers }, what: 'zone deleted' });
  }
}
