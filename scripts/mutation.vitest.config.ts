/** The specs of one room, for the mutation runs: see scripts/mutation.mjs. */
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: (process.env['MUTATION_SPECS'] ?? '')
      .split(',')
      .map((s) => (s.endsWith('.ts') ? s : `${s}/**/*.spec.ts`)),
    // Half a minute each; and what only `ng test` can run.
    exclude: [...['weeks', 'anyAir', 'kinds'].map((slow) => `**/${slow}.spec.ts`), '**/*.component.spec.ts'],
    environment: 'node',
    isolate: false,
    setupFiles: ['scripts/mutation.setup.ts'],
    testTimeout: 60_000,
  },
});
