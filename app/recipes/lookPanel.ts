import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  model,
  output,
} from '@angular/core';
import type { Layer, Product, Recipe } from '#core/muster';
import {
  appearanceOf,
  effectsOf,
  overshotColour,
  productOf,
  productsByName,
  type Effect,
  LOST,
  PLAIN,
} from '#core/optics';
import { layersOn, zonesToSee } from '#core/recipe';
import { Button } from '../ui/button';
import { Slider } from '../ui/slider';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { many } from '../ui/words';
import { LookBlock } from './lookBlock';

interface Row extends Effect {
  readonly name: string;
  readonly verdict: string;
  readonly isWeak: boolean;
  readonly eaters: string;
  /** a colour that ends where it should */
  readonly stronger: string | null;
}

/** What a zone looks like, layer by layer, and what becomes of its effects. */
@Component({
  selector: 'pm-look-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, ChoiceField, LookBlock, Slider],
  template: `
    <section aria-labelledby="look">
      <h3 id="look" class="mb-1 text-[1.05rem]">
        {{ isDone() ? 'When all is done' : 'After “' + nameAt() + '”' }}
      </h3>
      @if (sights().length === 0) {
        <p class="text-[0.95rem] text-mute">Nothing lies on it yet.</p>
      } @else {
        @if (zones().length > 1) {
          <pm-choice
            label="Looked at"
            [value]="zone()"
            [choices]="zones()"
            (valueChange)="zone.set($event)"
          />
        }
        <pm-look-block class="mx-auto my-2 block max-w-[17rem]" [sight]="sight()" [label]="words()" />
        <div class="mb-1 grid grid-cols-3 text-center text-[0.85rem]">
          @for (s of surfaces(); track s.name) {
            <span
              ><span class="mb-0.5 block h-5 border border-line" [style.background]="s.colour"></span
              >{{ s.name }}</span
            >
          }
        </div>
        <pm-slider
          label="Layer by layer, from the bare model up"
          [steps]="sights().length"
          [words]="nameAt()"
          [(value)]="at"
        />
        @if (rows().length > 0) {
          <h4 class="mt-2 mb-1 font-semibold">What becomes of the effects</h4>
          <ul class="flex flex-col gap-2 text-[0.95rem]" aria-label="Effects">
            @for (r of rows(); track r.layer) {
              <li class="grid grid-cols-[2.2rem_minmax(0,1fr)] gap-2">
                <span class="mt-1 block h-8 border border-line" [style.background]="r.around"
                  ><span class="mx-auto block h-full w-3" [style.background]="r.colour"></span
                ></span>
                <span>
                  <strong>{{ r.name }}</strong>
                  <span class="block">
                    ΔE {{ r.fresh.toFixed(0) }} fresh,
                    <strong [class]="r.isWeak ? 'text-shut' : 'text-open'"
                      >{{ r.atEnd.toFixed(0) }} at the end</strong
                    >: {{ r.verdict }}.
                  </span>
                  @if (r.eaters) {
                    <span class="block text-[0.9rem] text-mute">Eaten by {{ r.eaters }}.</span>
                  }
                  @if (r.stronger) {
                    <button pmButton="small" class="mt-1" (click)="overshoot(r)">
                      <span
                        class="mr-1 inline-block h-4 w-4 border border-line align-middle"
                        [style.background]="r.stronger"
                        aria-hidden="true"
                      ></span>
                      Take it stronger now
                    </button>
                  }
                </span>
              </li>
            }
          </ul>
        }
        <p class="mt-3 text-[0.85rem] text-mute">
          A screen is no paint: opacities are nominal, {{ measured() }}. Add a test card to a product on the
          shelf to correct them.
        </p>
      }
    </section>
  `,
})
export class LookPanel {
  readonly recipe = input.required<Recipe>();
  readonly products = input<readonly Product[]>([]);
  readonly zone = model('');
  readonly changed = output<{ layer: Layer; what: string }>();

  protected readonly zones = computed((): readonly Choice[] =>
    zonesToSee(this.recipe()).map((z) => ({ value: z.id, text: z.name })),
  );
  private readonly shelf = computed(() => productsByName(this.products()));
  private readonly layers = computed(() => layersOn(this.recipe(), this.zone()));
  protected readonly sights = computed(() => appearanceOf(this.layers(), this.shelf()));
  /** at the end, whenever the layers are others */
  protected readonly at = linkedSignal(() => this.sights().length);
  protected readonly isDone = computed(() => this.at() >= this.sights().length);
  protected readonly sight = computed(() => this.sights()[Math.min(this.at(), this.sights().length) - 1]!);
  protected readonly nameAt = computed(() => this.layers()[this.at() - 1]?.name ?? '');
  protected readonly surfaces = computed(() => {
    const s = this.sight();
    return [
      { name: 'recess', colour: s.recess },
      { name: 'face', colour: s.face },
      { name: 'edge', colour: s.edge },
    ];
  });
  protected readonly words = computed(() => {
    const s = this.sight();
    return `A block under the lamp, ${s.sheen}: recesses ${s.recess}, faces ${s.face}, edges ${s.edge}`;
  });
  protected readonly rows = computed((): Row[] => {
    const layers = this.layers();
    const nameOf = (id: string): string => `“${layers.find((l) => l.id === id)?.name ?? id}”`;
    return effectsOf(layers, this.shelf())
      .reverse()
      .map((e) => ({
        ...e,
        name: layers.find((l) => l.id === e.layer)!.name,
        isWeak: e.atEnd < PLAIN,
        verdict:
          e.atEnd < LOST || e.seenFromMm === null
            ? 'as good as lost'
            : `${e.atEnd < PLAIN ? 'nearly lost' : 'seen'} at 60 cm from ${e.seenFromMm < 0.15 ? '0.1' : e.seenFromMm.toFixed(1)} mm`,
        eaters: e.eaten
          .slice(0, 3)
          .map((x) => nameOf(x.layer))
          .join(', '),
        stronger:
          e.atEnd < Math.min(PLAIN, e.fresh - 2) || e.atEnd < e.fresh * 0.6
            ? overshotColour(layers, e.layer, this.shelf())
            : null,
      }));
  });
  protected readonly measured = computed(() => {
    const own = this.layers().filter((l) => productOf(l, this.shelf())?.card).length;
    return own === 0 ? 'none of them measured' : `${many(own, 'layer')} by your own test cards`;
  });

  protected overshoot(row: Row): void {
    const layer = this.layers().find((l) => l.id === row.layer);
    if (layer && row.stronger)
      this.changed.emit({ layer: { ...layer, colour: row.stronger }, what: `${layer.name} taken stronger` });
  }
}
