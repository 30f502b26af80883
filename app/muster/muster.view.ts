import { CdkDropList, CdkDropListGroup, type CdkDragDrop } from '@angular/cdk/drag-drop';
import {
  CdkFixedSizeVirtualScroll,
  CdkVirtualForOf,
  CdkVirtualScrollableWindow,
  CdkVirtualScrollViewport,
} from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { map } from 'rxjs';
import { readArchive, writeArchive, type Archive } from '#core/exchange';
import {
  addDays,
  duplicatedUnit,
  type Fault,
  faultLine,
  movedPieces,
  type Muster,
  type Piece,
  MusterFileError,
  readMuster,
  type Unit,
  kitOf,
  withKit,
  withUnitOfKit,
  type Kit,
  withoutKit,
  withoutUnit,
  withUnit,
  writeMuster,
} from '#core/muster';
import { duration, type PlanUnit } from '#core/plan';
import { NEW_ID, ZONE } from '../data/environment';
import { Concerns } from '../data/concerns';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { Logbook } from '../data/logbook';
import { budgetOf, type Budget } from '#core/session';
import { Planner } from '../data/planner';
import { download, fileName } from '../ui/download';
import { Findings } from '../ui/findings';
import { TextField } from '../ui/textField';
import { dateTimeWords, many } from '../ui/words';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { FileButton } from '../ui/fileButton';
import { ArchivePanel } from './archivePanel';
import { ManyPanel } from './manyPanel';
import { stacksOf, type Stack } from './stacks';
import { UnitEditor } from './unitEditor';
import { ListDetail } from '../ui/listDetail';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { Menu, type MenuEntry } from '../ui/menu';
import { narrowed } from '../ui/narrow';
import { SearchField } from '../ui/searchField';
import { viewOf } from '../ui/viewOf';

/** Height of a unit in the list, in pixels, what is between two included. */
const ROW = 148;

const ORDERS: readonly Choice[] = [
  { value: 'table', text: 'by table date' },
  { value: 'name', text: 'by name' },
  { value: 'spare', text: 'least to spare first' },
  { value: 'pieces', text: 'most pieces first' },
];

/** Days from the plan's beginning to a new unit's table date. */
const NEW_UNIT_DAYS = 14;

@Component({
  selector: 'pm-muster-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ListDetail,
    CdkDropList,
    CdkDropListGroup,
    Menu,
    SearchField,
    Card,
    Button,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    CdkVirtualScrollableWindow,
    CdkVirtualScrollViewport,
    ArchivePanel,
    ChoiceField,
    FileButton,
    Findings,
    ManyPanel,
    TextField,
    UnitEditor,
    RouterLink,
  ],
  templateUrl: './muster.view.html',
})
export class MusterView {
  protected readonly store = inject(MusterStore);
  protected readonly concerns = inject(Concerns);
  private readonly planner = inject(Planner);
  private readonly logbook = inject(Logbook);
  private readonly notices = inject(Notices);
  private readonly newId = inject(NEW_ID);
  private readonly zone = inject(ZONE);
  private readonly router = inject(Router);
  private readonly route = inject(ActivatedRoute);

  protected readonly muster = computed(() => this.store.muster()!);
  protected readonly row = ROW;
  protected readonly words = many;
  protected readonly orders = ORDERS;
  protected readonly order = signal('table');
  protected readonly sought = signal('');

  private readonly recipeNames = computed(() => new Map(this.muster().recipes.map((r) => [r.id, r])));
  /** of the units that are drawn, as they come into sight */
  private readonly stacks = computed(() => {
    this.recipeNames();
    return new WeakMap<Unit, readonly Stack[]>();
  });
  private readonly faultyUnits = computed(
    () =>
      new Set(
        this.store.findings().flatMap((f) => (f.severity === 'error' && f.place.unit ? [f.place.unit] : [])),
      ),
  );
  protected readonly units = computed(() => {
    const found = narrowed(this.muster().units, this.sought(), (u) => this.speakOf(u));
    const before = COMPARE[this.order()] ?? COMPARE['table']!;
    const planned = this.planUnits();
    return found.sort(
      (a, b) => before(a, b, planned) || byText(a.table, b.table) || NAMES.compare(a.name, b.name),
    );
  });
  private readonly asked = toSignal(this.route.queryParamMap);
  /** an address may ask for it */
  protected readonly showsMany = linkedSignal(() => this.asked()?.has('many') ?? false);
  protected readonly chosenPiece = computed(() => this.asked()?.get('piece') ?? null);
  private readonly chosenId = toSignal(this.route.queryParamMap.pipe(map((q) => q.get('unit'))), {
    initialValue: null,
  });
  protected readonly chosen = computed(
    () => this.muster().units.find((u) => u.id === this.chosenId()) ?? null,
  );
  protected readonly chosenFindings = computed(() =>
    this.store.findings().filter((f) => viewOf(f) === 'muster' && f.place.unit === this.chosenId()),
  );
  protected readonly archive = signal<Archive | null>(null);
  protected readonly fileFaults = signal<readonly Fault[]>([]);
  protected readonly line = faultLine;
  private readonly planUnits = computed(
    () => new Map(this.planner.plan()?.units.map((u) => [u.id, u]) ?? []),
  );

  private readonly budgets = computed(() => {
    const plan = this.planner.plan();
    const muster = this.muster();
    const log = this.logbook.entries();
    const found = new Map<string, Budget>();
    for (const unit of plan ? muster.units : []) {
      const budget = budgetOf(muster, unit, plan!, log);
      if (budget) found.set(unit.id, budget);
    }
    return found;
  });
  protected readonly duration = duration;

  protected budget(unit: Unit): Budget | null {
    return this.budgets().get(unit.id) ?? null;
  }

  protected choose(unit: string | null): void {
    // On a narrow screen the unit stands where the list stood.
    if (unit !== null && !matchMedia('(min-width: 1280px)').matches) window.scrollTo({ top: 0 });
    void this.router.navigate([], { relativeTo: this.route, queryParams: unit === null ? {} : { unit } });
  }

  protected stacksOf(unit: Unit): readonly Stack[] {
    const known = this.stacks();
    const stacks = known.get(unit) ?? stacksOf(unit, this.recipeNames());
    known.set(unit, stacks);
    return stacks;
  }

  protected faulty(unit: Unit): boolean {
    return this.faultyUnits().has(unit.id);
  }

  protected readonly byId = (_: number, unit: Unit): string => unit.id;

  private speakOf(unit: Unit): string {
    const recipe = (p: Piece): string => this.recipeNames().get(p.recipe ?? '')?.name ?? '';
    return [unit.name, ...unit.pieces.flatMap((p) => [p.name, recipe(p)])].join(' ');
  }

  protected standing(unit: Unit): { text: string; late: boolean } | null {
    const planned: PlanUnit | undefined = this.planUnits().get(unit.id);
    if (!planned) return null;
    if (planned.lateMinutes > 0) return { text: `late by ${duration(planned.lateMinutes)}`, late: true };
    const n = planned.spareSessions;
    return {
      text:
        n > 0
          ? `${n} ${n === 1 ? 'session' : 'sessions'} to spare`
          : `${duration(planned.spareMinutes)} to spare`,
      late: false,
    };
  }

  protected readonly table = (unit: Unit): string => dateTimeWords(unit.table);

  protected addUnit(): void {
    const id = this.newId();
    const muster = this.muster();
    const unit: Unit = {
      id,
      name: 'New unit',
      table: this.newTable(),
      readyFrom: null,
      importance: 3,
      pieces: [
        {
          id: this.newId(),
          name: 'Piece 1',
          recipe: muster.recipes[0]?.id ?? null,
          count: 1,
          places: 1,
          joins: null,
        },
      ],
    };
    this.store.change('Unit added', (m) => withUnit(m, unit));
    this.choose(id);
    // What is new is named first.
    setTimeout(() => {
      const field = document.querySelector<HTMLInputElement>('pm-unit-editor input');
      field?.focus();
      field?.select();
    });
  }

  protected movePieces(unit: Unit, { pieces, to }: { pieces: ReadonlySet<string>; to: string }): void {
    this.store.change(`${many(pieces.size, 'piece')} moved`, (m) => movedPieces(m, unit.id, pieces, to));
  }

  protected readonly kitMenu = computed((): readonly MenuEntry[] => {
    const kits = this.muster().kits ?? [];
    return [
      ...kits.map((k) => ({
        word: `Another ${k.name}`,
        about: [
          many(k.parts.length, 'part'),
          ...(k.details.length > 0 ? [`${k.details.length} easily forgotten`] : []),
          ...(k.markings?.length ? [many(k.markings.length, 'sheet')] : []),
        ].join(', '),
        run: () => this.addFromKit(k),
      })),
      ...kits.map((k) => ({
        word: `Forget ${k.name}`,
        about: 'units made of it stay',
        run: () => void this.store.remove(`The kit “${k.name}” is forgotten`, (m) => withoutKit(m, k.id)),
      })),
    ];
  });
  protected readonly takeAway: readonly MenuEntry[] = [
    { word: 'This muster', about: 'as one file, to be read by people and programs', run: () => this.save() },
    {
      word: 'Everything',
      about: 'muster, log and pictures in one zip',
      run: () => this.saveArchive(),
    },
  ];

  /** @param pieces those that make the kit; without them all of the unit */
  protected makeKit(unit: Unit, pieces?: ReadonlySet<string>): void {
    const kit = kitOf(this.muster(), unit, this.newId, pieces);
    if (this.store.change(`Kit made of ${kit.name}`, (m) => withKit(m, kit)))
      this.notices.tell(`“${kit.name}” is a kit now: take the next one like it under “Kits”.`);
  }

  private addFromKit(kit: Kit): void {
    let id = '';
    const isAdded = this.store.change(`${kit.name} from its kit`, (m) => {
      const made = withUnitOfKit(m, kit, this.newTable(), this.newId);
      id = made.unit.id;
      return made.muster;
    });
    if (isAdded) this.choose(id);
  }

  private newTable(): string {
    const { startsOn } = this.muster();
    return `${addDays(startsOn.slice(0, 10), NEW_UNIT_DAYS)}${startsOn.slice(10)}`;
  }

  /** Pieces dragged from their list onto another unit go there. */
  protected dropOn(unit: Unit, event: CdkDragDrop<unknown, string, ReadonlySet<string>>): void {
    const from = this.chosen();
    if (from && from.id !== unit.id) this.movePieces(from, { pieces: event.item.data, to: unit.id });
  }

  protected change(unit: Unit, what: string): void {
    this.store.change(`${unit.name}: ${what}`, (m) => withUnit(m, unit));
  }

  protected duplicate(unit: Unit, copies: number): void {
    this.store.remove(`${unit.name} copied ${copies} ×`, (m) =>
      duplicatedUnit(m, unit.id, copies, this.newId),
    );
  }

  protected delete(unit: Unit): void {
    this.store.remove(`${unit.name} deleted`, (m) => withoutUnit(m, unit.id));
    this.choose(null);
  }

  protected rename(name: string): void {
    this.store.change('Muster renamed', (m) => ({ ...m, name }));
  }

  protected startOn(startsOn: string): void {
    this.store.change('Beginning of the plan moved', (m) => ({ ...m, startsOn: startsOn.slice(0, 16) }));
  }

  protected save(): void {
    const muster: Muster = this.muster();
    download(`${fileName(muster.name)}.json`, 'application/json', writeMuster(muster));
  }

  protected saveArchive(): void {
    const muster = this.muster();
    download(`${fileName(muster.name)}.zip`, 'application/zip', writeArchive(muster, this.logbook.entries()));
  }

  /** A file that is no muster leaves everything as it was and says where it is wrong; an archive is asked about first. */
  protected async open(file: File): Promise<void> {
    try {
      this.archive.set(null);
      if (/\.zip$/i.test(file.name)) {
        this.archive.set(readArchive(new Uint8Array(await file.arrayBuffer()), this.zone));
        this.fileFaults.set([]);
        return;
      }
      await this.store.add(readMuster(await file.text(), this.zone), `${file.name} brought in`);
      this.fileFaults.set([]);
      this.choose(null);
      this.notices.tell(`${file.name} is brought in as a muster of its own, beside the others.`);
    } catch (error) {
      this.fileFaults.set(
        error instanceof MusterFileError
          ? error.faults
          : [{ path: file.name, text: error instanceof Error ? error.message : String(error) }],
      );
      this.notices.tell(`${file.name} was not brought in; everything is as it was.`);
    }
  }
}

type Compare = (a: Unit, b: Unit, planned: ReadonlyMap<string, PlanUnit>) => number;
/** One collator for all: asking each name for its own rules takes most of the time of a long list. */
const NAMES = new Intl.Collator(undefined, { numeric: true });
/** Dates as they are written stand in the order of time. */
const byText = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

const COMPARE: Readonly<Record<string, Compare>> = {
  table: (a, b) => byText(a.table, b.table),
  name: (a, b) => NAMES.compare(a.name, b.name),
  spare: (a, b, planned) => spareOf(planned.get(a.id)) - spareOf(planned.get(b.id)),
  pieces: (a, b) => b.pieces.length - a.pieces.length,
};

/** Late units first, then by sessions to spare. */
function spareOf(unit: PlanUnit | undefined): number {
  return unit === undefined ? Infinity : unit.lateMinutes > 0 ? -unit.lateMinutes : unit.spareSessions;
}
