import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type Chord, chordNotes } from '../chords/chords';
import { parseChord } from '../chords/symbols';
import { note, pitchClass } from '../notes/notes';
import { cross } from '../crossings/crossing';
import { changeSentence, changeSteps, sayChange } from './changes';
import { runs } from '$tests/laws';

function chord(symbol: string): Chord {
  const parsed = parseChord(symbol);
  if (!parsed) throw new Error(symbol);
  return parsed;
}
const said = (now: string, next: string, target = '') =>
  changeSentence(
    sayChange(chord(now), chord(next), {
      target: target === '' ? null : { note: note(target), string: 2, fret: 8 },
    }),
  );

describe('a change in words', () => {
  test.each([
    ['Gm7', 'C7', '', 'F falls a half step to E, its third. Bb stays and becomes its seventh.'],
    ['Gm7', 'C7', 'Bb', 'Bb stays and becomes its seventh. F falls a half step to E, its third.'],
    ['Gm7', 'C7', 'G', 'G stays and becomes its fifth. F falls a half step to E, its third.'],
    ['Dm7', 'D7', '', 'F rises a half step to F#, its third. C stays its seventh.'],
    ['C7', 'F#7', '', 'Bb stays and becomes its third, A#. E stays and becomes its seventh.'],
    ['C', 'Ebmaj7', '', 'C rises a whole step to D, its seventh. G stays and becomes its third.'],
    ['C5', 'Eb5', '', 'New: Eb, its root.'],
    ['Dm7b5', 'G7b9', '', 'C falls a half step to B, its third. F stays and becomes its seventh.'],
    ['Dm7', 'Am7', 'C', 'C stays and becomes its third. F rises a whole step to G, its seventh.'],
    ['C', 'Fsus4', '', 'C falls a whole step to Bb, its fourth.'],
  ])('%s to %s, landing on “%s”: %s', (now, next, target, sentence) => {
    expect(said(now, next, target).slice(0, sentence.length)).toBe(sentence);
  });

  test('where to land is said with the string and the fret, and what it is where that was not said', () => {
    expect(said('Gm7', 'C7', 'E')).toMatch(/ Land on string 2, fret 8\.$/u);
    expect(said('Gm7', 'C7', 'D')).toMatch(/ Land on D, its ninth: string 2, fret 8\.$/u);
    expect(said('Gm7', 'C7')).not.toContain('Land');
    const stay = { note: note('Bb'), string: 2, fret: 11 };
    const change = sayChange(chord('Gm7'), chord('C7'), { target: stay, from: stay });
    expect(change.landing).toBe('Stay on string 2, fret 11.');
  });

  test('every step of a change is said, what moves first', () => {
    const steps = (now: string, next: string) =>
      changeSteps(cross(chordNotes(chord(now)), chordNotes(chord(next))));
    expect(steps('Gm7', 'C7')).toEqual([
      'F falls a half step to E.',
      'D falls a whole step to C.',
      'G and Bb stay.',
    ]);
    expect(steps('C', 'Ebm7')).toEqual([
      ...['E falls a half step to Eb.', 'G falls a half step to Gb.', 'C rises a half step to Db.'],
      'Bb is new.',
    ]);
    expect(steps('Cmaj7', 'Am')).toEqual([
      'B falls a whole step to A.',
      'C and E stay.',
      'G goes.',
    ]);
  });

  test('in every key it says the same, and every step it names is the one it says', () => {
    const SYMBOLS = [
      'm7',
      '7',
      'maj7',
      'm7b5',
      'dim7',
      '6',
      'm6',
      '7alt',
      'sus4',
      '',
      'm',
      'm(maj7)',
    ];
    const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];
    const any = fc.tuple(fc.constantFrom(...ROOTS), fc.constantFrom(...SYMBOLS));
    fc.assert(
      fc.property(any, any, ([root, kind], [other, coming]) => {
        const { clauses } = sayChange(chord(root + kind), chord(other + coming), { target: null });
        expect(clauses.length).toBeGreaterThan(0);
        for (const { text, goal } of clauses) {
          const step = /^(\S+) (rises|falls) a (half|whole) step to$/u.exec(text);
          if (!step) continue;
          const [, from = '', verb, size] = step;
          const way = (verb === 'rises' ? 1 : -1) * (size === 'half' ? 1 : 2);
          const to = goal.split(',')[0] ?? '';
          expect((pitchClass(note(to)) - pitchClass(note(from)) - way) % 12).toBeOneOf([
            0, -0, -12,
          ]);
        }
      }),
      runs(300),
    );
  });
});
