import {
  CdkDrag,
  CdkDragHandle,
  CdkDropList,
  moveItemInArray,
  type CdkDragDrop,
} from '@angular/cdk/drag-drop';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
  viewChild,
} from '@angular/core';
import { SIZES } from '#core/amounts';
import { SIZE_CLASSES, withoutPieces, withPieces, type Piece, type Recipe, type Unit } from '#core/muster';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { FIELDS } from '../ui/fields';
import { NumberField } from '../ui/numberField';
import { many } from '../ui/words';
import { PieceEditor } from './pieceEditor';
import { Button } from '../ui/button';
import { RowTick } from '../ui/rowTick';

/** Height of a row, and of as many as are shown at once, in pixels. */
const ROW = 48;
const MOST_SHOWN = 9;

/** The pieces of a unit as a list, the one in hand beside it, and several at once. */
@Component({
  selector: 'pm-piece-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    CdkDrag,
    CdkDragHandle,
    CdkDropList,
    Button,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    CdkVirtualScrollViewport,
    ChoiceField,
    NumberField,
    PieceEditor,
    RowTick,
  ],
  template: `
    <div class="mb-2 flex flex-wrap items-center gap-2 text-[0.9rem]">
      <span class="grow text-mute">{{ head() }}</span>
      <button pmButton="small" (click)="chooseAll()">
        {{ chosen().size === unit().pieces.length ? 'None' : 'All' }}
      </button>
    </div>
    <cdk-virtual-scroll-viewport
      [itemSize]="row"
      class="rounded-md border border-line bg-board"
      [style.height.px]="height()"
      role="list"
      aria-label="Pieces"
      tabindex="0"
      cdkDropList
      [cdkDropListData]="unit().id"
      (cdkDropListDropped)="drop($event)"
    >
      <div
        *cdkVirtualFor="let p of unit().pieces; let k = index; trackBy: byId"
        role="listitem"
        cdkDrag
        [cdkDragData]="dragged(p)"
        class="flex items-center gap-1 border-b border-line/60"
        [class.bg-raised]="p.id === openId()"
        [style.height.px]="row"
      >
        <pm-row-tick
          class="h-full shrink-0"
          [name]="p.name"
          [value]="chosen().has(p.id)"
          (ticked)="pick(k, $event)"
        />
        <button
          type="button"
          class="flex h-full min-w-0 grow items-center gap-2 pr-3 text-left"
          [attr.aria-expanded]="p.id === openId()"
          [id]="'piece-' + p.id"
          (click)="openId.set(p.id === openId() ? null : p.id)"
          (keydown)="onKey($event, k)"
        >
          <strong class="min-w-0 shrink-0 basis-2/5 truncate" [title]="p.name">{{ p.name }}</strong>
          <span class="min-w-0 truncate text-[0.9rem] text-mute" [title]="about(p)">{{ about(p) }}</span>
        </button>
        <span
          cdkDragHandle
          class="flex h-full w-11 shrink-0 cursor-grab items-center justify-center text-mute select-none"
          title="Drag it to another place, or onto another unit (keys: Alt with up and down)"
          aria-hidden="true"
          >⠿</span
        >
      </div>
    </cdk-virtual-scroll-viewport>

    @if (chosen().size > 0) {
      <section class="mt-2 rounded-md border border-lamp bg-board p-3" aria-label="All that are chosen">
        <p class="mb-2 font-semibold">{{ words(chosen().size, 'piece') }} at once</p>
        <div class="grid grid-cols-2 gap-3">
          <pm-choice
            label="Recipe of all"
            [value]="common('recipe') ?? ''"
            [choices]="recipeChoices()"
            (valueChange)="setAll({ recipe: $event || null }, 'recipe')"
          />
          <pm-choice
            label="Size of all"
            [value]="commonSize()"
            [choices]="sizes"
            (valueChange)="setAll({ size: sizeOf($event) }, 'size')"
          />
          <pm-number
            label="Figures on each"
            [of]="fields.piece.count"
            [value]="common('count')"
            (valueChange)="setAll({ count: $event! }, 'figures')"
          />
          <pm-number
            label="Rack places of each"
            [of]="fields.piece.places"
            [value]="common('places')"
            (valueChange)="setAll({ places: $event! }, 'rack places')"
          />
          <pm-choice label="To another unit" value="" [choices]="elsewhere()" (valueChange)="move($event)" />
        </div>
        <button pmButton="small" class="mt-3 mr-2" (click)="kitMade.emit(chosen())">
          Make a kit of them
        </button>
        <button pmButton="small" class="mt-3" (click)="removeAll()">
          Delete {{ words(chosen().size, 'piece') }}
        </button>
      </section>
    }
    @if (open(); as p) {
      <section class="mt-2 rounded-md border border-line bg-board p-3" [attr.aria-label]="p.name">
        <pm-piece-editor [unit]="unit()" [piece]="p" [recipes]="recipes()" (changed)="changed.emit($event)" />
      </section>
    }
  `,
})
export class PieceList {
  protected readonly fields = FIELDS;
  readonly unit = input.required<Unit>();
  readonly recipes = input.required<readonly Recipe[]>();
  /** other units, to which pieces may go */
  readonly units = input<readonly Pick<Unit, 'id' | 'name'>[]>([]);
  /** the piece that is to be opened at once */
  readonly piece = input<string | null>(null);
  readonly changed = output<{ unit: Unit; what: string }>();
  readonly moved = output<{ pieces: ReadonlySet<string>; to: string }>();
  readonly kitMade = output<ReadonlySet<string>>();

  private readonly viewport = viewChild.required(CdkVirtualScrollViewport);
  protected readonly row = ROW;
  protected readonly words = many;
  protected readonly byId = (_: number, piece: Piece): string => piece.id;
  protected readonly openId = linkedSignal(() => this.piece());
  protected readonly open = computed(() => this.unit().pieces.find((p) => p.id === this.openId()) ?? null);
  /** those that are still there, of this unit */
  protected readonly chosen = linkedSignal<readonly Piece[], ReadonlySet<string>>({
    source: () => this.unit().pieces,
    computation: (pieces, before) => {
      const there = new Set(pieces.map((p) => p.id));
      return new Set([...(before?.value ?? [])].filter((id) => there.has(id)));
    },
  });
  private lastPicked = 0;
  private readonly recipeNames = computed(() => new Map(this.recipes().map((r) => [r.id, r.name])));
  protected readonly height = computed(
    () => Math.min(MOST_SHOWN, Math.max(1, this.unit().pieces.length)) * ROW + 2,
  );
  protected readonly head = computed(() => {
    const { pieces } = this.unit();
    const figures = pieces.reduce((n, p) => n + p.count, 0);
    return figures > pieces.length
      ? `${many(pieces.length, 'piece')}, ${many(figures, 'figure')}`
      : many(pieces.length, 'piece');
  });
  protected readonly recipeChoices = computed((): readonly Choice[] => [
    { value: '', text: '—' },
    ...this.recipes().map((r) => ({ value: r.id, text: r.name })),
  ]);
  protected readonly sizes: readonly Choice[] = [
    { value: '', text: '—' },
    ...SIZE_CLASSES.map((c) => ({ value: c, text: SIZES[c].name })),
  ];
  protected readonly elsewhere = computed((): readonly Choice[] => [
    { value: '', text: 'choose…' },
    ...this.units()
      .filter((u) => u.id !== this.unit().id)
      .map((u) => ({ value: u.id, text: u.name })),
  ]);

  protected about(piece: Piece): string {
    const recipe = this.recipeNames().get(piece.recipe ?? '') ?? 'no recipe';
    return [
      ...(piece.count > 1 ? [many(piece.count, 'figure')] : []),
      recipe,
      ...(piece.joins ? ['joined'] : []),
    ].join(' · ');
  }

  /** With Shift all from the last one picked. */
  protected pick(index: number, event: MouseEvent): void {
    const { pieces } = this.unit();
    const isOn = (event.target as HTMLInputElement).checked;
    const [from, to] = event.shiftKey
      ? [Math.min(index, this.lastPicked), Math.max(index, this.lastPicked)]
      : [index, index];
    const next = new Set(this.chosen());
    for (const p of pieces.slice(from, to + 1)) {
      if (isOn) next.add(p.id);
      else next.delete(p.id);
    }
    this.lastPicked = index;
    this.chosen.set(next);
  }

  protected chooseAll(): void {
    const { pieces } = this.unit();
    this.chosen.set(this.chosen().size === pieces.length ? new Set() : new Set(pieces.map((p) => p.id)));
  }

  /** What all that are chosen have alike; null where they differ. */
  protected common<K extends 'recipe' | 'count' | 'places'>(key: K): Piece[K] | null {
    const values = new Set(
      this.unit()
        .pieces.filter((p) => this.chosen().has(p.id))
        .map((p) => p[key]),
    );
    const [only] = values;
    return values.size === 1 ? only! : null;
  }

  protected commonSize(): string {
    const values = new Set(
      this.unit()
        .pieces.filter((p) => this.chosen().has(p.id))
        .map((p) => p.size?.class ?? ''),
    );
    const [only] = values;
    return values.size === 1 ? only! : '';
  }

  protected sizeOf(text: string): Piece['size'] {
    const found = SIZE_CLASSES.find((c) => c === text);
    return found && { class: found };
  }

  protected setAll(part: Partial<Piece>, what: string): void {
    this.changed.emit({
      unit: withPieces(this.unit(), this.chosen(), part),
      what: `${what} of ${many(this.chosen().size, 'piece')}`,
    });
  }

  protected removeAll(): void {
    this.changed.emit({
      unit: withoutPieces(this.unit(), this.chosen()),
      what: `${many(this.chosen().size, 'piece')} deleted`,
    });
  }

  /** A piece in hand takes along all that are chosen with it. */
  protected dragged(piece: Piece): ReadonlySet<string> {
    return this.chosen().has(piece.id) ? this.chosen() : new Set([piece.id]);
  }

  /** Within the list it takes another place; the places that the list knows count from the first row drawn. */
  protected drop(event: CdkDragDrop<string>): void {
    const first = this.viewport().getRenderedRange().start;
    this.place(first + event.previousIndex, first + event.currentIndex);
  }

  /** Alt with up and down moves a piece in its unit; focus goes with it. */
  protected onKey(event: KeyboardEvent, index: number): void {
    if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
    event.preventDefault();
    const piece = this.unit().pieces[index]!;
    this.place(index, index + (event.key === 'ArrowUp' ? -1 : 1));
    setTimeout(() => document.getElementById(`piece-${piece.id}`)?.focus());
  }

  private place(from: number, to: number): void {
    const pieces = [...this.unit().pieces];
    const piece = pieces[from];
    if (!piece || from === to || to < 0 || to >= pieces.length) return;
    moveItemInArray(pieces, from, to);
    this.changed.emit({ unit: { ...this.unit(), pieces }, what: `${piece.name} is now piece ${to + 1}` });
  }

  protected move(to: string): void {
    if (to !== '') this.moved.emit({ pieces: this.chosen(), to });
  }
}
