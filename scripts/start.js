/** `npm start`: the server with the player's own data folder; `-- --share` serves the local network too. */
import { becomeServer, ensureBuilt, ensureInstalled } from './tools.js';

ensureInstalled();
ensureBuilt();
becomeServer(
  process.argv.includes('--share') ? { ...process.env, CORVEL_SHARED: '1' } : process.env,
);
