/**
 * Several markings under way at once, each with its own clock: trimmed and wet, slid on, softened, left to dry. What to do next is chosen so
 * that none soaks off its paper and the hands are never idle while another could be begun. Times: common practice, no source.
 */
import * as z from 'zod';

export const DECAL_STAGES = ['waiting', 'wet', 'set', 'soft', 'done'] as const;
export type DecalStage = (typeof DECAL_STAGES)[number];

export const decalSchema = z.strictObject({
  /** step on which it goes */
  step: z.string().max(200),
  stage: z.enum(DECAL_STAGES),
  /** milliseconds of the bench's clock at which that stage began */
  since: z.number(),
});
export type Decal = z.infer<typeof decalSchema>;

interface StageFacts {
  /** what is done to leave it */
  readonly deed: string;
  /** minutes that it must last */
  readonly wait: number;
  /** … and better not more than; null: no matter */
  readonly atMost: number | null;
  /** what may not be done meanwhile */
  readonly mind: string;
}

const STAGES: Readonly<Record<Exclude<DecalStage, 'done'>, StageFacts>> = {
  waiting: {
    deed: 'Trim it, setting solution on its place, into the water',
    wait: 0,
    atMost: null,
    mind: '',
  },
  wet: {
    deed: 'Slide it on, push it straight, dab it dry',
    wait: 1,
    atMost: 3,
    mind: 'floats off its paper when it soaks for long',
  },
  set: { deed: 'Softening solution over it', wait: 10, atMost: 20, mind: 'leave it flat: it still slides' },
  soft: {
    deed: 'Look at it: flat, no silver edge',
    wait: 50,
    atMost: null,
    mind: 'do not touch, it may wrinkle and lies down by itself',
  },
};

const MINUTE_MS = 60_000;

export interface DecalDeed {
  readonly decal: Decal;
  readonly deed: string;
  /** milliseconds of the bench's clock from which it may be done */
  readonly from: number;
  /** … and by which it should be; null: any time */
  readonly by: number | null;
  readonly mind: string;
}

/** What comes next for one of them; null: nothing more. */
export function deedOf(decal: Decal): DecalDeed | null {
  if (decal.stage === 'done') return null;
  const { deed, wait, atMost, mind } = STAGES[decal.stage];
  return {
    decal,
    deed,
    from: decal.since + wait * MINUTE_MS,
    by: atMost === null ? null : decal.since + atMost * MINUTE_MS,
    mind,
  };
}

/** Hands are at one of them for about so long. */
const HANDS_MS = 1.5 * MINUTE_MS;

/**
 * What the hands do now: what must not wait longer, then what is ready, then the next into the water unless something is due before it would be
 * through; null: everything waits, or nothing is left.
 */
export function nextDecalDeed(decals: readonly Decal[], now: number): DecalDeed | null {
  const deeds = decals.flatMap((d) => deedOf(d) ?? []);
  const ready = deeds.filter((d) => d.from <= now && d.decal.stage !== 'waiting');
  if (ready.length > 0) return ready.reduce((a, b) => ((b.by ?? Infinity) < (a.by ?? Infinity) ? b : a));
  const fresh = deeds.find((d) => d.decal.stage === 'waiting');
  const isSoonDue = deeds.some((d) => d.by !== null && d.by < now + HANDS_MS);
  return fresh && !isSoonDue ? fresh : null;
}

/** The list with one of them a stage further. */
export function withDeedDone(decals: readonly Decal[], step: string, now: number): Decal[] {
  return decals.map((d) => {
    if (d.step !== step || d.stage === 'done') return d;
    return { step, stage: DECAL_STAGES[DECAL_STAGES.indexOf(d.stage) + 1]!, since: now };
  });
}

/** Those of the run in hand: known ones as they are, new ones waiting, others gone. */
export function decalsFor(steps: readonly string[], known: readonly Decal[], now: number): Decal[] {
  return steps.map((step) => known.find((d) => d.step === step) ?? { step, stage: 'waiting', since: now });
}
