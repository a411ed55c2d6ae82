/** `npm run soak`: long runs against a real server, with their figures. Never part of `npm test`. */
import { bundle, ensureBuilt, ensureChromium, ensureInstalled, ROOT } from './tools.js';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

ensureInstalled();
ensureChromium();
ensureBuilt();
await bundle('tests/soak/main.ts', '.bench/soak');
await import(pathToFileURL(join(ROOT, '.bench', 'soak', 'main.js')).href);
