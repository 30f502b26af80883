/** A school that a layer edited by hand goes against: told with the way back, and nothing is lost. */
import { describe, expect, it } from 'vitest';
import type { Layer, Recipe } from '#core/muster';
import { checkSchools, composed, FIRST_LOOKS, underSchool, withLook } from './index';

const bare: Recipe = { id: 'r', name: 'Hull', zones: [{ id: 'hull', name: 'Hull' }], layers: [] };
const looks = withLook(withLook(FIRST_LOOKS, 'chipping'), 'lining');
const recipe: Recipe = { ...bare, looks, layers: composed(bare, looks) };
const medium = recipe.layers.find((l) => l.family === 'medium')!;
const edited = (part: Partial<Layer>): Recipe => ({
  ...recipe,
  layers: recipe.layers.map((l) => (l.id === medium.id ? { ...l, ...part } : l)),
});

describe('a layer against its school', () => {
  it('is nothing where it is as composed, renamed, or has other minutes in its window', () => {
    expect(checkSchools(recipe)).toEqual([]);
    expect(checkSchools(edited({ name: 'Lift layer', minutes: 9 }))).toEqual([]);
    expect(checkSchools(edited({ window: { ...medium.window!, closesMinutes: 75 } }))).toEqual([]);
    expect(checkSchools({ ...edited({ window: null }), looks: undefined })).toEqual([]);
  });

  it('is told where its window no longer shuts, as the school has it; one press takes it back', () => {
    const against = edited({ window: { ...medium.window!, closesMinutes: null } });
    const [finding, ...others] = checkSchools(against);
    expect(others).toEqual([]);
    expect(finding).toMatchObject({
      rule: 'school-by-hand',
      place: { layer: medium.id },
      text: expect.stringContaining('its window'),
    });
    const cured = finding!.fix!.apply({ recipes: [against] } as never).recipes[0]!;
    expect(cured.layers).toEqual(recipe.layers);
  });

  it('is told no more under a school that has it so', () => {
    const { recipe: dry } = underSchool(recipe, 'topcoat', 'dry');
    expect(checkSchools(dry)).toEqual([]);
    expect(dry.layers.find((l) => l.id === medium.id)!.window!.closesMinutes).toBeNull();
  });
});
