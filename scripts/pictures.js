/** `npm run pictures`: takes the pictures of docs/screenshots anew, from the demo data. */
import { ensureBuilt, ensureChromium, ensureInstalled, runBundled } from './tools.js';

ensureInstalled();
ensureChromium();
ensureBuilt();
await runBundled('tests/pictures/main.ts');
