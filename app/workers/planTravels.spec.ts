/** A solved plan sent packed is the plan that arrives, and small columns are what travels. */
import { afterEach, describe, expect, it } from 'vitest';
import { expose, transferHandlers, wrap } from 'comlink';
import { solveProblem } from '#core/kernel';
import { pose, shownOf, solvedPlan, type Shown } from '#core/session';
import { fenMuster } from '../../demo/fen';
import { packed, sendPlansPacked, unpacked } from './planTravels';

const posed = pose(fenMuster('2026-11-30'), [], null);
const shown = shownOf(solvedPlan(posed, solveProblem(posed.problem, { iterations: 1 })));
const there = (plan: Shown): Shown => unpacked(structuredClone(packed(plan)));

describe('a plan that travels', () => {
  it('arrives whole', () => {
    const { steps, ...rest } = there(shown);
    const { steps: all, ...before } = shown;
    expect(rest).toStrictEqual(before);
    expect([...steps.keys()]).toEqual([...all.keys()]);
    for (const [id, ref] of all) expect(steps.get(id)).toMatchObject(ref);
  });

  it('has one of everything: a session’s step is the plan’s, its layer that of its recipe', () => {
    const { plan } = there(shown);
    for (const session of plan.sessions)
      for (const step of session.steps) expect(plan.steps.get(step.id)).toBe(step);
    for (const step of plan.steps.values()) {
      expect(step.recipe.layers[step.layerIndex]).toBe(step.layer);
      expect(step.unit.pieces).toContain(step.piece);
    }
  });

  it('knows the steps that the plan has not placed yet', () => {
    const [id, ref] = [...shown.steps][0]!;
    const coming = { ...shown, steps: new Map([...shown.steps, [`${id}~9`, ref]]) };
    expect(there(coming).steps.get(`${id}~9`)!.layer.id).toBe(ref.layer.id);
    expect(there(coming).plan.steps.has(`${id}~9`)).toBe(false);
  });

  it('goes in columns: no more than a third of the bytes of its steps one by one', () => {
    const bytes = (value: unknown): number => JSON.stringify(value).length;
    expect('columns' in packed(shown).steps).toBe(true);
    expect('columns' in packed(shown).operations).toBe(true);
    expect(bytes([...shown.plan.steps.values()]) / bytes(packed(shown).steps)).toBeGreaterThan(3);
  });
});

describe('between a worker and its page', () => {
  const { port1, port2 } = new MessageChannel();
  afterEach(() => {
    port1.close();
    port2.close();
  });

  it('a plan, and news of one, are sent packed and read whole; anything else as it is', async () => {
    sendPlansPacked();
    const sent: unknown[] = [];
    port1.addEventListener('message', (event) => sent.push((event as MessageEvent).data));
    const desk = {
      show: () => shown,
      news: () => ({ kind: 'better', solved: shown }),
      none: () => null,
      far: () => ({ kind: 'progress', share: 0.5 }),
    };
    expose(desk, port2);
    const remote = wrap<typeof desk>(port1);
    expect(((await remote.show()) as Shown).plan).toStrictEqual(shown.plan);
    const news = await remote.news();
    expect(news.kind).toBe('better');
    expect((news.solved as Shown).plan).toStrictEqual(shown.plan);
    expect(await remote.none()).toBeNull();
    expect(await remote.far()).toEqual({ kind: 'progress', share: 0.5 });
    const names = sent.map((s) => (s as { name?: string }).name);
    expect(names.filter((n) => n === 'solved plan')).toHaveLength(2);
    expect(transferHandlers.has('solved plan')).toBe(true);
  });
});
