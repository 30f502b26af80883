/** Practice of the eye: a coat of the plan dries faster than life, and one says when it may be touched, gone over, or is too late. */
import type { Plan, PlanStep } from '#core/plan';

export type EyeQuestion = 'touch' | 'over' | 'lift' | 'late';

export interface EyeTask {
  readonly key: string;
  readonly question: EyeQuestion;
  readonly step: PlanStep;
  /** minutes after the coat went on, in this plan's air: when it is so, and when all is over */
  readonly truth: number;
  readonly whole: number;
}

/** What can be seen and felt of a coat, each from 1 (wet) to 0 (dry). */
export interface Surface {
  readonly gloss: number;
  readonly cool: number;
  readonly tack: number;
}

const OVERTIME = 1.3;
/** Less than this is over before one has looked. */
const LEAST_MINUTES = 4;

/** What there is to practise on: each layer of the plan that dries once, with every question that it has an answer to. */
export function eyeTasks(plan: Plan): EyeTask[] {
  const tasks = new Map<string, EyeTask>();
  for (const step of plan.steps.values()) {
    const dry = step.tide.dryAt - step.end;
    if (dry < LEAST_MINUTES) continue;
    const closes = step.gate?.closes ?? null;
    const put = (question: EyeQuestion, truth: number): void => {
      const key = `${step.recipe.id} ${step.layer.id} ${question}`;
      const whole = OVERTIME * Math.max(dry, closes === null ? 0 : closes - step.end);
      if (truth > 0 && !tasks.has(key)) tasks.set(key, { key, question, step, truth, whole });
    };
    if (step.gate && closes !== null) {
      // Within a window it is never dry: it can be worked or lifted, and then no more.
      put('lift', step.gate.opens - step.end);
      put('late', closes - step.end);
    } else {
      put('touch', step.tide.wetUntil - step.end);
      put('over', dry);
    }
  }
  return [...tasks.values()];
}

/** How a coat looks so many minutes after it went on, by its own tide. */
export function surfaceAt({ tide, end }: PlanStep, minute: number): Surface {
  const touch = Math.max(0.5, tide.wetUntil - end);
  const dry = Math.max(touch + 0.5, tide.dryAt - end);
  // Wet gloss turns to satin about when it may be touched, and dull as it dries.
  const satin = falling(minute / touch, 1, 0.12);
  const dull = falling(minute / dry, 0.9, 0.1);
  return {
    gloss: 0.55 * satin + 0.4 * dull,
    cool: falling(minute / touch, 0.9, 0.1),
    tack: Math.max(0, Math.min(1, 1 - Math.max(0, minute - 0.5 * touch) / (dry - 0.5 * touch))),
  };
}

/** From 1 to 0 about `middle`. */
function falling(x: number, middle: number, width: number): number {
  return 1 / (1 + Math.exp((x - middle) / width));
}

/** One answer: both in minutes of this air. */
export interface EyeAnswer {
  readonly question: EyeQuestion;
  readonly said: number;
  readonly truth: number;
}

/** A twentieth off is as good as right. */
const RIGHT = 0.05;

/** In words how far off it was. */
export function howFar({ said, truth }: EyeAnswer): string {
  const off = said - truth;
  if (Math.abs(off) <= RIGHT * truth) return 'right, to a twentieth';
  const minutes = Math.max(1, Math.round(Math.abs(off)));
  return `${minutes} min too ${off < 0 ? 'soon' : 'late'}`;
}

/** How far off answers are on average, as a share of the truth; null without any. */
export function meanMiss(answers: readonly EyeAnswer[]): number | null {
  if (answers.length === 0) return null;
  return answers.reduce((sum, a) => sum + Math.abs(a.said - a.truth) / a.truth, 0) / answers.length;
}
