import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import * as z from 'zod';
import { familyOf } from '#core/materials';
import { duration } from '#core/plan';
import { eyeTasks, howFar, meanMiss, surfaceAt, type EyeAnswer, type EyeTask } from '#core/session';
import { Database } from '../data/database';
import { Planner } from '../data/planner';
import { Button } from '../ui/button';

const RECORD = 'practice of the eye';
/** So many answers are remembered, and so many make the figure that is shown. */
const KEPT = 200;
const LAST = 10;
/** A whole drying goes by in so many seconds. */
const SECONDS = 24;
const recordSchema = z.array(
  z.strictObject({
    question: z.enum(['touch', 'over', 'lift', 'late']),
    said: z.number().min(0),
    truth: z.number().positive(),
  }),
);

const ASKED: Readonly<Record<EyeTask['question'], string>> = {
  touch: 'Press when it may be touched',
  over: 'Press when the next layer may go on',
  lift: 'Press when it may be worked or lifted',
  late: 'Press just before it is too late',
};

/** A lit swatch that dries before one's eyes, faster than life, by the program's own clocks; told how far off one was. */
@Component({
  selector: 'pm-practice-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Button, RouterLink],
  template: `
    <div class="mx-auto max-w-[52rem] p-5">
      <h1 class="text-[1.8rem]">Practise your eye</h1>
      <p class="text-mute">
        Coats of your own plan dry here faster than life, by the same clocks that the plan goes by. Nothing of
        it is logged.
      </p>
      @if (task(); as t) {
        <p class="mt-4 text-[1.3rem]">
          <strong>{{ asked() }}</strong>
          <span class="text-mute">
            · {{ t.step.layer.name }}, {{ family() }},
            {{ t.step.layer.coats === 1 ? 'one coat' : t.step.layer.coats + ' coats' }}</span
          >
        </p>
        <svg
          class="mt-3 block w-full rounded-lg border border-line"
          viewBox="0 0 600 260"
          role="img"
          [attr.aria-label]="seen()"
        >
          <defs>
            <radialGradient id="lit" cx="38%" cy="30%" [attr.r]="light().reach">
              <stop offset="0%" stop-color="#fff" [attr.stop-opacity]="light().strength" />
              <stop offset="100%" stop-color="#fff" stop-opacity="0" />
            </radialGradient>
          </defs>
          <rect width="600" height="260" fill="var(--pleat)" />
          <rect x="60" y="30" width="480" height="200" rx="14" [attr.fill]="t.step.layer.colour" />
          <rect x="60" y="30" width="480" height="200" rx="14" fill="#000" [attr.opacity]="light().depth" />
          <rect x="60" y="30" width="480" height="200" rx="14" fill="url(#lit)" />
        </svg>
        <p class="mt-2 min-h-14 text-[1.15rem]" aria-live="polite">
          @if (answer(); as a) {
            <strong [class]="a.isRight ? 'text-open' : 'text-shut'" data-testid="verdict"
              >{{ a.words }}.</strong
            >
            You said {{ minutes(a.said) }}, in this air it is {{ minutes(a.truth) }}.
          } @else if (runs()) {
            {{ seen() }}
          }
        </p>
        <div class="mt-3 flex flex-wrap gap-2">
          @if (runs()) {
            <button pmButton="lamp" class="big grow" (click)="say()">Now</button>
          } @else {
            <button pmButton="lamp" class="big grow" (click)="begin()">
              {{ answer() ? 'Another coat' : 'Put the coat on' }}
            </button>
          }
          <a pmButton class="big" routerLink="/tonight">Back to the bench</a>
        </div>
        @if (record(); as r) {
          <p class="mt-4 text-mute" data-testid="record">{{ r }}</p>
        }
      } @else {
        <p class="mt-4" role="status">
          As soon as there is a plan with something that dries, its coats can be practised on.
        </p>
      }
    </div>
  `,
})
export class PracticeView {
  private readonly planner = inject(Planner);
  private readonly database = inject(Database);
  private frame = 0;
  private begunAt = 0;

  private readonly tasks = computed(() => {
    const plan = this.planner.plan();
    return plan ? eyeTasks(plan) : [];
  });
  /** the coat that is drying now: a plan that changes meanwhile does not change it */
  private readonly held = signal<EyeTask | null>(null);
  protected readonly task = computed(() => this.held() ?? this.tasks()[0] ?? null);
  /** minutes of drying gone by */
  private readonly minute = signal(0);
  protected readonly runs = signal(false);
  private readonly answers = signal<readonly EyeAnswer[]>([]);
  private readonly last = signal<EyeAnswer | null>(null);

  protected readonly asked = computed(() => (this.task() ? ASKED[this.task()!.question] : ''));
  protected readonly family = computed(() => familyOf(this.task()!.step.layer.family).name.toLowerCase());
  private readonly surface = computed(() => surfaceAt(this.task()!.step, this.minute()));
  /** A wet coat mirrors the lamp small and bright, and is deep in colour; a dull one spreads what light there is. */
  protected readonly light = computed(() => {
    const { gloss } = this.surface();
    return {
      strength: (0.08 + 0.85 * gloss * gloss).toFixed(3),
      reach: `${Math.round(75 - 55 * gloss)}%`,
      depth: (0.16 * gloss).toFixed(3),
    };
  });
  protected readonly seen = computed(() => {
    const { gloss, cool, tack } = this.surface();
    const look = gloss > 0.75 ? 'wet gloss' : gloss > 0.45 ? 'turning satin' : gloss > 0.2 ? 'satin' : 'dull';
    const lip = cool > 0.6 ? 'cool at the lip' : cool > 0.3 ? 'hardly cool' : 'not cool';
    const touch = tack > 0.7 ? 'sticky beside it' : tack > 0.25 ? 'tacky' : 'no tack';
    return `${look}, ${lip}, ${touch}`;
  });
  protected readonly answer = computed(() => {
    const a = this.last();
    const words = a && howFar(a);
    return a && words
      ? { ...a, words: words[0]!.toUpperCase() + words.slice(1), isRight: words.startsWith('right') }
      : null;
  });
  protected readonly record = computed(() => {
    const all = this.answers();
    const recent = meanMiss(all.slice(-LAST));
    const first = all.length > LAST ? meanMiss(all.slice(0, LAST)) : null;
    if (recent === null) return null;
    const percent = (x: number): string => `${Math.round(100 * x)} %`;
    return `Your last ${Math.min(LAST, all.length)}: off by ${percent(recent)} on average${
      first === null ? '' : `; your first ${LAST}: ${percent(first)}`
    }.`;
  });
  protected readonly minutes = (m: number): string => duration(Math.max(1, Math.round(m)));

  constructor() {
    void this.database
      .setting(RECORD)
      .then((text) => this.answers.set(recordSchema.safeParse(JSON.parse(text ?? '[]')).data ?? []))
      .catch(() => undefined);
    inject(DestroyRef).onDestroy(() => cancelAnimationFrame(this.frame));
  }

  protected begin(): void {
    const tasks = this.tasks();
    // A step that has no divisor in common with most lists, so that alike coats do not follow each other.
    this.held.set(tasks[(this.answers().length * 17) % Math.max(1, tasks.length)] ?? null);
    this.last.set(null);
    this.minute.set(0);
    this.runs.set(true);
    this.begunAt = performance.now();
    const dry = (): void => {
      const task = this.task();
      if (!task || !this.runs()) return;
      this.minute.set(((performance.now() - this.begunAt) / (SECONDS * 1000)) * task.whole);
      if (this.minute() >= task.whole) return this.say();
      this.frame = requestAnimationFrame(dry);
    };
    this.frame = requestAnimationFrame(dry);
  }

  /** “Now” was pressed, or nothing was till the end. */
  protected say(): void {
    const task = this.task();
    if (!task || !this.runs()) return;
    cancelAnimationFrame(this.frame);
    this.runs.set(false);
    const answer: EyeAnswer = { question: task.question, said: this.minute(), truth: task.truth };
    this.last.set(answer);
    this.answers.update((list) => [...list, answer].slice(-KEPT));
    this.database.keepSetting(RECORD, JSON.stringify(this.answers())).catch(() => undefined);
  }
}
