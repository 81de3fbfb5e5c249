import { defineConfig } from 'vitest/config';

// Unit and conformance tests run in plain Node: the core has no interface code.
export default defineConfig({
  test: {
    include: [
      'core/**/*.test.ts',
      'board/**/*.test.ts',
      'cli/**/*.test.ts',
      'src/**/*.test.ts',
      'demo/**/*.test.ts',
      'messages/**/*.test.ts'
    ],
    setupFiles: ['core/run/exact-math.ts'],
    testTimeout: 60_000,
    pool: 'forks'
  }
});
