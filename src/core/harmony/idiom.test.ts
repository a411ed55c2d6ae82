import { describe, expect, test } from 'vitest';
import { transposeChart } from '../chart/rewrite';
import { withHeader } from '../chart/summary';
import { lensContexts, optionsFor } from '../lenses/options';
import { LENSES } from '../lenses/table';
import { at } from '../lists';
import { note, noteName, transpose } from '../notes/notes';
import { degree } from '../notes/degrees';
import { readHarmony } from './reading';
import { chartOf } from '$tests/laws';

const ROOTS = 'C Db D Eb E F F# G Ab A Bb B'.split(' ');
const idiomOf = (text: string) => readHarmony(chartOf(text)).idiom;

/** What is played over a chord of a chart, the first few by name. */
const firstOver = (text: string, index: number, count: number): readonly string[] => {
  const chart = chartOf(text);
  const context = at(lensContexts(chart, readHarmony(chart)), index);
  return optionsFor(context)
    .slice(0, count)
    .map(({ material }) => material.name);
};

describe('the idiom', () => {
  test.each([
    ['feel: shuffle\n| A | D | A | E |', 'blues'],
    ['feel: slow blues\n| A7 | D7 |', 'blues'],
    ['feel: rock\n| A | D |', 'rock'],
    ['feel: swing\n| A7 | D7 | A7 | E7 |', 'jazz'],
    ['| A7 | D7 | A7 | E7 |', 'blues'],
    ['| A7 | D7 | A7 | A7 | D7 | D7 | A7 | F#7 | Bm7 | E7 | A7 | E7 |', 'jazz'],
    ['feel: shuffle\n| A7 | D7 | A7 | A7 | D7 | D7 | A7 | F#7 | Bm7 | E7 | A7 | E7 |', 'jazz'],
    ['| E5 | G5 | A5 | E5 |', 'rock'],
    ['| A | G | D | A |', 'rock'],
    ['| C | G | Am | F |', 'jazz'],
    ['| A7 | G | D/F# | A7 |', 'jazz'],
    ['| Am | G | F | G |', 'jazz'],
    ['| Cmaj7 | Bb7 | Cmaj7 | % |', 'jazz'],
  ])('of %j is guessed to be %s', (text, name) => {
    expect(idiomOf(text)).toEqual({ name, given: false });
  });

  test('is what the chart says it is, whatever would be guessed', () => {
    for (const name of ['jazz', 'blues', 'rock']) {
      expect(idiomOf(`feel: shuffle\nidiom: ${name}\n| A7 | D7 |`)).toEqual({ name, given: true });
    }
    expect(() => chartOf('idiom: polka\n| C |')).toThrow(
      '“polka” is not an idiom: write jazz, blues or rock.',
    );
    const text = withHeader('feel: swing\n| C |', 'idiom', 'rock');
    expect(text).toBe('feel: swing\nidiom: rock\n| C |');
    expect(withHeader(text, 'idiom', null)).toBe('feel: swing\n| C |');
  });

  test('blues and rock: the tonic’s pentatonic, blues and blended blues first on I, IV and V, in every key', () => {
    for (const root of ROOTS)
      for (const idiom of ['blues', 'rock'])
        for (const chords of [
          '| C | F | G | C |',
          '| C7 | F | G7 | C7 |',
          '| C5 | Fsus4 | G | C |',
        ]) {
          const moved = transposeChart(`key: C\nidiom: ${idiom}\n${chords}`, note('C'), note(root));
          const text = moved ?? '';
          const own = ['minor pentatonic', 'minor blues', 'blended blues'].map(
            (one) => `${root} ${one}`,
          );
          for (const index of [0, 1, 2]) expect(firstOver(text, index, 3), text).toEqual(own);
          // With the fifth's third: over a suspended or a power chord there is none.
          expect(firstOver(text, 2, 4)).toContain(`${root} major-seventh minor pentatonic`);
        }
  });

  test('over a dominant IV no major seventh is among the first five, in any idiom, whatever lens is preferred', () => {
    for (const root of ROOTS)
      for (const idiom of ['jazz', 'blues', 'rock'])
        for (const lens of LENSES) {
          const moved = transposeChart(
            `key: C\nidiom: ${idiom}\n| C7 | F7 | C7 | G7 |`,
            note('C'),
            note(root),
          );
          const chart = chartOf(moved ?? '');
          const context = at(lensContexts(chart, readHarmony(chart)), 1);
          const seventh = noteName(transpose(context.chord.root, degree('7')));
          for (const { material } of optionsFor(context, {
            neighbours: [],
            preferred: [lens],
          }).slice(0, 5))
            expect(material.notes.map(noteName), `${material.name} ${lens}`).not.toContain(seventh);
        }
  });

  test('a major seventh, a minor chord of a major key and what is not at home keep their own scales', () => {
    expect(firstOver('key: C\nidiom: rock\n| Cmaj7 | Am | D |', 0, 1)).toEqual(['C ionian']);
    expect(firstOver('key: C\nidiom: rock\n| C | Am | D |', 1, 1)).toEqual(['A minor pentatonic']);
    expect(firstOver('key: C\nidiom: rock\n| C | Am | D |', 2, 1)).not.toEqual([
      'C minor pentatonic',
    ]);
    // In minor there is no blended blues; a major V has its third.
    expect(firstOver('key: Am\nidiom: rock\n| Am | Dm | E |', 0, 2)).toEqual([
      ...['A minor pentatonic', 'A minor blues'],
    ]);
    expect(firstOver('key: Am\nidiom: rock\n| Am | Dm | E |', 2, 3)).toContain(
      'A major-seventh minor pentatonic',
    );
  });

  test('only guessed, a dominant V is spelled before all', () => {
    expect(firstOver('| A7 | D7 | A7 | E7 |', 3, 2)).toEqual(['E7 arpeggio', 'A minor pentatonic']);
    expect(firstOver('idiom: blues\n| A7 | D7 | A7 | E7 |', 3, 1)).toEqual(['A minor pentatonic']);
  });
});
