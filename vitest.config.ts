import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vitest/config';

const all = (...folders: string[]): string[] => folders.map((f) => `${f}/**/*.test.ts`);

// Unit and conformance tests run in plain Node: the core has no interface code.
export default defineConfig({
  // runes in .svelte.ts modules
  plugins: [svelte()],
  test: {
    setupFiles: ['core/run/exact-math.ts', 'core/testing/anew.ts'],
    // a loaded machine is slow, not wrong
    testTimeout: 300_000,
    hookTimeout: 300_000,
    pool: 'forks',
    // both cores of a small machine, and one for those that wait
    maxWorkers: 3,
    projects: [
      // a process keeps what it has imported: a third of the time went into importing the same again
      {
        extends: true,
        test: { name: 'core', include: all('core', 'board', 'cli', 'demo', 'messages'), isolate: false }
      },
      // these put workers, servers and sockets in place of the page's, each for itself
      { extends: true, test: { name: 'app', include: all('src') } }
    ]
  }
});
