/** The editor of a unit: each entry is one change of the unit, with what it was. */
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { beforeEach, describe, expect, it } from 'vitest';
import { musterSchema, type Unit } from '#core/muster';
import { layer, smallMuster } from '../../core/plan/testing';
import { Page } from '../testing/page';
import { UnitEditor } from './unitEditor';

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

let fixture: ComponentFixture<UnitEditor>;
let page: Page;
let changes: { unit: Unit; what: string }[];
beforeEach(async () => {
  fixture = TestBed.createComponent(UnitEditor);
  fixture.componentRef.setInput('unit', muster.units[0]!);
  fixture.componentRef.setInput('recipes', recipes);
  changes = [];
  fixture.componentInstance.changed.subscribe((c) => {
    changes.push(c);
    fixture.componentRef.setInput('unit', c.unit);
  });
  await fixture.whenStable();
  page = new Page(fixture);
});
const unit = (): Unit => fixture.componentInstance.unit();
const sound = (): void =>
  expect(musterSchema.safeParse({ ...muster, recipes, units: [unit()] }).error).toBeUndefined();

describe('the editor of a unit', () => {
  it('changes name, dates, importance and level, one thing at a time', async () => {
    await page.type('Unit', 'Barges');
    await page.type('On the table', '2027-04-01T18:00');
    await page.type('Cleaned and assembled from (empty: already)', '2027-03-10T10:00');
    await page.type('How much it matters', '5');
    await page.type('Finished to', '2');
    expect(unit()).toMatchObject({
      name: 'Barges',
      table: '2027-04-01T18:00',
      readyFrom: '2027-03-10T10:00',
      importance: 5,
      level: 2,
    });
    expect(changes).toHaveLength(5);
    expect(new Set(changes.map((c) => c.what)).size).toBe(5);
    await page.type('Cleaned and assembled from (empty: already)', '');
    expect(unit().readyFrom).toBeNull();
    sound();
  });

  it('adds, copies and deletes pieces', async () => {
    await page.press('Add a piece');
    expect(unit().pieces.map((p) => p.name)).toEqual(['Ferry 1', 'Ferry 2', 'Piece 3']);
    expect(unit().pieces[2]!.recipe).toBe('r');
    await page.type('copies', '2');
    await page.press('Duplicate');
    expect(unit().pieces.map((p) => p.name)).toEqual([
      'Ferry 1',
      'Ferry 1 2',
      'Ferry 1 3',
      'Ferry 2',
      'Piece 3',
    ]);
    expect(new Set(unit().pieces.map((p) => p.id)).size).toBe(5);
    await page.press('Delete piece', 1);
    expect(unit().pieces.map((p) => p.name)).toEqual(['Ferry 1', 'Ferry 1 3', 'Ferry 2', 'Piece 3']);
    sound();
  });

  it('gives a piece its recipe, what it joins, where it starts, its size, its substitutes', async () => {
    await page.check('Pilot: goes ahead, the others wait for its verdict');
    expect(unit().pieces[0]!.isPilot).toBe(true);
    await page.check('“Acrylic wash” instead of “wash”');
    expect(unit().pieces[0]!.substitutes).toEqual(['wash']);
    await page.type('Or measured', '42');
    expect(unit().pieces[0]!.size).toMatchObject({ areaCm2: 42 });
    expect(page.text).toContain('42 cm² each');
    sound();
  });

  it('asks for copies of the unit within bounds, and for its deletion', async () => {
    const asked: number[] = [];
    let isDeleted = false;
    fixture.componentInstance.duplicate.subscribe((n) => asked.push(n));
    fixture.componentInstance.deleted.subscribe(() => (isDeleted = true));
    const copies = document.getElementById('unit-copies') as HTMLInputElement;
    for (const text of ['3', '999', '-4', 'many']) {
      copies.value = text;
      await page.press('Duplicate unit');
    }
    expect(asked).toEqual([3, 50, 1, 1]);
    await page.press('Delete unit');
    expect(isDeleted).toBe(true);
  });
});
