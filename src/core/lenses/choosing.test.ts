import { describe, expect, test } from 'vitest';
import type { Chart } from '../chart/form';
import { shiftChart } from '../chart/rewrite';
import { chordName } from '../chords/chords';
import { readHarmony } from '../harmony/reading';
import { roleName } from '../harmony/roleWords';
import { keyName } from '../keys/keys';
import { at, range } from '../lists';
import { noteName } from '../notes/notes';
import { lensContexts, optionsFor } from './options';
import { LENSES } from './table';
import { chartOf, some } from '$tests/laws';

/** A chart in all twelve keys, each chart in others of them. */
const inEveryKey = (text: string): readonly Chart[] =>
  some(range(-5, 7), 4, CHARTS.indexOf(text)).map((by) =>
    chartOf(shiftChart(text, by, chartOf(text).source.key) ?? ''),
  );

const CHARTS = [
  'key: C\n| Cmaj7 | Am7 | Dm7 | G7 | Em7 A7b9 | Dm6 G7alt | C7 | Caug |',
  'key: C\n| Dm7b5 | G7 | Cm(maj7) | Cm6 | Ab7 | Db7 | Bb7 | Cdim7 |',
  'key: C\n| C | Bb | F | E | Am7 D7sus4 | G13b9 | Cmaj7#5 | Fm6 |',
  '| A7 | D7 | A7 | % | D7 | % | A7 | F#7 | Bm7 | E7 | A7 | E7 |',
  '| Cm7 | Fm7 | Cm7 | % | Fm7 | % | Cm7 | % | Ab7 | G7 | Cm7 | G7 |',
  '| Dm7 | % | Ebm7 | % |',
];

const optionsIn = (chart: Chart) =>
  lensContexts(chart, readHarmony(chart)).map((context) => ({
    name: chordName(context.chord),
    blues: context.blues,
    options: optionsFor(context),
  }));

describe('in every key', () => {
  test.each(CHARTS)('the first five of %s sound different', (text) => {
    for (const chart of inEveryKey(text)) {
      for (const { name, options } of optionsIn(chart)) {
        const masks = options.slice(0, 5).map(({ material }) => material.mask);
        expect([name, new Set(masks).size]).toEqual([name, 5]);
        expect(options.map(({ rank }) => rank)).toEqual(range(1, options.length + 1));
      }
    }
  });

  test.each(CHARTS)('borrowed pentatonics in common use lead their list in %s', (text) => {
    for (const chart of inEveryKey(text)) {
      for (const { name, options } of optionsIn(chart)) {
        const common = options
          .filter(({ lens }) => lens === 'borrowed-pentatonic')
          .map((option) => option.common);
        const usual = common.filter(Boolean).length;
        expect([name, common.slice(0, usual).every(Boolean)]).toEqual([name, true]);
      }
    }
  });

  test.each(CHARTS)('modes stand in the order of their table in %s', (text) => {
    for (const chart of inEveryKey(text)) {
      for (const context of lensContexts(chart, readHarmony(chart))) {
        const alone = optionsFor(context, undefined, ['mode']);
        const among = optionsFor(context).filter(({ lens }) => lens === 'mode');
        expect(among[0]?.material.name).toBe(alone[0]?.material.name);
        expect(at(alone, 0).common).toBe(true);
      }
    }
  });

  test.each(CHARTS)('roots are called by their simple names in %s', (text) => {
    for (const chart of inEveryKey(text)) {
      for (const context of lensContexts(chart, readHarmony(chart))) {
        for (const { material, lens } of optionsFor(context)) {
          if (material.root === context.chord.root || lens === 'key-scale') continue;
          expect([chordName(context.chord), material.name]).toEqual([
            chordName(context.chord),
            expect.not.stringMatching(/^(?:Fb|Cb|E#|B#|[A-G](?:bb|x|##))/u),
          ]);
        }
      }
    }
  });

  test('a blues has a blues scale among the first three over every chord', () => {
    for (const text of CHARTS.slice(3, 5)) {
      for (const chart of inEveryKey(text)) {
        for (const { name, blues, options } of optionsIn(chart)) {
          const heads = options.slice(0, 3).map(({ material }) => material.kind);
          expect([name, blues, heads.some((kind) => kind.endsWith('blues'))]).toEqual([
            ...[name, true, true],
          ]);
        }
      }
    }
  });

  test('a minor blues has no major scale for its key', () => {
    for (const chart of inEveryKey(at(CHARTS, 4))) {
      for (const { options } of optionsIn(chart)) {
        for (const { lens, material } of options) {
          if (lens === 'key-scale') expect(material.kind).not.toMatch(/^(?:mixolydian|major)/u);
        }
      }
      const dominant = at(optionsIn(chart), 9).options.filter(({ lens }) => lens === 'mode');
      expect(dominant[0]?.material.kind).toMatch(/^(?:phrygian dominant|altered)$/u);
    }
  });

  test('a dominant alone begins with its mixolydian or its blues, a sharp ninth with minor', () => {
    for (const chart of inEveryKey('| G7 |')) {
      const [{ options } = { options: [] }] = optionsIn(chart);
      expect(options[0]?.material.kind).toMatch(/^(?:mixolydian|.* blues)$/u);
      expect(options[0]?.material.root).toBe(at(chart.chords, 0).chord.root);
    }
    for (const chart of inEveryKey('| E7#9 |')) {
      const [{ options } = { options: [] }] = optionsIn(chart);
      const root = noteName(at(chart.chords, 0).chord.root);
      const heads = options.slice(0, 2).map(({ material }) => material.name);
      expect(heads).toEqual([`${root} minor pentatonic`, `${root} minor blues`]);
    }
  });

  test('over a minor ii–V that comes home to major, simplify says the iv minor', () => {
    for (const chart of inEveryKey('key: C\n| Dm7b5 | G7 | Cmaj7 | % |')) {
      const sounds = optionsIn(chart)
        .slice(0, 2)
        .flatMap(({ options }) => options.filter(({ lens }) => lens === 'simplify'));
      expect(sounds.some(({ material }) => / ?m6 arpeggio$/u.test(material.name))).toBe(true);
      expect(sounds.filter(({ material }) => /maj7/u.test(material.name))).toEqual([]);
    }
  });

  test('a plain V in minor begins with the phrygian dominant', () => {
    for (const chart of inEveryKey('key: Am\n| Am | G | F | E |')) {
      expect(at(optionsIn(chart), 3).options[0]?.material.kind).toBe('phrygian dominant');
    }
  });

  test('the own pentatonic of a minor major seventh is the minor sixth one', () => {
    for (const chart of inEveryKey('key: C\n| Am(maj7) | Am6 |')) {
      for (const { options } of optionsIn(chart)) {
        const own = options.find(({ lens }) => lens === 'own-pentatonic');
        expect(own?.material.kind).toBe('minor sixth pentatonic');
      }
    }
  });

  test('every lens answers in the same order whatever else is asked', () => {
    const [chart] = inEveryKey(at(CHARTS, 0));
    if (!chart) throw new Error('no chart');
    for (const context of lensContexts(chart, readHarmony(chart))) {
      const all = optionsFor(context);
      for (const lens of LENSES) {
        const names = (options: typeof all) =>
          options.filter((one) => one.lens === lens).map(({ material }) => material.name);
        expect(new Set(names(optionsFor(context, undefined, [lens])))).toEqual(new Set(names(all)));
      }
    }
  });
});

describe('reading, in every key', () => {
  const rolesOf = (chart: Chart) =>
    readHarmony(chart).chords.map(({ numeral, role }) => ({
      numeral,
      role: role ? roleName(role) : '',
    }));

  test.each([
    ['key: Eb\n| Gm7 C7 | Fmaj7 | Fm7 Bb7 | Ebmaj7 |', 1, 'V7/II', 'secondary dominant of II'],
    ['key: Eb\n| Gm7 C7 | Fmaj7 | Fm7 Bb7 | Ebmaj7 |', 2, 'IImaj7', 'local tonic'],
    ['key: C\n| Cmaj7 | Ab7 | Dbmaj7 | G7 |', 1, 'V7/bII', 'secondary dominant of bII'],
    ['key: C\n| Cmaj7 | Eb7 | Abmaj7 | G7 |', 1, 'V7/bVI', 'secondary dominant of bVI'],
    [
      'key: C\n| Em7 A7 | Ebm7 Ab7 | Dm7 G7 | Cmaj7 |',
      2,
      'biii7',
      'of a ii–V a half step above ii',
    ],
    ['key: C\n| C | Gaug | C | G7 |', 1, 'Vaug', 'dominant with altered tensions'],
    ['key: C\n| C7 | Dm7 | G7 | C7 |', 0, 'I7', 'dominant as a blues colour'],
    [
      'key: C\n| Cmaj7 | Gb7 | Cmaj7 | G7 |',
      1,
      'V7/VII',
      'secondary dominant of VII, left unresolved',
    ],
  ] as const)('%s: chord %i is %s, %s', (text, index, numeral, role) => {
    for (const chart of inEveryKey(text)) {
      expect(at(rolesOf(chart), index)).toEqual({ numeral, role });
    }
  });

  test('no role names what no teacher would', () => {
    const dominants = 'C Db D Eb E F Gb G Ab A Bb B'.split(' ');
    for (const from of dominants) {
      for (const to of ['Cmaj7', 'Dm7', 'Dbmaj7', 'F#m7b5', 'Abmaj7', 'Em7']) {
        for (const before of ['Cmaj7', 'Ebm7', 'Am7']) {
          const chart = chartOf(`key: C\n| ${before} | ${from}7 | ${to} | G7 |`);
          for (const { numeral, role } of rolesOf(chart)) {
            expect(`${numeral ?? ''} ${role}`).not.toMatch(
              /locrian|\/bI(?![IV])|to bii\b|dominant of I(?![IV])/u,
            );
          }
        }
      }
    }
  });

  test.each([
    ['| E | F | E | F |', 'E phrygian'],
    ['| Em7 | Eb7#11 | Dm7 | Db7#11 | Cmaj7#11 |', 'C major'],
    ['| Dm7 | % | % | % | Ebm7 | % | % | % |', null],
    ['| C | E | Ab | % |', null],
    ['| C | Bb | F | C |', 'C major'],
  ] as const)('%s centres on %s', (text, key) => {
    const [own] = [chartOf(text)];
    const found = readHarmony(own).key.key;
    expect(found && keyName(found)).toBe(key);
    for (const chart of inEveryKey(text)) {
      const moved = readHarmony(chart).key.key;
      expect(moved === null).toBe(key === null);
      if (moved && found) expect(moved.mode).toBe(found.mode);
    }
  });

  test('a local tonic takes the modes of a tonic, and those before it lead there', () => {
    for (const chart of inEveryKey('key: Eb\n| Gm7 C7 | Fmaj7 | Fm7 Bb7 | Ebmaj7 |')) {
      const modes = optionsIn(chart).map(
        ({ options }) => options.find(({ lens }) => lens === 'mode')?.material.kind,
      );
      expect(modes.slice(0, 3)).toEqual(['dorian', 'mixolydian', 'ionian']);
    }
  });
});
