/**
 * What must hold from any muster to its plan and its sheets: nothing lost, nothing twice, every layer on a dry one, every window
 * kept, every figure the sum of its parts. Musters are made at random; SEED=… makes the same ones again.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseProblem, solveProblem, validateSolution } from '#core/kernel';
import { FAMILY_IDS, METHOD_IDS } from '#core/materials';
import { minutesSince, musterSchema, originOf, type Layer, type Muster } from '#core/muster';
import { linksOf, roundsOf, workMinutes } from '#core/recipe';
import { layer, smallMuster } from './testing';
import { compile, present, runSheet, worstLateness, type Plan } from './index';

const layerOf = fc.record({
  family: fc.constantFrom(...FAMILY_IDS),
  method: fc.constantFrom(...METHOD_IDS),
  minutes: fc.integer({ min: 1, max: 12 }),
  coats: fc.integer({ min: 1, max: 2 }),
  dryMinutes: fc.integer({ min: 0, max: 300 }),
  mixture: fc.constantFrom('', 'grey', 'rust 2:1'),
  window: fc.option(
    fc.record({ opens: fc.integer({ min: 0, max: 40 }), room: fc.integer({ min: 70, max: 500 }) }),
    { nil: null, freq: 3 },
  ),
  zones: fc.subarray(['hull', 'deck']),
  isPausable: fc.boolean(),
  passes: fc.option(fc.integer({ min: 2, max: 3 }), { nil: null, freq: 4 }),
  faces: fc.option(fc.integer({ min: 2, max: 3 }), { nil: null, freq: 4 }),
});

const anyMuster: fc.Arbitrary<Muster> = fc
  .record({
    recipes: fc.array(fc.array(layerOf, { minLength: 1, maxLength: 6 }), { minLength: 1, maxLength: 2 }),
    pieces: fc.array(
      fc.record({
        recipe: fc.nat(),
        count: fc.integer({ min: 1, max: 4 }),
        places: fc.integer({ min: 0, max: 3 }),
        unit: fc.boolean(),
      }),
      { minLength: 1, maxLength: 5 },
    ),
    people: fc.integer({ min: 1, max: 2 }),
    damp: fc.integer({ min: 30, max: 80 }),
  })
  .map((r) => {
    const base = smallMuster();
    const recipes = r.recipes.map((layers, n) => ({
      id: `r${n}`,
      name: `Recipe ${n}`,
      zones: [
        { id: 'hull', name: 'Hull' },
        { id: 'deck', name: 'Deck' },
      ],
      layers: layers.map((l, k): Layer =>
        layer(`l${k}`, {
          family: l.family,
          method: l.method,
          minutes: l.minutes,
          coats: l.coats,
          dryMinutes: l.window ? Math.min(l.dryMinutes, l.window.opens) : l.dryMinutes,
          mixture: l.mixture,
          zones: l.zones,
          pausable: l.isPausable && l.method !== 'airbrush',
          ...(l.window
            ? {
                window: {
                  opensMinutes: l.window.opens,
                  closesMinutes: l.window.opens + l.window.room,
                  preferMinutes: null,
                  through: null,
                },
              }
            : {}),
          ...(l.passes === null ? {} : { passes: { expected: l.passes, waitMinutes: 10 } }),
          ...(l.faces === null ? {} : { faces: { count: l.faces, waitMinutes: 15 } }),
        }),
      ),
    }));
    const pieces = r.pieces.map((p, k) => ({
      id: `p${k}`,
      name: `Piece ${k}`,
      recipe: `r${p.recipe % recipes.length}`,
      count: p.count,
      places: p.places,
      joins: null,
    }));
    return {
      ...base,
      bench: {
        ...base.bench,
        people: Array.from({ length: r.people }, (_, k) => ({ id: `h${k}`, name: `Hands ${k}` })),
        climate: { ...base.bench.climate, day: { celsius: 20, humidityPercent: r.damp } },
      },
      recipes,
      units: [true, false]
        .map((side, k) => ({
          ...base.units[0]!,
          id: `u${k}`,
          name: `Unit ${k}`,
          table: k === 0 ? '2027-03-06T12:00' : '2027-03-12T12:00',
          pieces: pieces.filter((_, n) => r.pieces[n]!.unit === side),
        }))
        .filter((u) => u.pieces.length > 0),
    };
  });

const SEED = Number(process.env['SEED'] ?? Math.floor(Math.random() * 1e6));
const MUSTERS = 36;

/** The plans of the musters that have one: made once, looked at from all sides. */
const planned = fc.sample(anyMuster, { numRuns: MUSTERS, seed: SEED }).flatMap((muster) => {
  const compiled = compile(muster);
  const solution = solveProblem(compiled.problem, { iterations: 8 });
  return solution.cost === null
    ? []
    : [{ muster, compiled, solution, plan: present(muster, compiled, solution) }];
});

const stepsOf = (plan: Plan) => [...plan.steps.values()];

describe(`any muster (seed ${SEED})`, () => {
  it('has, most often, a plan, which passes the judge', () => {
    expect(planned.length).toBeGreaterThan(MUSTERS / 3);
    for (const { compiled, solution } of planned)
      expect(validateSolution(compiled.problem, solution).violations).toEqual([]);
  });

  it('is one by its own schema, and becomes a problem by the kernel’s', () => {
    fc.assert(
      fc.property(anyMuster, (muster) => {
        expect(musterSchema.safeParse(muster).error).toBeUndefined();
        const { problem } = compile(muster);
        expect(parseProblem(JSON.parse(JSON.stringify(problem)))).toEqual(problem);
      }),
      { numRuns: 60 },
    );
  });

  it('has a step for every round of every layer of every piece, each as long as its work', () => {
    planned.forEach(({ muster, plan }) => {
      const wanted = muster.units.flatMap((u) =>
        u.pieces.flatMap((p) =>
          muster.recipes
            .find((r) => r.id === p.recipe)!
            .layers.flatMap((l) => Array.from({ length: roundsOf(l) }, (_, k) => `${p.id} ${l.id} ${k + 1}`)),
        ),
      );
      expect(
        stepsOf(plan)
          .map((s) => `${s.piece.id} ${s.layer.id} ${s.round}`)
          .sort(),
      ).toEqual(wanted.sort());
      for (const s of stepsOf(plan)) {
        const work = workMinutes(s.layer, s.piece.count);
        if (s.layer.pausable) expect(s.end - s.start).toBeGreaterThanOrEqual(work);
        else expect(s.end - s.start).toBe(work);
      }
    });
  });

  it('puts no layer on a wet one, and misses no window', () => {
    planned.forEach(({ muster, plan }) => {
      for (const unit of muster.units)
        for (const piece of unit.pieces) {
          const recipe = muster.recipes.find((r) => r.id === piece.recipe)!;
          const at = (k: number) =>
            stepsOf(plan).filter((s) => s.piece.id === piece.id && s.layerIndex === k);
          for (const link of linksOf(recipe)) {
            const below = at(link.from).at(-1)!;
            const above = at(link.to)[0]!;
            expect(above.start).toBeGreaterThanOrEqual(below.end);
            if (link.dries && below.gate === null)
              expect(above.start).toBeGreaterThanOrEqual(below.tide.dryAt - 1e-3);
            if (link.max !== Infinity && below.gate) {
              expect(above.start).toBeGreaterThanOrEqual(below.gate.opens - 1e-3);
              expect(above.start).toBeLessThanOrEqual(below.gate.closes! + 1e-3);
            }
          }
          // Rounds of one layer follow one another.
          for (let k = 0; k < recipe.layers.length; k++) {
            const rounds = at(k);
            rounds.slice(1).forEach((s, n) => expect(s.start).toBeGreaterThanOrEqual(rounds[n]!.end));
          }
        }
    });
  });

  it('lets every tide fall in order', () => {
    planned.forEach(({ plan }) => {
      for (const { tide, end } of stepsOf(plan)) {
        expect(tide.wetUntil).toBeGreaterThanOrEqual(end - 1e-6);
        expect(tide.workableUntil).toBeGreaterThanOrEqual(tide.wetUntil - 1e-6);
        expect(tide.dryAt).toBeGreaterThanOrEqual(tide.workableUntil - 1e-6);
      }
    });
  });

  it('works only in its sessions, and never with more hands than there are', () => {
    planned.forEach(({ muster, plan }) => {
      const minutes = stepsOf(plan).reduce((sum, s) => sum + workMinutes(s.layer, s.piece.count), 0);
      const setups = stepsOf(plan).reduce((sum, s) => sum + s.setup, 0);
      const busy = plan.sessions.reduce(
        (sum, s) => sum + s.busy * (s.end - s.start) * muster.bench.people.length,
        0,
      );
      expect(busy).toBeCloseTo(minutes + setups, 6);
      for (const s of plan.sessions) expect(s.busy).toBeLessThanOrEqual(1 + 1e-9);
      expect(plan.setupMinutes).toBe(setups);
    });
  });

  it('tells of each unit when it is ready and how late', () => {
    planned.forEach(({ muster, compiled, solution, plan }) => {
      const origin = originOf(muster);
      expect(plan.units).toHaveLength(muster.units.length);
      for (const u of plan.units) {
        const unit = muster.units.find((x) => x.id === u.id)!;
        expect(u.due).toBe(minutesSince(origin, unit.table));
        const last = Math.max(
          ...stepsOf(plan)
            .filter((s) => s.unit.id === u.id)
            .map((s) => s.end),
        );
        expect(u.ready).toBeGreaterThanOrEqual(last);
        expect(u.lateMinutes - u.spareMinutes).toBe(u.ready - u.due);
        expect(Math.min(u.lateMinutes, u.spareMinutes)).toBe(0);
      }
      expect(plan.lateMinutes).toBe(plan.units.reduce((sum, u) => sum + u.lateMinutes, 0));
      expect(worstLateness(compiled.problem, solution)).toBe(
        Math.max(...plan.units.map((u) => u.lateMinutes)),
      );
    });
  });

  it('has every step on the sheet of its session, by time, under its own verb, with its caution', () => {
    planned.forEach(({ plan }) => {
      const seen = new Map<string, number>();
      plan.sessions.forEach((session, k) => {
        const sheet = runSheet(plan, k);
        for (let n = 1; n < sheet.entries.length; n++)
          expect(sheet.entries[n]!.start).toBeGreaterThanOrEqual(sheet.entries[n - 1]!.start);
        for (const e of sheet.entries) {
          expect(e.start).toBeGreaterThanOrEqual(session.start);
          expect(e.end).toBeLessThanOrEqual(session.end);
          if (e.layer.method === 'airbrush' || e.layer.method === 'can')
            expect(e.cautions.join(' ')).toContain('respirator');
          if (e.mix) {
            expect(e.mix.cups).toBeGreaterThan(0);
            if (e.layer.method !== 'airbrush') expect(e.spray).toBeNull();
          }
          for (const p of e.pieces) seen.set(p.step, (seen.get(p.step) ?? 0) + 1);
        }
        for (const o of sheet.overnight) expect(o.until).toBeGreaterThan(session.end);
        expect(sheet.deferTo).toContain('safety data sheet');
      });
      for (const s of stepsOf(plan)) {
        if (s.layer.pausable) expect(seen.get(s.id)).toBeGreaterThanOrEqual(1);
        else expect(seen.get(s.id)).toBe(1);
      }
    });
  });
});
