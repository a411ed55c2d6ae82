/**
 * The rules that ask for types: promises nobody waits for, switches with a case missing, `any`. Modules
 * are read as they are, components as the type check has just written them out in TypeScript, with their
 * markup, so that a promise handed to a component is found too.
 */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, run, tool } from './tools.js';

const WRITTEN = join('.svelte-kit', '.svelte-check');

const components = readdirSync(join(ROOT, WRITTEN, 'svelte', 'src'), {
  recursive: true,
  withFileTypes: true,
})
  .filter(({ name }) => name.startsWith('++') && name.endsWith('.svelte.ts'))
  .map(({ parentPath, name }) => join(parentPath, name));
if (components.length === 0) {
  throw new Error('No components are written out: check the types first.');
}

/** Only these files, where any are named. */
const named = process.argv.slice(2);
const modules =
  named.length === 0
    ? ['src', 'tests']
    : named.filter((name) => /^(?:src|tests)\/.*\.ts$/u.test(name));
const markup =
  named.length === 0
    ? components
    : components.filter((path) =>
        named.some((name) => name.endsWith('.svelte') && path.endsWith(`${under(name)}.ts`)),
      );

/** A component's path as it is written out: its name begins with `++`. @param {string} name */
function under(name) {
  const parts = name.split('/');
  return [...parts.slice(0, -1), `++${parts.at(-1)}`].join('/');
}

/** @param {readonly string[]} files @param {readonly string[]} [options] */
const lint = (files, options = []) =>
  files.length === 0 ? 0 : run(tool('oxlint'), ['--type-aware', '--quiet', ...options, ...files]);

const found = lint(modules);
const inMarkup = lint(markup, [
  ...['--no-ignore', '-c', '.oxlintrc.svelte.json'],
  ...['--tsconfig', join(WRITTEN, 'tsconfig.json')],
]);
process.exit(found || inMarkup);
