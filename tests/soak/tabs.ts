/** Licks, drills, log and stage used in browsers while the server is stopped and started. */
import { join } from 'node:path';
import Database from 'libsql';
import { Key } from 'selenium-webdriver';
import {
  type ChromiumWebDriver,
  eventually,
  find,
  makeChart,
  type TestServer,
  untilKept,
  visit,
} from '../browser/harness';
import { send } from './writes';

export interface UsedResult {
  readonly turns: number;
  readonly stops: number;
  /** What was done, and how much of it is not there at the end. */
  readonly done: Readonly<Record<'words' | 'answers' | 'stints', number>>;
  readonly lost: Readonly<Record<'words' | 'answers' | 'stints', number>>;
}

/** What one browser works on. */
interface Player {
  readonly driver: ChromiumWebDriver;
  readonly lick: string;
  readonly chart: string;
  readonly words: string[];
}

const count = (server: TestServer, query: string): number => {
  const file = new Database(join(server.data, 'corvel.sqlite'), { readonly: true });
  const row = file.prepare(query).get() as { count: number | null };
  file.close();
  return row.count ?? 0;
};
const answersIn = (server: TestServer) => count(server, 'select sum(seen) as count from card');
const stintsIn = (server: TestServer) =>
  count(server, 'select count(*) as count from stint where deleted_at is null');

/** Writes another word over the last one, which must be there still; whether it was. */
const writeWord = async (server: TestServer, player: Player, turn: number): Promise<boolean> => {
  const word = `w${turn}`;
  const last = player.words.at(-1);
  await visit(player.driver, `${server.url}/licks/${player.lick}`);
  const words = await find(player.driver, '[data-lick-words]');
  if ((await words.getAttribute('aria-expanded')) !== 'true') await words.click();
  const field = await find(player.driver, 'input[name="source"]');
  const found = last === undefined || (await field.getAttribute('value')) === last;
  // The field holds few letters: what is written stands alone in it.
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), word);
  player.words.push(word);
  // What is half a second old must outlive anything.
  await player.driver.sleep(500);
  return found;
};

const answerCard = async (server: TestServer, { driver }: Player): Promise<number> => {
  await visit(driver, `${server.url}/drills`);
  const there = await driver.executeScript<boolean>(
    `return document.querySelector('[data-card]') !== null`,
  );
  if (!there) return 0;
  const key = await driver.executeScript<string>(
    `const choices = document.querySelector('[aria-label="Answers"] kbd');
     return choices ? choices.textContent : 'Enter'`,
  );
  const body = await find(driver, 'body');
  await body.sendKeys(key === 'Enter' ? Key.ENTER : key.toLowerCase());
  await find(driver, '[data-answer]');
  return 1;
};

const addStint = async (server: TestServer, { driver }: Player): Promise<number> => {
  await visit(driver, `${server.url}/log`);
  await driver.executeScript(
    `[...document.querySelectorAll('button')].find((one) => one.textContent.includes('Add by hand')).click()`,
  );
  await (await find(driver, 'form [name="bpm"]')).sendKeys(Key.ENTER);
  await eventually(
    driver,
    () =>
      driver.executeScript<boolean>(`return document.querySelector('form [name="bpm"]') === null`),
    (closed) => closed,
  );
  return 1;
};

const playAWhile = async (server: TestServer, { driver, chart }: Player): Promise<number> => {
  await visit(driver, `${server.url}/plan/${chart}/play?at=0`);
  await driver.executeScript(`const now = performance.now.bind(performance);
    window.later = 0;
    performance.now = () => now() + window.later;
    [...document.querySelectorAll('button')].find((one) => one.textContent.trim().startsWith('Play')).click();`);
  await find(driver, '[data-pass]');
  await driver.executeScript('window.later += 40_000');
  await (await find(driver, 'body')).sendKeys('9');
  await find(driver, '[data-kept-stint]');
  await (await find(driver, 'body')).sendKeys(' ');
  return 1;
};

/** Uses everything in turn; the server goes and comes in between. */
export async function useInTabs(
  server: TestServer,
  drivers: readonly ChromiumWebDriver[],
  milliseconds: number,
): Promise<UsedResult> {
  const players: Player[] = [];
  for (const driver of drivers) {
    const lick = { title: 'Soaked', tags: [], source: 'mine', chart: '| Dm7 | G7 |', notes: [] };
    const made = await send(`${server.url}/api/licks`, 'POST', lick);
    const { id } = (await made.json()) as { id: string };
    const chart = await makeChart(server, 'title: Soaked\ntempo: 200\n| Dm7 | G7 |');
    const player = { driver, lick: id, chart, words: [] };
    players.push(player);
    // Kept for use without the server.
    for (const path of [`/licks/${id}`, '/drills', '/log', `/plan/${chart}/play`]) {
      await visit(driver, server.url + path);
      await untilKept(driver);
    }
  }
  const before = { answers: answersIn(server), stints: stintsIn(server) };
  const done = { words: 0, answers: 0, stints: 0 };
  let [stops, turn, lostWords] = [0, 0, 0];
  let up = true;
  const until = Date.now() + milliseconds;
  for (; Date.now() < until; turn++) {
    const player = players[turn % players.length] as Player;
    switch (Math.floor(turn / players.length) % 4) {
      case 0:
        lostWords += (await writeWord(server, player, turn)) ? 0 : 1;
        done.words += 1;
        break;
      case 1:
        // A card is answered once each time it is dealt: two browsers without a server are dealt the same.
        if (player === players[0]) done.answers += await answerCard(server, player);
        break;
      case 2:
        done.stints += await addStint(server, player);
        break;
      default:
        done.stints += await playAWhile(server, player);
    }
    if (turn % 7 === 3 && up) {
      await server.kill(turn % 2 === 0 ? 'SIGTERM' : 'SIGKILL');
      up = false;
      stops += 1;
    } else if (turn % 7 === 6 && !up) {
      await server.restart();
      up = true;
    }
  }
  if (!up) await server.restart();
  for (const { driver, lick, words } of players) {
    await visit(driver, `${server.url}/licks/${lick}`);
    await eventually(
      driver,
      () =>
        driver.executeScript<boolean>(
          `return document.querySelector('[data-save]').dataset.save === 'saved' &&
             !Object.keys(localStorage).some((key) => key.startsWith('corvel:out:'))`,
        ),
      (sent) => sent,
    );
    const kept = (await (await fetch(`${server.url}/api/licks/${lick}`)).json()) as {
      source: string;
    };
    lostWords += kept.source === (words.at(-1) ?? 'mine') ? 0 : 1;
  }
  return {
    turns: turn,
    stops,
    done,
    lost: {
      words: lostWords,
      answers: done.answers - (answersIn(server) - before.answers),
      stints: done.stints - (stintsIn(server) - before.stints),
    },
  };
}
