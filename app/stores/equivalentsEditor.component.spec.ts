/** What may stand for a product: another one or a mix, never itself. */
import { TestBed } from '@angular/core/testing';
import { describe, expect, it } from 'vitest';
import { productSchema, type Product } from '#core/muster';
import { Page } from '../testing/page';
import { EquivalentsEditor } from './equivalentsEditor';

const product = (id: string, name: string, family: Product['family'] = 'acrylic'): Product => ({
  id,
  name,
  family,
  colour: '#3b6ea5',
  bottleMl: 17,
  leftMl: 17,
});

describe('what may stand for a product', () => {
  it('is chosen from the others, those of its kind first, mixed of several, and taken out again', async () => {
    const own = product('cream', 'Cream');
    const fixture = TestBed.createComponent(EquivalentsEditor);
    fixture.componentRef.setInput('product', own);
    fixture.componentRef.setInput('products', [product('a', 'Agate', 'enamel'), product('b', 'Bone'), own]);
    let equivalents: Product['equivalents'];
    fixture.componentInstance.changed.subscribe((list) => {
      equivalents = list;
      fixture.componentRef.setInput('product', { ...own, equivalents: list });
    });
    await fixture.whenStable();
    const page = new Page(fixture);
    await page.press('One that may');
    expect(equivalents!.map((e) => e.madeOf.parts.map((p) => p.product))).toEqual([['b']]);
    expect([...page.field('Part 1').querySelectorAll('option')].map((o) => o.value)).not.toContain('cream');
    await page.press('One part more');
    await page.type('Part 2', 'a');
    await page.type('Parts', '3');
    expect(productSchema.parse({ ...own, equivalents }).equivalents![0]!.madeOf.parts).toMatchObject([
      { name: 'Bone', parts: 3 },
      { name: 'Agate', parts: 1 },
    ]);
    await page.press('Take out');
    await page.press('Take out');
    expect(equivalents).toBeUndefined();
  });
});
