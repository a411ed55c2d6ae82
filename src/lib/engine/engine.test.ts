import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { describeEngine } from './openapi';
import { QUESTIONS } from './questions';

/** Asks as the route does, and checks the answer against its own schema. */
function ask(name: string, request: unknown): unknown {
  const question = QUESTIONS[name];
  if (!question) throw new Error(name);
  const result = question.ask(question.request.parse(request));
  if (!result.ok) return { error: result.error };
  return question.answer.parse(JSON.parse(JSON.stringify(result.value)));
}

const SAMPLE = `title: Tin Roof Tuesday
key: Eb
time: 4/4
tempo: 96
feel: swing
[A] x2
| Ebmaj7 | Cm7 | Fm7 Bb7 | % |
[B]
| Abmaj7 | Ab-6 Db9 | Gm7 C7b9 | Fm7 / Bb7 / |`;

describe('chart', () => {
  test('answers the form as played with everything about each chord', () => {
    const answer = ask('chart', { chart: SAMPLE });
    expect(answer).toMatchObject({
      title: 'Tin Roof Tuesday',
      key: { tonic: 'Eb', mode: 'major', confidence: 1, given: true },
      time: '4/4',
      tempo: 96,
      bars: 12,
    });
    const { chords } = answer as { chords: Record<string, unknown>[] };
    expect(chords).toHaveLength(19);
    expect(chords[16]).toEqual({
      index: 16,
      symbol: 'C7b9',
      root: 'C',
      quality: '7b9',
      notes: ['C', 'E', 'G', 'Bb', 'Db'],
      degrees: ['1', '3', '5', 'b7', 'b2'],
      definers: ['E', 'Bb'],
      bar: 11,
      beat: 42,
      beats: 2,
      roman: 'V7b9/ii',
      diatonic: false,
      role: 'secondary dominant of ii',
      cadence: expect.any(Number),
    });
  });

  test('a key in the request wins over the chart’s', () => {
    expect(ask('chart', { chart: 'key: C\n| F |', key: 'F' })).toMatchObject({
      key: { tonic: 'F', given: true },
      chords: [{ roman: 'I' }],
    });
  });

  test('says where a chart cannot be read', () => {
    expect(ask('chart', { chart: 'key: Eb\n| Ebmaj7 | Ebmja7 |' })).toEqual({
      error: {
        code: 'invalid_chart',
        message: '“mja7” after Eb is not a chord spelling Corvel knows.',
        line: 2,
        column: 12,
        token: 'Ebmja7',
      },
    });
    expect(ask('chart', { chart: '| C |', key: 'Q' })).toMatchObject({
      error: { code: 'invalid_request', path: 'key' },
    });
  });

  test('answers any text with a chart or a sentence', () => {
    const parts = fc.constantFrom(
      '|',
      'C',
      'Fm7b5',
      'G7alt',
      '%',
      '[A]',
      'N.C.',
      '/',
      'ii7',
      '\n',
      ':|',
      '|:',
      'Ebq',
    );
    fc.assert(
      fc.property(fc.array(parts, { maxLength: 20 }), (texts) => {
        const answer = ask('chart', { chart: texts.join(' ') }) as { error?: { message: string } };
        expect(answer.error === undefined || answer.error.message.length > 10).toBe(true);
      }),
    );
  });
});

test('the description is OpenAPI 3.1 with every question', () => {
  const description = describeEngine();
  expect(description.openapi).toBe('3.1.0');
  expect(Object.keys(description.paths)).toEqual(
    Object.keys(QUESTIONS).map((name) => `/api/engine/${name}`),
  );
  expect(JSON.stringify(description)).toContain('"confidence"');
});
