import { join, resolve } from 'node:path';
import tailwindcss from '@tailwindcss/vite';
import { sveltekit } from '@sveltejs/kit/vite';
import { defineConfig } from 'vitest/config';
import { BUNDLED } from './scripts/tools.js';

/** What plays and listens in real time: beside nothing that wants the processor as much. */
const SOUND = ['listening', 'play', 'loops'].map((name) => `tests/browser/${name}.test.ts`);

interface Some {
  readonly include: string[];
  readonly exclude?: string[];
  readonly maxWorkers: number;
}

/** Tests of the real screens; each worker keeps its server and its browser for all its files. */
const screens = (name: string, some: Some) => ({
  extends: true as const,
  test: {
    name,
    ...some,
    environment: 'node' as const,
    env: { CHROMIUM: process.env['CHROMIUM'] ?? resolve('tests/browser/chromium.sh') },
    globalSetup: ['tests/browser/started.ts'],
    pool: 'threads' as const,
    isolate: false,
    testTimeout: 240_000,
    hookTimeout: 240_000,
  },
});

export default defineConfig(({ command }) => ({
  // What runs beside others keeps its files apart: two that begin together would rename one another's.
  cacheDir: join('node_modules/.vite', process.env['CORVEL_STEP'] ?? ''),
  plugins: [tailwindcss(), sveltekit()],
  ssr: { noExternal: command === 'build' ? BUNDLED : [] },
  worker: { format: 'es' },
  // The content security policy takes fonts from files only.
  build: { assetsInlineLimit: 0, reportCompressedSize: false },
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
          hookTimeout: 120_000,
        },
      },
      screens('browser', {
        include: ['tests/browser/**/*.test.ts'],
        exclude: SOUND,
        maxWorkers: 2,
      }),
      screens('sound', { include: SOUND, maxWorkers: 2 }),
    ],
  },
}));
