import { describe, expect, it } from 'vitest';
import {
  clockPoints,
  dewPointCelsius,
  dryingRate,
  minuteAfter,
  REFERENCE,
  saturationHpa,
  ticksAt,
} from './index';

describe('air and water', () => {
  // WMO-No. 8, annex 4.B: the Magnus form gives 6.112 hPa at 0 °C; 23.4 hPa at 20 °C and 42.4 hPa at 30 °C stand in
  // printed psychrometric tables (values from memory, rounded to 0.1 hPa).
  it.each([
    [0, 6.11],
    [20, 23.4],
    [30, 42.4],
  ])('saturates at %d °C with %d hPa', (celsius, hpa) => expect(saturationHpa(celsius)).toBeCloseTo(hpa, 0));

  it('has its dew point at the temperature when saturated, and well below when dry', () => {
    expect(dewPointCelsius(17, 100)).toBeCloseTo(17, 6);
    expect(dewPointCelsius(20, 50)).toBeCloseTo(9.3, 1);
  });
});

describe('rates', () => {
  it('are 1 at the reference air', () => {
    for (const d of ['water', 'solvent', 'oxidation', 'none'] as const)
      expect(dryingRate(d, REFERENCE)).toBeCloseTo(1, 9);
  });

  it('make waterborne paint ten times as slow at 95 % (common practice, no source)', () => {
    expect(1 / dryingRate('water', { celsius: 21, humidityPercent: 95 })).toBeCloseTo(10, 6);
  });

  it('double an oil’s hardening every 10 °C (common practice, no source)', () => {
    expect(dryingRate('oxidation', { celsius: 31, humidityPercent: 50 })).toBeCloseTo(2, 9);
  });

  it('hardly move a solvent with humidity', () => {
    expect(dryingRate('solvent', { celsius: 21, humidityPercent: 90 })).toBe(1);
  });
});

describe('clocks', () => {
  const damp = { celsius: 21, humidityPercent: 75 };
  const points = clockPoints(
    'water',
    [
      { from: 0, air: REFERENCE },
      { from: 600, air: damp },
    ],
    2000,
  );

  it('run at half speed at three quarters humidity', () => {
    expect(ticksAt(points, 600)).toBe(600);
    expect(ticksAt(points, 800)).toBeCloseTo(700, 3);
  });

  it('say when a drying is over', () => {
    expect(minuteAfter(points, 590, 30)).toBeCloseTo(640, 3);
    expect(ticksAt(points, minuteAfter(points, 123, 777)) - ticksAt(points, 123)).toBeCloseTo(777, 3);
  });
});
