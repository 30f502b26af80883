/** A mixture in words or of products: words as parts, parts as words, and the colour that they give. */
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { beforeEach, describe, expect, it } from 'vitest';
import { layerSchema, mixtureWords, type Layer, type Product } from '#core/muster';
import { layer } from '../../core/plan/testing';
import { Page } from '../testing/page';
import { MixtureEditor } from './mixtureEditor';

const product = (id: string, name: string, part: Partial<Product> = {}): Product => ({
  id,
  name,
  family: 'acrylic',
  colour: '#3b6ea5',
  bottleMl: 17,
  leftMl: 17,
  ...part,
});
const SHELF = [
  product('blue', 'Blue'),
  product('straw', 'Straw', { colour: '#ecc531', character: 'clogs', verdict: 'never' }),
];

let fixture: ComponentFixture<MixtureEditor>;
let page: Page;

async function edit(first: Layer): Promise<void> {
  fixture = TestBed.createComponent(MixtureEditor);
  fixture.componentRef.setInput('products', SHELF);
  fixture.componentRef.setInput('layer', first);
  fixture.componentInstance.changed.subscribe((c) => fixture.componentRef.setInput('layer', c.layer));
  await fixture.whenStable();
  page = new Page(fixture);
}
const edited = (): Layer => layerSchema.parse(fixture.componentInstance.layer());
beforeEach(() => edit(layer('base', { mixture: 'blue 3:1' })));

describe('the editor of a mixture', () => {
  it('shows words as parts, and makes parts into words when one of them is changed', async () => {
    expect(page.field('Part 1').value).toBe('blue');
    expect(edited().madeOf).toBeUndefined();
    await page.type('Parts', '5');
    expect(edited().mixture).toBe('Blue, acrylic thinner 5:1');
    await page.press('One part more');
    await page.type('Part 3', 'straw');
    expect(edited().mixture).toBe('Blue, acrylic thinner, Straw 5:1:1');
    expect(page.text).toContain('clogs You said: never again.');
    expect(mixtureWords(edited().madeOf!)).toBe(edited().mixture);
  });

  it('takes the colour that its products give, and none where it is only words', async () => {
    expect(page.text).not.toContain('Take this colour');
    await page.type('Parts', '1');
    await page.press('Take this colour');
    expect(edited().colour).toMatch(/^#[0-9a-f]{6}$/);
    expect(edited().colour).not.toBe('#808080');
    expect(page.text).not.toContain('Take this colour');
  });

  it('lets words of one’s own, and a target, and a second load come and go', async () => {
    await page.type('Parts', '5');
    await page.type('Mixed by eye to (a swatch, a picture); the parts are only about right', 'the lid');
    expect(edited().mixture).toBe('Blue, acrylic thinner 5:1, by eye to the lid');
    await page.type('Wet into wet with (a second load, run into the first)', 'green');
    expect(edited().wetWith).toBe('green');
    await page.type('As it is loaded (same words: same colour run)', 'by eye');
    expect(edited()).toMatchObject({ mixture: 'by eye', wetWith: 'green' });
    expect(edited().madeOf).toBeUndefined();
    await page.type('Wet into wet with (a second load, run into the first)', '');
    expect(edited().wetWith).toBeUndefined();
  });

  it('begins with what is nearest in colour of its family', async () => {
    await edit(layer('base', { colour: '#e8c02f' }));
    await page.press('Mix it of products');
    expect(edited().mixture).toBe('Straw');
    await edit(layer('base', { colour: '#3b6ea5' }));
    await page.press('Mix it of products');
    expect(edited().mixture).toBe('Blue');
  });

  it('names what is not on the shelf yet, and is nothing once all parts are taken out', async () => {
    await edit(layer('base'));
    await page.press('Mix it of products');
    await page.type('Part 1', '~other');
    await page.type('What it is', 'Umber');
    expect(edited().madeOf!.parts).toMatchObject([{ name: 'Umber', parts: 1 }]);
    expect(edited().madeOf!.parts[0]!.product).toBeUndefined();
    await page.press('Take out');
    expect(edited().mixture).toBe('');
    expect(edited().madeOf).toBeUndefined();
  });
});
