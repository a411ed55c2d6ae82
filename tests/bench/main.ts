/** The benchmarks of `npm run bench`, one row a figure. */
import { startServer } from '../browser/harness';
import { coreFigures } from './core';
import { heardFigures } from './heard';
import { lineFigures } from './lines';
import { listeningFigures } from './listening';
import { pageFigures } from './page';
import { printRow, processorTimes } from './report';
import { serverFigures } from './server';

const before = processorTimes();
for (const figure of coreFigures()) printRow(figure);
for (const figure of lineFigures()) printRow(figure);
for (const figure of heardFigures()) printRow(figure);
for (const figure of listeningFigures()) printRow(figure);

const server = await startServer();
try {
  for await (const figure of serverFigures(server)) printRow(figure);
  for await (const figure of pageFigures(server)) printRow(figure);
} finally {
  await server.remove();
}

const after = processorTimes();
if (before && after) {
  const busy = after.busy - before.busy;
  const value = (100 * (after.stolen - before.stolen)) / Math.max(1, busy);
  printRow({ what: 'processor time this machine was denied meanwhile', value, unit: '%' });
}
