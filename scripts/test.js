/** `npm test`: lint, types, unit tests, browser tests. Its last line counts them all. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuilt, ensureInstalled, run } from './tools.js';

const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';
const CHROMEDRIVER = process.env.CHROMEDRIVER ?? '/usr/bin/chromedriver';

function ensureChromium() {
  if (existsSync(CHROMIUM) && existsSync(CHROMEDRIVER)) return;
  const debian = spawnSync('which', ['apt-get']).status === 0;
  if (debian && process.getuid?.() === 0) {
    console.log('Installing Chromium and its driver…');
    const quiet = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    run('apt-get', ['update', '-qq'], quiet);
    const packages = ['chromium', 'chromium-driver'];
    run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...packages], quiet);
  }
  if (existsSync(CHROMIUM) && existsSync(CHROMEDRIVER)) return;
  console.error(
    'The browser tests need Chromium and ChromeDriver. On Debian: apt-get install chromium ' +
      'chromium-driver. Elsewhere, install both and set CHROMIUM and CHROMEDRIVER to their paths.',
  );
  process.exit(1);
}

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
