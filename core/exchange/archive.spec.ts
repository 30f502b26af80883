/** A muster with all that belongs to it in one zip, written by us and read by another library's rules, and back. */
import { MusterFileError, remixed, storesOf, withStores, writeMuster, type Product } from '#core/muster';
import { unzipSync, zipSync, strToU8 } from 'fflate';
import { describe, expect, it } from 'vitest';
import type { LogEntry } from '#core/log';
import { smallMuster } from '../plan/testing';
import { readArchive, readRecipe, writeArchive, writeRecipe } from './index';

const cream: Product = {
  id: 'cream',
  name: 'Cream',
  family: 'acrylic',
  colour: '#e6dcc0',
  bottleMl: 17,
  leftMl: 17,
};
const muster = withStores(smallMuster(), { products: [cream], markings: [], consumables: [], jars: [] });
const picture = 'data:image/png;base64,iVBORw0KGgo=';
const log: LogEntry[] = [
  { kind: 'done', id: 'a', at: '2027-03-01T19:00:00Z', step: 'p1.prime', minutes: 5 },
  {
    kind: 'picture',
    id: 'b/../x',
    at: '2027-03-01T19:05:00Z',
    data: picture,
    note: '"data":"pictures/no.png"',
  },
];

describe('an archive', () => {
  it('comes back as it was, pictures and all', () => {
    const back = readArchive(writeArchive(muster, log), 'UTC');
    expect(back).toEqual({ muster, log, pictures: 1 });
  });

  it('with a byte changed inside is refused by the name of the file, and nothing is taken', () => {
    const whole = writeArchive(muster, log);
    const at = Array.from({ length: 40 }, (_, k) => 60 + k * Math.floor((whole.length - 300) / 40));
    let refused = 0;
    for (const k of at) {
      const broken = whole.slice();
      broken[k] = broken[k]! ^ 0x55;
      try {
        expect(readArchive(broken, 'UTC')).toEqual(readArchive(whole, 'UTC'));
      } catch (error) {
        expect((error as Error).message).toMatch(/othing was taken|nothing is changed/);
        refused++;
      }
    }
    expect(refused).toBeGreaterThan(30);
  });

  it('holds the picture as a file, by a name that leads nowhere else', () => {
    const files = unzipSync(writeArchive(muster, log));
    const names = Object.keys(files);
    expect(names.sort()).toEqual(['log.json', 'muster.json', 'pictures/b____x.png']);
    expect([...files['pictures/b____x.png']!.slice(0, 4)]).toEqual([0x89, 0x50, 0x4e, 0x47]);
  });

  it.each<[string, Uint8Array, string]>([
    ['no zip', strToU8('hello'), 'no zip archive'],
    ['a zip without a muster', zipSync({ 'x.txt': strToU8('x') }), 'not in this archive'],
    ['a broken muster', zipSync({ 'muster.json': strToU8('{') }), 'is no JSON'],
    [
      'a picture that is not there',
      zipSync({
        'muster.json': strToU8(writeMuster(muster)),
        'log.json': strToU8('{"entries":[{"data":"pictures/gone.png"}]}'),
      }),
      'gone.png',
    ],
  ])('that is %s is refused in words', (_, bytes, words) => {
    expect(() => readArchive(bytes, 'UTC')).toThrow(words);
  });
});

describe('a recipe as a file', () => {
  const [recipe] = muster.recipes;

  it('comes back as it was', () => {
    expect(readRecipe(writeRecipe(recipe!), muster)).toEqual(recipe);
  });

  it('is mixed of what is called so on the shelf that it comes to, and of names alone where nothing is', () => {
    const parts = [
      { id: '1', product: cream.id, name: cream.name, parts: 3 },
      { id: '2', name: 'water', parts: 1 },
    ];
    const mixed = { ...recipe!, layers: recipe!.layers.map((l) => remixed(l, { parts })) };
    const partsIn = (other: typeof muster) =>
      readRecipe(writeRecipe(mixed), other).layers[0]!.madeOf!.parts.map((p) => p.product);
    const stocked = (products: Product[]) => withStores(muster, { ...storesOf(muster), products });
    expect(readRecipe(writeRecipe(mixed), muster)).toEqual(mixed);
    expect(partsIn(stocked([{ ...cream, id: 'other' }]))).toEqual(['other', undefined]);
    // The same id on another shelf is another paint.
    expect(partsIn(stocked([{ ...cream, name: 'Something else' }]))).toEqual([undefined, undefined]);
    expect(partsIn(stocked([]))).toEqual([undefined, undefined]);
  });

  it('with a mistake is refused by the names of things', () => {
    const text = writeRecipe(recipe!)
      .replace('"coats": 2', '"coats": 99')
      .replace('"coats": 1', '"coats": 99');
    let error: unknown;
    try {
      readRecipe(text, muster);
    } catch (e) {
      error = e;
    }
    expect(error).toBeInstanceOf(MusterFileError);
    expect((error as MusterFileError).message).toContain('Hull, prime: its coats');
  });

  it('that points at layers it has not is refused', () => {
    const bad = {
      ...recipe!,
      layers: recipe!.layers.map((l, k) => (k === 1 ? { ...l, waitsFor: ['gone'] } : l)),
    };
    expect(() => readRecipe(writeRecipe(bad), muster)).toThrow('has no layer “gone”');
  });
});
