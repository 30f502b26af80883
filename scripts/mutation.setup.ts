/**
 * What the mutation runner asks of each spec file: which changes its tests came by. Since Vitest 4.1 a hook is given the suite as its second
 * argument; the runner's own setup looks for it in the first, and finds nothing.
 */
import { afterAll, inject } from 'vitest';

interface Counted {
  hitCount?: number;
  mutantCoverage?: unknown;
}

// The runner provides more than Vitest knows the names of.
const provided = inject as unknown as (key: string) => string;
const counted = (globalThis as unknown as Record<string, Counted>)[provided('globalNamespace')];
const isRun = provided('mode') === 'mutant';

// Vitest reads out of the first argument which fixtures it is to be given: none.
afterAll(({}, suite) => {
  const told = suite.meta as Counted;
  if (isRun) told.hitCount = counted?.hitCount ?? 0;
  else told.mutantCoverage = counted?.mutantCoverage;
});
