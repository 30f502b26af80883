import { describe, expect, it } from 'vitest';
import type { LogEntry } from '#core/log';
import { compile } from '#core/plan';
import { layer, smallMuster } from '../plan/testing';
import { addedMinutes, pilotsBegun, pilotState } from './index';

const muster = smallMuster([layer('base', { minutes: 10, coats: 2 }), layer('wash', { isPiloted: true })]);
const [first, ...others] = muster.units
  .flatMap((u) => u.pieces)
  .filter((p) => p.recipe === muster.recipes[0]!.id);
first!.isPilot = true;
const recipe = muster.recipes[0]!;
const { steps } = compile(muster);
const step = `${first!.id}.base`;
let minute = 10;
const entry = (part: Record<string, unknown>): LogEntry =>
  ({ id: `e${++minute}`, at: `2027-03-01T20:${minute}:00Z`, step, ...part }) as LogEntry;
const said = (verdict: string): LogEntry => entry({ kind: 'verdict', verdict });

describe('a pilot', () => {
  it('freezes its recipe with its last word, and thaws it when that is taken back', () => {
    const approved = said('approved');
    const log = [said('changed'), approved];
    expect(pilotState(muster, [], recipe.id)).toBeNull();
    expect(pilotState(muster, log, recipe.id)).toMatchObject({
      verdict: 'approved',
      pilot: first!.name,
      step,
      others: others.length,
    });
    const back = entry({ kind: 'taken-back', entry: approved.id });
    expect(pilotState(muster, [...log, back], recipe.id)!.verdict).toBe('changed');
    expect(pilotState(muster, log, 'another recipe')).toBeNull();
  });

  it('can be judged as soon as something is done on it, on the step that was done last', () => {
    expect(pilotsBegun(steps, [])).toEqual([]);
    const done = entry({ kind: 'done', minutes: 20 });
    expect(pilotsBegun(steps, [done])).toMatchObject([
      { piece: first!.id, step, layer: 'base', verdict: null },
    ]);
    expect(pilotsBegun(steps, [done, said('approved')])[0]!.verdict).toBe('approved');
    const other = entry({ kind: 'done', minutes: 20, step: `${others[0]!.id}.base` });
    expect(pilotsBegun(steps, [other])).toEqual([]);
  });

  it('is told apart from other pieces, and from steps that are gone', () => {
    const gone = entry({ kind: 'verdict', verdict: 'approved', step: 'nothing.base' });
    const elsewhere = entry({ kind: 'verdict', verdict: 'approved', step: `${others[0]!.id}.base` });
    expect(pilotState(muster, [gone, elsewhere], recipe.id)).toBeNull();
    const noted = entry({ kind: 'noted', note: 'looks right' });
    const done = entry({ kind: 'done', minutes: 20, step: 'nothing.base' });
    expect(pilotsBegun(steps, [gone, noted, done])).toEqual([]);
    const first = entry({ kind: 'done', minutes: 20 });
    const second = entry({ kind: 'done', minutes: 9, step: step.replace('base', 'wash') });
    expect(pilotsBegun(steps, [first, second]).map((p) => p.layer)).toEqual(['wash']);
  });

  it('says what a change comes to for the others: hands on every piece of them, and none on itself', () => {
    const longer = {
      ...recipe,
      layers: recipe.layers.map((l) => (l.id === 'base' ? { ...l, minutes: 13 } : l)),
    };
    const count = others.reduce((n, p) => n + p.count, 0);
    expect(addedMinutes(muster, recipe, longer)).toBe(3 * 2 * count);
    expect(addedMinutes(muster, longer, recipe)).toBe(-3 * 2 * count);
    expect(addedMinutes(muster, recipe, recipe)).toBe(0);
  });
});
