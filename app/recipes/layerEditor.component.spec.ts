/** The editor of a layer: figures that are typed are the user's own, a family brings its drying, windows and waits come and go. */
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { beforeEach, describe, expect, it } from 'vitest';
import { familyOf } from '#core/materials';
import { recipeSchema, withLayer, type Layer, type Recipe } from '#core/muster';
import { layer, smallMuster } from '../../core/plan/testing';
import { Page } from '../testing/page';
import { LayerEditor } from './layerEditor';

let fixture: ComponentFixture<LayerEditor>;
let page: Page;
let recipe: Recipe;
let changes: { layer: Layer; what: string }[];

async function edit(id: string): Promise<void> {
  recipe = smallMuster([
    layer('prime', { family: 'primer', dryMinutes: familyOf('primer').dryMinutes }),
    layer('base', { zones: [] }),
    layer('top'),
  ]).recipes[0]!;
  recipe = { ...recipe, zones: [...recipe.zones, { id: 'deck', name: 'Deck' }] };
  fixture = TestBed.createComponent(LayerEditor);
  const put = (): void => {
    fixture.componentRef.setInput('recipe', recipe);
    fixture.componentRef.setInput(
      'layer',
      recipe.layers.find((l) => l.id === id)!,
    );
  };
  put();
  changes = [];
  fixture.componentInstance.changed.subscribe((c) => {
    changes.push(c);
    recipe = withLayer(recipe, c.layer);
    put();
  });
  await fixture.whenStable();
  page = new Page(fixture);
}
const edited = (): Layer => fixture.componentInstance.layer();
beforeEach(() => edit('base'));

describe('the editor of a layer', () => {
  it('makes typed figures the user’s own, and nominal again', async () => {
    await page.type('Dry for the next layer', '33');
    expect(edited()).toMatchObject({ dryMinutes: 33, dryFrom: { source: 'yours', nominalMinutes: 15 } });
    expect(page.text).toContain('Drying: yours');
    await page.press('Back to nominal, 15 min');
    expect(edited().dryMinutes).toBe(15);
    expect(edited().dryFrom).toBeUndefined();
    await page.type('Hands, a piece and coat', '7,5');
    expect(edited()).toMatchObject({ minutes: 7.5, minutesFrom: { source: 'yours', nominalMinutes: 5 } });
  });

  it('brings the drying of another family, but never over a figure of the user’s own', async () => {
    await edit('prime');
    await page.type('Product family', 'oil');
    expect(edited()).toMatchObject({ family: 'oil', dryMinutes: familyOf('oil').dryMinutes });
    await page.type('Dry for the next layer', '99');
    await page.type('Product family', 'primer');
    expect(edited()).toMatchObject({ family: 'primer', dryMinutes: 99 });
  });

  it('adds a window, sets its posts, and takes it off', async () => {
    await page.check('The next layer has a window');
    expect(edited().window).toEqual({
      opensMinutes: 15,
      closesMinutes: 75,
      preferMinutes: null,
      through: null,
    });
    await page.type('No later than (then it has shut)', '50');
    await page.type('Better by (each minute beyond costs result)', '30');
    await page.type('No sooner than', '');
    await page.type('Layers that must start within it', 'top');
    expect(edited().window).toEqual({
      opensMinutes: null,
      closesMinutes: 50,
      preferMinutes: 30,
      through: 'top',
    });
    expect(recipeSchema.safeParse(recipe).error).toBeUndefined();
    await page.check('The next layer has a window');
    expect(edited().window).toBeNull();
  });

  it('keeps “all zones” as none named, and at least one zone on', async () => {
    await page.check('Deck');
    expect(edited().zones).toEqual(['z']);
    await page.check('Sides');
    expect(edited().zones).toEqual([]);
    await page.check('Sides');
    await page.check('Sides');
    expect(edited().zones).toEqual([]);
  });

  it('waits for other layers, and says what each change was', async () => {
    await page.check('prime');
    expect(edited().waitsFor).toEqual(['prime']);
    await page.check('prime');
    expect(edited().waitsFor).toEqual([]);
    await page.check('May be put down and taken up next session');
    expect(edited().pausable).toBe(true);
    expect(changes.map((c) => c.what)).toEqual(['waits', 'waits', 'pausing']);
  });

  it('moves within the stack, not beyond its ends', async () => {
    const moves: number[] = [];
    fixture.componentInstance.moved.subscribe((m) => moves.push(m));
    await page.press('Move up');
    await page.press('Move down');
    expect(moves).toEqual([1, -1]);
    await edit('top');
    fixture.componentInstance.moved.subscribe((m) => moves.push(m));
    await page.press('Move up');
    expect(moves).toEqual([1, -1]);
  });

  it('has other tones, each as it is mixed, and takes them out again', async () => {
    await page.type('Another tone, as it is mixed', 'rust brown');
    await page.press('Add');
    expect(edited().tones).toMatchObject([{ mixture: 'rust brown', colour: edited().colour }]);
    expect(recipeSchema.safeParse(recipe).success).toBe(true);
    await page.type('As it is mixed', 'dark rust');
    expect(edited().tones![0]!.mixture).toBe('dark rust');
    await page.press('Take out');
    expect(edited().tones).toBeUndefined();
  });
});
