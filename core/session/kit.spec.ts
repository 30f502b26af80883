/** Before and after a session: what is laid out, what is left. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PlanStep } from '#core/plan';
import { zonesOf } from '#core/recipe';
import { layOut, leftBehind, restingCoats } from './index';
import { entry, followed, last, order, plan } from './testing';

const anyMinute = fc.integer({ min: 0, max: last + 600 });

describe('before and after a session', () => {
  it('every paint of it is laid out, and protection wherever it is sprayed', () => {
    for (const session of plan.sessions) {
      const lines = layOut(plan, session, new Set());
      const text = lines.map((l) => l.text).join('\n');
      for (const s of session.steps) {
        if (s.layer.mixture !== '') expect(text).toContain(s.layer.mixture);
        if (s.layer.method === 'airbrush' || s.layer.method === 'can') expect(text).toContain('Respirator');
      }
      expect(new Set(lines.map((l) => `${l.group} ${l.text}`)).size).toBe(lines.length);
      expect(layOut(plan, session, new Set(plan.steps.keys()))).toEqual([]);
    }
  });

  it('by what it is put on with, and both loads of what goes wet into wet', () => {
    const session = plan.sessions.find((s) => s.steps.some((x) => x.layer.method === 'brush'))!;
    const steps = session.steps
      .filter((s) => s.layer.method === 'brush')
      .map((s) => ({
        ...s,
        layer: { ...s.layer, applicator: 'No. 2 round', mixture: 'blue', wetWith: 'green' },
      }));
    const lines = layOut(plan, { ...session, steps }, new Set()).map((l) => `${l.group}: ${l.text}`);
    expect(lines).toContain(`Tools: No. 2 round, for “${steps[0]!.layer.name}”`);
    expect(lines).not.toContain('Tools: Brushes, and the palette');
    expect(lines.some((l) => l.startsWith('Paints to shake: green, wet into wet'))).toBe(true);
  });

  it('the tools that the work asks for, and no others', () => {
    const [some] = plan.sessions.find((s) => s.steps.length > 0)!.steps;
    const tools = (own: Partial<PlanStep['layer']>): string[] => {
      const bare = { task: undefined, applicator: undefined, nozzleMm: undefined, masking: undefined };
      const layer = {
        ...some!.layer,
        ...bare,
        family: 'acrylic',
        method: 'brush',
        ...own,
      } as PlanStep['layer'];
      return layOut(plan, { ...plan.sessions[0]!, steps: [{ ...some!, layer }] }, new Set())
        .filter((l) => l.group === 'Tools')
        .map((l) => l.text);
    };
    expect(tools({})).toEqual(['Brushes, and the palette']);
    expect(tools({ method: 'sponge' })).toEqual(['Sponge and tweezers']);
    const own = tools({ method: 'sponge', applicator: 'Torn foam' });
    expect(own).toEqual([`Torn foam, for “${some!.layer.name}”`]);
    expect(tools({ method: 'pour' })).toEqual(['Pouring cup, level']);
    expect(tools({ method: 'airbrush' })).toEqual(['Airbrush']);
    expect(tools({ method: 'airbrush', nozzleMm: 0.2 })).toEqual(['Airbrush, 0.2 mm nozzle']);
    expect(tools({ method: 'can' })).toEqual([]);
  });

  it('a cup for each paint that is mixed, none for a can, and the cleaning pot for what is sprayed', () => {
    const [some] = plan.sessions.find((s) => s.steps.length > 0)!.steps;
    const of = (method: PlanStep['layer']['method'], mixture: string): PlanStep => ({
      ...some!,
      layer: { ...some!.layer, method, mixture },
    });
    const cups = (steps: PlanStep[]): string[] =>
      layOut(plan, { ...plan.sessions[0]!, steps }, new Set())
        .filter((l) => l.group === 'Cups')
        .map((l) => l.text);
    expect(cups([of('brush', 'red'), of('brush', 'red')])).toEqual(['1 mixing cup, labelled']);
    expect(
      cups([of('brush', 'red'), of('airbrush', 'blue'), of('airbrush', 'grey'), of('can', 'sand')]),
    ).toEqual(['3 mixing cups, labelled, and the cleaning pot for 2 loads']);
    expect(cups([of('can', 'sand'), of('brush', '')])).toEqual([]);
  });

  it('windows that open or shut before anyone is back are told by time, what shuts as lost; what is wet by when it may be touched', () => {
    const [a, b] = order.filter((s) => s.piece.id !== order[0]!.piece.id).slice(0, 2);
    const coat = (step: PlanStep, touchAt: number, opens: number, closes: number) => ({
      step,
      ended: 0,
      touchAt,
      dryAt: touchAt,
      isFoundDry: false,
      gate: { opens, closes },
    });
    const told = leftBehind(plan, [coat(a!, 300, 90, 150), coat(b!, 200, 120, 201)], 100, 200);
    expect(told.meanwhile.map((m) => [m.isLost, m.text.includes(a!.layer.name)])).toEqual([
      [false, b!.layer.name === a!.layer.name],
      [true, true],
    ]);
    expect(told.untouchable).toHaveLength(2);
    expect(told.untouchable[0]).toContain(b!.piece.name);
    const edge = leftBehind(plan, [coat(a!, 100, 100, 100), coat(b!, 100, 200, 200)], 100, 200);
    expect(edge).toEqual({ untouchable: [], meanwhile: [] });
  });

  it('what is wet when everyone goes is named, and what is dry is not', () => {
    fc.assert(
      fc.property(anyMinute, (minute) => {
        const done = new Set(order.filter((s) => s.end <= minute).map((s) => s.id));
        const next = plan.sessions.find((s) => s.start > minute)?.start ?? Infinity;
        const coats = restingCoats(plan, followed(minute));
        const { untouchable, meanwhile } = leftBehind(plan, coats, minute, next);
        const covered = (s: PlanStep): boolean =>
          zonesOf(s.recipe, s.layer).every((z) =>
            order.some(
              (o) =>
                o.piece.id === s.piece.id &&
                done.has(o.id) &&
                (o.layerIndex > s.layerIndex || (o.layerIndex === s.layerIndex && o.round > s.round)) &&
                zonesOf(o.recipe, o.layer).includes(z),
            ),
          );
        const live = (s: PlanStep): boolean =>
          s.gate?.closes != null && s.gate.steps.some((id) => !done.has(id));
        // The plan's minutes have fractions, the log's moments are whole.
        const slack = 1;
        const wet = order.filter((s) => done.has(s.id) && (live(s) || !covered(s)));
        if (wet.some((s) => s.tide.wetUntil > minute + slack && s.tide.dryAt > s.end))
          expect(untouchable.length).toBeGreaterThan(0);
        if (wet.every((s) => s.tide.wetUntil < minute - slack)) expect(untouchable).toEqual([]);
        const lost = order.filter(
          (s) =>
            done.has(s.id) && live(s) && s.gate!.closes! > minute + slack && s.gate!.closes! < next - slack,
        );
        expect(meanwhile.filter((m) => m.isLost).length).toBeGreaterThanOrEqual(lost.length);
      }),
      { numRuns: 60 },
    );
  });

  it('goes by when it was really done: what is ticked weeks before the plan begins is not wet until then', () => {
    const first = order.find((s) => s.tide.wetUntil > s.end)!;
    const early = -20_000;
    const coats = restingCoats(plan, [entry({ kind: 'done', step: first.id, minutes: 5 }, early)]);
    const wetFor = first.tide.wetUntil - first.end;
    expect(leftBehind(plan, coats, early + 1, Infinity).untouchable).toHaveLength(1);
    expect(leftBehind(plan, coats, early + wetFor + 10, Infinity).untouchable).toEqual([]);
  });
});
