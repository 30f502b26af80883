import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { amountOf, areaOf, cupsFor } from '#core/amounts';
import { writeShoppingCsv } from '#core/exchange';
import {
  AmountError,
  dilution,
  FAMILIES,
  familyOf,
  parseRatio,
  psiToBar,
  toMillilitres,
  toNumber,
  VOLUME_UNITS,
} from '#core/materials';
import {
  instantOf,
  mixOf,
  storesOf,
  withStores,
  NAME_LETTERS,
  type Consumable,
  type Jar,
  type Marking,
  type Product,
  type Stores,
  type Verdict,
  VERDICTS,
} from '#core/muster';
import { dayName, moment } from '#core/plan';
import {
  consumableUses,
  isPast,
  jarsOf,
  markingUses,
  productUses,
  shoppingList,
  missingWords,
  unnamedUses,
  type JarNow,
  type ProductUse,
} from '#core/stores';
import { NEW_ID, NOW } from '../data/environment';
import { Logbook } from '../data/logbook';
import { Concerns } from '../data/concerns';
import { MusterStore } from '../data/musterStore';
import { Planner } from '../data/planner';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { download, fileName } from '../ui/download';
import { Findings } from '../ui/findings';
import { FIELDS } from '../ui/fields';
import { NumberField } from '../ui/numberField';
import { TextField } from '../ui/textField';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { EquivalentsEditor } from './equivalentsEditor';
import { TestCard } from './testCard';
import { NoteField } from '../ui/noteField';
import { VERDICT_WORDS } from '../ui/verdicts';
import { narrowed } from '../ui/narrow';
import { SearchField } from '../ui/searchField';
import { ColourField } from '../ui/colourField';
import { viewOf } from '../ui/viewOf';

const BOTTLE_H = 96;
type Bottle = Pick<ProductUse, 'name' | 'product' | 'runsOut' | 'leftMl'>;

/** The shelves: bottles drawn down to the session in which each runs out; mixes as cups; what to buy by when. */
@Component({
  selector: 'pm-stores-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    RouterLink,
    SearchField,
    ColourField,
    EquivalentsEditor,
    NoteField,
    Card,
    Button,
    ChoiceField,
    Findings,
    NumberField,
    TestCard,
    TextField,
  ],
  templateUrl: './stores.view.html',
})
export class StoresView {
  protected readonly fields = FIELDS;
  private readonly logbook = inject(Logbook);
  private readonly now = inject(NOW);
  protected readonly store = inject(MusterStore);
  protected readonly concerns = inject(Concerns);
  protected readonly planner = inject(Planner);
  private readonly newId = inject(NEW_ID);

  protected readonly stores = computed(() => storesOf(this.store.muster()!));
  protected readonly findings = computed(() => this.store.findings().filter((f) => viewOf(f) === 'stores'));
  protected readonly chosenId = signal<string | null>(null);
  protected readonly chosen = computed(
    () => this.stores().products.find((p) => p.id === this.chosenId()) ?? null,
  );

  private readonly uses = computed(() => {
    const plan = this.planner.plan();
    return plan ? productUses(this.store.muster()!, plan, this.logbook.entries()) : [];
  });
  /** Bottles on the shelf: full height is what is there; the line is what the plan leaves. */
  protected readonly bottles = computed(() => {
    const plan = this.planner.plan();
    return this.uses()
      .filter((u) => u.neededMl > 0 || u.product)
      .map((u) => {
        const full = Math.max(u.product?.bottleMl ?? 17, u.leftMl);
        const h = (ml: number): number => (BOTTLE_H * Math.max(0, Math.min(ml, full))) / full;
        return {
          ...u,
          key: u.name,
          colour: u.product?.colour ?? '#6b7270',
          levelNow: h(u.leftMl),
          levelAfter: h(u.leftMl - u.neededMl),
          words: !u.product
            ? `not on the shelf; ${u.neededMl.toFixed(1)} ml needed`
            : u.runsOut && plan
              ? `runs out ${dayName(plan.origin, u.runsOut.start)}, session ${u.runsOut.session + 1}`
              : u.neededMl === 0
                ? 'not used by this plan'
                : `${(u.leftMl - u.neededMl).toFixed(1)} ml left after`,
          isShort: u.runsOut !== null,
        };
      });
  });
  private readonly onShelf = computed(() => this.bottles().filter((b) => b.product !== null));
  protected readonly bottleCount = computed(() => this.onShelf().length);
  protected readonly sought = signal('');
  protected readonly order = signal('use');
  protected readonly orders: readonly Choice[] = [
    { value: 'use', text: 'as the plan uses them' },
    { value: 'short', text: 'what runs out first' },
    { value: 'name', text: 'by name' },
    { value: 'family', text: 'by family' },
  ];
  /** the shelf as it is asked for */
  protected readonly shelf = computed(() => {
    const family = (b: Bottle): string => (b.product ? familyOf(b.product.family).name : '');
    const out = (b: Bottle): number => b.runsOut?.start ?? Infinity;
    const found = narrowed(this.onShelf(), this.sought(), (b) => `${b.name} ${family(b)}`);
    switch (this.order()) {
      case 'name':
        return found.sort((a, b) => a.name.localeCompare(b.name));
      case 'family':
        return found.sort((a, b) => family(a).localeCompare(family(b)) || a.name.localeCompare(b.name));
      case 'short':
        return found.sort((a, b) => (out(a) < out(b) ? -1 : out(a) > out(b) ? 1 : a.leftMl - b.leftMl));
      default:
        return found;
    }
  });
  protected readonly missing = computed(() => this.bottles().filter((b) => b.product === null));
  protected readonly unnamed = computed(() => {
    const plan = this.planner.plan();
    return plan ? unnamedUses(this.store.muster()!, plan) : [];
  });
  protected readonly bottleHeight = BOTTLE_H;

  protected readonly shopping = computed(() => {
    const plan = this.planner.plan();
    return plan ? shoppingList(this.store.muster()!, plan, this.logbook.entries()) : [];
  });
  protected readonly missingWords = missingWords;
  protected readonly markings = computed(() => {
    const plan = this.planner.plan();
    if (!plan) return [];
    return markingUses(this.store.muster()!, plan, this.logbook.entries()).map((u) => ({
      ...u,
      words: u.short === null ? 'enough' : `short from ${moment(plan.origin, u.short)}`,
    }));
  });
  protected readonly consumables = computed(() => {
    const plan = this.planner.plan();
    if (!plan) return [];
    return consumableUses(this.store.muster()!, plan, this.logbook.entries()).map((u) => ({
      ...u,
      words: u.short === null ? 'enough' : `short from ${moment(plan.origin, u.short)}`,
    }));
  });

  // The mixer: any layer of the muster, or a ratio of one's own.
  protected readonly layerKey = signal('');
  protected readonly ratio = signal('3:1');
  protected readonly wanted = signal(6);
  protected readonly unit = signal<string>('ml');
  protected readonly psi = signal(20);
  protected readonly from = signal('3:1');
  protected readonly to = signal('2:1');
  protected readonly have = signal(4);
  protected readonly units: readonly Choice[] = VOLUME_UNITS.map((u) => ({
    value: u,
    text: u === 'fl oz' ? 'US fl oz' : u,
  }));
  protected readonly families: readonly Choice[] = [...FAMILIES.values()].map((f) => ({
    value: f.id,
    text: f.name,
  }));

  protected readonly verdicts: readonly Choice[] = [
    { value: '', text: 'not said' },
    ...VERDICTS.map((v) => ({ value: v, text: VERDICT_WORDS[v] })),
  ];
  protected readonly verdict = (v: string): Verdict | undefined => VERDICTS.find((x) => x === v);

  private readonly layers = computed(() =>
    this.store.muster()!.units.flatMap((unit) =>
      unit.pieces.slice(0, 40).flatMap((piece) => {
        const recipe = this.store.muster()!.recipes.find((r) => r.id === piece.recipe);
        return (recipe?.layers ?? [])
          .filter((l) => amountOf(recipe!, l, piece).ml > 0)
          .map((layer) => ({
            key: `${piece.id} ${layer.id}`,
            text: `${piece.name}: ${layer.name}`,
            piece,
            layer,
            recipe: recipe!,
          }));
      }),
    ),
  );
  protected readonly layerChoices = computed((): readonly Choice[] => [
    { value: '', text: 'a ratio of my own' },
    ...this.layers().map((l) => ({ value: l.key, text: l.text })),
  ]);
  protected readonly cupMl = computed(() => this.store.muster()!.bench.cupMl ?? 7);

  protected readonly mixed = computed(() => {
    try {
      const chosen = this.layers().find((l) => l.key === this.layerKey());
      const mix = chosen
        ? mixOf(chosen.layer)
        : {
            components: mixOf({ family: 'acrylic', name: 'mix', mixture: `part 1 ${this.ratio()}` })
              .components,
            ratio: this.ratio(),
          };
      if (!chosen) parseRatio(this.ratio());
      const amount = chosen
        ? amountOf(chosen.recipe, chosen.layer, chosen.piece)
        : { ml: toMillilitres(this.wanted(), this.unit()), from: 'your own figure' };
      return {
        fault: null,
        from: amount.from,
        // Only an airbrush has a cup; anything else is mixed in one pot.
        isByCup: !chosen || chosen.layer.method === 'airbrush',
        plan: cupsFor(
          mix,
          amount.ml,
          !chosen || chosen.layer.method === 'airbrush' ? this.cupMl() : amount.ml || 1,
        ),
        area: chosen ? areaOf(chosen.piece) : null,
      };
    } catch (error) {
      return {
        fault: error instanceof AmountError ? error.message : String(error),
        from: '',
        isByCup: false,
        plan: null,
        area: null,
      };
    }
  });
  protected readonly diluted = computed(() => {
    try {
      const add = dilution(parseRatio(this.from()), parseRatio(this.to())).map(
        (r) => toNumber(r) * this.have(),
      );
      return { fault: null, add };
    } catch (error) {
      return { fault: error instanceof AmountError ? error.message : String(error), add: [] };
    }
  });
  protected readonly bar = computed(() => psiToBar(this.psi()).toFixed(2));

  protected change(part: Partial<Stores>, what: string): void {
    this.store.change(`Stores: ${what}`, (m) => withStores(m, { ...storesOf(m), ...part }));
  }

  protected setProduct(product: Product, part: Partial<Product>): void {
    this.change(
      { products: this.stores().products.map((p) => (p.id === product.id ? { ...p, ...part } : p)) },
      product.name,
    );
  }

  protected addProduct(name = 'New product'): void {
    const product: Product = {
      id: this.newId(),
      name,
      family: 'acrylic',
      colour: '#9aa3a8',
      bottleMl: 17,
      leftMl: 17,
      leftAt: instantOf(this.now()),
    };
    this.change({ products: [...this.stores().products, product] }, 'product added');
    this.chosenId.set(product.id);
  }

  protected removeProduct(product: Product): void {
    this.store.remove(`${product.name} taken off the shelf`, (m) =>
      withStores(m, { ...storesOf(m), products: storesOf(m).products.filter((p) => p.id !== product.id) }),
    );
    this.chosenId.set(null);
  }

  /** A bottle is chosen, or, where it is missing, put on the shelf. */
  protected pick(use: { name: string; product: Product | null }): void {
    if (use.product) this.chosenId.set(this.chosenId() === use.product.id ? null : use.product.id);
    else this.addProduct(use.name);
  }

  protected setMarking(marking: Marking, part: Partial<Marking>): void {
    this.change(
      { markings: this.stores().markings.map((m) => (m.id === marking.id ? { ...m, ...part } : m)) },
      marking.name,
    );
  }

  protected addMarking(): void {
    this.change(
      {
        markings: [
          ...this.stores().markings,
          {
            id: this.newId(),
            name: 'New sheet',
            unit: null,
            perPiece: 2,
            left: 10,
            leftAt: instantOf(this.now()),
            policy: 'every-side',
          },
        ],
      },
      'markings added',
    );
  }

  /** Something else that is on the same sheet. */
  protected addSubject(of: Marking): void {
    const sheet = of.sheet ?? of.name;
    const subject: Marking = {
      id: this.newId(),
      name: `${sheet.slice(0, NAME_LETTERS - 20)}, another subject`,
      sheet,
      unit: of.unit,
      perPiece: 1,
      left: of.left,
      leftAt: instantOf(this.now()),
      policy: of.policy,
    };
    this.change(
      {
        markings: this.stores().markings.flatMap((m) => (m.id === of.id ? [{ ...m, sheet }, subject] : [m])),
      },
      'another subject on a sheet',
    );
  }

  protected removeMarking(marking: Marking): void {
    this.store.remove(`${marking.name} taken off`, (m) =>
      withStores(m, { ...storesOf(m), markings: storesOf(m).markings.filter((x) => x.id !== marking.id) }),
    );
  }

  protected setConsumable(consumable: Consumable, part: Partial<Consumable>): void {
    this.change(
      { consumables: this.stores().consumables.map((c) => (c.id === consumable.id ? { ...c, ...part } : c)) },
      consumable.name,
    );
  }

  protected addConsumable(): void {
    this.change(
      {
        consumables: [
          ...this.stores().consumables,
          {
            id: this.newId(),
            name: 'New supply',
            left: 10,
            leftAt: instantOf(this.now()),
            perStep: 1,
            usedBy: 'all',
          },
        ],
      },
      'supply added',
    );
  }

  protected removeConsumable(consumable: Consumable): void {
    this.store.remove(`${consumable.name} taken off`, (m) =>
      withStores(m, {
        ...storesOf(m),
        consumables: storesOf(m).consumables.filter((c) => c.id !== consumable.id),
      }),
    );
  }

  /** What is in the bottle by now, to a tenth of a millilitre. */
  protected leftOf(product: Product): number {
    const use = this.uses().find((u) => u.product?.id === product.id);
    return Math.round((use?.leftMl ?? product.leftMl) * 10) / 10;
  }

  protected readonly users: readonly Choice[] = [
    { value: 'all', text: 'every step' },
    { value: 'airbrush', text: 'the airbrush' },
    { value: 'enamel', text: 'enamels and wiping' },
    { value: 'mask', text: 'masks' },
    { value: 'sponge', text: 'the sponge' },
  ];

  /** How much there is, as counted just now: what is used from here on is taken off it. */
  protected counted<T>(left: T): T & { readonly leftAt: string } {
    return { ...left, leftAt: instantOf(this.now()) };
  }

  private readonly jars = computed(() => jarsOf(this.store.muster()!, this.logbook.entries()));
  /** What a jar holds now, less what the log has taken out of it. */
  protected leftIn(jar: Jar): number {
    const now = this.jars().find((j) => j.id === jar.id)?.leftMl ?? jar.leftMl;
    return Math.round(now * 100) / 100;
  }

  /** Jars that were filled at the bench. */
  protected readonly logged = computed(() =>
    this.jars()
      .filter((j) => j.isLogged)
      .map((j) => ({
        ...j,
        leftMl: Math.round(j.leftMl * 10) / 10,
        until: j.until?.slice(0, 10) ?? null,
        isPast: isPast(j, instantOf(this.now())),
        jar: j,
      })),
  );

  /** So much is in it now; with nothing in it it is thrown out. */
  protected setLogged({ jar }: { readonly jar: JarNow }, ml: number): void {
    void this.logbook.add({
      kind: 'jar',
      jar: jar.id,
      mixture: jar.mixture,
      ...(jar.family ? { family: jar.family } : {}),
      ml,
      ...(jar.until ? { until: jar.until } : {}),
    });
  }

  protected setJar(jar: Jar, part: Partial<Jar>): void {
    this.change(
      {
        jars: this.stores().jars.map((j) =>
          j.id === jar.id
            ? { ...j, ...part, ...(part.leftMl === undefined ? {} : { leftAt: instantOf(this.now()) }) }
            : j,
        ),
      },
      jar.mixture,
    );
  }

  protected addJar(): void {
    this.change(
      {
        jars: [
          ...this.stores().jars,
          { id: this.newId(), mixture: 'Left-over mix', note: '', ...this.counted({ leftMl: 3 }) },
        ],
      },
      'jar labelled',
    );
  }

  protected removeJar(jar: Jar): void {
    this.store.remove(`Jar of ${jar.mixture} thrown out`, (m) =>
      withStores(m, { ...storesOf(m), jars: storesOf(m).jars.filter((j) => j.id !== jar.id) }),
    );
  }

  protected readonly unitChoices = computed((): readonly Choice[] => [
    { value: '', text: 'all units' },
    ...this.store.muster()!.units.map((u) => ({ value: u.id, text: u.name })),
  ]);
  protected readonly policies: readonly Choice[] = [
    { value: 'every-side', text: 'every side' },
    { value: 'seen-sides', text: 'only the sides seen' },
  ];

  protected saveShopping(): void {
    download(
      `${fileName(this.store.muster()!.name)}-shopping.csv`,
      'text/csv',
      writeShoppingCsv(this.shopping()),
    );
  }

  protected readonly shown = (ml: number): string =>
    ml >= 10 ? ml.toFixed(0) : ml > 0 && ml < 0.1 ? '<0.1' : ml.toFixed(1);
}
