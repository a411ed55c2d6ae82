import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readChart } from '../chart/form';
import { degreeName } from '../notes/degrees';
import { note, noteName, pitchClass, transpose } from '../notes/notes';
import { shortestWay } from './crossing';
import { contourOf, type Lane, lanesOf } from './lanes';
import { remarksOn } from './remarks';

function chordsOf(text: string) {
  const result = readChart(text);
  if (!result.ok) throw new Error(result.problems[0]?.message);
  return result.chart.chords.map(({ chord }) => chord);
}

const written = (lane: Lane) =>
  lane.map((stop) => `${noteName(stop.note)}=${degreeName(stop.degree)}`).join(' ');

describe('lanes', () => {
  const lanes = lanesOf(chordsOf('| Dm7 | G7 | Cmaj7 | C6 | Fsus4 | F |'));

  test('by degree: every root, third, fifth and seventh, or what stands for it', () => {
    expect(written(lanes['1'])).toBe('D=1 G=1 C=1 C=1 F=1 F=1');
    expect(written(lanes['3'])).toBe('F=b3 B=3 E=3 E=3 Bb=4 A=3');
    // A triad has no seventh, and a sixth stands for one.
    expect(written(lanes['7'])).toBe('C=b7 F=b7 B=7 A=6');
  });

  test('falling fifths: the guide tones go 3 to 7 to 3, holding or falling a half step', () => {
    const falling = lanesOf(chordsOf('| Em7 | A7 | Dm7 | G7 | Cmaj7 |'));
    expect(written(falling.guideTones)).toBe('G=b3 G=b7 F=b3 F=b7 E=3');
    expect(falling.guideTones.map(({ halfSteps }) => halfSteps)).toEqual([0, 0, -2, 0, -1]);
    expect(contourOf(falling.guideTones)).toEqual([0, 0, -2, -2, -3]);
  });

  test('the smoothest lane begins where it is told and never moves more than needed', () => {
    const symbols = fc.constantFrom('C', 'Am7', 'D7', 'Gm7b5', 'Ebmaj7', 'F#dim7', 'Bb7sus4');
    fc.assert(
      fc.property(fc.array(symbols, { minLength: 2, maxLength: 9 }), (names) => {
        const chords = chordsOf(`| ${names.join(' | ')} |`);
        const { smooth } = lanesOf(chords);
        smooth.slice(1).forEach((stop, index) => {
          const from = smooth[index]?.note ?? note('C');
          const chord = chords[stop.index];
          const least = Math.min(
            ...(chord?.quality.core ?? []).map((tone) =>
              Math.abs(shortestWay(from, transpose(chord?.root ?? from, tone))),
            ),
          );
          expect(Math.abs(stop.halfSteps)).toBe(least);
        });
      }),
    );
    expect(written(lanesOf(chordsOf('| C | F |'), note('G')).smooth)).toBe('G=5 F=1');
  });
});

describe('remarks', () => {
  const remarks = (text: string, tonic: string | null = null) =>
    remarksOn(chordsOf(text), tonic === null ? null : note(tonic)).map(
      ({ kind, from, to, text: said }) => `${kind} ${from}–${to}: ${said}`,
    );

  test('the moving third on I–IV of a blues, and its return', () => {
    expect(remarks('| A7 | D9 | A7 |', 'A').filter((one) => one.startsWith('moving'))).toEqual([
      'moving third 0–1: The moving third: C#, third of A7, falls a half step to C, seventh of D9.',
      'moving third 1–2: The moving third returns: C, seventh of D9, rises a half step to C#, third of A7.',
    ]);
    expect(remarks('| A7 | D9 |').some((one) => one.startsWith('moving'))).toBe(false);
  });

  test('a chain of thirds and sevenths, a parallel shift, one note, a common tone', () => {
    expect(remarks('| Dm7 | G7 | Cmaj7 |')).toContainEqual(
      expect.stringMatching(/^3-7 chain 0–2: Roots fall by fifths from Dm7 to Cmaj7/u),
    );
    expect(remarks('| Bm7 | Am7 | Gm7 |')).toContainEqual(
      expect.stringMatching(/^parallel 0–2: /u),
    );
    expect(remarks('| Am7 | C6 | Am |').some((one) => one.startsWith('one note'))).toBe(false);
    expect(remarks('| C | Am |')).toEqual([
      'one note changes 0–1: One chord tone changes: G to A.',
    ]);
    expect(remarks('| C | Am | F | Cm7 |')).toContainEqual(
      'common tone 0–3: C is a chord tone of 4 chords in a row.',
    );
  });

  test('every remark lies within the chart', () => {
    const chords = chordsOf('| A7 | D7 | G7 | C7 | F#m7b5 | B7 | Em7 | A7 |');
    for (const { from, to } of remarksOn(chords, note('A'))) {
      expect(from).toBeGreaterThanOrEqual(0);
      expect(to).toBeGreaterThan(from);
      expect(to).toBeLessThan(chords.length);
    }
    expect(remarksOn([], null)).toEqual([]);
    expect(pitchClass(note('C'))).toBe(0);
  });
});
