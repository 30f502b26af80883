/** The view in which a finding is mended: the one place where what a check looked at becomes a view of the app. */
import { RULE_SCOPES, type Finding, type RuleScope } from '#core/recipe';

export type FindingView = 'muster' | 'recipes' | 'bench' | 'stores';

const VIEWS: Readonly<Record<RuleScope, FindingView>> = {
  recipe: 'recipes',
  piece: 'muster',
  unit: 'muster',
  bench: 'bench',
  stores: 'stores',
  plan: 'recipes',
};

/** By what it names; by its rule, where it names nothing. */
export function viewOf({ place, rule }: Pick<Finding, 'place' | 'rule'>): FindingView {
  if (place.unit !== undefined) return 'muster';
  return place.recipe === undefined ? VIEWS[RULE_SCOPES[rule]] : 'recipes';
}
