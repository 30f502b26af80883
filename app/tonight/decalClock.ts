import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import * as z from 'zod';
import type { PlanStep } from '#core/plan';
import { decalSchema, decalsFor, deedOf, nextDecalDeed, withDeedDone, type Decal } from '#core/session';
import { BenchClock } from '../data/benchClock';
import { Database } from '../data/database';
import { Button } from '../ui/button';
import { BenchAlarms } from './benchAlarms';
import { Sound } from './sound';

const KEPT = 'markings under way';
const listSchema = z.array(decalSchema).max(500);
const WORDS = {
  waiting: 'not begun',
  wet: 'in the water',
  set: 'setting',
  soft: 'softening',
  done: 'lies flat',
} as const;

/** The markings of the run in hand, each with its clock: what the hands do now in one large press. Outlives a reload. */
@Component({
  selector: 'pm-decal-clock',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button],
  template: `
    <section aria-label="Markings under way">
      <h2 class="text-[1rem] text-lamp">Markings under way</h2>
      @if (next(); as n) {
        <button pmButton="lamp" class="big my-2 w-full" (click)="done(n.decal.step)">
          {{ nameOf(n.decal.step) }}: {{ n.deed }}
        </button>
      } @else {
        <p class="my-2" role="status">{{ waitWords() }}</p>
      }
      <ul class="grid gap-x-6 gap-y-1 sm:grid-cols-2">
        @for (row of rows(); track row.step) {
          <li class="flex items-baseline gap-2">
            <strong class="min-w-0 grow">{{ row.name }}</strong>
            <span [class]="row.isOver ? 'font-semibold text-shut' : 'text-mute'">{{ row.text }}</span>
          </li>
        }
      </ul>
      @if (mind(); as text) {
        <p class="mt-1 text-[0.95rem] text-wet">{{ text }}</p>
      }
    </section>
  `,
})
export class DecalClock {
  /** of the run in hand */
  readonly steps = input.required<readonly PlanStep[]>();
  private readonly clock = inject(BenchClock);
  private readonly database = inject(Database);
  private readonly alarms = inject(BenchAlarms);
  private readonly sound = inject(Sound);

  /** as they were last kept; null: not read yet */
  private readonly kept = signal<readonly Decal[] | null>(null);
  private readonly now = computed(() => this.clock.now().getTime());
  private readonly decals = computed((): readonly Decal[] =>
    decalsFor(
      this.steps().map((s) => s.id),
      this.kept() ?? [],
      0,
    ),
  );
  protected readonly next = computed(() => nextDecalDeed(this.decals(), this.now()));
  private readonly names = computed(() => new Map(this.steps().map((s) => [s.id, s.piece.name])));

  protected readonly rows = computed(() =>
    this.decals().map((d) => {
      const deed = deedOf(d);
      const left = deed ? Math.ceil((deed.from - this.now()) / 60_000) : 0;
      const isOver = deed?.by != null && deed.by < this.now();
      const wait = d.stage === 'waiting' || left <= 0 ? '' : `, ${left} min`;
      return {
        step: d.step,
        name: this.nameOf(d.step),
        isOver,
        text: `${WORDS[d.stage]}${isOver ? ': now' : wait}`,
      };
    }),
  );
  protected readonly mind = computed(() => {
    const minds = this.decals().flatMap((d) => {
      const deed = deedOf(d);
      return deed && deed.mind !== '' && deed.from > this.now()
        ? [`${this.nameOf(d.step)}: ${deed.mind}`]
        : [];
    });
    return minds.length > 0 ? minds.join('. ') : null;
  });
  protected readonly waitWords = computed(() => {
    const open = this.decals().flatMap((d) => deedOf(d) ?? []);
    if (open.length === 0) return 'All of them lie flat. The seal goes on when they are dry.';
    const soonest = open.reduce((a, b) => (b.from < a.from ? b : a));
    const minutes = Math.max(1, Math.ceil((soonest.from - this.now()) / 60_000));
    return `Nothing for ${minutes} min; then ${this.nameOf(soonest.decal.step)}: ${soonest.deed.toLowerCase()}.`;
  });

  constructor() {
    void this.database
      .setting(KEPT)
      .then((text) => {
        const read = listSchema.safeParse(JSON.parse(text ?? '[]'));
        this.kept.set(read.success ? read.data : []);
      })
      .catch(() => this.kept.set([]));
    // It rings when one that waited may be gone on with.
    let rung = '';
    effect(() => {
      const next = this.next();
      const key = next && next.decal.stage !== 'waiting' ? `${next.decal.step} ${next.decal.stage}` : '';
      if (key === rung) return;
      rung = key;
      if (key !== '') untracked(() => this.alarms.on() && this.sound.ring(next?.decal.stage === 'wet'));
    });
  }

  protected nameOf(step: string): string {
    return this.names().get(step) ?? '';
  }

  protected done(step: string): void {
    const list = withDeedDone(this.decals(), step, this.clock.read().getTime());
    this.kept.set(list);
    // Lost with a full disk is only where each stands: the log is written by “Done”.
    this.database.keepSetting(KEPT, JSON.stringify(list)).catch(() => undefined);
  }
}
