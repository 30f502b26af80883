/** Before a session: what to lay out, in order. After it: what must be left alone until when, and what opens meanwhile. */
import { isFor, isSolvent, isWashable, maskingOf } from '#core/recipe';
import { familyOf, methodOf } from '#core/materials';
import type { Resting } from './shelf';
import { clockTime, listed, moment, type Plan, type PlanSession, type PlanStep } from '#core/plan';

export interface LaidOut {
  readonly group: 'Paints to shake' | 'Cups' | 'Tools' | 'Masks' | 'Protection' | 'Water and cloths';
  readonly text: string;
}

/** Everything the session's open steps ask for, group by group, in the order of first use. */
export function layOut(plan: Plan, session: PlanSession, done: ReadonlySet<string>): LaidOut[] {
  const steps = session.steps.filter((s) => !done.has(s.id));
  const lines: LaidOut[] = [];
  const put = (group: LaidOut['group'], text: string): void => {
    if (!lines.some((l) => l.group === group && l.text === text)) lines.push({ group, text });
  };
  const paints = new Map<string, PlanStep>();
  for (const s of steps)
    if (s.layer.mixture !== '' && !paints.has(s.layer.mixture)) paints.set(s.layer.mixture, s);
  for (const s of steps)
    if (s.layer.wetWith !== undefined)
      put('Paints to shake', `${s.layer.wetWith}, wet into wet with “${s.layer.name}”: both loads at once`);
  for (const [mixture, s] of paints)
    put(
      'Paints to shake',
      `${mixture}, from ${clockTime(plan.origin, s.start)} (${methodOf(s.layer.method).name})`,
    );
  const sprayed = [...paints.values()].filter((s) => s.layer.method === 'airbrush').length;
  const mixed = [...paints.values()].filter((s) => s.layer.method !== 'can').length;
  if (mixed > 0)
    put(
      'Cups',
      `${mixed} mixing ${mixed === 1 ? 'cup' : 'cups'}, labelled${sprayed > 0 ? `, and the cleaning pot for ${sprayed} loads` : ''}`,
    );
  const masked = new Map<string, number>();
  for (const { layer } of steps)
    if (maskingOf(layer)) masked.set(layer.name, (masked.get(layer.name) ?? 0) + 1);
  for (const [name, n] of masked) put('Masks', `${name}: for ${n} ${n === 1 ? 'piece' : 'pieces'}`);
  for (const s of steps) {
    const { layer } = s;
    if (layer.method === 'airbrush')
      put('Tools', layer.nozzleMm ? `Airbrush, ${layer.nozzleMm} mm nozzle` : 'Airbrush');
    if (layer.applicator) put('Tools', `${layer.applicator}, for “${layer.name}”`);
    if (layer.method === 'brush' && !layer.applicator) put('Tools', 'Brushes, and the palette');
    if (layer.method === 'sponge' && !layer.applicator) put('Tools', 'Sponge and tweezers');
    if (isFor('mark')(layer)) put('Tools', 'Pens and graphite');
    if (layer.method === 'pour') put('Tools', 'Pouring cup, level');
    const masking = maskingOf(layer);
    if (masking) put('Tools', masking.tools);
    if (layer.task === 'unmask') put('Tools', 'Fine tweezers');
    if (layer.task === 'decal' || layer.task === 'softener') put('Tools', 'Decal tweezers and a soft brush');
    if (layer.task === 'polish') put('Tools', 'Polishing cloth');
    if (layer.method === 'airbrush' || layer.method === 'can')
      put('Protection', 'Respirator that fits the product, extraction on');
    if (familyOf(layer.family).drying === 'solvent' || familyOf(layer.family).drying === 'oxidation')
      put('Protection', 'Gloves, open window, closed metal bin for rags');
    if (familyOf(layer.family).hazards.includes('dust')) put('Protection', 'Dust mask and eye protection');
    if (masking?.isCut) put('Protection', 'Eye protection for trimming');
    if (layer.task === 'decal' || layer.task === 'lift' || layer.task === 'rinse' || isWashable(layer))
      put('Water and cloths', 'Warm (not hot) water and a soft brush');
    if (familyOf(layer.family).drying === 'water' && layer.method !== 'can')
      put('Water and cloths', 'Clean water');
    if (layer.task === 'wipe' || isSolvent(layer))
      put('Water and cloths', 'Thinner in a lidded jar, lint-free swabs');
  }
  const order: LaidOut['group'][] = [
    'Paints to shake',
    'Cups',
    'Tools',
    'Masks',
    'Protection',
    'Water and cloths',
  ];
  return order.flatMap((g) => lines.filter((l) => l.group === g));
}

/** What of a session dries longest among that which can be begun at once: everything else fits into its drying. Null where nothing dries long. */
export function driesLongest(
  session: PlanSession,
  done: ReadonlySet<string>,
): { readonly step: PlanStep; readonly pieces: number; readonly dries: number } | null {
  const begun = new Set<string>();
  const first = session.steps.filter((s) => {
    if (done.has(s.id) || begun.has(s.piece.id)) return false;
    begun.add(s.piece.id);
    return true;
  });
  const dries = (s: PlanStep): number => s.tide.dryAt - s.end;
  const longest = first.reduce<PlanStep | null>((a, b) => (a && dries(a) >= dries(b) ? a : b), null);
  if (!longest || dries(longest) < WORTH_MINUTES || first.every((s) => s.layer.id === longest.layer.id))
    return null;
  return {
    step: longest,
    pieces: first.filter((s) => s.layer.id === longest.layer.id && s.recipe.id === longest.recipe.id).length,
    dries: dries(longest),
  };
}

/** Shorter than that it does not matter when it is begun. */
const WORTH_MINUTES = 45;

const ROUNDED_MINUTES = 10;

export interface LeftBehind {
  /** nobody may touch these, until … */
  readonly untouchable: readonly string[];
  /** windows that open, or shut, before the next session begins */
  readonly meanwhile: readonly { readonly text: string; readonly isLost: boolean }[];
}

/**
 * What a session leaves when everyone goes.
 * @param coats that stand on the shelf, by when they were really put on
 * @param until when the next session begins; Infinity when there is none
 */
export function leftBehind(
  { origin }: Pick<Plan, 'origin'>,
  coats: readonly Resting[],
  now: number,
  until: number,
): LeftBehind {
  const wet = new Map<number, string[]>();
  const meanwhile: { minute: number; text: string; isLost: boolean }[] = [];
  for (const { step: s, touchAt, gate } of coats) {
    if (touchAt > now) {
      // Rounded up, so that what dries together is said together.
      const at = Math.ceil(touchAt / ROUNDED_MINUTES) * ROUNDED_MINUTES;
      wet.set(at, [...(wet.get(at) ?? []), `${s.piece.name} (${s.layer.name})`]);
    }
    if (!gate) continue;
    const { opens, closes } = gate;
    const name = `“${s.layer.name}” on ${s.piece.name}`;
    if (opens > now && opens < until)
      meanwhile.push({
        minute: opens,
        text: `${name} opens ${moment(origin, Math.ceil(opens))}`,
        isLost: false,
      });
    if (closes > now && closes < until)
      meanwhile.push({
        minute: closes,
        text: `${name} shuts ${moment(origin, Math.floor(closes))}, before anyone is back: finish it now, or reseal it next time`,
        isLost: true,
      });
  }
  return {
    untouchable: [...wet]
      .sort(([a], [b]) => a - b)
      .map(([at, names]) => `Until ${moment(origin, at)}: ${listed(names, 4)}`),
    meanwhile: meanwhile.sort((a, b) => a.minute - b.minute).map(({ text, isLost }) => ({ text, isLost })),
  };
}
