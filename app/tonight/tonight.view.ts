import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  signal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import * as z from 'zod';
import { DEFER, familyOf, methodOf, sprayWords } from '#core/materials';
import {
  estimateWords,
  instantAfter,
  instantOf,
  INSTANT_PATTERN,
  minutesUntil,
  wallTime,
  type Origin,
} from '#core/muster';
import { clockTime, duration, factsOfRun, listed, moment, type PlanStep, type RunMix } from '#core/plan';
import {
  aheadOfClock,
  curesFor,
  lastAct,
  layOut,
  leftBehind,
  MOST_MINUTES,
  standing,
  tonight,
  type Cure,
  type ShelfItem,
  type ShelfState,
} from '#core/session';
import { BenchClock, type Speed } from '../data/benchClock';
import { Database } from '../data/database';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Planner } from '../data/planner';
import { Notices } from '../data/notices';
import { WaysOutPanel } from '../plan/waysOutPanel';
import { countedWords } from '../ui/entryWords';
import { FIELDS } from '../ui/fields';
import { NumberField } from '../ui/numberField';
import { smallPicture } from '../ui/smallPicture';
import { QuickLine } from '../ui/quickLine';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { FileButton } from '../ui/fileButton';

const STATE_WORDS: Readonly<Record<ShelfState, string>> = {
  wet: 'wet',
  opening: 'drying',
  open: 'open',
  closing: 'closing',
  missed: 'missed',
  safe: 'safe',
};

/** The session at the bench: the step in hand, what is drying, one large target for everything that can happen. */
@Component({
  selector: 'pm-tonight-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FileButton, Card, Button, NumberField, RouterLink, WaysOutPanel, QuickLine],
  templateUrl: './tonight.view.html',
  host: { '(document:keydown)': 'onKey($event)' },
})
export class TonightView {
  protected readonly fields = FIELDS;
  protected readonly store = inject(MusterStore);
  protected readonly planner = inject(Planner);
  protected readonly logbook = inject(Logbook);
  protected readonly clock = inject(BenchClock);
  private readonly notices = inject(Notices);
  private readonly destroyed = inject(DestroyRef);

  protected readonly clockTime = clockTime;
  protected readonly moment = moment;
  protected readonly speeds: readonly Speed[] = [1, 20, 200];
  private readonly database = inject(Database);
  protected readonly far = signal(false);
  /** kept with every tap: a closed tab loses none of them */
  protected readonly ticked = signal<ReadonlySet<string>>(new Set());
  /** the moment at which the run in hand was begun, when someone said so */
  protected readonly begun = signal<{ readonly step: string; readonly at: string } | null>(null);
  protected readonly ownMinutes = signal(20);
  protected readonly fault = signal<string | null>(null);
  protected readonly showsTrouble = signal(false);
  protected readonly alarms = signal(false);
  private lock: { release(): Promise<void> } | null = null;
  private readonly rung = new Set<string>();

  private readonly zone = computed(() => this.store.muster()?.bench.timeZone ?? 'UTC');
  protected readonly minute = computed(() => {
    const plan = this.planner.plan();
    return plan ? minutesUntil(plan.origin, instantOf(this.clock.now())) : 0;
  });
  protected readonly state = computed(() => {
    const plan = this.planner.plan();
    return plan ? tonight(plan, this.logbook.entries(), this.minute(), this.whose()) : null;
  });
  /** Who has something to do in this plan; none where one works alone. */
  protected readonly doers = computed(() => {
    const plan = this.planner.plan();
    return [...new Set([...(plan?.steps.values() ?? [])].flatMap((s) => s.doer?.who ?? []))].sort();
  });
  /** whose hands are looked at; null: everybody's */
  protected readonly chosenHands = signal<string | null>(null);
  /** What one does alone is logged as theirs. */
  protected chooseHands(name: string | null): void {
    this.chosenHands.set(name);
    this.logbook.people.set(name === null ? [] : [name]);
    this.remember('people', this.logbook.people());
  }

  private readonly whose = computed(() => {
    const name = this.chosenHands();
    return name !== null && this.doers().includes(name) ? name : null;
  });
  protected readonly run = computed(() => this.state()?.run ?? []);
  protected readonly step = computed<PlanStep | null>(() => this.run()[0] ?? null);
  protected readonly time = computed(() => wallTime(this.zone(), instantOf(this.clock.now())).slice(11));
  protected readonly day = computed(() => {
    const plan = this.planner.plan();
    return plan ? moment(plan.origin, this.minute()).split(',')[0] : '';
  });
  /** What tonight is: under way, about to begin, or over. */
  protected readonly session = computed(() => {
    const plan = this.planner.plan();
    const now = this.minute();
    if (!plan) return null;
    const current = plan.sessions.find((s) => s.start <= now && now < s.end);
    const next = plan.sessions.find((s) => s.start > now && s.steps.length > 0);
    return { current: current ?? null, next: next ?? null, origin: plan.origin };
  });
  protected readonly words = computed(() => {
    const step = this.step();
    const plan = this.planner.plan();
    if (!step || !plan) return null;
    const facts = factsOfRun(this.run(), this.store.muster()?.bench.cupMl);
    const [fewest, most] = facts.coats;
    const judge = step.recipe.layers.find((l) => l.id === step.layer.judgeFrom);
    const wet = (this.state()?.shelf ?? []).filter((i) => i.state === 'wet' || i.state === 'opening');
    return {
      title: `${facts.verb}: ${facts.name}`,
      who: facts.who,
      tool: facts.tool,
      units: listed(facts.units),
      zones: facts.zones.join(', ') || 'all over',
      family: familyOf(step.layer.family).name,
      mix: facts.mix && mixWords(facts.mix),
      spray: facts.spray && sprayWords(facts.spray),
      coats: fewest === most ? `${most} ${most === 1 ? 'coat' : 'coats'}` : `${fewest} to ${most} coats`,
      round: step.rounds > 1 ? `round ${step.round} of ${step.rounds}` : null,
      begins: step.start > this.minute() ? `from ${moment(plan.origin, step.start)}` : null,
      notes: facts.notes,
      estimates: `Hands ${duration(this.run().reduce((sum, r) => sum + r.end - r.start, 0))}, ${estimateWords(step.layer.minutesFrom)}${
        step.layer.dryMinutes > 0
          ? `; drying ${duration(step.tide.dryAt - step.end)} in this air, ${estimateWords(step.layer.dryFrom)}`
          : ''
      }`,
      look: LOOK[familyOf(step.layer.family).drying],
      judge: judge ? `Looks wrong on purpose: judge it only after “${judge.name}”.` : null,
      cautions: facts.cautions,
      lookOver: facts.lookOver,
      contaminates:
        step.layer.air === 'contaminates' && wet.length > 0
          ? `Throws dust or drops: ${wet.length} wet ${wet.length === 1 ? 'coat stands' : 'coats stand'} on the shelf. Cover them or carry them away.`
          : null,
      isRepeated: (step.layer.passes?.expected ?? 1) > 1,
      isPilot: step.piece.isPilot ?? false,
    };
  });
  protected readonly defer = DEFER;
  protected readonly next = computed(() => {
    const plan = this.planner.plan();
    return (this.state()?.next ?? []).map((run) => ({
      key: run[0]!.id,
      text: `${methodOf(run[0]!.layer.method).verb}: ${run[0]!.layer.name}`,
      pieces: run.length === 1 ? run[0]!.piece.name : `${run.length} pieces`,
      at: plan ? moment(plan.origin, run[0]!.start) : '',
    }));
  });
  protected readonly shelf = computed(() => this.state()?.shelf ?? []);
  protected readonly stateWord = (item: ShelfItem): string => STATE_WORDS[item.state];
  protected readonly cures = computed((): readonly Cure[] => {
    const step = this.step();
    return step ? curesFor(step.layer) : [];
  });
  /** Windows that would shut while nobody is at the bench: told before they are begun. */
  protected readonly away = computed(() => {
    const step = this.step();
    const s = this.session();
    if (!step?.gate || !s?.current) return null;
    const closes = step.gate.closes ?? null;
    const plan = this.planner.plan();
    if (closes === null || !plan) return null;
    const next = step.gate.steps.map((id) => plan.steps.get(id)).find((x) => x !== undefined);
    return next && next.start >= s.current.end
      ? `Begun now, its window shuts at ${clockTime(plan.origin, closes)} while the bench is shut. Leave it for the next session.`
      : null;
  });
  private readonly doneSteps = computed(
    () =>
      new Set(
        standing(this.logbook.entries()).flatMap((e) =>
          e.kind === 'done' || e.kind === 'skipped' ? [e.step] : [],
        ),
      ),
  );
  protected readonly layout = computed(() => {
    const s = this.session();
    const plan = this.planner.plan();
    const session = s?.current ?? s?.next;
    if (!session || !plan) return [];
    const groups = new Map<string, string[]>();
    for (const { group, text } of layOut(plan, session, this.doneSteps()))
      groups.set(group, [...(groups.get(group) ?? []), text]);
    return [...groups].map(([group, lines]) => ({ group, lines }));
  });
  /** What stays when everyone leaves now. */
  protected readonly behind = computed(() => {
    const plan = this.planner.plan();
    if (!plan) return null;
    const behind = leftBehind(plan, this.doneSteps(), this.minute(), this.session()?.next?.start ?? Infinity);
    return behind.untouchable.length + behind.meanwhile.length > 0 ? behind : null;
  });
  /** Entries that lie in the future: a clock that was wrong, or a rehearsal. */
  protected readonly ahead = computed(() => {
    const found = aheadOfClock(this.logbook.entries(), instantOf(this.clock.now()));
    return found && { ...found, words: duration(found.minutes) };
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
    if (n === 0) return 'Planned again: no step changed its session.';
    return `Planned again: ${n} ${n === 1 ? 'step has' : 'steps have'} changed session.`;
  });
  protected readonly people = computed(() => this.store.muster()?.bench.people.map((p) => p.name) ?? []);
  protected readonly isAtBench = (name: string): boolean => this.logbook.people().includes(name);

  constructor() {
    effect(() => this.ring(this.shelf()));
    void this.recall();
    const onShow = (): void => {
      if (document.visibilityState === 'visible' && this.alarms()) void this.holdAwake();
    };
    document.addEventListener('visibilitychange', onShow);
    this.destroyed.onDestroy(() => {
      document.removeEventListener('visibilitychange', onShow);
      void this.lock?.release();
    });
  }

  /** One key each; never while something is typed. */
  protected onKey(event: KeyboardEvent): void {
    const target = event.target as HTMLElement | null;
    if (target && /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName)) return;
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    switch (event.key.toLowerCase()) {
      case 'd':
        return void this.done();
      case 'n':
        return void this.notDry(10);
      case 'b':
        return this.begin();
      case 't':
        return this.showsTrouble.set(!this.showsTrouble());
      case 'f':
        return this.far.set(!this.far());
    }
  }

  protected tick(step: PlanStep): void {
    const next = new Set(this.ticked());
    if (!next.delete(step.id)) next.add(step.id);
    this.setTicked(next);
  }

  private setTicked(ticked: ReadonlySet<string>): void {
    this.ticked.set(ticked);
    this.remember('ticked', [...ticked]);
  }

  /** From here on the run in hand is timed. */
  protected begin(): void {
    const step = this.step();
    if (!step) return;
    this.begun.set({ step: step.id, at: instantOf(this.clock.read()) });
    this.remember('begun', this.begun());
  }

  protected togglePerson(name: string): void {
    this.logbook.people.update((list) =>
      list.includes(name) ? list.filter((n) => n !== name) : [...list, name],
    );
    this.remember('people', this.logbook.people());
  }

  private remember(key: string, value: unknown): void {
    this.database.keepSetting(`tonight ${key} ${this.store.openId}`, JSON.stringify(value)).catch(() => {
      this.fault.set('What is ticked cannot be kept in this browser: press Done before you close the page.');
    });
  }

  /** What was ticked, begun and set before the page was closed. */
  private async recall(): Promise<void> {
    const [ticked, begun, people] = await Promise.all(
      ['ticked', 'begun', 'people'].map((key) =>
        this.database.setting(`tonight ${key} ${this.store.openId}`),
      ),
    );
    const names = z.array(z.string());
    const wasTicked = names.safeParse(parsed(ticked));
    if (wasTicked.success && this.ticked().size === 0) this.ticked.set(new Set(wasTicked.data));
    const wasBegun = z
      .strictObject({ step: z.string(), at: z.string().regex(INSTANT_PATTERN) })
      .safeParse(parsed(begun));
    if (wasBegun.success && this.begun() === null) this.begun.set(wasBegun.data);
    const were = names.safeParse(parsed(people));
    if (were.success && this.logbook.people().length === 0) this.logbook.people.set(were.data);
  }

  /** The ticked pieces, or all of the run. */
  private chosen(): readonly PlanStep[] {
    const ticked = this.run().filter((s) => this.ticked().has(s.id));
    return ticked.length > 0 ? ticked : this.run();
  }

  protected async done(extraMinutes = 0): Promise<void> {
    const steps = this.chosen();
    if (steps.length === 0) return;
    const now = this.minute();
    const planned = steps.reduce((sum, s) => sum + s.end - s.start, 0);
    const measured = extraMinutes > 0 ? null : this.measured(planned, now);
    // Pieces of a run are done one after the other, the last of them now.
    let at = this.clock.read().getTime();
    const each = (measured ?? planned + extraMinutes) / steps.length;
    const before = this.run().length - steps.length;
    const { cupMl } = this.store.muster()!.bench;
    const entries = [...steps].reverse().map((s, k) => {
      const { mix } = factsOfRun([s], cupMl);
      const entry = {
        kind: 'done' as const,
        step: s.id,
        minutes: Math.round(each * 10) / 10,
        isMeasured: measured !== null || extraMinutes > 0,
        nth: Math.max(1, Math.min(500, this.doneOfRun + steps.length - k)),
        ...(mix ? { mixture: partsOf(mix).slice(0, 400) } : {}),
      };
      const when = new Date(at);
      at -= each * 60_000;
      return { entry, at: when };
    });
    await this.logbook.addEach(entries.reverse());
    this.doneOfRun = before > 0 ? this.doneOfRun + steps.length : 0;
    this.setTicked(new Set());
    this.begun.set(null);
    this.remember('begun', null);
    const last = steps[steps.length - 1]!;
    // As planned, to a few minutes: nothing to plan again.
    if (extraMinutes > 0 || Math.abs(now - last.end) > 5) this.planner.replan();
  }

  /** Something that hardly waits was done while the hands were free: out of turn, so the rest is planned again. */
  protected async doneFiller(step: PlanStep): Promise<void> {
    await this.logbook.add({
      kind: 'done',
      step: step.id,
      minutes: step.end - step.start,
      isMeasured: false,
    });
    this.planner.replan();
  }

  /** Pieces of the run in hand that were ticked off before these. */
  private doneOfRun = 0;

  /**
   * Minutes since the run was begun: as someone said, or since whatever came last (the step before, the session's beginning, the
   * planned start). Absurdly short or long, nobody was timing it: null.
   */
  private measured(planned: number, now: number): number | null {
    const step = this.step();
    const plan = this.planner.plan();
    if (!step || !plan) return null;
    const begun = this.begun();
    if (begun?.step === step.id) {
      const minutes = now - minutesUntil(plan.origin, begun.at);
      // Begun and forgotten, or the clock was set since: it was not timed.
      return minutes >= 0 && minutes <= MOST_MINUTES ? Math.max(0.1, minutes) : null;
    }
    const last = standing(this.logbook.entries()).filter((e) => e.kind === 'done');
    const since = Math.max(
      last.length > 0 ? minutesUntil(plan.origin, last[last.length - 1]!.at) : 0,
      this.session()?.current?.start ?? 0,
      step.start <= now ? step.start : 0,
    );
    const minutes = now - since;
    return minutes >= planned / 3 && minutes <= planned * 3 ? minutes : null;
  }

  protected async notDry(moreMinutes: number): Promise<void> {
    const waited = this.waitedFor();
    if (waited === null) return this.notices.tell('Nothing on this piece is drying.');
    await this.logbook.add({ kind: 'not-dry', step: waited.id, moreMinutes });
    this.notices.tell(`“${waited.layer.name}” gets ${moreMinutes} min more.`);
    this.planner.replan();
  }

  protected async wasDry(item: ShelfItem): Promise<void> {
    await this.logbook.add({ kind: 'dry', step: item.step.id });
    this.notices.tell(`Noted: “${item.step.layer.name}” is dry now.`);
  }

  protected async notDryYet(item: ShelfItem, moreMinutes: number): Promise<void> {
    await this.logbook.add({ kind: 'not-dry', step: item.step.id, moreMinutes });
    this.planner.replan();
  }

  /** The layer under the step in hand, if it was logged. */
  private waitedFor(): PlanStep | null {
    const step = this.step();
    const plan = this.planner.plan();
    if (!step || !plan) return null;
    const done = new Set(
      standing(this.logbook.entries()).flatMap((e) => (e.kind === 'done' ? [e.step] : [])),
    );
    const below = [...plan.steps.values()]
      .filter((s) => s.piece.id === step.piece.id && s.layerIndex < step.layerIndex && done.has(s.id))
      .sort((a, b) => b.end - a.end);
    return below[0] ?? null;
  }

  protected async skip(): Promise<void> {
    await this.logbook.addAll(this.chosen().map((s) => ({ kind: 'skipped' as const, step: s.id })));
    this.setTicked(new Set());
    this.planner.replan();
  }

  protected async enough(): Promise<void> {
    const step = this.step();
    const plan = this.planner.plan();
    if (!step || !plan) return;
    const rest = [...plan.steps.values()].filter(
      (s) => s.piece.id === step.piece.id && s.layer.id === step.layer.id && s.round >= step.round,
    );
    await this.logbook.addAll(rest.map((s) => ({ kind: 'skipped' as const, step: s.id })));
    this.planner.replan();
  }

  /** It does not look right yet: once more, before whatever follows. */
  protected async oneMorePass(): Promise<void> {
    const step = this.step();
    if (!step) return;
    const { layer } = step;
    await this.rework({
      trouble: 'Not enough yet',
      cure: 'one more pass',
      minutes: Math.max(1, step.end - step.start),
      dryMinutes: layer.passes?.waitMinutes ?? layer.dryMinutes,
    });
  }

  protected async verdict(verdict: 'approved' | 'changed'): Promise<void> {
    const step = this.step();
    if (step) await this.logbook.add({ kind: 'verdict', step: step.id, verdict });
  }

  protected async rework(cure: Cure): Promise<void> {
    const steps = this.chosen();
    const done = new Set(
      standing(this.logbook.entries()).flatMap((e) => (e.kind === 'done' ? [e.step] : [])),
    );
    await this.logbook.addAll(
      steps.flatMap((s) => [
        ...(done.has(s.id)
          ? []
          : [{ kind: 'done' as const, step: s.id, minutes: s.end - s.start, isMeasured: false }]),
        {
          kind: 'rework' as const,
          step: s.id,
          trouble: cure.trouble,
          cure: cure.cure,
          minutes: cure.minutes,
          dryMinutes: cure.dryMinutes,
        },
      ]),
    );
    this.showsTrouble.set(false);
    this.setTicked(new Set());
    this.notices.tell(
      `${cure.trouble}: ${cure.cure}. ${cure.minutes} min and ${cure.dryMinutes} min of drying are planned in.`,
    );
    this.planner.replan();
  }

  /** A late start, an early one, or a lost session: what is left begins now. */
  protected async fromNow(): Promise<void> {
    await this.logbook.add({ kind: 'noted', note: 'planned again from here' });
    this.planner.replan();
  }

  protected async stop(): Promise<void> {
    await this.logbook.add({ kind: 'stopped' });
    this.planner.replan();
    this.notices.tell('Stopped for tonight. What is left is planned again from now.');
  }

  protected async takeBack(): Promise<void> {
    const last = lastAct(this.logbook.entries());
    if (last.length === 0) return;
    await this.logbook.takeBack(last);
    this.notices.tell(`Taken back: ${countedWords(last)}.`);
    this.planner.replan();
  }

  /** The clock was wrong when they were written: the newest of them happened just now. */
  protected async putClockRight(): Promise<void> {
    const ahead = this.ahead();
    if (!ahead) return;
    await this.logbook.add({
      kind: 'clock',
      entries: [...ahead.entries],
      byMinutes: -Math.ceil(ahead.minutes),
    });
    this.planner.replan();
  }

  /** They were a rehearsal: none of it happened. */
  protected async forgetRehearsal(): Promise<void> {
    const ahead = this.ahead();
    if (!ahead) return;
    await this.logbook.addAll(ahead.entries.map((entry) => ({ kind: 'taken-back' as const, entry })));
    this.planner.replan();
  }

  protected async keepNote(note: string): Promise<void> {
    const step = this.step();
    await this.logbook.add({ kind: 'noted', note, ...(step ? { step: step.id } : {}) });
    this.notices.tell('Noted in the log.');
  }

  protected async takePicture(file: File): Promise<void> {
    this.fault.set(null);
    const step = this.waitedFor() ?? this.step();
    try {
      const data = await smallPicture(file);
      await this.logbook.add({ kind: 'picture', data, ...(step ? { step: step.id } : {}) });
      this.notices.tell(step ? `Picture kept with ${step.piece.name}.` : 'Picture kept in the log.');
    } catch (error) {
      this.fault.set(error instanceof Error ? error.message : String(error));
    }
  }

  protected readonly hasLog = computed(() => standing(this.logbook.entries()).length > 0);

  // The rehearsal.
  protected rehearse(): void {
    const plan = this.planner.plan();
    const s = this.session();
    const start = s?.current ? null : (s?.next?.start ?? null);
    if (!plan) return;
    this.clock.rehearse(start === null ? this.clock.read() : momentAt(plan.origin, start), 20);
  }

  protected setSpeed(speed: Speed): void {
    this.clock.setSpeed(speed);
  }

  /** To the next moment that matters: the run in hand begins or ends, or something on the shelf opens or shuts. */
  protected jump(): void {
    const plan = this.planner.plan();
    const state = this.state();
    if (!plan || !state) return;
    const now = this.minute();
    const moments = [
      state.run[0]?.start ?? Infinity,
      state.run[state.run.length - 1]?.end ?? Infinity,
      ...state.shelf.map((i) => i.moment),
    ].filter((m) => m > now + 0.5);
    const next = Math.min(...moments);
    if (!Number.isFinite(next)) return this.notices.tell('Nothing is coming up.');
    this.clock.rehearse(momentAt(plan.origin, Math.ceil(next)), this.clock.rehearsal()?.speed ?? 1);
  }

  // Sound, notification and a screen that stays on: only when asked for.
  protected async setAlarms(on: boolean): Promise<void> {
    this.alarms.set(on);
    if (!on) {
      await this.lock?.release();
      this.lock = null;
      return;
    }
    if ('Notification' in window && Notification.permission === 'default')
      await Notification.requestPermission();
    await this.holdAwake();
  }

  private async holdAwake(): Promise<void> {
    const wake = (
      navigator as { wakeLock?: { request(kind: 'screen'): Promise<{ release(): Promise<void> }> } }
    ).wakeLock;
    this.lock = (await wake?.request('screen').catch(() => null)) ?? null;
  }

  private ring(shelf: readonly ShelfItem[]): void {
    for (const item of shelf) {
      if (item.state !== 'open' && item.state !== 'closing' && item.state !== 'safe') continue;
      const key = `${item.step.id} ${item.state}`;
      if (this.rung.has(key)) continue;
      this.rung.add(key);
      if (!this.alarms()) continue;
      const text = `${item.step.layer.name}, ${item.step.piece.name}: ${item.words}`;
      if ('Notification' in window && Notification.permission === 'granted') new Notification(text);
      this.notices.tell(text);
      beep();
    }
  }
}

/** The mixture of a step for so many millilitres, in words; null where nothing is mixed. */
function partsOf({ components }: RunMix): string {
  return components.map((c) => `${c.name} ${c.ml.toFixed(2)} ml (${c.drops} drops)`).join(' + ');
}

/** All that goes into the cup for a run, and how many cups. */
function mixWords(mix: RunMix): string {
  const cups = mix.isByCup ? `, ${mix.cups} ${mix.cups === 1 ? 'cup' : 'cups'}` : '';
  return `${partsOf(mix)}: ${mix.ml.toFixed(1)} ml${cups}`;
}

function momentAt(origin: Origin, minute: number): Date {
  return new Date(instantAfter(origin, minute));
}

function parsed(text: string | undefined): unknown {
  try {
    return JSON.parse(text ?? 'null');
  } catch {
    return null;
  }
}

const LOOK = {
  water: 'Look: wet gloss turns to satin, then dull; no cool feel at the lip. No pools.',
  solvent: 'Look: gloss turns to satin before it is worked; a swab on a hidden spot tells.',
  oxidation: 'Look: tacky for hours; a hidden spot tells.',
  none: 'Hold it by the handle; touch nothing that is not dry.',
} as const;

function beep(): void {
  const audio = new AudioContext();
  const tone = audio.createOscillator();
  const gain = audio.createGain();
  gain.gain.value = 0.08;
  tone.frequency.value = 660;
  tone.connect(gain).connect(audio.destination);
  tone.start();
  tone.stop(audio.currentTime + 0.35);
  tone.onended = () => void audio.close();
}
