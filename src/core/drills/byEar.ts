/** Drills by ear: a quality, a degree of the key, a note over a chord. */
import { type Chord, chordNotes } from '../chords/chords';
import { spokenOver, tensionOver } from '../chords/over';
import { parseChord } from '../chords/symbols';
import { type Key, keyName, keyScale } from '../keys/keys';
import { lookUp } from '../lists';
import { degreeName, degrees } from '../notes/degrees';
import { type Note, note, noteName, pitchClass, transpose } from '../notes/notes';
import { climbing, type Midi, pitchAtOrAbove } from '../notes/pitch';
import type { Drill } from './kinds';
import { chordsOf, type Making, named, pick, plain, shuffled, spelled } from './making';

/** Qualities told apart by ear, in the words of chord symbols, each with those it is taken for, the likeliest first. */
const QUALITIES: Readonly<Record<string, readonly string[]>> = {
  maj7: ['maj7#11', '6', '7', 'mmaj7'],
  '6': ['maj7', 'm6', '7', 'm7'],
  'maj7#11': ['maj7', '7', 'mmaj7', '6'],
  '7': ['7sus4', 'm7', 'maj7', '7alt'],
  '7sus4': ['7', 'm7', '6', 'maj7'],
  '7alt': ['7', 'm7b5', 'dim7', '7sus4'],
  m7: ['m6', '7', 'm7b5', '7sus4'],
  m6: ['m7', '6', 'mmaj7', 'm7b5'],
  mmaj7: ['m6', 'maj7', 'm7', 'maj7#11'],
  m7b5: ['dim7', 'm7', 'm6', '7alt'],
  dim7: ['m7b5', '7alt', 'm6', '7'],
};
const FLOOR: Midi = 48;

const voiced = (chord: Chord): readonly Midi[] => climbing(chordNotes(chord), FLOOR);

const chordOn = (root: Note, name: string): Chord => {
  const chord = parseChord(noteName(root) + name);
  if (!chord) throw new Error(name);
  return chord;
};

/** Two, five, one in a key: by it what is heard next has a place. */
function cadence({ tonic }: Pick<Key, 'tonic'>): readonly (readonly Midi[])[] {
  const up = (fifths: number) => (tonic + fifths) as Note;
  return [chordOn(up(2), 'm7'), chordOn(up(1), '7'), chordOn(tonic, 'maj7')].map(voiced);
}

const C_MAJOR: Key = { tonic: note('C'), mode: 'major' };

/** Asks for the quality of a chord that is heard. */
export function hearQuality(making: Making): Drill {
  const key = making.key ?? C_MAJOR;
  const symbols = chordsOf(making).map(({ quality }) => quality.name);
  const all = Object.keys(QUALITIES);
  // What the chart's own chords are comes twice as often.
  const name = pick(making, [...all, ...all.filter((one) => symbols.includes(one))]);
  const chord = chordOn(key.tonic, name);
  return plain(making, 'hear-quality', {
    prompt: `A cadence in ${keyName(key)}, then a chord on ${noteName(key.tonic)}: which quality is it?`,
    asks: 'choice',
    choices: shuffled(making, [name, ...(lookUp(QUALITIES, name) ?? [])]),
    answer: { choice: name },
    sentence: `It is ${named(chord)}: ${spelled(chordNotes(chord))}.`,
    heard: [...cadence(key), voiced(chord)],
  });
}

/** What may sound over a chord besides its own tones: the ninth, and what stands with its third. */
const ADDED = { major: degrees('9 #11 13'), minor: degrees('9 11') } as const;

/** Asks for the degree of a note that is heard over a chord. */
export function hearOverChord(making: Making): Drill {
  const chord = pick(making, chordsOf(making));
  const own = chord.quality.degrees;
  const isMajor = own.some((one) => degreeName(one) === '3');
  const held = new Set(own.map((one) => pitchClass(transpose(chord.root, one))));
  const added = ADDED[isMajor ? 'major' : 'minor'].filter(
    (one) => !held.has(pitchClass(transpose(chord.root, one))),
  );
  const choices = [...own, ...added];
  const degree = pick(making, choices);
  const sounding = transpose(chord.root, degree);
  return plain(making, 'hear-over-chord', {
    prompt: `You hear ${named(chord)}, then one note over it: which degree of the chord is it?`,
    asks: 'degree',
    choices: choices.map((one) => tensionOver(chord, one)),
    answer: { degree: tensionOver(chord, degree) },
    sentence: `It is ${noteName(sounding)}, the ${spokenOver(chord, degree)} of ${named(chord)}.`,
    heard: [voiced(chord), [pitchAtOrAbove(sounding, Math.max(...voiced(chord)) + 1)]],
  });
}

/** Asks for the degree of a note that is heard in a key. */
export function hearDegree(making: Making): Drill {
  const key = making.key ?? C_MAJOR;
  const degree = pick(making, keyScale(key));
  const sounding = transpose(key.tonic, degree);
  return plain(making, 'hear-degree', {
    prompt: `A cadence in ${keyName(key)}, then one note: which degree of the key is it?`,
    asks: 'degree',
    choices: keyScale(key).map(degreeName),
    answer: { degree: degreeName(degree) },
    sentence: `It is ${noteName(sounding)}, the ${degreeName(degree)} of ${keyName(key)}.`,
    heard: [...cadence(key), [pitchAtOrAbove(sounding, 60)]],
  });
}
