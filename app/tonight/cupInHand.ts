/** The cup for the run in hand: as planned or as it was really mixed, first out of a jar where one fits; and the jar for what is left over. */
import { computed, inject, Injectable, linkedSignal, signal } from '@angular/core';
import { familyOf } from '#core/materials';
import { dateTimeAfter, instantOf, MIXTURE_LETTERS, wallTime } from '#core/muster';
import { dayName, type PlanStep } from '#core/plan';
import type { EntryOf, New } from '#core/log';
import type { Mixed } from '#core/session';
import {
  cupLeft,
  cupWords,
  goodUntil,
  jarFor,
  jarsOf,
  labelOf,
  plannedCup,
  sharedOut,
  namesPaint,
  shortBy,
  shortOf,
  type Cup,
  type Equivalent,
  missingWords,
} from '#core/stores';
import { BenchClock } from '../data/benchClock';
import { NEW_ID } from '../data/environment';
import { Logbook, NOT_SAVED_YET } from '../data/logbook';
import { MusterStore } from '../data/musterStore';
import { Notices } from '../data/notices';
import { RunInHand } from './runInHand';

@Injectable()
export class CupInHand {
  private readonly inHand = inject(RunInHand);
  private readonly store = inject(MusterStore);
  private readonly logbook = inject(Logbook);
  private readonly clock = inject(BenchClock);
  private readonly notices = inject(Notices);
  private readonly newId = inject(NEW_ID);

  /** a run by what it is mixed for: a cup belongs to it */
  private readonly of = computed(() =>
    this.inHand.facts()?.mix ? (this.inHand.step()?.layer.id ?? null) : null,
  );
  /** what somebody said was really mixed; null: as planned */
  private readonly said = linkedSignal<string | null, Cup | null>({
    source: this.of,
    computation: () => null,
  });
  /** is a jar that fits left where it is? */
  readonly isFresh = linkedSignal<string | null, boolean>({ source: this.of, computation: () => false });
  /** the layer that was mixed for last, and how much of it is reckoned to be left over */
  private readonly last = signal<{ readonly layer: PlanStep['layer']; readonly leftMl: number } | null>(null);

  private readonly day = computed(() => {
    const muster = this.store.muster();
    return muster ? wallTime(muster.bench.timeZone, instantOf(this.clock.now())).slice(0, 10) : '';
  });
  private readonly jars = computed(() => {
    const muster = this.store.muster();
    return muster ? jarsOf(muster, this.logbook.entries()) : [];
  });
  /** The jar that would be begun with. */
  readonly jar = computed(() => {
    const mix = this.inHand.facts()?.mix;
    // By the day and not by the minute: a jar's day is over with the day.
    this.day();
    return mix ? jarFor(this.jars(), this.inHand.facts()!.layer, instantOf(this.clock.read())) : null;
  });
  /** What goes into the cup. */
  readonly cup = computed((): Cup | null => {
    const mix = this.inHand.facts()?.mix;
    return mix ? (this.said() ?? plannedCup(mix, this.isFresh() ? null : this.jar())) : null;
  });
  readonly isSaid = computed(() => this.said() !== null);
  /** What there is not enough of for this run. */
  readonly short = computed(() => {
    const muster = this.store.muster();
    const plan = this.inHand.plan();
    const cup = this.cup();
    const layer = this.inHand.step()?.layer;
    if (!muster || !layer || !namesPaint(muster, layer)) return [];
    return plan && cup ? shortOf(muster, plan, this.logbook.entries(), cup.parts) : [];
  });
  /** What the plan will have run out of by the end of the next session: to be bought. */
  readonly toBuy = computed(() => {
    const muster = this.store.muster();
    const plan = this.inHand.plan();
    const next = this.nextSession();
    if (!muster || !plan || !next) return [];
    const until = dateTimeAfter(plan.origin, next.start).slice(0, 10);
    return shortBy(muster, plan, this.logbook.entries(), until).map(
      (s) => `${s.name}: ${missingWords(s)} to buy`,
    );
  });
  /** the session after the present one */
  private readonly nextSession = computed(() => {
    const now = this.inHand.minute();
    return this.inHand.plan()?.sessions.find((s) => s.start > now && s.steps.length > 0) ?? null;
  });
  readonly nextDay = computed(() => {
    const plan = this.inHand.plan();
    const next = this.nextSession();
    return plan && next ? dayName(plan.origin, next.start) : '';
  });
  /** What may be left over, and goes into a jar: of the run in hand, else of the one before. */
  readonly leftOver = computed(() => {
    const facts = this.inHand.facts();
    const last = this.last();
    const layer = last?.layer ?? (facts?.mix ? facts.layer : null);
    if (!layer) return null;
    return {
      label: labelOf(layer),
      keeps: goodUntil(layer.family, instantOf(this.clock.read())) !== null,
      ml: Math.max(0.1, Math.round((last?.leftMl ?? facts?.mix?.leftMl ?? 0.5) * 10) / 10),
      family: familyOf(layer.family).name,
    };
  });

  /** So much of a component was really put in. */
  setPart(name: string, ml: number): void {
    const cup = this.cup();
    if (cup) this.said.set({ ...cup, parts: cup.parts.map((p) => (p.name === name ? { ...p, ml } : p)) });
  }

  /** Something else in the place of a component. */
  replace(name: string, by: Equivalent): void {
    const cup = this.cup();
    if (!cup) return;
    const parts = cup.parts.flatMap((p) =>
      p.name === name ? by.parts.map((c) => ({ name: c.name, ml: p.ml * c.share })) : [p],
    );
    const sums = new Map<string, number>();
    for (const p of parts) sums.set(p.name, (sums.get(p.name) ?? 0) + p.ml);
    this.said.set({ ...cup, parts: [...sums].map(([part, ml]) => ({ name: part, ml })) });
  }

  asPlanned(): void {
    this.said.set(null);
  }

  /** What of the cup goes on each piece, and what then is left for the rest of the run. */
  pour(done: readonly PlanStep[]): (step: PlanStep) => Mixed {
    const run = this.inHand.run();
    const facts = this.inHand.facts();
    const cup = this.cup();
    if (!cup || !facts?.mix) return () => ({});
    const shares = sharedOut(cup, run);
    this.said.set(done.length < run.length && this.isSaid() ? cupLeft(cup, run, done) : null);
    this.last.set({ layer: facts.layer, leftMl: facts.mix.leftMl });
    return (step) => {
      const own = shares.get(step.id);
      if (!own) return {};
      const used = own.parts.filter((p) => p.ml > 0).map((p) => ({ name: p.name.slice(0, 120), ml: p.ml }));
      return {
        mixture: cupWords(own).slice(0, MIXTURE_LETTERS),
        used,
        ...(own.fromJar && own.fromJar.ml > 0 ? { fromJar: own.fromJar } : {}),
      };
    };
  }

  /** What is left over goes into a jar with its label. */
  async intoJar(ml: number): Promise<void> {
    const layer = this.last()?.layer ?? this.inHand.facts()?.layer;
    if (!layer) return;
    const until = goodUntil(layer.family, instantOf(this.clock.read()));
    const entry: New<EntryOf<'jar'>> = {
      kind: 'jar',
      jar: this.newId(),
      mixture: labelOf(layer),
      family: layer.family,
      ml,
      ...(until ? { until } : {}),
    };
    const { isSaved } = await this.logbook.add(entry);
    if (!isSaved) return this.notices.tell(`The jar ${NOT_SAVED_YET}`);
    this.last.set(null);
    this.notices.tell(
      `Label it: “${labelOf(layer)}, ${ml} ml${until ? `, good until ${until.slice(0, 10)}` : ''}”. It is offered when the same mix comes again.`,
    );
  }
}
