/** Every kind of entry, whole: read back as it is; with a key too many, a number out of its bounds or a text too long it is refused. */
import { describe, expect, it } from 'vitest';
import { entrySchema, type LogEntry } from './index';

const AT = '2027-03-01T18:00:00Z';
const long = (letters: number): string => 'm'.repeat(letters);
const base = {
  id: long(80),
  at: AT,
  about: {
    unit: long(120),
    piece: long(120),
    recipe: long(120),
    layer: long(200),
    family: 'acrylic',
    method: 'brush',
    mixture: long(600),
    coats: 20,
    film: 'thin',
  },
  note: long(1000),
  act: long(80),
  people: Array.from({ length: 20 }, () => long(120)),
  air: { celsius: 60, humidityPercent: 100 },
};
const step = long(200);
const PNG = 'data:image/png;base64,iVBORw0KGgo=';

/** All that each kind can hold, every text as long as may be, every number as large. */
const WHOLE: Readonly<Record<LogEntry['kind'], object>> = {
  done: {
    step,
    minutes: 2880,
    isMeasured: true,
    nth: 500,
    mixture: long(600),
    used: Array.from({ length: 12 }, () => ({ name: long(120), ml: 5000 })),
    fromJar: { jar: long(80), ml: 5000 },
  },
  jar: { jar: long(80), mixture: long(600), family: 'acrylic', ml: 5000, until: AT },
  dry: { step },
  'not-dry': { step, moreMinutes: 10_080 },
  'touch-dry': { step },
  skipped: { step },
  rework: {
    step,
    trouble: long(80),
    cure: long(200),
    minutes: 600,
    dryMinutes: 20_160,
    again: Array.from({ length: 200 }, () => step),
  },
  verdict: { step, verdict: 'approved' },
  stopped: {},
  noted: { step, isForNextTime: true },
  picture: { step, reference: long(80), data: PNG },
  forecast: {
    units: [{ unit: long(80), name: long(120), share: 1, due: AT, last: [{ step, dry: 200_000 }] }],
  },
  looked: { unit: long(80), item: long(200), text: long(400), verdict: 'rework' },
  placed: {
    piece: long(80),
    layer: long(80),
    text: long(400),
    face: 'under',
    where: long(80),
    isDrawn: true,
    x: 1,
    y: 1,
    rx: 1,
    ry: 1,
  },
  clock: { entries: [long(80)], byMinutes: 5_000_000 },
  'taken-back': { entry: long(80) },
};
const whole = (kind: string): object => ({ ...base, kind, ...WHOLE[kind as LogEntry['kind']] });
const KINDS = Object.keys(WHOLE);
const isTaken = (entry: unknown): boolean => entrySchema.safeParse(entry).success;

/** The entry with one value in it changed, wherever it lies. */
function changed(value: unknown, change: (inner: unknown) => unknown[]): unknown[] {
  const own = change(value);
  if (Array.isArray(value))
    return [
      ...own,
      ...value.slice(0, 1).flatMap((v) => changed(v, change).map((c) => [c, ...value.slice(1)])),
    ];
  if (typeof value !== 'object' || value === null) return own;
  return [
    ...own,
    ...Object.entries(value).flatMap(([key, v]) => changed(v, change).map((c) => ({ ...value, [key]: c }))),
  ];
}

describe.each(KINDS)('an entry “%s”', (kind) => {
  it('with all that it can hold is read back as it is', () => {
    expect(entrySchema.parse(whole(kind))).toEqual(whole(kind));
  });

  it('has no key that is not its own, however deep', () => {
    const odd = changed(whole(kind), (v) =>
      typeof v === 'object' && v !== null && !Array.isArray(v) ? [{ ...v, odd: 1 }] : [],
    );
    expect(odd.length).toBeGreaterThanOrEqual(3);
    expect(odd.filter(isTaken)).toEqual([]);
  });

  it('has no text that is longer, no number that is larger, and no list that is longer', () => {
    const isFixed = (v: unknown): boolean => v === 'acrylic' || v === 'brush' || v === PNG;
    const longer = changed(whole(kind), (v) => {
      if (typeof v === 'string') return isFixed(v) ? [] : [`${v}m`];
      if (typeof v === 'number') return [v + 1];
      return Array.isArray(v) && v.length > 1 ? [[...v, v[0]]] : [];
    });
    expect(longer.length).toBeGreaterThan(10);
    expect(longer.filter(isTaken)).toEqual([]);
  });
});

describe('numbers', () => {
  const least: readonly (readonly [LogEntry['kind'], object, object])[] = [
    ['done', { minutes: 0, nth: 1 }, { minutes: -1 }],
    ['done', { nth: 1 }, { nth: 0 }],
    ['done', { used: [{ name: 'x', ml: 0 }] }, { used: [{ name: 'x', ml: -1 }] }],
    ['done', { used: [{ name: 'x', ml: 1 }] }, { used: [{ name: '', ml: 1 }] }],
    ['done', { fromJar: { jar: 'j', ml: 0 } }, { fromJar: { jar: 'j', ml: -1 } }],
    ['done', { air: { celsius: -30, humidityPercent: 1 } }, { air: { celsius: -31, humidityPercent: 1 } }],
    ['done', {}, { air: { celsius: 20, humidityPercent: 0 } }],
    ['done', { about: { ...base.about, coats: 1 } }, { about: { ...base.about, coats: 0 } }],
    ['jar', { ml: 0, mixture: 'x' }, { ml: -1 }],
    ['jar', {}, { mixture: '' }],
    ['not-dry', { moreMinutes: 1 }, { moreMinutes: 0 }],
    ['rework', { minutes: 0, dryMinutes: 0, again: [step] }, { minutes: -1 }],
    ['rework', {}, { dryMinutes: -1 }],
    ['rework', {}, { again: [] }],
    ['placed', { x: 0, y: 0, rx: 0.01, ry: 0.01 }, { x: -0.01 }],
    ['placed', {}, { y: -0.01 }],
    ['placed', {}, { rx: 0 }],
    ['placed', {}, { ry: 0 }],
    ['looked', { item: 'x', verdict: 'good' }, { item: '' }],
    ['verdict', { verdict: 'changed' }, { verdict: 'perhaps' }],
    ['clock', { byMinutes: -5_000_000 }, { byMinutes: -5_000_001 }],
    ['clock', {}, { entries: [] }],
    ['forecast', {}, { units: [] }],
    ['noted', {}, { isForNextTime: false }],
    ['placed', {}, { isDrawn: false }],
    ['placed', { face: 'front' }, { face: 'inside' }],
  ];

  it.each(least)('of “%s” go down to %o, and not to %o', (kind, lowest, below) => {
    expect(isTaken({ ...whole(kind), ...lowest })).toBe(true);
    expect(isTaken({ ...whole(kind), ...below })).toBe(false);
  });

  it('of a forecast are shares, and minutes of drying', () => {
    const given = (unit: object): object => ({
      ...whole('forecast'),
      units: [{ unit: 'u', name: 'U', share: 0, due: AT, last: [{ step: 's', dry: 0 }], ...unit }],
    });
    expect(isTaken(given({}))).toBe(true);
    expect(isTaken(given({ share: -0.1 }))).toBe(false);
    expect(isTaken(given({ last: [{ step: 's', dry: -1 }] }))).toBe(false);
    expect(isTaken(given({ due: '2027-02-30T18:00:00Z' }))).toBe(false);
  });
});

describe('a picture', () => {
  const of = (data: string): object => ({ ...whole('picture'), data });

  it('is a JPEG, PNG or WebP as a data address, and nothing else', () => {
    for (const type of ['jpeg', 'png', 'webp'])
      expect(isTaken(of(`data:image/${type};base64,aA+/0=`))).toBe(true);
    for (const odd of [
      ` ${PNG}`,
      `${PNG}<`,
      'data:image/svg+xml;base64,aaaa',
      'data:image/png;base64,',
      'data:image/png;base64,"onload',
      'https://example.org/a.png',
    ])
      expect(isTaken(of(odd)), odd).toBe(false);
  });

  it('is no larger than about half a megabyte', () => {
    const head = 'data:image/png;base64,';
    expect(isTaken(of(head + 'a'.repeat(700_000 - head.length)))).toBe(true);
    expect(isTaken(of(head + 'a'.repeat(700_001 - head.length)))).toBe(false);
  });
});
