/** The look before the table: what is on its list, what a verdict and a rework do, what may be packed when; and the record of a unit. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import type { Layer, Muster, Piece } from '#core/muster';
import { compile, present, type Plan } from '#core/plan';
import { hasHistory, type LogEntry } from '#core/log';
import { layer, smallMuster } from '../plan/testing';
import { lastDone, lookedEntry, lookOver, onTable, unitRecord, type LookOver } from './index';

const LAYERS: Layer[] = [
  layer('prime', { family: 'primer', dryMinutes: 60 }),
  layer('tape', { task: 'mask', family: 'work', zones: ['glass'], dryMinutes: 0 }),
  layer('base', { mixture: 'green' }),
  layer('dust', { family: 'acrylic-wash', isOptional: true }),
  layer('matt', { family: 'varnish', sheen: 'matt', dryMinutes: 120 }),
  layer('off', { task: 'unmask', family: 'work', zones: ['glass'], dryMinutes: 0 }),
];

function muster(part: (k: number) => Partial<Piece> = () => ({})): Muster {
  const plain = smallMuster(LAYERS);
  const [unit] = plain.units;
  return {
    ...plain,
    recipes: [
      {
        ...plain.recipes[0]!,
        zones: [
          { id: 'z', name: 'Sides' },
          { id: 'glass', name: 'Glass', sheen: 'gloss' },
        ],
      },
    ],
    units: [
      {
        ...unit!,
        details: [{ id: 'd', name: 'Stern lamp' }],
        pieces: unit!.pieces.map((p, k) => ({ ...p, ...part(k) })),
      },
    ],
  };
}

/** The same with the varnish last: nothing that is done after it hides how long that stays soft. */
function varnished(part: Partial<Piece>): Muster {
  const m = muster(() => part);
  const layers = LAYERS.filter((l) => l.task !== 'mask' && l.task !== 'unmask');
  return { ...m, recipes: [{ ...m.recipes[0]!, layers }] };
}

function planned(m: Muster): Plan {
  const compiled = compile(m);
  return present(m, compiled, solveProblem(compiled.problem, { iterations: 1 }));
}

let count = 0;
const entry = (e: object): LogEntry =>
  ({ id: `e${String(++count).padStart(4, '0')}`, at: '2027-03-02T20:00:00Z', ...e }) as LogEntry;
const look = (m: Muster, log: readonly LogEntry[] = [], minute = 0): LookOver =>
  lookOver(m, m.units[0]!, planned(m), log, minute);
const ids = (l: LookOver): string[] => l.items.map((i) => i.id);

describe('the list', () => {
  it('has the unit’s own details, each zone in its sheen, each mask, effects, sides and pieces', () => {
    const told = look(muster((k) => (k === 1 ? { effects: [{ layer: 'dust', is: 'heavy' }] } : {})));
    expect(ids(told)).toEqual([
      'detail d',
      'zone r z',
      'zone r glass',
      'mask r tape',
      'effect r dust',
      'sides',
      'together',
      'under',
    ]);
    const text = (id: string): string => told.items.find((i) => i.id === id)!.text;
    expect(text('zone r z')).toContain('matt');
    expect(text('zone r glass')).toContain('glossy');
    expect(text('effect r dust')).toBe('dust still seen; heavy on Ferry 2');
  });

  it('has a part’s joint, and does not ask after an effect that nobody got', () => {
    const told = look(
      muster((k) => ({
        effects: [{ layer: 'dust', is: 'off' as const }],
        ...(k === 1 ? { joins: { piece: 'p1', layer: 'matt' } } : {}),
      })),
    );
    expect(ids(told)).toContain('joint p2');
    expect(ids(told)).not.toContain('effect r dust');
  });

  it('keeps what was found of each thing, the newest counting, and when the unit stood on the table', () => {
    const m = muster();
    const [unit] = m.units;
    const item = look(m).items[0]!;
    const log = [
      entry(lookedEntry(unit!, item, 'rework')),
      entry(lookedEntry(unit!, item, 'good')),
      entry(lookedEntry({ ...unit!, id: 'other' }, item, 'rework')),
      entry(onTable(unit!)),
    ];
    expect(look(m, log).items.map((i) => i.verdict)).toEqual([
      'good',
      null,
      null,
      null,
      null,
      null,
      null,
      null,
    ]);
    expect(look(m, log).tableAt).toBe('2027-03-02T20:00:00Z');
    // Looking changes nothing that a plan goes by.
    expect(hasHistory(log)).toBe(false);
  });
});

describe('what is still soft', () => {
  it('is tacky on the day until it is dry', () => {
    const m = muster();
    const plan = planned(m);
    const prime = [...plan.steps.values()].find((s) => s.layer.id === 'prime')!;
    const log = [entry({ kind: 'done', step: prime.id, minutes: 5 })];
    expect(look(m, log, prime.end + 1).tacky).toEqual([expect.stringContaining('“prime” on Ferry')]);
    expect(look(m, log, prime.tide.dryAt + 1).tacky).toEqual([]);
    expect(look(m, log).open).toBe(plan.steps.size - 1);
  });

  it('keeps a shipped unit from being ready until all of it has hardened through; a played one until it may be handled', () => {
    const ready = (use?: Piece['use'], isPackedSoft?: boolean): number =>
      planned(varnished({ ...(use ? { use } : {}), ...(isPackedSoft ? { isPackedSoft } : {}) })).units[0]!
        .ready;
    const dry = ready();
    expect(ready('display')).toBe(dry);
    expect(ready('played')).toBeGreaterThan(dry);
    expect(ready('shipped')).toBeGreaterThan(ready('played'));
    expect(ready('shipped', true)).toBe(dry);
    const shipped = planned(varnished({ use: 'shipped' }));
    const last = Math.max(...[...shipped.steps.values()].map((s) => s.curedAt));
    expect(shipped.units[0]!.ready).toBe(Math.ceil(last));
  });

  it('is told when a unit is packed soft on purpose, with how to pack it', () => {
    expect(look(muster(() => ({ use: 'shipped' }))).soft).toEqual([]);
    const soft = look(muster(() => ({ use: 'shipped', isPackedSoft: true }))).soft;
    expect(soft[0]).toMatch(/^“.*” is soft until /);
    expect(soft.at(-1)).toContain('nothing against the paint');
  });
});

describe('a unit’s record', () => {
  it('tells by layer when, on how many, how long and with what; and what to do otherwise', () => {
    const m = muster();
    const plan = planned(m);
    const about = {
      unit: 'Ferries',
      piece: 'Ferry 1',
      recipe: 'Hull',
      layer: 'base',
      family: 'acrylic',
      method: 'brush',
      mixture: 'green',
      coats: 1,
    };
    const log = [
      entry({ kind: 'done', step: 'p1.base', minutes: 5, about, people: ['Me'] }),
      entry({
        kind: 'done',
        step: 'p2.base',
        minutes: 7,
        about,
        mixture: 'green 3:1',
        at: '2027-03-03T20:00:00Z',
      }),
      entry({ kind: 'noted', step: 'p1.base', note: 'thinner', isForNextTime: true, about }),
      entry({
        kind: 'rework',
        step: 'p1.base',
        trouble: 'Hair',
        cure: 'polish',
        minutes: 5,
        dryMinutes: 0,
        about,
      }),
      entry({ kind: 'done', step: 'other.base', minutes: 99, about }),
      entry(lookedEntry(m.units[0]!, { id: 'sides', text: 'x' }, 'good')),
    ];
    const record = unitRecord(m.units[0]!, plan, log);
    expect(record.layers).toEqual([
      {
        name: 'base',
        from: '2027-03-02T20:00:00Z',
        to: '2027-03-03T20:00:00Z',
        pieces: 2,
        minutes: 12,
        mixtures: ['green', 'green 3:1'],
      },
    ]);
    expect(record.spentMinutes).toBe(12);
    expect(record.nextTime[0]!.text).toBe('base: thinner');
    expect(record.reworks[0]!.text).toBe('Ferry 1: Hair. polish');
    expect([record.people, record.looked]).toEqual([['Me'], 1]);
    expect(record.plannedMinutes).toBeGreaterThan(0);
    expect(unitRecord(m.units[0]!, null, []).plannedMinutes).toBe(0);
  });

  it('puts right what was found on the last layer that is done', () => {
    const plan = planned(muster());
    expect(lastDone(plan, [], 'p1')).toBeNull();
    const ids = [...plan.steps.values()]
      .filter((s) => s.piece.id === 'p1')
      .sort((a, b) => a.end - b.end)
      .map((s) => s.id);
    const log = ids.slice(0, 2).map((step) => entry({ kind: 'done', step, minutes: 5 }));
    expect(lastDone(plan, log, 'p1')!.id).toBe(ids[1]);
  });
});
