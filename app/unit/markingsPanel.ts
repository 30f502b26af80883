import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  SIDES,
  storesOf,
  withPieces,
  withStores,
  withUnit,
  type Marking,
  type Piece,
  type Side,
  type Unit,
} from '#core/muster';
import { markedPieces, type Allotment } from '#core/variety';
import { allotments, allottedWords, recipesWithMarkings } from '#core/stores';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Planner } from '../data/planner';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { CheckField } from '../ui/checkField';
import { FIELDS } from '../ui/fields';
import { NumberField } from '../ui/numberField';
import { many } from '../ui/words';

/** A number as long as a sheet may be, where a series is begun. */
const FIRST_SERIES = { from: 1, to: 12 };

/** Sheets of markings given out: which piece gets which, on which side, with which number. */
@Component({
  selector: 'pm-markings-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, Card, CheckField, NumberField, RouterLink],
  templateUrl: './markingsPanel.html',
})
export class MarkingsPanel {
  readonly unit = input.required<Unit>();
  private readonly store = inject(MusterStore);
  private readonly planner = inject(Planner);
  private readonly logbook = inject(Logbook);
  protected readonly fields = FIELDS;
  protected readonly words = many;
  protected readonly sides = SIDES;

  protected readonly hasMarked = computed(() => {
    const muster = this.store.muster();
    return muster !== null && markedPieces(this.unit(), recipesWithMarkings(muster)).length > 0;
  });
  protected readonly allotments = computed((): readonly Allotment[] => {
    const muster = this.store.muster();
    return muster ? allotments(muster, this.unit(), this.planner.plan() ?? null, this.logbook.entries()) : [];
  });
  protected readonly gets = allottedWords;

  protected calls(marking: Marking, side: Side): boolean {
    return marking.sides?.includes(side) ?? false;
  }

  protected callFor(marking: Marking, side: Side, isOn: boolean): void {
    const had = marking.sides ?? [];
    const sides = SIDES.filter((s) => (s === side ? isOn : had.includes(s)));
    this.setSheet(marking, { sides: sides.length > 0 ? sides : undefined });
  }

  protected setSeries(marking: Marking, isOn: boolean): void {
    this.setSheet(marking, { numbers: isOn ? FIRST_SERIES : undefined });
  }

  protected setNumbers(marking: Marking, part: Partial<NonNullable<Marking['numbers']>>): void {
    this.setSheet(marking, { numbers: { ...(marking.numbers ?? FIRST_SERIES), ...part } });
  }

  protected setPolicy(marking: Marking, isSeen: boolean): void {
    this.setSheet(marking, { policy: isSeen ? 'seen-sides' : 'every-side' });
  }

  protected setSheet(marking: Marking, part: Partial<Marking>): void {
    this.store.change(`${marking.name}: how it is given out`, (m) => {
      const stores = storesOf(m);
      return withStores(m, {
        ...stores,
        markings: stores.markings.map((x) => (x.id === marking.id ? { ...x, ...part } : x)),
      });
    });
  }

  protected isHidden(piece: Piece, side: Side): boolean {
    return piece.hidden?.includes(side) ?? false;
  }

  protected hide(piece: Piece, side: Side): void {
    const had = piece.hidden ?? [];
    const hidden = SIDES.filter((s) => (s === side) !== had.includes(s));
    this.setPiece(piece, 'sides that are not seen', { hidden: hidden.length > 0 ? hidden : undefined });
  }

  protected setPiece(piece: Piece, what: string, part: Partial<Piece>): void {
    this.store.change(`${piece.name}: ${what}`, (m) =>
      withUnit(m, withPieces(this.unit(), new Set([piece.id]), part)),
    );
  }
}
