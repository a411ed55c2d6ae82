/** An option's parts in short, for the eye. */
import type { Chord, Option } from 'corvel-core';
import { tensionsOver } from '$core/lenses/options';
import type { RankParts } from '$core/lenses/ranking';
import { pitchClass } from '$core/notes/notes';
import { list } from '$core/words';
import { showSymbol } from '$lib/ui/glyphs';

/** What one note of an option is over the chord: its degree, and how it weighs. */
export interface OptionTone {
  readonly text: string;
  readonly weight: 'tone' | 'colour' | 'clash' | 'blue';
}

export function optionTones(chord: Chord, option: Option): readonly OptionTone[] {
  const { covered, clashes, blue } = option.assessment;
  const texts = tensionsOver(chord, option);
  const among = (notes: readonly number[], note: number) => notes.includes(note);
  const tones = covered.map(pitchClass);
  const rubs = clashes.map(({ note }) => pitchClass(note));
  const bends = blue.map(pitchClass);
  return option.material.notes.map((note, index) => {
    const pitch = pitchClass(note);
    const weight = among(tones, pitch)
      ? 'tone'
      : among(rubs, pitch)
        ? 'clash'
        : among(bends, pitch)
          ? 'blue'
          : 'colour';
    return { text: showSymbol(texts[index] ?? ''), weight };
  });
}

const PART_WORDS: Readonly<Record<keyof RankParts, readonly [more: string, less: string]>> = {
  guideTones: ['it says what names the chord', ''],
  tones: ['it holds the chord tones', ''],
  clash: ['', 'some of it clashes when held'],
  colour: ['it adds colour', ''],
  shared: ['it shares notes with its neighbours', ''],
  against: ['', 'some of it goes against the symbol'],
  outside: ['', 'it leaves the key'],
  common: ['players use it here', ''],
  own: ['it is the chord’s own', ''],
  preferred: ['you prefer this lens', ''],
  order: ['', 'other ways of its kind come first'],
};

const MOST_WORDS = 3;

/** What speaks for an option and against it, from the weightiest parts of its rank; nothing where nothing does. */
export function rankSentence({ parts }: Option): string {
  const weighty = (Object.entries(parts) as [keyof RankParts, number][])
    .filter(([, value]) => value !== 0)
    .sort(([, a], [, b]) => Math.abs(b) - Math.abs(a));
  const words = (sign: 1 | -1) =>
    weighty
      .filter(([, value]) => value * sign > 0)
      .map(([part]) => PART_WORDS[part][sign > 0 ? 0 : 1])
      .filter((word) => word !== '');
  const pros = words(1).slice(0, MOST_WORDS);
  const cons = words(-1).slice(0, 2);
  const said = [
    ...(pros.length > 0 ? [`For it: ${list(pros)}.`] : []),
    ...(cons.length > 0 ? [`Against it: ${list(cons)}.`] : []),
  ];
  return said.join(' ');
}
