import { describe, expect, test } from 'vitest';
import { readHarmony } from '$core/harmony/reading';
import { BEAT, noteName, type Option, STANDARD_NECK } from 'corvel-core';
import { lensContexts, optionsFor } from '$core/lenses/options';
import { WEIGHTS } from '$core/lenses/ranking';
import { at } from '$core/lists';
import { note } from '$core/notes/notes';
import { struck } from '$core/phrases/passage';
import { chartOf } from '$tests/laws';
import { laneOfMelody } from './melodyLane';
import { optionTones, rankSentence } from './optionWords';

describe('the melody as a lane', () => {
  const chart = chartOf('key: C\n| Dm7 | G7 | Cmaj7 | % |');
  const played = (beat: number, beats: number, fret: number, name: string) =>
    struck({
      beat: beat * BEAT,
      beats: beats * BEAT,
      string: 2,
      fret,
      note: note(name),
      chord: null,
    });
  const stops = (...melody: readonly ReturnType<typeof played>[]) =>
    laneOfMelody(chart, STANDARD_NECK, melody).map(
      ({ index, note: met, degree, halfSteps }) =>
        [index, noteName(met), degree, halfSteps] as const,
    );

  test('each chord is met by what sounds as it comes, else by its first note', () => {
    const [first, second, third] = stops(
      played(0, 6, 6, 'F'),
      played(8.5, 1, 5, 'E'),
      played(9.5, 1, 8, 'G'),
    );
    expect(first?.slice(0, 2)).toEqual([0, 'F']);
    expect(second?.slice(0, 2)).toEqual([1, 'F']);
    expect(third?.slice(0, 2)).toEqual([2, 'E']);
    expect([first, second, third].map((stop) => stop?.[3])).toEqual([0, 0, -1]);
  });

  test('a grace meets no chord: the note after it does', () => {
    const grace = { ...played(0, 0.125, 5, 'E'), techniques: [{ kind: 'grace' } as const] };
    expect(stops(grace, played(0.125, 3, 6, 'F')).map(([, name]) => name)).toEqual(['F']);
    expect(stops(grace)).toEqual([]);
  });

  test('a bent note is what it arrives at', () => {
    const bent = { ...played(0, 4, 6, 'F'), techniques: [{ kind: 'bend', by: 2 } as const] };
    const [first, second] = stops(bent, played(4, 4, 8, 'G'));
    expect(first?.slice(0, 3)).toEqual([0, 'G', note('G') - note('D')]);
    expect(second?.[3]).toBe(0);
  });

  test('a note that ends as a chord comes does not meet it, one of the next chord does not either', () => {
    expect(stops(played(0, 4, 6, 'F')).map(([index]) => index)).toEqual([0]);
    expect(stops(played(4, 1, 6, 'F')).map(([index]) => index)).toEqual([1]);
    expect(stops()).toEqual([]);
  });
});

describe('an option in short', () => {
  const chart = chartOf('key: C\n| Cmaj7 | G7 |');
  const contexts = lensContexts(chart, readHarmony(chart));
  const optionOf = (index: number, name: string) => {
    const found = optionsFor(at(contexts, index)).find(({ material }) => material.name === name);
    if (!found) throw new Error(name);
    return found;
  };

  test('each note says what it is over the chord, and how it weighs', () => {
    const tones = optionTones(at(chart.chords, 0).chord, optionOf(0, 'C ionian'));
    expect(tones.map(({ text, weight }) => `${text} ${weight}`)).toEqual([
      ...['1 tone', '9 colour', '3 tone', '11 clash', '5 tone', '13 colour', '7 tone'],
    ]);
  });

  test('why it stands where it does is said from the weightiest parts', () => {
    const parts = Object.fromEntries(Object.keys(WEIGHTS).map((part) => [part, 0]));
    const said = (changed: Record<string, number>) =>
      rankSentence({ parts: { ...parts, ...changed } } as unknown as Option);
    expect(said({})).toBe('');
    expect(said({ tones: 1, guideTones: 8, common: 3, own: 2 })).toBe(
      'For it: it says what names the chord, players use it here and it is the chord’s own.',
    );
    expect(said({ clash: -3, against: -1.5, outside: -2, colour: 1 })).toBe(
      'For it: it adds colour. Against it: some of it clashes when held and it leaves the key.',
    );
  });
});
