/** The editor of a unit: each entry is one change of the unit, with what it was. */
import { provideRouter } from '@angular/router';
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
  await TestBed.configureTestingModule({
    imports: [UnitEditor],
    providers: [provideRouter([])],
  }).compileComponents();
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

  it('adds pieces like the last, by number and by name', async () => {
    await page.type('More pieces: “4 more”, “mast, oars, roof late”', '2 more');
    await page.press('Add');
    expect(unit().pieces.map((p) => [p.name, p.recipe])).toEqual([
      ['Ferry 1', 'r'],
      ['Ferry 2', 'r'],
      ['Ferry 3', 'r'],
      ['Ferry 4', 'r'],
    ]);
    await page.type('More pieces: “4 more”, “mast, oars, roof late”', 'mast, roof late');
    await page.press('Add');
    expect(
      unit()
        .pieces.slice(4)
        .map((p) => [p.name, p.joins]),
    ).toEqual([
      ['Mast', null],
      ['Roof', { piece: 'p1', layer: 'wash', glue: { minutes: 4, dryMinutes: 60 } }],
    ]);
    await page.type('More pieces: “4 more”, “mast, oars, roof late”', '0 more');
    await page.press('Add');
    expect(page.text).toContain('Makes none');
    expect(unit().pieces).toHaveLength(6);
    sound();
  });

  it('asks for copies of the unit within bounds, and for its deletion', async () => {
    const asked: number[] = [];
    let isDeleted = false;
    fixture.componentInstance.duplicate.subscribe((n) => asked.push(n));
    fixture.componentInstance.deleted.subscribe(() => (isDeleted = true));
    await page.type('copies', '3');
    await page.press('Duplicate unit');
    // What is no number of copies is told, and what stood before holds.
    for (const text of ['199', '-4', 'many']) await page.type('copies', text);
    expect(page.text).toContain('That is no number.');
    await page.type('copies', '51');
    expect(page.text).toContain('Between 1 and 50.');
    expect(asked).toEqual([3]);
    await page.press('Delete unit');
    expect(isDeleted).toBe(true);
  });
});
