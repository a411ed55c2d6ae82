/** `npm run demo`: the server with demo data; `-- --reset` starts the data over. */
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { becomeServer, ensureBuilt, ensureInstalled, ROOT } from './tools.js';

const data = process.env.CORVEL_DATA || join(ROOT, 'demo-data');
if (process.argv.includes('--reset')) {
  // Only Corvel's own files: the folder may hold others.
  for (const suffix of ['', '-wal', '-shm']) {
    rmSync(join(data, `corvel.sqlite${suffix}`), { force: true });
  }
  rmSync(join(data, 'backups'), { recursive: true, force: true });
}
ensureInstalled();
ensureBuilt();
becomeServer({ ...process.env, CORVEL_DATA: data, CORVEL_SEED: 'demo' });
