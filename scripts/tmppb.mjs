import { bundle } from './tools.js';
await bundle(process.argv[2], '.bench');
