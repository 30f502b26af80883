/** Wishes that go against one another: told, with a cure; the layers stay as they are until it is taken. */
import type { Look, Recipe } from '#core/muster';
import { revised } from './compose';
import { onRecipe, type Finding, type RecipeFix } from './finding';
import { isOnZone, zonesToSee } from './links';
import { schoolOf } from './schools';

export const WISH_RULES = [
  'wish-metal-under-matt',
  'wish-chips-without-colour',
  'wish-clear-everywhere',
] as const;

export function checkWishes(recipe: Recipe): Finding[] {
  const { looks } = recipe;
  if (!looks) return [];
  const on = (kind: Look['kind'], zone: string): Look | undefined =>
    looks.list.find((l) => l.kind === kind && isOnZone(l.zones, zone));
  const findings: Finding[] = [];
  const tell = (
    rule: (typeof WISH_RULES)[number],
    zone: string,
    text: string,
    cure: string,
    fix?: RecipeFix,
  ): void => {
    findings.push({
      rule,
      severity: 'warning',
      isCraft: true,
      place: { view: 'recipes', recipe: recipe.id, ...(zone ? { zone } : {}) },
      where: `Recipe “${recipe.name}”, what it shall look like`,
      text,
      cure,
      ...(fix ? { fix: onRecipe(recipe.id, fix) } : {}),
    });
  };
  for (const zone of zonesToSee(recipe)) {
    const own = recipe.zones.find((z) => z.id === zone.id);
    const isMatt = (own?.sheen ?? looks.sheen) === 'matt';
    if (on('metal', zone.id) && isMatt && !on('polish', zone.id) && schoolOf(recipe, 'metals') !== 'bare')
      tell(
        'wish-metal-under-matt',
        zone.id,
        `${zone.name} shall be metal and end matt: a matt coat over metal makes it grey paint.`,
        'End it satin, or polish its edges after the last coat.',
        {
          label: `End ${zone.name.toLowerCase()} satin`,
          addsMinutes: 0,
          addsDryMinutes: 0,
          apply: (r) => satin(r, zone.id),
        },
      );
    if (on('chipping', zone.id) && !on('base', zone.id) && !on('second', zone.id))
      tell(
        'wish-chips-without-colour',
        zone.id,
        `${zone.name} shall be chipped, and no colour is wished for that could chip: a grey stands in for it.`,
        'Wish for a base colour there, or chip by hand.',
      );
  }
  const clear = looks.list.find((l) => l.kind === 'clear');
  if (clear && clear.zones.length === 0 && recipe.zones.length > 1)
    tell(
      'wish-clear-everywhere',
      '',
      'Clear parts are wished for on every zone: all of it would be kept covered.',
      'Say under the wish which zone is clear.',
    );
  return findings;
}

/** That zone satin, and the layers composed anew; a recipe without zones as a whole. */
function satin(recipe: Recipe, zone: string): Recipe {
  const { looks } = recipe;
  if (!looks) return recipe;
  if (recipe.zones.length === 0) return revised(recipe, { looks: { ...looks, sheen: 'satin' } }).recipe;
  const zones = recipe.zones.map((z) => (z.id === zone ? { ...z, sheen: 'satin' as const } : z));
  return revised(recipe, { looks, zones }).recipe;
}
