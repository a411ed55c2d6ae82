import { openBrowser, startServer } from '../browser/harness';
import { pageFigures } from './page';
import { printRow } from './report';
const server = await startServer();
try {
  const driver = await openBrowser();
  try {
    for await (const figure of pageFigures(driver, server)) printRow(figure);
  } finally {
    await driver.quit();
  }
} finally {
  await server.remove();
}
