/** The craft rules over one recipe: common practice, no source. */
import type { Piece, Recipe } from '#core/muster';
import { checkWishes, WISH_RULES } from './checkWishes';
import { onRecipe, type Finding } from './finding';
import type { RuleId } from './registry';
import { COVER, finalCoatMissing } from './rules/cover';
import { stackOf, type Hit, type Rule } from './rules/rule';
import { SANDWICH } from './rules/sandwich';
import { SEALING } from './rules/sealing';

const RULES: readonly Rule[] = [...SEALING, ...SANDWICH, ...COVER];

/** Ids of all craft rules, those of pieces among them. */
export const CRAFT_RULES: readonly RuleId[] = [
  ...RULES.map((r) => r.id),
  'no-last-coat',
  'solvent-on-old',
  'all-identical',
  ...WISH_RULES,
];

/** @param uses what the pieces of this recipe are for; empty when no piece follows it yet */
export function checkCraft(recipe: Recipe, uses: readonly NonNullable<Piece['use']>[] = []): Finding[] {
  const stack = stackOf(recipe);
  const findings = RULES.flatMap((rule) =>
    rule.check(stack).map((hit) => findingOf(recipe, rule.id, hit.severity ?? rule.severity, hit)),
  );
  if (uses.some((u) => u !== 'display'))
    for (const hit of finalCoatMissing(stack)) findings.push(findingOf(recipe, 'no-last-coat', 'error', hit));
  return [...findings, ...checkWishes(recipe)].filter((f) => !isSilenced(recipe, f));
}

function findingOf(recipe: Recipe, rule: RuleId, severity: Finding['severity'], hit: Hit): Finding {
  return {
    rule,
    severity,
    isCraft: true,
    place: {
      recipe: recipe.id,
      ...(hit.layer ? { layer: hit.layer.id } : {}),
      ...(hit.zone ? { zone: hit.zone } : {}),
    },
    where: hit.layer ? `${recipe.name}, layer “${hit.layer.name}”` : `Recipe “${recipe.name}”`,
    text: hit.text,
    cure: hit.cure,
    ...(hit.fix ? { fix: onRecipe(recipe.id, hit.fix) } : {}),
  };
}

/** Has the user said why this is not to be heard here? */
export function isSilenced(recipe: Recipe, finding: Finding): boolean {
  return (
    recipe.silenced?.some(
      (s) => s.rule === finding.rule && (s.layer === null || s.layer === (finding.place.layer ?? null)),
    ) ?? false
  );
}
