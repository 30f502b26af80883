import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { areaOf, SIZES } from '#core/amounts';
import {
  duplicatedPiece,
  SIZE_CLASSES,
  STRENGTHS,
  withoutPieces,
  type Layer,
  type Piece,
  type Recipe,
  type Unit,
} from '#core/muster';
import { GLUE } from '#core/entry';
import { NEW_ID } from '../data/environment';
import { CheckField } from '../ui/checkField';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { CopiesField } from '../ui/copiesField';
import { FIELDS } from '../ui/fields';
import { NumberField } from '../ui/numberField';
import { TextField } from '../ui/textField';
import { WordHelp } from '../ui/word';
import { Button } from '../ui/button';

/** Everything of one piece. */
@Component({
  selector: 'pm-piece-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, WordHelp, CheckField, ChoiceField, CopiesField, NumberField, TextField],
  template: `
    @let p = piece();
    <div class="flex flex-col gap-3">
      <pm-text
        label="Piece or tray"
        [value]="p.name"
        (valueChange)="set({ name: $event }, 'piece renamed')"
      />
      <pm-choice
        label="Recipe"
        [value]="p.recipe ?? ''"
        [choices]="recipeChoices()"
        (valueChange)="set({ recipe: $event || null }, 'recipe chosen')"
      />
      <div class="grid grid-cols-2 gap-3">
        <pm-number
          label="Figures on the tray"
          [of]="fields.piece.count"
          [value]="p.count"
          (valueChange)="set({ count: $event! }, 'figures on a tray')"
        />
        <pm-number
          label="Rack places"
          [of]="fields.piece.places"
          [value]="p.places"
          (valueChange)="set({ places: $event! }, 'rack places')"
        />
        <pm-choice
          label="Is joined to"
          [value]="p.joins?.piece ?? ''"
          [choices]="hosts()"
          (valueChange)="joinTo($event)"
        />
        @if (p.joins; as joins) {
          <pm-choice
            label="before its layer"
            [value]="joins.layer"
            [choices]="seams()"
            (valueChange)="set({ joins: { piece: joins.piece, layer: $event, glue: joins.glue } }, 'joins')"
          />
        }
      </div>
      @if (p.joins; as joins) {
        <pm-check
          label="Glued on then, as a step of the plan"
          [value]="joins.glue !== undefined"
          (valueChange)="
            set({ joins: { piece: joins.piece, layer: joins.layer, glue: glueOf($event) } }, 'gluing')
          "
        />
        @if (joins.glue; as glue) {
          <div class="grid grid-cols-2 gap-3">
            <pm-number
              label="Gluing takes"
              unit="min"
              [of]="fields.glue.minutes"
              [value]="glue.minutes"
              (valueChange)="
                set({ joins: joinedWith(p, { minutes: $event!, dryMinutes: glue.dryMinutes }) }, 'gluing')
              "
            />
            <pm-number
              label="and holds after"
              unit="min"
              [of]="fields.glue.dryMinutes"
              [value]="glue.dryMinutes"
              (valueChange)="
                set({ joins: joinedWith(p, { minutes: glue.minutes, dryMinutes: $event! }) }, 'gluing')
              "
            />
          </div>
        }
      }
      <div class="grid grid-cols-2 gap-3">
        <pm-choice
          label="It is"
          [value]="p.use ?? ''"
          [choices]="uses"
          (valueChange)="set({ use: use($event) }, 'what it is for')"
        />
        <pm-choice
          label="Begins at"
          [value]="p.startsAt ?? ''"
          [choices]="starts()"
          (valueChange)="set({ startsAt: $event || undefined }, 'begins part-way')"
        />
        <pm-choice
          label="Size"
          [value]="p.size?.class ?? ''"
          [choices]="sizes"
          (valueChange)="setSize({ class: $any($event) })"
        />
        <pm-number
          label="Scale 1 to"
          [of]="fields.size.scale"
          [value]="p.size?.scale ?? null"
          (valueChange)="setSize({ scale: $event ?? undefined })"
        />
        <pm-number
          label="Or measured"
          unit="cm²"
          [of]="fields.size.areaCm2"
          [value]="p.size?.areaCm2 ?? null"
          (valueChange)="setSize({ areaCm2: $event ?? undefined })"
        />
        <p class="self-end pb-2 text-[0.85rem] text-mute">Painted area: {{ area() }}</p>
      </div>
      @if (p.use === 'shipped') {
        <pm-check
          label="Packed before it has hardened through, on purpose"
          [value]="p.isPackedSoft ?? false"
          (valueChange)="set({ isPackedSoft: $event || undefined }, 'packed soft')"
        />
      }
      <pm-check
        label="Pilot: goes ahead, the others wait for its verdict"
        [value]="p.isPilot ?? false"
        (valueChange)="set({ isPilot: $event || undefined }, 'pilot')"
      />
      <span class="-mt-2 flex gap-3"><pm-word name="pilot" /><pm-word name="host and part" /></span>
      @for (l of optional(); track l.id) {
        <pm-choice
          [label]="l.name"
          [value]="strengthOf(l.id)"
          [choices]="strengths"
          (valueChange)="setStrength(l.id, $event)"
        />
      }
      @for (s of substitutes(); track s.id) {
        <pm-check
          [label]="'“' + s.substitute!.name + '” instead of “' + s.name + '”'"
          [value]="p.substitutes?.includes(s.id) ?? false"
          (valueChange)="toggleSubstitute(s.id)"
        />
      }
      <div class="flex flex-wrap items-end gap-2">
        <pm-copies word="Duplicate" (copied)="copy($event)" />
        <span class="grow"></span>
        <button pmButton="small" (click)="remove()">Delete piece</button>
      </div>
    </div>
  `,
})
export class PieceEditor {
  protected readonly fields = FIELDS;
  readonly unit = input.required<Unit>();
  readonly piece = input.required<Piece>();
  readonly recipes = input.required<readonly Recipe[]>();
  readonly changed = output<{ unit: Unit; what: string }>();
  private readonly newId = inject(NEW_ID);

  protected readonly recipeChoices = computed((): readonly Choice[] => [
    { value: '', text: 'none yet' },
    ...this.recipes().map((r) => ({ value: r.id, text: r.name })),
  ]);
  protected readonly hosts = computed((): readonly Choice[] => [
    { value: '', text: 'nothing: a piece of its own' },
    ...this.unit()
      .pieces.filter((p) => p.id !== this.piece().id && this.recipeOf(p))
      .map((p) => ({ value: p.id, text: p.name })),
  ]);
  protected readonly seams = computed((): readonly Choice[] => {
    const host = this.unit().pieces.find((p) => p.id === this.piece().joins?.piece);
    return (this.recipeOf(host)?.layers ?? []).map((l) => ({ value: l.id, text: l.name }));
  });
  protected readonly uses: readonly Choice[] = [
    { value: '', text: 'not said' },
    { value: 'played', text: 'played with' },
    { value: 'shipped', text: 'shipped' },
    { value: 'display', text: 'on display' },
  ];
  protected readonly use = (v: string): Piece['use'] =>
    v === 'played' || v === 'shipped' || v === 'display' ? v : undefined;
  protected readonly sizes: readonly Choice[] = [
    { value: '', text: 'not said' },
    ...SIZE_CLASSES.map((c) => ({ value: c, text: SIZES[c].name })),
  ];
  protected readonly starts = computed((): readonly Choice[] => [
    { value: '', text: 'the bare model' },
    ...(this.recipeOf(this.piece())?.layers ?? [])
      .slice(1)
      .map((l) => ({ value: l.id, text: `part-way, at ${l.name}` })),
  ]);
  protected readonly optional = computed((): readonly Layer[] =>
    (this.recipeOf(this.piece())?.layers ?? []).filter((l) => l.isOptional),
  );
  protected readonly strengths: readonly Choice[] = [
    { value: '', text: 'as in the recipe' },
    { value: 'off', text: 'not on this piece' },
    { value: 'trace', text: 'a trace' },
    { value: 'heavy', text: 'heavy' },
  ];
  protected readonly substitutes = computed((): readonly Layer[] =>
    (this.recipeOf(this.piece())?.layers ?? []).filter((l) => l.substitute && !l.usesSubstitute),
  );
  protected readonly area = computed(() => {
    const { cm2, from } = areaOf(this.piece());
    return `${cm2 >= 10 ? cm2.toFixed(0) : cm2.toFixed(1)} cm² each (${from})`;
  });

  protected set(part: Partial<Piece>, what: string): void {
    const pieces = this.unit().pieces.map((p) => (p.id === this.piece().id ? { ...p, ...part } : p));
    this.changed.emit({ unit: { ...this.unit(), pieces }, what });
  }

  /** Before the last coat of its host, which then goes over both; which layer it is can be chosen then. */
  protected joinTo(id: string): void {
    const layers = this.recipeOf(this.unit().pieces.find((p) => p.id === id))?.layers ?? [];
    const seam = layers[layers.length - 1];
    this.set({ joins: seam ? { piece: id, layer: seam.id, glue: GLUE } : null }, 'joins');
  }

  protected readonly glueOf = (isGlued: boolean): typeof GLUE | undefined => (isGlued ? GLUE : undefined);
  protected readonly joinedWith = (piece: Piece, glue: typeof GLUE): Piece['joins'] =>
    piece.joins && { ...piece.joins, glue };

  protected setSize(part: Partial<NonNullable<Piece['size']>>): void {
    const { size } = this.piece();
    const known = SIZE_CLASSES.find((c) => c === (part.class ?? size?.class));
    // A measure alone needs a class to stand beside it.
    const measured = part.areaCm2 !== undefined || part.scale !== undefined;
    this.set(
      {
        size: known ? { ...size, ...part, class: known } : measured ? { ...part, class: 'small' } : undefined,
      },
      'size',
    );
  }

  protected strengthOf(layer: string): string {
    return this.piece().effects?.find((e) => e.layer === layer)?.is ?? '';
  }

  protected setStrength(layer: string, value: string): void {
    const others = (this.piece().effects ?? []).filter((e) => e.layer !== layer);
    const is = STRENGTHS.find((s) => s === value);
    const effects = is ? [...others, { layer, is }] : others;
    this.set({ effects: effects.length > 0 ? effects : undefined }, 'strength of an effect');
  }

  protected toggleSubstitute(layer: string): void {
    const had = this.piece().substitutes ?? [];
    const substitutes = had.includes(layer) ? had.filter((l) => l !== layer) : [...had, layer];
    this.set({ substitutes }, 'substitute');
  }

  protected copy(copies: number): void {
    const { id, name } = this.piece();
    this.changed.emit({
      unit: duplicatedPiece(this.unit(), id, copies, this.newId),
      what: `${name} copied ${copies} ×`,
    });
  }

  protected remove(): void {
    const { id, name } = this.piece();
    this.changed.emit({ unit: withoutPieces(this.unit(), new Set([id])), what: `${name} deleted` });
  }

  private recipeOf(piece: Piece | undefined): Recipe | undefined {
    return this.recipes().find((r) => r.id === piece?.recipe);
  }
}
