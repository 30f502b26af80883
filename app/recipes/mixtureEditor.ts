import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { familyOf } from '#core/materials';
import {
  componentsOf,
  isThinner,
  partsOf,
  remixed,
  type Layer,
  type MadeOf,
  type Product,
} from '#core/muster';
import { differenceOf, mixtureColour, productsByName } from '#core/optics';
import { Button } from '../ui/button';
import { MadeOfEditor } from '../ui/madeOfEditor';
import { TextField } from '../ui/textField';

/** How a layer is mixed: in words, or of products; and the colour that they give. */
@Component({
  selector: 'pm-mixture-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, MadeOfEditor, TextField],
  template: `
    @let l = layer();
    <fieldset class="rounded-md border border-line p-3">
      <legend class="px-1 font-semibold">Mixture</legend>
      <pm-text
        label="As it is loaded (same words: same colour run)"
        [optional]="true"
        [value]="l.mixture"
        (valueChange)="say($event)"
      />
      @if (l.madeOf) {
        <p class="mt-1 text-[0.9rem] text-mute">
          Worded from its parts, and called as their products are. Other words of your own take their place.
        </p>
      }
      <pm-made-of
        class="mt-2 block"
        label="Made of"
        [parts]="parts()"
        [products]="nearest()"
        [thinner]="thinner()"
        (changed)="make($event.parts, $event.what)"
      />
      @if (l.madeOf; as m) {
        <pm-text
          class="mt-2 block"
          label="Mixed by eye to (a swatch, a picture); the parts are only about right"
          [optional]="true"
          [value]="m.target ?? ''"
          (valueChange)="set(withTarget(m, $event), 'what it is mixed to')"
        />
      }
      @if (colour(); as c) {
        <p class="mt-2 flex flex-wrap items-center gap-2 text-[0.9rem]">
          <span
            class="inline-block h-7 w-11 rounded border border-line"
            [style.background]="c"
            aria-hidden="true"
          ></span>
          <span class="min-w-0 grow">What its products give, dry; a screen is no paint.</span>
          @if (c !== l.colour) {
            <button pmButton="small" (click)="changed.emit({ layer: { ...l, colour: c }, what: 'colour' })">
              Take this colour
            </button>
          }
        </p>
      }
      <pm-text
        class="mt-2 block"
        label="Wet into wet with (a second load, run into the first)"
        [optional]="true"
        [value]="l.wetWith ?? ''"
        (valueChange)="changed.emit({ layer: withSecond($event), what: 'second load' })"
      />
    </fieldset>
  `,
})
export class MixtureEditor {
  readonly layer = input.required<Layer>();
  readonly changed = output<{ layer: Layer; what: string }>();
  /** on the shelf */
  readonly products = input<readonly Product[]>([]);

  /** those of the layer's family first, the nearest in colour at the top: what one would reach for */
  protected readonly nearest = computed(() => {
    const { family, colour } = this.layer();
    const off = (p: Product): number => (p.family === family ? 0 : 1000) + differenceOf(p.colour, colour);
    return [...this.products()].sort((a, b) => off(a) - off(b));
  });
  protected readonly thinner = computed(() => familyOf(this.layer().family).thinner || 'water');
  /** as they are, or as the words say; those of words have no ids of their own yet */
  protected readonly parts = computed((): MadeOf['parts'] =>
    partsOf(this.layer(), this.products()).map((p, k) => ({ id: `part-${k + 1}`, ...p })),
  );
  protected readonly colour = computed(() => {
    if (!this.layer().madeOf) return null;
    const paints = componentsOf(this.layer()).filter((c) => !isThinner(c.name));
    return mixtureColour(paints, productsByName(this.products()));
  });

  protected set(mix: string | MadeOf, what: string): void {
    this.changed.emit({ layer: remixed(this.layer(), mix), what });
  }

  protected say(words: string): void {
    if (words !== this.layer().mixture) this.set(words, 'mixture');
  }

  protected make(parts: readonly MadeOf['parts'][number][] | null, what: string): void {
    const { madeOf } = this.layer();
    this.set(parts === null ? '' : { ...madeOf, parts: [...parts] }, what);
  }

  protected withTarget(madeOf: MadeOf, target: string): MadeOf {
    return { ...madeOf, target: target || undefined };
  }

  protected withSecond(wetWith: string): Layer {
    return { ...this.layer(), wetWith: wetWith || undefined };
  }
}
