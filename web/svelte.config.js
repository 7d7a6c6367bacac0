import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';
import { optimizeImports } from 'carbon-preprocess-svelte';

/** @type {import('@sveltejs/kit').Config} */
const config = {
  preprocess: [vitePreprocess(), optimizeImports()],
  compilerOptions: {
    runes: ({ filename }) => (/[/\\]node_modules[/\\]/.test(filename) ? undefined : true),
  },
  vitePlugin: { prebundleSvelteLibraries: false },
  kit: {
    adapter: adapter({ out: 'build', precompress: true }),
    typescript: {
      config: (made) => {
        const { include } = /** @type {{ include: string[] }} */ (made);
        include.push('../vite.threads.config.ts');
      },
    },
    csp: {
      mode: 'auto',
      directives: {
        'default-src': ['self'],
        'script-src': ['self'],
        'worker-src': ['self', 'blob:'],
        'style-src': ['self', 'unsafe-inline'],
        'img-src': ['self', 'data:', 'blob:'],
        'font-src': ['self', 'data:'],
        'connect-src': ['self'],
        'object-src': ['none'],
        'base-uri': ['self'],
        'form-action': ['self'],
        'frame-ancestors': ['none'],
      },
    },
  },
};
export default config;
