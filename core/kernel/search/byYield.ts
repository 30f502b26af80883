/** Chooses among the moves of a search: each gets work by what it has lately saved for its work. */
import type { Random } from '../model/random';

/** What a move has brought is forgotten at this rate, by its tries. */
const FORGETTING = 0.01;
/** Work of so many tries for which a move is judged by what all moves bring, too: until it has shown what it can do. */
const ON_TRUST = 20;
/** A move that brings nothing gets this share of the best one's work all the same. */
const LEAST_SHARE = 0.05;

export interface ByYield {
  /** The number of the move to try next. */
  choose(): number;
  /** @param saved cost that the try has saved, 0 when it failed @param work what it took, in any unit but always the same */
  learn(move: number, saved: number, work: number): void;
}

export function byYield(moves: number, random: Random): ByYield {
  const all = { saved: 0, work: 0, tries: 0 };
  const each = Array.from({ length: moves }, () => ({ ...all }));
  const share = new Float64Array(moves).fill(1);

  function choose(): number {
    let r = random() * share.reduce((a, b) => a + b, 0);
    for (let m = 0; m < moves; m++) if ((r -= share[m]!) < 0) return m;
    return moves - 1;
  }

  function learn(move: number, saved: number, work: number): void {
    for (const about of [all, each[move]!]) {
      about.saved = (1 - FORGETTING) * about.saved + saved;
      about.work = (1 - FORGETTING) * about.work + work;
      about.tries = (1 - FORGETTING) * about.tries + 1;
    }
    const usual = { saved: (ON_TRUST * all.saved) / all.tries, work: (ON_TRUST * all.work) / all.tries };
    const rates = each.map((m) => (m.saved + usual.saved) / (m.work + usual.work));
    const best = Math.max(...rates);
    // Shares of the work, not of the tries: a costly move is tried less often.
    each.forEach((m, k) => {
      const workOfTry = (m.work + usual.work) / (m.tries + ON_TRUST);
      share[k] = Math.max(LEAST_SHARE, best > 0 ? rates[k]! / best : 1) / workOfTry;
    });
  }

  return { choose, learn };
}
