/** `npm run soak`: the long runs, one line each. `SOAK_ONLY=kills,archive` runs some of them. */
import { spawnSync } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  type ChromiumWebDriver,
  megabytesOf,
  openBrowser,
  startServer,
  type TestServer,
} from '../browser/harness';
import { archiveThere, fillBook } from './archive';
import { keepTime } from './clock';
import { useForLong } from './memory';
import { tryMutations } from './mutations';
import { killInMigrations } from './migrations';
import { editInTabs, flipBytes, generateRequests, killInBackups } from './runs';
import { useInTabs } from './tabs';
import { killInWrites, writeUnderLock, writeWithoutRoom } from './writes';

/** How long browsers are used; two hours when nothing is said. */
const MINUTES = Number(process.env['SOAK_MINUTES'] ?? 120);
const ONLY = process.env['SOAK_ONLY']?.split(',') ?? null;

const say = (what: string, found: unknown): void => {
  console.log(`${what}: ${JSON.stringify(found)}`);
};

async function withServer(work: (server: TestServer) => Promise<void>, data?: string) {
  const server = await startServer(data === undefined ? {} : { CORVEL_DATA: data });
  try {
    await work(server);
  } finally {
    await server.remove();
  }
}

async function withBrowsers(
  count: number,
  work: (server: TestServer, drivers: readonly ChromiumWebDriver[]) => Promise<void>,
) {
  await withServer(async (server) => {
    const drivers: ChromiumWebDriver[] = [];
    try {
      while (drivers.length < count) drivers.push(await openBrowser());
      await work(server, drivers);
    } finally {
      for (const driver of drivers) await driver.quit();
    }
  });
}

/** A disk of twenty megabytes, where this machine gives one; its folder is emptied, not removed. */
async function onSmallDisk(work: (folder: string) => Promise<void>): Promise<void> {
  const folder = join(tmpdir(), `corvel-small-${process.pid}`);
  mkdirSync(folder);
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=20m', 'tmpfs', folder]);
  try {
    if (mounted.status === 0) await work(folder);
    else say('a disk without room', 'not tried: a small disk cannot be mounted here');
  } finally {
    if (mounted.status === 0) spawnSync('umount', [folder]);
    rmSync(folder, { recursive: true, force: true });
  }
}

const RUNS: Readonly<Record<string, () => Promise<void>>> = {
  kills: () =>
    withServer(async (server) => {
      say('200 kills in every kind of write', await killInWrites(server, 200));
      say('every kind of write under a lock', await writeUnderLock(server, 2_000));
      say('40 kills during backups, broken backups', await killInBackups(server, 40));
    }),
  migrations: () =>
    withServer(async (server) =>
      say('60 kills in migrations from each version', await killInMigrations(server, 60)),
    ),
  room: () =>
    onSmallDisk((folder) =>
      withServer(
        async (server) => {
          const filler = join(folder, 'filler');
          const fill = () => {
            // What is left over of the disk, to its last block.
            for (let size = 4 * 2 ** 20; size >= 512; size /= 2)
              for (let again = true; again;)
                try {
                  writeFileSync(filler, new Uint8Array(size), { flag: 'a' });
                } catch {
                  again = false;
                }
          };
          say(
            'a disk without room',
            await writeWithoutRoom(server, fill, () => rmSync(filler, { force: true })),
          );
        },
        join(folder, 'data'),
      ),
    ),
  flips: () =>
    withServer(async (server) =>
      say('flipped bytes', await flipBytes(server, { header: 99, anywhere: 200 })),
    ),
  archive: () =>
    withServer((from) =>
      withServer(async (into) => {
        await from.kill('SIGTERM');
        fillBook(from.data, {
          charts: 5_000,
          licks: 500,
          stints: 10_000,
          takes: 60,
          sound: 2_500_000,
        });
        await from.restart();
        say('an archive of a large book, out and in', await archiveThere(from, into));
      }),
    ),
  requests: () =>
    withServer(async (server) => {
      const memory: number[] = [];
      for (let round = 0; round < 10; round++) {
        say('20,000 generated requests', await generateRequests(server.url, 20_000));
        memory.push(megabytesOf(server.pid()));
      }
      say('memory in MB after each', memory);
    }),
  memory: () =>
    withServer(async (server) =>
      say(`${MINUTES / 2} minutes of use`, await useForLong(server, MINUTES * 30, 12)),
    ),
  mutations: () => {
    const count = Number(process.env['SOAK_MUTATIONS'] ?? 100);
    const seed = Number(process.env['SOAK_SEED'] ?? Date.now() % 100_000);
    const where = process.env['SOAK_WHERE']?.split(',') ?? ['src/'];
    const found = tryMutations({ count, seed, where }, console.log);
    say(`${count} small changes, seed ${seed}`, found);
    return Promise.resolve();
  },
  clock: () =>
    withBrowsers(1, async (server, [driver]) => {
      if (driver) say('ten minutes of clicks', await keepTime(server, driver, 10));
    }),
  tabs: () =>
    withBrowsers(1, async (server, [driver]) => {
      if (driver)
        say(
          `${MINUTES / 2} minutes in two tabs`,
          await editInTabs(server, driver, MINUTES * 30_000),
        );
    }),
  browsers: () =>
    withBrowsers(2, async (server, drivers) =>
      say(
        `${MINUTES / 2} minutes in two browsers`,
        await useInTabs(server, drivers, MINUTES * 30_000),
      ),
    ),
};

for (const [name, run] of Object.entries(RUNS)) if (!ONLY || ONLY.includes(name)) await run();
