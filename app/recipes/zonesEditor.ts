import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { SHEENS, type Recipe } from '#core/muster';
import { NEW_ID } from '../data/environment';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { FIELDS } from '../ui/fields';
import { ListEditor, ListRow } from '../ui/listEditor';
import { NumberField } from '../ui/numberField';
import { TextField } from '../ui/textField';

/** The zones of a recipe: parts of a piece that get layers of their own. */
@Component({
  selector: 'pm-zones-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceField, ListEditor, ListRow, NumberField, TextField],
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
      </ng-template>
    </pm-list-editor>
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

  protected setSheen(id: string, value: string): void {
    const recipe = this.recipe();
    const sheen = SHEENS.find((s) => s === value);
    const zones = recipe.zones.map((z) => (z.id === id ? { ...z, sheen } : z));
    this.changed.emit({ recipe: { ...recipe, zones }, what: 'sheen of a zone' });
  }

  protected setPercent(id: string, percent: number | null): void {
    const recipe = this.recipe();
    const zones = recipe.zones.map((z) => (z.id === id ? { ...z, percent: percent ?? undefined } : z));
    this.changed.emit({ recipe: { ...recipe, zones }, what: 'share of a zone' });
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
