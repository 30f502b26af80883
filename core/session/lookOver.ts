/**
 * The look before the table: everything that a unit's recipes, deal, masks, markings and its own list say should be looked at, with where to
 * judge it. What is found is logged, and becomes work in the plan. Common practice, no source.
 */
import type { Muster, Recipe, Sheen, Unit } from '#core/muster';
import { storesOf } from '#core/muster';
import { effectiveRecipe, masksOf } from '#core/recipe';
import { moment, strengthWords, type Plan, type PlanStep } from '#core/plan';
import { endedSteps, standing, type EntryOf, type LogEntry, type New } from '#core/log';
import { recipesOf } from './references';

export interface LookItem {
  readonly id: string;
  readonly text: string;
  /** where and how it is judged */
  readonly how: string;
  /** ids of the pieces that it is about */
  readonly pieces: readonly string[];
  readonly verdict: EntryOf<'looked'>['verdict'] | null;
}

export interface LookOver {
  readonly items: readonly LookItem[];
  /** steps of the unit that are not done or left off */
  readonly open: number;
  /** coats that may not be touched at this minute, each in words */
  readonly tacky: readonly string[];
  /** coats that have not hardened through when the unit is ready, with how to pack them; empty: none, or nothing is shipped */
  readonly soft: readonly string[];
  /** it stands on the table since then; null: not yet */
  readonly tableAt: string | null;
}

const ARM = 'at arm’s length, in daylight';
const CLOSE = 'close by, under the lamp';
const FAR = 'at the distance of use, in daylight';
const TABLE = 'table';

/** @param minute now, minutes since the plan's origin */
export function lookOver(
  muster: Muster,
  unit: Unit,
  plan: Plan,
  log: readonly LogEntry[],
  minute: number,
): LookOver {
  const verdicts = new Map<string, EntryOf<'looked'>>();
  for (const e of standing(log)) if (e.kind === 'looked' && e.unit === unit.id) verdicts.set(e.item, e);
  const ended = endedSteps(log);
  const steps = [...plan.steps.values()].filter((s) => s.unit.id === unit.id);
  const items = itemsOf(muster, unit).map((item) => ({
    ...item,
    verdict: verdicts.get(item.id)?.verdict ?? null,
  }));
  return {
    items,
    open: steps.filter((s) => !ended.has(s.id)).length,
    tacky: tackyOf(
      plan,
      steps.filter((s) => ended.get(s.id)?.kind === 'done' && s.tide.dryAt > minute),
    ),
    soft: softOf(unit, plan, steps),
    tableAt: verdicts.get(TABLE)?.at ?? null,
  };
}

/** Wet coats by layer: on what, and until when the last of it. */
function tackyOf(plan: Plan, wet: readonly PlanStep[]): string[] {
  const layers = new Map<string, PlanStep[]>();
  for (const s of wet) layers.set(s.layer.name, [...(layers.get(s.layer.name) ?? []), s]);
  return [...layers].map(([name, list]) => {
    const on = list.length === 1 ? list[0]!.piece.name : `${list.length} pieces`;
    return `“${name}” on ${on}, until ${moment(plan.origin, Math.max(...list.map((s) => s.tide.dryAt)))}`;
  });
}

/** What is packed before it has hardened through: when it will have, and how to pack it until then. */
function softOf(unit: Unit, plan: Plan, steps: readonly PlanStep[]): string[] {
  const ready = plan.units.find((u) => u.id === unit.id)?.ready ?? 0;
  const soft = new Map<string, number>();
  for (const s of steps)
    if (s.piece.use === 'shipped' && s.curedAt > ready)
      soft.set(s.layer.name, Math.max(soft.get(s.layer.name) ?? 0, s.curedAt));
  if (soft.size === 0) return [];
  return [
    ...[...soft].map(([name, at]) => `“${name}” is soft until ${moment(plan.origin, at)}.`),
    'Pack it standing on its base or handle, with nothing against the paint: no film, foam or paper; the box aired, cool and the right way up.',
  ];
}

type Item = Omit<LookItem, 'verdict'>;

function itemsOf(muster: Muster, unit: Unit): Item[] {
  const pieces = unit.pieces.map((p) => p.id);
  const recipes = recipesOf(muster, unit);
  const markings = storesOf(muster).markings.filter((m) => m.unit === null || m.unit === unit.id);
  const hasDecals = recipes.some((r) => r.layers.some((l) => l.task === 'decal'));
  const parts = unit.pieces.filter((p) => p.joins);
  return [
    ...(unit.details ?? []).map((d): Item => ({ id: `detail ${d.id}`, text: d.name, how: CLOSE, pieces })),
    ...recipes.flatMap((r) => [...zoneItems(unit, r), ...maskItems(unit, r), ...effectItems(unit, r)]),
    ...(hasDecals
      ? markings.map((m): Item => ({
          id: `marking ${m.id}`,
          text: `${m.name}: each where it belongs, flat, no silver edge`,
          how: CLOSE,
          pieces,
        }))
      : []),
    ...parts.map((p): Item => ({
      id: `joint ${p.id}`,
      text: `Where ${p.name} is joined: no gap, no glue, colours matched`,
      how: CLOSE,
      pieces: [p.id],
    })),
    { id: 'sides', text: 'Left against right: each worn in its own way', how: ARM, pieces },
    ...(unit.pieces.length > 1
      ? [
          {
            id: 'together',
            text: 'Piece against piece: one family, and no two alike',
            how: FAR,
            pieces,
          },
        ]
      : []),
    { id: 'under', text: 'Rims, undersides and bases: none bare', how: CLOSE, pieces },
  ];
}

const SHEEN_WORDS: Readonly<Record<Sheen, string>> = {
  matt: 'matt, no bloom',
  satin: 'satin',
  gloss: 'glossy',
  metal: 'metal, not dulled',
  wet: 'wet',
};

/** Pieces that follow a recipe. */
function followers(unit: Unit, recipe: Recipe): readonly string[] {
  return unit.pieces.filter((p) => p.recipe === recipe.id).map((p) => p.id);
}

/** The sheen in which each zone is meant to end: what is said of it, else that of the last coat on it. */
function zoneItems(unit: Unit, recipe: Recipe): Item[] {
  const zones = recipe.zones.length > 0 ? recipe.zones : [{ id: '', name: recipe.name, sheen: undefined }];
  return zones.map((zone): Item => {
    const last = recipe.layers.findLast(
      (l) => l.sheen !== undefined && (l.zones.length === 0 || l.zones.includes(zone.id)),
    );
    const sheen = zone.sheen ?? last?.sheen;
    return {
      id: `zone ${recipe.id} ${zone.id}`,
      text: `${zone.name}: every part painted, clean edges${sheen ? `, ${SHEEN_WORDS[sheen]}` : ''}`,
      how: ARM,
      pieces: followers(unit, recipe),
    };
  });
}

function maskItems(unit: Unit, recipe: Recipe): Item[] {
  return masksOf(recipe).map(({ layer }): Item => ({
    id: `mask ${recipe.id} ${layer.id}`,
    text: `“${layer.name}”: all of it taken off, nothing crept under`,
    how: CLOSE,
    pieces: followers(unit, recipe),
  }));
}

/** Effects that were dealt: what is heavy shall look it, what is a trace shall still be seen. */
function effectItems(unit: Unit, recipe: Recipe): Item[] {
  return recipe.layers.flatMap((layer): Item[] => {
    if (!layer.isOptional) return [];
    const own = unit.pieces.filter((p) => p.recipe === recipe.id);
    const having = own.filter((p) =>
      effectiveRecipe(recipe, p, unit.level).layers.some((l) => l.id === layer.id),
    );
    if (having.length === 0) return [];
    const told = strengthWords(having.map((piece) => ({ piece, layer: layer.id })));
    return [
      {
        id: `effect ${recipe.id} ${layer.id}`,
        text: `${layer.name} still seen${told ? `; ${told}` : ''}`,
        how: ARM,
        pieces: having.map((p) => p.id),
      },
    ];
  });
}

/** What the log is to say of one thing looked at. */
export function lookedEntry(
  unit: Unit,
  item: Pick<LookItem, 'id' | 'text'>,
  verdict: EntryOf<'looked'>['verdict'],
): New<LogEntry> {
  return {
    kind: 'looked',
    unit: unit.id,
    item: item.id.slice(0, 200),
    text: `${unit.name}: ${item.text}`.slice(0, 400),
    verdict,
  };
}

/** It stands on the table. */
export function onTable(unit: Unit): New<LogEntry> {
  return lookedEntry(unit, { id: TABLE, text: 'on the table' }, 'good');
}

/** The step of a piece on which what was found wrong is put right: the last that was done; null: nothing of it is done yet. */
export function lastDone(plan: Plan, log: readonly LogEntry[], piece: string): PlanStep | null {
  const ended = endedSteps(log);
  const own = [...plan.steps.values()].filter(
    (s) => s.piece.id === piece && ended.get(s.id)?.kind === 'done',
  );
  return own.reduce<PlanStep | null>((last, s) => (last && last.end >= s.end ? last : s), null);
}
