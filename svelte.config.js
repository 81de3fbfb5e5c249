import adapter from '@sveltejs/adapter-node';

/** @type {import('@sveltejs/kit').Config} */
export default {
  compilerOptions: { runes: true },
  kit: {
    adapter: adapter({ out: 'build' }),
    alias: { core: 'core', board: 'board', demo: 'demo' }
  },
  vitePlugin: {
    dynamicCompileOptions: ({ filename }) => (filename.includes('node_modules') ? { runes: undefined } : undefined)
  }
};
