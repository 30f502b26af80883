import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import type { Layer, Tone } from '#core/muster';
import { NEW_ID } from '../data/environment';
import { ColourField } from '../ui/colourField';
import { ListEditor, ListRow } from '../ui/listEditor';
import { QuickLine } from '../ui/quickLine';
import { TextField } from '../ui/textField';

/** Other colours that a piece may have a layer in: dealt where the mixture is on some piece anyway, or chosen piece by piece. */
@Component({
  selector: 'pm-tones-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ColourField, ListEditor, ListRow, QuickLine, TextField],
  template: `
    <fieldset class="rounded-md border border-line p-3">
      <legend class="px-1 font-semibold">Other tones</legend>
      <p class="mb-2 text-[0.9rem] text-mute">
        Colours in which some pieces may have it. Only those are dealt out that are mixed for another layer
        anyway, so that no load is added.
      </p>
      <pm-list-editor
        label="Other tones"
        [items]="layer().tones ?? []"
        [nameOf]="nameOf"
        (taken)="take(without($event.id), $event.mixture + ' is no longer a tone')"
      >
        <ng-template [pmRow]="layer().tones ?? []" let-t>
          <pm-text
            class="min-w-40 grow"
            label="As it is mixed"
            [value]="t.mixture"
            (valueChange)="put(t, { mixture: $event })"
          />
          <pm-colour class="w-20" [value]="t.colour" (valueChange)="put(t, { colour: $event })" />
        </ng-template>
      </pm-list-editor>
      <pm-quick-line
        class="mt-2 block"
        label="Another tone, as it is mixed"
        word="Add"
        [most]="120"
        (sent)="add($event)"
      />
    </fieldset>
  `,
})
export class TonesEditor {
  readonly layer = input.required<Layer>();
  readonly changed = output<{ part: Partial<Layer>; what: string }>();
  private readonly newId = inject(NEW_ID);
  protected readonly nameOf = (t: Tone): string => t.mixture;

  protected add({ text, clear }: { readonly text: string; readonly clear: () => void }): void {
    const { tones = [], colour } = this.layer();
    this.take([...tones, { id: this.newId(), mixture: text, colour }], 'another tone');
    clear();
  }

  protected put(tone: Tone, part: Partial<Tone>): void {
    const tones = (this.layer().tones ?? []).map((t) => (t.id === tone.id ? { ...t, ...part } : t));
    this.take(tones, 'a tone');
  }

  protected without(id: string): Tone[] {
    return (this.layer().tones ?? []).filter((t) => t.id !== id);
  }

  protected take(tones: Tone[], what: string): void {
    this.changed.emit({ part: { tones: tones.length > 0 ? tones : undefined }, what });
  }
}
