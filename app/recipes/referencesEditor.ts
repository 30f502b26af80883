import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import type { Recipe, Reference } from '#core/muster';
import { referencesOf, type ReferenceShown } from '#core/session';
import { NEW_ID } from '../data/environment';
import { Logbook } from '../data/logbook';
import { FileButton } from '../ui/fileButton';
import { ListEditor, ListRow } from '../ui/listEditor';
import { smallPicture } from '../ui/smallPicture';
import { TextField } from '../ui/textField';

/** What a recipe goes by: name, year, what it shows, and a picture, which is kept in the log. */
@Component({
  selector: 'pm-references-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FileButton, ListEditor, ListRow, TextField],
  template: `
    <h3 class="mb-1 text-[1.05rem]">References</h3>
    <p class="mb-2 text-[0.9rem] text-mute">
      Pictures and places that it goes by, with the year they show; beside the work where its marks go, and at
      the look before the table.
    </p>
    <pm-list-editor
      label="References"
      [items]="items()"
      [nameOf]="nameOf"
      addText="Add a reference"
      (taken)="take($event)"
      (added)="add()"
    >
      <ng-template [pmRow]="items()" let-r>
        <pm-text
          class="min-w-40 grow"
          label="Reference"
          [value]="r.reference.name"
          (valueChange)="put(r, { name: $event })"
        />
        <pm-text
          class="w-28"
          label="Year"
          [optional]="true"
          [value]="r.reference.year ?? ''"
          (valueChange)="put(r, { year: $event || undefined })"
        />
        <pm-text
          class="min-w-full grow"
          label="What is to be seen on it"
          [optional]="true"
          [value]="r.reference.shows ?? ''"
          (valueChange)="put(r, { shows: $event || undefined })"
        />
        @if (r.picture; as data) {
          <img class="max-h-20 rounded border border-line" [src]="data" [alt]="r.reference.name" />
        }
        <pm-file
          [word]="r.picture ? 'Another picture' : 'Its picture'"
          accept="image/*"
          (chosen)="takePicture(r, $event)"
        />
      </ng-template>
    </pm-list-editor>
    @if (fault(); as text) {
      <p class="mt-1 text-shut" role="alert">{{ text }}</p>
    }
  `,
})
export class ReferencesEditor {
  readonly recipe = input.required<Recipe>();
  readonly changed = output<{ recipe: Recipe; what: string }>();
  private readonly newId = inject(NEW_ID);
  private readonly logbook = inject(Logbook);
  protected readonly fault = signal<string | null>(null);
  protected readonly nameOf = (r: ReferenceShown): string => r.reference.name;
  protected readonly items = computed(() =>
    referencesOf([this.recipe()], this.logbook.entries()).map((r) => ({ ...r, id: r.reference.id })),
  );

  protected add(): void {
    const { references = [] } = this.recipe();
    const name = `Reference ${references.length + 1}`;
    this.set([...references, { id: this.newId(), name }], 'a reference');
  }

  protected put({ reference }: ReferenceShown, part: Partial<Reference>): void {
    const { references = [] } = this.recipe();
    this.set(
      references.map((r) => (r.id === reference.id ? { ...r, ...part } : r)),
      'a reference',
    );
  }

  protected take({ reference }: ReferenceShown): void {
    const { references = [] } = this.recipe();
    this.set(
      references.filter((r) => r.id !== reference.id),
      `${reference.name} is no longer a reference`,
    );
  }

  protected async takePicture({ reference }: ReferenceShown, file: File): Promise<void> {
    this.fault.set(null);
    try {
      const data = await smallPicture(file);
      await this.logbook.add({ kind: 'picture', data, reference: reference.id, note: reference.name });
    } catch (error) {
      this.fault.set(error instanceof Error ? error.message : String(error));
    }
  }

  private set(references: Reference[], what: string): void {
    const recipe = { ...this.recipe(), references: references.length > 0 ? references : undefined };
    this.changed.emit({ recipe, what });
  }
}
