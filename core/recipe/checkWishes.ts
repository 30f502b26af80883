/** Wishes that go against one another: told, with a cure; the layers stay as they are until it is taken. */
import type { Look, Recipe } from '#core/muster';
import { clearZones, lookFacts, revised } from './compose';
import { onRecipe, type Finding, type RecipeFix } from './finding';
import { isOnZone, zonesToSee } from './links';
import { schoolOf } from './schools';

export const WISH_RULES = [
  'wish-metal-under-matt',
  'wish-chips-without-colour',
  'wish-clear-everywhere',
  'wish-on-clear',
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
      place: { recipe: recipe.id, ...(zone ? { zone } : {}) },
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
  const covered = clearZones(looks);
  for (const look of looks.list) {
    const lost = look.zones.filter((z) => covered.has(z));
    if (look.kind === 'clear' || lost.length === 0) continue;
    const zone = recipe.zones.find((z) => z.id === lost[0]);
    tell(
      'wish-on-clear',
      zone?.id ?? '',
      `“${lookFacts(look.kind).name}” is wished for on ${zone?.name ?? 'a zone'}, which shall be clear: it stays covered, and gets none.`,
      'Take the zone out of one of the two wishes.',
      {
        label: `Leave ${zone?.name.toLowerCase() ?? 'it'} clear`,
        addsMinutes: 0,
        addsDryMinutes: 0,
        apply: (r) => withoutOnClear(r, look.id),
      },
    );
  }
  return findings;
}

/** The wish without zones that shall be clear; given up where none is left. */
function withoutOnClear(recipe: Recipe, id: string): Recipe {
  const { looks } = recipe;
  if (!looks) return recipe;
  const covered = clearZones(looks);
  const list = looks.list.flatMap((l) => {
    if (l.id !== id) return [l];
    const zones = l.zones.filter((z) => !covered.has(z));
    return zones.length > 0 ? [{ ...l, zones }] : [];
  });
  return revised(recipe, { looks: { ...looks, list } }).recipe;
}

/** That zone satin, and the layers composed anew; a recipe without zones as a whole. */
function satin(recipe: Recipe, zone: string): Recipe {
  const { looks } = recipe;
  if (!looks) return recipe;
  if (recipe.zones.length === 0) return revised(recipe, { looks: { ...looks, sheen: 'satin' } }).recipe;
  const zones = recipe.zones.map((z) => (z.id === zone ? { ...z, sheen: 'satin' as const } : z));
  return revised(recipe, { looks, zones }).recipe;
}
