/** What a plan takes from the shelves: by product and session, when each runs out, what to buy by which day. */
import { isSolvent } from '#core/recipe';
import { amountOf, mixOf, type Component } from '#core/amounts';
import { AmountError } from '#core/materials';
import {
  dateTimeAfter,
  storesOf,
  type Consumable,
  type Layer,
  type LocalDate,
  type Marking,
  type Muster,
  type Product,
  type Recipe,
} from '#core/muster';
import type { Plan, PlanStep } from '#core/plan';

export interface ProductUse {
  readonly name: string;
  /** the product of that name on the shelf; null when there is none */
  readonly product: Product | null;
  readonly neededMl: number;
  readonly leftMl: number;
  /** what is used in each session that uses any */
  readonly sessions: readonly { readonly session: number; readonly start: number; readonly ml: number }[];
  /** the session in which it runs out; null when it lasts */
  readonly runsOut: { readonly session: number; readonly start: number } | null;
}

export interface Shortage {
  readonly name: string;
  readonly what: 'product' | 'marking' | 'consumable';
  readonly missing: number;
  readonly unit: string;
  /** bottles to buy, where it comes in bottles */
  readonly bottles: number | null;
  readonly price: number | null;
  /** needed on this day */
  readonly day: LocalDate;
}

const keyOf = (name: string): string => name.trim().toLowerCase();

/** It comes from the tap. */
const isWater = (name: string): boolean => keyOf(name) === 'water';

/** What a layer is mixed of; nothing where its mixture cannot be read. */
function componentsOf(layer: Layer): readonly Component[] {
  try {
    return mixOf(layer).components;
  } catch (error) {
    if (error instanceof AmountError) return [];
    throw error;
  }
}

/** Whether a layer says what it is painted with; one that does not is asked about, never bought under its own name. */
const isNamed = (layer: Layer, shelf: ReadonlyMap<string, Product>): boolean =>
  layer.mixture.trim() !== '' || componentsOf(layer).some((c) => shelf.has(keyOf(c.name)));

/** Millilitres of each product that a step takes. */
function stepUse(
  step: PlanStep,
  shelf: ReadonlyMap<string, Product>,
): { readonly name: string; readonly ml: number }[] {
  const { ml } = amountOf(step.recipe, step.layer, step.piece);
  if (ml === 0 || step.round > 1 || !isNamed(step.layer, shelf)) return [];
  return componentsOf(step.layer)
    .filter((c) => !isWater(c.name))
    .map((c) => ({ name: c.name, ml: ml * c.share }));
}

const shelfOf = (muster: Muster): ReadonlyMap<string, Product> =>
  new Map(storesOf(muster).products.map((p) => [keyOf(p.name), p]));

/** A layer of the plan that takes paint and names none. */
export interface Unnamed {
  readonly recipe: Recipe;
  readonly layer: Layer;
  readonly ml: number;
}

/** Layers of which the plan cannot say what to buy, those that take most first. */
export function unnamedUses(muster: Muster, plan: Plan): Unnamed[] {
  const shelf = shelfOf(muster);
  const found = new Map<string, Unnamed>();
  for (const { recipe, layer, piece, round } of plan.steps.values()) {
    if (round > 1 || isNamed(layer, shelf)) continue;
    const { ml } = amountOf(recipe, layer, piece);
    if (ml === 0) continue;
    const key = `${recipe.id} ${layer.id}`;
    found.set(key, { recipe, layer, ml: ml + (found.get(key)?.ml ?? 0) });
  }
  return [...found.values()].sort((a, b) => b.ml - a.ml || a.layer.name.localeCompare(b.layer.name));
}

/** Every product that the plan uses, those that run out first. */
export function productUses(muster: Muster, plan: Plan): ProductUse[] {
  const shelf = shelfOf(muster);
  const uses = new Map<string, { name: string; bySession: Map<number, number> }>();
  for (const session of plan.sessions)
    for (const step of session.steps) {
      if (step.start < session.start || step.start >= session.end) continue;
      for (const { name, ml } of stepUse(step, shelf)) {
        const key = keyOf(name);
        const use = uses.get(key) ?? { name, bySession: new Map<number, number>() };
        use.bySession.set(session.index, (use.bySession.get(session.index) ?? 0) + ml);
        uses.set(key, use);
      }
    }
  for (const product of shelf.values())
    if (!uses.has(keyOf(product.name)))
      uses.set(keyOf(product.name), { name: product.name, bySession: new Map() });
  return [...uses.entries()]
    .map(([key, use]): ProductUse => {
      const product = shelf.get(key) ?? null;
      const leftMl = product?.leftMl ?? 0;
      let left = leftMl;
      let runsOut: ProductUse['runsOut'] = null;
      const sessions = [...use.bySession.entries()]
        .sort((a, b) => a[0] - b[0])
        .map(([session, ml]) => {
          const { start } = plan.sessions[session]!;
          left -= ml;
          if (left < -1e-9) runsOut ??= { session, start };
          return { session, start, ml };
        });
      return {
        name: product?.name ?? use.name,
        product,
        neededMl: sessions.reduce((sum, s) => sum + s.ml, 0),
        leftMl,
        sessions,
        runsOut,
      };
    })
    .sort(
      (a, b) =>
        (a.runsOut?.start ?? Infinity) - (b.runsOut?.start ?? Infinity) || a.name.localeCompare(b.name),
    );
}

export interface MarkingUse {
  readonly marking: Marking;
  readonly needed: number;
  /** first step that needs what is not there, minute; null when there are enough */
  readonly short: number | null;
}

export function markingUses(muster: Muster, plan: Plan): MarkingUse[] {
  return storesOf(muster).markings.map((marking) => {
    const steps = [...plan.steps.values()]
      .filter(
        (s) =>
          s.layer.task === 'decal' && s.round === 1 && (marking.unit === null || s.unit.id === marking.unit),
      )
      .sort((a, b) => a.start - b.start);
    const each = marking.policy === 'seen-sides' ? Math.ceil(marking.perPiece / 2) : marking.perPiece;
    let left = marking.left;
    let short: number | null = null;
    let needed = 0;
    for (const s of steps) {
      const n = each * s.piece.count;
      needed += n;
      left -= n;
      if (left < 0) short ??= s.start;
    }
    return { marking, needed, short };
  });
}

export interface ConsumableUse {
  readonly consumable: Consumable;
  readonly needed: number;
  readonly short: number | null;
}

export function consumableUses(muster: Muster, plan: Plan): ConsumableUse[] {
  const steps = [...plan.steps.values()].sort((a, b) => a.start - b.start);
  return storesOf(muster).consumables.map((consumable) => {
    let left = consumable.left;
    let needed = 0;
    let short: number | null = null;
    for (const s of steps) {
      if (!usesIt(consumable, s)) continue;
      needed += consumable.perStep;
      left -= consumable.perStep;
      if (left < -1e-9) short ??= s.start;
    }
    return { consumable, needed, short };
  });
}

function usesIt(consumable: Consumable, step: PlanStep): boolean {
  switch (consumable.usedBy) {
    case 'all':
      return true;
    case 'airbrush':
      return step.layer.method === 'airbrush';
    case 'sponge':
      return step.layer.method === 'sponge';
    case 'mask':
      return step.layer.task === 'mask' || step.layer.task === 'putty';
    case 'enamel':
      return isSolvent(step.layer) || step.layer.task === 'wipe';
  }
}

const USUAL_BOTTLE_ML = 17;

/** What is missing, by the day on which it is needed. */
export function shoppingList(muster: Muster, plan: Plan): Shortage[] {
  const day = (minute: number): LocalDate => dateTimeAfter(plan.origin, minute).slice(0, 10);
  const list: Shortage[] = [];
  for (const use of productUses(muster, plan)) {
    if (!use.runsOut) continue;
    const missing = use.neededMl - use.leftMl;
    const bottles = Math.ceil(missing / (use.product?.bottleMl ?? USUAL_BOTTLE_ML));
    list.push({
      name: use.name,
      what: 'product',
      missing,
      unit: 'ml',
      bottles,
      price: use.product?.price === undefined ? null : use.product.price * bottles,
      day: day(use.runsOut.start),
    });
  }
  for (const use of markingUses(muster, plan))
    if (use.short !== null)
      list.push({
        name: use.marking.name,
        what: 'marking',
        missing: use.needed - use.marking.left,
        unit: 'pieces',
        bottles: null,
        price: null,
        day: day(use.short),
      });
  for (const use of consumableUses(muster, plan))
    if (use.short !== null)
      list.push({
        name: use.consumable.name,
        what: 'consumable',
        missing: use.needed - use.consumable.left,
        unit: 'pieces',
        bottles: null,
        price: null,
        day: day(use.short),
      });
  return list.sort((a, b) => a.day.localeCompare(b.day) || a.name.localeCompare(b.name));
}
