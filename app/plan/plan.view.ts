import {
  ChangeDetectionStrategy,
  Component,
  computed,
  afterRenderEffect,
  DestroyRef,
  effect,
  type ElementRef,
  inject,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { CdkDropListGroup } from '@angular/cdk/drag-drop';
import { ActivatedRoute, RouterLink } from '@angular/router';
import { dequal } from 'dequal';
import { catchError, of, switchMap } from 'rxjs';
import { dateTimeAfter, instantOf, minutesUntil, withoutPins, withPins } from '#core/muster';
import {
  barePlan,
  clockTime,
  datesProved,
  dayName,
  duration,
  mayBeLessLate,
  moment,
  operationId,
  pinned,
  planFix,
  runsOf,
  type PlanFinding,
  type PlanStep,
  type PlanUnit,
} from '#core/plan';
import { Concerns } from '../data/concerns';
import { NEW_ID, NOW } from '../data/environment';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { Forecasts } from '../data/forecasts';
import { Planner } from '../data/planner';
import { download, fileName } from '../ui/download';
import { Findings } from '../ui/findings';
import { Patterns } from '../ui/patterns';
import { pngOf } from '../ui/png';
import { many } from '../ui/words';
import { StepCard } from './stepCard';
import { planPicture, type Palette } from './planPicture';
import { PlanRow, type Span } from './planRow';
import { followed, widening, type Shown } from './follow';
import { GoneByNote } from './goneByNote';
import { LampHead } from './lampHead';
import { gateOf, rowsOf, type Body, type Row } from './rows';
import { timeAxis, type TimeAxis } from './timeAxis';
import { oddsWords } from '#core/odds';
import { fanOf } from './fan';
import { overrunOf } from './overrun';
import { OddsPanel } from './oddsPanel';
import { WaysOutPanel } from './waysOutPanel';
import { WordHelp } from '../ui/word';
import { Button } from '../ui/button';
import { framesLater } from '../ui/framesLater';

/** What is drawn reaches so far beyond what is seen, and moves on in steps as large: in between nothing is drawn anew. */
const REACH = 256;
/** … and up and down, where a row costs as much as a whole width. */
const REACH_DOWN = 128;
/** Names of the units stand to the left of the time axis, in so many pixels; fewer on a phone. */
const NAMES = { wide: 200, narrow: 118 };
const NARROW = 640;
const ZOOMS = [0.5, 0.8, 1.15, 1.7, 2.6];

@Component({
  selector: 'pm-plan-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    Button,
    WordHelp,
    CdkDropListGroup,
    LampHead,
    RouterLink,
    Findings,
    GoneByNote,
    Patterns,
    PlanRow,
    StepCard,
    OddsPanel,
    WaysOutPanel,
  ],
  templateUrl: './plan.view.html',
})
export class PlanView {
  protected readonly store = inject(MusterStore);
  protected readonly planner = inject(Planner);
  protected readonly concerns = inject(Concerns);
  private readonly forecasts = inject(Forecasts);
  protected readonly words = many;
  private readonly now = inject(NOW);
  private readonly notices = inject(Notices);
  private readonly newId = inject(NEW_ID);
  private readonly scroller = viewChild<ElementRef<HTMLElement>>('scroller');

  protected readonly zoom = signal(2);
  protected readonly opened = signal<ReadonlySet<string>>(new Set());
  protected readonly selectedId = signal<string | null>(null);

  protected readonly plan = this.planner.plan;
  /** The head of the view has a frame of its own; the plan below it comes with the next. */
  private readonly hasFrame = signal(false);
  /** What is drawn: the plan, and until there is one its sessions and dates. */
  protected readonly outline = computed(() => {
    if (!this.hasFrame()) return null;
    const plan = this.plan();
    const muster = this.store.muster();
    const isComing = ['planning', 'waiting'].includes(this.planner.state());
    return plan ?? (isComing && muster && muster.units.length > 0 ? barePlan(muster) : null);
  });
  /** From where its minutes count: every plan of a muster counts from the same, and what is drawn need not be drawn anew. */
  protected readonly origin = computed(() => this.outline()?.origin ?? null, { equal: dequal });
  protected readonly axis = computed(() => {
    const plan = this.outline();
    return plan && timeAxis(plan.sessions, ZOOMS[this.zoom()]!);
  });
  protected readonly rows = computed(() => {
    const plan = this.outline();
    const axis = this.axis();
    return plan && axis ? rowsOf(plan, axis, this.opened()) : [];
  });
  protected readonly height = computed(() => this.rows().reduce((sum, r) => sum + r.height, 0));
  /** What of the plan is seen, in steps of `REACH`. */
  private readonly window = signal({ left: 0, top: 0, width: 1280, height: 800 });
  private readonly boxWidth = signal(1280);
  protected readonly names = computed(() => (this.boxWidth() < NARROW ? NAMES.narrow : NAMES.wide));
  protected readonly span = computed(() => {
    const { left, width } = this.window();
    return { from: left - REACH - this.names(), to: left + width + REACH };
  });
  /** The rows, lamps and pleats that are seen, or nearly. */
  protected readonly drawn = computed(() => {
    const { top, height } = this.window();
    return this.rows().filter((r) => r.y + r.height >= top - REACH_DOWN && r.y <= top + height + REACH_DOWN);
  });
  /** What each row shows now: it follows `drawn`, so much a frame. */
  protected readonly shown = signal<Shown>(new Map());
  private turn = 0;
  /** how far the heads of the sessions are drawn, and on which axis */
  private readonly headed = signal<{ readonly axis: TimeAxis | null; readonly span: Span }>({
    axis: null,
    span: { from: 0, to: 0 },
  });
  protected readonly heads = computed(() => {
    const { axis, span } = this.headed();
    return axis ? within(axis.lamps, span) : [];
  });
  protected readonly lamps = computed(() => within(this.axis()?.lamps ?? [], this.span()));
  protected readonly pleats = computed(() => within(this.axis()?.pleats ?? [], this.span()));
  /** Steps by time: the order in which the arrow keys walk. */
  private readonly ordered = computed(() => [...(this.plan()?.steps.values() ?? [])].sort(byTime));
  private readonly first = computed(() => {
    let first: PlanStep | null = null;
    for (const s of this.plan()?.steps.values() ?? []) if (first === null || byTime(s, first) < 0) first = s;
    return first;
  });
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
  /** The cure of what the hours of the plan bring; the plan is then made again. */
  protected cure(finding: PlanFinding): void {
    const fix = planFix(this.store.muster()!, finding);
    if (fix) this.store.change(fix.label, fix.apply);
  }
  protected readonly watch = computed(() => {
    const id = this.selectedId();
    return this.planner.cautions().filter((f) => f.step === id);
  });
  /** what the checks say of its layer */
  protected readonly stepFindings = computed(() => {
    const step = this.selected();
    return step ? this.concerns.ofLayer(step.recipe.id, step.layer.id) : [];
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
    const steps = this.plan()?.steps.size;
    const text = `${pieces} ${pieces === 1 ? 'piece' : 'pieces'}`;
    return steps === undefined ? text : `${text} · ${steps} steps`;
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
    const solved = this.planner.solved();
    const least = solved?.least;
    if (!least) return null;
    const dates = datesProved(solved.solution.cost?.tardiness ?? 0, least.tardiness);
    const over = `${dates ? `${dates} · ` : ''}${duration(plan.setupMinutes)} of changing over, and no plan needs less than ${duration(least.setup)}`;
    if (plan.runs === 0) return over;
    // Of several people who may do everything nobody's runs can be told beforehand.
    return `${over} · ${plan.runs} runs${least.runs > 0 ? `, and no plan has fewer than ${least.runs}` : ''}`;
  });
  /** What a longer search could save at the most, by what is proved. */
  protected readonly hope = computed(() => {
    const plan = this.plan();
    const solved = this.planner.solved();
    const least = solved?.least;
    if (!plan || !least || plan.isOptimal) return null;
    const minutes = plan.setupMinutes - least.setup;
    const runs = plan.runs - least.runs;
    const parts = [
      ...(plan.runs > 0 && runs > 0 && least.runs > 0 ? [`${runs} ${runs === 1 ? 'run' : 'runs'}`] : []),
      ...(minutes > 0 ? [`${duration(minutes)} of changing over`] : []),
    ];
    const saved = parts.length === 0 ? null : `save at most ${parts.join(' and ')}`;
    if (mayBeLessLate(solved.solution.cost?.tardiness ?? 0, least.tardiness))
      return `it could still be less late${saved ? `, and ${saved}` : ''}`;
    return saved && `it could ${saved}`;
  });
  protected readonly naive = computed(() => {
    const late = this.planner.naiveLateMinutes();
    return late === null ? null : late > 0 ? `${duration(late)} late` : 'on time too';
  });

  protected readonly dayName = dayName;
  protected readonly clockTime = clockTime;
  protected readonly duration = duration;
  /** The run that the chosen step is of. */
  protected readonly selectedRun = computed((): readonly PlanStep[] => {
    const step = this.selected();
    const session = step && this.plan()?.sessions.find((s) => s.start <= step.start && step.start < s.end);
    return (session && runsOf(session.steps).find((run) => run.includes(step!))) ?? (step ? [step] : []);
  });
  protected readonly isKept = computed(() => {
    const pins = new Set(
      (this.store.muster()?.pins ?? []).map((p) => operationId({ id: p.piece }, { id: p.layer }, p.round)),
    );
    return ({ steps }: Body): boolean => pins.size > 0 && steps.some((s) => pins.has(s.id));
  });
  /** What the last change has moved to another session, by unit. */
  protected readonly movedByUnit = computed(() => {
    const plan = this.plan();
    const moved = this.planner.moved() ?? [];
    const units = new Map<string, { name: string; steps: { id: string; text: string }[] }>();
    for (const id of moved) {
      const step = plan?.steps.get(id);
      if (!plan || !step) continue;
      const unit = units.get(step.unit.id) ?? { name: step.unit.name, steps: [] };
      units.set(step.unit.id, unit);
      unit.steps.push({
        id,
        text: `${step.layer.name}, ${step.piece.name}: ${moment(plan.origin, step.start)}`,
      });
    }
    return [...units.values()];
  });
  protected readonly showsMoved = signal(false);
  protected readonly showsOdds = signal(false);

  /** how likely every date holds, in words */
  protected readonly odds = computed(() => {
    const told = this.plan() && this.forecasts.told();
    return told ? oddsWords(told.forecast.all) : null;
  });
  /** odds that come are drawn in turn, first beside the name, then at the sessions, then in the rows; odds that go, at once */
  private readonly toldNext = framesLater(this.forecasts.told, 1);
  private readonly toldLast = framesLater(this.forecasts.told, 2);
  /** how often each session overruns, by its start */
  protected readonly overruns = computed(() => {
    const told = this.plan() && this.forecasts.told() && this.toldNext();
    const sessions = this.plan()?.sessions ?? [];
    return new Map(told ? sessions.map((s) => [s.start, overrunOf(told.forecast, s)] as const) : []);
  });
  /** the spread of each unit’s day, by unit */
  protected readonly fans = computed(() => {
    const plan = this.plan();
    const axis = this.axis();
    const told = this.forecasts.told() && this.toldLast();
    if (!plan || !axis || !told) return new Map<string, ReturnType<typeof fanOf>>();
    const spread = new Map(told.forecast.units.map((u) => [u.id, u.readyBy]));
    return new Map(
      plan.units.flatMap((u) => {
        const readyBy = spread.get(u.id);
        return readyBy ? [[u.id, fanOf(u, readyBy, axis, plan.origin)] as const] : [];
      }),
    );
  });

  protected readonly HEAD = HEAD;
  /** How long the bench is shut, short enough for a pleat. */
  protected readonly away = (minutes: number): string =>
    minutes < 2880 ? `${Math.round(minutes / 60)} h` : `${Math.round(minutes / 1440)} d`;

  constructor() {
    requestAnimationFrame(() => this.hasFrame.set(true));
    effect(() => {
      const rows = this.drawn();
      const axis = this.axis();
      const span = this.span();
      if (axis) untracked(() => void this.follow(rows, axis, span));
    });
    // A link may name a step.
    const named = inject(ActivatedRoute).snapshot.queryParamMap.get('step');
    if (named) this.selectedId.set(named);
    const look = (): void => this.look();
    let watcher: ResizeObserver | null = null;
    afterRenderEffect(() => {
      const box = this.scroller()?.nativeElement;
      watcher?.disconnect();
      if (!box) return;
      box.addEventListener('scroll', look, { passive: true });
      watcher = new ResizeObserver(look);
      watcher.observe(box);
    });
    inject(DestroyRef).onDestroy(() => watcher?.disconnect());
    // The selected step is brought into view when it is chosen by key or link.
    effect(() => {
      const step = this.selected();
      const axis = this.axis();
      const box = this.scroller()?.nativeElement;
      if (!step || !axis || !box) return;
      const x = axis.xOf(step.start);
      if (x < box.scrollLeft || x > box.scrollLeft + box.clientWidth - this.names() - 60)
        box.scrollLeft = Math.max(0, x - 60);
      const row =
        this.rows().find((r) => r.piece?.id === step.piece.id) ??
        this.rows().find((r) => r.unit.id === step.unit.id);
      // The card opens with the choice and takes room, so the row is placed after it is drawn.
      if (row) setTimeout(() => keepInSight(box, row.y, row.height));
    });
  }

  private async follow(rows: readonly Row[], axis: TimeAxis, span: Span): Promise<void> {
    const turn = ++this.turn;
    const frame = (): Promise<unknown> => new Promise((resolve) => requestAnimationFrame(resolve));
    for (const part of this.headed().axis === axis ? [span] : widening(span)) {
      await frame();
      if (turn !== this.turn) return;
      this.headed.set({ axis, span: part });
    }
    for (const shown of followed(this.shown(), rows, axis, span)) {
      await frame();
      if (turn !== this.turn) return;
      this.shown.set(shown);
    }
  }

  /** Takes note of what is seen. */
  private look(): void {
    const box = this.scroller()?.nativeElement;
    if (!box) return;
    this.boxWidth.set(box.clientWidth);
    const step = (pixels: number, reach: number): number => Math.floor(pixels / reach) * reach;
    const next = {
      left: step(box.scrollLeft, REACH),
      top: step(box.scrollTop, REACH_DOWN),
      width: step(box.clientWidth, REACH) + REACH,
      height: step(box.clientHeight, REACH_DOWN) + REACH_DOWN,
    };
    const now = this.window();
    if (JSON.stringify(next) !== JSON.stringify(now)) this.window.set(next);
  }

  protected due(unit: PlanUnit): string {
    return moment(this.outline()!.origin, unit.due);
  }

  protected spare(unit: PlanUnit): string {
    if (!this.plan()) return 'being planned';
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
  protected readonly tabStop = computed(() => this.selected() ?? this.first());

  /** Carries the chosen run to the session before or after, or to the one with this start. */
  protected carry(to: 1 | -1 | { readonly start: number }): void {
    const plan = this.plan();
    const run = this.selectedRun();
    const [first] = run;
    if (!plan || !first) return;
    const at = plan.sessions.findIndex((s) => s.start <= first.start && first.start < s.end);
    const session = typeof to === 'number' ? plan.sessions[at + to] : to;
    if (!session || session.start === plan.sessions[at]?.start) return;
    this.store.change(`“${first.layer.name}” moved to ${dayName(plan.origin, session.start)}`, (m) =>
      withPins(m, run.map(pinned), dateTimeAfter(plan.origin, session.start), 'in', this.newId),
    );
  }

  protected letAllGo(): void {
    this.store.change('All pins taken out', (m) => withoutPins(m));
  }

  /** A run was dropped on a session. */
  protected onDropped(dropped: {
    readonly step: string;
    readonly session: { readonly start: number };
  }): void {
    this.selectedId.set(dropped.step);
    this.carry(dropped.session);
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.shiftKey && (event.key === 'ArrowRight' || event.key === 'ArrowLeft')) {
      event.preventDefault();
      return this.carry(event.key === 'ArrowRight' ? 1 : -1);
    }
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
    // Once it is scrolled to it is drawn, and only then can it take the focus.
    requestAnimationFrame(() =>
      setTimeout(() => (document.querySelector('[data-step].is-selected') as HTMLElement | null)?.focus()),
    );
  }

  protected zoomBy(steps: number): void {
    this.zoom.update((z) => Math.max(0, Math.min(ZOOMS.length - 1, z + steps)));
  }

  // What writes files is fetched with the first one.
  protected async saveCalendar(): Promise<void> {
    const plan = this.plan();
    const name = this.store.muster()?.name;
    if (!plan || !name) return;
    const { writeCalendar } = await import('#core/exchange');
    download(`${fileName(name)}.ics`, 'text/calendar', writeCalendar(plan, name, this.now()));
  }

  protected async savePicture(): Promise<void> {
    const plan = this.plan();
    const name = this.store.muster()?.name;
    if (!plan || !name) return;
    const style = getComputedStyle(document.documentElement);
    const colours = Object.fromEntries(
      PALETTE.map((role) => [role, style.getPropertyValue(`--${role}`).trim()]),
    ) as Palette;
    const odds = this.forecasts.told()?.forecast.units;
    const { svg, width, height } = planPicture(plan, name, colours, odds);
    try {
      download(`${fileName(name)}.png`, 'image/png', await pngOf(svg, width, height));
    } catch (error) {
      this.notices.tell(error instanceof Error ? error.message : String(error));
    }
  }

  protected async saveCsv(): Promise<void> {
    const plan = this.plan();
    const name = this.store.muster()?.name;
    if (!plan || !name) return;
    const { writePlanCsv } = await import('#core/exchange');
    download(`${fileName(name)}.csv`, 'text/csv', writePlanCsv(plan));
  }
}

const byTime = (a: PlanStep, b: PlanStep): number => a.start - b.start || a.end - b.end;

function within<T extends { readonly x: number; readonly width: number }>(
  list: readonly T[],
  { from, to }: Span,
): T[] {
  return list.filter((item) => item.x + item.width >= from && item.x <= to);
}

/** Roles of the theme that the picture is drawn in. */
const PALETTE = ['ground', 'board', 'glow', 'pleat', 'line', 'ink', 'mute', 'lamp', 'open', 'shut'] as const;

/** Head of the lamps above the rows, in pixels. */
const HEAD = 112;

function keepInSight(box: HTMLElement, y: number, height: number): void {
  if (y < box.scrollTop) box.scrollTop = y;
  else if (y + height + HEAD > box.scrollTop + box.clientHeight)
    box.scrollTop = y + height + HEAD - box.clientHeight;
}
