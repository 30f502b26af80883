/** Lines and tables as people write them, against what they mean. */
import { describe, expect, it } from 'vitest';
import { LIBRARY } from '#core/library';
import { checked, type Muster } from '#core/muster';
import { fenMuster } from '#demo/fen';
import {
  cellsOf,
  columnsOf,
  isTable,
  readDate,
  readLine,
  readLines,
  readTable,
  withDrafts,
  withMore,
  type Known,
} from './index';

const known: Known = {
  today: '2027-02-10',
  recipes: [
    { id: 'tray', name: 'Tray of figures, quick' },
    { id: 'sandwich', name: 'Chipped over rust, within the hour' },
    { id: 'crackle', name: 'Peeling planks by crackle' },
  ],
};

describe('a date', () => {
  it.each([
    ['14 March', '2027-03-14T18:00'],
    ['by March 14th', '2027-03-14T18:00'],
    ['14.3.', '2027-03-14T18:00'],
    ['14.03.2028', '2028-03-14T18:00'],
    ['2027-03-14', '2027-03-14T18:00'],
    ['2027-03-14 19:30', '2027-03-14T19:30'],
    ['2027-03-14T09:05', '2027-03-14T09:05'],
    ['14/3', '2027-03-14T18:00'],
    ['Sun 14 March, 9:00', '2027-03-14T09:00'],
    // A day that has passed is next year's.
    ['3 January', '2028-01-03T18:00'],
    ['10 February', '2027-02-10T18:00'],
    ['in 3 weeks', '2027-03-03T18:00'],
    ['next Saturday', '2027-02-13T18:00'],
    // 10 February 2027 is a Wednesday.
    ['wed', '2027-02-17T18:00'],
    ['29 Feb 2028', '2028-02-29T18:00'],
  ])('written %j is %s', (text, date) => {
    expect(readDate(text, known.today)).toBe(date);
  });

  it.each(['30 February', '14', 'soon', '', '32.1.2027', '2027-13-01', '14 Marchember'])(
    'is not in %j',
    (text) => {
      expect(readDate(text, known.today)).toBeNull();
    },
  );

  it('with the month first where that is the custom', () => {
    expect(readDate('3/4/2027', known.today)).toBe('2027-04-03T18:00');
    expect(readDate('3/4/2027', known.today, true)).toBe('2027-03-04T18:00');
  });
});

describe('a line', () => {
  it('makes trays with a recipe and a date', () => {
    const { draft, missing, unclear, fault } = readLine(
      '3 trays of 8 dockhands, quick tray, by 14 March',
      known,
    );
    expect(draft).toEqual({
      name: 'Dockhands',
      table: '2027-03-14T18:00',
      pieces: [1, 2, 3].map((n) => ({ name: `Tray ${n}`, figures: 8, recipe: 'tray' })),
    });
    expect([missing, unclear, fault]).toEqual([[], [], null]);
  });

  it.each([
    ['5 barges', 'Barges', ['Barge 1', 'Barge 2', 'Barge 3', 'Barge 4', 'Barge 5']],
    ['two ferries', 'Ferries', ['Ferry 1', 'Ferry 2']],
    ['Barge x 3', 'Barge', ['Barge 1', 'Barge 2', 'Barge 3']],
    ['2x marsh witches', 'Marsh witches', ['Marsh witch 1', 'Marsh witch 2']],
    ['Salt Prince', 'Salt Prince', ['Salt Prince']],
    ['a heron', 'Heron', ['Heron']],
    ['4th Company', '4th Company', ['4th Company']],
    ['glass eels', 'Glass eels', ['Glass eels']],
  ])('%j is the unit %j with %j', (line, unit, pieces) => {
    const { draft } = readLine(line, known);
    expect([draft.name, draft.pieces.map((p) => p.name)]).toEqual([unit, pieces]);
  });

  it('takes parts after a colon, the late ones told apart', () => {
    const { draft } = readLine(
      'Salt Prince: hull, rudder, roof late, crackle, large, 4 April, importance 5',
      known,
    );
    expect(draft).toEqual({
      name: 'Salt Prince',
      table: '2027-04-04T18:00',
      importance: 5,
      pieces: [
        { name: 'Hull', figures: 1, recipe: 'crackle', size: 'large' },
        { name: 'Rudder', figures: 1, recipe: 'crackle', size: 'large' },
        { name: 'Roof', figures: 1, recipe: 'crackle', size: 'large', isLate: true },
      ],
    });
  });

  it('says what is missing and what means nothing', () => {
    const { missing, unclear } = readLine('5 barges, lovely ones', known);
    expect(missing).toEqual(['recipe', 'date']);
    expect(unclear).toEqual(['lovely ones']);
  });

  it.each([
    ['0 barges', 'Makes none'],
    ['3 trays of 0 dockhands', 'Makes none'],
    ['501 barges', 'Makes 501 pieces; one line makes 500'],
    [', quick tray', ''],
  ])('%j makes nothing that was not meant', (line, fault) => {
    const read = readLine(line, known);
    if (fault === '') expect(read.draft.name).toBe('Quick tray');
    else expect(read.fault).toContain(fault);
  });

  it('by line makes units, empty lines none', () => {
    expect(readLines('5 barges\n\n  \nSalt Prince\r\n', known).map((u) => u.draft.name)).toEqual([
      'Barges',
      'Salt Prince',
    ]);
  });
});

describe('a table', () => {
  const read = (text: string) => {
    const table = cellsOf(text);
    const columns = columnsOf(table, known);
    return { columns, ...readTable(table, columns, known) };
  };

  it('pasted with tabs and headings', () => {
    const { columns, drafts, faults, pieces } = read(
      'Unit\tModel\tQty\tScheme\tDeadline\nHerons\tRider\t3\tquick tray\t14.3.2027\nHerons\tLeader\t\tcrackle\t\n',
    );
    expect(columns).toEqual(['unit', 'piece', 'pieces', 'recipe', 'table']);
    expect(faults).toEqual([]);
    expect(pieces).toBe(4);
    expect(drafts).toEqual([
      {
        name: 'Herons',
        table: '2027-03-14T18:00',
        pieces: [
          { name: 'Rider 1', figures: 1, recipe: 'tray' },
          { name: 'Rider 2', figures: 1, recipe: 'tray' },
          { name: 'Rider 3', figures: 1, recipe: 'tray' },
          { name: 'Leader', figures: 1, recipe: 'crackle' },
        ],
      },
    ]);
  });

  it('without headings is understood by what stands in it', () => {
    const { columns, drafts } = read('Barges;5;2027-03-14;peeling\nHerons;"2,0";"1 April";quick\n');
    expect(columns).toEqual(['unit', 'pieces', 'table', 'recipe']);
    expect(drafts.map((d) => [d.name, d.pieces.length, d.table, d.pieces[0]!.recipe])).toEqual([
      ['Barges', 5, '2027-03-14T18:00', 'crackle'],
      ['Herons', 2, '2027-04-01T18:00', 'tray'],
    ]);
  });

  it('with quotes, a byte order mark, commas and line breaks in a cell (RFC 4180)', () => {
    const { drafts } = read('\uFEFFunit,piece\r\n"Barge, old","the ""Gull""\r\nmended"\r\n');
    expect(drafts).toEqual([
      {
        name: 'Barge, old',
        table: null,
        pieces: [{ name: 'the "Gull"\r\nmended', figures: 1, recipe: null }],
      },
    ]);
  });

  it('tells what is wrong by its line, and leaves only that out', () => {
    const { drafts, faults } = read(
      `unit,number,date,recipe\nHerons,3,soon,quick\nBarges,-2,,\n,1,,\nEels,2,,no such thing\n${'x'.repeat(130)},1,,\n`,
    );
    expect(faults.map((f) => [f.line, f.text])).toEqual([
      [2, '“soon” is no date.'],
      [3, '“-2” is no number of pieces from 1 to 500.'],
      [4, 'names neither unit nor piece.'],
      [5, '“no such thing” is no recipe: made without one.'],
      [6, `has a name of more than 120 letters: “${'x'.repeat(30)}…”.`],
    ]);
    expect(drafts.map((d) => d.name)).toEqual(['Eels']);
  });

  it('of nothing, or without names, makes nothing and says so', () => {
    expect(read('').drafts).toEqual([]);
    expect(read('1,2\n3,4\n').faults[0]!.text).toContain('No column names the unit');
  });

  it.each<[string, boolean]>([
    ['3 trays of 8 dockhands, quick tray, by 14 March', false],
    ['5 barges, crackle\nSalt Prince: hull, rudder, roof late', false],
    ['Herons', false],
    ['', false],
    ['Herons\t3', true],
    ['unit,number\nHerons,3', true],
    ['Herons;3\nEels;12', true],
    ['5 barges; crackle\n2 eels; crackle', false],
  ])('is told from lines: %j', (text, is) => {
    expect(isTable(text)).toBe(is);
  });

  it('with a megabyte in one cell is cut, not choked on', () => {
    const { faults, drafts } = read(`unit,number\n${'y'.repeat(1_000_000)},1\nHerons,2\n`);
    expect(faults[0]!.text).toContain('more than 120 letters');
    expect(drafts.map((d) => d.name)).toEqual(['Herons']);
  });
});

describe('more pieces of a unit', () => {
  let n = 0;
  const unit = fenMuster('2027-03-01').units.find((u) => u.pieces.length > 1)!;
  const more = (text: string, to = unit) =>
    withMore(to, text, fenMuster('2027-03-01').recipes, { today: known.today }, () => `more-${++n}`);
  const barge = {
    ...unit,
    pieces: [{ ...unit.pieces[0]!, id: 'b', name: 'Barge 2', count: 4, joins: null }],
  };

  it('are numbered on, like the last one', () => {
    const { unit: after, added } = more('3 more', barge);
    expect(added).toBe(3);
    expect(after.pieces.map((p) => [p.name, p.count])).toEqual([
      ['Barge 2', 4],
      ['Barge 3', 4],
      ['Barge 4', 4],
      ['Barge 5', 4],
    ]);
    expect(new Set(after.pieces.map((p) => p.recipe)).size).toBe(1);
  });

  it('by name are parts, the late ones glued to the first piece', () => {
    const { unit: after } = more('mast, roof late', barge);
    expect(after.pieces.slice(1).map((p) => [p.name, p.joins?.piece])).toEqual([
      ['Mast', undefined],
      ['Roof', 'b'],
    ]);
  });

  it('of nothing said is one more; of nonsense none, with why', () => {
    expect(more('', barge).unit.pieces[1]!.name).toBe('Barge 3');
    const none = more('0 more', barge);
    expect([none.unit, none.fault]).toEqual([barge, 'Makes none: say how many, from one on.']);
  });
});

describe('drafts in a muster', () => {
  let n = 0;
  const newId = (): string => `new-${++n}`;
  const muster = fenMuster('2027-03-01');
  const made = (line: string, into: Muster = muster): Muster =>
    withDrafts(
      into,
      [readLine(line, { ...known, recipes: LIBRARY }).draft],
      LIBRARY,
      '2027-03-20T18:00',
      newId,
    );

  it('are units that pass the door, with their recipe from the library, taken once', () => {
    const once = made('3 trays of 8 dockhands, quick tray, by 14 March');
    const twice = made('2 trays of 5 eelers, quick tray', once);
    expect(twice.recipes.filter((r) => r.id === 'library-tray')).toHaveLength(1);
    expect(twice.units.slice(-2).map((u) => [u.name, u.table, u.pieces.length])).toEqual([
      ['Dockhands', '2027-03-14T18:00', 3],
      ['Eelers', '2027-03-20T18:00', 2],
    ]);
    expect(checked(twice).ok).toBe(true);
  });

  it('named like a unit that is there bring it their pieces', () => {
    const once = made('2 barges, crackle');
    const twice = made('barges: barge 1, barge 2, crackle', once);
    expect(twice.units).toHaveLength(once.units.length);
    expect(twice.units.at(-1)!.pieces.map((p) => p.name)).toEqual([
      'Barge 1',
      'Barge 2',
      'Barge 3',
      'Barge 4',
    ]);
  });

  it('glue their late parts on before the last coat of the first', () => {
    const unit = made('Salt Prince: hull, roof late, crackle').units.at(-1)!;
    expect(unit.pieces[1]!.joins).toMatchObject({
      piece: unit.pieces[0]!.id,
      layer: LIBRARY.find((r) => r.id === 'library-crackle')!.layers.at(-1)!.id,
      glue: { dryMinutes: 60 },
    });
    expect(unit.pieces[0]!.joins).toBeNull();
  });
});

describe('a name longer than names may be', () => {
  it('is told, with what is cut off', () => {
    const unclear = (name: string): readonly string[] =>
      readLine(`${name}: hull`, { recipes: [], today: '2027-03-01' }).unclear;
    expect(unclear('Ü'.repeat(125))).toEqual(['Ü'.repeat(5)]);
    expect(unclear('Ü'.repeat(120))).toEqual([]);
  });
});
