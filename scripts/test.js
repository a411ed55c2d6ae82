/** `npm test`: lint, types, unit tests, browser tests. Its last line counts them all. */
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuilt, ensureChromium, ensureInstalled, run } from './tools.js';

const counts = { passed: 0, failed: 0 };

/**
 * @param {string} name
 * @param {string} command
 * @param {readonly string[]} args
 */
function step(name, command, args) {
  console.log(`\n── ${name}`);
  const passed = run(command, args) === 0;
  counts[passed ? 'passed' : 'failed'] += 1;
  return passed;
}

const reports = mkdtempSync(join(tmpdir(), 'corvel-report-'));

/** @param {'unit' | 'browser'} project */
function tests(project) {
  console.log(`\n── ${project} tests`);
  const report = join(reports, `${project}.json`);
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${report}`];
  const code = run('npx', ['vitest', 'run', '--project', project, ...reporters]);
  if (!existsSync(report)) {
    counts.failed += 1;
    return;
  }
  const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(report, 'utf8'));
  counts.passed += numPassedTests;
  counts.failed += numFailedTests;
  if (code !== 0 && numFailedTests === 0) counts.failed += 1;
}

ensureInstalled();
ensureChromium();
step('format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']);
step('sync', 'npx', ['svelte-kit', 'sync']);
step('lint', 'npx', ['eslint', '.']);
step('types', 'npx', ['svelte-check', '--fail-on-warnings', '--output', 'human']);
tests('unit');
ensureBuilt();
tests('browser');
rmSync(reports, { recursive: true, force: true });
console.log(`\n${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed === 0 ? 0 : 1);
