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
if (components.length === 0)
  throw new Error('No components are written out: check the types first.');

const modules = run(tool('oxlint'), ['--type-aware', '--quiet', 'src', 'tests']);
const markup = run(tool('oxlint'), [
  ...['--type-aware', '--quiet', '--no-ignore', '-c', '.oxlintrc.svelte.json'],
  ...['--tsconfig', join(WRITTEN, 'tsconfig.json'), ...components],
]);
process.exit(modules || markup);
