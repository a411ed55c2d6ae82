import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';
import { compress } from './scripts/compress.js';

const node = adapter({ precompress: true });

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  kit: {
    adapter: { ...node, adapt: (builder) => node.adapt({ ...builder, compress }) },
    alias: { $core: 'src/core', 'corvel-core': 'src/package/index.ts', $tests: 'tests' },
    // The hooks refuse what another site asks for, of whatever type; programs may send a file as any.
    csrf: { trustedOrigins: ['*'] },
    csp: {
      mode: 'auto',
      directives: {
        'default-src': ['self'],
        'script-src': ['self'],
        // Svelte and the text editor set style attributes; scripts stay strict.
        'style-src': ['self', 'unsafe-inline'],
        'img-src': ['self', 'data:', 'blob:'],
        // The notation's music font comes inside its script.
        'font-src': ['self', 'data:'],
        'connect-src': ['self'],
        'worker-src': ['self', 'blob:'],
        'object-src': ['none'],
        'base-uri': ['none'],
        'form-action': ['self'],
        'frame-ancestors': ['none'],
      },
    },
  },
};
