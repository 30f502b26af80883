/** The odds of the plan in hand: a first look as soon as there is a plan, the whole of them while somebody asks. */
import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { catchError, EMPTY, exhaustMap, filter, switchMap, tap } from 'rxjs';
import { hasHistory, standing, type LogEntry } from '#core/log';
import type { Told } from '../workers/planningDesk';
import { Logbook } from './logbook';
import { Planner } from './planner';

/** A share of one in ten is known to two in a hundred. */
const FIRST = 200;
/** … to one in a hundred; and there is time for margins, and for the latest day to begin. */
const WHOLE = 1000;
/** An entry of the log holds so many units. */
const MOST_KEPT = 500;

@Injectable({ providedIn: 'root' })
export class Forecasts {
  private readonly planner = inject(Planner);
  private readonly logbook = inject(Logbook);
  private readonly askers = signal(0);
  /** of the plan as it stands, as far as they are known; null while there is none */
  readonly told = signal<Told | null>(null);
  readonly fault = signal<string | null>(null);

  constructor() {
    // Stopped or failed: what there is of a plan has its odds all the same.
    const solved = computed(() =>
      ['planning', 'waiting'].includes(this.planner.state()) ? null : this.planner.solved(),
    );
    const asked = computed(() => ({ solved: solved(), futures: this.askers() > 0 ? WHOLE : FIRST }));
    let of: unknown = null;
    const playing = toObservable(asked)
      .pipe(
        tap(({ solved }) => {
          if (solved === of) return;
          of = solved;
          this.told.set(null);
          this.fault.set(null);
        }),
        filter(({ solved }) => solved !== null),
        switchMap(({ futures }) =>
          this.planner.odds(futures).pipe(
            catchError((error: unknown) => {
              this.fault.set(error instanceof Error ? error.message : String(error));
              return EMPTY;
            }),
          ),
        ),
      )
      .subscribe((told) => this.take(told));
    // The first odds are kept once the bench is in use, whichever of the two comes last.
    const keeping = toObservable(
      computed(() => {
        // Of the muster in hand alone: its log is the one that is written to.
        const given = (solved() && this.told()?.given) ?? [];
        const log = this.logbook.entries();
        return given.length > 0 && !this.logbook.isRehearsal() && hasHistory(log) ? unheard(given, log) : [];
      }),
    )
      .pipe(
        filter((units) => units.length > 0),
        // The log tells of itself when it can't be written.
        exhaustMap((units) =>
          this.logbook.add({ kind: 'forecast', units: units.slice(0, MOST_KEPT) }).catch(() => undefined),
        ),
      )
      .subscribe();
    inject(DestroyRef).onDestroy(() => {
      playing.unsubscribe();
      keeping.unsubscribe();
    });
  }

  /** Somebody wants all of it; the returned function says that they no longer do. */
  ask(): () => void {
    this.askers.update((n) => n + 1);
    return () => this.askers.update((n) => n - 1);
  }

  private take(told: Told): void {
    const known = this.told();
    // Few futures anew say less than the many before.
    if (known && known.forecast.futures > told.forecast.futures) return;
    this.told.set(told.given.length > 0 ? told : { ...told, given: known?.given ?? [] });
  }
}

/** Units that were never given odds for this date of theirs. */
function unheard(given: Told['given'], log: readonly LogEntry[]): Told['given'] {
  const known = new Set(
    standing(log).flatMap((e) => (e.kind === 'forecast' ? e.units.map((u) => `${u.unit} ${u.due}`) : [])),
  );
  return given.filter((u) => !known.has(`${u.unit} ${u.due}`));
}
