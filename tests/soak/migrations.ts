/** Kills in the midst of a first start of this version over a folder of each earlier one. */
import { rmSync } from 'node:fs';
import Database from 'libsql';
import { join } from 'node:path';
import { openDatabase } from '../../src/lib/server/database';
import { MIGRATIONS } from '../../src/lib/server/migrations';
import type { TestServer } from '../browser/harness';

const KEPT = 40;

/** A folder as an earlier version left it, with charts in it. */
async function leaveFolder(folder: string, versions: number): Promise<void> {
  for (const name of ['corvel.sqlite', 'corvel.sqlite-wal', 'corvel.sqlite-shm', 'backups'])
    rmSync(join(folder, name), { recursive: true, force: true });
  const some = Object.fromEntries(Object.entries(MIGRATIONS).slice(0, versions));
  const { close } = await openDatabase(folder, new Date(), some);
  close();
  const file = new Database(join(folder, 'corvel.sqlite'));
  const put = file.prepare(
    `insert into chart (id, title, text, plan, created_at, updated_at) values (?, ?, ?, '{}', ?, ?)`,
  );
  for (let chart = 0; chart < KEPT; chart++)
    put.run(`kept${chart}`, `Kept ${chart}`, `title: Kept ${chart}\n| C |`, '2026', '2026');
  file.close();
}

export interface MigrationResult {
  readonly kills: number;
  /** Starts after a kill that did not open the folder, and charts that were gone. */
  readonly closed: number;
  readonly lost: number;
}

/** Kills first starts at moments spread over the first `spread` milliseconds. */
export async function killInMigrations(
  server: TestServer,
  killsEach: number,
  spread = 700,
): Promise<MigrationResult> {
  const versions = Object.keys(MIGRATIONS).length;
  let [kills, closed, lost] = [0, 0, 0];
  for (let version = 1; version < versions; version++) {
    for (let kill = 0; kill < killsEach; kill++) {
      await server.kill('SIGKILL');
      await leaveFolder(server.data, version);
      const starting = server.restart().catch(() => undefined);
      await new Promise((resolve) =>
        setTimeout(resolve, 150 + ((kill * 7919 + version * 131) % spread)),
      );
      await server.kill('SIGKILL');
      await starting;
      await server.kill('SIGKILL');
      kills += 1;
      await server.restart();
      const book = await (await fetch(server.url)).text();
      if (book.includes('data-problem')) closed += 1;
      for (let chart = 0; chart < KEPT; chart++) if (!book.includes(`>Kept ${chart}<`)) lost += 1;
    }
  }
  return { kills, closed, lost };
}
