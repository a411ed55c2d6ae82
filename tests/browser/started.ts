/**
 * What a worker starts for all its files (a server, a browser's driver) outlives each of them. It is
 * written down here and ended when the last file is through, in the process that began the run.
 */
import { appendFileSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const FOLDER = 'CORVEL_TEST_FOLDER';

const list = () => join(process.env[FOLDER] ?? tmpdir(), 'started');

/** Remembers a process to be ended after the run: its id, and where it is asked to end, if anywhere. */
export const remember = (pid: number | undefined, shutdown = ''): void => {
  if (pid !== undefined && process.env[FOLDER]) appendFileSync(list(), `${pid} ${shutdown}\n`);
};

/** A folder that goes with the run. */
export const throwAway = (name: string): string =>
  mkdtempSync(join(process.env[FOLDER] ?? tmpdir(), `${name}-`));

/** Vitest's global set-up; what it answers is called at the end. */
export const setup = (): (() => Promise<void>) => {
  const folder = mkdtempSync(join(tmpdir(), 'corvel-tests-'));
  process.env[FOLDER] = folder;
  return async () => {
    const started = existsSync(list()) ? readFileSync(list(), 'utf8').trim().split('\n') : [];
    for (const line of started) {
      const [pid, shutdown] = line.split(' ');
      try {
        // A driver that is asked to end takes its browser along; one that is killed does not.
        if (shutdown) await fetch(shutdown);
        else process.kill(Number(pid), 'SIGKILL');
      } catch {
        // It has ended by itself.
      }
    }
    rmSync(folder, { recursive: true, force: true, maxRetries: 5 });
  };
};
