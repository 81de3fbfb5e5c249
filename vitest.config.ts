import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vitest/config';

// Unit and conformance tests run in plain Node: the core has no interface code.
export default defineConfig({
  // runes in .svelte.ts modules
  plugins: [svelte()],
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
    // a loaded machine is slow, not wrong
    testTimeout: 300_000,
    hookTimeout: 300_000,
    pool: 'forks',
    // both cores of a small machine, and one for those that wait
    maxWorkers: 3
  }
});
