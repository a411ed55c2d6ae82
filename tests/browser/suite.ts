/** What the browser tests of one file share. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { beforeAll } from 'vitest';
import {
  type ChromiumWebDriver,
  eventually,
  find,
  findText,
  makeChart,
  openBrowser,
  pressKeys,
  seriousFaults,
  startServer,
  type TestServer,
  textOf,
  visit,
} from './harness';
import { throwAway } from './started';

/** What Chromium's pretended microphone hears, round and round: a WAV file that a test may write. */
export const HEARD = join(throwAway('heard'), 'heard.wav');

interface Running {
  readonly driver: ChromiumWebDriver;
  readonly server: TestServer;
}

/** One server and one browser for all files of a worker: a page whose scripts are known costs half. */
let shared: Promise<Running> | null = null;

async function start(): Promise<Running> {
  const driver = await openBrowser([
    '--use-fake-device-for-media-stream',
    '--use-fake-ui-for-media-stream',
    `--use-file-for-fake-audio-capture=${HEARD}`,
  ]);
  return { driver, server: await startServer() };
}

/** As if nothing had been before: the demo's data, a page that remembers nothing. */
async function afresh({ driver, server }: Running): Promise<void> {
  // The pages that are kept for use without the server are of another server's data from here on.
  await driver.get(`${server.url}/favicon.svg`);
  await driver.executeAsyncScript(
    `const done = arguments[arguments.length - 1];
     caches.delete('corvel-pages').then(done, done)`,
  );
  await driver.get('about:blank');
  await driver.sendDevToolsCommand('Storage.clearDataForOrigin', {
    origin: server.url,
    storageTypes: 'local_storage,indexeddb,cookies',
  });
  await driver.sendDevToolsCommand('Emulation.clearDeviceMetricsOverride', {});
  await driver.manage().window().setRect({ width: 1280, height: 800 });
  await server.reset();
}

/** A server with the demo's data, a browser, a folder of downloads, and the usual steps. */
export function suite() {
  const files = throwAway('files');
  let here: Running | null = null;

  beforeAll(async () => {
    const first = shared === null;
    shared ??= start();
    here = await shared;
    if (!first) await afresh(here);
    await here.driver.setDownloadPath(files);
  });

  const running = () => {
    if (!here) throw new Error('The suite is not set up yet.');
    return here;
  };
  const app = {
    files,
    get driver() {
      return running().driver;
    },
    get server() {
      return running().server;
    },
    get url() {
      return running().server.url;
    },
    find: (css: string) => find(running().driver, css),
    findText: (tag: string, text: string) => findText(running().driver, tag, text),
    textOf: (css: string) => textOf(running().driver, css),
    eventually: <T>(read: () => Promise<T>, holds: (value: T) => boolean) =>
      eventually(running().driver, read, holds),
    visit: (url: string) => visit(running().driver, url),
    press: (...keys: readonly string[]) => pressKeys(running().driver, ...keys),
    /** Presses an entry of the open menu, which may still be on its way. */
    choose: (item: string) =>
      eventually(
        running().driver,
        async () => {
          const [entry] = await running().driver.findElements(
            By.xpath(
              `//*[@role="menuitem"][normalize-space(text())=${JSON.stringify(item)} or normalize-space(.)=${JSON.stringify(item)}]`,
            ),
          );
          await entry?.click();
          return entry !== undefined;
        },
        (pressed) => pressed,
      ),
    /** Chooses from the menu in the head. */
    async menu(item: string): Promise<void> {
      await (await app.find('[data-menu]')).click();
      await app.choose(item);
    },
    /** Opens a leaf of the drawer under Plan's neck. */
    async leaf(name: 'scales' | 'change' | 'targets' | 'style'): Promise<void> {
      const button = await app.find(`[data-leaf="${name}"]`);
      if ((await button.getAttribute('aria-expanded')) !== 'true') await button.click();
      await app.find('#drawer');
    },
    /** Shows the answers of one school of choosing, in the drawer. */
    async school(lens: string): Promise<void> {
      await app.leaf('scales');
      const more = await app.find('[data-more-lenses]');
      if ((await more.getAttribute('aria-expanded')) !== 'true') await more.click();
      await (await app.find(`[data-lens="${lens}"]`)).click();
    },
    /** Takes the first answer of a school for this chord alone, and closes the drawer. */
    async take(lens: string): Promise<void> {
      await app.school(lens);
      await (
        await (await app.find('#drawer select')).findElement(By.css('option[value="chord"]'))
      ).click();
      await (await app.find(`[data-option-lens="${lens}"]`)).click();
      await (await app.find('[data-leaf="scales"]')).click();
      await running().driver.executeScript('document.activeElement.blur()');
    },
    /** Changes what the neck shows, in its menu. */
    async onNeck(change: () => Promise<unknown>): Promise<void> {
      await (await app.find('button[title="What the neck shows"]')).click();
      await app.find('[role="dialog"] select[name="labels"]');
      await change();
      await app.press(Key.ESCAPE);
      await app.eventually(
        () => running().driver.findElements(By.css('[role="dialog"]')),
        (open) => open.length === 0,
      );
    },
    /** Lays a shape over the notes, by its name in the neck's menu. */
    async tick(...names: readonly string[]): Promise<void> {
      await app.onNeck(async () => {
        for (const name of names)
          await (
            await running().driver.findElement(
              By.xpath(`//*[@role="dialog"]//label[contains(., ${JSON.stringify(name)})]/input`),
            )
          ).click();
      });
    },
    label: (labels: string): Promise<void> => app.onNeck(() => app.pick('labels', labels)),
    /** Keys while a modifier is held down. */
    held: (modifier: string, ...keys: readonly string[]) =>
      running()
        .driver.actions()
        .keyDown(modifier)
        .sendKeys(...keys)
        .keyUp(modifier)
        .perform(),
    /** Gives the page another size, and waits until it is laid out for it. */
    async resize(width: number, height: number): Promise<void> {
      await running().driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
        width,
        height,
        deviceScaleFactor: 1,
        mobile: false,
      });
      await running().driver.executeAsyncScript(
        `const done = arguments[0];
         requestAnimationFrame(() => requestAnimationFrame(() => done()));`,
      );
    },
    seriousFaults: () => seriousFaults(running().driver),
    makeChart: (text: string) => makeChart(running().server, text),
    /** Makes a chart and opens a screen of it, Plan if no other is named; Plan's address. */
    async openChart(text: string, screen = ''): Promise<string> {
      const address = `${running().server.url}/plan/${await app.makeChart(text)}`;
      await app.visit(address + screen);
      return address;
    },
    saved: () =>
      app.eventually(
        async () => (await app.find('[data-save-state]')).getAttribute('data-save-state'),
        (state) => state === 'saved',
      ),
    /** The bytes of a download, when it has come: its empty place is taken first. */
    async downloaded(name: RegExp): Promise<Buffer> {
      const found = () => readdirSync(files).find((file) => name.test(file));
      return app.eventually(
        () => Promise.resolve(readFileSync(join(files, found() ?? '/dev/null'))),
        (bytes) => bytes.length > 0,
      );
    },
    /** Chooses an option of a list by its field's name. */
    async pick(name: string, value: string): Promise<void> {
      const list = await app.find(`select[name="${name}"]`);
      await (await list.findElement(By.css(`option[value="${value}"]`))).click();
    },
    async openListening(): Promise<void> {
      await (await app.findText('button', 'Listen')).click();
      await app.find('[data-listen-sheet]');
    },
    /** Listens to an input; the simulated guitarist errs as he is told. */
    async listenTo(input: string, mistakes?: string): Promise<void> {
      await app.openListening();
      await app.pick('input', input);
      if (mistakes) await app.pick('mistakes', mistakes);
      // A choice that is already made is begun with the button.
      await running().driver
        .executeScript(`[...document.querySelectorAll('[data-listen-sheet] button')]
        .find((one) => one.textContent.trim() === 'Listen')?.click()`);
      await app.findText('button', 'Stop listening');
      await app.press(Key.ESCAPE);
      await app.eventually(
        () => running().driver.findElements(By.css('[data-listen-sheet]')),
        (open) => open.length === 0,
      );
    },
    /** The label of every mark on the neck that is of now, by string and fret. */
    labelsNow: (): Promise<Record<string, string>> =>
      running().driver.executeScript(
        `return Object.fromEntries([...document.querySelectorAll('[data-mark][data-now]')]
           .map((mark) => [mark.dataset.mark, document.querySelector('[data-label="' + mark.dataset.mark + '"]').textContent]))`,
      ),
  };
  return app;
}
