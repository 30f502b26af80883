import { inject, Injectable, signal } from '@angular/core';
import type { Layer, Piece, Unit } from '#core/muster';
import type { New, LogEntry } from '#core/log';
import { drawnEntry, markOn, placedMarks, tickedEntry, type MarkPlace, type PlacedMark } from '#core/session';
import type { Area } from '#core/variety';
import { Logbook, NOT_SAVED_YET, type Written } from '../data/logbook';

/** Writes into the log which marks are on a piece, place by place. One for each panel that does so. */
@Injectable()
export class PlacedLog {
  private readonly logbook = inject(Logbook);
  /** why the last press was not written; null: it was */
  readonly fault = signal<string | null>(null);

  marksOn(piece: string): PlacedMark[] {
    return placedMarks(this.logbook.entries(), piece);
  }

  /** A place of the brief ticked, or its tick taken back. */
  turn(unit: Unit, piece: Piece, layer: Layer, area: Area): Promise<void> {
    const mark = markOn(this.marksOn(piece.id), layer.id, area);
    return mark ? this.takeOff(mark) : this.add(tickedEntry(unit, piece, layer, area));
  }

  draw(unit: Unit, piece: Piece, layer: Layer, place: MarkPlace): Promise<void> {
    return this.add(drawnEntry(unit, piece, layer, place));
  }

  takeOff(mark: PlacedMark): Promise<void> {
    return this.write(() => this.logbook.takeBack([mark]));
  }

  private add(entry: New<LogEntry>): Promise<void> {
    return this.write(() => this.logbook.add(entry));
  }

  private async write(deed: () => Promise<Written>): Promise<void> {
    const { isSaved } = await deed();
    this.fault.set(isSaved ? null : `This ${NOT_SAVED_YET}`);
  }
}
