/** Against psychrolib (ASHRAE Handbook of Fundamentals 2017, SI), and against printed table values. */
import psychrolib from 'psychrolib';
import { describe, expect, it } from 'vitest';
import { dewPointCelsius, saturationHpa, simulatedAir, unfitness, vapourPressureDeficitHpa } from './index';

psychrolib.SetUnitSystem(psychrolib.SI);

const TEMPERATURES = [-5, 0, 5, 10, 15, 20, 21, 25, 30, 35, 40];
const HUMIDITIES = [5, 20, 35, 50, 65, 80, 95, 100];

describe('saturation pressure', () => {
  // Below 0 °C psychrolib gives the pressure over ice; ours is over water, as paint is.
  it.each(TEMPERATURES.filter((t) => t >= 0))('agrees with psychrolib at %i °C within 0.3 %%', (t) => {
    expect(Math.abs(saturationHpa(t) / (psychrolib.GetSatVapPres(t) / 100) - 1)).toBeLessThan(0.003);
  });

  // Goff–Gratch values over water in the Smithsonian Meteorological Tables (1951, table 94), hPa; from memory.
  it.each([
    [0, 6.108],
    [10, 12.27],
    [20, 23.37],
    [30, 42.43],
    [40, 73.78],
  ])('is the printed %f °C → %f hPa', (t, hpa) => {
    expect(Math.abs(saturationHpa(t) - hpa) / hpa).toBeLessThan(0.003);
  });

  it('is over supercooled water below zero: above the pressure over ice', () => {
    expect(saturationHpa(-5)).toBeGreaterThan(psychrolib.GetSatVapPres(-5) / 100);
  });
});

describe('dew point', () => {
  const cases = TEMPERATURES.flatMap((t) => HUMIDITIES.map((h) => [t, h] as const)).filter(
    ([t, h]) => t >= 0 && psychrolib.GetTDewPointFromRelHum(t, h / 100) > 0.5,
  );
  it.each(cases)('at %i °C and %i %% agrees with psychrolib within 0.1 °C', (t, h) => {
    expect(Math.abs(dewPointCelsius(t, h) - psychrolib.GetTDewPointFromRelHum(t, h / 100))).toBeLessThan(0.1);
  });

  it('is the temperature itself in saturated air, −5 to 40 °C', () => {
    for (const t of TEMPERATURES) expect(dewPointCelsius(t, 100)).toBeCloseTo(t, 9);
  });
});

describe('vapour pressure deficit', () => {
  it('is saturation less vapour pressure', () => {
    for (const t of TEMPERATURES.filter((x) => x >= 0))
      for (const h of HUMIDITIES) {
        const reference = (psychrolib.GetSatVapPres(t) - psychrolib.GetVapPresFromRelHum(t, h / 100)) / 100;
        expect(Math.abs(vapourPressureDeficitHpa(t, h) - reference)).toBeLessThan(0.005 * saturationHpa(t));
      }
  });
});

describe('stops', () => {
  it('keeps all paint off within 3 °C of the dew point (ISO 8502-4)', () => {
    const damp = { celsius: 15, humidityPercent: 90 };
    expect(15 - dewPointCelsius(15, 90)).toBeLessThan(3);
    expect(unfitness('paint', damp)).toMatch(/dew point/);
    expect(unfitness('none', damp)).toBeNull();
  });

  it('keeps lacquer and cans out of damp air and cold', () => {
    expect(unfitness('lacquer', { celsius: 20, humidityPercent: 86 })).toMatch(/damp/);
    expect(unfitness('lacquer', { celsius: 20, humidityPercent: 60 })).toBeNull();
    expect(unfitness('paint', { celsius: 6, humidityPercent: 50 })).toMatch(/cold/);
  });
});

describe('the simulated instruments', () => {
  it('tell the same air for the same seed and minute, within what air can be', () => {
    for (let m = 0; m < 14 * 1440; m += 30) {
      const air = simulatedAir(7, m);
      expect(air).toEqual(simulatedAir(7, m));
      expect(air.humidityPercent).toBeGreaterThanOrEqual(25);
      expect(air.humidityPercent).toBeLessThanOrEqual(99);
      expect(air.celsius).toBeGreaterThan(8);
      expect(air.celsius).toBeLessThan(28);
    }
  });

  it('have an evening of sea fog every week in which no paint may go on', () => {
    const foggy = Array.from({ length: 7 }, (_, d) =>
      unfitness('paint', simulatedAir(7, d * 1440 + 20 * 60)),
    );
    expect(foggy.filter((f) => f !== null)).toHaveLength(1);
  });
});
