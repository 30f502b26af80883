/** `npm run bench -- learning`: how often what is learned of drying holds the truth of simulated benches, and how near it comes. */
import { seededRandom } from '#core/kernel';
import { trialOf, WORLDS } from '../core/learn/testing';
import { percent } from './table';

/** Of six products each. */
const BENCHES = Number(process.env['BENCHES'] ?? 35);
/** The prior was chosen on others. */
const SEEDS = [3, 4];

export function benchLearning(print: (text: string) => void): void {
  print('\nWhat is learned of drying');
  for (const [name, make] of Object.entries(WORLDS))
    for (const seed of SEEDS) {
      const { covered, error } = trialOf(make, BENCHES, seededRandom(seed));
      print(
        `${name}, seed ${seed}: 90 % intervals hold ${percent(covered)}; error ${error.toFixed(2)} of the nominal one`,
      );
    }
}
