/** Passages from Standard MIDI Files. */
import midi from '@tonejs/midi';
import { type Key, parseKey } from '../../../keys/keys';
import { fretFor, type Neck, type Place, stringCount } from '../../../neck/neck';
import type { Note } from '../../../notes/notes';
import type { Midi } from '../../../notes/pitch';
import { simplestPitch } from '../../../notes/spelling';
import { inTime, PLAIN_PASSAGE, struck } from '../../../phrases/passage';
import { bendBy, type Technique } from '../../../phrases/techniques';
import { readFeel } from '../../../time/feel';
import {
  barOf,
  DEFAULT_TIME,
  type MetreChange,
  quarterOf,
  type TimeSignature,
} from '../../../time/metre';
import { wordsOf } from '../../midi';
import { ontoNeck } from '../ontoNeck';
import { NOTE_LIMIT, type PassageResult, refused } from '../../result';
import type { Beats } from '../../../time/units';

type File = InstanceType<typeof midi.Midi>;

interface StruckNote {
  readonly pitch: Midi;
  readonly ticks: number;
  readonly length: number;
  readonly string: number | null;
  readonly techniques: readonly Technique[];
}

/** The string a channel stands for, where every note fits it: then the places are known too. */
function onOwnStrings(neck: Neck, notes: readonly StruckNote[]): readonly Place[] | null {
  const places = notes.map(({ pitch, string }): Place | null => {
    if (string === null || string > stringCount(neck)) return null;
    const fret = fretFor(neck, string, pitch);
    return fret === null ? null : { string, fret };
  });
  return places.every((place) => place !== null) ? places : null;
}

const TRACK = /^String (\d)$/u;
const PERCUSSION = 9;
/** Half steps of a full bend where the file sets no range. */
const USUAL_RANGE = 2;
/** A string bent by less is only out of tune. */
const LEAST_BEND = 0.5;

type Track = File['tracks'][number];

function bendRange({ controlChanges }: Track): number {
  const coarse = (number: number) => controlChanges[number]?.[0]?.value;
  const bendChosen = coarse(101) === 0 && coarse(100) === 0;
  const range = coarse(6);
  return bendChosen && range !== undefined ? Math.round(range * 127) : USUAL_RANGE;
}

function techniquesIn(track: Track, from: number, to: number): readonly Technique[] {
  const range = bendRange(track);
  const inside = track.pitchBends.filter(({ ticks }) => ticks >= from && ticks < to);
  const bent = inside.map(({ value }) => value * range);
  const most = Math.max(0, ...bent);
  return most < LEAST_BEND ? [] : [bendBy(most, (bent.at(-1) ?? 0) < most / 2)];
}

function notesOf(file: File): readonly StruckNote[] {
  return file.tracks
    .filter(({ channel }) => channel !== PERCUSSION)
    .flatMap((track) =>
      track.notes.map(({ midi: pitch, ticks, durationTicks }): StruckNote => {
        const { name, channel } = track;
        return {
          pitch,
          ticks,
          length: durationTicks,
          string: TRACK.test(name) && channel < 8 ? channel + 1 : null,
          techniques: techniquesIn(track, ticks, ticks + durationTicks),
        };
      }),
    )
    .sort((a, b) => a.ticks - b.ticks || a.pitch - b.pitch);
}

interface ReadMetre {
  readonly time: TimeSignature;
  readonly metreChanges: readonly MetreChange[];
  /** Pulses of the pick-up. */
  readonly pickUp: number;
  /** Time in pulses of the file. */
  readonly timeOf: (pulses: number) => Beats;
}

/** The metre of a file; a first bar shorter than those of a second signature is a pick-up. */
function metreOf({ header: { timeSignatures, ppq } }: File): ReadMetre {
  const signs = timeSignatures.map(({ ticks, timeSignature }) => {
    const [beats = DEFAULT_TIME.beats, unit = DEFAULT_TIME.unit] = timeSignature;
    return { ticks, time: { beats, unit }, bar: (beats * ppq * 4) / unit };
  });
  const [first, second] = signs;
  const timeIn =
    ({ unit }: TimeSignature) =>
    (pulses: number): Beats =>
      Math.round((pulses * quarterOf(unit)) / ppq);
  if (!first)
    return { time: DEFAULT_TIME, metreChanges: [], pickUp: 0, timeOf: timeIn(DEFAULT_TIME) };
  const short = second?.ticks === first.bar && first.bar < second.bar;
  const [start, ...rest] = short ? signs.slice(1) : signs;
  const { time } = start ?? first;
  const pickUp = short ? first.bar : 0;
  const timeOf = timeIn(time);
  return {
    time,
    pickUp,
    timeOf,
    metreChanges: rest.map((one) => ({ beat: timeOf(one.ticks - pickUp), time: one.time })),
  };
}

function keyOf({ header: { keySignatures } }: File): Key | null {
  const [signature] = keySignatures;
  if (!signature) return null;
  // The format names the signature by its major tonic, whatever the scale.
  const major = parseKey(signature.key);
  if (!major || signature.scale !== 'minor') return major;
  return { tonic: (major.tonic + 3) as Note, mode: 'minor' };
}

/** Reads a passage on a neck; `spell` names each pitch by where it stands. */
export function readMidi(
  bytes: Uint8Array,
  neck: Neck,
  spell: (midi: Midi, beat: Beats) => Note = simplestPitch,
): PassageResult {
  let file: File;
  try {
    file = new midi.Midi(bytes);
  } catch {
    return refused('This is no Standard MIDI File, or it is damaged.');
  }
  const notes = notesOf(file);
  if (notes.length === 0) return refused('This file holds no notes.');
  if (notes.length > NOTE_LIMIT) return refused('This file holds too many notes for a melody.');
  const own = onOwnStrings(neck, notes);
  const laid = own
    ? { places: own, moved: [], remarks: [] }
    : ontoNeck(
        neck,
        notes.map(({ pitch }) => pitch),
      );
  if (!laid) return refused('The notes of this file find no place on the neck.');
  const { places, moved, remarks } = laid;
  const { time, metreChanges, pickUp, timeOf } = metreOf(file);
  const tempo = file.header.tempos[0]?.bpm;
  const feel = file.header.meta.find(({ text }) => text.startsWith('feel: '))?.text.slice(6);
  const played = notes.map(({ pitch, ticks, length, techniques }, index) => {
    const { string = 1, fret = 0 } = places[index] ?? {};
    const beat = timeOf(ticks - pickUp);
    return struck({
      beat,
      beats: timeOf(length),
      string,
      fret,
      techniques,
      note: spell(pitch + (moved[index] ?? 0), beat),
      chord: null,
    });
  });
  const end = played.reduce((last, note) => Math.max(last, note.beat + note.beats), 0);
  return {
    ok: true,
    passage: {
      ...PLAIN_PASSAGE,
      title: wordsOf(file.name),
      key: keyOf(file),
      time,
      metreChanges,
      pickUp: timeOf(pickUp),
      feel: readFeel(feel ?? null),
      tempo: tempo === undefined ? null : Math.round((tempo * time.unit) / 4),
      beats: Math.max(1, Math.ceil(end / barOf(time))) * barOf(time),
      neck,
      notes: inTime(played),
    },
    remarks,
  };
}
