/** What rings, and when. */
import { describe, expect, it } from 'vitest';
import { alarmsOf, dueAlarms, nextAlarm, type Resting, type ShelfRow } from './index';
import { order } from './testing';

const [one, two] = order.filter((s) => s.layer.id === order[0]!.layer.id);
const coat = (of: Partial<Resting>): Resting => ({
  step: one!,
  ended: 10,
  touchAt: 20,
  dryAt: 40,
  isFoundDry: false,
  gate: null,
  ...of,
});
const row = (coats: Resting[]): ShelfRow => ({
  key: coats[0]!.step.id,
  pieces: coats.map((resting) => ({ resting, words: '' })),
  state: 'wet',
  words: '',
  moment: 0,
  lead: coats[0]!,
});
const rings = (coats: Resting[]) => alarmsOf([row(coats)]).map((a) => [a.at, a.isUrgent]);

describe('alarms', () => {
  it('tell of a coat without a window when it may be touched and when it is dry, and not once it was found dry', () => {
    expect(rings([coat({})])).toEqual([
      [20, false],
      [40, false],
    ]);
    expect(rings([coat({ isFoundDry: true })])).toEqual([]);
  });

  it('tell of a window before it opens, as it opens and before it shuts, but not before it has opened', () => {
    expect(rings([coat({ gate: { opens: 30, closes: 60 } })])).toEqual([
      [28, false],
      [30, true],
      [55, true],
    ]);
    expect(rings([coat({ gate: { opens: 30, closes: 33 } })])).toEqual([
      [28, false],
      [30, true],
      [30, true],
    ]);
  });

  it('ring once for the pieces of a row that come together, by the piece where it is one, by their number otherwise', () => {
    const pair = [coat({}), coat({ step: two!, touchAt: 20.3, dryAt: 45 })];
    expect(rings(pair).map(([at]) => at)).toEqual([20, 40, 45]);
    expect(alarmsOf([row(pair)])[0]!.text).toContain('2 pieces');
    expect(alarmsOf([row([coat({})])])[0]!.text).toContain(one!.piece.name);
  });

  it('sound from their minute on, for half an hour, once; the next is the first that is still to come', () => {
    const alarms = alarmsOf([row([coat({})])]);
    const [touch, dry] = alarms;
    expect(dueAlarms(alarms, 19, new Set())).toEqual([]);
    expect(dueAlarms(alarms, 20, new Set())).toEqual([touch]);
    expect(dueAlarms(alarms, 20, new Set([touch!.id]))).toEqual([]);
    expect(dueAlarms(alarms, 50, new Set())).toEqual([dry]);
    expect(nextAlarm(alarms, 20)).toBe(dry);
    expect(nextAlarm(alarms, 40)).toBeNull();
  });

  it('keep their name when the plan moves them by a minute, so that nothing rings twice', () => {
    const [before] = alarmsOf([row([coat({})])]);
    const [after] = alarmsOf([row([coat({ touchAt: 21 })])]);
    expect(after!.id).toBe(before!.id);
  });
});
