/** `npm run build`: the application, then the threads: of the engine's questions, and of work on the whole book. */
import { bundle, run } from './tools.js';

const code = run('npx', ['vite', 'build', '--logLevel', 'warn']);
if (code !== 0) process.exit(code);
await bundle('src/lib/engine/engine.worker.ts', 'build/engine');
await bundle('src/lib/server/desk/desk.worker.ts', 'build/desk');
