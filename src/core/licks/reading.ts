/** A lick read against its chords: degrees, roles, landings, and whether the changes are heard. */
import type { Chart } from '../chart/form';
import { type Chord, chordName, sameChord } from '../chords/chords';
import { degreeOver, spokenOver } from '../chords/over';
import { findBlues } from '../harmony/blues';
import { changesOf } from '../harmony/changes';
import type { Key } from '../keys/keys';
import { at } from '../lists';
import { type Neck, pitchAt } from '../neck/neck';
import { type Interval, noteName, type Note } from '../notes/notes';
import { simplestPitch } from '../notes/spelling';
import type { Midi } from '../notes/pitch';
import { type How, isAnticipated, meetingOf, onTime } from '../phrases/landing';
import { fallsBackward } from '../phrases/backward';
import { techniqueOf } from '../phrases/techniques';
import { DEFAULT_TEMPO } from '../time/tempo';
import { type Heard, hearChanges, strongBeats } from './heard';
import { type NoteRole, rolesOf } from './roles';
import { chordIndexAt, heardPitch, landingPitch, type LickNote, speller } from './sounding';

/** A note with what it is over a chord; no degree where none sounds. */
export interface ToneRead {
  readonly note: Note;
  readonly degree: Interval | null;
}

/** A note of a lick as it reads over the chord under it. */
export interface NoteRead extends LickNote, ToneRead {
  readonly index: number;
  readonly midi: Midi;
  /** Index of the chord sounding when it begins; null where none does. */
  readonly chord: number | null;
  /** What it is for, at the pitch it is bent to. */
  readonly role: NoteRole;
  /** Whether it begins on a strong beat. */
  readonly strong: boolean;
  /** What it is bent to; null where it is not. */
  readonly bent: ToneRead | null;
  /** Whether the third of its dominant has just fallen to it, the minor third: it sounds backward. */
  readonly backward: boolean;
}

/** What meets a chord. */
interface LandingRead {
  readonly chord: number;
  /** Index of the note; null where none meets it. */
  readonly by: number | null;
  /** At the pitch that is heard. */
  readonly note: Note | null;
  readonly degree: Interval | null;
  readonly how: How | null;
  /** What it is bent to, which is what is heard; null where it is not bent. */
  readonly bent: ToneRead | null;
  readonly sentence: string;
}

interface LickRead {
  readonly notes: readonly NoteRead[];
  readonly landings: readonly LandingRead[];
  readonly last: ToneRead | null;
  readonly heard: Heard;
}

const HOW_WORDS: Readonly<Record<How, string>> = {
  on: '',
  anticipated: ', before the chord comes',
  delayed: ', after the note that leads to it',
  after: ', after the chord has come',
};

function landingsOf(
  chart: Chart,
  key: Key | null,
  neck: Neck,
  notes: readonly LickNote[],
): readonly LandingRead[] {
  const sounding = notes.map(({ beat, beats, ...note }) => ({
    beat,
    beats,
    midi: landingPitch(neck, note),
    grace: techniqueOf(note.techniques, 'grace') !== undefined,
  }));
  const tolerance = onTime(chart.source.tempo ?? DEFAULT_TEMPO);
  return chart.chords.flatMap((played): readonly LandingRead[] => {
    const { chord, index } = played;
    const before = chart.chords[index - 1];
    if (before && sameChord(before.chord, chord)) return [];
    const name = chordName({ ...chord, bass: null });
    const met = meetingOf(sounding, played, tolerance);
    if (!met) {
      const sentence = `Nothing lands on ${name}.`;
      const none = { by: null, note: null, degree: null, how: null, bent: null };
      return [{ chord: index, ...none, sentence }];
    }
    const { by, how } = met;
    const landing = at(notes, by);
    const spell = speller(chord, key);
    const note = spell(at(sounding, by).midi);
    const degree = degreeOver(chord, note);
    const bend = techniqueOf(landing.techniques, 'bend');
    const from = bend ? `${noteName(spell(pitchAt(neck, landing)))} bent to ` : '';
    const lands = `${from}${noteName(note)} lands on the ${spokenOver(chord, degree)} of ${name}`;
    return [
      {
        chord: index,
        by,
        note,
        degree,
        how,
        bent: bend ? { note, degree } : null,
        sentence: `${lands}${HOW_WORDS[how]}.`,
      },
    ];
  });
}

/** The chord a note comes ahead of: it begins within a beat before it, and is held into it. */
function anticipated({ chords }: Chart, note: LickNote): Chord | null {
  const next = chords.find((one) => one.beat > note.beat);
  return next && isAnticipated([], { ...note, midi: 0 }, next) ? next.chord : null;
}

interface Follows {
  readonly index: number;
  readonly midi: Midi;
  readonly chord: Chord | null;
  readonly grace: boolean;
}

/** The notes that sound backward, of notes in order of time; a grace is heard with the note it leads to. */
function backwardIn(notes: readonly Follows[]): ReadonlySet<number> {
  const heard = notes.filter(({ grace }) => !grace);
  return new Set(
    heard.slice(1).flatMap(({ index, midi, chord }, place) => {
      const before = at(heard, place);
      const same = chord !== null && before.chord !== null && sameChord(before.chord, chord);
      return same && fallsBackward(chord, before.midi, midi) ? [index] : [];
    }),
  );
}

/** What sounds backward, in words: each place once. */
export function backwardSays({ notes }: LickRead): readonly string[] {
  const said = notes.flatMap(({ backward, note }, index) => {
    const before = notes[index - 1];
    if (!backward || !before) return [];
    const [major, minor] = [noteName((before.bent ?? before).note), noteName(note)];
    return [`${major} falls to ${minor}: it sounds backward. Let ${minor} rise to ${major}.`];
  });
  return [...new Set(said)];
}

/**
 * Reads a lick, its notes in order of time.
 *
 * @example readLick(chart, key, STANDARD_NECK, notes).notes[0]?.role // 'chord tone'
 */
export function readLick(
  chart: Chart,
  key: Key | null,
  neck: Neck,
  notes: readonly LickNote[],
): LickRead {
  const strong = strongBeats(chart.source.time);
  const chords = notes.map(({ beat }) => chordIndexAt(chart, beat));
  const chordOf = (index: number | null): Chord | null =>
    index === null ? null : at(chart.chords, index).chord;
  const blues = chart.chords.length > 0 ? findBlues(changesOf(chart.chords)) : null;
  const roles = rolesOf(
    notes.map((note, index) => ({
      midi: heardPitch(neck, note),
      beat: note.beat,
      beats: note.beats,
      strong: strong(note.beat),
      chord: chordOf(at(chords, index)),
      ahead: anticipated(chart, note),
    })),
    blues?.tonic ?? null,
  );
  const backward = backwardIn(
    notes.map((note, index) => ({
      index,
      midi: heardPitch(neck, note),
      // What is held into the next chord is heard as its tone: the third that moves.
      chord: anticipated(chart, note) ?? chordOf(at(chords, index)),
      grace: techniqueOf(note.techniques, 'grace') !== undefined,
    })),
  );
  const spellers = new Map<number, (midi: Midi) => Note>();
  const spell = (index: number, midi: Midi): Note => {
    const known = spellers.get(index) ?? speller(at(chart.chords, index).chord, key);
    spellers.set(index, known);
    return known(midi);
  };
  const tone = (index: number | null, midi: Midi): ToneRead => {
    const chord = chordOf(index);
    if (index === null || !chord) return { note: simplestPitch(midi), degree: null };
    const note = spell(index, midi);
    return { note, degree: degreeOver(chord, note) };
  };
  const read = notes.map((note, index): NoteRead => {
    const chord = at(chords, index);
    const midi = pitchAt(neck, note);
    const bend = techniqueOf(note.techniques, 'bend');
    return {
      ...note,
      ...tone(chord, midi),
      index,
      midi,
      chord,
      role: at(roles, index),
      strong: strong(note.beat),
      bent: bend ? tone(chord, midi + bend.by) : null,
      backward: backward.has(index),
    };
  });
  const last = read.at(-1);
  return {
    notes: read,
    landings: landingsOf(chart, key, neck, notes),
    last: last ? (last.bent ?? { note: last.note, degree: last.degree }) : null,
    heard: hearChanges(chart, neck, notes),
  };
}
