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
    environment: 'node',
    testTimeout: 60_000,
  },
});
