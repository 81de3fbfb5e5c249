import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

// Workers with SharedArrayBuffer need a cross-origin isolated page; server.ts sets the same for the built application.
const isolation = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp'
};

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  server: { headers: isolation },
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    // the component library does not say so itself: a part of it that is not used does nothing
    rolldownOptions: { treeshake: { moduleSideEffects: (id) => !id.includes('/flowbite-svelte/') } }
  }
});
