/** The tests that look for a mutant: those of its folder, and what mutate.ts names beside. */
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: (process.env.MUTATE_TESTS ?? 'core/**/*.test.ts').split(' '),
    setupFiles: ['core/run/exact-math.ts', 'core/testing/brief.ts'],
    testTimeout: 300_000
  }
});
