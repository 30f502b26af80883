import { NgTemplateOutlet } from '@angular/common';
import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { LiveAnnouncer } from '@angular/cdk/a11y';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { map } from 'rxjs';
import { dequal } from 'dequal/lite';
import { readRecipe, writeRecipe } from '#core/exchange';
import { LIBRARY } from '#core/library';
import { familyOf } from '#core/materials';
import {
  movedLayer,
  usersOf,
  withLayer,
  withLayerAt,
  withoutLayer,
  withoutRecipe,
  withRecipe,
  type Layer,
  type Recipe,
} from '#core/muster';
import { appearanceOf, productsByName, SURFACES } from '#core/optics';
import {
  factsOf,
  FIRST_LOOKS,
  isSeal,
  layersOn,
  recipeByBrush,
  revised,
  zonesToSee,
  type Finding,
} from '#core/recipe';
import { duration } from '#core/plan';
import { pilotState } from '#core/session';
import { NEW_ID } from '../data/environment';
import { Concerns } from '../data/concerns';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Refusals } from '../data/refusals';
import { download, fileName } from '../ui/download';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { countBy, narrowed } from '../ui/narrow';
import { SearchField } from '../ui/searchField';
import { FileButton } from '../ui/fileButton';
import { RecipeCard } from '../ui/recipeCard';
import { RecipeCompare } from './recipeCompare';
import { Composer } from './composer';
import { ForWhom } from './forWhom';
import { PilotNote } from './pilotNote';
import { LookPanel } from './lookPanel';
import { RecipeUse } from './recipeUse';
import { many } from '../ui/words';
import { Findings } from '../ui/findings';
import { TextField } from '../ui/textField';
import { LayerEditor } from './layerEditor';
import { CraftNotes } from './craftNotes';
import { SchoolsEditor } from './schoolsEditor';
import { strataOf } from './strata';
import { MaskOrderNote } from './maskOrderNote';
import { ReferencesEditor } from './referencesEditor';
import { ZonesEditor } from './zonesEditor';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { viewOf } from '../ui/viewOf';

/** One surface after a layer, with what is scattered on it. */
interface Swatch {
  readonly colour: string;
  readonly marks: readonly string[];
}

@Component({
  selector: 'pm-recipes-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    Composer,
    SearchField,
    ChoiceField,
    Card,
    Button,
    CdkDrag,
    CdkDragHandle,
    CdkDropList,
    RouterLink,
    CraftNotes,
    ForWhom,
    PilotNote,
    FileButton,
    Findings,
    SchoolsEditor,
    TextField,
    LayerEditor,
    LookPanel,
    NgTemplateOutlet,
    RecipeCard,
    RecipeCompare,
    RecipeUse,
    MaskOrderNote,
    ReferencesEditor,
    ZonesEditor,
  ],
  templateUrl: './recipes.view.html',
})
export class RecipesView {
  /** from the route */
  readonly recipe = input<string>();

  protected readonly store = inject(MusterStore);
  protected readonly concerns = inject(Concerns);
  protected readonly words = many;
  private readonly newId = inject(NEW_ID);
  private readonly logbook = inject(Logbook);
  private readonly refusals = inject(Refusals);
  private readonly router = inject(Router);
  private readonly route = inject(ActivatedRoute);
  private readonly announcer = inject(LiveAnnouncer);

  protected readonly recipes = computed(() => this.store.muster()!.recipes);
  protected readonly sought = signal('');
  protected readonly order = signal('made');
  protected readonly orders: readonly Choice[] = [
    { value: 'made', text: 'as they came' },
    { value: 'name', text: 'by name' },
    { value: 'used', text: 'most pieces first' },
    { value: 'concern', text: 'most to look at first' },
  ];
  /** the list as it is asked for; a recipe is found by its layers too */
  protected readonly listed = computed(() => {
    const found = narrowed(this.recipes(), this.sought(), (r) =>
      [r.name, ...r.layers.flatMap((l) => [l.name, l.mixture, familyOf(l.family).name])].join(' '),
    );
    const by = (rank: (r: Recipe) => number): Recipe[] =>
      found.sort((a, b) => rank(b) - rank(a) || a.name.localeCompare(b.name));
    switch (this.order()) {
      case 'name':
        return by(() => 0);
      case 'used': {
        const pieces = countBy(
          this.store.muster()!.units.flatMap((u) => u.pieces),
          (p) => p.recipe ?? '',
        );
        return by((r) => pieces.get(r.id) ?? 0);
      }
      case 'concern':
        return by((r) => this.concerns.ofRecipe(r.id));
      default:
        return found;
    }
  });
  protected readonly current = computed(
    () => this.recipes().find((r) => r.id === this.recipe()) ?? this.recipes()[0] ?? null,
  );
  protected readonly strata = computed(() => {
    const recipe = this.current();
    return recipe ? strataOf(recipe) : [];
  });
  protected readonly products = computed(() => this.store.muster()!.stores?.products ?? []);
  private readonly seenZones = computed(() => {
    const recipe = this.current();
    return recipe ? zonesToSee(recipe) : [];
  });
  /** the zone whose look is shown; the first, until another is chosen */
  protected readonly seenZone = linkedSignal<readonly string[], string>({
    source: () => this.seenZones().map((z) => z.id),
    computation: (ids, before) => (before && ids.includes(before.value) ? before.value : (ids[0] ?? '')),
  });
  protected readonly seenZoneName = computed(
    () => this.seenZones().find((z) => z.id === this.seenZone())?.name ?? '',
  );
  private readonly swatches = computed(() => {
    const recipe = this.current();
    const sights = recipe
      ? appearanceOf(layersOn(recipe, this.seenZone()), productsByName(this.products()))
      : [];
    return new Map(
      sights.map((s) => [
        s.layer,
        SURFACES.map((on) => ({
          colour: s[on],
          marks: s.marks.filter((m) => m.surface === on).map((m) => m.colour),
        })),
      ]),
    );
  });
  /** recess, face and edge after a layer; none where it does not go on the zone that is looked at */
  protected readonly swatchesOf = (layer: string): readonly Swatch[] => this.swatches().get(layer) ?? [];
  private readonly layerId = toSignal(this.route.queryParamMap.pipe(map((q) => q.get('layer'))), {
    initialValue: null,
  });
  protected readonly layer = computed(
    () => this.current()?.layers.find((l) => l.id === this.layerId()) ?? null,
  );
  private readonly all = computed(() =>
    this.store.findings().filter((f) => viewOf(f) === 'recipes' && f.place.recipe === this.current()?.id),
  );
  /** what is wrong with the recipe as a document */
  protected readonly findings = computed(() => this.all().filter((f) => !f.isCraft));
  /** what the craft says, at its layer or at the recipe */
  protected readonly notesOf = (layer: string | null): Finding[] =>
    this.all().filter((f) => f.isCraft && (f.place.layer ?? null) === layer);
  protected readonly craftCount = computed(() => this.all().filter((f) => f.isCraft).length);
  protected readonly summary = computed(() => {
    const recipe = this.current();
    if (!recipe) return '';
    const facts = factsOf(recipe);
    const users = this.store
      .muster()!
      .units.filter((u) => u.pieces.some((p) => p.recipe === recipe.id))
      .map((u) => u.name);
    return [
      recipe.looks
        ? `composed: ${many(recipe.layers.length, 'layer')}, ${many(recipe.layers.filter(isSeal).length, 'seal')} among them`
        : many(recipe.layers.length, 'layer'),
      `${duration(facts.handsMinutes)} of hands a piece`,
      `${duration(facts.dryMinutes)} of drying one after the other at 21 °C, 50 %`,
      users.length > 0 ? `used by ${users.join(', ')}` : 'used by no unit yet',
    ].join(' · ');
  });
  protected readonly duration = duration;
  protected readonly familyName = (layer: Layer): string => familyOf(layer.family).name;

  protected hasTrouble(layer: Layer): boolean {
    return this.findings().some((f) => f.place.layer === layer.id && f.severity === 'error');
  }

  protected readonly renamed = (recipe: Recipe, name: string): Recipe => ({ ...recipe, name });

  protected cure(finding: Finding): void {
    const cured = finding.fix?.apply(this.store.muster()!).recipes.find((r) => r.id === this.current()?.id);
    if (cured && cured !== this.current()) this.change(cured, finding.fix!.label.toLowerCase());
    // What cures it stands elsewhere, on a piece.
    else this.concerns.cure(finding);
  }

  protected silence(finding: Finding, reason: string): void {
    const recipe = this.current()!;
    const silenced = [
      ...(recipe.silenced ?? []),
      { rule: finding.rule, layer: finding.place.layer ?? null, reason },
    ];
    this.change({ ...recipe, silenced }, `${finding.rule} silenced`);
  }

  protected hear(index: number): void {
    const recipe = this.current()!;
    const silenced = (recipe.silenced ?? []).filter((_, k) => k !== index);
    this.change({ ...recipe, silenced }, 'rule heard again');
  }

  protected layerName(id: string | null): string {
    return this.current()?.layers.find((l) => l.id === id)?.name ?? 'the recipe';
  }

  protected choose(layer: string | null): void {
    void this.router.navigate([], { relativeTo: this.route, queryParams: { layer } });
  }

  private readonly currentId = computed(() => this.current()?.id);
  /** the recipe as it was before the first change of this visit that is still to be settled */
  private readonly before = linkedSignal<string | undefined, Recipe | null>({
    source: this.currentId,
    computation: () => null,
  });
  private readonly isSettled = linkedSignal({ source: this.currentId, computation: () => false });
  /** that recipe, while it has to be asked for whom the changes hold */
  protected readonly asksFor = computed(() => {
    const before = this.before();
    const now = this.current();
    if (!before || !now || this.isSettled() || before.id !== now.id) return null;
    return dequal(before, now) ? null : before;
  });

  /** as it was before this visit's first change; null while nothing is changed */
  protected readonly changedFrom = computed(() => {
    const before = this.before();
    const now = this.current();
    return before && now && before.id === now.id && !dequal(before, now) ? before : null;
  });
  /** what its pilot has shown */
  protected readonly pilot = computed(() => {
    const id = this.currentId();
    return id === undefined ? null : pilotState(this.store.muster()!, this.logbook.entries(), id);
  });
  /** may a frozen recipe be changed in this visit? */
  protected readonly isThawed = linkedSignal({ source: this.currentId, computation: () => false });

  /** An approved recipe stays as it is until somebody says otherwise. */
  private isFrozen(): boolean {
    const state = this.pilot();
    if (state?.verdict !== 'approved' || this.isThawed()) return false;
    this.refusals.say(
      `It is frozen since ${state.pilot} was approved. Press “Change it all the same” above the layers first.`,
    );
    return true;
  }

  protected settle(): void {
    this.isSettled.set(true);
  }

  private remember(recipe: string): void {
    const pieces = usersOf(this.store.muster()!, recipe).flatMap((u) => u.pieces);
    if (this.before() === null && pieces.length > 1) this.before.set(this.current());
  }

  protected change(recipe: Recipe, what: string): void {
    if (this.isFrozen()) return;
    this.remember(recipe.id);
    this.store.change(`${recipe.name}: ${what}`, (m) => withRecipe(m, recipe));
  }

  protected changeLayer(layer: Layer, what: string): void {
    this.change(withLayer(this.current()!, layer), `${layer.name}, ${what}`);
  }

  protected deleteLayer(layer: Layer): void {
    if (this.isFrozen()) return;
    const recipe = this.current()!;
    this.remember(recipe.id);
    this.store.remove(`${layer.name} deleted from ${recipe.name}`, (m) =>
      withRecipe(m, withoutLayer(recipe, layer.id)),
    );
    this.choose(null);
  }

  /** The list is shown top down, the stack counts bottom up. */
  protected drop(event: CdkDragDrop<unknown>): void {
    const recipe = this.current()!;
    const last = recipe.layers.length - 1;
    this.move(last - event.previousIndex, last - event.currentIndex);
  }

  protected move(from: number, to: number): void {
    const recipe = this.current()!;
    if (to < 0 || to >= recipe.layers.length || from === to) return;
    const layer = recipe.layers[from]!;
    this.change(movedLayer(recipe, from, to), `${layer.name} moved`);
    void this.announcer.announce(`${layer.name} is now layer ${to + 1} of ${recipe.layers.length}`);
  }

  /** Alt with up and down moves a layer in the stack; focus goes with it. */
  protected onLayerKey(event: KeyboardEvent, index: number): void {
    if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
    event.preventDefault();
    const id = this.current()!.layers[index]!.id;
    this.move(index, event.key === 'ArrowUp' ? index + 1 : index - 1);
    setTimeout(() => document.getElementById(`layer-${id}`)?.focus());
  }

  /** @param above the layer over which it goes; without one on top of all */
  protected addLayer(above?: Layer): void {
    const recipe = this.current()!;
    const family = familyOf('acrylic');
    const layer: Layer = {
      id: this.newId(),
      name: 'New layer',
      colour: '#9aa3a8',
      family: family.id,
      method: 'brush',
      zones: [],
      mixture: '',
      coats: 1,
      minutes: 5,
      dryMinutes: family.dryMinutes,
      window: null,
      waitsFor: [],
      pausable: false,
      note: '',
    };
    const place = above ? recipe.layers.indexOf(above) + 1 : recipe.layers.length;
    this.change(withLayerAt(recipe, layer, place), 'layer added');
    this.choose(layer.id);
  }

  protected addRecipe(): void {
    const blank: Recipe = { id: this.newId(), name: 'New recipe', zones: [], layers: [] };
    const { recipe } = revised(blank, {
      looks: { ...FIRST_LOOKS, noAirbrush: this.store.muster()!.bench.hasAirbrush === false },
    });
    this.store.change('Recipe added', (m) => withRecipe(m, recipe));
    void this.router.navigate(['/recipes', recipe.id]);
  }

  protected readonly showsLibrary = signal(false);
  protected readonly compares = signal(false);
  /** as this bench can do them */
  protected readonly fromLibrary = computed(() =>
    this.store.muster()!.bench.hasAirbrush === false ? LIBRARY.map(recipeByBrush) : LIBRARY,
  );

  protected takeFromLibrary(found: Recipe): void {
    const recipe: Recipe = { ...found, id: this.newId() };
    this.showsLibrary.set(false);
    this.store.change(`${found.name} taken from the library`, (m) => withRecipe(m, recipe));
    void this.router.navigate(['/recipes', recipe.id]);
  }

  protected readonly fault = signal<string | null>(null);

  protected save(recipe: Recipe): void {
    download(`${fileName(recipe.name)}-recipe.json`, 'application/json', writeRecipe(recipe));
  }

  /** A file that is no recipe changes nothing and says where it is wrong. */
  protected async open(file: File): Promise<void> {
    try {
      const read = readRecipe(await file.text(), this.store.muster()!);
      const recipe = { ...read, id: this.newId() };
      if (!this.store.change(`${read.name} brought in`, (m) => withRecipe(m, recipe))) return;
      this.fault.set(null);
      void this.router.navigate(['/recipes', recipe.id]);
    } catch (error) {
      this.fault.set(
        `${file.name} was not brought in. ${error instanceof Error ? error.message.split('\n', 3).join('; ') : String(error)}`,
      );
    }
  }

  protected copyRecipe(recipe: Recipe): void {
    const copy: Recipe = { ...recipe, id: this.newId(), name: `${recipe.name}, copy` };
    this.store.change(`${recipe.name} copied`, (m) => withRecipe(m, copy));
    void this.router.navigate(['/recipes', copy.id]);
  }

  protected deleteRecipe(recipe: Recipe): void {
    this.store.remove(`Recipe ${recipe.name} deleted`, (m) => withoutRecipe(m, recipe.id));
    void this.router.navigate(['/recipes']);
  }
}
