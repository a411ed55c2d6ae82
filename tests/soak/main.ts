/** `npm run soak`: the long runs, one line each. */
import { readFileSync } from 'node:fs';
import { openBrowser, startServer } from '../browser/harness';
import { editInTabs, flipBytes, generateRequests, killInBackups, killInBursts } from './runs';

/** How long the two tabs are typed into; two hours when nothing is said. */
const MINUTES = Number(process.env['SOAK_MINUTES'] ?? 120);

const say = (what: string, found: unknown): void => {
  console.log(`${what}: ${JSON.stringify(found)}`);
};

const megabytes = (pid: number): number =>
  Math.round(
    Number(/VmRSS:\s+(\d+)/u.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024,
  );

const server = await startServer();
try {
  say('200 kills in bursts', await killInBursts(server, 200));
  say('40 kills during backups, broken backups', await killInBackups(server, 40));
  say('120 flipped bytes', await flipBytes(server, 120));
  const memory: number[] = [];
  for (let round = 0; round < 10; round++) {
    say('10,000 generated requests', await generateRequests(server.url, 10_000));
    memory.push(megabytes(server.pid()));
  }
  say('memory in MB after each', memory);
  const driver = await openBrowser();
  try {
    say(`${MINUTES} minutes in two tabs`, await editInTabs(server, driver, MINUTES * 60_000));
  } finally {
    await driver.quit();
  }
} finally {
  await server.remove();
}
