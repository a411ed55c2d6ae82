/** `npm start`: the server with the player's own data folder. */
import { becomeServer, ensureBuilt, ensureInstalled } from './tools.js';

ensureInstalled();
ensureBuilt();
becomeServer();
