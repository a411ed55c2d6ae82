/** `npm run build`: the application, then the thread that answers the engine's questions. */
import { bundle, run } from './tools.js';

const code = run('npx', ['vite', 'build', '--logLevel', 'warn']);
if (code !== 0) process.exit(code);
await bundle('src/lib/engine/engine.worker.ts', 'build/engine');
