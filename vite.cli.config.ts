import { defineConfig } from 'vite';

/** The command line as one file beside the application, so that a call starts at once. MicroPython stays a package of its own. */
export default defineConfig({
  publicDir: false,
  build: {
    ssr: 'cli/main.ts',
    outDir: '.cli',
    emptyOutDir: true,
    target: 'node20',
    minify: true,
    rolldownOptions: { output: { entryFileNames: 'main.js', chunkFileNames: '[name].js' } }
  },
  ssr: { noExternal: true, external: ['@micropython/micropython-webassembly-pyscript'] }
});
