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
import { amountOf, cupsFor, mixOf } from '#core/amounts';
import { AmountError, cautionsFor, DEFER, familyOf, methodOf, sprayGuide } from '#core/materials';
import { dateTimeAfter, localDateTime, minutesSince } from '#core/muster';
import { clockTime, moment, type PlanStep } from '#core/plan';
import { curesFor, standing, tonight, type Cure, type ShelfItem, type ShelfState } from '#core/session';
import { BenchClock, type Speed } from '../data/benchClock';
import { Logbook } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Planner } from '../data/planner';
import { Notices } from '../data/notices';

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
  imports: [RouterLink],
  templateUrl: './tonight.view.html',
  host: { '(document:keydown)': 'onKey($event)' },
})
export class TonightView {
  protected readonly store = inject(MusterStore);
  protected readonly planner = inject(Planner);
  protected readonly logbook = inject(Logbook);
  protected readonly clock = inject(BenchClock);
  private readonly notices = inject(Notices);
  private readonly destroyed = inject(DestroyRef);

  protected readonly clockTime = clockTime;
  protected readonly moment = moment;
  protected readonly speeds: readonly Speed[] = [1, 20, 200];
  protected readonly far = signal(false);
  protected readonly ticked = signal<ReadonlySet<string>>(new Set());
  protected readonly showsTrouble = signal(false);
  protected readonly alarms = signal(false);
  private lock: { release(): Promise<void> } | null = null;
  private readonly rung = new Set<string>();

  protected readonly minute = computed(() => {
    const plan = this.planner.plan();
    const now = this.clock.now();
    return plan ? minutesSince(plan.origin, localDateTime(now)) + now.getSeconds() / 60 : 0;
  });
  protected readonly state = computed(() => {
    const plan = this.planner.plan();
    return plan ? tonight(plan, this.logbook.entries(), this.minute()) : null;
  });
  protected readonly run = computed(() => this.state()?.run ?? []);
  protected readonly step = computed<PlanStep | null>(() => this.run()[0] ?? null);
  protected readonly time = computed(() => localDateTime(this.clock.now()).slice(11));
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
    const amounts = this.run().map((s) => amountOf(s.recipe, s.layer, s.piece));
    const ml = amounts.reduce((sum, a) => sum + a.ml, 0) / step.rounds;
    let mix: string | null = null;
    try {
      if (ml > 0)
        mix = cupsFor(mixOf(step.layer), ml, this.store.muster()!.bench.cupMl ?? 7)
          .components.map((c) => `${c.name} ${c.ml.toFixed(2)} ml (${c.drops} drops)`)
          .join(' + ');
    } catch (error) {
      if (!(error instanceof AmountError)) throw error;
    }
    const spray = sprayGuide(step.layer.family, step.layer.method, step.layer.nozzleMm);
    const judge = step.recipe.layers.find((l) => l.id === step.layer.judgeFrom);
    const wet = (this.state()?.shelf ?? []).filter((i) => i.state === 'wet' || i.state === 'opening');
    return {
      verb: methodOf(step.layer.method).verb,
      zones:
        step.layer.zones.map((z) => step.recipe.zones.find((x) => x.id === z)?.name ?? z).join(', ') ||
        'all over',
      family: familyOf(step.layer.family).name,
      mix,
      spray: spray ? `${spray.nozzleMm} mm, ${spray.psi} psi (${spray.bar} bar)` : null,
      coats: step.layer.coats,
      round: step.rounds > 1 ? `round ${step.round} of ${step.rounds}` : null,
      begins: step.start > this.minute() ? `from ${moment(plan.origin, step.start)}` : null,
      note: step.layer.note,
      look: LOOK[familyOf(step.layer.family).drying],
      judge: judge ? `Looks wrong on purpose: judge it only after “${judge.name}”.` : null,
      cautions: cautionsFor(step.layer.family, step.layer.method),
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
  protected readonly layout = computed(() => {
    const s = this.session();
    const session = s?.current ?? s?.next;
    if (!session) return [];
    const seen = new Map<string, string>();
    for (const step of session.steps) {
      const key = step.layer.mixture || familyOf(step.layer.family).name;
      if (!seen.has(key)) seen.set(key, `${key} (${methodOf(step.layer.method).name})`);
    }
    return [...seen.values()].slice(0, 14);
  });

  constructor() {
    effect(() => this.ring(this.shelf()));
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
      case 't':
        return this.showsTrouble.set(!this.showsTrouble());
      case 'f':
        return this.far.set(!this.far());
    }
  }

  protected tick(step: PlanStep): void {
    this.ticked.update((t) => {
      const next = new Set(t);
      if (!next.delete(step.id)) next.add(step.id);
      return next;
    });
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
    // Pieces of a run are done one after the other, the last of them now.
    let at = this.clock.read().getTime();
    const each = (planned + extraMinutes) / steps.length;
    const entries = [...steps].reverse().map((s) => {
      const entry = { kind: 'done' as const, step: s.id, minutes: Math.round(each * 10) / 10 };
      const when = new Date(at);
      at -= each * 60_000;
      return { entry, when };
    });
    for (const { entry, when } of entries.reverse()) await this.logbook.add(entry, when);
    this.ticked.set(new Set());
    const last = steps[steps.length - 1]!;
    // As planned, to a few minutes: nothing to plan again.
    if (extraMinutes > 0 || Math.abs(now - last.end) > 5) this.planner.replan();
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
    for (const s of this.chosen()) await this.logbook.add({ kind: 'skipped', step: s.id });
    this.ticked.set(new Set());
    this.planner.replan();
  }

  protected async enough(): Promise<void> {
    const step = this.step();
    const plan = this.planner.plan();
    if (!step || !plan) return;
    for (const s of plan.steps.values())
      if (s.piece.id === step.piece.id && s.layer.id === step.layer.id && s.round >= step.round)
        await this.logbook.add({ kind: 'skipped', step: s.id });
    this.planner.replan();
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
    for (const s of steps) {
      if (!done.has(s.id)) await this.logbook.add({ kind: 'done', step: s.id, minutes: s.end - s.start });
      await this.logbook.add({
        kind: 'rework',
        step: s.id,
        trouble: cure.trouble,
        cure: cure.cure,
        minutes: cure.minutes,
        dryMinutes: cure.dryMinutes,
      });
    }
    this.showsTrouble.set(false);
    this.ticked.set(new Set());
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
    const last = [...standing(this.logbook.entries())].reverse()[0];
    if (!last) return;
    await this.logbook.takeBack(last);
    this.planner.replan();
  }

  protected readonly hasLog = computed(() => standing(this.logbook.entries()).length > 0);

  // The rehearsal.
  protected rehearse(): void {
    const plan = this.planner.plan();
    const s = this.session();
    const start = s?.current ? null : (s?.next?.start ?? null);
    if (!plan) return;
    this.clock.rehearse(start === null ? this.clock.read() : new Date(dateTimeAfter(plan.origin, start)), 20);
  }

  protected setSpeed(speed: Speed): void {
    this.clock.setSpeed(speed);
  }

  /** To the next moment that matters: the step in hand begins, or something on the shelf opens or shuts. */
  protected jump(): void {
    const plan = this.planner.plan();
    const state = this.state();
    if (!plan || !state) return;
    const now = this.minute();
    const moments = [state.run[0]?.start ?? Infinity, ...state.shelf.map((i) => i.moment)].filter(
      (m) => m > now + 0.5,
    );
    const next = Math.min(...moments);
    if (!Number.isFinite(next)) return this.notices.tell('Nothing is coming up.');
    this.clock.rehearse(
      new Date(dateTimeAfter(plan.origin, Math.ceil(next))),
      this.clock.rehearsal()?.speed ?? 1,
    );
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
