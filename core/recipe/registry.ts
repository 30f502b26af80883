/** Every rule that the checks know, by its id, with what it looks at. A finding names one of these. */

/** What a rule looks at: a recipe, a piece as it follows one, a unit, the bench and its air, the stores, or the plan that was made. */
export type RuleScope = 'recipe' | 'piece' | 'unit' | 'bench' | 'stores' | 'plan';

const of =
  (scope: RuleScope) =>
  <const Id extends string>(...ids: Id[]): Readonly<Record<Id, RuleScope>> =>
    Object.fromEntries(ids.map((id) => [id, scope])) as Readonly<Record<Id, RuleScope>>;

export const RULE_SCOPES = {
  ...of('recipe')(
    'layer-longer-than-session',
    'layer-nobody-may',
    'mixture-unreadable',
    'written-off',
    'recipe-empty',
    'recipe-circle',
    'window-too-short',
    'prefer-outside-window',
    'window-through-below',
    'window-without-next',
    'school-by-hand',
    'wish-metal-under-matt',
    'wish-chips-without-colour',
    'wish-clear-everywhere',
    'wish-on-clear',
    'zone-without-colour',
    'detail-not-covered',
    'sheen-missed',
    'matt-over-shine',
    'light-over-dark-primer',
    'too-little-contrast',
    'effect-eaten',
    'one-heavy-coat',
    'nozzle-too-small',
    'pour-too-deep',
    'glue-on-paint',
    'wet-mask',
    'under-mask',
    'spatter-beside-wet',
    'medium-without-topcoat',
    'never-chipped',
    'sandwich-unsealed',
    'heat-on-live',
    'tape-on-live',
    'putty-on-live',
    'touched-between-seals',
    'medium-over-unsealed',
    'seal-lifts-in-strings',
    'crackle-unsealed',
    'chips-unsealed-base',
    'enamel-over-acrylic',
    'oil-over-acrylic',
    'lacquer-over-acrylic',
    'wipe-without-wash',
    'water-over-washable',
    'heavy-unsealed',
    'decal-after-dirt',
    'decal-on-matt',
    'no-trial',
  ),
  ...of('piece')('join-circle', 'piece-without-recipe', 'rack-too-small', 'no-last-coat', 'solvent-on-old'),
  ...of('unit')('all-identical', 'no-session-before-table', 'table-date-past', 'unit-empty', 'muster-empty'),
  ...of('bench')(
    'bench-no-hands',
    'cabinet-too-small',
    'handles-too-few',
    'quiet-over-all',
    'readings-gap',
    'readings-twice',
    'outdoors-no-daylight',
    'air-unfit',
    'airbrush-none',
    'spray-without-extraction',
    'can-indoors',
    'sessions-overlap',
    'session-ends-before-start',
    'span-reversed',
    'nozzle-missing',
    'helper-idle',
    'too-much-work',
  ),
  ...of('stores')('product-absurd', 'product-twice'),
  // Some of these are seen in a recipe already, where its minutes alone show them.
  ...of('plan')('mask-left-on', 'seal-too-young', 'seal-not-overnight', 'solvent-on-young', 'tape-on-young'),
} as const;

export type RuleId = keyof typeof RULE_SCOPES;
