/** The odds of the plan in hand: a first look as soon as there is a plan, the whole of them while somebody asks. */
import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { catchError, EMPTY, filter, switchMap, tap } from 'rxjs';
import { hasHistory, standing } from '#core/log';
import type { Told } from '../workers/planningDesk';
import { Logbook } from './logbook';
import { Planner } from './planner';

/** A share of one in ten is known to two in a hundred. */
const FIRST = 200;
/** … to one in a hundred; and there is time for margins, and for the latest day to begin. */
const WHOLE = 1000;

@Injectable({ providedIn: 'root' })
export class Forecasts {
  private readonly planner = inject(Planner);
  private readonly logbook = inject(Logbook);
  private readonly askers = signal(0);
  /** of the plan as it stands, as far as they are known; null while there is none */
  readonly told = signal<Told | null>(null);
  readonly fault = signal<string | null>(null);

  constructor() {
    const solved = computed(() => (this.planner.state() === 'planned' ? this.planner.solved() : null));
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
    inject(DestroyRef).onDestroy(() => playing.unsubscribe());
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
    this.told.set(told);
    if (told.given.length > 0) this.remember(told.given);
  }

  /** Once the bench is in use, the first odds of each unit are kept: afterwards one sees what came. */
  private remember(given: Told['given']): void {
    const log = this.logbook.entries();
    if (this.logbook.isRehearsal() || !hasHistory(log)) return;
    const known = new Set(
      standing(log).flatMap((e) => (e.kind === 'forecast' ? e.units.map((u) => `${u.unit} ${u.due}`) : [])),
    );
    const units = given.filter((u) => !known.has(`${u.unit} ${u.due}`));
    if (units.length > 0) void this.logbook.add({ kind: 'forecast', units });
  }
}
