import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { withMore } from '#core/entry';
import type { Recipe, Unit } from '#core/muster';
import { NEW_ID, TODAY } from '../data/environment';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { CopiesField } from '../ui/copiesField';
import { FIELDS } from '../ui/fields';
import { ListEditor, ListRow } from '../ui/listEditor';
import { LEVELS } from '../ui/levels';
import { NumberField } from '../ui/numberField';
import { QuickLine } from '../ui/quickLine';
import { TextField } from '../ui/textField';
import { many } from '../ui/words';
import { PieceList } from './pieceList';
import { WordHelp } from '../ui/word';
import { Button } from '../ui/button';

/** Everything of one unit. Each entry is one change, and one undo. */
@Component({
  selector: 'pm-unit-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    Button,
    RouterLink,
    WordHelp,
    ChoiceField,
    CopiesField,
    ListEditor,
    ListRow,
    NumberField,
    PieceList,
    QuickLine,
    TextField,
  ],
  template: `
    @let u = unit();
    <div class="grid grid-cols-2 gap-3">
      <pm-text
        class="col-span-2"
        label="Unit"
        [value]="u.name"
        (valueChange)="set({ name: $event }, 'renamed')"
      />
      <pm-text
        class="col-span-2"
        label="On the table"
        type="datetime-local"
        [value]="u.table"
        (valueChange)="set({ table: $event.slice(0, 16) }, 'table date')"
      />
      <pm-text
        class="col-span-2"
        label="Cleaned and assembled from (empty: already)"
        type="datetime-local"
        [optional]="true"
        [value]="u.readyFrom ?? ''"
        (valueChange)="set({ readyFrom: $event === '' ? null : $event.slice(0, 16) }, 'ready from')"
      />
      <pm-number
        label="How much it matters"
        unit="of 5"
        [of]="fields.unit.importance"
        [value]="u.importance"
        (valueChange)="set({ importance: $event! }, 'importance')"
      />
      <pm-number
        label="May cost"
        unit="h of work"
        [of]="fields.unit.budgetHours"
        [value]="u.budgetHours ?? null"
        (valueChange)="set({ budgetHours: $event ?? undefined }, 'budget')"
      />
      <pm-choice
        class="col-span-2"
        label="Finished to"
        [value]="u.level ? '' + u.level : ''"
        [choices]="levels"
        (valueChange)="set({ level: $event ? +$event : undefined }, 'finish level')"
      />
      <pm-word class="col-span-2 -mt-2" name="level" />
    </div>

    <h3 class="mt-5 mb-2 text-[1.1rem]">Pieces</h3>
    @defer (on timer(1ms)) {
      <pm-piece-list
        [unit]="u"
        [recipes]="recipes()"
        [units]="units()"
        [piece]="piece()"
        (changed)="changed.emit($event)"
        (moved)="moved.emit($event)"
        (kitMade)="kitMade.emit($event)"
      />
    } @placeholder {
      <p class="h-32 text-mute">{{ words(u.pieces.length, 'piece') }}…</p>
    }
    <pm-quick-line
      class="mt-3 block"
      label="More pieces: “4 more”, “mast, oars, roof late”"
      word="Add"
      [fault]="fault()"
      (sent)="addPieces($event.text) && $event.clear()"
    />

    @defer (on idle) {
      <h3 class="mt-5 mb-1 text-[1.1rem]">Easily forgotten</h3>
      <p class="mb-2 text-[0.9rem] text-mute">
        Lamps, handles, undersides, the second of a pair: told before the last coat, and here before the
        table.
      </p>
      <pm-list-editor
        label="Easily forgotten"
        [items]="u.details ?? []"
        [nameOf]="nameOf"
        (taken)="setDetails(withoutDetail($event.id), $event.name + ' taken out')"
      >
        <ng-template [pmRow]="u.details ?? []" let-d>
          <span class="min-w-0 grow self-center">{{ d.name }}</span>
        </ng-template>
      </pm-list-editor>
      <pm-quick-line
        class="mt-1 block"
        label="More of it, commas between"
        word="Note"
        (sent)="addDetails($event.text); $event.clear()"
      />
    } @placeholder {
      <p class="mt-5 h-24 text-mute">Easily forgotten…</p>
    }

    <div class="mt-5 flex flex-wrap items-end gap-2 border-t border-line pt-4">
      <a pmButton="small lamp" [routerLink]="['/unit', u.id]">Deal, place, look over</a>
      <button pmButton="small" (click)="kitMade.emit(undefined)">Make a kit of it</button>
      <pm-copies word="Duplicate unit" (copied)="duplicate.emit($event)" />
      <span class="grow"></span>
      <button pmButton="small" (click)="deleted.emit()">Delete unit</button>
    </div>
  `,
})
export class UnitEditor {
  protected readonly words = many;
  protected readonly nameOf = (d: { readonly name: string }): string => d.name;
  protected readonly fields = FIELDS;
  readonly unit = input.required<Unit>();
  readonly recipes = input.required<readonly Recipe[]>();
  readonly units = input<readonly Pick<Unit, 'id' | 'name'>[]>([]);
  /** of the bench, for dates that say no year */
  readonly zone = input('UTC');
  /** the piece that is to be opened at once */
  readonly piece = input<string | null>(null);
  readonly changed = output<{ unit: Unit; what: string }>();
  readonly moved = output<{ pieces: ReadonlySet<string>; to: string }>();
  /** how many copies */
  readonly duplicate = output<number>();
  readonly deleted = output();
  /** a kit for the next ones is to be made of these pieces, or of the whole unit */
  readonly kitMade = output<ReadonlySet<string> | undefined>();
  private readonly newId = inject(NEW_ID);
  private readonly today = inject(TODAY);
  protected readonly fault = signal<string | null>(null);

  protected set(part: Partial<Unit>, what: string): void {
    this.changed.emit({ unit: { ...this.unit(), ...part }, what });
  }

  protected readonly levels: readonly Choice[] = [{ value: '', text: 'the whole recipe' }, ...LEVELS];

  /** Like the last piece: so many more of it, or others by name. @returns whether the line was taken */
  protected addPieces(text: string): boolean {
    const today = this.today(this.zone());
    const { unit, added, unclear, fault } = withMore(
      this.unit(),
      text,
      this.recipes(),
      { today },
      this.newId,
    );
    this.fault.set(
      fault ?? (unclear.length > 0 ? `Not understood and left out: ${unclear.join(', ')}.` : null),
    );
    if (!fault) this.changed.emit({ unit, what: `${many(added, 'piece')} added` });
    return !fault;
  }

  protected addDetails(text: string): void {
    const names = text
      .split(',')
      .map((n) => n.trim())
      .filter((n) => n !== '');
    if (names.length === 0) return;
    const added = names.map((name) => ({ id: this.newId(), name }));
    this.setDetails([...(this.unit().details ?? []), ...added], `${many(added.length, 'detail')} noted`);
  }

  protected withoutDetail(id: string): NonNullable<Unit['details']> {
    return (this.unit().details ?? []).filter((d) => d.id !== id);
  }

  protected setDetails(details: NonNullable<Unit['details']>, what: string): void {
    this.set({ details: details.length > 0 ? details : undefined }, what);
  }
}
