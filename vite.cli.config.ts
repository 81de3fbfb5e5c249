import { defineConfig } from 'vite';

/**
 * The command line as one file beside the application, so that a call starts at once, and what the server's pool of workers
 * runs. MicroPython stays a package of its own.
 */
export default defineConfig({
  publicDir: false,
  build: {
    ssr: true,
    outDir: '.cli',
    emptyOutDir: true,
    target: 'node20',
    minify: true,
    rolldownOptions: {
      input: { main: 'cli/main.ts', heavy: 'src/workers/heavy.ts' },
      output: { entryFileNames: '[name].js', chunkFileNames: '[name].js' }
    }
  },
  ssr: { noExternal: true, external: ['@micropython/micropython-webassembly-pyscript'] }
});
