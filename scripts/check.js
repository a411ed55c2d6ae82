/**
 * `npm run check`: the quick loop while working. Format and lint of what has changed since the last commit,
 * types of everything, the unit tests that what has changed can touch.
 */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled, ROOT, run, TYPES, tool } from './tools.js';

/** @param {readonly string[]} args */
const git = (...args) =>
  spawnSync('git', args, { cwd: ROOT, encoding: 'utf8' }).stdout.split('\n').filter(Boolean);

const changed = [
  ...new Set([
    ...git('diff', '--name-only', 'HEAD'),
    ...git('ls-files', '--others', '--exclude-standard'),
  ]),
].filter((name) => existsSync(join(ROOT, name)));
const code = changed.filter((name) => /\.(?:ts|js|svelte)$/u.test(name));
const tested = code.filter((name) => name.startsWith('src/'));

/**
 * Runs commands one after another beside others; whether all of them ended well.
 * @param {readonly (readonly string[])[]} commands
 */
async function inTurn(commands) {
  for (const [command = '', ...args] of commands) {
    const child = spawn(command, args, { cwd: ROOT, stdio: 'inherit' });
    const ended = await new Promise((resolve) => child.on('close', resolve));
    if (ended !== 0) return false;
  }
  return true;
}

ensureInstalled();
if (run(tool('svelte-kit'), ['sync']) !== 0) process.exit(1);
const passed = await Promise.all([
  inTurn([
    ...(changed.length > 0
      ? [[tool('prettier'), '--check', '--ignore-unknown', '--log-level', 'warn', ...changed]]
      : []),
    ...(code.length > 0 ? [[tool('eslint'), '--no-warn-ignored', ...code]] : []),
    TYPES.types,
    ...(code.length > 0 ? [[...TYPES['lint by types'], ...code]] : []),
  ]),
  inTurn(
    tested.length > 0
      ? [[tool('vitest'), 'related', '--run', '--project', 'unit', '--passWithNoTests', ...tested]]
      : [],
  ),
]);
process.exit(passed.every(Boolean) ? 0 : 1);
