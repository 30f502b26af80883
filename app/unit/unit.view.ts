import {
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { catchError, distinctUntilChanged, from, of, switchMap } from 'rxjs';
import { STORIES, withUnit, type Story } from '#core/muster';
import { STORY_WORDS } from '#core/variety';
import { MusterStore } from '../data/musterStore';
import { OPEN_VARIETY, type Variety } from '../data/varietyDesk';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { ChoiceField, type Choice } from '../ui/choiceField';
import { many } from '../ui/words';
import { BriefSheet } from './briefSheet';
import { DealPanel } from './dealPanel';
import { LookOverPanel } from './lookOverPanel';
import { MarkingsPanel } from './markingsPanel';
import { MasksPanel } from './masksPanel';
import { RecordPanel } from './recordPanel';
import { PiecePanel } from './piecePanel';

const ROOMS = [
  { id: 'alike', name: 'No two alike' },
  { id: 'masks', name: 'Masks' },
  { id: 'markings', name: 'Markings' },
  { id: 'look', name: 'Look over' },
  { id: 'record', name: 'Record' },
] as const;

/** A unit, piece by piece: no two alike, nothing forgotten. */
@Component({
  selector: 'pm-unit-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    BriefSheet,
    Button,
    Card,
    ChoiceField,
    DealPanel,
    LookOverPanel,
    MarkingsPanel,
    MasksPanel,
    NgTemplateOutlet,
    PiecePanel,
    RecordPanel,
    RouterLink,
  ],
  templateUrl: './unit.view.html',
  host: { '(window:beforeprint)': 'setPrinting(true)', '(window:afterprint)': 'setPrinting(false)' },
})
export class UnitView {
  private readonly store = inject(MusterStore);
  private readonly route = inject(ActivatedRoute);
  private readonly router = inject(Router);
  protected readonly desk = inject(OPEN_VARIETY)();
  protected readonly panel = viewChild(DealPanel);
  protected readonly words = many;

  protected readonly muster = computed(() => this.store.muster()!);
  private readonly params = toSignal(this.route.paramMap);
  private readonly query = toSignal(this.route.queryParamMap);
  /** the unit of the address; the first where it names none */
  protected readonly unit = computed(() => {
    const { units } = this.muster();
    return units.find((u) => u.id === this.params()?.get('unit')) ?? units[0] ?? null;
  });
  protected readonly piece = computed(
    () =>
      this.unit()?.pieces.find((p) => p.id === this.query()?.get('piece')) ?? this.unit()?.pieces[0] ?? null,
  );
  protected readonly isPrinting = signal(false);
  private readonly app = inject(ApplicationRef);
  protected readonly rooms = ROOMS;
  protected readonly room = computed(
    () => ROOMS.find((r) => r.id === this.query()?.get('show'))?.id ?? 'alike',
  );
  protected readonly units = computed((): readonly Choice[] =>
    this.muster().units.map((u) => ({ value: u.id, text: u.name })),
  );
  protected readonly stories: readonly Choice[] = STORIES.map((s) => ({ value: s, text: STORY_WORDS[s] }));

  /** as the worker tells it, of the muster before last at the latest */
  private readonly told = toSignal<Variety | { readonly fault: string } | null>(
    toObservable(computed(() => ({ muster: this.muster(), unit: this.unit() }))).pipe(
      distinctUntilChanged((a, b) => a.muster === b.muster && a.unit === b.unit),
      switchMap(({ muster, unit }) =>
        unit === null
          ? of(null)
          : from(this.desk.tell(muster, unit)).pipe(
              catchError((error: unknown) =>
                of({
                  fault: `It could not be reckoned: ${error instanceof Error ? error.message : String(error)}.`,
                }),
              ),
            ),
      ),
    ),
    { initialValue: null },
  );
  protected readonly fault = computed(() => {
    const told = this.told();
    return told && 'fault' in told ? told.fault : null;
  });
  protected readonly variety = computed(() => {
    const told = this.told();
    return told && 'dealt' in told && told.unit.id === this.unit()?.id ? told : null;
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.desk.close());
  }

  protected go(unit: string): void {
    void this.router.navigate(['/unit', unit]);
  }

  protected pick(piece: string): void {
    void this.router.navigate([], { relativeTo: this.route, queryParams: { piece }, replaceUrl: true });
  }

  protected startSwap(piece: string): void {
    this.panel()?.swaps.set(piece);
  }

  protected setStory(value: string): void {
    const story = STORIES.find((s): s is Story => s === value);
    const unit = this.unit();
    if (unit && story)
      this.store.change(`${unit.name}: what it has been through`, (m) => withUnit(m, { ...unit, story }));
  }

  protected print(): void {
    window.print();
  }

  /** All briefs are drawn for paper alone, and only while it is printed: the browser asks for them just before, and does not wait. */
  protected setPrinting(isPrinting: boolean): void {
    this.isPrinting.set(isPrinting);
    this.app.tick();
  }
}
