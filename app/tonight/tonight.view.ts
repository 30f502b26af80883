import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  Injector,
  type Signal,
  signal,
  viewChild,
} from '@angular/core';
import { oddsWords } from '#core/odds';
import { RouterLink } from '@angular/router';
import { DEFER, dropsOf, familyOf, sprayWords } from '#core/materials';
import { estimateWords, minutesUntil } from '#core/muster';
import { clockTime, deedWords, duration, handsOnMinutes, listed, moment, type PlanStep } from '#core/plan';
import { nextTimeNotes, pictureDue } from '#core/session';
import { allotments, allottedWords } from '#core/stores';
import { markOf } from '#core/variety';
import { BenchClock, type Speed } from '../data/benchClock';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Forecasts } from '../data/forecasts';
import { Planner } from '../data/planner';
import { GoneByNote } from '../plan/goneByNote';
import { WaysOutPanel } from '../plan/waysOutPanel';
import { Button } from '../ui/button';
import { FileButton } from '../ui/fileButton';
import { framesLater } from '../ui/framesLater';
import { Patterns } from '../ui/patterns';
import { many } from '../ui/words';
import { BenchAlarms } from './benchAlarms';
import { CupInHand } from './cupInHand';
import { DecalClock } from './decalClock';
import { Evening } from './evening';
import { EveningStrip } from './eveningStrip';
import { FarView } from './farView';
import { MorePanel } from './morePanel';
import { Rehearsing } from './rehearsing';
import { RunInHand } from './runInHand';
import { ShelfList } from './shelfList';
import { TroublePanel } from './troublePanel';
import { WhereItGoes } from './whereItGoes';

/** The session at the bench: one run at a time, one large press for it, and the shelf beside it. */
@Component({
  selector: 'pm-tonight-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    Button,
    DecalClock,
    EveningStrip,
    FarView,
    FileButton,
    GoneByNote,
    MorePanel,
    Patterns,
    RouterLink,
    ShelfList,
    TroublePanel,
    WaysOutPanel,
    WhereItGoes,
  ],
  providers: [RunInHand, CupInHand, Evening, Rehearsing],
  templateUrl: './tonight.view.html',
  host: { '(document:keydown)': 'onKey($event)' },
})
export class TonightView {
  protected readonly store = inject(MusterStore);
  protected readonly planner = inject(Planner);
  protected readonly logbook = inject(Logbook);
  protected readonly clock = inject(BenchClock);
  protected readonly evening = inject(Evening);
  protected readonly cup = inject(CupInHand);
  protected readonly rehearsing = inject(Rehearsing);
  protected readonly alarms = inject(BenchAlarms);

  private readonly forecasts = inject(Forecasts);
  /** how likely every date holds, in words; the first odds of each unit are kept in the log */
  protected readonly odds = computed(() => {
    const told = this.forecasts.told();
    return told && oddsWords(told.forecast.all);
  });

  protected readonly clockTime = clockTime;
  protected readonly moment = moment;
  protected readonly many = many;
  protected readonly defer = DEFER;
  protected readonly far = signal(false);
  /** what lies open under the run in hand */
  protected readonly panel = signal<'trouble' | 'more' | null>(null);
  private readonly opened = viewChild<ElementRef<HTMLElement>>('opened');
  private readonly injector = inject(Injector);
  protected readonly run = this.evening.run;

  private readonly hasPlan = computed(() => this.planner.plan() !== null);
  /** A plan that comes is drawn in turn: the clock and its strip first, then the run in hand, how it is done, and what stands beside it. */
  protected readonly drawsRun = this.inTurn(1);
  protected readonly drawsHow = this.inTurn(2);
  protected readonly drawsAside = this.inTurn(3);

  protected readonly words = computed(() => {
    const step = this.evening.step();
    const facts = this.evening.facts();
    const plan = this.evening.plan();
    if (!step || !facts || !plan) return null;
    const begun = this.evening.begun();
    const [fewest, most] = facts.coats;
    const wet = this.evening.shelf().filter((r) => r.state !== 'dry').length;
    const n = this.run().length;
    return {
      title: deedWords(facts.layer, facts.name),
      who: facts.who,
      under: [
        listed(facts.units),
        facts.zones.join(', '),
        fewest === most ? many(most, 'coat') : `${fewest} to ${most} coats`,
        n > 1 ? `${many(n, 'piece')}, in the order they dry` : null,
        step.rounds > 1 ? `round ${step.round} of ${step.rounds}` : null,
        facts.tool,
        step.start > this.evening.minute() ? `from ${moment(plan.origin, step.start)}` : null,
      ]
        .filter((part) => part)
        .join(' · '),
      cups: facts.mix?.isByCup ? many(facts.mix.cups, 'cup') : null,
      spray: facts.spray && sprayWords(facts.spray),
      strengths: facts.strengths.charAt(0).toUpperCase() + facts.strengths.slice(1),
      wantsPlace: step.layer.task !== 'decal' && this.run().some((s) => markOf(s.layer) !== null),
      isDecal: step.layer.task === 'decal',
      markings: this.markings(),
      notes: facts.notes,
      nextTime: nextTimeNotes(this.logbook.entries(), step.layer).slice(0, MOST_NOTES),
      timed:
        begun?.step === step.id
          ? `timed since ${clockTime(plan.origin, minutesUntil(plan.origin, begun.at))}`
          : null,
      estimates: `Hands ${duration(this.run().reduce((sum, r) => sum + handsOnMinutes(plan, r), 0))}, ${estimateWords(step.layer.minutesFrom)}${
        step.layer.dryMinutes > 0
          ? `; drying ${duration(step.tide.dryAt - step.end)} in this air, ${estimateWords(step.layer.dryFrom)}`
          : ''
      }`,
      picture: pictureDue(this.run()),
      look: LOOK[familyOf(step.layer.family).drying],
      judge: facts.judge,
      takenBack: facts.takenBack,
      applicators: listed(facts.applicators),
      cautions: facts.cautions,
      lookOver: facts.lookOver,
      contaminates:
        step.layer.air === 'contaminates' && wet > 0
          ? `Throws dust or drops: ${wet === 1 ? '1 wet coat stands' : `${wet} wet coats stand`} on the shelf. Cover them or carry them away.`
          : null,
    };
  });
  /** Which piece of the run gets which marking, and where. */
  private readonly markings = computed((): readonly { piece: string; text: string }[] => {
    const muster = this.store.muster();
    if (!muster || this.evening.step()?.layer.task !== 'decal') return [];
    const units = muster.units.filter((u) => this.run().some((s) => s.unit.id === u.id));
    const own = new Set(this.run().map((s) => s.piece.id));
    return units
      .flatMap((u) => allotments(muster, u, this.evening.plan() ?? null, this.logbook.entries()))
      .flatMap((a) =>
        a.pieces
          .filter((p) => own.has(p.piece.id))
          .map((p) => ({ piece: p.piece.name, text: `${a.marking.name}: ${allottedWords(p)}` })),
      );
  });
  /** What goes into the cup, in words. */
  protected readonly mix = computed(() => {
    const cup = this.cup.cup();
    const jar = this.cup.jar();
    if (!cup) return null;
    return {
      parts: cup.parts
        .filter((p) => p.ml > 0)
        .map((p) => ({
          name: p.name,
          ml: p.ml < 0.1 ? p.ml.toFixed(2) : p.ml.toFixed(1),
          drops: many(Math.max(1, dropsOf(p.ml)), 'drop'),
        })),
      fromJar: cup.fromJar?.ml ?? null,
      jar: jar && {
        text: `${jar.leftMl.toFixed(1)} ml of “${jar.mixture}”${jar.until ? `, good until ${jar.until.slice(0, 10)}` : ''}`,
      },
    };
  });
  protected readonly next = computed(() => {
    const plan = this.evening.plan();
    return (this.evening.agenda()?.next ?? []).map((run) => ({
      key: run[0]!.id,
      text: deedWords(run[0]!.layer, run[0]!.layer.name),
      pieces: run.length === 1 ? run[0]!.piece.name : many(run.length, 'piece'),
      at: plan ? moment(plan.origin, run[0]!.start) : '',
    }));
  });
  /** Windows that would shut while nobody is at the bench: told before they are begun. */
  protected readonly away = computed(() => {
    const step = this.evening.step();
    const s = this.evening.session();
    const plan = this.evening.plan();
    const closes = step?.gate?.closes ?? null;
    if (!step?.gate || !s?.current || closes === null || !plan) return null;
    const next = step.gate.steps.map((id) => plan.steps.get(id)).find((x) => x !== undefined);
    return next && next.start >= s.current.end
      ? `Begun now, its window shuts at ${clockTime(plan.origin, closes)} while the bench is shut. Leave it for the next session.`
      : null;
  });
  protected readonly runNumber = computed(() => {
    const s = this.evening.strip();
    return s ? Math.min(s.runs.length, s.done + 1) : 0;
  });
  /** the session after whose last run somebody goes on all the same */
  protected readonly goesOn = signal<number | null>(null);
  /** What there was to do tonight is done: the session, and when the next one begins. */
  protected readonly goodNight = computed(() => {
    const s = this.evening.session();
    const strip = this.evening.strip();
    const step = this.evening.step();
    if (!s?.current || !strip || !step || strip.runs.length === 0 || strip.done < strip.runs.length)
      return null;
    if (step.start < s.current.end || this.goesOn() === s.current.index) return null;
    return {
      session: s.current.index,
      runs: many(strip.runs.length, 'run'),
      next: `${moment(s.origin, step.start)}: ${deedWords(step.layer, step.layer.name)}`,
    };
  });
  protected readonly doneWord = computed(() => {
    const ticked = this.run().filter((s) => this.evening.ticked().has(s.id)).length;
    const all = this.run().length;
    return ticked > 0 ? `Done: ${ticked} of ${all}` : all > 1 ? `Done: all ${all}` : 'Done';
  });
  /** Units that the plan brings too late, the worst first, in words. */
  protected readonly inDanger = computed(() =>
    [...(this.planner.plan()?.units ?? [])]
      .filter((u) => u.lateMinutes > 0)
      .sort((a, b) => b.lateMinutes - a.lateMinutes)
      .map((u) => `${u.name}, ${duration(u.lateMinutes)} late`),
  );
  /** What the last change at the bench has moved: the steps that are in another session now. */
  protected readonly movedWords = computed(() => {
    const n = this.planner.moved()?.length;
    if (n === undefined) return null;
    return n === 0
      ? 'planned again, no step changed its session'
      : `planned again, ${many(n, 'step')} changed session`;
  });

  /** One key each; never while something is typed. A pedal or a presenter sends page keys. */
  protected onKey(event: KeyboardEvent): void {
    const target = event.target as HTMLElement | null;
    if (target && /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName)) return;
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const deed = this.deedOf(event.key.toLowerCase());
    if (!deed) return;
    event.preventDefault();
    void deed();
  }

  private inTurn(turn: number): Signal<boolean> {
    const had = framesLater(this.hasPlan, turn);
    return computed(() => !this.hasPlan() || had());
  }

  private deedOf(key: string): (() => unknown) | null {
    switch (key) {
      case 'd':
        return () => this.evening.done();
      case 'pagedown':
        return () => this.evening.nextPiece();
      case 'n':
      case 'pageup':
        return () => this.evening.notDry(10);
      case 'b':
        return () => this.evening.begin();
      case 't':
        return () => this.toggle('trouble');
      case 'm':
        return () => this.toggle('more');
      case 'f':
        return () => this.far.set(!this.far());
      case 'escape':
        return this.far() || this.panel() ? () => (this.far.set(false), this.close()) : null;
      default:
        return null;
    }
  }

  protected nextSpeed(speed: Speed): void {
    this.clock.setSpeed(SPEEDS[(SPEEDS.indexOf(speed) + 1) % SPEEDS.length]!);
  }

  protected toggle(panel: 'trouble' | 'more'): void {
    if (this.panel() === panel) return this.close();
    this.evening.troubled.set(null);
    this.open(panel);
  }

  /** Trouble about coats on the shelf. */
  protected mendCoats(steps: readonly PlanStep[]): void {
    this.evening.troubled.set(steps);
    this.open('trouble');
  }

  protected close(): void {
    this.panel.set(null);
    this.evening.troubled.set(null);
  }

  private open(panel: 'trouble' | 'more'): void {
    this.panel.set(panel);
    afterNextRender(() => this.opened()?.nativeElement.scrollIntoView({ block: 'nearest' }), {
      injector: this.injector,
    });
  }
}

/** More than so many nobody reads at the bench. */
const MOST_NOTES = 3;
const SPEEDS: readonly Speed[] = [1, 20, 200];

const LOOK = {
  water: 'Wet gloss turns to satin, then dull; no cool feel at the lip. No pools.',
  solvent: 'Gloss turns to satin before it is worked; a swab on a hidden spot tells.',
  oxidation: 'Tacky for hours; a hidden spot tells.',
  none: 'Hold it by the handle; touch nothing that is not dry.',
} as const;
