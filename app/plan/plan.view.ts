import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { catchError, of, switchMap } from 'rxjs';
import { instantOf, minutesUntil } from '#core/muster';
import {
  clockTime,
  dayName,
  duration,
  moment,
  runsOf,
  swapsOf,
  type PlanStep,
  type PlanUnit,
} from '#core/plan';
import { writeCalendar, writePlanCsv } from '#core/exchange';
import { NOW } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { Planner } from '../data/planner';
import { download, fileName } from '../ui/download';
import { Findings } from '../ui/findings';
import { Patterns } from '../ui/patterns';
import { StepCard } from './stepCard';
import { PlanRow } from './planRow';
import { gateOf, rowsOf, type Row } from './rows';
import { timeAxis } from './timeAxis';
import { WaysOutPanel } from './waysOutPanel';

/** So many blocks are added to a row in one go. */
const NEW_AT_ONCE = 24;
const ZOOMS = [0.5, 0.8, 1.15, 1.7, 2.6];

@Component({
  selector: 'pm-plan-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, Findings, Patterns, PlanRow, StepCard, WaysOutPanel],
  templateUrl: './plan.view.html',
})
export class PlanView {
  protected readonly store = inject(MusterStore);
  protected readonly planner = inject(Planner);
  private readonly now = inject(NOW);
  private readonly scroller = viewChild<ElementRef<HTMLElement>>('scroller');

  protected readonly zoom = signal(2);
  protected readonly opened = signal<ReadonlySet<string>>(new Set());
  protected readonly selectedId = signal<string | null>(null);

  protected readonly plan = this.planner.plan;
  protected readonly axis = computed(() => {
    const plan = this.plan();
    return plan && timeAxis(plan.sessions, ZOOMS[this.zoom()]!);
  });
  protected readonly rows = computed(() => {
    const plan = this.plan();
    const axis = this.axis();
    return plan && axis ? rowsOf(plan, axis, this.opened()) : [];
  });
  /** What is drawn: every row has its place at once, and its blocks one row after the other, so that the page never stands still. */
  protected readonly drawn = signal<readonly Row[]>([]);
  private turn = 0;
  protected readonly height = computed(() => this.rows().reduce((sum, r) => sum + r.height, 0));
  /** Steps by time: the order in which the arrow keys walk. */
  private readonly ordered = computed(() =>
    [...(this.plan()?.steps.values() ?? [])].sort((a, b) => a.start - b.start || a.end - b.end),
  );
  protected readonly selected = computed<PlanStep | null>(() => {
    const id = this.selectedId();
    return (id !== null && this.plan()?.steps.get(id)) || null;
  });
  /** The answer of the planning desk for the chosen step; null until it comes. */
  private readonly answer = toSignal(
    toObservable(computed(() => ({ plan: this.plan(), id: this.selected()?.id ?? null }))).pipe(
      switchMap(async ({ id }) => ({
        id,
        why: id === null ? null : await this.planner.why(id).catch(() => null),
      })),
    ),
  );
  protected readonly why = computed(() => {
    const answer = this.answer();
    return answer && answer.id === this.selectedId() ? answer.why : null;
  });
  protected readonly watch = computed(() => {
    const id = this.selectedId();
    return this.planner.cautions().filter((f) => f.step === id);
  });
  protected readonly showsLate = signal(false);
  /** Why each late unit is late, as the planning desk finds it out. */
  protected readonly lateChains = toSignal(
    toObservable(
      computed(() => (this.showsLate() && this.verdict()?.ok === false ? this.plan() : null)),
    ).pipe(
      switchMap((plan) =>
        plan === null
          ? of(null)
          : this.planner
              .lateBecause()
              .pipe(catchError((error: Error) => of({ share: 1, chains: [], fault: error.message }))),
      ),
    ),
    { initialValue: null },
  );
  protected readonly lateFault = computed(() => {
    const late = this.lateChains();
    return late && 'fault' in late ? late.fault : null;
  });
  protected readonly selectedGate = computed(() => {
    const step = this.selected();
    const axis = this.axis();
    return step && axis ? gateOf(step, axis) : null;
  });
  /** Where the present moment stands, if the plan covers it. */
  protected readonly nowX = computed(() => {
    const plan = this.plan();
    const axis = this.axis();
    if (!plan || !axis || plan.sessions.length === 0) return null;
    const minute = minutesUntil(plan.origin, instantOf(this.now()));
    const inside =
      minute >= plan.sessions[0]!.start && minute <= plan.sessions[plan.sessions.length - 1]!.end;
    return inside ? { x: axis.xOf(minute), text: `now ${clockTime(plan.origin, minute)}` } : null;
  });

  protected readonly counts = computed(() => {
    const muster = this.store.muster();
    const pieces = muster?.units.reduce((sum, u) => sum + u.pieces.length, 0) ?? 0;
    return `${pieces} ${pieces === 1 ? 'piece' : 'pieces'} · ${this.plan()?.steps.size ?? 0} steps`;
  });
  protected readonly verdict = computed(() => {
    const plan = this.plan();
    if (!plan) return null;
    const late = plan.units.filter((u) => u.lateMinutes > 0);
    if (late.length === 0)
      return {
        ok: true,
        text: plan.units.length === 1 ? 'on time' : `all ${plan.units.length} units on time`,
      };
    const worst = late.reduce((a, b) => (a.lateMinutes > b.lateMinutes ? a : b));
    return {
      ok: false,
      text: `${late.length} of ${plan.units.length} units late, ${worst.name} by ${duration(worst.lateMinutes)}`,
    };
  });
  protected readonly proof = computed(() => {
    const plan = this.plan();
    if (!plan) return null;
    if (plan.isOptimal) return 'proved the best possible';
    const least = this.planner.solved()?.least;
    if (!least) return null;
    const over = `${duration(plan.setupMinutes)} of changing over, and no plan needs less than ${duration(least.setup)}`;
    // Two pairs of hands take tasks up side by side: then runs are not counted.
    return plan.runs === 0 ? over : `${over} · ${plan.runs} runs, and no plan has fewer than ${least.runs}`;
  });
  /** What kind of evening each session is, by its number. */
  protected readonly evenings = computed(() =>
    (this.plan()?.sessions ?? []).map(({ steps }) => {
      const runs = runsOf(steps);
      const swaps = swapsOf(runs);
      const count = (n: number, what: string): string => `${n} ${what}${n === 1 ? '' : 's'}`;
      return steps.length === 0 ? 'free' : `${count(runs.length, 'run')}, ${count(swaps, 'swap')}`;
    }),
  );
  protected readonly naive = computed(() => {
    const late = this.planner.naiveLateMinutes();
    return late === null ? null : late > 0 ? `${duration(late)} late` : 'on time too';
  });

  protected readonly dayName = dayName;
  protected readonly clockTime = clockTime;
  protected readonly duration = duration;
  /** How long the bench is shut, short enough for a pleat. */
  protected readonly away = (minutes: number): string =>
    minutes < 2880 ? `${Math.round(minutes / 60)} h` : `${Math.round(minutes / 1440)} d`;
  protected readonly percent = (share: number): number => Math.round(share * 100);

  constructor() {
    effect(() => {
      const rows = this.rows();
      untracked(() => void this.drawInTurn(rows));
    });
    // The selected step is brought into view when it is chosen by key or link.
    effect(() => {
      const step = this.selected();
      const axis = this.axis();
      const box = this.scroller()?.nativeElement;
      if (!step || !axis || !box) return;
      const x = axis.xOf(step.start);
      if (x < box.scrollLeft || x > box.scrollLeft + box.clientWidth - 260)
        box.scrollLeft = Math.max(0, x - 120);
      const row =
        this.rows().find((r) => r.piece?.id === step.piece.id) ??
        this.rows().find((r) => r.unit.id === step.unit.id);
      // The card opens with the choice and takes room, so the row is placed after it is drawn.
      if (row) setTimeout(() => keepInSight(box, row.y, row.height));
    });
  }

  private async drawInTurn(rows: readonly Row[]): Promise<void> {
    const turn = ++this.turn;
    const old = new Map(this.drawn().map((r) => [r.key, r]));
    const put = async (k: number, row: Row): Promise<boolean> => {
      await new Promise((resolve) => setTimeout(resolve));
      if (turn !== this.turn) return false;
      this.drawn.update((list) => list.map((r, i) => (i === k ? row : r)));
      return true;
    };
    this.drawn.set(rows.map((r) => ({ ...r, blocks: old.get(r.key)?.blocks ?? [] })));
    for (const [k, row] of rows.entries()) {
      // Blocks that are new on the page cost more than those that move.
      const known = old.get(row.key)?.blocks.length ?? 0;
      for (let n = known + NEW_AT_ONCE; n < row.blocks.length; n += NEW_AT_ONCE)
        if (!(await put(k, { ...row, blocks: row.blocks.slice(0, n) }))) return;
      if (!(await put(k, row))) return;
    }
  }

  protected due(unit: PlanUnit): string {
    return moment(this.plan()!.origin, unit.due);
  }

  protected spare(unit: PlanUnit): string {
    if (unit.lateMinutes > 0) return `late by ${duration(unit.lateMinutes)}`;
    const n = unit.spareSessions;
    return n === 0
      ? `${duration(unit.spareMinutes)} to spare`
      : `${n} ${n === 1 ? 'session' : 'sessions'} to spare`;
  }

  protected toggle(unit: string): void {
    this.opened.update((open) => {
      const next = new Set(open);
      if (!next.delete(unit)) next.add(unit);
      return next;
    });
  }

  /** Exactly one block takes part in tabbing: the selected one, or the first. */
  protected readonly tabStop = computed(() => this.selectedId() ?? this.ordered()[0]?.id ?? null);

  protected onKey(event: KeyboardEvent): void {
    const order = this.ordered();
    const at = order.findIndex((s) => s.id === this.selectedId());
    const step = order[at];
    const sameUnit = (k: number): PlanStep | undefined => {
      for (let i = at + k; i >= 0 && i < order.length; i += k)
        if (order[i]!.unit.id === step?.unit.id) return order[i];
      return undefined;
    };
    const next =
      event.key === 'ArrowRight'
        ? order[at + 1]
        : event.key === 'ArrowLeft'
          ? order[Math.max(0, at - 1)]
          : event.key === 'ArrowDown'
            ? sameUnit(1)
            : event.key === 'ArrowUp'
              ? sameUnit(-1)
              : undefined;
    if (event.key === 'Escape') this.selectedId.set(null);
    if (!next) return;
    event.preventDefault();
    this.selectedId.set(next.id);
    setTimeout(() => (document.querySelector('[data-step].is-selected') as HTMLElement | null)?.focus());
  }

  protected zoomBy(steps: number): void {
    this.zoom.update((z) => Math.max(0, Math.min(ZOOMS.length - 1, z + steps)));
  }

  protected saveCalendar(): void {
    const plan = this.plan();
    const name = this.store.muster()?.name;
    if (plan && name)
      download(`${fileName(name)}.ics`, 'text/calendar', writeCalendar(plan, name, this.now()));
  }

  protected saveCsv(): void {
    const plan = this.plan();
    const name = this.store.muster()?.name;
    if (plan && name) download(`${fileName(name)}.csv`, 'text/csv', writePlanCsv(plan));
  }
}

/** Head of the lamps above the rows, in pixels. */
const HEAD = 76;

function keepInSight(box: HTMLElement, y: number, height: number): void {
  if (y < box.scrollTop) box.scrollTop = y;
  else if (y + height + HEAD > box.scrollTop + box.clientHeight)
    box.scrollTop = y + height + HEAD - box.clientHeight;
}
