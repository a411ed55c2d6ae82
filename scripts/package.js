/** `npm run package`: the core as an npm package in packages/core, built, and packed as a tarball. */
import { chmodSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ALIASES, ensureInstalled, ROOT, run, tool } from './tools.js';

const PACKAGE = join(ROOT, 'packages', 'core');
const DIST = join(PACKAGE, 'dist');

ensureInstalled();
rmSync(DIST, { recursive: true, force: true });
const { build } = await import('vite');
await build({
  configFile: false,
  root: ROOT,
  logLevel: 'warn',
  resolve: {
    alias: {
      ...ALIASES,
      // The form of it that Node.js loads too.
      wavefile: join(ROOT, 'node_modules/wavefile/dist/wavefile.js'),
    },
  },
  // Everything it needs is in it.
  ssr: { noExternal: true },
  build: {
    ssr: true,
    outDir: DIST,
    emptyOutDir: true,
    minify: false,
    rollupOptions: {
      input: { index: 'src/package/index.ts', cli: 'src/package/cli.ts' },
      output: { entryFileNames: '[name].js', chunkFileNames: 'parts/[name]-[hash].js' },
    },
  },
});
chmodSync(join(DIST, 'cli.js'), 0o755);

// The types as the compiler writes them, with names a package can be read by.
const types = join(DIST, 'types');
const config = join(ROOT, '.svelte-kit', 'tsconfig.package.json');
mkdirSync(join(ROOT, '.svelte-kit'), { recursive: true });
writeFileSync(
  config,
  JSON.stringify({
    extends: '../tsconfig.json',
    compilerOptions: {
      noEmit: false,
      declaration: true,
      emitDeclarationOnly: true,
      allowJs: false,
      checkJs: false,
      rootDir: '../src',
      outDir: types,
      sourceMap: false,
    },
    include: [],
    files: ['../src/package/index.ts'],
  }),
);
if (run(tool('tsc'), ['-p', config]) !== 0) process.exit(1);
for (const entry of readdirSync(types, { recursive: true, encoding: 'utf8' })) {
  if (!entry.endsWith('.d.ts')) continue;
  const file = join(types, entry);
  const up = '../'.repeat(entry.split('/').length - 1) || './';
  const text = readFileSync(file, 'utf8')
    .replace(/(from |import\()(['"])\$core\//gu, `$1$2${up}core/`)
    .replace(/(from |import\()(['"])(\.{1,2}\/[^'"]+?)(?:\.js)?\2/gu, '$1$2$3.js$2');
  writeFileSync(file, text);
}
process.exit(run('npm', ['pack', '--silent', '--pack-destination', PACKAGE, PACKAGE]));
