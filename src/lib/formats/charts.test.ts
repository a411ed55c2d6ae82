import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { z } from 'zod';
import { EMPTY_PLAN, readPlan, writePlan } from '$lib/study/plan';
import { DEFAULT_VIEW } from '$lib/study/view';
import { chartFile, chartFileName, openChart } from './charts';
import { documentSchema } from './chartJson';

const bytes = (text: string) => new TextEncoder().encode(text);
const TEXT = 'title: Harbour: Nine\nkey: G\ntime: 4/4\ntempo: 80\n| G6 | Am7 D7 |\n';

describe('opening', () => {
  test('chart text is taken as it is', async () => {
    expect(await openChart(bytes(TEXT))).toEqual({
      ok: true,
      chart: { text: TEXT, plan: null, view: null, remarks: [] },
    });
  });

  test('text that cannot be read yet is kept, with what is wrong in it', async () => {
    const opened = await openChart(bytes('| G6 | Xm7 |'));
    expect(opened).toMatchObject({ ok: true, chart: { text: '| G6 | Xm7 |' } });
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

describe('a chart with its plan as JSON', () => {
  const plan = writePlan({
    ...EMPTY_PLAN,
    choices: { '0': { lens: 'mode', name: 'G lydian', then: null } },
    intents: { '1': 'outline' },
    preferred: ['mode'],
  });

  test('comes back with every choice', async () => {
    const file = await chartFile({ text: TEXT, plan, view: DEFAULT_VIEW }, 'json');
    const opened = file && (await openChart(new Uint8Array(await file.arrayBuffer())));
    expect(opened).toEqual({
      ok: true,
      chart: { text: TEXT, plan, view: DEFAULT_VIEW, remarks: [] },
    });
  });

  test('whose plan is unreadable still gives its text, and says so', async () => {
    const file = { format: 'corvel-chart', version: 2, text: TEXT, plan: { choices: 5 } };
    const opened = await openChart(bytes(JSON.stringify(file)));
    expect(opened.ok && opened.chart.text).toBe(TEXT);
    expect(opened.ok && opened.chart.plan).toBeNull();
    expect(opened.ok && opened.chart.remarks).toHaveLength(2);
  });

  test.each([
    ['broken off', '{"format": "corvel-ch'],
    ['another’s', '{"title": "x"}'],
  ])('%s is refused in a sentence', async (_, content) => {
    const opened = await openChart(bytes(content));
    expect(!opened.ok && opened.message.endsWith('.')).toBe(true);
  });

  test('is what docs/corvel-chart.schema.json describes', () => {
    const described: unknown = JSON.parse(readFileSync('docs/corvel-chart.schema.json', 'utf8'));
    expect(described).toEqual(z.toJSONSchema(documentSchema, { io: 'input' }));
  });
});

describe('saving', () => {
  test.each(['text', 'json', 'musicxml', 'compressed'] as const)(
    'as %s it opens again',
    async (kind) => {
      const file = await chartFile({ text: TEXT, plan: '{}', view: DEFAULT_VIEW }, kind);
      const opened = file && (await openChart(new Uint8Array(await file.arrayBuffer())));
      expect(opened?.ok && opened.chart.text).toBe(TEXT);
    },
  );

  test('a chart that cannot be read makes no score, but still a text', async () => {
    expect(
      await chartFile({ text: '| Xm7 |', plan: '{}', view: DEFAULT_VIEW }, 'musicxml'),
    ).toBeNull();
    expect(
      (await chartFile({ text: '| Xm7 |', plan: '{}', view: DEFAULT_VIEW }, 'text'))?.size,
    ).toBe(7);
  });

  test('files are named for the chart', () => {
    expect(chartFileName(TEXT, 'mxl')).toBe('Harbour Nine.mxl');
    expect(chartFileName('title: ///\n| C |', 'txt')).toBe('Untitled.txt');
  });
});

describe('a chart with its melody', () => {
  const melody = [
    { beat: 0, beats: 1.5, string: 2, fret: 3, techniques: [] },
    {
      beat: 2,
      beats: 1,
      string: 2,
      fret: 5,
      techniques: [{ kind: 'bend' as const, by: 2 as const }],
    },
    { beat: 4, beats: 2, string: 1, fret: 2, techniques: [] },
  ];
  const plan = writePlan({ ...EMPTY_PLAN, melody });

  test.each(['json', 'musicxml', 'compressed'] as const)(
    'comes back whole from %s',
    async (format) => {
      const file = await chartFile({ text: TEXT, plan, view: DEFAULT_VIEW }, format);
      const opened = await openChart(
        new Uint8Array((await file?.arrayBuffer()) ?? new ArrayBuffer(0)),
      );
      if (!opened.ok) throw new Error(opened.message);
      expect(readPlan(opened.chart.plan ?? '{}').melody).toEqual(melody);
      expect(opened.chart.text).toContain('| G6 | Am7 D7 |');
    },
  );

  test('without one a score keeps its repeats and brings none back', async () => {
    const text = 'key: G\n|: G6 | Am7 :|\n';
    const file = await chartFile({ text, plan: '{}', view: DEFAULT_VIEW }, 'musicxml');
    const opened = await openChart(bytes((await file?.text()) ?? ''));
    expect(opened).toMatchObject({ ok: true, chart: { plan: null } });
  });
});
