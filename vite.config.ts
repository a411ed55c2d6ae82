import tailwindcss from '@tailwindcss/vite';
import { sveltekit } from '@sveltejs/kit/vite';
import { defineConfig } from 'vitest/config';

/** What is played in real time, and wants a browser that nothing else is asked of. */
const SOUND = ['tests/browser/listening.test.ts', 'tests/browser/play.test.ts'];

/** Tests of the real screens; each worker keeps its server and its browser for all its files. */
const screens = (name: string, include: string[], exclude: string[], maxWorkers: number) => ({
  extends: true as const,
  test: {
    ...{ name, include, exclude, maxWorkers },
    environment: 'node' as const,
    globalSetup: ['tests/browser/started.ts'],
    pool: 'threads' as const,
    isolate: false,
    testTimeout: 240_000,
    hookTimeout: 240_000,
  },
});

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
      screens('browser', ['tests/browser/**/*.test.ts'], SOUND, 2),
      screens('sound', SOUND, [], 1),
    ],
  },
});
