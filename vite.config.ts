import tailwindcss from '@tailwindcss/vite';
import { sveltekit } from '@sveltejs/kit/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  worker: { format: 'es' },
  // The content security policy takes fonts from files only.
  build: { assetsInlineLimit: 0 },
  test: {
    projects: [
      {
        extends: true,
        test: {
          name: 'unit',
          include: ['src/**/*.test.ts'],
          environment: 'node',
          setupFiles: ['tests/setup.ts'],
          // Each thread reads the core once for all the files it tests: half the processor's time.
          pool: 'threads',
          isolate: false,
          testTimeout: 120_000,
        },
      },
      {
        extends: true,
        test: {
          name: 'browser',
          include: ['tests/browser/**/*.test.ts'],
          environment: 'node',
          globalSetup: ['tests/browser/started.ts'],
          // Each of two workers keeps its server and its browser for all its files.
          pool: 'threads',
          isolate: false,
          maxWorkers: 2,
          testTimeout: 240_000,
          hookTimeout: 240_000,
        },
      },
    ],
  },
});
