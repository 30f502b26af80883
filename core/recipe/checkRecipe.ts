/** What must be true of a recipe before it can be planned. */
import type { Layer, Recipe } from '#core/muster';
import type { Finding } from './finding';
import type { RuleId } from './registry';
import { circleOf, opensAfter, restingOn } from './links';

/** A window must stay open for so many drying minutes: minutes are whole in a plan, and in other air a shorter one has none. */
const LEAST_OPEN = 5;

/** All findings of one recipe, bottom to top. */
export function checkRecipe(recipe: Recipe): Finding[] {
  const findings: Finding[] = [];
  const add = (
    rule: RuleId,
    layer: Layer | null,
    text: string,
    cure: string,
    severity: Finding['severity'] = 'error',
  ): void =>
    void findings.push({
      rule,
      severity,
      place: { recipe: recipe.id, ...(layer ? { layer: layer.id } : {}) },
      where: layer ? `${recipe.name}, layer “${layer.name}”` : `Recipe “${recipe.name}”`,
      text,
      cure,
    });

  if (recipe.layers.length === 0) add('recipe-empty', null, 'has no layers.', 'Add its first layer.');

  const circle = circleOf(recipe);
  if (circle.length > 0) {
    const names = circle.map((i) => recipe.layers[i]!.name);
    const layer =
      circle.map((i) => recipe.layers[i]!).find((l) => l.waitsFor.length > 0) ?? recipe.layers[circle[0]!]!;
    add(
      'recipe-circle',
      layer,
      `The layers wait for each other in a circle: ${[...names, names[0]].join(' → ')}.`,
      'Take one of the waits out, or move a layer.',
    );
  }

  recipe.layers.forEach((layer, index) => {
    const w = layer.window;
    if (!w) return;
    const opens = Math.ceil(opensAfter(layer));
    if (w.closesMinutes !== null && w.closesMinutes < opens + LEAST_OPEN)
      add(
        'window-too-short',
        layer,
        `It dries longer than its window lasts: the window closes ${w.closesMinutes} min after it, and the next layer may not start before ${opens} min. Both stretch alike in damp or cold air.`,
        `Let it close at ${opens + LEAST_OPEN} min or later, or shorten the drying.`,
      );
    if (
      w.preferMinutes !== null &&
      (w.preferMinutes < opens || w.preferMinutes > (w.closesMinutes ?? Infinity))
    )
      add(
        'prefer-outside-window',
        layer,
        `“Better by ${w.preferMinutes} min” lies outside the window of ${opens} to ${w.closesMinutes ?? '∞'} min.`,
        'Choose a figure between opening and closing.',
      );
    const through = w.through === null ? -1 : recipe.layers.findIndex((l) => l.id === w.through);
    if (w.through !== null && through <= index)
      add(
        'window-through-below',
        layer,
        'The window is to cover the layers up to one that does not lie above it.',
        'Choose a layer higher up, or just the next one.',
      );
    if (restingOn(recipe, index).length === 0)
      add(
        'window-without-next',
        layer,
        'A window closes on it, but no layer follows on its zones.',
        'Add the layer that must go on within the window, or take the window off.',
      );
  });
  return findings;
}
