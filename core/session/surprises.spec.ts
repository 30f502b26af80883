/** What a rehearsal brings. */
import { describe, expect, it } from 'vitest';
import { instantAfter } from '#core/muster';
import type { LogEntry } from '#core/log';
import { fogOn, isAnswered, isDue, restingCoats, surprisesOf, type Surprise } from './index';
import { plan } from './testing';

describe('the surprises of an evening', () => {
  const session = plan.sessions.find((s) => s.steps.length > 5)!;

  it('are the same for the same seed, and others for another', () => {
    expect(surprisesOf(plan, session, 4)).toEqual(surprisesOf(plan, session, 4));
    const drawn = [1, 2, 3, 4, 5, 6].map((seed) =>
      JSON.stringify(surprisesOf(plan, session, seed).map((s) => s.text)),
    );
    expect(new Set(drawn).size).toBeGreaterThan(3);
  });

  it('are two to four, by time, within the session, each with what can be done about it', () => {
    for (let seed = 0; seed < 60; seed++) {
      const all = surprisesOf(plan, session, seed);
      expect(all.length).toBeGreaterThanOrEqual(2);
      expect(all.length).toBeLessThanOrEqual(4);
      all.forEach((s, k) => {
        expect(s.at).toBeGreaterThan(session.start);
        expect(s.at).toBeLessThan(session.end);
        expect(s.at).toBeGreaterThanOrEqual(all[k - 1]?.at ?? 0);
        expect(s.answer).not.toBe('');
      });
    }
  });

  it('are of every kind, about any step that dries, and as many as two or four over many evenings', () => {
    const all = Array.from({ length: 80 }, (_, seed) => surprisesOf(plan, session, seed));
    expect(new Set(all.map((s) => s.length))).toEqual(new Set([2, 3, 4]));
    const told = all.flat();
    for (const what of ['tacky', 'Fog', 'fallen', 'doorbell', 'hair'])
      expect(told.some((s) => s.text.includes(what))).toBe(true);
    const about = new Set(told.flatMap((s) => s.step ?? []));
    expect(about.size).toBeGreaterThan(3);
    for (const id of about) {
      const { tide, end } = plan.steps.get(id)!;
      expect(tide.dryAt).toBeGreaterThan(end);
    }
    for (const one of all) expect(new Set(one.map((s) => s.text)).size).toBe(one.length);
    const other = plan.sessions.find((s) => s.index !== session.index && s.steps.length > 5)!;
    expect(surprisesOf(plan, { ...session, index: other.index }, 3).map((s) => s.at)).not.toEqual(
      surprisesOf(plan, session, 3).map((s) => s.at),
    );
  });

  it('spare what does not dry', () => {
    const [dries, still] = session.steps.filter((s) => s.tide.dryAt > s.end);
    const dull = { ...still!, tide: { ...still!.tide, dryAt: still!.end } };
    const two = { ...session, steps: [dull, dries!] };
    for (let seed = 0; seed < 20; seed++)
      for (const s of surprisesOf(plan, two, seed)) if (s.step) expect(s.step).toBe(dries!.id);
  });

  it('do what they say: a fog makes every wet coat slower, and leaves the dry ones', () => {
    const coat = [...plan.steps.values()].find((s) => s.tide.dryAt > s.end + 20)!;
    const done: LogEntry = {
      id: 'd',
      at: instantAfter(plan.origin, coat.end),
      kind: 'done',
      step: coat.id,
      minutes: 5,
    };
    const coats = restingCoats(plan, [done]);
    const left = coat.tide.dryAt - coat.end;
    expect(fogOn(coats, coat.end)).toEqual([
      { kind: 'not-dry', step: coat.id, moreMinutes: Math.ceil(1.5 * left) },
    ]);
    expect(fogOn(coats, coat.tide.dryAt + 1)).toEqual([]);
  });

  it('befall a coat only once it is on, in whatever order the bench has come to it', () => {
    const fallen = Array.from({ length: 40 }, (_, seed) => surprisesOf(plan, session, seed))
      .flat()
      .find((s) => s.text.includes('fallen'))!;
    const coat = plan.steps.get(fallen.coat!)!;
    expect(coat.piece.id).toBe(fallen.piece);
    const done: LogEntry = {
      id: 'd',
      at: instantAfter(plan.origin, coat.end),
      kind: 'done',
      step: coat.id,
      minutes: 5,
    };
    const { at } = fallen;
    expect(isDue(fallen, [], at + 60)).toBe(false);
    expect(isDue(fallen, [done], at - 1)).toBe(false);
    expect(isDue(fallen, [done], at)).toBe(true);
    const fog = { ...fallen, coat: undefined };
    expect(isDue(fog, [], at)).toBe(true);
  });

  it('are answered by what they ask for, at the coat or piece that they are about, and not by what was done before', () => {
    const step = session.steps[0]!;
    const other = session.steps.find((s) => s.piece.id !== step.piece.id)!;
    const entry = (minute: number, part: Record<string, unknown>): LogEntry =>
      ({ id: `x${minute}`, at: instantAfter(plan.origin, minute), ...part }) as LogEntry;
    const tacky: Surprise = {
      id: 's',
      at: step.end,
      text: '',
      answer: '',
      step: step.id,
      answeredBy: 'not-dry',
    };
    const look = (minute: number, of: string): LogEntry =>
      entry(minute, { kind: 'not-dry', step: of, moreMinutes: 5 });
    expect(isAnswered(tacky, plan, [look(step.end + 1, step.id)])).toBe(true);
    expect(isAnswered(tacky, plan, [look(step.end + 1, other.id)])).toBe(false);
    expect(isAnswered(tacky, plan, [look(step.end - 1, step.id)])).toBe(false);
    const hair: Surprise = { ...tacky, step: undefined, piece: step.piece.id, answeredBy: 'rework' };
    const cure = { kind: 'rework', trouble: 't', cure: 'c', minutes: 1, dryMinutes: 1 };
    expect(isAnswered(hair, plan, [entry(step.end + 2, { ...cure, step: step.id })])).toBe(true);
    expect(isAnswered(hair, plan, [entry(step.end + 2, { ...cure, step: other.id })])).toBe(false);
  });

  it('spare an evening on which nothing dries', () => {
    expect(surprisesOf(plan, { ...session, steps: [] }, 1)).toEqual([]);
  });
});
