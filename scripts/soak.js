/** `npm run soak`: long runs against a real server, with their figures. Never part of `npm test`. */
import { bundle, ensureBuilt, ensureChromium, ensureInstalled, ROOT, run, tool } from './tools.js';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

ensureInstalled();
ensureChromium();
ensureBuilt();
// Every case of every law, and others than `npm test` draws; unless only some runs are asked for.
const laws = { ...process.env, CORVEL_LAWS: 'long' };
const some = process.env.SOAK_ONLY !== undefined;
if (!some && run(tool('vitest'), ['run', '--project', 'unit', '--reporter=dot'], laws) !== 0)
  process.exitCode = 1;
await bundle('tests/soak/main.ts', '.bench/soak');
await import(pathToFileURL(join(ROOT, '.bench', 'soak', 'main.js')).href);
