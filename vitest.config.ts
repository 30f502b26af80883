import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: [
      'app/**/*.spec.ts',
      'core/**/*.spec.ts',
      'cli/**/*.spec.ts',
      'server/**/*.spec.ts',
      'demo/**/*.spec.ts',
      'torture/**/*.spec.ts',
    ],
    // Components are compiled and tested by `ng test`.
    exclude: ['app/**/*.component.spec.ts', 'node_modules/**'],
    environment: 'node',
    testTimeout: 180_000,
    // Specs share no state of their own: the core is loaded once a worker, not once a file.
    isolate: false,
    maxWorkers: 2,
  },
});
