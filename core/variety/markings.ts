/** Which piece gets which marking on which side: scarce ones rationed, numbers given out without doubles. */
import { SIDES, type Marking, type Piece, type Side, type Unit } from '#core/muster';

/** What one piece gets of a sheet. */
export interface Allotted {
  readonly piece: Piece;
  /** sides that get one, where the sheet says which */
  readonly sides: readonly Side[];
  /** markings that it gets, for each figure of a tray */
  readonly count: number;
  /** … and that it would have, were there enough */
  readonly wanted: number;
  /** the number it bears; null: no series, or none is left */
  readonly number: number | null;
}

export interface Allotment {
  readonly marking: Marking;
  readonly pieces: readonly Allotted[];
  /** markings that are given out, and that all pieces together want */
  readonly given: number;
  readonly wanted: number;
  /** what is wrong, with its cure in words */
  readonly faults: readonly { readonly text: string; readonly cure: string }[];
}

/** Sides of a piece that a sheet is wanted on: those that the rules call for, or only those that will be seen. */
export function sidesWanted(marking: Marking, piece: Piece): readonly Side[] {
  const sides = marking.sides ?? [];
  const order = SIDES.filter((s) => sides.includes(s));
  const hidden = piece.hidden ?? [];
  return marking.policy === 'seen-sides'
    ? order.filter((s) => !hidden.includes(s))
    : [...order.filter((s) => !hidden.includes(s)), ...order.filter((s) => hidden.includes(s))];
}

/** Markings that one figure or piece wants of a sheet. Where no sides are said, unseen sides take their share of all five. */
export function markingsWanted(marking: Marking, piece: Piece): number {
  if (marking.sides && marking.sides.length > 0) return sidesWanted(marking, piece).length;
  const hidden = marking.policy === 'seen-sides' ? (piece.hidden ?? []).length : 0;
  return marking.perPiece - Math.floor((marking.perPiece * hidden) / SIDES.length);
}

/**
 * A sheet given out to the pieces of a unit, in their order.
 * @param pieces those that get markings
 * @param left markings that are on hand
 */
export function allot(marking: Marking, pieces: readonly Piece[], left: number): Allotment {
  const wants = pieces.map((p) => markingsWanted(marking, p));
  const counts = pieces.map(() => 0);
  let rest = left;
  // Everybody has one before anybody has two.
  for (let round = 0; round < Math.max(0, ...wants); round++)
    pieces.forEach((p, k) => {
      if (counts[k]! !== round || counts[k]! >= wants[k]! || rest < p.count) return;
      counts[k] = counts[k]! + 1;
      rest -= p.count;
    });
  const numbers = numbered(marking, pieces);
  const sum = (list: readonly number[]): number => list.reduce((n, c, k) => n + c * pieces[k]!.count, 0);
  const allotted = pieces.map((piece, k): Allotted => ({
    piece,
    sides: sidesWanted(marking, piece).slice(0, counts[k]),
    count: counts[k]!,
    wanted: wants[k]!,
    number: numbers.of[k]!,
  }));
  const given = sum(counts);
  const wanted = sum(wants);
  return {
    marking,
    pieces: allotted,
    given,
    wanted,
    faults: [...short(marking, allotted, given, wanted), ...unseen(marking, allotted), ...numbers.faults],
  };
}

function short(
  marking: Marking,
  pieces: readonly Allotted[],
  given: number,
  wanted: number,
): Allotment['faults'] {
  if (given >= wanted) return [];
  const without = pieces.filter((p) => p.count === 0 && p.wanted > 0).length;
  return [
    {
      text: `“${marking.name}” has ${given} of the ${wanted} that are wanted${without > 0 ? `; ${without} ${without === 1 ? 'piece goes' : 'pieces go'} without` : ''}.`,
      cure:
        marking.policy === 'every-side'
          ? 'Only the sides that will be seen, or another sheet.'
          : 'Say which sides will not be seen, or take another sheet.',
    },
  ];
}

/** Pieces of which no side will be seen that the sheet goes on: they get none, and that is said. */
function unseen(marking: Marking, pieces: readonly Allotted[]): Allotment['faults'] {
  const none = pieces.filter((p) => p.wanted === 0).map((p) => p.piece.name);
  if (none.length === 0) return [];
  const who =
    none.length > 3 ? `${none.slice(0, 2).join(', ')} and ${none.length - 2} more` : none.join(', ');
  return [
    {
      text: `${who}: no side that “${marking.name}” goes on will be seen, so ${none.length === 1 ? 'it gets' : 'they get'} none.`,
      cure: 'Say which of their sides will be seen, or let it go on every side.',
    },
  ];
}

/** A number for each piece: those that the user gave stay, the others get the lowest that are free. */
function numbered(
  { name, numbers }: Marking,
  pieces: readonly Piece[],
): { readonly of: readonly (number | null)[]; readonly faults: Allotment['faults'] } {
  if (!numbers) return { of: pieces.map(() => null), faults: [] };
  const holders = new Map<number, Piece[]>();
  for (const p of pieces)
    if (p.number !== undefined) holders.set(p.number, [...(holders.get(p.number) ?? []), p]);
  let next = numbers.from;
  const of = pieces.map((p) => {
    if (p.number !== undefined) return p.number;
    while (holders.has(next)) next++;
    return next <= numbers.to ? next++ : null;
  });
  const doubles = [...holders].filter(([, list]) => list.length > 1);
  const outside = [...holders].filter(([n]) => n < numbers.from || n > numbers.to);
  const without = of.filter((n) => n === null).length;
  return {
    of,
    faults: [
      ...doubles.map(([n, list]) => ({
        text: `Number ${n} of “${name}” is on ${list.map((p) => p.name).join(' and ')}.`,
        cure: 'Take it from all but one of them: the others get free ones.',
      })),
      ...outside.map(([n, list]) => ({
        text: `${list[0]!.name} bears ${n}, which is not on “${name}” (${numbers.from} to ${numbers.to}).`,
        cure: 'Give it one of the sheet, or none.',
      })),
      ...(without > 0
        ? [
            {
              text: `“${name}” has too few numbers: ${without} ${without === 1 ? 'piece goes' : 'pieces go'} without.`,
              cure: 'Another sheet that goes on where this one ends, or fewer pieces with numbers.',
            },
          ]
        : []),
    ],
  };
}

/**
 * The pieces of a unit that get markings.
 * @param withDecals ids of the recipes that have a step for them
 */
export function markedPieces(unit: Unit, withDecals: ReadonlySet<string>): readonly Piece[] {
  return unit.pieces.filter((p) => p.recipe !== null && withDecals.has(p.recipe));
}
