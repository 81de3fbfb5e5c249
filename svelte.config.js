import adapter from '@sveltejs/adapter-node';

/** @type {import('@sveltejs/kit').Config} */
export default {
  compilerOptions: { runes: true },
  kit: {
    adapter: adapter({ out: 'build' }),
    // no script but ours: those of the page carry a nonce; MicroPython is WebAssembly; styles are set on elements
    csp: {
      mode: 'nonce',
      directives: {
        'default-src': ['self'],
        'script-src': ['self', 'wasm-unsafe-eval'],
        'style-src': ['self', 'unsafe-inline'],
        'img-src': ['self', 'data:', 'blob:'],
        'media-src': ['self', 'data:', 'blob:'],
        'font-src': ['self', 'data:'],
        'connect-src': ['self', 'data:', 'blob:'],
        'worker-src': ['self', 'blob:'],
        'object-src': ['none'],
        'base-uri': ['self'],
        'form-action': ['self'],
        'frame-ancestors': ['none']
      }
    },
    alias: { core: 'core', board: 'board', demo: 'demo' }
  },
  vitePlugin: {
    dynamicCompileOptions: ({ filename }) => (filename.includes('node_modules') ? { runes: undefined } : undefined)
  }
};
