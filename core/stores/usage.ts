/** What a plan takes from the shelves: by product and session, when each runs out, what to buy by which day. */
import { markingsWanted } from '#core/variety';
import { isSolvent, maskingOf } from '#core/recipe';
import { amountOf } from '#core/amounts';
import {
  componentsOf,
  dateTimeAfter,
  storesOf,
  TO_BE_CHOSEN,
  type Component,
  USUAL_BOTTLE_ML,
  type Consumable,
  type Layer,
  type LocalDate,
  type Marking,
  type Muster,
  type Product,
  type Recipe,
} from '#core/muster';
import type { Plan, PlanStep, StepRef } from '#core/plan';
import { endedSteps, standing, type EntryOf, type LogEntry } from '#core/log';

/** All that was done, done again included: a coat that went on twice has taken its paint twice. */
function workIn(log: readonly LogEntry[]): EntryOf<'done'>[] {
  return standing(log).filter((e) => e.kind === 'done');
}

/** Was it done after somebody counted what is there? */
function isAfterCount(e: LogEntry, { leftAt }: { readonly leftAt?: string | undefined }): boolean {
  return leftAt === undefined || e.at > leftAt;
}

export interface ProductUse {
  readonly name: string;
  /** the product of that name on the shelf; null when there is none */
  readonly product: Product | null;
  /** by what is still to be done */
  readonly neededMl: number;
  /** on the shelf now: what was there, less what the log has used since */
  readonly leftMl: number;
  readonly usedMl: number;
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
  /** bottles or sheets to buy, where it is known how much one holds */
  readonly packs: number | null;
  readonly price: number | null;
  /** needed on this day */
  readonly day: LocalDate;
}

export const keyOf = (name: string): string => name.trim().toLowerCase();

/** It comes from the tap. */
export const isWater = (name: string): boolean => keyOf(name) === 'water';

/** Whether a layer says what it is painted with; one that does not is asked about, never bought under its own name. */
const isNamed = (layer: Layer, shelf: ReadonlyMap<string, Product>): boolean =>
  (layer.mixture.trim() !== '' && !componentsOf(layer).some(isOpen)) ||
  componentsOf(layer).some((c) => shelf.has(keyOf(c.name)));

const isOpen = (c: Component): boolean => keyOf(c.name) === TO_BE_CHOSEN;

/** Millilitres of each product that a step takes. */
function stepUse(
  step: StepRef,
  shelf: ReadonlyMap<string, Product>,
): { readonly name: string; readonly ml: number }[] {
  const { ml } = amountOf(step.recipe, step.layer, step.piece);
  if (ml === 0 || step.round > 1 || !isNamed(step.layer, shelf)) return [];
  return componentsOf(step.layer)
    .filter((c) => !isWater(c.name) && !isOpen(c))
    .map((c) => ({ name: c.name, ml: ml * c.share }));
}

/** What a finished step took: as the log says, else as the plan computes it; nothing where neither knows. */
function takenBy(
  entry: EntryOf<'done'>,
  plan: Plan,
  shelf: ReadonlyMap<string, Product>,
): readonly { readonly name: string; readonly ml: number }[] {
  if (entry.used) return entry.used.filter((u) => !isWater(u.name));
  const step = plan.steps.get(entry.step);
  return step ? stepUse(step, shelf) : [];
}

/** Millilitres of each product that steps take. */
export function stepUses(
  muster: Muster,
): (step: StepRef) => readonly { readonly name: string; readonly ml: number }[] {
  const shelf = shelfOf(muster);
  return (step) => stepUse(step, shelf);
}

const shelfOf = (muster: Muster): ReadonlyMap<string, Product> =>
  new Map(storesOf(muster).products.map((p) => [keyOf(p.name), p]));

/** Does a layer say what it is painted with? One that does not is asked about: nothing of it can run out. */
export function namesPaint(muster: Muster, layer: Layer): boolean {
  return isNamed(layer, shelfOf(muster));
}

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
    if (round > 1 || (isNamed(layer, shelf) && !componentsOf(layer).some(isOpen))) continue;
    const { ml } = amountOf(recipe, layer, piece);
    if (ml === 0) continue;
    const key = `${recipe.id} ${layer.id}`;
    found.set(key, { recipe, layer, ml: ml + (found.get(key)?.ml ?? 0) });
  }
  return [...found.values()].sort((a, b) => b.ml - a.ml || a.layer.name.localeCompare(b.layer.name));
}

/** Millilitres of each product, by its key, that the log has used up since it was said how much there is. */
function spentMl(
  plan: Plan,
  log: readonly LogEntry[],
  shelf: ReadonlyMap<string, Product>,
): ReadonlyMap<string, number> {
  const used = new Map<string, number>();
  for (const entry of workIn(log))
    for (const { name, ml } of takenBy(entry, plan, shelf)) {
      const key = keyOf(name);
      if (isAfterCount(entry, shelf.get(key) ?? {})) used.set(key, (used.get(key) ?? 0) + ml);
    }
  return used;
}

const rest = (product: Product | null, usedMl: number): number =>
  Math.max(0, (product?.leftMl ?? 0) - usedMl);

/** Millilitres of each product that are on the shelf now, by its key. */
export function leftOnShelf(
  muster: Muster,
  plan: Plan,
  log: readonly LogEntry[],
): ReadonlyMap<string, number> {
  const shelf = shelfOf(muster);
  const used = spentMl(plan, log, shelf);
  return new Map([...shelf].map(([key, product]) => [key, rest(product, used.get(key) ?? 0)]));
}

/**
 * Every product that the plan uses, those that run out first.
 * @param log what is over needs nothing more, and has used what it took
 */
export function productUses(muster: Muster, plan: Plan, log: readonly LogEntry[] = []): ProductUse[] {
  const shelf = shelfOf(muster);
  const ended = endedSteps(log);
  const uses = new Map<string, { name: string; bySession: Map<number, number> }>();
  const used = spentMl(plan, log, shelf);
  for (const session of plan.sessions)
    for (const step of session.steps) {
      if (step.start < session.start || step.start >= session.end || ended.has(step.id)) continue;
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
      const usedMl = used.get(key) ?? 0;
      const leftMl = rest(product, usedMl);
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
        usedMl,
        sessions,
        runsOut,
      };
    })
    .sort(
      (a, b) =>
        (a.runsOut?.start ?? Infinity) - (b.runsOut?.start ?? Infinity) || a.name.localeCompare(b.name),
    );
}

/** “12.5 ml, 1 bottle”; what is missing, and what to buy for it */
export function missingWords({ what, missing, unit, packs }: Shortage): string {
  const much =
    unit === 'ml' ? (missing < 0.1 ? 'less than 0.1' : missing.toFixed(1)) : String(Math.ceil(missing));
  const pack = what === 'marking' ? 'sheet' : 'bottle';
  return `${much} ${unit}${packs === null ? '' : `, ${packs} ${pack}${packs === 1 ? '' : 's'}`}`;
}

export interface MarkingUse {
  readonly marking: Marking;
  readonly left: number;
  readonly needed: number;
  /** first step that needs what is not there, minute; null when there are enough */
  readonly short: number | null;
}

export function markingUses(muster: Muster, plan: Plan, log: readonly LogEntry[] = []): MarkingUse[] {
  return storesOf(muster).markings.map((marking) => {
    const steps = byStart(plan).filter(
      (s) =>
        s.layer.task === 'decal' && s.round === 1 && (marking.unit === null || s.unit.id === marking.unit),
    );
    return {
      marking,
      ...drawnDown(marking, steps, log, (s) => markingsWanted(marking, s.piece) * s.piece.count),
    };
  });
}

/** Sheets that are short, those with several subjects once: as many are bought as the subject needs that lacks most. */
function sheetsShort(uses: readonly MarkingUse[]): {
  readonly name: string;
  readonly missing: number;
  readonly sheets: number | null;
  readonly short: number;
}[] {
  const bySheet = new Map<string, MarkingUse[]>();
  for (const use of uses) {
    if (use.short === null) continue;
    const key = use.marking.sheet === undefined ? use.marking.id : `sheet ${keyOf(use.marking.sheet)}`;
    bySheet.set(key, [...(bySheet.get(key) ?? []), use]);
  }
  return [...bySheet.values()].map((own) => {
    const sheets = own.map(({ needed, left, marking: { perSheet } }) =>
      perSheet === undefined ? null : Math.ceil((needed - left) / perSheet),
    );
    const [{ marking }] = own as [MarkingUse];
    return {
      name:
        marking.sheet === undefined
          ? marking.name
          : `${marking.sheet} (${own.map((u) => u.marking.name).join(', ')})`,
      missing: own.reduce((sum, u) => sum + u.needed - u.left, 0),
      sheets: sheets.includes(null) ? null : Math.max(...sheets.map((n) => n ?? 0)),
      short: Math.min(...own.map((u) => u.short ?? Infinity)),
    };
  });
}

function byStart(plan: Plan): PlanStep[] {
  return [...plan.steps.values()].sort((a, b) => a.start - b.start);
}

/** What is left of a number of things, what is still needed, and the minute of the first step that goes without; null when there are enough. */
function drawnDown(
  stock: { readonly left: number; readonly leftAt?: string | undefined },
  steps: readonly PlanStep[],
  log: readonly LogEntry[],
  each: (step: PlanStep) => number,
): { readonly left: number; readonly needed: number; readonly short: number | null } {
  const own = new Map(steps.map((s) => [s.id, s]));
  const ended = endedSteps(log);
  const spent = workIn(log).reduce((sum, e) => {
    const step = own.get(e.step);
    return step && isAfterCount(e, stock) ? sum + each(step) : sum;
  }, 0);
  const left = Math.max(0, stock.left - spent);
  let rest = left;
  let needed = 0;
  let short: number | null = null;
  for (const s of steps) {
    if (ended.has(s.id)) continue;
    needed += each(s);
    rest -= each(s);
    if (rest < -1e-9) short ??= s.start;
  }
  return { left, needed, short };
}

export interface ConsumableUse {
  readonly consumable: Consumable;
  readonly left: number;
  readonly needed: number;
  readonly short: number | null;
}

export function consumableUses(muster: Muster, plan: Plan, log: readonly LogEntry[] = []): ConsumableUse[] {
  const steps = byStart(plan);
  return storesOf(muster).consumables.map((consumable) => ({
    consumable,
    ...drawnDown(
      consumable,
      steps.filter((s) => usesIt(consumable, s)),
      log,
      () => consumable.perStep,
    ),
  }));
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
      return maskingOf(step.layer) !== null;
    case 'enamel':
      return isSolvent(step.layer) || step.layer.task === 'wipe';
  }
}

/** What is missing, by the day on which it is needed. */
export function shoppingList(muster: Muster, plan: Plan, log: readonly LogEntry[] = []): Shortage[] {
  const day = (minute: number): LocalDate => dateTimeAfter(plan.origin, minute).slice(0, 10);
  const list: Shortage[] = [];
  for (const use of productUses(muster, plan, log)) {
    if (!use.runsOut) continue;
    const missing = use.neededMl - use.leftMl;
    const packs = Math.ceil(missing / (use.product?.bottleMl ?? USUAL_BOTTLE_ML));
    list.push({
      name: use.name,
      what: 'product',
      missing,
      unit: 'ml',
      packs,
      price: use.product?.price === undefined ? null : use.product.price * packs,
      day: day(use.runsOut.start),
    });
  }
  for (const { name, missing, sheets, short } of sheetsShort(markingUses(muster, plan, log)))
    list.push({
      name,
      what: 'marking',
      missing,
      unit: 'markings',
      packs: sheets,
      price: null,
      day: day(short),
    });
  for (const use of consumableUses(muster, plan, log))
    if (use.short !== null)
      list.push({
        name: use.consumable.name,
        what: 'consumable',
        missing: use.needed - use.left,
        unit: 'pieces',
        packs: null,
        price: null,
        day: day(use.short),
      });
  return list.sort((a, b) => a.day.localeCompare(b.day) || a.name.localeCompare(b.name));
}
