import { bundle } from './tools.js'; await bundle('tests/bench/tmppage.ts', '.bench');
