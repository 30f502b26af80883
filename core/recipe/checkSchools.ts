/** Layers that a hand has made otherwise than the school asks for that their recipe follows: told, with the way back; nothing is changed. */
import { dequal } from 'dequal/lite';
import type { Layer, Recipe } from '#core/muster';
import { composed } from './compose';
import { layerFix, onRecipe, type Finding } from './finding';
import { QUESTIONS, schoolOf, type Question } from './schools';

/** What a school may decide of a layer, in words. */
const DECIDED = {
  window: 'its window',
  aid: 'its drying aid',
  family: 'its product',
  method: 'what it is put on by',
  sheen: 'its sheen',
  task: 'what it is',
} as const satisfies Partial<Record<keyof Layer, string>>;
type Decided = keyof typeof DECIDED;
const FIELDS = Object.keys(DECIDED) as Decided[];

const KNOWN = new WeakMap<Recipe, Finding[]>();

/** @param recipe as it is written, not as a piece follows it */
export function checkSchools(recipe: Recipe): Finding[] {
  let known = KNOWN.get(recipe);
  if (!known) KNOWN.set(recipe, (known = found(recipe)));
  return known;
}

function found(recipe: Recipe): Finding[] {
  const { looks } = recipe;
  if (!looks) return [];
  const layersBy = (schools: Recipe['schools']): ReadonlyMap<string, Layer> =>
    new Map(composed({ zones: recipe.zones, ...(schools ? { schools } : {}) }, looks).map((l) => [l.id, l]));
  const asked = layersBy(recipe.schools);
  const changed = recipe.layers.flatMap((layer) => {
    const was = asked.get(layer.id);
    const fields = was ? FIELDS.filter((f) => isOtherwise(f, layer, was)) : [];
    return was && fields.length > 0 ? [{ layer, was, fields }] : [];
  });
  if (changed.length === 0) return [];
  // A field that several questions decide is told once, with the first of them.
  const told = new Set<string>();
  return QUESTIONS.flatMap((question) => {
    const own = schoolOf(recipe, question.id);
    const others = question.schools
      .filter((s) => s.id !== own)
      .map((s) => layersBy({ ...recipe.schools, [question.id]: s.id }));
    return changed.flatMap(({ layer, was, fields }) => {
      // Decided by the school is what another school would have otherwise.
      const broken = fields.filter(
        (f) =>
          !told.has(`${layer.id} ${f}`) &&
          others.some((o) => {
            const there = o.get(layer.id);
            return there !== undefined && !dequal(there[f], was[f]);
          }),
      );
      for (const f of broken) told.add(`${layer.id} ${f}`);
      return broken.length > 0 ? [finding(recipe, question, own, layer, was, broken)] : [];
    });
  });
}

/** Minutes of a window are the user's own to choose; whether it shuts is the school's. */
function isOtherwise(field: Decided, layer: Layer, was: Layer): boolean {
  if (field !== 'window') return !dequal(layer[field], was[field]);
  const shuts = (l: Layer): boolean => l.window?.closesMinutes != null;
  return (layer.window === null) !== (was.window === null) || shuts(layer) !== shuts(was);
}

function finding(
  recipe: Recipe,
  question: Question,
  own: string,
  layer: Layer,
  was: Layer,
  broken: readonly Decided[],
): Finding {
  const { name } = question.schools.find((s) => s.id === own)!;
  return {
    rule: 'school-by-hand',
    severity: 'warning',
    isCraft: true,
    place: { recipe: recipe.id, layer: layer.id },
    where: `${recipe.name}, layer “${layer.name}”`,
    text: `${question.name}: the recipe follows “${name}”, and a hand has made ${broken.map((f) => DECIDED[f]).join(' and ')} otherwise.`,
    cure: 'Take it back as the school has it, choose the school that it follows now, or say why it is right so.',
    fix: onRecipe(
      recipe.id,
      layerFix('As the school has it', layer, Object.fromEntries(broken.map((f) => [f, was[f]]))),
    ),
  };
}
