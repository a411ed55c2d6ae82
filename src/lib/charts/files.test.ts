import { describe, expect, test } from 'vitest';
import { chartFile, fileName, openChart } from './files';

const bytes = (text: string) => new TextEncoder().encode(text);
const TEXT = 'title: Harbour: Nine\nkey: G\ntime: 4/4\ntempo: 80\n| G6 | Am7 D7 |\n';

describe('opening', () => {
  test('chart text is taken as it is', async () => {
    expect(await openChart(bytes(TEXT))).toEqual({ ok: true, chart: { text: TEXT, remarks: [] } });
  });

  test('text that cannot be read yet is kept, with what is wrong in it', async () => {
    const opened = await openChart(bytes('| G6 | Hm7 |'));
    expect(opened).toMatchObject({ ok: true, chart: { text: '| G6 | Hm7 |' } });
    expect(opened.ok && opened.chart.remarks[0]).toContain('Line 1, column 8');
  });

  test.each([
    ['nothing', '  \n'],
    ['a picture', '\u0089PNG\r\n\u001a\n\u0000\u0000'],
    ['a page', '<html><body>| C |</body></html>'],
  ])('%s is refused in a sentence', async (_, content) => {
    const opened = await openChart(bytes(content));
    expect(opened.ok).toBe(false);
    expect(!opened.ok && opened.message.endsWith('.')).toBe(true);
  });
});

describe('saving', () => {
  test.each(['text', 'musicxml', 'compressed'] as const)('as %s it opens again', async (kind) => {
    const file = await chartFile(TEXT, kind);
    const opened = file && (await openChart(new Uint8Array(await file.arrayBuffer())));
    expect(opened?.ok && opened.chart.text).toBe(TEXT);
  });

  test('a chart that cannot be read makes no score, but still a text', async () => {
    expect(await chartFile('| Hm7 |', 'musicxml')).toBeNull();
    expect((await chartFile('| Hm7 |', 'text'))?.size).toBe(7);
  });

  test('files are named for the chart', () => {
    expect(fileName(TEXT, 'mxl')).toBe('Harbour Nine.mxl');
    expect(fileName('title: ///\n| C |', 'txt')).toBe('Untitled.txt');
  });
});
