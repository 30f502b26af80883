/** Colour spaces and differences against what is published of them. */
import { describe, expect, it } from 'vitest';
import { bandsOf, colourOf, labDifference, labOf, luminanceOf } from './colour';
import { frequencyOf, sensitivityAt, smallestSeenMm } from './sight';

type Lab = readonly [number, number, number];

/** Sharma, Wu and Dalal (2005), table 1: pairs of CIELAB colours with their CIEDE2000 difference, to four decimals. */
const SHARMA: readonly (readonly [Lab, Lab, number])[] = [
  [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
  [[50, 3.1571, -77.2803], [50, 0, -82.7485], 2.8615],
  [[50, 2.8361, -74.02], [50, 0, -82.7485], 3.4412],
  [[50, -1.3802, -84.2814], [50, 0, -82.7485], 1],
  [[50, -1.1848, -84.8006], [50, 0, -82.7485], 1],
  [[50, -0.9009, -85.5211], [50, 0, -82.7485], 1],
  [[50, 0, 0], [50, -1, 2], 2.3669],
  [[50, -1, 2], [50, 0, 0], 2.3669],
  [[50, 2.49, -0.001], [50, -2.49, 0.0009], 7.1792],
  [[50, 2.49, -0.001], [50, -2.49, 0.001], 7.1792],
  [[50, 2.49, -0.001], [50, -2.49, 0.0011], 7.2195],
  [[50, 2.49, -0.001], [50, -2.49, 0.0012], 7.2195],
  [[50, -0.001, 2.49], [50, 0.0009, -2.49], 4.8045],
  [[50, -0.001, 2.49], [50, 0.001, -2.49], 4.8045],
  [[50, -0.001, 2.49], [50, 0.0011, -2.49], 4.7461],
  [[50, 2.5, 0], [50, 0, -2.5], 4.3065],
  [[50, 2.5, 0], [73, 25, -18], 27.1492],
  [[50, 2.5, 0], [61, -5, 29], 22.8977],
  [[50, 2.5, 0], [56, -27, -3], 31.903],
  [[50, 2.5, 0], [58, 24, 15], 19.4535],
  [[50, 2.5, 0], [50, 3.1736, 0.5854], 1],
  [[50, 2.5, 0], [50, 3.2972, 0], 1],
  [[50, 2.5, 0], [50, 1.8634, 0.5757], 1],
  [[50, 2.5, 0], [50, 3.2592, 0.335], 1],
  [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
  [[63.0109, -31.0961, -5.8663], [62.8187, -29.7946, -4.0864], 1.263],
  [[61.2901, 3.7196, -5.3901], [61.4292, 2.248, -4.962], 1.8731],
  [[35.0831, -44.1164, 3.7933], [35.0232, -40.0716, 1.5901], 1.8645],
  [[22.7233, 20.0904, -46.694], [23.0331, 14.973, -42.5619], 2.0373],
  [[36.4612, 47.858, 18.3852], [36.2715, 50.5065, 21.2231], 1.4146],
  [[90.8027, -2.0831, 1.441], [91.1528, -1.6435, 0.0447], 1.4441],
  [[90.9257, -0.5406, -0.9208], [88.6381, -0.8985, -0.7239], 1.5381],
  [[6.7747, -0.2908, -2.4247], [5.8714, -0.0985, -2.2286], 0.6377],
  [[2.0776, 0.0795, -1.135], [0.9033, -0.0636, -0.5514], 0.9082],
];

describe('colour', () => {
  it.each(SHARMA)('%j and %j differ by %f', (a, b, difference) => {
    expect(labDifference(a, b)).toBeCloseTo(difference, 4);
    expect(labDifference(b, a)).toBeCloseTo(difference, 4);
  });

  it('has the sRGB primaries where IEC 61966-2-1 and CIELAB put them (figures from memory)', () => {
    const near = (colour: string, [l, a, b]: Lab): void => {
      const lab = labOf(colour);
      expect([lab.l, lab.a, lab.b].map((v) => Math.round(v * 10) / 10)).toEqual([l, a, b]);
    };
    near('#ff0000', [53.2, 80.1, 67.2]);
    near('#00ff00', [87.7, -86.2, 83.2]);
    near('#0000ff', [32.3, 79.2, -107.9]);
    expect(luminanceOf('#ffffff')).toBeCloseTo(1, 9);
    expect(bandsOf('#bcbcbc')[0]).toBeCloseTo(0.5029, 3);
  });

  it('comes back as it was', () => {
    for (const colour of ['#000000', '#8a4b2e', '#e6dcc0', '#ffffff'])
      expect(colourOf(bandsOf(colour))).toBe(colour);
  });
});

describe('what is seen at arm’s length', () => {
  it('counts cycles a degree: a bar of 5.24 mm at 60 cm is half a degree wide, one cycle', () => {
    expect(frequencyOf(5.236)).toBeCloseTo(1, 3);
    expect(frequencyOf(5.236, 1200)).toBeCloseTo(2, 3);
  });

  it('falls above eight cycles a degree (Mannos and Sakrison 1974: 0.98 of the peak at 8, 0.04 at 60; computed by its formula)', () => {
    expect(sensitivityAt(8) / sensitivityAt(1)).toBeGreaterThan(0.99);
    expect(sensitivityAt(60) / sensitivityAt(8)).toBeLessThan(0.05);
  });

  it('needs a wider mark where it is closer in lightness, and never sees what is alike', () => {
    const strong = smallestSeenMm('#000000', '#ffffff')!;
    const weak = smallestSeenMm('#8a8a8a', '#909090')!;
    expect(strong).toBeLessThan(0.12);
    expect(weak).toBeGreaterThan(1.5 * strong);
    expect(smallestSeenMm('#8a8a8a', '#8a8a8a')).toBeNull();
  });

  it('sees hue alone from half a millimetre', () => {
    // Alike in luminance, apart in hue.
    const wide = smallestSeenMm('#a06060', '#607f60')!;
    expect(wide).toBeLessThan(0.5);
  });
});
