/** `npm run bench`: the benchmarks, each figure beside its budget. Informs; it fails nothing. */
import { ensureBuilt, ensureChromium, ensureInstalled, runBundled } from './tools.js';

ensureInstalled();
ensureChromium();
ensureBuilt();
await runBundled('tests/bench/main.ts');
