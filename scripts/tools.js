/** What the commands share: installing, building, and running other commands. */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { join } from 'node:path';

export const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** What the program calls its parts, where a bundle is made without SvelteKit. */
export const ALIASES = {
  $core: join(ROOT, 'src/core'),
  $lib: join(ROOT, 'src/lib'),
  'corvel-core': join(ROOT, 'src/package/index.ts'),
};

const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';
const CHROMEDRIVER = process.env.CHROMEDRIVER ?? '/usr/bin/chromedriver';

/**
 * Runs a command to its end, showing what it prints; answers its exit code.
 * @param {string} command
 * @param {readonly string[]} args
 * @param {NodeJS.ProcessEnv} [env]
 */
export function run(command, args, env = process.env) {
  const result = spawnSync(command, [...args], { cwd: ROOT, stdio: 'inherit', env });
  return result.status ?? 1;
}

/** @param {string} name */
export const tool = (name) => join(ROOT, 'node_modules', '.bin', name);

/** What the types say, and the rules that ask for them: these read what the first writes. */
export const TYPES = {
  types: [tool('svelte-check'), '--tsgo', '--fail-on-warnings', '--output', 'human'],
  'lint by types': [process.execPath, join(ROOT, 'scripts', 'lintTypes.js')],
};

/** What is checked without running anything: its name and its command. */
/** @type {readonly (readonly [name: string, command: readonly string[]])[]} */
export const CHECKS = [
  ['format', [tool('prettier'), '--check', '--experimental-cli', '.']],
  ['lint', [tool('eslint'), '.']],
  ...Object.entries(TYPES),
];

/** Installs the packages of the lock file when any are missing. */
export function ensureInstalled() {
  const installed = join(ROOT, 'node_modules', '.package-lock.json');
  const lock = join(ROOT, 'package-lock.json');
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs) return;
  if (existsSync(installed) && sameVersions(installed, lock)) return;
  console.log('Installing packages…');
  const code = run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  if (code !== 0) process.exit(code);
}

/**
 * @param {string} installed
 * @param {string} lock
 */
function sameVersions(installed, lock) {
  const have = JSON.parse(readFileSync(installed, 'utf8')).packages;
  const want = JSON.parse(readFileSync(lock, 'utf8')).packages;
  return Object.entries(want).every(
    ([name, { version, optional }]) => name === '' || optional || have[name]?.version === version,
  );
}

/** Installs Chromium and its driver where that can be done; else says what to install. */
export function ensureChromium() {
  if (existsSync(CHROMIUM) && existsSync(CHROMEDRIVER)) return;
  const debian = spawnSync('which', ['apt-get']).status === 0;
  if (debian && process.getuid?.() === 0) {
    console.log('Installing Chromium and its driver…');
    const quiet = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    run('apt-get', ['update', '-qq'], quiet);
    const install = ['install', '-y', '-qq', '--no-install-recommends'];
    run('apt-get', [...install, 'chromium', 'chromium-driver'], quiet);
    // What the tests use where there is such a package, and do without where there is none.
    run('apt-get', [...install, 'chromium-headless-shell'], quiet);
  }
  if (existsSync(CHROMIUM) && existsSync(CHROMEDRIVER)) return;
  console.error(
    'The browser tests need Chromium and ChromeDriver. On Debian: apt-get install chromium ' +
      'chromium-driver. Elsewhere, install both and set CHROMIUM and CHROMEDRIVER to their paths.',
  );
  process.exit(1);
}

const SOURCES = ['src', 'static'];
const SETTINGS = [
  'package-lock.json',
  'svelte.config.js',
  'vite.config.ts',
  'tsconfig.json',
  'scripts/tools.js',
];

/** @returns {string} a hash of everything the build is made from */
function sourceHash() {
  const hash = createHash('sha256');
  const files = SOURCES.flatMap((folder) =>
    readdirSync(join(ROOT, folder), { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile() && !entry.name.endsWith('.test.ts'))
      .map((entry) => join(entry.parentPath, entry.name)),
  ).sort();
  for (const file of [...files, ...SETTINGS.map((name) => join(ROOT, name))]) {
    hash.update(file.slice(ROOT.length)).update(readFileSync(file));
  }
  return hash.digest('hex');
}

/** Builds the application unless the build at hand was made from these very sources. */
export function ensureBuilt() {
  const stamp = join(ROOT, 'build', 'source-hash');
  const hash = sourceHash();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return;
  console.log('Building…');
  const code = run(process.execPath, [join(ROOT, 'scripts', 'build.js')]);
  if (code !== 0) process.exit(code);
  writeFileSync(stamp, hash);
}

/**
 * What the server is started with: few pools of memory for all its threads. Left alone, the C library keeps
 * one for each thread, and what one frees no other may use: 15 MB of what the server holds.
 */
export const SERVER_SETTINGS = { MALLOC_ARENA_MAX: '2' };

/**
 * Hands this process over to the server: its signals, its exit code.
 * @param {NodeJS.ProcessEnv} [env]
 */
export function becomeServer(env = process.env) {
  const server = spawn(process.execPath, [join(ROOT, 'scripts', 'server.js')], {
    cwd: process.cwd(),
    stdio: 'inherit',
    env: { ...SERVER_SETTINGS, ...env },
  });
  for (const signal of /** @type {const} */ (['SIGTERM', 'SIGINT', 'SIGHUP'])) {
    process.on(signal, () => server.kill(signal));
  }
  server.on('exit', (code, signal) => process.exit(signal ? 1 : (code ?? 1)));
}

/** Packages that a bundle holds: read by themselves these are 400 files, half a second of every start and thread. */
export const BUNDLED = ['kysely', 'zod', 'fast-xml-parser', '@streamparser/json', 'diff'];

/**
 * Bundles a TypeScript program for Node.js, without most packages it uses.
 * @param {string} entry
 * @param {string} outDir
 */
export async function bundle(entry, outDir) {
  process.chdir(ROOT);
  // Not at the top: the packages may have been installed only now.
  const { build } = await import('vite');
  await build({
    configFile: false,
    logLevel: 'warn',
    resolve: { alias: ALIASES },
    ssr: { noExternal: BUNDLED },
    build: { ssr: entry, outDir, emptyOutDir: true },
  });
}

/**
 * Bundles a TypeScript program and runs it in this process, from the project's folder.
 * @param {string} entry
 */
export async function runBundled(entry) {
  await bundle(entry, '.bench');
  await import(pathToFileURL(join(ROOT, '.bench', 'main.js')).href);
}
