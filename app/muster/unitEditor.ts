import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { areaOf, SIZES } from '#core/amounts';
import {
  duplicatedPiece,
  SIZE_CLASSES,
  withoutPiece,
  type Layer,
  type Piece,
  type Recipe,
  type Unit,
} from '#core/muster';
import { NEW_ID } from '../data/environment';
import { CheckField } from '../ui/checkField';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { NumberField } from '../ui/numberField';
import { TextField } from '../ui/textField';

/** Everything of one unit. Each entry is one change, and one undo. */
@Component({
  selector: 'pm-unit-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CheckField, ChoiceField, NumberField, TextField],
  template: `
    @let u = unit();
    <div class="flex flex-col gap-3">
      <pm-text label="Unit" [value]="u.name" (valueChange)="set({ name: $event }, 'renamed')" />
      <pm-text
        label="On the table"
        type="datetime-local"
        [value]="u.table"
        (valueChange)="set({ table: $event.slice(0, 16) }, 'table date')"
      />
      <pm-text
        label="Cleaned and assembled from (empty: already)"
        type="datetime-local"
        [optional]="true"
        [value]="u.readyFrom ?? ''"
        (valueChange)="set({ readyFrom: $event === '' ? null : $event.slice(0, 16) }, 'ready from')"
      />
      <pm-number
        label="How much it matters"
        unit="of 5"
        [value]="u.importance"
        [min]="1"
        [max]="5"
        [whole]="true"
        (valueChange)="set({ importance: $event! }, 'importance')"
      />
      <pm-number
        label="May cost"
        unit="hours of work"
        [optional]="true"
        [value]="u.budgetHours ?? null"
        [min]="0.1"
        [max]="10000"
        (valueChange)="set({ budgetHours: $event ?? undefined }, 'budget')"
      />
      <pm-choice
        label="Finished to"
        [value]="u.level ? '' + u.level : ''"
        [choices]="levels"
        (valueChange)="set({ level: $event ? +$event : undefined }, 'finish level')"
      />
    </div>

    <h3 class="mt-5 mb-2 text-[1.1rem]">Pieces</h3>
    <ul class="flex flex-col gap-2">
      @for (p of u.pieces; track p.id) {
        <li class="rounded-md border border-line bg-board">
          <details>
            <summary class="cursor-pointer p-3">
              <strong>{{ p.name }}</strong>
              <span class="text-mute">
                · {{ p.count > 1 ? p.count + ' figures · ' : '' }}{{ recipeName(p) }}</span
              >
            </summary>
            <div class="flex flex-col gap-3 px-3 pb-3">
              <pm-text
                label="Piece or tray"
                [value]="p.name"
                (valueChange)="setPiece(p, { name: $event }, 'piece renamed')"
              />
              <div>
                <label class="label" [for]="'recipe-' + p.id">Recipe</label>
                <select
                  class="field"
                  [id]="'recipe-' + p.id"
                  (change)="setPiece(p, { recipe: $any($event.target).value || null }, 'recipe chosen')"
                >
                  <option value="" [selected]="p.recipe === null">none yet</option>
                  @for (r of recipes(); track r.id) {
                    <option [value]="r.id" [selected]="r.id === p.recipe">{{ r.name }}</option>
                  }
                </select>
              </div>
              <div class="flex gap-4">
                <pm-number
                  label="Figures on the tray"
                  [value]="p.count"
                  [min]="1"
                  [max]="500"
                  [whole]="true"
                  (valueChange)="setPiece(p, { count: $event! }, 'figures on a tray')"
                />
                <pm-number
                  label="Rack places"
                  [value]="p.places"
                  [min]="0"
                  [max]="1000"
                  [whole]="true"
                  (valueChange)="setPiece(p, { places: $event! }, 'rack places')"
                />
              </div>
              <div>
                <label class="label" [for]="'joins-' + p.id">Is joined on before</label>
                <select class="field" [id]="'joins-' + p.id" (change)="join(p, $any($event.target).value)">
                  <option value="" [selected]="p.joins === null">joins nothing: a piece of its own</option>
                  @for (h of hosts(p); track h.key) {
                    <option
                      [value]="h.key"
                      [selected]="p.joins?.piece === h.piece && p.joins?.layer === h.layer"
                    >
                      {{ h.text }}
                    </option>
                  }
                </select>
              </div>
              <div class="grid grid-cols-2 gap-3">
                <pm-choice
                  label="It is"
                  [value]="p.use ?? ''"
                  [choices]="uses"
                  (valueChange)="setPiece(p, { use: use($event) }, 'what it is for')"
                />
                <pm-choice
                  label="Begins at"
                  [value]="p.startsAt ?? ''"
                  [choices]="starts(p)"
                  (valueChange)="setPiece(p, { startsAt: $event || undefined }, 'begins part-way')"
                />
              </div>
              <div class="grid grid-cols-3 gap-3">
                <pm-choice
                  label="Size"
                  [value]="p.size?.class ?? ''"
                  [choices]="sizes"
                  (valueChange)="setSize(p, { class: $any($event) })"
                />
                <pm-number
                  label="Scale 1 to"
                  [optional]="true"
                  [min]="6"
                  [max]="1000"
                  [value]="p.size?.scale ?? null"
                  (valueChange)="setSize(p, { scale: $event ?? undefined })"
                />
                <pm-number
                  label="Or measured"
                  unit="cm²"
                  [optional]="true"
                  [min]="0.1"
                  [max]="100000"
                  [value]="p.size?.areaCm2 ?? null"
                  (valueChange)="setSize(p, { areaCm2: $event ?? undefined })"
                />
              </div>
              <p class="text-[0.85rem] text-mute">Painted area: {{ area(p) }}</p>
              <pm-check
                label="Pilot: goes ahead, the others wait for its verdict"
                [value]="p.isPilot ?? false"
                (valueChange)="setPiece(p, { isPilot: $event || undefined }, 'pilot')"
              />
              @for (s of substitutes(p); track s.id) {
                <pm-check
                  [label]="'“' + s.substitute!.name + '” instead of “' + s.name + '”'"
                  [value]="p.substitutes?.includes(s.id) ?? false"
                  (valueChange)="toggleSubstitute(p, s.id)"
                />
              }
              <div class="flex flex-wrap items-end gap-2">
                <label class="text-[0.9rem] text-mute" [for]="'copies-' + p.id">copies</label>
                <input
                  #n
                  class="field max-w-20"
                  type="number"
                  min="1"
                  max="50"
                  value="1"
                  [id]="'copies-' + p.id"
                />
                <button type="button" class="btn btn-small" (click)="copyPiece(p, n.value)">Duplicate</button>
                <span class="grow"></span>
                <button type="button" class="btn btn-small" (click)="removePiece(p)">Delete piece</button>
              </div>
            </div>
          </details>
        </li>
      }
    </ul>
    <button type="button" class="btn btn-small mt-2" (click)="addPiece()">Add a piece</button>

    <div class="mt-5 flex flex-wrap items-end gap-2 border-t border-line pt-4">
      <label class="text-[0.9rem] text-mute" for="unit-copies">copies</label>
      <input #copies id="unit-copies" class="field max-w-20" type="number" min="1" max="50" value="1" />
      <button type="button" class="btn btn-small" (click)="duplicate.emit(within(copies.value))">
        Duplicate unit
      </button>
      <span class="grow"></span>
      <button type="button" class="btn btn-small" (click)="deleted.emit()">Delete unit</button>
    </div>
  `,
})
export class UnitEditor {
  readonly unit = input.required<Unit>();
  readonly recipes = input.required<readonly Recipe[]>();
  readonly changed = output<{ unit: Unit; what: string }>();
  /** how many copies */
  readonly duplicate = output<number>();
  readonly deleted = output();
  private readonly newId = inject(NEW_ID);

  protected recipeName(piece: Piece): string {
    return this.recipes().find((r) => r.id === piece.recipe)?.name ?? 'no recipe';
  }

  protected set(part: Partial<Unit>, what: string): void {
    this.changed.emit({ unit: { ...this.unit(), ...part }, what });
  }

  protected setPiece(piece: Piece, part: Partial<Piece>, what: string): void {
    const pieces = this.unit().pieces.map((p) => (p.id === piece.id ? { ...p, ...part } : p));
    this.set({ pieces }, what);
  }

  protected readonly uses: readonly Choice[] = [
    { value: '', text: 'not said' },
    { value: 'played', text: 'played with' },
    { value: 'shipped', text: 'shipped' },
    { value: 'display', text: 'on display' },
  ];
  protected readonly use = (v: string): Piece['use'] =>
    v === 'played' || v === 'shipped' || v === 'display' ? v : undefined;
  protected readonly levels: readonly Choice[] = [
    { value: '', text: 'the whole recipe' },
    ...[1, 2, 3].map((n) => ({ value: String(n), text: `level ${n}` })),
  ];

  protected readonly sizes: readonly Choice[] = [
    { value: '', text: 'not said' },
    ...SIZE_CLASSES.map((c) => ({ value: c, text: SIZES[c].name })),
  ];

  protected setSize(piece: Piece, part: Partial<NonNullable<Piece['size']>>): void {
    const known = SIZE_CLASSES.find((c) => c === (part.class ?? piece.size?.class));
    const size = known ? { ...piece.size, ...part, class: known } : undefined;
    // A measure alone needs a class to stand beside it.
    const measured = part.areaCm2 !== undefined || part.scale !== undefined;
    this.setPiece(piece, { size: size ?? (measured ? { ...part, class: 'small' } : undefined) }, 'size');
  }

  protected area(piece: Piece): string {
    const { cm2, from } = areaOf(piece);
    return `${cm2 >= 10 ? cm2.toFixed(0) : cm2.toFixed(1)} cm² each (${from})`;
  }

  private recipeOf(piece: Piece): Recipe | undefined {
    return this.recipes().find((r) => r.id === piece.recipe);
  }

  protected starts(piece: Piece): readonly Choice[] {
    return [
      { value: '', text: 'the bare model' },
      ...(this.recipeOf(piece)?.layers ?? [])
        .slice(1)
        .map((l) => ({ value: l.id, text: `part-way, at ${l.name}` })),
    ];
  }

  protected substitutes(piece: Piece): Layer[] {
    return (this.recipeOf(piece)?.layers ?? []).filter((l) => l.substitute && !l.usesSubstitute);
  }

  protected toggleSubstitute(piece: Piece, layer: string): void {
    const had = piece.substitutes ?? [];
    const substitutes = had.includes(layer) ? had.filter((l) => l !== layer) : [...had, layer];
    this.setPiece(piece, { substitutes }, 'substitute');
  }

  protected hosts(piece: Piece): { key: string; piece: string; layer: string; text: string }[] {
    return this.unit()
      .pieces.filter((p) => p.id !== piece.id)
      .flatMap((p) =>
        (this.recipes().find((r) => r.id === p.recipe)?.layers ?? []).map((l) => ({
          key: JSON.stringify([p.id, l.id]),
          piece: p.id,
          layer: l.id,
          text: `${p.name}: ${l.name}`,
        })),
      );
  }

  protected join(piece: Piece, key: string): void {
    const host = this.hosts(piece).find((h) => h.key === key);
    this.setPiece(piece, { joins: host ? { piece: host.piece, layer: host.layer } : null }, 'joins');
  }

  /** Copies asked for, kept between 1 and 50. */
  protected within(text: string): number {
    return Math.max(1, Math.min(50, Math.floor(Number(text)) || 1));
  }

  protected copyPiece(piece: Piece, copies: string): void {
    const n = this.within(copies);
    this.changed.emit({
      unit: duplicatedPiece(this.unit(), piece.id, n, this.newId),
      what: `${piece.name} copied ${n} ×`,
    });
  }

  protected removePiece(piece: Piece): void {
    this.changed.emit({ unit: withoutPiece(this.unit(), piece.id), what: `${piece.name} deleted` });
  }

  protected addPiece(): void {
    const { pieces } = this.unit();
    const last = pieces[pieces.length - 1];
    const piece: Piece = {
      id: this.newId(),
      name: `Piece ${pieces.length + 1}`,
      recipe: last?.recipe ?? this.recipes()[0]?.id ?? null,
      count: 1,
      places: 1,
      joins: null,
    };
    this.set({ pieces: [...pieces, piece] }, 'piece added');
  }
}
