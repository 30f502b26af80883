/** The wave: how many pieces can go through a window together, and what limits it (derived; common practice, no source). */

export interface WaveInput {
  /** minutes a piece for the first layer, and for the second */
  readonly first: number;
  readonly second: number;
  /** one changeover between the two, minutes */
  readonly change: number;
  /** after each piece's first layer the second may go on from … to, minutes */
  readonly opens: number;
  readonly closes: number;
  /** places to put pieces down */
  readonly places?: number;
  readonly handles?: number;
  /** pieces one cup holds paint for */
  readonly perCup?: number;
  /** minutes of the session */
  readonly session?: number;
}

export interface WaveLimit {
  readonly by: 'window' | 'places' | 'handles' | 'cup' | 'session';
  readonly pieces: number;
}

export interface Wave {
  readonly pieces: number;
  /** smallest first; empty when nothing limits it */
  readonly limits: readonly WaveLimit[];
  /** for each piece of the wave when its layers begin and end, minutes from the start */
  readonly pieceTimes: readonly {
    readonly first: [number, number];
    readonly second: [number, number];
    readonly opens: number;
    readonly closes: number;
  }[];
  readonly minutes: number;
}

const DRAWN = 60;

/** @throws RangeError where a figure is negative or the window closes before it opens */
export function waveOf(input: WaveInput): Wave {
  const { first, second, change, opens, closes } = input;
  if (!(first > 0) || !(second > 0)) throw new RangeError('Each layer needs more than 0 minutes a piece.');
  if (change < 0 || opens < 0) throw new RangeError('Changeover and opening cannot be negative.');
  if (closes < opens)
    throw new RangeError(`The window closes after ${closes} min, before it opens after ${opens} min.`);
  const limits: WaveLimit[] = [{ by: 'window', pieces: byWindow(input) }];
  if (input.places !== undefined) limits.push({ by: 'places', pieces: input.places });
  if (input.handles !== undefined) limits.push({ by: 'handles', pieces: input.handles });
  if (input.perCup !== undefined) limits.push({ by: 'cup', pieces: Math.floor(input.perCup) });
  if (input.session !== undefined) {
    let n = 0;
    while (n < 1000 && lengthOf(input, n + 1) <= input.session) n++;
    limits.push({ by: 'session', pieces: n });
  }
  limits.sort((a, b) => a.pieces - b.pieces);
  const pieces = Math.max(0, limits[0]!.pieces);
  const drawn = Math.min(pieces, DRAWN);
  const start = secondStart(input, pieces);
  return {
    pieces,
    limits,
    pieceTimes: Array.from({ length: drawn }, (_, k) => ({
      first: [k * first, (k + 1) * first],
      second: [start + k * second, start + (k + 1) * second],
      opens: (k + 1) * first + opens,
      closes: (k + 1) * first + closes,
    })),
    minutes: pieces === 0 ? 0 : lengthOf(input, pieces),
  };
}

/** n = 1 + ⌊min((hi − s) / max(a, b), (hi − lo) / |a − b|)⌋, the second term absent if a = b. */
function byWindow({ first, second, change, opens, closes }: WaveInput): number {
  const longest = Math.max(first, second);
  const terms = [(closes - Math.max(change, 0)) / longest];
  if (first !== second) terms.push((closes - opens) / Math.abs(first - second));
  const least = Math.min(...terms);
  return least < 0 ? 0 : 1 + Math.floor(least + 1e-9);
}

/** When the second layers begin: changed over, and late enough that every piece's window has opened. */
function secondStart({ first, second, change, opens }: WaveInput, n: number): number {
  const last = first + opens;
  const slip = Math.max(0, (n - 1) * (first - second));
  return Math.max(n * first + change, last + slip);
}

function lengthOf(input: WaveInput, n: number): number {
  return secondStart(input, n) + n * input.second;
}
