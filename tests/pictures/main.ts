/** Takes every picture of docs/screenshots: one current picture of each main view. */
import { writeFileSync } from 'node:fs';
import { By, until } from 'selenium-webdriver';
import { type ChromiumWebDriver, openBrowser, startServer, visit } from '../browser/harness';

interface Picture {
  readonly name: string;
  /** The demo chart it shows on Plan; the Book when left out. */
  readonly chart?: string;
  /** A screen that is no chart's. */
  readonly screen?: 'licks' | 'log' | 'drills';
  /** The page of the chart; Plan itself when left out. */
  readonly page?: 'shapes' | 'region' | 'practice' | 'play';
  /** What is clicked before the picture is taken, one after another. */
  readonly clicks?: readonly string[];
  /** What follows the address. */
  readonly place?: string;
  readonly size?: readonly [width: number, height: number];
  readonly theme?: 'light' | 'dark';
  /** Milliseconds until what plays is where the picture wants it. */
  readonly wait?: number;
  /** Whether the simulated guitarist is listened to. */
  readonly listens?: boolean;
  /** Keys pressed before the picture is taken. */
  readonly keys?: readonly string[];
}

const PICTURES: readonly Picture[] = [
  { name: 'book' },
  { name: 'plan', chart: 'Ferry at Half Past', place: '?at=2' },
  {
    name: 'plan-lenses',
    chart: 'Locksmith Waltz',
    place: '?at=4',
    clicks: [
      ...['[data-leaf="scales"]', '[data-more-lenses]', '[data-lens="mode"]'],
      ...['button[title^="Compare it"]', '[data-option="C# altered"]'],
    ],
  },
  {
    name: 'plan-targets',
    chart: 'Ferry at Half Past',
    place: '?at=5&zone=3-6',
    clicks: ['[data-leaf="targets"]'],
  },
  { name: 'practice', chart: 'Gravel Road Receipt', page: 'practice', place: '?at=1&zone=2-5' },
  { name: 'plan-dark', chart: 'Locksmith Waltz', place: '?at=2', theme: 'dark' },
  { name: 'plan-bars', chart: 'Paper Lantern Parade', place: '?at=1&edit=bars', keys: ['G', 'm'] },
  {
    name: 'plan-layers',
    chart: 'Slow Tide Counting',
    place: '?at=1&zone=2-5',
    clicks: [
      'button[title="What the neck shows"]',
      ...['Scale position', 'Triad', 'Grip'].map((name) => `//label[contains(., "${name}")]/input`),
    ],
  },
  { name: 'plan-zones', chart: 'Paper Lantern Parade', place: '?at=1&zone=3-6', keys: ['z'] },
  { name: 'shapes', chart: 'Ferry at Half Past', page: 'shapes', place: '?at=1' },
  { name: 'region', chart: 'Paper Lantern Parade', page: 'region', place: '?zone=3-6' },
  {
    name: 'play',
    chart: 'Ferry at Half Past',
    page: 'play',
    place: '?at=2&zone=3-6',
    keys: [' '],
    wait: 4_700,
  },
  {
    name: 'play-dark',
    chart: 'Locksmith Waltz',
    page: 'play',
    place: '?at=2',
    theme: 'dark',
    keys: [' ', 'o'],
    wait: 4_000,
  },
  {
    name: 'play-phone',
    chart: 'Gravel Road Receipt',
    page: 'play',
    place: '?at=2',
    size: [360, 740],
    keys: [' '],
    wait: 4_000,
  },
  {
    name: 'licks',
    screen: 'licks',
    keys: [],
    clicks: ['[data-lick="iiø–V–i: land on the sixth of Am6"]'],
  },
  { name: 'log', screen: 'log', keys: [] },
  { name: 'drill', screen: 'drills', clicks: ['[data-mark="3-3"]', '[data-mark="2-4"]'] },
  {
    name: 'listening',
    chart: 'Ferry at Half Past',
    page: 'play',
    place: '?at=1&zone=3-6',
    listens: true,
    keys: [' '],
    wait: 14_000,
  },
  { name: 'plan-phone', chart: 'Gravel Road Receipt', place: '?at=2', size: [360, 740] },
];

/** Listens to the simulated guitarist. */
const LISTEN = `
  const [done] = arguments;
  const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
  (async () => {
    [...document.querySelectorAll('button')].find((one) => one.textContent.trim() === 'Listen').click();
    await wait(1_200);
    const list = document.querySelector('[name=input]');
    list.value = 'simulated';
    list.dispatchEvent(new Event('change', { bubbles: true }));
    await wait(1_200);
    list.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
    await wait(300);
  })().then(done);`;

async function addressOf(driver: ChromiumWebDriver, base: string, title: string): Promise<string> {
  await visit(driver, base);
  return (await driver.findElement(By.linkText(title)).getAttribute('href')) ?? base;
}

async function take(driver: ChromiumWebDriver, base: string, picture: Picture): Promise<void> {
  const [width, height] = picture.size ?? [1280, 800];
  const metrics = { width, height, deviceScaleFactor: 1, mobile: width < 500 };
  await driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', metrics);
  const features = [
    { name: 'prefers-color-scheme', value: picture.theme ?? 'light' },
    { name: 'prefers-reduced-motion', value: 'reduce' },
  ];
  await driver.sendDevToolsCommand('Emulation.setEmulatedMedia', { features });
  const own = picture.screen ? `${base}/${picture.screen}` : base;
  const chart = picture.chart ? await addressOf(driver, base, picture.chart) : own;
  const page = picture.page ? `${chart}/${picture.page}` : chart;
  await visit(driver, page + (picture.place ?? ''));
  if (picture.listens) await driver.executeAsyncScript(LISTEN);
  for (const key of picture.keys ?? []) await driver.actions().sendKeys(key).perform();
  for (const where of picture.clicks ?? []) {
    const found = where.startsWith('//') ? By.xpath(where) : By.css(where);
    await driver.wait(until.elementLocated(found), 5_000);
    await driver.findElement(found).click();
  }
  await driver.executeAsyncScript(
    'const done = arguments[0]; document.fonts.ready.then(() => setTimeout(done, 900));',
  );
  if (picture.wait) await driver.executeAsyncScript(`setTimeout(arguments[0], ${picture.wait})`);
  writeFileSync(`docs/screenshots/${picture.name}.png`, await driver.takeScreenshot(), 'base64');
}

const server = await startServer();
const driver = await openBrowser();
try {
  for (const picture of PICTURES) await take(driver, server.url, picture);
} finally {
  await driver.quit();
  await server.remove();
}
