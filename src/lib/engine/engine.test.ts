import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import wavefile from 'wavefile';
import { transposeChart } from '$core/chart/rewrite';
import { EXERCISES } from 'corvel-core';
import { note, pitchClass } from '$core/notes/notes';
import { describeEngine } from './openapi';
import { QUESTIONS } from './questions';
import { pairs, runs, some } from '$tests/laws';

/** Asks as the route does, and checks the answer against its own schema. */
function ask(name: string, request: unknown): unknown {
  const question = QUESTIONS[name];
  if (!question) throw new Error(name);
  const result = question.ask(question.request.parse(request));
  if (result instanceof Promise) throw new Error(`${name} answers later`);
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
      guideTones: ['E', 'Bb'],
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

describe('laws of reading', () => {
  const symbol = fc
    .tuple(
      fc.constantFrom('C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'),
      fc.constantFrom(
        '',
        'm',
        '7',
        'maj7',
        'm7',
        'm7b5',
        'dim7',
        '7b9',
        '7alt',
        'm6',
        '9',
        'sus4',
        '6/9',
      ),
    )
    .map((parts) => parts.join(''));
  const bars = fc.array(fc.array(symbol, { minLength: 1, maxLength: 3 }), {
    minLength: 1,
    maxLength: 16,
  });
  const textOf = (key: string, of: readonly (readonly string[])[]) =>
    `key: ${key}\n| ${of.map((bar) => bar.join(' ')).join(' | ')} |`;

  interface Answer {
    chords: {
      notes: string[];
      degrees: string[];
      roman: string;
      diatonic: boolean;
      role?: string;
    }[];
    cadences: { kind: string; from: number; to: number }[];
    form: string | null;
  }

  test('numerals, roles and cadences are the same in every key', () => {
    fc.assert(
      fc.property(
        bars,
        fc.constantFrom('Db', 'F', 'A', 'Eb', 'G', 'B'),
        fc.boolean(),
        (music, to, minor) => {
          const home = textOf(minor ? 'Cm' : 'C', music);
          const moved = transposeChart(home, note('C'), note(to)) ?? '';
          const said = (answer: Answer) => ({
            chords: answer.chords.map(({ degrees, roman, diatonic, role }) => ({
              degrees,
              roman,
              diatonic,
              role,
            })),
            cadences: answer.cadences.map(({ kind, from, to: last }) => [kind, from, last]),
            form: answer.form,
          });
          const [here, there] = [home, moved].map((chart) => ask('chart', { chart }) as Answer);
          expect(there && said(there)).toEqual(here && said(here));
        },
      ),
      runs(200),
    );
  });

  test('a root spelled the convenient way is read as the other is', () => {
    const OTHER: Readonly<Record<string, string>> = {
      C: 'B#',
      Db: 'C#',
      Eb: 'D#',
      E: 'Fb',
      F: 'E#',
      'F#': 'Gb',
      Ab: 'G#',
      Bb: 'A#',
      B: 'Cb',
    };
    const respelled = (symbol: string) =>
      symbol.replace(/^[A-G][b#]?/u, (root) => OTHER[root] ?? root);
    // Between two degrees of the key the spelling decides which of them is raised or lowered.
    const between = (words = '') => words.replace(/[#b][IViv]+/gu, 'between');
    const said = ({ chords, cadences, form }: Answer) => ({
      chords: chords.map(({ roman, diatonic, role, degrees }) => ({
        diatonic,
        degrees,
        role: between(role),
        roman: between(roman),
      })),
      cadences: cadences.map(({ kind, from, to }) => [kind, from, to]),
      form,
    });
    fc.assert(
      fc.property(bars, fc.constantFrom('C', 'E', 'Ab', 'F#', 'Am', 'Ebm'), (music, key) => {
        const [here, there] = [music, music.map((bar) => bar.map(respelled))].map(
          (of) => ask('chart', { chart: textOf(key, of) }) as Answer,
        );
        expect(there && said(there)).toEqual(here && said(here));
      }),
      runs(120),
    );
  });

  test('what may be played, and how it reads over the chord, is the same in every key', () => {
    interface Options {
      chord: { root: string };
      options: { lens: string; collection: string; root: string; degrees: string[] }[];
    }
    const said = (chart: string, index: number) => {
      const { chord, options } = ask('options', { chart, index }) as Options;
      return options.map(({ lens, collection, root, degrees }) => {
        const above = (pitchClass(note(root)) - pitchClass(note(chord.root)) + 12) % 12;
        return `${lens}: ${collection} ${above} above: ${degrees.join(' ')}`;
      });
    };
    fc.assert(
      fc.property(
        bars,
        fc.constantFrom('Db', 'D', 'Eb', 'E', 'F', 'F#', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'),
        fc.nat({ max: 15 }),
        (music, to, which) => {
          const home = textOf('C', music);
          const moved = transposeChart(home, note('C'), note(to)) ?? '';
          const index = which % music.length;
          expect(said(moved, index).sort()).toEqual(said(home, index).sort());
        },
      ),
      runs(120),
    );
  });

  test('every note is the letter its degree says above the root', () => {
    fc.assert(
      fc.property(bars, (music) => {
        const { chords } = ask('chart', { chart: textOf('C', music) }) as Answer;
        for (const { notes, degrees } of chords) {
          const letters = notes.map((name) => 'CDEFGAB'.indexOf(name.charAt(0)));
          const steps = letters.map((letter) => ((letter - (letters[0] ?? 0) + 7) % 7) + 1);
          expect(steps).toEqual(degrees.map((degree) => Number(degree.replace(/\D/gu, ''))));
        }
      }),
      runs(120),
    );
  });

  test('the key that is heard moves with the chords', () => {
    const tonicOf = (chart: string) => {
      const { key } = ask('chart', { chart: chart.replace(/^key:.*\n/u, '') }) as {
        key: { tonic: string | null; mode: string | null };
      };
      return key.tonic === null ? null : [pitchClass(note(key.tonic)), key.mode];
    };
    fc.assert(
      fc.property(bars, fc.constantFrom('D', 'F', 'Bb', 'E'), (music, to) => {
        const home = textOf('C', music);
        const here = tonicOf(home);
        const there = tonicOf(transposeChart(home, note('C'), note(to)) ?? '');
        const expected = here && [(Number(here[0]) + pitchClass(note(to))) % 12, here[1]];
        expect(there).toEqual(expected);
      }),
      runs(120),
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

describe('the neck', () => {
  test('round the third fret in E flat all the changes lie under one hand', () => {
    const chart = 'key: Eb\n| Eb | Ab | Bb |';
    const { zones } = ask('zones', { chart, zone: { low: 3, high: 6 } }) as {
      zones: { chords: { name: string; box: { major: number }; outside: unknown[] }[] }[];
    };
    const [zone] = zones;
    expect(zone?.chords.map(({ name, box }) => `${name} ${box.major}`)).toEqual([
      'Eb major pentatonic 3',
      'Ab major pentatonic 1',
      'Bb major pentatonic 5',
    ]);
    expect(zone?.chords.every(({ outside }) => outside.length === 0)).toBe(true);
    const five = ask('zones', { chart, collections: 'mode' }) as { zones: { low: number }[] };
    expect(five.zones).toHaveLength(5);
  });

  test('every chord on every neck is answered, with notes where they sound', () => {
    const symbols = fc.constantFrom(
      'C',
      'F#m7b5',
      'Bb7alt',
      'Ebmaj7',
      'Abdim7',
      'G7#5',
      'Dsus4',
      'B5',
      'Am6',
    );
    const necks = fc.constantFrom(
      undefined,
      { tuning: ['D2', 'A2', 'D3', 'G3', 'A3', 'D4'] },
      { tuning: ['B1', 'E2', 'A2', 'D3', 'G3', 'B3', 'E4'], frets: 24 },
      { tuning: ['E1', 'A1', 'D2', 'G2'], frets: 24 },
      { capo: 3 },
    );
    const material = fc.constantFrom('matching-pentatonic', 'mode', 'chord-tones');
    fc.assert(
      fc.property(
        fc.array(symbols, { minLength: 1, maxLength: 4 }),
        necks,
        material,
        (chords, neck, collections) => {
          const answer = ask('zones', {
            chart: `| ${chords.join(' | ')} |`,
            collections,
            ...(neck ? { neck } : {}),
          }) as { error?: unknown; zones: { chords: { notes: unknown[] }[] }[] };
          expect(answer.error).toBeUndefined();
          expect(
            answer.zones.every((zone) => zone.chords.every(({ notes }) => notes.length > 0)),
          ).toBe(true);
          const triads = ask('triads', {
            chart: `| ${chords.join(' | ')} |`,
            strings: [1, 2, 3],
            ...(neck ? { neck } : {}),
          });
          expect((triads as { error?: unknown }).error).toBeUndefined();
        },
      ),
      runs(80),
    );
  });

  test('triads, homes, and what they cannot answer', () => {
    expect(
      ask('triads', { chart: '| C | F |', strings: [1, 2, 3], start: { inversion: 'root' } }),
    ).toMatchObject({
      steps: [{ inversion: 'root' }, { held: ['C'] }],
    });
    expect(ask('homes', { chord: 'Cm7', collection: 'dorian' })).toMatchObject({
      homes: expect.arrayContaining([
        expect.objectContaining({ string: 5, grip: expect.objectContaining({ kind: 'drop-2' }) }),
      ]),
    });
    const code = (name: string, request: unknown) =>
      (ask(name, request) as { error: { code: string } }).error.code;
    expect(code('voicings', { chart: '| C7 |', kind: 'drop-3', strings: [2, 3, 4, 5] })).toBe(
      'out_of_range',
    );
    const refused = { chart: '| C7 | F |', kind: 'drop-2', strings: [1, 2, 3, 4] };
    expect(ask('voicings', refused)).toMatchObject({
      error: {
        code: 'invalid_request',
        path: 'kind',
        message: expect.stringContaining('F has no'),
      },
    });
    const led = ask('voicings', {
      chart: '| Dm7 | G7 | Cmaj7 |',
      kind: 'drop-2',
      strings: [1, 2, 3, 4],
      start: { inversion: 'third' },
    }) as { steps: { inversion: string; held: string[]; moves: unknown[] }[] };
    expect(led.steps.map(({ inversion }) => inversion)).toEqual(['third', 'first', 'third']);
    expect(led.steps[1]?.held.sort()).toEqual(['D', 'F']);
    expect(code('triads', { chart: '| C |', strings: [1, 3, 5] })).toBe('out_of_range');
    expect(code('zones', { chart: '| C |', zone: { low: 9, high: 3 } })).toBe('out_of_range');
    expect(code('zones', { chart: '| C |', neck: { frets: 99 } })).toBe('out_of_range');
    expect(code('zones', { chart: '| C |', neck: { tuning: ['E2', 'x', 'D3', 'G3'] } })).toBe(
      'invalid_request',
    );
    expect(code('homes', { chord: 'Hm7' })).toBe('invalid_chart');
    expect(code('homes', { chord: 'C', collection: 'wobbly' })).toBe('unknown_collection');
  });
});

describe('choosing material', () => {
  type Answered = Record<string, unknown> & { error?: { code: string; path?: string } };
  const answer = (name: string, request: unknown) => ask(name, request) as Answered;

  test('options say what each lens gives over a chord, best first', () => {
    const { options, chord } = answer('options', {
      chart: 'key: Eb\n| Fm7 | Bb7 | Ebmaj7 |',
      index: 0,
    }) as unknown as { chord: { symbol: string }; options: Record<string, unknown>[] };
    expect(chord.symbol).toBe('Fm7');
    expect(options.map(({ rank }) => rank)).toEqual(options.map((_, index) => index + 1));
    expect(options).toContainEqual({
      lens: 'borrowed-pentatonic',
      name: 'C minor pentatonic',
      root: 'C',
      collection: 'minor pentatonic',
      notes: ['C', 'Eb', 'F', 'G', 'Bb'],
      degrees: ['5', 'b7', '1', '2', '4'],
      tensions: ['5', 'b7', '1', '9', '11'],
      covered: ['F', 'C', 'Eb'],
      missing: ['Ab'],
      clashes: [],
      blue: [],
      colours: ['G', 'Bb'],
      outsideKey: [],
      fromPrevious: { held: [], arrives: ['C', 'Eb', 'F', 'G', 'Bb'], leaves: [] },
      common: true,
      intent: 'lean',
      rank: expect.any(Number),
      reason: 'In common use over Fm7, from its 5; no third (Ab); adds 9 and 11.',
    });
    const mode = options.find(({ lens }) => lens === 'mode');
    expect(mode).toMatchObject({
      name: 'F dorian',
      parent: { root: 'Eb', collection: 'ionian' },
    });
  });

  test('options weigh what was chosen before', () => {
    const { options } = answer('options', {
      chart: 'key: C\n| Dm7 | G7 |',
      index: 1,
      lenses: ['mode'],
      choices: ['D dorian', null],
    }) as unknown as { options: { name: string; fromPrevious: { held: string[] } }[] };
    expect(options[0]).toMatchObject({
      name: 'G mixolydian',
      fromPrevious: { held: ['G', 'A', 'B', 'C', 'D', 'E', 'F'], arrives: [], leaves: [] },
    });
  });

  test('every lens answers for every quality on every root, with degrees that measure right', () => {
    const qualities =
      ' m 7 maj7 m7 m7b5 dim7 m6 6 9 13 7alt 7b9 7#9 7#5 7b5 7#11 7b13 13b9 maj7#5 maj7#11 m(maj7) sus2 sus4 7sus4 9sus4 add9 5 dim aug m9 m11 69 7(b9,b13) maj9 m69'.split(
        ' ',
      );
    const sizes: Record<string, number> = {
      '1': 0,
      b2: 1,
      '2': 2,
      '#2': 3,
      b3: 3,
      '3': 4,
      b4: 4,
      '4': 5,
      '#4': 6,
      b5: 6,
      '5': 7,
      '#5': 8,
      b6: 8,
      '6': 9,
      bb7: 9,
      b7: 10,
      '7': 11,
    };
    const roots = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];
    for (const [quality, root] of some(pairs(qualities, roots), 120)) {
      const from = pitchClass(note(root));
      const { options } = answer('options', {
        chart: `| ${root}${quality} |`,
        index: 0,
      }) as unknown as { options: { notes: string[]; degrees: string[] }[] };
      for (const { notes, degrees } of options) {
        expect(degrees.map((degree) => sizes[degree])).toEqual(
          notes.map((one) => (pitchClass(note(one)) - from + 12) % 12),
        );
      }
    }
  });

  test('coverage names what is missing, and says it', () => {
    const coverage = answer('coverage', {
      chart: 'key: Eb\n| Eb | Ab | Bb |',
      collection: 'Eb major pentatonic',
    });
    expect(coverage).toMatchObject({
      chords: [
        { missing: [] },
        { missing: [{ note: 'Ab', degree: '1' }], covered: [{ note: 'C', degree: '3' }, {}] },
        { missing: [{ note: 'D', degree: '3' }] },
      ],
      spoken: [
        expect.any(String),
        expect.any(String),
        'Bar 3, Bb: no third (D): the change will not be heard.',
      ],
    });
  });

  test('crossings of chords and of choices, round the loop when asked', () => {
    const request = { chart: '| Dm7 | G7 |', choices: ['D dorian', 'G altered'] };
    const open = answer('crossings', request) as unknown as { crossings: unknown[] };
    expect(open.crossings).toHaveLength(1);
    expect(open.crossings[0]).toMatchObject({
      from: 0,
      to: 1,
      chord: {
        held: ['D', 'F'],
        moves: [
          { from: { note: 'C', degree: 'b7' }, to: { note: 'B', degree: '3' }, semitones: -1 },
          { from: { note: 'A', degree: '5' }, to: { note: 'G', degree: '1' }, semitones: -2 },
        ],
        arrives: [],
        leaves: [],
      },
      collection: { held: ['G', 'Cb', 'F'] },
    });
    const closed = answer('crossings', { ...request, loop: true });
    expect((closed as unknown as { crossings: unknown[] }).crossings).toHaveLength(2);
    expect(answer('crossings', { chart: '| C |', loop: true })).toMatchObject({ crossings: [] });
  });

  test('chains, within a stretch too', () => {
    const chart = '| Cm7 | Bbm7 | Eb7alt | Abmaj7 |';
    expect(answer('chains', { chart, from: 1 })).toMatchObject({
      chains: expect.arrayContaining([
        {
          step: 1,
          stops: [
            { index: 1, root: 'F', collection: 'minor pentatonic', relation: '5' },
            { index: 2, root: 'Gb', collection: 'minor pentatonic', relation: 'b3' },
            { index: 3, root: 'G', collection: 'minor pentatonic', relation: '7' },
          ],
        },
      ]),
    });
  });

  test.each<[string, Record<string, unknown>, string, string | undefined]>([
    ['options', { chart: '| C |', index: 1 }, 'out_of_range', 'index'],
    ['options', { chart: '| N.C. |', index: 0 }, 'out_of_range', 'index'],
    ['options', { chart: '| Cq |', index: 0 }, 'invalid_chart', undefined],
    [
      'options',
      { chart: '| C |', index: 0, choices: ['C wobbly'] },
      'unknown_collection',
      'choices.0',
    ],
    ['coverage', { chart: '| C |', collection: 'C wobbly' }, 'unknown_collection', undefined],
    ['crossings', { chart: '| C |', choices: [null, null] }, 'out_of_range', 'choices'],
    ['crossings', { chart: '| C | F |', start: 'H' }, 'invalid_request', 'start'],
    ['chains', { chart: '| C | F |', from: 1, to: 0 }, 'out_of_range', 'from'],
    ['chains', { chart: '| C | F |', to: 9 }, 'out_of_range', 'to'],
  ])('%s %j is refused as %s', (name, request, code, path) => {
    expect(answer(name, request).error).toMatchObject(path ? { code, path } : { code });
  });
});

describe('targets', () => {
  type Answered = Record<string, unknown> & { error?: { code: string; path?: string } };
  const answer = (name: string, request: unknown) => ask(name, request) as Answered;
  const CHART = 'key: Eb\ntempo: 100\n| Ebmaj7 | Cm7 | Fm7 Bb7 | Ebmaj7 |';

  test('a route has a stop for every chord, its pins, and costs that sum', () => {
    const { routes, exact } = answer('route', {
      chart: CHART,
      zone: { low: 3, high: 7 },
      pins: [{ index: 0, string: 4, fret: 5 }],
      alternatives: 4,
    }) as unknown as {
      exact: boolean;
      routes: { cost: number; stops: Record<string, unknown>[]; parts: Record<string, number> }[];
    };
    expect(exact).toBe(true);
    expect(routes).toHaveLength(4);
    for (const { cost, stops, parts } of routes) {
      expect(stops.map(({ index }) => index)).toEqual([0, 1, 2, 3, 4]);
      expect(Object.values(parts).reduce((sum, part) => sum + part, 0)).toBe(cost);
      expect(stops[0]).toMatchObject({ string: 4, fret: 5, note: 'G', degree: '3', midi: 55 });
    }
    const costs = routes.map(({ cost }) => cost);
    expect(costs).toEqual(costs.toSorted((a, b) => a - b));
  });

  test('ways into the next chord hold its notes, near by', () => {
    const { ways } = answer('into', { chart: CHART, index: 1, string: 3, fret: 5 }) as unknown as {
      ways: { fret: number; note: string }[];
    };
    expect(ways.length).toBeGreaterThan(3);
    expect(ways.every(({ note: name }) => ['F', 'Ab', 'C', 'Eb'].includes(name))).toBe(true);
    expect(ways.every(({ fret }) => Math.abs(fret - 5) <= 2)).toBe(true);
    expect(answer('into', { chart: '| C |', index: 0, string: 1, fret: 0 })).toEqual({ ways: [] });
  });

  test('every exercise answers for every chart and neck', () => {
    for (const kind of EXERCISES) {
      for (const request of [
        { chart: CHART },
        { chart: '| Cdim7 N.C. | F#7alt |', subdivision: 'triplets' },
        { chart: '| N.C. |' },
        { chart: CHART, neck: { tuning: ['E1', 'A1', 'D2', 'G2'] }, strings: [1, 2, 3] },
        { chart: CHART, extent: 'pair', index: 4, subdivision: 'sixteenths' },
      ]) {
        // On the third string of a bass too.
        const melody = [{ beat: 0, beats: 2, string: 3, fret: 5 }];
        const made = answer('exercise', { ...request, kind, melody, pattern: '<1 ~3 5' }) as {
          notes?: unknown[];
        } & Answered;
        expect(made.error).toBeUndefined();
        expect(made.notes?.length === 0).toBe(request.chart === '| N.C. |');
      }
    }
  });

  test.each<[string, Record<string, unknown>, string, string]>([
    [
      'route',
      { chart: '| C |', pins: [{ index: 3, string: 1, fret: 1 }] },
      'out_of_range',
      'pins.0.index',
    ],
    [
      'route',
      { chart: '| C |', pins: [{ index: 0, string: 9, fret: 1 }] },
      'out_of_range',
      'pins.0',
    ],
    ['route', { chart: '| C |', zone: { low: 9, high: 2 } }, 'out_of_range', 'zone'],
    ['route', { chart: '| C |', intents: ['lean', 'lean'] }, 'out_of_range', 'intents'],
    ['route', { chart: '| C |', choices: ['X'] }, 'unknown_collection', 'choices.0'],
    ['route', { chart: `[A] x64\n${'| C F G Am '.repeat(5)}|` }, 'out_of_range', 'chart'],
    ['into', { chart: '| C | F |', index: 0, string: 7, fret: 0 }, 'out_of_range', 'string'],
    ['into', { chart: '| C | F |', index: 2, string: 1, fret: 0 }, 'out_of_range', 'index'],
    [
      'exercise',
      { chart: '| C |', kind: 'line', extent: 'isolate', index: 4 },
      'out_of_range',
      'index',
    ],
    ['exercise', { chart: '| C |', kind: 'line', strings: [9] }, 'out_of_range', 'strings'],
  ])('%s %j is refused as %s', (name, request, code, path) => {
    expect(answer(name, request).error).toMatchObject({ code, path });
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

describe('the band', () => {
  test('plays a chart in its feel, the same for the same seed', () => {
    const asked = { chart: 'feel: bossa\n| Dm7 | G7 | Cmaj7 | % |', choruses: 2, seed: 7 };
    const answer = ask('band', asked) as {
      beats: number;
      feel: string;
      events: { part: string; beat: number; midi?: number; drum?: string }[];
    };
    expect(answer).toMatchObject({ beats: 32, feel: 'bossa' });
    expect(new Set(answer.events.map(({ part }) => part))).toEqual(
      new Set(['bass', 'comp', 'drums']),
    );
    expect(answer.events.every(({ part, midi, drum }) => (part === 'drums' ? drum : midi))).toBe(
      true,
    );
    expect(ask('band', asked)).toEqual(answer);
    const alone = ask('band', { ...asked, parts: ['bass'], feel: 'Swing' }) as typeof answer;
    expect(alone.feel).toBe('swing');
    expect(alone.events.every(({ part }) => part === 'bass')).toBe(true);
  });

  test('says what it cannot play', () => {
    const refused = (request: object) => ask('band', { chart: '| C |', ...request });
    expect(refused({ feel: 'wobble' })).toMatchObject({
      error: { code: 'invalid_request', path: 'feel', message: expect.stringContaining('wobble') },
    });
    const long = `| ${Array(200).fill('C').join(' | ')} |`;
    expect(refused({ chart: long, choruses: 16 })).toMatchObject({
      error: { code: 'out_of_range' },
    });
  });
});

describe('licks', () => {
  const chart = 'key: C\n| Dm7 | G7 | Cmaj7 |';
  const notes = [
    { beat: 0, beats: 1, string: 3, fret: 7 },
    { beat: 1, beats: 1, string: 2, fret: 6 },
    { beat: 2, beats: 2, string: 2, fret: 10 },
    { beat: 4, beats: 2, string: 2, fret: 6, techniques: [{ kind: 'bend', by: 2 }] },
    { beat: 6, beats: 2, string: 3, fret: 4 },
    { beat: 8, beats: 4, string: 2, fret: 5 },
  ];

  test('are read note by note, chord by chord, in whatever order they come', () => {
    const read = ask('lick', { chart, notes }) as {
      notes: { index: number; degree: string; role: string; bent?: { degree: string } }[];
      landings: { chord: number; note: string }[];
      heard: { share: number; chords: { likeliest: { probability: number }[] }[] };
    };
    expect(read.notes.map(({ degree }) => degree)).toEqual(['1', 'b3', '5', 'b7', '3', '3']);
    expect(read.notes[3]).toMatchObject({ bent: { note: 'G', degree: '1' }, role: 'chord tone' });
    expect(read.landings.map(({ note: landed }) => landed)).toEqual(['D', 'G', 'E']);
    // A bend lands where it arrives, and both ends are said.
    expect(read.landings[1]).toMatchObject({ how: 'on', bent: { note: 'G', degree: '1' } });
    expect(read.landings[1]).toMatchObject({ sentence: 'F bent to G lands on the root of G7.' });
    for (const { likeliest } of read.heard.chords) {
      expect(likeliest).toHaveLength(3);
      expect(likeliest.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9);
    }
    const turned = ask('lick', { chart, notes: notes.toReversed() }) as typeof read;
    expect(turned.heard).toEqual(read.heard);
    expect(turned.notes.map(({ index }) => index)).toEqual([0, 1, 2, 3, 4, 5]);
    expect(turned.notes[0]).toMatchObject({ beat: 8 });
  });

  test('are refingered and found, and refused in words where a place is none', () => {
    const moved = ask('refinger', { notes, semitones: 3, zone: { low: 5, high: 9 } }) as {
      notes: { midi: number; fret: number }[];
      exact: boolean;
      outOfReach: number[];
    };
    expect(moved.exact).toBe(true);
    expect(moved.notes[0]?.midi).toBe(65);
    moved.notes.forEach(({ fret }, index) => {
      expect(moved.outOfReach.includes(index)).toBe(fret < 5 || fret > 9);
    });
    const { fits } = ask('fit', {
      lick: { chart, notes },
      charts: ['| F | Gm7 | C7 | Fmaj7 |', '| Am |'],
    }) as { fits: { chart: number; index: number; semitones: number; match: string }[] };
    expect(fits[0]).toMatchObject({ chart: 0, index: 1, semitones: 5, match: 'same changes' });
    expect(
      ask('lick', { chart, notes: [{ beat: 0, beats: 1, string: 9, fret: 1 }] }),
    ).toMatchObject({
      error: { code: 'out_of_range', path: 'notes.0' },
    });
    expect(ask('fit', { lick: { chart: '| ??? |', notes }, charts: [] })).toMatchObject({
      error: { code: 'invalid_chart' },
    });
  });

  test('a line may carry techniques, a switch and a melody', () => {
    const blues = '| A7 | D7 | A7 | A7 | D7 | D7 | A7 | A7 | E7 | D7 | A7 | E7 |';
    const line = ask('exercise', { chart: blues, kind: 'line' }) as {
      notes: { techniques?: { kind: string }[] }[];
    };
    const kinds = line.notes.flatMap(({ techniques }) =>
      (techniques ?? []).map(({ kind }) => kind),
    );
    expect(kinds.filter((kind) => kind === 'bend' || kind === 'slide').length).toBeGreaterThan(1);
    expect(ask('exercise', { chart, kind: 'switch', switchAt: 2 })).not.toHaveProperty('error');
    const sung = ask('exercise', { chart, kind: 'melody', melody: notes }) as { notes: unknown[] };
    expect(sung.notes).toHaveLength(6);
  });
});

describe('open', () => {
  const open = async (content: string | Uint8Array) => {
    const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
    const result = await QUESTIONS['open']?.ask(bytes);
    if (!result) throw new Error('open');
    return result.ok
      ? (QUESTIONS['open']?.answer.parse(JSON.parse(JSON.stringify(result.value))) as Record<
          string,
          unknown
        >)
      : { refused: result.error.message };
  };
  const TAB = 'e|-------|\nB|-----5-|\nG|-5-7---|\nD|-------|\nA|-------|\nE|-------|';

  test('a chart by any format, with what was guessed', async () => {
    expect(await open('title: A\n| Dm7 | G7 |')).toEqual({
      kind: 'chart',
      format: 'text',
      text: 'title: A\n| Dm7 | G7 |',
      remarks: [],
    });
    const tune = 'X:1\nT:One\nM:4/4\nL:1/4\nK:C\n"Dm7"DFAc|"G7"B4|\n';
    const abc = await open(tune);
    expect(abc).toMatchObject({ kind: 'chart', format: 'abc', remarks: [] });
    expect(abc?.['melody']).toHaveLength(5);
    expect(abc?.['melody']).toMatchObject([
      { beat: 0, beats: 1, midi: 62, note: 'D' },
      {},
      {},
      {},
      {},
    ]);
    expect(await open(`${tune}\nX:2\nT:Two\nM:4/4\nL:1/4\nK:C\n"C"C4|\n`)).toMatchObject({
      remarks: [expect.stringContaining('2 charts')],
    });
    expect(await open('{title: A}\n[C]La [G7]la')).toMatchObject({
      kind: 'chart',
      format: 'chordpro',
    });
  });

  test('a passage where there is no chart', async () => {
    expect(await open(TAB)).toMatchObject({
      kind: 'passage',
      format: 'tab',
      notes: [{ string: 3, fret: 5, midi: 60, note: 'C' }, { midi: 62 }, { string: 2, midi: 64 }],
    });
  });

  test('chart text with a slip is kept; what is neither is refused with what it seems', async () => {
    expect(await open('| Dm7 | Xq |')).toMatchObject({
      kind: 'chart',
      text: '| Dm7 | Xq |',
      remarks: [expect.stringContaining('Xq')],
    });
    for (const words of ['Dear all,\nnothing here.', '', '<html><p>no</p></html>', '{"a": 1}'])
      expect(await open(words)).toEqual({ refused: expect.stringMatching(/\.$/u) });
    const bytes = (text: string) => Uint8Array.from(text, (sign) => sign.charCodeAt(0));
    expect(await open(bytes('%PDF-1.7\n\x01'))).toEqual({
      refused: expect.stringContaining('a PDF'),
    });
    expect(await open(bytes('\x89PNG\r\n\x1a\n'))).toEqual({
      refused: expect.stringContaining('a picture'),
    });
    expect(await open(bytes('RIFF\x01\0\0\0WAVE'))).toEqual({
      refused: expect.stringContaining('a recording'),
    });
    expect(await open(new Uint8Array([0, 1, 2, 3]))).toEqual({
      refused: expect.stringMatching(/\.$/u),
    });
  });
});

describe('transcribe', () => {
  test('answers the notes of a recording', () => {
    const rate = 44_100;
    const file = new wavefile.WaveFile();
    const samples = Float64Array.from({ length: 2 * rate }, (_, index) => {
      const time = (index % rate) / rate;
      const hertz = index < rate ? 220 : 330;
      const sum = [1, 2, 3, 4].reduce(
        (all, part) => all + Math.sin(2 * Math.PI * hertz * part * time) / part,
        0,
      );
      return 8_000 * sum * Math.exp(-4 * time) * Math.min(1, time * 500);
    });
    file.fromScratch(1, rate, '16', samples);
    const { notes } = ask('transcribe', file.toBuffer()) as { notes: Record<string, number>[] };
    expect(notes.map(({ midi, cents }) => [midi, cents])).toEqual([
      [57, 0],
      [64, 2],
    ]);
    expect(notes.map(({ seconds }) => Math.round((seconds ?? 0) * 20) / 20)).toEqual([0, 1]);
  });

  test('says what is wrong with anything else', () => {
    expect(ask('transcribe', new Uint8Array(10))).toEqual({
      error: { code: 'invalid_request', message: 'This is not a WAV file that can be read.' },
    });
  });
});

describe('drill', () => {
  test('asks from a chart and a zone, the same for the same seed', () => {
    const asked = { kind: 'find-degree', seed: 7, chart: SAMPLE, zone: { low: 5, high: 9 } };
    const drill = ask('drill', asked) as { answer: { places: { fret: number }[] }; prompt: string };
    expect(drill).toMatchObject({ kind: 'find-degree', asks: 'places' });
    expect(drill.prompt).toContain('frets 5 to 9');
    for (const { fret } of drill.answer.places) expect([5, 6, 7, 8, 9]).toContain(fret);
    expect(ask('drill', asked)).toEqual(drill);
  });

  test('refuses a zone off the neck and a chart it cannot read', () => {
    const zone = { low: 20, high: 40 };
    expect(ask('drill', { kind: 'name-note', seed: 1, zone })).toMatchObject({
      error: { code: 'out_of_range', path: 'zone' },
    });
    expect(ask('drill', { kind: 'name-note', seed: 1, chart: '| Xq |' })).toMatchObject({
      error: { code: 'invalid_chart' },
    });
  });
});

describe('next-session', () => {
  const charts = [{ id: 'one', text: SAMPLE }];
  const now = '2026-06-15T18:00:00+02:00';
  interface Answer {
    readonly blocks: { readonly minutes: number; readonly zone: { low: number } }[];
    readonly coverage: { readonly state: string; readonly last: string | null }[];
  }

  test('fills the minutes and tells what is covered', () => {
    const history = [10, 11, 12].map((day) => ({
      at: `2026-06-${day}T18:00:00+02:00`,
      chart: 'one',
      exercise: 'targets',
      zone: { low: 5, high: 8 },
      tempo: 90,
      minutes: 6,
      asked: 20,
      landed: 19,
    }));
    const answer = ask('next-session', { charts, history, minutes: 25, now }) as Answer;
    expect(answer.blocks.reduce((sum, { minutes }) => sum + minutes, 0)).toBe(25);
    expect(answer.coverage.filter(({ state }) => state === 'solid')).toHaveLength(1);
    expect(answer.coverage.filter(({ last }) => last === null).length).toBeGreaterThan(100);
  });

  test('names the chart that cannot be read', () => {
    const wrong = [...charts, { id: 'two', text: '| Xq |' }];
    expect(ask('next-session', { charts: wrong, history: [], minutes: 20, now })).toMatchObject({
      error: { code: 'invalid_chart', path: 'charts.1.text' },
    });
  });
});
