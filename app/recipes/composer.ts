import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { dequal } from 'dequal/lite';
import {
  LOOK_STRENGTHS,
  type Look,
  type LookKind,
  type Looks,
  type LookStrength,
  type Product,
  type Recipe,
} from '#core/muster';
import {
  FIRST_LOOKS,
  isOnZone,
  LOOKS,
  lookFacts,
  revised,
  withLook,
  withoutLook,
  withZoneTurned,
} from '#core/recipe';
import { Button } from '../ui/button';
import { CheckField } from '../ui/checkField';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { ColourField } from '../ui/colourField';
import { LayerDiff } from './layerDiff';

interface Row {
  readonly kind: LookKind;
  readonly name: string;
  readonly about: string;
  readonly isColourless: boolean;
  /** null: not wished for */
  readonly look: Look | null;
  readonly key: string;
}

/** What the recipe shall look like: wishes taken up and dropped by a press; what they make of the stack is shown before it is done. */
@Component({
  selector: 'pm-composer',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, CheckField, ChoiceField, ColourField, LayerDiff],
  template: `
    <h3 class="mb-1 text-[1.05rem]">What it shall look like</h3>
    @if (!recipe().looks) {
      <p class="mb-2 text-[0.9rem] text-mute">
        Say the finish, and the layers are composed: order, seals, waits.
        {{ recipe().layers.length > 0 ? 'The layers that stand here stay, as your own.' : '' }}
      </p>
    }
    <ul class="mb-3 flex flex-col" aria-label="Wishes">
      @for (row of rows(); track row.key) {
        <li #wish class="border-b border-line py-1" [class.scroll-mb-96]="revision()">
          <div class="flex items-center gap-2">
            <button
              type="button"
              class="flex min-h-11 min-w-0 grow items-center gap-2 text-left"
              [class]="row.look ? 'font-semibold' : 'text-mute'"
              [attr.aria-expanded]="openKey() === row.key"
              (click)="open(row.key, wish)"
            >
              <span
                class="inline-block h-5 w-5 shrink-0 rounded-sm border border-line"
                [style.background]="row.isColourless ? 'transparent' : (row.look?.colour ?? 'transparent')"
                aria-hidden="true"
              ></span>
              <span class="min-w-0">{{ row.name }}</span>
            </button>
            <span class="flex shrink-0" role="group" [attr.aria-label]="row.name">
              @for (s of strengths; track s; let k = $index) {
                <button
                  type="button"
                  class="flex h-11 w-11 items-center justify-center"
                  [attr.aria-pressed]="row.look?.strength === s"
                  [attr.aria-label]="row.name + ': ' + s"
                  [title]="row.look?.strength === s ? 'Drop it' : s"
                  (click)="press(row, s)"
                >
                  <span
                    class="block h-5 w-5 rounded-full border-2"
                    [class]="fills(row.look, k) ? 'border-lamp bg-lamp' : 'border-mute'"
                  ></span>
                </button>
              }
            </span>
          </div>
          @if (openKey() === row.key) {
            <p class="mb-2 text-[0.9rem] text-mute">{{ row.about }}</p>
            @if (row.look; as l) {
              <div class="mb-2 flex items-start gap-3">
                @if (!row.isColourless) {
                  <pm-colour
                    class="w-20 shrink-0"
                    [value]="l.colour"
                    (valueChange)="set(l, { colour: $event })"
                  />
                }
                @if (recipe().zones.length > 1 && l.kind !== 'ground') {
                  <fieldset class="min-w-0 grow">
                    <legend class="label">On</legend>
                    @for (z of recipe().zones; track z.id) {
                      <pm-check
                        [label]="z.name"
                        [value]="isOn(l.zones, z.id)"
                        (valueChange)="toggleZone(l, z.id)"
                      />
                    }
                  </fieldset>
                }
              </div>
              @if (l.kind !== 'ground' && l.kind !== 'clear') {
                <button pmButton="small" class="mb-2" (click)="add(l.kind)">One more of it</button>
              }
            }
          }
        </li>
      }
    </ul>
    <div class="mb-3 grid grid-cols-2 items-end gap-x-3">
      <pm-choice
        label="Ends"
        [value]="draft().sheen"
        [choices]="sheens"
        (valueChange)="draft.set(withPart({ sheen: $any($event) }))"
      />
      <pm-check
        label="No solvents"
        [value]="draft().noSolvents"
        (valueChange)="draft.set(withPart({ noSolvents: $event }))"
      />
      <pm-check
        label="No airbrush"
        [value]="draft().noAirbrush"
        (valueChange)="draft.set(withPart({ noAirbrush: $event }))"
      />
      <pm-check
        label="Soon on the table"
        [value]="draft().isQuick"
        (valueChange)="draft.set(withPart({ isQuick: $event }))"
      />
      <pm-check
        label="For figures on trays: minutes of one figure"
        [value]="draft().isForFigures ?? false"
        (valueChange)="draft.set(withPart({ isForFigures: $event || undefined }))"
      />
    </div>
    @if (revision(); as r) {
      <pm-layer-diff
        class="sticky bottom-0 z-10 block"
        [changes]="r.changes"
        [kept]="r.kept"
        [from]="recipe()"
        [to]="r.recipe"
        [products]="products()"
        word="Compose"
        (accepted)="accept()"
        (left)="draft.set(now())"
      />
    }
  `,
})
export class Composer {
  readonly recipe = input.required<Recipe>();
  readonly products = input<readonly Product[]>([]);
  readonly changed = output<{ recipe: Recipe; what: string }>();

  protected readonly strengths = LOOK_STRENGTHS;
  protected readonly openKey = signal<string | null>(null);
  protected readonly sheens: readonly Choice[] = ['matt', 'satin', 'gloss'].map((s) => ({
    value: s,
    text: s,
  }));
  /** the wishes that the layers follow; without any what a recipe begins with */
  protected readonly now = computed((): Looks => this.recipe().looks ?? { ...FIRST_LOOKS, list: [] });
  protected readonly draft = linkedSignal(() => this.now());
  protected readonly revision = computed(() => {
    const isAsked = !dequal(this.draft(), this.now());
    return isAsked ? revised(this.recipe(), { looks: this.draft() }) : null;
  });

  protected readonly rows = computed((): readonly Row[] =>
    LOOKS.flatMap(({ kind, name, about, isColourless = false }): Row[] => {
      const own = this.draft().list.filter((l) => l.kind === kind);
      if (own.length === 0) return [{ kind, name, about, isColourless, look: null, key: kind }];
      return own.map((l, k) => ({
        kind,
        name: k === 0 ? name : `${name} ${k + 1}`,
        about,
        isColourless,
        look: l,
        key: l.id,
      }));
    }),
  );

  /** Opened it is brought to where nothing lies over it: what would change stands at the foot. */
  protected open(key: string, wish: HTMLElement): void {
    this.openKey.update((now) => (now === key ? null : key));
    if (this.openKey() === key) setTimeout(() => wish.scrollIntoView({ block: 'nearest' }));
  }

  protected fills(look: Look | null, k: number): boolean {
    return look !== null && LOOK_STRENGTHS.indexOf(look.strength) >= k;
  }

  /** A press takes a wish up, gives it another strength, or, on the strength that it has, drops it. */
  protected press(row: Row, strength: LookStrength): void {
    if (!row.look) {
      const next = withLook(this.draft(), row.kind);
      const added = next.list.at(-1)!;
      this.draft.set({ ...next, list: next.list.map((l) => (l === added ? { ...l, strength } : l)) });
    } else if (row.look.strength === strength) this.draft.set(withoutLook(this.draft(), row.look.id));
    else this.set(row.look, { strength });
  }

  protected add(kind: LookKind): void {
    const next = withLook(this.draft(), kind);
    this.draft.set(next);
    this.openKey.set(next.list.at(-1)!.id);
  }

  protected set(look: Look, part: Partial<Look>): void {
    this.draft.update((d) => ({ ...d, list: d.list.map((l) => (l.id === look.id ? { ...l, ...part } : l)) }));
  }

  protected withPart(part: Partial<Looks>): Looks {
    return { ...this.draft(), ...part };
  }

  protected readonly isOn = isOnZone;

  protected toggleZone(look: Look, zone: string): void {
    this.set(look, { zones: withZoneTurned(this.recipe(), look.zones, zone) });
  }

  protected accept(): void {
    const revision = this.revision();
    if (!revision) return;
    const before = new Set(this.now().list.map((l) => l.kind));
    const after = new Set(this.draft().list.map((l) => l.kind));
    const words = [
      ...[...after].filter((k) => !before.has(k)).map((k) => lookFacts(k).name.toLowerCase()),
      ...[...before].filter((k) => !after.has(k)).map((k) => `no ${lookFacts(k).name.toLowerCase()}`),
    ];
    this.changed.emit({
      recipe: revision.recipe,
      what: `composed${words.length > 0 ? `: ${words.slice(0, 3).join(', ')}` : ' anew'}`,
    });
  }
}
