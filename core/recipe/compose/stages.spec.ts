/** What single looks become, by strength, school and how the piece is seen (common practice, no source). */
import { describe, expect, it } from 'vitest';
import type { Look, Looks, Recipe } from '#core/muster';
import { composed } from '../index';

const recipe = (schools: Record<string, string> = {}): Recipe => ({
  id: 'r',
  name: 'R',
  zones: [{ id: 'hull', name: 'Hull' }],
  layers: [],
  schools,
});
const look = (kind: Look['kind'], strength: Look['strength'] = 'normal'): Look => ({
  id: 'w',
  kind,
  zones: [],
  strength,
  colour: '#806040',
});
const looks = (list: Look[], more: Partial<Looks> = {}): Looks => ({
  list,
  sheen: 'matt',
  noSolvents: false,
  noAirbrush: false,
  isQuick: false,
  isForFigures: false,
  ...more,
});
const layersOf = (of: Looks, schools?: Record<string, string>) => composed(recipe(schools), of);
const named = (of: Looks, name: string, schools?: Record<string, string>) =>
  layersOf(of, schools).find((l) => l.name.startsWith(name));

describe('an overall shade', () => {
  it('is one coat for a trace, two for more', () => {
    expect(named(looks([look('shade', 'trace')]), 'Overall shade')!.coats).toBe(1);
    expect(named(looks([look('shade')]), 'Overall shade')!.coats).toBe(2);
  });

  it('is an enamel wash where that is the school, unless there are to be no solvents', () => {
    const enamel = { washes: 'enamel' };
    expect(named(looks([look('shade')]), 'Overall wash', enamel)!.family).toBe('enamel');
    expect(named(looks([look('shade')]), 'Overall wash')).toBeUndefined();
    expect(named(looks([look('shade')], { noSolvents: true }), 'Overall wash', enamel)).toBeUndefined();
    expect(named(looks([look('shade')], { noSolvents: true }), 'Overall shade', enamel)).toBeDefined();
  });
});

describe('clear water', () => {
  it.each([
    ['trace', 1],
    ['normal', 2],
    ['heavy', 3],
  ] as const)('that is deeper (%s) is more pours of 2.5 mm, each of which dries', (strength, pours) => {
    const water = named(looks([look('water', strength)]), 'Clear water')!;
    expect(water.depthMm).toBe(2.5 * pours);
    expect(water.passes?.expected ?? 1).toBe(pours);
    expect(water.mixture).toBe('water effect, undiluted');
  });
});
