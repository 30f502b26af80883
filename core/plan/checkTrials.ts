/** Work that is done for the first time is tried on scrap before the first piece gets it; and what was never to be used again is not used unawares. */
import {
  componentsOf,
  storesOf,
  type Layer,
  type Muster,
  type Piece,
  type Recipe,
  type Unit,
} from '#core/muster';
import { isSilenced, trialOf, type Finding } from '#core/recipe';

export function checkTrials(muster: Muster): Finding[] {
  return muster.recipes.flatMap((recipe) =>
    recipe.layers
      .flatMap((layer) => [...untried(muster, recipe, layer), ...writtenOff(muster, recipe, layer)])
      .filter((finding) => !isSilenced(recipe, finding)),
  );
}

function untried(muster: Muster, recipe: Recipe, layer: Layer): Finding[] {
  if (!layer.isFirstTime) return [];
  const followers = muster.units.flatMap((unit) =>
    unit.pieces.filter((p) => p.recipe === recipe.id).map((piece) => ({ unit, piece })),
  );
  const first = firstOf(followers);
  if (!first || followers.some(({ piece }) => piece.trials?.includes(layer.id))) return [];
  return [
    {
      rule: 'no-trial',
      severity: 'advice',
      isCraft: true,
      place: { recipe: recipe.id, layer: layer.id },
      where: `${recipe.name}, layer “${layer.name}”`,
      text: 'It is done for the first time, and the plan has no time to try it before the first piece gets it.',
      cure: 'Try it on scrap that was painted alike, and look at it dry.',
      fix: {
        label: `Try it on scrap before ${first.piece.name}`,
        addsMinutes: trialOf(layer).minutes,
        addsDryMinutes: layer.dryMinutes,
        apply: (m) => withTrial(m, first.unit.id, first.piece.id, layer.id),
      },
    },
  ];
}

/** A pilot goes ahead; else the piece that is due first. */
function firstOf(
  followers: readonly { readonly unit: Unit; readonly piece: Piece }[],
): { readonly unit: Unit; readonly piece: Piece } | undefined {
  return (
    followers.find(({ piece }) => piece.isPilot) ??
    [...followers].sort((a, b) => a.unit.table.localeCompare(b.unit.table))[0]
  );
}

function withTrial(muster: Muster, unit: string, piece: string, layer: string): Muster {
  const tried = (p: Piece): Piece =>
    p.id === piece ? { ...p, trials: [...new Set([...(p.trials ?? []), layer])] } : p;
  return {
    ...muster,
    units: muster.units.map((u) => (u.id === unit ? { ...u, pieces: u.pieces.map(tried) } : u)),
  };
}

function writtenOff(muster: Muster, recipe: Recipe, layer: Layer): Finding[] {
  if (layer.mixture.trim() === '') return [];
  const named = new Set(componentsOf(layer).map((c) => c.name.trim().toLowerCase()));
  return storesOf(muster)
    .products.filter((p) => p.verdict === 'never' && named.has(p.name.trim().toLowerCase()))
    .map((product): Finding => {
      const stand = product.equivalents?.[0];
      return {
        rule: 'written-off',
        severity: 'advice',
        isCraft: true,
        place: { recipe: recipe.id, layer: layer.id },
        where: `${recipe.name}, layer “${layer.name}”`,
        text: `It is mixed of “${product.name}”, of which you said “never again”${product.character ? `: ${product.character}` : '.'}`,
        cure: stand
          ? `Take what may stand for it: ${stand.madeOf.parts.map((p) => p.name).join(', ')}.`
          : 'Take something else, or say at the product what may stand for it.',
      };
    });
}
