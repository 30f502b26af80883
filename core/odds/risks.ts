/** What may come otherwise than planned, as numbers: each with its spread. All spreads at nought: the plan itself. */

/** A factor on what is planned: the logarithm is normal. */
export interface Factor {
  readonly mean: number;
  readonly sigma: number;
}

export interface Risks {
  /** by operation: which product dries on it; −1: none */
  readonly product: Int32Array;
  /** what is known of the drying of each product */
  readonly products: readonly Factor[];
  /** how much one evening’s drying differs from the product’s own */
  readonly evening: number;
  /** by operation: which kind of work it is; −1: it always takes what it takes */
  readonly work: Int32Array;
  readonly works: readonly Factor[];
  /** by kind of work: the n-th piece of an evening takes `n^slope` of the minutes of the first (Wright 1936); 0: each takes as long */
  readonly slopes: Float64Array;
  /** how much quicker or slower these hands are on the whole: the logarithm’s spread */
  readonly pace: number;
  /** how much one piece’s work differs from the next */
  readonly piece: number;
  /** by kind of work (1): this bench has never done it, and on the first evening it takes so many times longer */
  readonly isNew: Uint8Array;
  readonly firstTime: Factor;
  /** by operation: how likely it has to be mended, with so many minutes of hands and of drying */
  readonly mendChance: Float64Array;
  /** by operation: what kind of mishap that is; −1: none that others have in common. And by kind: the spread of the logarithm of its rate */
  readonly mishap: Int32Array;
  readonly mishaps: readonly number[];
  readonly mendMinutes: Float64Array;
  readonly mendDrying: Float64Array;
  /** error of the air a day ahead, on the logarithm of the drying rate; it grows with the root of the days, up to a week */
  readonly air: number;
  /** how likely an evening is lost, and how likely it is cut short by a third */
  readonly lost: number;
  readonly cut: number;
  /** how likely the evening after a lost one is lost too: they come in rows; no less than any other */
  readonly inRows: number;
  /** those who may stay away: their hands, and the hands that take over what was theirs that evening */
  readonly helpers: readonly Helper[];
  /** what stands on the shelf, and by operation what it takes of it: supply and millilitres in turn */
  readonly supplies: readonly Supply[];
  readonly supplyUse: readonly (readonly number[])[];
  /** how much more or less of a product is used than reckoned: the logarithm’s spread */
  readonly usage: number;
  /** minutes from running out to having more */
  readonly restock: number;
}

export interface Helper {
  /** resources: the hands, and those that take over */
  readonly hands: number;
  readonly instead: number;
  /** how likely they stay away from an evening of theirs */
  readonly absent: number;
}

export interface Supply {
  readonly ml: number;
  /** it is known to run out and is being bought: there from this minute on; Infinity: nobody has seen it coming */
  readonly boughtBy: number;
}

/** One thing otherwise in a future. */
export interface Twist {
  /** a session that nobody comes to, whatever is drawn */
  readonly lost?: number;
  /** operations (1) that may not begin before a minute */
  readonly later?: { readonly of: Uint8Array; readonly minute: number };
}

/** A window missed is a sandwich begun again; so often at the most, then it is left as it is. */
export const MOST_AGAIN = 3;

/** Nothing comes otherwise. */
export function noRisks(operations: number): Risks {
  return {
    product: new Int32Array(operations).fill(-1),
    products: [],
    evening: 0,
    work: new Int32Array(operations).fill(-1),
    works: [],
    slopes: new Float64Array(0),
    pace: 0,
    piece: 0,
    isNew: new Uint8Array(0),
    firstTime: { mean: 0, sigma: 0 },
    mendChance: new Float64Array(operations),
    mishap: new Int32Array(operations).fill(-1),
    mishaps: [],
    mendMinutes: new Float64Array(operations),
    mendDrying: new Float64Array(operations),
    air: 0,
    lost: 0,
    cut: 0,
    inRows: 0,
    helpers: [],
    supplies: [],
    supplyUse: Array<readonly number[]>(operations).fill([]),
    usage: 0,
    restock: 0,
  };
}
