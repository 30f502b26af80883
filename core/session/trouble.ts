/**
 * What goes wrong, and what can be done about it on the piece as it stands. Common practice, no source. A cure is
 * work with its drying, or steps that have to be done again; the plan takes up either.
 */
import { isFor, isWash, plannedMinutes, takenBackOf, zonesOf } from '#core/recipe';
import type { Layer } from '#core/muster';
import { handsOnMinutes, type Plan, type PlanStep } from '#core/plan';
import { type Ended, endedSteps, type LogEntry, type New, standing } from '#core/log';

export interface Cure {
  readonly trouble: string;
  readonly cure: string;
  /** minutes of hands, and of drying before anything follows */
  readonly minutes: number;
  readonly dryMinutes: number;
}

/** A cure for one piece, at its place. */
export interface PieceCure extends Cure {
  /** the step that it is logged on: that of the trouble */
  readonly on: PlanStep;
  /** steps that have to be done again; empty: the cure is work of its own */
  readonly again: readonly PlanStep[];
}

type Entry = Cure & { readonly fits: (l: Layer) => boolean };

const cure = (
  trouble: string,
  text: string,
  minutes: number,
  dryMinutes: number,
  fits: Entry['fits'],
): Entry => ({ trouble, cure: text, minutes, dryMinutes, fits });
const isLift = (l: Layer): boolean => l.task === 'lift';
const isSpray = (l: Layer): boolean => l.method === 'airbrush' || l.method === 'can';
const any = (): boolean => true;

/** The window was shut: the medium had hardened. */
export const WILL_NOT_LIFT = 'Will not lift';

const CURES: readonly Entry[] = [
  cure('Lifted too much', 'Let it dry, touch in or stipple topcoat', 8, 20, isLift),
  cure('Lifted too much', 'Cover it with mud', 6, 240, isLift),
  cure(WILL_NOT_LIFT, 'More and warmer water, a stiffer brush', 10, 20, isLift),
  cure(WILL_NOT_LIFT, 'Chip by sponge instead', 8, 15, isLift),
  cure('Paint swells up in blisters', 'Too wet: leave it to settle', 1, 60, isLift),
  cure('Decal silvered', 'Prick it, softener again', 4, 60, (l) => l.task === 'decal'),
  cure('Decal silvered', 'Chip the decal away there', 5, 15, (l) => l.task === 'decal'),
  cure('Tide mark', 'Damp edge within the hour, dry sponge', 4, 30, isWash),
  cure('Tide mark', 'Make it dirt', 5, 60, isWash),
  cure('Streak too strong', 'Thinner while it can be worked', 3, 30, isWash),
  cure('Streak too strong', 'A glaze over it', 5, 60, isWash),
  cure('Pooled', 'Wick it at once', 2, 10, isFor('release', 'wash')),
  cure('Frosted matt', 'Gloss over, then matt again, thinner', 8, 120, isFor('seal')),
  cure('Sponge pattern repeats', 'Turn the sponge, blend', 4, 15, (l) => l.method === 'sponge'),
  cure(
    'Effect vanished under varnish',
    'Repeat it stronger after sealing; test on a spare',
    10,
    60,
    isFor('seal'),
  ),
  cure('Hair or dust in a wet coat', 'Let it dry, polish, recoat there', 8, 60, isSpray),
  cure('Part fell off', 'Glue it, touch in', 8, 60, any),
  cure('Forgot a detail', 'Paint it; seal again there if its paint goes under the seal', 8, 60, any),
];

/** Leaving it: the window no longer holds the plan, and nothing is done. */
const ACCEPTED: Cure = { trouble: 'Missed window', cure: 'Leave it as it is', minutes: 0, dryMinutes: 0 };

/**
 * The cures for a step in hand or on the shelf, the particular ones first: those of its own layer, those of a window under way beneath it,
 * and what has been written at this bench before.
 */
export function curesFor(plan: Plan, log: readonly LogEntry[], step: PlanStep): PieceCure[] {
  const ended = endedSteps(log);
  const windows = windowsAround(plan, ended, step);
  return [
    ...windows.flatMap((base) => [againFrom(plan, ended, base), { ...ACCEPTED, on: base, again: [] }]),
    ...takingBack(plan, ended, step),
    ...CURES.filter((c) => c.fits(step.layer)).map(({ trouble, cure: text, minutes, dryMinutes }) => ({
      trouble,
      cure: text,
      minutes,
      dryMinutes,
      on: step,
      again: [],
    })),
    ...ownCures(log).map((c) => ({ ...c, on: step, again: [] })),
  ];
}

/** Done steps whose window the step belongs to: its own, or that of a coat beneath that waits for it. */
function windowsAround(plan: Plan, ended: Ended, step: PlanStep): PlanStep[] {
  return [...plan.steps.values()].filter(
    (s) =>
      s.piece.id === step.piece.id &&
      s.gate?.closes != null &&
      ended.get(s.id)?.kind === 'done' &&
      (s.id === step.id || s.gate.steps.includes(step.id)),
  );
}

/** What lies on the same zones of the piece, or is in hand, and can still be taken back: off with it, and once more. */
function takingBack(plan: Plan, ended: Ended, step: PlanStep): PieceCure[] {
  const zones = new Set(zonesOf(step.recipe, step.layer));
  const own = [...plan.steps.values()].filter((s) => s.piece.id === step.piece.id);
  const isOn = (layer: Layer): boolean =>
    own.some((s) => s.layer.id === layer.id && ended.get(s.id)?.kind === 'done');
  return own.flatMap((s): PieceCure[] => {
    const back = takenBackOf(s.recipe, s.layer);
    const isDone = ended.get(s.id)?.kind === 'done';
    if (!back || (!isDone && s.id !== step.id) || (back.until && isOn(back.until))) return [];
    if (!zonesOf(s.recipe, s.layer).some((z) => zones.has(z))) return [];
    return [
      {
        trouble: 'Not as it should be',
        cure: `Take “${s.layer.name}” back (${back.by})${isDone ? ', and once more' : ', and begin anew'}`,
        minutes: isDone ? againMinutes(s) : handsOnMinutes(plan, s),
        dryMinutes: isDone ? Math.round(Math.max(0, s.tide.dryAt - s.end)) : 0,
        on: s,
        again: isDone ? [s] : [],
      },
    ];
  });
}

/** Minutes of hands to put a coat on once more: as it is planned. How long it took, or when it was ticked, says nothing of that. */
function againMinutes({ layer, piece }: PlanStep): number {
  return plannedMinutes(layer, piece.count);
}

/** The sandwich from its seal on: the seal beneath, the coat whose window it is, and whatever of it was done since. */
function againFrom(plan: Plan, ended: Ended, base: PlanStep): PieceCure {
  const zones = new Set(zonesOf(base.recipe, base.layer));
  const own = [...plan.steps.values()].filter(
    (s) =>
      s.piece.id === base.piece.id &&
      ended.get(s.id)?.kind === 'done' &&
      zonesOf(s.recipe, s.layer).some((z) => zones.has(z)),
  );
  const last = Math.max(
    base.layerIndex,
    ...base.gate!.steps.map((id) => plan.steps.get(id)?.layerIndex ?? base.layerIndex),
  );
  const seal = own
    .filter((s) => s.layerIndex < base.layerIndex && isFor('seal')(s.layer))
    .reduce<PlanStep | null>((a, b) => (a && a.layerIndex >= b.layerIndex ? a : b), null);
  const again = [
    ...(seal ? [seal] : []),
    ...own.filter((s) => s.layerIndex >= base.layerIndex && s.layerIndex <= last),
  ].sort((a, b) => a.layerIndex - b.layerIndex || a.round - b.round);
  return {
    trouble: 'Missed window',
    cure: `${seal ? 'Seal it again and start' : 'Start'} the sandwich again: ${again.map((s) => s.layer.name).join(', ')}`,
    minutes: again.reduce((sum, s) => sum + againMinutes(s), 0),
    dryMinutes: Math.round(again.reduce((sum, s) => sum + Math.max(0, s.tide.dryAt - s.end), 0)),
    on: base,
    again,
  };
}

/** Cures that were written by hand at this bench, the newest first, each once. */
export function ownCures(log: readonly LogEntry[]): Cure[] {
  const known = new Set(CURES.map(nameOf));
  const own = new Map<string, Cure>();
  for (const e of [...standing(log)].reverse())
    if (e.kind === 'rework' && !e.again && e.minutes > 0 && !known.has(nameOf(e)) && !own.has(nameOf(e)))
      own.set(nameOf(e), { trouble: e.trouble, cure: e.cure, minutes: e.minutes, dryMinutes: e.dryMinutes });
  return [...own.values()];
}

function nameOf({ trouble, cure: text }: Pick<Cure, 'trouble' | 'cure'>): string {
  return `${trouble}\n${text}`;
}

/** What the log is to say when a cure is taken. */
export function reworkEntry({ on, again, ...of }: PieceCure): New<LogEntry> {
  return {
    kind: 'rework',
    step: on.id,
    trouble: of.trouble.slice(0, 80),
    cure: of.cure.slice(0, 200),
    minutes: Math.min(600, of.minutes),
    dryMinutes: Math.min(20_160, of.dryMinutes),
    ...(again.length > 0 ? { again: again.map((s) => s.id) } : {}),
  };
}
