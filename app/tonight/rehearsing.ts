/** A rehearsal of an evening: its clock, what it has in store, and what that does. All of it goes when it ends. */
import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import * as z from 'zod';
import { instantAfter } from '#core/muster';
import {
  comingUp,
  fogOn,
  isAnswered,
  isDue,
  surpriseSchema,
  surprisesOf,
  type Surprise,
} from '#core/session';
import { BenchClock } from '../data/benchClock';
import { Logbook } from '../data/logbook';
import { Notices } from '../data/notices';
import { Planner } from '../data/planner';
import { recall, remember } from '../data/tabMemory';
import { Evening } from './evening';
import { RunInHand } from './runInHand';

/** What this tab remembers: how many rehearsals it has had, and what the present one still has in store. */
const REHEARSALS = 'patient-muster rehearsals';
const SURPRISES = 'patient-muster surprises';
const storeSchema = z.strictObject({ left: z.array(surpriseSchema), come: z.array(z.string()) });
type InStore = z.infer<typeof storeSchema>;

/** The doorbell. */
const LOST_MINUTES = 15;

@Injectable()
export class Rehearsing {
  private readonly inHand = inject(RunInHand);
  private readonly evening = inject(Evening);
  private readonly clock = inject(BenchClock);
  private readonly logbook = inject(Logbook);
  private readonly planner = inject(Planner);
  private readonly notices = inject(Notices);

  /** drawn when it began, whatever is planned since */
  private readonly store = signal<InStore>(kept());
  /** What has just come up, and waits to be dealt with. */
  readonly surprise = computed((): Surprise | null => {
    const plan = this.inHand.plan();
    if (!this.clock.rehearsal() || !plan) return null;
    const log = this.logbook.entries();
    return (
      this.store().left.find((s) => isDue(s, log, this.inHand.minute()) && !isAnswered(s, plan, log)) ?? null
    );
  });

  constructor() {
    effect(() => {
      const s = this.surprise();
      if (s && !untracked(this.store).come.includes(s.id)) untracked(() => this.comesUp(s));
    });
  }

  /** Rehearses this session, or the next one from its beginning. */
  begin(): void {
    const plan = this.inHand.plan();
    const at = this.evening.session();
    if (!plan) return;
    const start = at?.current ? null : (at?.next?.start ?? null);
    const session = at?.current ?? at?.next;
    const seed = 1 + Number(recall(REHEARSALS) ?? 0);
    remember(REHEARSALS, String(seed));
    this.put({ left: session ? surprisesOf(plan, session, seed) : [], come: [] });
    this.clock.rehearse(start === null ? this.clock.read() : new Date(instantAfter(plan.origin, start)), 20);
  }

  dealtWith(surprise: Surprise): void {
    this.put({ ...this.store(), left: this.store().left.filter((s) => s.id !== surprise.id) });
  }

  /** To the next moment that matters: the run in hand begins or ends, or something on the shelf opens, shuts or is dry. */
  jump(): void {
    if (!this.inHand.plan()) return;
    const next = comingUp(this.inHand.minute(), this.inHand.run(), this.evening.shelf(), this.store().left);
    if (next === null) return this.notices.tell('Nothing is coming up.');
    this.goTo(next);
  }

  /** What it does by itself: once, also when the page is opened again. */
  private comesUp(surprise: Surprise): void {
    this.put({ ...this.store(), come: [...this.store().come, surprise.id] });
    const now = this.inHand.minute();
    if (surprise.does === 'time') this.goTo(now + LOST_MINUTES);
    if (surprise.does !== 'fog') return;
    const slower = fogOn(this.evening.coats(), now);
    if (slower.length === 0) return;
    void this.logbook.addAll(slower).then(() => this.planner.replan());
  }

  private goTo(minute: number): void {
    const plan = this.inHand.plan();
    if (!plan) return;
    this.clock.rehearse(
      new Date(instantAfter(plan.origin, Math.ceil(minute))),
      this.clock.rehearsal()?.speed ?? 1,
    );
  }

  private put(store: InStore): void {
    this.store.set(store);
    remember(SURPRISES, JSON.stringify(store));
  }
}

function kept(): InStore {
  const nothing: InStore = { left: [], come: [] };
  try {
    return storeSchema.safeParse(JSON.parse(recall(SURPRISES) ?? 'null')).data ?? nothing;
  } catch {
    return nothing;
  }
}
