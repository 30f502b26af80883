/** What an evening can bring, for a rehearsal: drawn by seed from the session’s own plan, the same for the same seed. */
import * as z from 'zod';
import { seededRandom, type Random } from '#core/kernel';
import { instantAfter } from '#core/muster';
import { endedSteps, standing, type LogEntry, type New } from '#core/log';
import type { Plan, PlanSession } from '#core/plan';
import type { Resting } from './shelf';

export const surpriseSchema = z.strictObject({
  id: z.string(),
  /** minutes since the plan's origin */
  at: z.number(),
  text: z.string(),
  /** what the painter can do about it, in words */
  answer: z.string(),
  /** what it does by itself when it comes up: the air turns damp, time goes by */
  does: z.enum(['fog', 'time']).optional(),
  /** the step or piece that it is about */
  step: z.string().optional(),
  piece: z.string().optional(),
  /** the step whose coat it befalls: before that is on there is nothing to befall */
  coat: z.string().optional(),
  /** the entry that answers it */
  answeredBy: z.enum(['not-dry', 'rework', 'noted']),
});
export type Surprise = z.infer<typeof surpriseSchema>;

/** So many befall one evening. */
const FEWEST = 2;
const MOST = 4;

/** The surprises of a session by time; none where nothing is done in it. */
export function surprisesOf(plan: Plan, session: PlanSession, seed: number): Surprise[] {
  const random = seededRandom(seed * 7919 + session.index);
  const steps = session.steps.filter((s) => s.tide.dryAt > s.end);
  if (steps.length === 0) return [];
  const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const count = FEWEST + Math.floor(random() * (MOST - FEWEST + 1));
  const kinds = shuffled(KINDS, random).slice(0, count);
  return kinds
    .map((kind, k): Surprise => {
      const step = any(steps);
      const share = 0.15 + 0.7 * random();
      return { id: `${session.index} ${seed} ${k}`, ...kind(step, session, share) };
    })
    .sort((a, b) => a.at - b.at);
}

/** In another order, every order as likely as any other, and the same for a seed everywhere (Fisher and Yates). */
function shuffled<T>(list: readonly T[], random: Random): T[] {
  const all = [...list];
  for (let k = all.length - 1; k > 0; k--) {
    const other = Math.floor(random() * (k + 1));
    [all[k], all[other]] = [all[other]!, all[k]!];
  }
  return all;
}

type Kind = (step: PlanSession['steps'][number], session: PlanSession, share: number) => Omit<Surprise, 'id'>;

const within = (session: PlanSession, minute: number): number =>
  Math.min(session.end - 1, Math.max(session.start + 1, minute));
const after = (session: PlanSession, share: number): number =>
  within(session, session.start + share * (session.end - session.start));

const KINDS: readonly Kind[] = [
  (step, session) => ({
    at: within(session, step.tide.dryAt),
    text: `“${step.layer.name}” on ${step.piece.name} should be dry, and is still tacky.`,
    answer: 'Press “Not yet” at that coat on the shelf.',
    step: step.id,
    coat: step.id,
    answeredBy: 'not-dry',
  }),
  (_step, session, share) => ({
    at: after(session, share),
    text: 'Fog has come up: what is wet takes half as long again.',
    answer: 'The shelf has been told. Go on with what is dry, or plan on from now.',
    does: 'fog',
    answeredBy: 'noted',
  }),
  (step, session) => ({
    at: within(session, step.end + 1),
    text: `${step.piece.name} has fallen off the rack: a part is loose, and the coat is scuffed.`,
    answer: 'Open its coat on the shelf, press Trouble there, and take a cure.',
    piece: step.piece.id,
    coat: step.id,
    answeredBy: 'rework',
  }),
  (_step, session, share) => ({
    at: after(session, share),
    text: 'The doorbell: a quarter of an hour is gone.',
    answer: 'Under “More”: “Late? Plan on from now”.',
    does: 'time',
    answeredBy: 'noted',
  }),
  (step, session, share) => ({
    at: after(session, share),
    text: `There is a hair in “${step.layer.name}” on ${step.piece.name}.`,
    answer: 'Let it dry; Trouble, at its coat on the shelf, has the cure.',
    piece: step.piece.id,
    coat: step.id,
    answeredBy: 'rework',
  }),
];

/** What the fog adds to the drying that is left. */
const FOG = 0.5;

/** What a fog does to the coats that are wet: each needs half as long again as it would have. */
export function fogOn(coats: readonly Resting[], now: number): New<LogEntry>[] {
  return coats
    .filter((c) => c.dryAt > now && !c.isFoundDry)
    .map((c) => ({
      kind: 'not-dry',
      step: c.step.id,
      moreMinutes: Math.max(1, Math.min(10_080, Math.ceil((1 + FOG) * (c.dryAt - now)))),
    }));
}

/** Has the minute of a surprise come, and is the coat on that it befalls? */
export function isDue({ at, coat }: Surprise, log: readonly LogEntry[], minute: number): boolean {
  return at <= minute && (coat === undefined || endedSteps(log).get(coat)?.kind === 'done');
}

/** Has the painter done what a surprise asks for, since it came up? */
export function isAnswered(surprise: Surprise, plan: Plan, log: readonly LogEntry[]): boolean {
  const since = instantAfter(plan.origin, surprise.at);
  return standing(log).some((e) => {
    if (e.kind !== surprise.answeredBy || e.at < since) return false;
    const of = 'step' in e && e.step !== undefined ? plan.steps.get(e.step) : undefined;
    if (surprise.step !== undefined) return 'step' in e && e.step === surprise.step;
    return surprise.piece === undefined || of?.piece.id === surprise.piece;
  });
}
