/** The evening at the bench: what is in hand, what is drying, and what each press does. The views only show it. */
import { computed, inject, Injectable, signal } from '@angular/core';
import * as z from 'zod';
import { instantOf, INSTANT_PATTERN, wallTime, type Instant } from '#core/muster';
import { duration, handsOnMinutes, moment, type PlanStep } from '#core/plan';
import { aheadOfClock, endedSteps, lastAct, standing } from '#core/log';
import {
  curesFor,
  doneDeeds,
  driesLongest,
  layOut,
  leftBehind,
  passesLeft,
  pilotsBegun,
  restingCoats,
  reworkEntry,
  shelfAt,
  stripOf,
  timingOf,
  waitedFor,
  type Cure,
  type Judged,
  type PieceCure,
  type ShelfRow,
} from '#core/session';
import { BenchClock } from '../data/benchClock';
import { Database } from '../data/database';
import { Logbook, NOT_SAVED_YET, type Written } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { Planner } from '../data/planner';
import { CupInHand } from './cupInHand';
import { RunInHand } from './runInHand';
import { countedWords } from '../ui/entryWords';
import { smallPicture } from '../ui/smallPicture';
import { many } from '../ui/words';

/** As planned, to a few minutes: nothing to plan again. */
const SLIGHT = 5;
const namesSchema = z.array(z.string());
const begunSchema = z.strictObject({ step: z.string(), at: z.string().regex(INSTANT_PATTERN) });

@Injectable()
export class Evening {
  private readonly store = inject(MusterStore);
  private readonly planner = inject(Planner);
  private readonly logbook = inject(Logbook);
  private readonly clock = inject(BenchClock);
  private readonly notices = inject(Notices);
  private readonly database = inject(Database);

  private readonly inHand = inject(RunInHand);
  private readonly cup = inject(CupInHand);

  /** kept with every tap: a closed tab loses none of them */
  readonly ticked = signal<ReadonlySet<string>>(new Set());
  /** the moment at which the run in hand was begun, when someone said so */
  readonly begun = signal<{ readonly step: string; readonly at: Instant } | null>(null);
  readonly fault = signal<string | null>(null);
  readonly plan = this.inHand.plan;
  readonly minute = this.inHand.minute;
  readonly chosenHands = this.inHand.chosenHands;
  readonly doers = this.inHand.doers;
  readonly agenda = this.inHand.agenda;
  readonly run = this.inHand.run;
  readonly step = this.inHand.step;
  readonly facts = this.inHand.facts;
  readonly time = computed(() =>
    wallTime(this.store.muster()?.bench.timeZone ?? 'UTC', instantOf(this.clock.now())).slice(11),
  );
  readonly day = computed(() => {
    const plan = this.plan();
    return plan ? moment(plan.origin, this.minute()).split(',')[0]! : '';
  });
  private readonly ended = computed(() => endedSteps(this.logbook.entries()));
  readonly coats = computed(() => {
    const plan = this.plan();
    return plan ? restingCoats(plan, this.logbook.entries()) : [];
  });
  readonly shelf = computed((): readonly ShelfRow[] => {
    const plan = this.plan();
    return plan ? shelfAt(plan, this.coats(), this.minute()) : [];
  });
  /** What tonight is: under way, about to begin, or over. */
  readonly session = computed(() => {
    const plan = this.plan();
    const now = this.minute();
    if (!plan) return null;
    return {
      origin: plan.origin,
      current: plan.sessions.find((s) => s.start <= now && now < s.end) ?? null,
      next: plan.sessions.find((s) => s.start > now && s.steps.length > 0) ?? null,
    };
  });
  readonly strip = computed(() => {
    const plan = this.plan();
    const s = this.session();
    const session = s?.current ?? s?.next;
    if (!plan || !session) return null;
    const ended = this.ended();
    return stripOf(plan, session, this.coats(), (step) => ended.has(step.id), this.inHand.whose());
  });
  /** Short work that may be begun now, while hands would wait. */
  readonly fillers = computed(() =>
    (this.agenda()?.fillers ?? []).flatMap(({ step, readyAt }) => (readyAt <= this.minute() ? [step] : [])),
  );
  /** The coats that the run in hand waits for, and that nobody has found dry. */
  private readonly waited = computed(() => {
    const plan = this.plan();
    if (!plan) return [];
    const standing = new Set(this.coats().flatMap((c) => (c.isFoundDry ? [] : [c.step.id])));
    return this.chosen().flatMap((s) => {
      const below = waitedFor(plan, this.logbook.entries(), s);
      return below && standing.has(below.id) ? [below] : [];
    });
  });
  /** may the painter say “not dry” of what is in hand? */
  readonly isWaiting = computed(() => this.waited().length > 0);
  /** coats of the shelf that trouble is about; null: what is in hand */
  readonly troubled = signal<readonly PlanStep[] | null>(null);
  /** What trouble is about. */
  readonly subject = computed(() => this.troubled() ?? this.chosen());
  readonly cures = computed((): readonly PieceCure[] => {
    const step = this.subject()[0];
    const plan = this.plan();
    return step && plan ? curesFor(plan, this.logbook.entries(), step) : [];
  });
  readonly layout = computed(() => {
    const plan = this.plan();
    const s = this.session();
    const session = s?.current ?? s?.next;
    if (!session || !plan) return [];
    const groups = new Map<string, string[]>();
    for (const { group, text } of layOut(plan, session, new Set(this.ended().keys())))
      groups.set(group, [...(groups.get(group) ?? []), text]);
    return [...groups].map(([group, lines]) => ({ group, lines }));
  });
  /** What to begin with, in words. */
  readonly startFirst = computed(() => {
    const s = this.session();
    const session = s?.current ?? s?.next;
    const longest = session && driesLongest(session, new Set(this.ended().keys()));
    return longest
      ? `“${longest.step.layer.name}” on ${many(longest.pieces, 'piece')}, dry after ${duration(longest.dries)}.`
      : null;
  });
  /** What stays when everyone leaves now. */
  readonly behind = computed(() => {
    const plan = this.plan();
    if (!plan) return null;
    const behind = leftBehind(plan, this.coats(), this.minute(), this.session()?.next?.start ?? Infinity);
    return behind.untouchable.length + behind.meanwhile.length > 0 ? behind : null;
  });
  /** Entries that lie in the future: a clock that was wrong. */
  readonly ahead = computed(() => {
    const found = aheadOfClock(this.logbook.entries(), instantOf(this.clock.now()));
    return found && { ...found, words: duration(found.minutes) };
  });
  /** Pilots that have been begun: each can be judged. */
  readonly pilots = computed(() => {
    const plan = this.plan();
    return plan ? pilotsBegun(plan.steps, this.logbook.entries()) : [];
  });
  readonly hasLog = computed(() => standing(this.logbook.entries()).some((e) => e.kind !== 'forecast'));

  constructor() {
    void this.recall();
  }

  /** The ticked pieces, or all of the run. */
  chosen(): readonly PlanStep[] {
    const ticked = this.run().filter((s) => this.ticked().has(s.id));
    return ticked.length > 0 ? ticked : this.run();
  }

  tick(step: PlanStep): void {
    const next = new Set(this.ticked());
    if (!next.delete(step.id)) next.add(step.id);
    this.setTicked(next);
  }

  /** With wet hands: the next piece is ticked; with the last one the run is done. */
  async nextPiece(): Promise<void> {
    const open = this.run().filter((s) => !this.ticked().has(s.id));
    if (open.length > 1) return this.tick(open[0]!);
    this.setTicked(new Set());
    await this.done();
  }

  /** From here on the run in hand is timed. */
  begin(): void {
    const step = this.step();
    if (!step) return;
    this.setBegun({ step: step.id, at: instantOf(this.clock.read()) });
  }

  /** What one does alone is logged as theirs. */
  chooseHands(name: string | null): void {
    this.chosenHands.set(name);
    this.setPeople(name === null ? [] : [name]);
  }

  togglePerson(name: string): void {
    const list = this.logbook.people();
    this.setPeople(list.includes(name) ? list.filter((n) => n !== name) : [...list, name]);
  }

  /** @param minutes what it took in all, where somebody knows better than the clock */
  async done(minutes: number | null = null): Promise<void> {
    const plan = this.plan();
    const steps = this.chosen();
    if (!plan || steps.length === 0) return;
    const begun = this.begun();
    const now = this.minute();
    const timing =
      minutes === null
        ? timingOf(plan, this.logbook.entries(), steps, now, begun?.step === steps[0]!.id ? begun.at : null)
        : { perPiece: minutes / steps.length, isMeasured: true };
    const before = this.run().length - steps.length;
    const at = this.clock.read();
    const written = await this.logbook.addEach(
      doneDeeds(steps, timing, this.doneOfRun, this.cup.pour(steps), at),
    );
    if (!this.isSaved(written, `“${steps[0]!.layer.name}”`)) return;
    this.doneOfRun = before > 0 ? this.doneOfRun + steps.length : 0;
    this.setTicked(new Set());
    this.setBegun(null);
    const n = written.added.length;
    if (n > 0)
      this.tellUndoable(
        steps.length === 1
          ? `“${steps[0]!.layer.name}” is done on ${steps[0]!.piece.name}.`
          : `“${steps[0]!.layer.name}” is done on ${many(n, 'piece')}.`,
      );
    if (Math.abs(now - steps[steps.length - 1]!.end) > SLIGHT) this.planner.replan();
  }

  /** Something that hardly waits was done while the hands were free: out of turn, so the rest is planned again. */
  async doneFiller(step: PlanStep): Promise<void> {
    const plan = this.plan();
    if (!plan) return;
    await this.logbook.add({
      kind: 'done',
      step: step.id,
      minutes: handsOnMinutes(plan, step),
      isMeasured: false,
    });
    this.planner.replan();
  }

  /** What the run in hand waits for is not dry: the coats beneath the chosen pieces get more time. */
  async notDry(moreMinutes: number): Promise<void> {
    const waited = this.waited();
    if (waited.length === 0) return this.notices.tell('Nothing under these pieces is drying.');
    const entries = waited.map((s) => ({ kind: 'not-dry' as const, step: s.id, moreMinutes }));
    if (!this.isSaved(await this.logbook.addAll(entries), '“Not dry yet”')) return;
    this.tellDrying(waited, moreMinutes);
    this.planner.replan();
  }

  /** One look at a coat of the shelf, at all its pieces or one: dry. */
  async foundDry(steps: readonly PlanStep[]): Promise<void> {
    const entries = steps.map((s) => ({ kind: 'dry' as const, step: s.id }));
    if (!this.isSaved(await this.logbook.addAll(entries), '“Dry”')) return;
    this.tellUndoable(
      `Noted: “${steps[0]!.layer.name}” is dry${steps.length > 1 ? ` on ${steps.length} pieces` : ''}.`,
    );
    this.planner.replan();
  }

  /** Touched without a mark: nothing goes on it sooner, but its clock is known better. */
  async foundTouchDry(steps: readonly PlanStep[]): Promise<void> {
    const entries = steps.map((s) => ({ kind: 'touch-dry' as const, step: s.id }));
    if (!this.isSaved(await this.logbook.addAll(entries), '“Can be touched”')) return;
    this.tellUndoable(`Noted: “${steps[0]!.layer.name}” can be touched.`);
    this.planner.replan();
  }

  async foundWet(steps: readonly PlanStep[], moreMinutes: number): Promise<void> {
    const entries = steps.map((s) => ({ kind: 'not-dry' as const, step: s.id, moreMinutes }));
    if (!this.isSaved(await this.logbook.addAll(entries), '“Not dry yet”')) return;
    this.tellDrying(steps, moreMinutes);
    this.planner.replan();
  }

  async skip(): Promise<void> {
    const entries = this.chosen().map((s) => ({ kind: 'skipped' as const, step: s.id }));
    if (!this.isSaved(await this.logbook.addAll(entries), '“Skip”')) return;
    this.setTicked(new Set());
    this.planner.replan();
  }

  async enough(): Promise<void> {
    const plan = this.plan();
    if (!plan) return;
    const left = passesLeft(plan, this.chosen());
    const entries = left.map((s) => ({ kind: 'skipped' as const, step: s.id }));
    if (!this.isSaved(await this.logbook.addAll(entries), '“Enough”')) return;
    this.setTicked(new Set());
    this.planner.replan();
  }

  /** It does not look right yet: once more, before whatever follows. */
  async oneMorePass(): Promise<void> {
    const step = this.step();
    const plan = this.plan();
    if (!step || !plan) return;
    const { layer } = step;
    await this.mend({
      trouble: 'Not enough yet',
      cure: 'one more pass',
      minutes: Math.max(1, handsOnMinutes(plan, step)),
      dryMinutes: layer.passes?.waitMinutes ?? layer.dryMinutes,
    });
  }

  /** What a pilot has shown, whatever is in hand. */
  async judge(pilot: Judged, verdict: 'approved' | 'changed'): Promise<void> {
    const written = await this.logbook.add({ kind: 'verdict', step: pilot.step, verdict });
    if (!this.isSaved(written, 'What the pilot has shown')) return;
    this.tellUndoable(
      verdict === 'approved'
        ? `${pilot.name} is approved: the others of its recipe go on without waiting for it.`
        : `${pilot.name} has shown that the recipe must change: the others wait.`,
    );
    this.planner.replan();
  }

  /** Takes a cure on the chosen pieces; what is not done yet stays to be done. */
  async mend(cure: Cure | PieceCure): Promise<void> {
    const entries = this.entriesFor(cure);
    if (!this.isSaved(await this.logbook.addAll(entries), `“${cure.cure}”`)) return;
    this.setTicked(new Set());
    this.troubled.set(null);
    this.tellUndoable(`${cure.trouble}: ${cure.cure}. The rest is planned again.`);
    this.planner.replan();
  }

  /** What the log would say of a cure on the chosen pieces: for each as it stands; those that it does not concern are left alone. */
  entriesFor(cure: Cure | PieceCure): ReturnType<typeof reworkEntry>[] {
    const plan = this.plan();
    if (!plan) return [];
    const isOfWindow = 'on' in cure && cure.on.id !== this.subject()[0]?.id;
    const starts = 'again' in cure && cure.again.length > 0;
    return this.subject().flatMap((s) => {
      const own = curesFor(plan, this.logbook.entries(), s).find(
        (c) => c.trouble === cure.trouble && (starts ? c.again.length > 0 : c.cure === cure.cure),
      );
      if (own) return [reworkEntry(own)];
      return isOfWindow || starts ? [] : [reworkEntry({ ...cure, on: s, again: [] })];
    });
  }

  /** A late start, an early one, or a lost session: what is left begins now. */
  async fromNow(): Promise<void> {
    await this.logbook.add({ kind: 'noted', note: 'planned again from here' });
    this.planner.replan();
  }

  async stop(): Promise<void> {
    if (!this.isSaved(await this.logbook.add({ kind: 'stopped' }), '“Stop for tonight”')) return;
    this.planner.replan();
    this.notices.tell('Stopped for tonight. What is left is planned again from now.');
  }

  async takeBack(): Promise<void> {
    const last = lastAct(this.logbook.entries());
    if (last.length === 0) return;
    if (!this.isSaved(await this.logbook.takeBack(last), 'Taking it back')) return;
    this.notices.tell(`Taken back: ${countedWords(last)}.`);
    this.planner.replan();
  }

  /** The clock was wrong when they were written: the newest of them happened just now. */
  async putClockRight(): Promise<void> {
    const ahead = this.ahead();
    if (!ahead) return;
    await this.logbook.add({
      kind: 'clock',
      entries: [...ahead.entries],
      byMinutes: -Math.ceil(ahead.minutes),
    });
    this.planner.replan();
  }

  /** None of it happened. */
  async forgetAhead(): Promise<void> {
    const ahead = this.ahead();
    if (!ahead) return;
    await this.logbook.addAll(ahead.entries.map((entry) => ({ kind: 'taken-back' as const, entry })));
    this.planner.replan();
  }

  async keepNote(note: string, isForNextTime: boolean): Promise<void> {
    const step = this.step();
    const written = await this.logbook.add({
      kind: 'noted',
      note,
      ...(step ? { step: step.id, ...(isForNextTime ? { isForNextTime } : {}) } : {}),
    });
    if (!this.isSaved(written, 'The note')) return;
    this.notices.tell(
      step && isForNextTime ? `Told again when “${step.layer.name}” is in hand next.` : 'Noted in the log.',
    );
  }

  async takePicture(file: File): Promise<void> {
    this.fault.set(null);
    const step = this.step();
    try {
      const data = await smallPicture(file);
      const written = await this.logbook.add({
        kind: 'picture',
        data,
        ...(step ? { step: step.id } : {}),
      });
      if (!this.isSaved(written, 'The picture')) return;
      this.notices.tell(step ? `Picture kept with ${step.piece.name}.` : 'Picture kept in the log.');
    } catch (error) {
      this.fault.set(error instanceof Error ? error.message : String(error));
    }
  }

  /** Pieces of the run in hand that were ticked off before these. */
  private doneOfRun = 0;

  private tellDrying(steps: readonly PlanStep[], moreMinutes: number): void {
    this.tellUndoable(`“${steps[0]!.layer.name}” gets ${duration(moreMinutes)} more.`);
  }

  private tellUndoable(text: string): void {
    this.notices.tell(text, { word: 'Take back', run: () => void this.takeBack() });
  }

  /** Is it on the disk? Otherwise the painter hears that it is not, and nothing is said to be done. */
  private isSaved({ isSaved }: Written, what: string): boolean {
    if (!isSaved) this.notices.tell(`${what} ${NOT_SAVED_YET}`);
    return isSaved;
  }

  private setTicked(ticked: ReadonlySet<string>): void {
    this.ticked.set(ticked);
    this.keep('ticked', [...ticked]);
  }

  private setBegun(begun: { readonly step: string; readonly at: Instant } | null): void {
    this.begun.set(begun);
    this.keep('begun', begun);
  }

  private setPeople(names: readonly string[]): void {
    this.logbook.people.set(names);
    this.keep('people', names);
  }

  private keep(key: string, value: unknown): void {
    this.database.keepSetting(this.nameOf(key), JSON.stringify(value)).catch(() => {
      this.fault.set('What is ticked cannot be kept in this browser: press Done before you close the page.');
    });
  }

  private nameOf(key: string): string {
    return `tonight ${key} ${this.store.openId}`;
  }

  /** What was ticked, begun and set before the page was closed. */
  private async recall(): Promise<void> {
    await this.store.ready();
    const [ticked, begun, people] = await Promise.all(
      ['ticked', 'begun', 'people'].map((key) =>
        this.database.setting(this.nameOf(key)).catch(() => undefined),
      ),
    );
    const wasTicked = namesSchema.safeParse(parsed(ticked));
    if (wasTicked.success && this.ticked().size === 0) this.ticked.set(new Set(wasTicked.data));
    const wasBegun = begunSchema.safeParse(parsed(begun));
    if (wasBegun.success && this.begun() === null) this.begun.set(wasBegun.data);
    const were = namesSchema.safeParse(parsed(people));
    if (were.success && this.logbook.people().length === 0) this.logbook.people.set(were.data);
  }
}

function parsed(text: string | undefined): unknown {
  try {
    return JSON.parse(text ?? 'null');
  } catch {
    return null;
  }
}
