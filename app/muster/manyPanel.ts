import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  output,
  signal,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { catchError, debounceTime, from, of, startWith, switchMap } from 'rxjs';
import {
  COLUMN_NAMES,
  COLUMNS,
  isTable,
  readLines,
  TABLE_TIME,
  type Column,
  type Known,
  type UnitDraft,
} from '#core/entry';
import { LIBRARY } from '#core/library';
import { addDays, type Recipe } from '#core/muster';
import { recipeByBrush } from '#core/recipe';
import { Database } from '../data/database';
import { TODAY, ZONE } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { OPEN_READER } from '../data/reading';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { NoteField } from '../ui/noteField';
import { TextField } from '../ui/textField';
import { dateTimeWords, many } from '../ui/words';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { FileButton } from '../ui/fileButton';

/** Weeks until the date of what says none. */
const WEEKS = 4;
const MOST_BYTES = 20_000_000;
const FAULTS_SHOWN = 8;
const UNITS_SHOWN = 12;
const SETTLE_MS = 150;
/** What was last said of columns under these headings. */
const REMEMBERED = 'columns of lists';

/** Many units at once: typed line by line, or pasted from a spreadsheet. Shown before it is made; one change, one undo. */
@Component({
  selector: 'pm-many-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FileButton, Card, Button, ChoiceField, NoteField, TextField],
  template: `
    <section pmCard="lamp" class="mb-5" aria-labelledby="many">
      <div class="mb-2 flex items-start gap-3">
        <h2 id="many" class="grow text-[1.25rem]">Many at once</h2>
        <button pmButton="small" (click)="shut.emit()">Close</button>
      </div>
      <pm-note
        label="A line a unit, or cells from a spreadsheet: “3 trays of 8 dockhands, quick tray, by 14 March” · “Salt Prince: hull, rudder, roof late”"
        [rows]="5"
        [most]="null"
        [value]="text()"
        (typed)="text.set($event)"
      />
      <div class="mt-2 flex flex-wrap items-end gap-3">
        <pm-file word="From a CSV file" accept=".csv,.tsv,.txt,text/csv,text/plain" (chosen)="open($event)" />
        <pm-text
          class="w-64"
          type="datetime-local"
          label="On the table, where nothing is said"
          [value]="table()"
          (valueChange)="table.set($event.slice(0, 16))"
        />
        <pm-choice
          class="w-64"
          label="Recipe, where none is said"
          [value]="recipe()"
          [choices]="recipeChoices()"
          (valueChange)="recipe.set($event)"
        />
      </div>
      @if (fault(); as text) {
        <p class="mt-2 text-shut" role="alert">{{ text }}</p>
      }

      @if (list(); as l) {
        <div class="mt-3 overflow-x-auto">
          <table class="min-w-full text-[0.95rem]">
            <caption class="sr-only">
              What each column is
            </caption>
            <thead>
              <tr>
                @for (heading of l.headings; track $index; let k = $index) {
                  <th class="p-1 text-left align-bottom font-normal" scope="col">
                    <pm-choice
                      [label]="heading"
                      [value]="l.columns[k]!"
                      [choices]="columns"
                      (valueChange)="setColumn(k, $event)"
                    />
                  </th>
                }
              </tr>
            </thead>
            <tbody>
              @for (row of l.sample; track $index) {
                <tr class="border-t border-line">
                  @for (heading of l.headings; track $index; let k = $index) {
                    <td class="max-w-60 truncate p-1 text-mute">{{ row[k] }}</td>
                  }
                </tr>
              }
            </tbody>
          </table>
        </div>
      } @else if (isReading()) {
        <p class="mt-3 text-mute" role="status">Reading…</p>
      }

      @if (drafts().length > 0) {
        <h3 class="mt-4 mb-1 text-[1.05rem]">{{ summary() }}</h3>
        <p class="sr-only" role="status">{{ summary() }}</p>
        <ul class="grid gap-x-6 md:grid-cols-2">
          @for (d of drafts().slice(0, unitsShown); track $index) {
            <li class="py-1">
              <strong class="mr-2">{{ d.name }}</strong><span class="text-mute">{{ about(d) }}</span>
            </li>
          }
          @if (drafts().length > unitsShown) {
            <li class="py-1 text-mute">and {{ words(drafts().length - unitsShown, 'more unit') }}</li>
          }
        </ul>
      }
      @if (faults().length > 0) {
        <h3 class="mt-3 mb-1 text-[1.05rem] text-shut">
          {{ words(faults().length, 'line') }} to look at; the others are made
        </h3>
        <ul class="list-disc pl-5">
          @for (f of faults().slice(0, faultsShown); track $index) {
            <li>{{ f }}</li>
          }
          @if (faults().length > faultsShown) {
            <li class="text-mute">and {{ faults().length - faultsShown }} more</li>
          }
        </ul>
      }
      <button pmButton="lamp" class="mt-4" [disabled]="drafts().length === 0 || isMaking()" (click)="make()">
        {{ isMaking() ? 'making…' : drafts().length === 0 ? 'Make them' : 'Make ' + summary() }}
      </button>
    </section>
  `,
})
export class ManyPanel {
  private readonly store = inject(MusterStore);
  private readonly database = inject(Database);
  private readonly reader = inject(OPEN_READER)();
  readonly shut = output();

  protected readonly words = many;
  protected readonly faultsShown = FAULTS_SHOWN;
  protected readonly unitsShown = UNITS_SHOWN;
  protected readonly columns: readonly Choice[] = COLUMNS.map((c) => ({ value: c, text: COLUMN_NAMES[c] }));
  protected readonly text = signal('');
  protected readonly fault = signal<string | null>(null);
  protected readonly isMaking = signal(false);
  protected readonly recipe = signal('');
  private readonly today = inject(TODAY)(this.store.muster()?.bench.timeZone ?? inject(ZONE));
  protected readonly table = signal(`${addDays(this.today, 7 * WEEKS)}T${TABLE_TIME}`);
  /** columns as the user has said, by the headings under which it was said */
  private readonly said = signal<Readonly<Record<string, readonly Column[]>>>({});

  /** the muster's own recipes and those of the library, as this bench can do them */
  private readonly library = computed((): readonly Recipe[] =>
    this.store.muster()?.bench.hasAirbrush === false ? LIBRARY.map(recipeByBrush) : LIBRARY,
  );
  private readonly known = computed((): Known => {
    const own = this.store.muster()?.recipes ?? [];
    const names = (list: readonly Recipe[]) => list.map(({ id, name }) => ({ id, name }));
    return { recipes: [...names(own), ...names(this.library())], today: this.today };
  });
  protected readonly recipeChoices = computed((): readonly Choice[] => [
    { value: '', text: 'none yet' },
    ...this.known().recipes.map((r) => ({ value: r.id, text: r.name })),
  ]);

  private readonly isTable = computed(() => isTable(this.text()));
  private readonly read = toSignal(
    toObservable(
      computed(() => ({
        text: this.text(),
        isTable: this.isTable(),
        known: this.known(),
        said: this.said(),
      })),
    ).pipe(
      debounceTime(SETTLE_MS),
      switchMap(({ text, isTable, known, said }) => {
        if (!isTable || text.trim() === '') return of(null);
        const heading = text.split('\n', 1)[0]!;
        return from(this.reader.read(text, known, said[heading] ?? null)).pipe(
          catchError((error: Error) => {
            this.fault.set(`The list could not be read: ${error.message}`);
            return of(null);
          }),
          startWith('reading' as const),
        );
      }),
    ),
    { initialValue: null },
  );
  protected readonly isReading = computed(() => this.read() === 'reading');
  protected readonly list = computed(() => {
    const read = this.read();
    return read === 'reading' || !this.isTable() ? null : read;
  });
  private readonly lines = computed(() => (this.isTable() ? [] : readLines(this.text(), this.known())));
  protected readonly drafts = computed((): readonly UnitDraft[] => {
    const found =
      this.list()?.drafts ??
      this.lines()
        .filter((u) => u.fault === null && !u.missing.includes('name'))
        .map((u) => u.draft);
    const recipe = this.recipe() || null;
    return recipe === null
      ? found
      : found.map((d) => ({ ...d, pieces: d.pieces.map((p) => ({ ...p, recipe: p.recipe ?? recipe })) }));
  });
  protected readonly faults = computed((): readonly string[] => {
    const list = this.list();
    if (list) return list.faults.map((f) => (f.line === 0 ? f.text : `Line ${f.line} ${f.text}`));
    return this.lines().flatMap((u, k) => {
      const where = `Line ${k + 1}`;
      return [
        ...(u.fault ? [`${where}: ${u.fault}`] : []),
        ...(u.missing.includes('name') ? [`${where} says no name.`] : []),
        ...(u.unclear.length > 0 ? [`${where}: not understood and left out: ${u.unclear.join(', ')}.`] : []),
      ];
    });
  });
  protected readonly summary = computed(() => {
    const pieces = this.drafts().reduce((n, d) => n + d.pieces.length, 0);
    return `${many(this.drafts().length, 'unit')}, ${many(pieces, 'piece')}`;
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.reader.close());
    void this.database
      .setting(REMEMBERED)
      .then((kept) => kept && this.said.set(JSON.parse(kept) as Record<string, Column[]>))
      .catch(() => undefined);
  }

  protected about(draft: UnitDraft): string {
    const [first] = draft.pieces;
    const recipe = this.known().recipes.find((r) => r.id === first?.recipe)?.name ?? 'recipe to be chosen';
    return [
      many(draft.pieces.length, 'piece'),
      ...(first && first.figures > 1 ? [`${many(first.figures, 'figure')} each`] : []),
      recipe,
      dateTimeWords(draft.table ?? this.table()),
    ].join(' · ');
  }

  protected setColumn(index: number, column: string): void {
    const list = this.list();
    const chosen = COLUMNS.find((c) => c === column);
    if (!list || !chosen) return;
    const heading = this.text().split('\n', 1)[0]!;
    const columns = list.columns.map((c, k) => (k === index ? chosen : c === chosen ? 'ignored' : c));
    this.said.update((said) => ({ ...said, [heading]: columns }));
    // Not remembering costs a choice at the next list, and no work.
    this.database.keepSetting(REMEMBERED, JSON.stringify(this.said())).catch(() => undefined);
  }

  protected async open(file: File): Promise<void> {
    this.fault.set(null);
    if (file.size > MOST_BYTES) {
      this.fault.set(`${file.name} has more than ${MOST_BYTES / 1_000_000} MB; cut it into several.`);
      return;
    }
    const text = await file.text().catch(() => null);
    if (text === null || text.includes('\u0000'))
      this.fault.set(`${file.name} is no text that can be read; nothing was taken.`);
    else this.text.set(text);
  }

  protected async make(): Promise<void> {
    const before = this.store.muster();
    if (!before || this.isMaking()) return;
    this.isMaking.set(true);
    this.fault.set(null);
    try {
      const label = `${this.summary()} made`;
      const made = await this.reader.make(before, this.drafts(), this.library(), this.table());
      if (!this.store.changeTo(label, before, made)) return;
      this.text.set('');
      this.shut.emit();
    } catch (error) {
      this.fault.set(`Nothing was made: ${error instanceof Error ? error.message : String(error)}`);
    } finally {
      this.isMaking.set(false);
    }
  }
}
