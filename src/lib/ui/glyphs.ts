/** Writing notes, degrees and chords with real music signs. */
import type { Chord } from '$core/chords/chords';
import { tensionOver } from '$core/chords/over';
import { spokenName } from '$core/chords/spoken';
import { degreeName } from '$core/notes/degrees';
import { type Interval, noteName, type Note } from '$core/notes/notes';

const SIGNS: Readonly<Record<string, string>> = { b: '♭', '#': '♯', x: '𝄪' };

const withSigns = (accidentals: string): string =>
  [...accidentals].map((sign) => SIGNS[sign] ?? sign).join('');

/** `E♭`, `F𝄪`. */
export const showNote = (note: Note): string => {
  const name = noteName(note);
  return name.slice(0, 1) + withSigns(name.slice(1));
};

const showName = (name: string): string =>
  withSigns(name.replace(/\d+$/u, '')) + (/\d+$/u.exec(name)?.[0] ?? '');

/** `♭3`, `♯4`. */
export const showDegree = (degree: Interval): string => showName(degreeName(degree));

/** A degree over a chord, as a tension where it is one there: `♭3`, `♭9`, `♯11`. */
export const showOver = (chord: Chord, degree: Interval): string =>
  showName(tensionOver(chord, degree));

/** A chord symbol, numeral or collection's name as typed, with signs for its accidentals. */
export const showSymbol = (symbol: string): string =>
  symbol
    .replace(/Δ/gu, '△')
    .replace(
      /(?<=^|[/\s(,])([A-G])(bb|##|[b#x])/gu,
      (_, letter: string, accidental: string) => letter + withSigns(accidental),
    )
    .replace(/([b#])(?=\d|[IVXivx])/gu, (sign) => SIGNS[sign] ?? sign)
    .replace(/^([b#]+)(?=♭|♯)/u, withSigns);

/** A note as it is spoken: "B flat". */
export const speakNote = (note: Note): string => spokenName(noteName(note));

/** A sentence with notes in it as it is spoken: "B flat stays". */
export const speakSentence = (sentence: string): string =>
  sentence.replace(/\b[A-G](?:bb|##|[b#x])(?![a-z0-9])/gu, spokenName);
