/** Quiet hours, daylight, days away, and tools that have layers of their own. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { sessionsOf, type Bench, type Muster } from '#core/muster';
import { checkMuster } from './checkMuster';
import { compile } from './compile';
import { daylightSpans, quietSpans } from './hours';
import { present, type Plan } from './present';
import { whyOf } from './reasons';
import { layer, smallMuster } from './testing';
import { airbrushOf } from './tools';

function withBench(part: Partial<Bench>, layers = smallMuster().recipes[0]!.layers): Muster {
  const muster = smallMuster(layers);
  return { ...muster, bench: { ...muster.bench, ...part } };
}
function solved(muster: Muster): { plan: Plan; why: ReturnType<typeof whyOf> } {
  const compiled = compile(muster);
  const solution = solveProblem(compiled.problem, { iterations: 60 });
  const plan = present(muster, compiled, solution);
  return { plan, why: whyOf(compiled, solution, plan) };
}
const rules = (muster: Muster): string[] => checkMuster(muster).map((f) => f.rule);
const ofDay = (minute: number): number => minute % 1440;

describe('quiet hours', () => {
  it('past midnight are of two days', () => {
    const muster = withBench({ quiet: [{ id: 'q', from: '22:00', to: '06:00' }] });
    expect(quietSpans(muster, 2)).toEqual([
      [0, 360],
      [1320, 1800],
      [2760, 2880],
    ]);
  });

  it('keep the compressor still and let brushes work, and are named as the reason', () => {
    const layers = [layer('base', { minutes: 20 }), layer('spray', { method: 'airbrush', minutes: 10 })];
    const muster = withBench({ quiet: [{ id: 'q', from: '20:00', to: '07:00' }] }, layers);
    const { plan, why } = solved(muster);
    const sprays = [...plan.steps.values()].filter((s) => s.layer.id === 'spray');
    for (const s of sprays) expect(ofDay(s.end)).toBeLessThanOrEqual(1200);
    expect(sprays.some((s) => why(s.id).reasons.some((r) => r.text.startsWith('Quiet hours')))).toBe(true);
  });

  it('over every session are told', () => {
    expect(rules(withBench({ quiet: [{ id: 'q', from: '18:00', to: '22:00' }] }))).toContain(
      'quiet-over-all',
    );
  });
});

describe('outdoors', () => {
  const layers = [layer('can', { method: 'can', isOutdoors: true, minutes: 10 }), layer('base')];

  it('is in daylight only, by the sun where the place is known', () => {
    const weekly = [{ id: 'w', weekday: 6, from: '05:00', to: '21:00' }];
    const muster = withBench({ weekly, place: { latitude: 51.5, longitude: 0 } }, layers);
    const { plan } = solved({
      ...muster,
      units: muster.units.map((u) => ({ ...u, table: '2027-03-20T12:00' })),
    });
    // London, 6 March: the sun is up from about 6:33 to 17:50 (from memory of almanacs, to a few minutes).
    const [from, to] = daylightSpans(muster, 6)[5]!;
    expect(Math.abs(ofDay(from) - 393)).toBeLessThan(5);
    expect(Math.abs(ofDay(to) - 1070)).toBeLessThan(5);
    for (const s of plan.steps.values())
      if (s.layer.isOutdoors) {
        expect(s.start).toBeGreaterThanOrEqual(from);
        expect(s.end).toBeLessThanOrEqual(to);
      }
  });

  it('is the shorter of the days of north and south while nobody has said where the bench is', () => {
    // 8 h 4 min at the solstice at 50°: almanac figures, from memory.
    const dark = { ...withBench({}, layers), startsOn: '2026-12-21T18:00' };
    const [[from, to]] = daylightSpans(dark, 1) as [[number, number]];
    expect(Math.abs(to - from - 484)).toBeLessThan(6);
    expect(Math.abs((from + to) / 2 - 720)).toBeLessThan(10);
    const bright = { ...dark, startsOn: '2026-06-21T18:00' };
    const [[early, late]] = daylightSpans(bright, 1) as [[number, number]];
    expect(Math.abs(late - early - 484)).toBeLessThan(6);
  });

  it('is around noon by the bench’s own clock', () => {
    for (const timeZone of ['Pacific/Auckland', 'America/Los_Angeles', 'Asia/Kolkata']) {
      const [[from, to]] = daylightSpans(withBench({ timeZone }, layers), 1) as [[number, number]];
      expect(Math.abs((from + to) / 2 - 720), timeZone).toBeLessThan(20);
    }
  });

  it('there is none where the sun does not rise', () => {
    const far = {
      ...withBench({ place: { latitude: 80, longitude: 0 } }, layers),
      startsOn: '2026-12-21T18:00',
    };
    expect(daylightSpans(far, 3)).toEqual([]);
  });

  it('with no session by day is told', () => {
    const weekly = [{ id: 'w', weekday: 1, from: '21:00', to: '23:00' }];
    expect(rules(withBench({ weekly }, layers))).toContain('outdoors-no-daylight');
  });
});

describe('days away', () => {
  it('are dark', () => {
    const muster = withBench({ away: [{ id: 'a', from: '2027-03-02', to: '2027-03-03' }] });
    expect(sessionsOf(muster, 4).map((s) => Math.floor(s.start / 1440))).toEqual([0, 3]);
  });
});

describe('a span that ends before it begins', () => {
  it('is told, wherever it stands', () => {
    const back = { id: 'a', from: '2027-03-05', to: '2027-03-02' };
    expect(rules(withBench({ away: [back] }))).toContain('span-reversed');
    expect(rules(withBench({ people: [{ id: 'me', name: 'Me', away: [back] }] }))).toContain('span-reversed');
    const hours = [{ id: 'h', weekday: 1, from: '20:00', to: '19:00' }];
    expect(rules(withBench({ people: [{ id: 'me', name: 'Me', hours }] }))).toContain('span-reversed');
    expect(rules(withBench({ away: [{ ...back, to: back.from }] }))).not.toContain('span-reversed');
  });
});

describe('tools', () => {
  const minutes = { loadMinutes: 2, changeMinutes: 4, cleanMinutes: 8, idleMinutes: 40 };
  const bench: Bench = {
    ...smallMuster().bench,
    airbrush: { ...minutes, nozzleMm: 0.4 },
    moreAirbrushes: [
      { id: 'big', name: 'Big', role: 'primer', nozzleMm: 0.8, ...minutes },
      { id: 'fine', name: 'Fine', role: 'any', nozzleMm: 0.2, ...minutes },
    ],
  };

  it('a layer goes to an airbrush by its nozzle, else by role, else to the first', () => {
    const spray = (extra: Parameters<typeof layer>[1]): string =>
      airbrushOf(bench, layer('l', { method: 'airbrush', ...extra }));
    expect(spray({ family: 'primer' })).toBe('airbrush-big');
    expect(spray({ nozzleMm: 0.2 })).toBe('airbrush-fine');
    expect(spray({ family: 'varnish' })).toBe('airbrush');
    expect(spray({ family: 'primer', nozzleMm: 0.2 })).toBe('airbrush-fine');
  });

  it('primer in a brush of its own never makes the colour brush be cleaned', () => {
    const one = compile(withBench({ airbrush: minutes })).problem;
    const two = compile(
      withBench({ airbrush: bench.airbrush, moreAirbrushes: bench.moreAirbrushes }),
    ).problem;
    const cleans = (p: typeof one): number =>
      p
        .resources!.find((r) => r.id === 'airbrush')!
        .setup!.between!.filter(([from]) => from.startsWith('primer')).length;
    expect(cleans(one)).toBeGreaterThan(0);
    expect(cleans(two)).toBe(0);
  });

  it('a nozzle that no airbrush has is told', () => {
    const layers = [layer('l', { method: 'airbrush', nozzleMm: 0.5 })];
    expect(
      rules(withBench({ airbrush: bench.airbrush, moreAirbrushes: bench.moreAirbrushes }, layers)),
    ).toContain('nozzle-missing');
    expect(rules(withBench({}, layers))).not.toContain('nozzle-missing');
  });

  it('handles limit what is in work at a time, and too few for one tray are told', () => {
    const { plan } = solved(withBench({ handles: { figure: 1 } }));
    const spans = ['p1', 'p2'].map((id) => {
      const own = [...plan.steps.values()].filter((s) => s.piece.id === id).sort((a, b) => a.start - b.start);
      return [own[0]!.end, own.at(-1)!.end] as const;
    });
    spans.sort((a, b) => a[0] - b[0]);
    expect(spans[1]![0]).toBeGreaterThanOrEqual(spans[0]![1]);
    expect(rules(withBench({ handles: { figure: 0 } }))).toContain('handles-too-few');
  });

  it('the drying cabinet dries by its own air, and holds only so many', () => {
    const layers = [layer('base', { dryMinutes: 100, inCabinet: true }), layer('next', { dryMinutes: 100 })];
    const cabinet = { places: 1, celsius: 40, humidityPercent: 20 };
    const dry = (muster: Muster): number => {
      const step = solved(muster).plan.steps.get('p1.base')!;
      return step.tide.dryAt - step.end;
    };
    expect(dry(withBench({ cabinet }, layers))).toBeLessThan(0.7 * dry(withBench({}, layers)));
    const { plan } = solved(withBench({ cabinet }, layers));
    const [a, b] = ['p1.base', 'p2.base'].map((id) => plan.steps.get(id)!).sort((x, y) => x.end - y.end);
    expect(b!.end).toBeGreaterThanOrEqual(Math.floor(a!.tide.dryAt));
  });
});
