/** `npm run tables`: writes the manual's tables and the schema of chart files from the program's own. */
import { ensureInstalled, runBundled } from './tools.js';

ensureInstalled();
await runBundled('tests/tables/main.ts');
