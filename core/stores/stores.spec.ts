import { parseMuster, remixed, TO_BE_CHOSEN, type Marking } from '#core/muster';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { writeShoppingCsv } from '#core/exchange';
import { solveProblem } from '#core/kernel';
import { checkMuster, compile, present, type Plan, type PlanStep } from '#core/plan';
import { fenMuster } from '../../demo/fen';
import type { LogEntry } from '#core/log';
import { consumableUses, markingUses, missingWords, productUses, shoppingList, unnamedUses } from './index';

const muster = fenMuster('2027-03-01');
const compiled = compile(muster);
const plan = present(muster, compiled, solveProblem(compiled.problem, { iterations: 5 }));

describe('the stores against the plan', () => {
  it('use up exactly what the steps take', () => {
    for (const use of productUses(muster, plan))
      expect(use.sessions.reduce((sum, s) => sum + s.ml, 0)).toBeCloseTo(use.neededMl, 9);
  });

  it('say in which session a bottle runs out: the first in which more is used than was left', () => {
    const short = productUses(muster, plan).find((u) => u.runsOut && u.product);
    expect(short).toBeDefined();
    let left = short!.leftMl;
    const first = short!.sessions.find((s) => (left -= s.ml) < 0)!;
    expect(short!.runsOut!.session).toBe(first.session);
  });

  it('fall by every coat that went on: one done again has taken its paint twice, one of a piece that is gone too', () => {
    const used = productUses(muster, plan).find((u) => u.product && u.leftMl > 6)!;
    const [step] = [...plan.steps.values()];
    const put = (id: string, of: string): LogEntry => ({
      id,
      at: '2027-03-20T20:00:00Z',
      kind: 'done',
      step: of,
      minutes: 1,
      used: [{ name: used.name, ml: 2 }],
    });
    const again: LogEntry = {
      id: 'b',
      at: '2027-03-20T20:00:00Z',
      kind: 'rework',
      step: step!.id,
      trouble: 'Not as it should be',
      cure: 'Take it back',
      minutes: 0,
      dryMinutes: 0,
      again: [step!.id],
    };
    const log = [put('a', step!.id), again, put('c', step!.id), put('d', 'piece-that-is-gone.layer')];
    const after = productUses(muster, plan, log).find((u) => u.name === used.name)!;
    expect(after.usedMl).toBeCloseTo(6, 9);
    expect(after.leftMl).toBeCloseTo(used.leftMl - 6, 9);
  });

  it('fall by what was done, which needs nothing more; what is counted anew falls from there', () => {
    const before = productUses(muster, plan);
    const steps = [...plan.steps.values()].sort((a, b) => a.start - b.start);
    const half = steps.slice(0, steps.length / 2);
    const at = '2027-03-20T20:00:00Z';
    const done = (list: typeof steps, mark: string): LogEntry[] =>
      list.map((s, k) => ({ id: `${mark}${k}`, at, kind: 'done', step: s.id, minutes: 1 }));
    const ended = done(half, 'e');
    const after = productUses(muster, plan, ended);
    const used = after.reduce((sum, u) => sum + u.usedMl, 0);
    expect(used).toBeGreaterThan(1);
    for (const now of after) {
      const then = before.find((u) => u.name === now.name)!;
      expect(now.neededMl + now.usedMl).toBeCloseTo(then.neededMl, 9);
      expect(now.leftMl).toBeCloseTo(Math.max(0, then.leftMl - now.usedMl), 9);
    }
    const counted = {
      ...muster,
      stores: {
        ...muster.stores!,
        products: muster.stores!.products.map((p) => ({ ...p, leftMl: 50, leftAt: '2027-03-20T21:00:00Z' })),
      },
    };
    for (const u of productUses(counted, plan, ended).filter((u) => u.product)) expect(u.leftMl).toBe(50);
    const left = (e: LogEntry[]): number =>
      markingUses(muster, plan, e)[0]!.left + markingUses(muster, plan, e)[0]!.needed;
    const all = done(steps, 'a');
    expect(markingUses(muster, plan, all)[0]).toMatchObject({ needed: 0, short: null });
    expect(left(all)).toBeLessThan(left([]));
    expect(shoppingList(muster, plan, all)).toEqual([]);
  });

  it('ask what a part is that nobody has chosen yet, and take the others off the shelf', () => {
    const [product] = muster.stores!.products;
    const of = [...plan.steps.values()].find((s) => s.layer.mixture !== '' && s.round === 1)!;
    const parts = [
      { id: '1', product: product!.id, name: product!.name, parts: 1 },
      { id: '2', name: TO_BE_CHOSEN, parts: 1 },
    ];
    const mixed = (s: PlanStep): PlanStep =>
      s.layer.id === of.layer.id && s.recipe.id === of.recipe.id
        ? { ...s, layer: remixed(s.layer, { parts }) }
        : s;
    const open: Plan = {
      ...plan,
      steps: new Map([...plan.steps].map(([id, s]) => [id, mixed(s)])),
      sessions: plan.sessions.map((s) => ({ ...s, steps: s.steps.map(mixed) })),
    };
    expect(unnamedUses(muster, plan).some((u) => u.layer.id === of.layer.id)).toBe(false);
    expect(unnamedUses(muster, open).some((u) => u.layer.id === of.layer.id)).toBe(true);
    expect(productUses(muster, open).map((u) => u.name)).not.toContain(TO_BE_CHOSEN);
    const needed = (p: Plan): number =>
      productUses(muster, p).find((u) => u.product?.id === product!.id)!.neededMl;
    expect(needed(open)).not.toBeCloseTo(needed(plan), 3);
  });

  it('make a shopping list by the day, that a CSV library reads back', () => {
    const list = shoppingList(muster, plan);
    expect(list.length).toBeGreaterThan(0);
    expect([...list].sort((a, b) => a.day.localeCompare(b.day)).map((s) => s.day)).toEqual(
      list.map((s) => s.day),
    );
    const rows = Papa.parse<Record<string, string>>(writeShoppingCsv(list).trim(), { header: true });
    expect(rows.errors).toEqual([]);
    expect(rows.data.map((r) => r['name'])).toEqual(list.map((s) => s.name));
  });

  it('buy neither water nor a layer: what names no paint is asked for, once for each layer', () => {
    const unnamed = unnamedUses(muster, plan);
    expect(unnamed.length).toBeGreaterThan(0);
    expect(unnamed.every((u) => u.layer.mixture === '' && u.ml > 0)).toBe(true);
    const bought = new Set(shoppingList(muster, plan).map((s) => s.name.toLowerCase()));
    for (const { layer } of unnamed) expect(bought).not.toContain(layer.name.toLowerCase());
    expect(bought).not.toContain('water');
    // Whoever has a bottle of that name on the shelf means it.
    const [first] = unnamed;
    const [product] = muster.stores!.products;
    const stocked = {
      ...muster,
      stores: {
        ...muster.stores!,
        products: [
          ...muster.stores!.products,
          { ...product!, id: 'own', name: first!.layer.name.split(',')[0]! },
        ],
      },
    };
    expect(unnamedUses(stocked, plan).some((u) => u.layer.name === first!.layer.name)).toBe(false);
    expect(productUses(stocked, plan).find((u) => u.product?.id === 'own')!.neededMl).toBeGreaterThan(0);
  });

  it('count markings by sheet and policy, and small things by step', () => {
    const [numbers] = markingUses(muster, plan);
    expect(numbers!.needed).toBe(6 * 4);
    const seen = {
      ...muster,
      stores: {
        ...muster.stores!,
        markings: muster.stores!.markings.map((m) => ({ ...m, policy: 'seen-sides' as const })),
      },
    };
    // What is not said to be hidden is seen.
    expect(markingUses(seen, plan)[0]!.needed).toBe(6 * 4);
    const hidden: typeof plan = {
      ...plan,
      steps: new Map(
        [...plan.steps].map(([id, s]) => [
          id,
          { ...s, piece: { ...s.piece, hidden: ['left' as const, 'back' as const] } },
        ]),
      ),
    };
    expect(markingUses(seen, hidden)[0]!.needed).toBe(6 * 3);
    expect(markingUses(muster, hidden)[0]!.needed).toBe(6 * 4);
    expect(consumableUses(muster, plan).every((u) => u.needed > 0)).toBe(true);
  });
});

describe('a sheet with several subjects', () => {
  const subject = (id: string, part: Partial<Marking>): Marking => ({
    id,
    name: id,
    sheet: 'Fair sheet',
    unit: null,
    perPiece: 1,
    left: 0,
    policy: 'every-side',
    ...part,
  });
  const bought = (markings: Marking[]) =>
    shoppingList({ ...muster, stores: { ...muster.stores!, markings } }, plan).filter(
      (s) => s.what === 'marking',
    );
  const wanted = markingUses(
    { ...muster, stores: { ...muster.stores!, markings: [subject('x', {})] } },
    plan,
  )[0]!.needed;

  it('is bought once, as often as the subject needs that lacks most', () => {
    const [line, ...others] = bought([
      subject('crest', { perSheet: wanted, left: wanted - 1 }),
      subject('number', { perSheet: Math.ceil(wanted / 3), left: 0 }),
      subject('name', { left: wanted, perSheet: 1 }),
    ]);
    expect(others).toEqual([]);
    expect(line).toMatchObject({ name: 'Fair sheet (crest, number)', missing: wanted + 1, packs: 3 });
    expect(missingWords(line!)).toBe(`${wanted + 1} markings, 3 sheets`);
  });

  it('without how many a sheet has is short of so many, and no number of sheets is made up', () => {
    expect(bought([subject('crest', {})])).toMatchObject([{ packs: null, missing: wanted }]);
    expect(bought([subject('a', { sheet: undefined }), subject('b', { sheet: undefined })])).toHaveLength(2);
  });
});

describe('bad shelves', () => {
  const file = (change: (m: { stores: { products: Record<string, unknown>[] } }) => void): unknown => {
    const m = JSON.parse(JSON.stringify(muster)) as { stores: { products: Record<string, unknown>[] } };
    change(m);
    return m;
  };

  it('names the path of a bottle smaller than a drop and of a negative volume', () => {
    expect(() => parseMuster(file((m) => (m.stores.products[0]!['bottleMl'] = 0.01)))).toThrow(
      /is smaller than a drop .*stores\.products\[0\]\.bottleMl/,
    );
    expect(() => parseMuster(file((m) => (m.stores.products[1]!['leftMl'] = -3)))).toThrow(
      /stores\.products\[1\]\.leftMl/,
    );
  });

  it('warns of two products of one name and of ratios that mix nothing', () => {
    const twice = parseMuster(file((m) => (m.stores.products[1]!['name'] = 'Grey Primer')));
    expect(checkMuster(twice).map((f) => f.rule)).toContain('product-twice');
    const recipes = muster.recipes.map((r, k) =>
      k === 0 ? { ...r, layers: r.layers.map((l, i) => (i === 0 ? { ...l, mixture: 'x 0:0' } : l)) } : r,
    );
    expect(checkMuster({ ...muster, recipes }).find((f) => f.rule === 'mixture-unreadable')?.text).toMatch(
      /mixes nothing/,
    );
  });
});
