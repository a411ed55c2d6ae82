/** The band's clock, over minutes: every click where its beat is, and none handed over too late. */
import { By } from 'selenium-webdriver';
import {
  type ChromiumWebDriver,
  find,
  findText,
  makeChart,
  pressKeys,
  type TestServer,
  visit,
} from '../browser/harness';

const BPM = 173;

export interface ClockResult {
  readonly clicks: number;
  /** Beats without a click. */
  readonly missing: number;
  /** Clicks that were handed over when their moment was past: the page was held up. */
  readonly late: number;
  /** How far the others are from their beats at the most, in milliseconds. */
  readonly farthest: number;
}

/** Plays on the stage, and writes down when each click is to sound. */
export async function keepTime(
  server: TestServer,
  driver: ChromiumWebDriver,
  minutes: number,
): Promise<ClockResult> {
  const chart = await makeChart(server, `title: Clock\ntempo: ${BPM}\n| Dm7 | G7 | Cmaj7 | A7 |`);
  await visit(driver, `${server.url}/plan/${chart}/play?at=0`);
  await pressKeys(driver, 'o');
  await (
    await (await find(driver, '[name="click"]')).findElement(By.css('[value="every beat"]'))
  ).click();
  await pressKeys(driver, '\uE00C');
  await driver.executeScript(`window.clicks = [];
    const start = OscillatorNode.prototype.start;
    OscillatorNode.prototype.start = function (at, ...rest) {
      window.clicks.push([at, at - this.context.currentTime]);
      return start.call(this, at, ...rest);
    };`);
  await (await findText(driver, 'button', 'Play')).click();
  await find(driver, '[data-pass]');
  await driver.sleep(minutes * 60_000);
  const clicks = await driver.executeScript<[number, number][]>('return window.clicks');
  // The count before it is slower at first.
  const counted = clicks.slice(8);
  const first = counted[0]?.[0] ?? 0;
  const beat = 60 / BPM;
  const beats = counted.map(([at]) => (at - first) / beat);
  const inTime = beats.filter((_, index) => (counted[index]?.[1] ?? 0) > 0.001);
  const away = inTime.map((one) => Math.abs(one - Math.round(one)) * beat);
  return {
    clicks: counted.length,
    missing: Math.round(beats.at(-1) ?? 0) + 1 - new Set(beats.map(Math.round)).size,
    late: counted.length - inTime.length,
    farthest: Math.round(1e6 * Math.max(...away)) / 1e3,
  };
}
