/**
 * `npm test`: format, lint, types, unit tests and browser tests, in lanes beside one another. Its last line
 * counts them all. `npm test -- NAME …` runs the tests whose file or folder has such a name.
 */
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CHECKS, ensureChromium, ensureInstalled, ROOT, run } from './tools.js';

const names = process.argv.slice(2);
const reports = mkdtempSync(join(tmpdir(), 'corvel-report-'));
const counts = { passed: 0, failed: 0 };

/** Each step's seconds: by the clock, and of the processor. */
/** @type {{ readonly name: string, readonly wall: number, readonly processor: number }[]} */
const took = [];

/**
 * Runs a command to its end and prints what it said in one piece; whether it ended well.
 * @param {string} name
 * @param {readonly string[]} command
 * @returns {Promise<boolean>}
 */
function step(name, command) {
  const began = Date.now();
  const times = join(reports, `${name}.times`);
  // The shell knows the processor time of all that a command has started; Node.js does not say it.
  const timed = `TIMEFORMAT='%U %S'; { time "$@" 2>&3; } 3>&2 2>"$0"`;
  const child = spawn('bash', ['-c', timed, times, ...command], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
    // What is printed in one piece at the end is read in files more often than on a screen.
    env: { ...process.env, NO_COLOR: '1', FORCE_COLOR: '0', CORVEL_STEP: name },
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) {
    stream.setEncoding('utf8').on('data', (text) => (said += text));
  }
  return new Promise((resolve) => {
    child.on('close', (code) => {
      const used = existsSync(times) ? readFileSync(times, 'utf8').split(' ').map(Number) : [];
      const processor = used.reduce((sum, one) => sum + one, 0);
      took.push({ name, wall: (Date.now() - began) / 1000, processor });
      console.log(`\n── ${name}${said.trim() === '' ? ', ok' : `\n${said.trimEnd()}`}`);
      resolve(code === 0);
    });
  });
}

/**
 * A step that counts as one.
 * @param {string} name
 * @param {readonly string[]} command
 */
async function check(name, command) {
  const passed = await step(name, command);
  counts[passed ? 'passed' : 'failed'] += 1;
  return passed;
}

/**
 * @param {'unit' | 'browser' | 'sound'} project
 * @param {readonly string[]} [before] what starts the command
 */
async function tests(project, before = []) {
  const report = join(reports, `${project}.json`);
  const passed = await step(`${project} tests`, [
    ...before,
    ...['npx', 'vitest', 'run', '--project', project, ...names],
    ...(names.length > 0 ? ['--passWithNoTests'] : []),
    ...['--reporter=dot', '--silent=passed-only', '--reporter=json', `--outputFile.json=${report}`],
  ]);
  if (!existsSync(report)) {
    counts.failed += 1;
    return;
  }
  const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(report, 'utf8'));
  counts.passed += numPassedTests;
  counts.failed += numFailedTests;
  if (!passed && numFailedTests === 0) counts.failed += 1;
}

/** What only computes; the unit tests, the longest of it, give way to what is seen and heard. */
async function computed() {
  if (names.length === 0) {
    for (const [name, command] of CHECKS) await check(name, command);
  }
  await tests('unit', ['nice', '-n', '5']);
}

async function seen() {
  // The build stays while the sources stand still.
  const build = [
    process.execPath,
    '-e',
    `import('./scripts/tools.js').then((t) => t.ensureBuilt())`,
  ];
  if (!(await check('build', build))) return;
  await tests('browser');
  // What is played and heard in real time waits more than it works.
  await tests('sound');
}

ensureInstalled();
ensureChromium();
const began = Date.now();
// Types are made from the routes, for whoever reads them.
if (run('npx', ['svelte-kit', 'sync']) !== 0) process.exit(1);
await Promise.all([computed(), seen()]);
rmSync(reports, { recursive: true, force: true });

console.log('\n── seconds by the clock, and of the processor');
for (const { name, wall, processor } of took) {
  console.log(
    `${name.padEnd(16)}${wall.toFixed(0).padStart(6)}${processor.toFixed(0).padStart(6)}`,
  );
}
const whole = took.reduce((sum, { processor }) => sum + processor, 0);
const wall = (Date.now() - began) / 1000;
console.log(`${'all'.padEnd(16)}${wall.toFixed(0).padStart(6)}${whole.toFixed(0).padStart(6)}`);
console.log(`\n${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed === 0 && counts.passed > 0 ? 0 : 1);
