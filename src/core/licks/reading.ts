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
import { techniqueOf } from '../phrases/techniques';
import { type Heard, hearChanges, strongBeats } from './heard';
import { type NoteRole, rolesOf } from './roles';
import { chordIndexAt, heardPitch, type LickNote, speller } from './sounding';

/** A note with what it is over a chord; no degree where none sounds. */
export interface ToneRead {
  readonly note: Note;
  readonly degree: Interval | null;
}

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
}

/** What meets a chord. */
export interface LandingRead {
  readonly chord: number;
  /** Index of the note; null where none begins there. */
  readonly by: number | null;
  readonly note: Note | null;
  readonly degree: Interval | null;
  readonly sentence: string;
}

export interface LickRead {
  readonly notes: readonly NoteRead[];
  readonly landings: readonly LandingRead[];
  readonly last: ToneRead | null;
  readonly heard: Heard;
}

const CLOSE = 1e-6;
/** A landing begins from half a beat before its chord to the end of its first beat. */
const WINDOW = { before: 0.5, after: 1 } as const;

function landingsOf(
  chart: Chart,
  key: Key | null,
  neck: Neck,
  notes: readonly LickNote[],
): readonly LandingRead[] {
  return chart.chords.flatMap(({ chord, index, beat }): readonly LandingRead[] => {
    const before = chart.chords[index - 1];
    if (before && sameChord(before.chord, chord)) return [];
    const by = notes.findIndex(
      (note) =>
        note.beat >= beat - WINDOW.before - CLOSE && note.beat < beat + WINDOW.after - CLOSE,
    );
    const name = chordName({ ...chord, bass: null });
    if (by < 0) {
      const sentence = `Nothing lands on ${name}.`;
      return [{ chord: index, by: null, note: null, degree: null, sentence }];
    }
    const landing = at(notes, by);
    const note = speller(chord, key)(pitchAt(neck, landing));
    const degree = degreeOver(chord, note);
    const when =
      landing.beat < beat - CLOSE
        ? ', ahead of it'
        : landing.beat > beat + CLOSE
          ? ', after it'
          : '';
    const sentence = `${noteName(note)} lands on the ${spokenOver(chord, degree)} of ${name}${when}.`;
    return [{ chord: index, by, note, degree, sentence }];
  });
}

/** The chord a note comes ahead of: it begins within half a beat before it, and rings on into it. */
function anticipated({ chords }: Chart, { beat, beats }: LickNote): Chord | null {
  const next = chords.find((one) => one.beat > beat + CLOSE);
  if (!next || next.beat - beat > WINDOW.before + CLOSE) return null;
  return beat + beats - next.beat > next.beat - beat - CLOSE ? next.chord : null;
}

/**
 * Reads a lick, its notes in order of time.
 *
 * @example
 * readLick(chart, key, STANDARD_NECK, notes).notes[0]?.role // 'chord tone'
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
      ...{ index, midi, chord },
      role: at(roles, index),
      strong: strong(note.beat),
      bent: bend ? tone(chord, midi + bend.by) : null,
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
