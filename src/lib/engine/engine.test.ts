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

describe('collections', () => {
  test('by name: spelling, parent, modes, relations and the chords inside', () => {
    expect(ask('collections', { name: 'Db lydian dominant' })).toMatchObject({
      root: 'Db',
      collection: 'lydian dominant',
      notes: ['Db', 'Eb', 'F', 'G', 'Ab', 'Bb', 'Cb'],
      degrees: ['1', '2', '3', '#4', '5', '6', 'b7'],
      parent: { root: 'Ab', collection: 'melodic minor' },
      triads: expect.arrayContaining(['Db', 'Eb', 'Fdim', 'Gdim', 'Abm', 'Bbm', 'Cbaug']),
      sevenths: expect.arrayContaining(['Db7', 'Eb7', 'Abm(maj7)', 'Gm7b5']),
    });
    expect(ask('collections', { name: 'Cb melodic minor' })).toMatchObject({
      easier: { root: 'B', collection: 'melodic minor' },
    });
    expect(ask('collections', { name: 'C minor pentatonic' })).toMatchObject({
      relative: { root: 'Eb', collection: 'major pentatonic' },
    });
  });

  test('by notes: all that hold them, smallest first', () => {
    const { collections } = ask('collections', { notes: ['C', 'E', 'G', 'B'], root: 'C' }) as {
      collections: { root: string; collection: string; notes: string[] }[];
    };
    expect(collections.map(({ collection }) => collection).slice(0, 3)).toEqual([
      'ionian',
      'lydian',
      'lydian #2',
    ]);
    expect(
      collections.every(({ notes }) => ['C', 'E', 'G', 'B'].every((n) => notes.includes(n))),
    ).toBe(true);
    const sizes = collections.map(({ notes }) => notes.length);
    expect(sizes).toEqual(sizes.toSorted((a, b) => a - b));
  });

  test('what it does not know it says', () => {
    expect(ask('collections', { name: 'Eb wobbly' })).toMatchObject({
      error: { code: 'unknown_collection' },
    });
    expect(ask('collections', { notes: ['C', 'H'] })).toMatchObject({
      error: { code: 'invalid_request', path: 'notes.1' },
    });
  });

  test('every collection on every root uses each letter as its degrees say', () => {
    for (const name of ['ionian', 'dorian b2', 'altered', 'harmonic major', 'minor pentatonic']) {
      for (const root of ['Cb', 'F#', 'G#', 'Bb', 'E#']) {
        const { notes, degrees } = ask('collections', { name: `${root} ${name}` }) as {
          notes: string[];
          degrees: string[];
        };
        const letters = notes.map((note) => 'CDEFGAB'.indexOf(note.charAt(0)));
        const from = letters[0] ?? 0;
        expect(letters.map((letter) => ((letter - from + 7) % 7) + 1)).toEqual(
          degrees.map((degree) => Number(degree.replace(/\D/gu, ''))),
        );
      }
    }
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
