/** The editor of a piece: each entry is one change of its unit. */
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { beforeEach, describe, expect, it } from 'vitest';
import { musterSchema, type Piece, type Unit } from '#core/muster';
import { layer, smallMuster } from '../../core/plan/testing';
import { Page } from '../testing/page';
import { PieceEditor } from './pieceEditor';

const muster = smallMuster();
const recipes = [
  {
    ...muster.recipes[0]!,
    layers: [
      ...muster.recipes[0]!.layers,
      layer('wash', {
        substitute: {
          name: 'Acrylic wash',
          family: 'acrylic-wash',
          method: 'brush',
          coats: 1,
          minutes: 5,
          dryMinutes: 30,
        },
      }),
    ],
  },
  { id: 'r2', name: 'Mast', zones: [], layers: [layer('only')] },
];

let fixture: ComponentFixture<PieceEditor>;
let page: Page;
let unit: Unit;
beforeEach(async () => {
  unit = muster.units[0]!;
  fixture = TestBed.createComponent(PieceEditor);
  fixture.componentRef.setInput('unit', unit);
  fixture.componentRef.setInput('piece', unit.pieces[1]);
  fixture.componentRef.setInput('recipes', recipes);
  fixture.componentInstance.changed.subscribe((c) => {
    unit = c.unit;
    fixture.componentRef.setInput('unit', unit);
    fixture.componentRef.setInput('piece', unit.pieces.find((p) => p.id === 'p2') ?? unit.pieces[0]);
  });
  await fixture.whenStable();
  page = new Page(fixture);
});
const piece = (): Piece => unit.pieces.find((p) => p.id === 'p2')!;
const sound = (): void =>
  expect(musterSchema.safeParse({ ...muster, recipes, units: [unit] }).error).toBeUndefined();

describe('the editor of a piece', () => {
  it('gives it a name, a recipe, figures, places, a use, a size and substitutes', async () => {
    await page.type('Piece or tray', 'Stern');
    await page.type('Figures on the tray', '8');
    await page.type('Rack places', '2');
    await page.type('It is', 'shipped');
    await page.type('Or measured', '42');
    await page.check('Pilot: goes ahead, the others wait for its verdict');
    await page.check('“Acrylic wash” instead of “wash”');
    expect(piece()).toMatchObject({
      name: 'Stern',
      count: 8,
      places: 2,
      use: 'shipped',
      size: { areaCm2: 42 },
      isPilot: true,
      substitutes: ['wash'],
    });
    expect(page.text).toContain('42 cm² each');
    await page.type('Recipe', 'r2');
    expect(piece().recipe).toBe('r2');
    sound();
  });

  it('joins it to another before a layer of that one, glued or not', async () => {
    await page.type('Is joined to', 'p1');
    expect(piece().joins).toEqual({ piece: 'p1', layer: 'wash', glue: { minutes: 4, dryMinutes: 60 } });
    await page.type('before its layer', 'seal');
    await page.type('and holds after', '2 h');
    expect(piece().joins).toEqual({ piece: 'p1', layer: 'seal', glue: { minutes: 4, dryMinutes: 120 } });
    await page.check('Glued on then, as a step of the plan');
    expect(piece().joins).toEqual({ piece: 'p1', layer: 'seal' });
    sound();
    await page.type('Is joined to', '');
    expect(piece().joins).toBeNull();
  });

  it('has more or less of what is optional', async () => {
    const optional = recipes.map((r) =>
      r.id === 'r'
        ? { ...r, layers: r.layers.map((l) => (l.id === 'chip' ? { ...l, isOptional: true } : l)) }
        : r,
    );
    fixture.componentRef.setInput('recipes', optional);
    await fixture.whenStable();
    await page.type('chip', 'heavy');
    expect(piece().effects).toEqual([{ layer: 'chip', is: 'heavy' }]);
    await page.type('chip', 'off');
    expect(piece().effects).toEqual([{ layer: 'chip', is: 'off' }]);
    sound();
    await page.type('chip', '');
    expect(piece().effects).toBeUndefined();
  });

  it('copies it under the next numbers, and deletes it', async () => {
    await page.type('copies', '2');
    await page.press('Duplicate');
    expect(unit.pieces.map((p) => p.name)).toEqual(['Ferry 1', 'Ferry 2', 'Ferry 3', 'Ferry 4']);
    await page.press('Delete piece');
    expect(unit.pieces.map((p) => p.name)).toEqual(['Ferry 1', 'Ferry 3', 'Ferry 4']);
    sound();
  });
});
