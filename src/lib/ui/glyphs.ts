/** Writing notes, degrees and chords with real music signs, by the names the player set. */
import { type Chord, degreeName, type Note, noteName, parseChord } from 'corvel-core';
import { renameIn } from '$core/chords/named';
import { tensionOver } from '$core/chords/over';
import { renameSpoken, spokenChord, spokenName } from '$core/chords/spoken';
import { decimalsIn } from '$core/keys/numerals';
import { inLetters, NAME_PATTERN, nameNote } from '$core/notes/naming';
import { type Interval } from '$core/notes/notes';
import { namesNow } from './names.svelte';

const SIGNS: Readonly<Record<string, string>> = { b: '♭', '#': '♯', x: '𝄪' };

const withSigns = (accidentals: string): string =>
  [...accidentals].map((sign) => SIGNS[sign] ?? sign).join('');

/** `E♭`, `F𝄪`. */
export const showNote = (note: Note): string => {
  const name = noteName(note);
  return nameNote(name.slice(0, 1), withSigns(name.slice(1)), namesNow().notes);
};

const showName = (name: string): string =>
  withSigns(name.replace(/\d+$/u, '')) + (/\d+$/u.exec(name)?.[0] ?? '');

/** `♭3`, `♯4`. */
export const showDegree = (degree: Interval): string => showName(degreeName(degree));

/** A degree over a chord, as a tension where it is one there: `♭3`, `♭9`, `♯11`. */
export const showOver = (chord: Chord, degree: Interval): string =>
  showName(tensionOver(chord, degree));

const withAllSigns = (text: string): string =>
  text
    .replace(/Δ/gu, '△')
    .replace(
      /(?<=^|[/\s(,])([A-G])(bb|##|[b#x])/gu,
      (_, letter: string, accidental: string) => letter + withSigns(accidental),
    )
    .replace(/([b#])(?=\d|[IVXivx])/gu, (sign) => SIGNS[sign] ?? sign)
    .replace(/^([b#]+)(?=♭|♯)/u, withSigns);

/** A chord symbol, numeral, collection's name or sentence as typed, with signs and the player's own names. */
export function showSymbol(symbol: string): string {
  const { notes, numerals } = namesNow();
  return renameIn(withAllSigns(numerals === 'decimal' ? decimalsIn(symbol) : symbol), notes);
}

/** A note as it is spoken: "B flat". */
export const speakNote = (note: Note): string =>
  renameSpoken(spokenName(noteName(note)), namesNow().notes);

/** A chord as it is spoken: "B flat major 7". */
export const speakChord = (chord: Chord): string =>
  renameSpoken(spokenChord(chord), namesNow().notes);

const SIGNED = new RegExp(`\\b${NAME_PATTERN}(?:bb|##|[b#x])(?![a-z0-9])`, 'gu');

/** A sentence with notes in it as it is spoken: "B flat stays". */
export const speakSentence = (sentence: string): string =>
  renameIn(sentence, namesNow().notes).replace(SIGNED, spokenName);

const PITCH = /^([A-G][#bx♯♭]*)(\d)$/u;

/** A chord of a chart's text, a note or a pitch as the player would type it. */
export function asTyped(text: string): string {
  const { notes } = namesNow();
  const [, name = '', octave = ''] = (parseChord(text) === null && PITCH.exec(text)) || [];
  return name === '' ? renameIn(text, notes) : renameIn(name, notes) + octave;
}

/** What the player typed by his own names, as a chart's text has it: his `B7` is `Bb7` where B is H. */
export function fromTyped(text: string): string {
  const { notes } = namesNow();
  const german = notes === 'german' ? text.replace(/(?<=^|\/)[Bb](?![b♭#♯x])/gu, 'Bb') : text;
  const lettered = inLetters(german, notes === 'sol-fa');
  // What is a chord by its letters already stays one: E sus4, F add9.
  const kept = lettered !== german && notes !== 'sol-fa' && parseChord(german) !== null;
  return kept ? german : lettered;
}
