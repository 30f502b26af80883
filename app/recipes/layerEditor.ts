import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { cautionsFor, DEFER, FAMILIES, familyOf, METHODS, type FamilyId } from '#core/materials';
import {
  asNominal,
  estimateWords,
  renamedLayer,
  withEstimate,
  type Layer,
  type LayerWindow,
  type Product,
  type Recipe,
} from '#core/muster';
import { duration } from '#core/plan';
import { isOnZone, withZoneTurned } from '#core/recipe';
import { FIELDS } from '../ui/fields';
import { NumberField } from '../ui/numberField';
import { MixtureEditor } from './mixtureEditor';
import { LayerKinds } from './layerKinds';
import { TextField } from '../ui/textField';
import { WordHelp } from '../ui/word';
import { Button } from '../ui/button';
import { ColourField } from '../ui/colourField';
import { ChoiceField } from '../ui/choiceField';
import { CheckField } from '../ui/checkField';
import { NoteField } from '../ui/noteField';

/** Everything of one layer. Each entry is one change, and one undo. */
@Component({
  selector: 'pm-layer-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    NoteField,
    CheckField,
    ChoiceField,
    ColourField,
    Button,
    WordHelp,
    LayerKinds,
    MixtureEditor,
    NumberField,
    TextField,
  ],
  template: `
    @let l = layer();
    <div class="mb-3 flex items-center gap-2">
      <h2 class="grow text-[1.15rem]">Layer {{ index() + 1 }}</h2>
      <button pmButton="small" [disabled]="index() === recipe().layers.length - 1" (click)="moved.emit(1)">
        Move up
      </button>
      <button pmButton="small" [disabled]="index() === 0" (click)="moved.emit(-1)">Move down</button>
    </div>
    <div class="flex flex-col gap-3">
      <div class="grid grid-cols-[minmax(0,1fr)_4.5rem] gap-3">
        <pm-text label="Name" [value]="l.name" (valueChange)="rename($event)" />
        <pm-colour [value]="l.colour" (valueChange)="set({ colour: $event }, 'colour')" />
      </div>
      <pm-choice
        label="Product family"
        [value]="l.family"
        [choices]="families"
        (valueChange)="setFamily($any($event))"
      />
      <div class="grid grid-cols-2 gap-3">
        <pm-choice
          label="Put on by"
          [value]="l.method"
          [choices]="methods"
          (valueChange)="set({ method: $any($event) }, 'method')"
        />
        <pm-number
          label="Coats"
          [of]="fields.layer.coats"
          [value]="l.coats"
          (valueChange)="set({ coats: $event! }, 'coats')"
        />
        <pm-number
          label="Hands, a piece and coat"
          unit="min"
          [of]="fields.layer.minutes"
          [value]="l.minutes"
          (valueChange)="setFigure('minutes', $event!, 'hands-on minutes')"
        />
        <pm-number
          label="Dry for the next layer"
          unit="min"
          [of]="fields.layer.dryMinutes"
          [value]="l.dryMinutes"
          (valueChange)="setFigure('dryMinutes', $event!, 'drying')"
        />
      </div>
      <p class="flex flex-wrap items-center gap-2 text-[0.9rem]" data-testid="estimates">
        <span
          >Hands: <strong>{{ words(l.minutesFrom) }}</strong></span
        >
        @if (l.minutesFrom; as from) {
          <button pmButton="small" (click)="reset('minutes', 'hands-on minutes')">
            Back to nominal, {{ from.nominalMinutes }} min
          </button>
        }
        <span
          >Drying: <strong>{{ words(l.dryFrom) }}</strong></span
        >
        @if (l.dryFrom; as from) {
          <button pmButton="small" (click)="reset('dryMinutes', 'drying')">
            Back to nominal, {{ from.nominalMinutes }} min
          </button>
        }
      </p>
      <p class="text-[0.85rem] text-mute">
        Drying at 21 °C and 50 % humidity; nominal for this family: {{ nominal() }} min. The bench’s own air
        makes it longer or shorter. {{ stages() }}
      </p>
      <pm-mixture-editor [layer]="l" [products]="products()" (changed)="changed.emit($event)" />
      @if (recipe().zones.length > 0) {
        <fieldset>
          <legend class="label">Goes on</legend>
          <div class="flex flex-wrap gap-x-4 gap-y-1">
            @for (z of recipe().zones; track z.id) {
              <pm-check [label]="z.name" [value]="isOn(l.zones, z.id)" (valueChange)="toggleZone(z.id)" />
            }
          </div>
        </fieldset>
      }

      <fieldset class="rounded-md border border-line p-3">
        <legend class="px-1 font-semibold">Window after it</legend>
        <pm-check
          label="The next layer has a window"
          [value]="l.window !== null"
          (valueChange)="toggleWindow()"
        />
        <pm-word name="window" />
        @if (l.window; as w) {
          <div class="mt-2 flex flex-col gap-3">
            <pm-number
              label="No sooner than"
              unit="min after it"
              [of]="fields.window.opensMinutes"
              [value]="w.opensMinutes"
              (valueChange)="setWindow({ opensMinutes: $event }, 'window opens')"
            />
            <pm-number
              label="Better by (each minute beyond costs result)"
              unit="min after it"
              [of]="fields.window.preferMinutes"
              [value]="w.preferMinutes"
              (valueChange)="setWindow({ preferMinutes: $event }, 'better by')"
            />
            <pm-number
              label="No later than (then it has shut)"
              unit="min after it"
              [of]="fields.window.closesMinutes"
              [value]="w.closesMinutes"
              (valueChange)="setWindow({ closesMinutes: $event }, 'window closes')"
            />
            <pm-choice
              label="Layers that must start within it"
              [value]="w.through ?? ''"
              [choices]="throughs()"
              (valueChange)="setWindow({ through: $event || null }, 'layers in the window')"
            />
          </div>
        }
      </fieldset>

      <details>
        <summary class="cursor-pointer py-1 text-mute">
          What else it can be: tool, judging, taking back, passes, faces, film, cover, air, levels, substitute
        </summary>
        <pm-layer-kinds
          class="mt-2 block"
          [layer]="l"
          [recipe]="recipe()"
          (changed)="set($event.part, $event.what)"
        />
      </details>
      <details>
        <summary class="cursor-pointer py-1 text-mute">More: waits for, pausing, note</summary>
        <fieldset class="mt-2">
          <legend class="label">Also waits for, dry</legend>
          @for (o of others(); track o.id) {
            <pm-check [label]="o.name" [value]="l.waitsFor.includes(o.id)" (valueChange)="toggleWait(o.id)" />
          }
        </fieldset>
        <pm-check
          class="mt-2 block"
          label="May be put down and taken up next session"
          [value]="l.pausable"
          (valueChange)="set({ pausable: $event }, 'pausing')"
        />
        <pm-note
          class="mt-2 block"
          label="Note for the bench"
          [value]="l.note"
          (valueChange)="set({ note: $event }, 'note')"
        />
      </details>
      @if (cautions().length > 0) {
        <p class="text-[0.9rem]">
          <strong class="text-shut">Care.</strong> {{ cautions().join(' ') }}
          <span class="text-mute">{{ defer }}</span>
        </p>
      }
      <button pmButton="small" class="self-start" (click)="deleted.emit()">Delete layer</button>
    </div>
  `,
})
export class LayerEditor {
  protected readonly fields = FIELDS;
  readonly layer = input.required<Layer>();
  readonly recipe = input.required<Recipe>();
  /** on the shelf, for mixtures */
  readonly products = input<readonly Product[]>([]);
  readonly changed = output<{ layer: Layer; what: string }>();
  /** 1: up the stack, -1: down */
  readonly moved = output<number>();
  readonly deleted = output();

  protected readonly families = [...FAMILIES.values()].map((f) => ({ value: f.id, text: f.name }));
  protected readonly methods = [...METHODS.values()].map((m) => ({ value: m.id, text: m.name }));
  protected readonly defer = DEFER;
  protected readonly index = computed(() => this.recipe().layers.findIndex((l) => l.id === this.layer().id));
  protected readonly nominal = computed(() => familyOf(this.layer().family).dryMinutes);
  /** The stages of drying of the family, as ASTM D1640 names them. */
  protected readonly stages = computed(() => {
    const s = familyOf(this.layer().family).stages;
    if (s.cured === 0) return '';
    return `Touch-dry after ${duration(s.touch)}, handled or taped after ${duration(s.handle)}, ${
      s.solvent === null
        ? 'no solvent over it without a seal'
        : `solvent over it after ${duration(s.solvent)}`
    }, cured after ${duration(s.cured)}.`;
  });
  protected readonly others = computed(() => this.recipe().layers.filter((l) => l.id !== this.layer().id));
  /** how far the window may reach up */
  protected readonly throughs = computed(() => [
    { value: '', text: 'just the next one' },
    ...this.recipe()
      .layers.slice(this.index() + 1)
      .map((o) => ({ value: o.id, text: `all up to ${o.name}` })),
  ]);
  protected readonly cautions = computed(() => cautionsFor(this.layer()));

  protected set(part: Partial<Layer>, what: string): void {
    this.changed.emit({ layer: { ...this.layer(), ...part }, what });
  }

  protected rename(name: string): void {
    this.changed.emit({ layer: renamedLayer(this.layer(), name), what: 'renamed' });
  }

  protected readonly words = estimateWords;

  /** A figure that someone types is theirs from then on. */
  protected setFigure(figure: 'minutes' | 'dryMinutes', value: number, what: string): void {
    this.changed.emit({ layer: withEstimate(this.layer(), figure, value), what });
  }

  protected reset(figure: 'minutes' | 'dryMinutes', what: string): void {
    this.changed.emit({ layer: asNominal(this.layer(), figure), what: `${what}, nominal again` });
  }

  /** Another family brings its nominal drying, unless the user has set a figure of their own. */
  protected setFamily(family: FamilyId): void {
    const l = this.layer();
    const isNominal = !l.dryFrom && l.dryMinutes === familyOf(l.family).dryMinutes;
    this.set({ family, ...(isNominal ? { dryMinutes: familyOf(family).dryMinutes } : {}) }, 'product family');
  }

  protected readonly isOn = isOnZone;

  protected toggleZone(zone: string): void {
    this.set({ zones: withZoneTurned(this.recipe(), this.layer().zones, zone) }, 'zones');
  }

  protected toggleWait(id: string): void {
    const { waitsFor } = this.layer();
    this.set(
      { waitsFor: waitsFor.includes(id) ? waitsFor.filter((w) => w !== id) : [...waitsFor, id] },
      'waits',
    );
  }

  protected toggleWindow(): void {
    const l = this.layer();
    const window: LayerWindow = {
      opensMinutes: l.dryMinutes,
      closesMinutes: l.dryMinutes + 60,
      preferMinutes: null,
      through: null,
    };
    this.set(
      { window: l.window === null ? window : null },
      l.window === null ? 'window added' : 'window taken off',
    );
  }

  protected setWindow(part: Partial<LayerWindow>, what: string): void {
    this.set({ window: { ...this.layer().window!, ...part } }, what);
  }
}
