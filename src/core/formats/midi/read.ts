/** Melodies from Standard MIDI Files. */
import midi from '@tonejs/midi';
import { fretFor, type Neck, type Place, stringCount } from '../../neck/neck';
import type { Note } from '../../notes/notes';
import type { Midi } from '../../notes/pitch';
import { type Passage, struck } from '../../phrases/played';
import { placePitches } from '../placing';
import { simplestPitch } from '../spelling';

export type PassageResult =
  | { readonly ok: true; readonly passage: Passage }
  | { readonly ok: false; readonly message: string };

/** Notes of the largest melody read. */
export const NOTE_LIMIT = 20_000;

interface Struck {
  readonly pitch: Midi;
  readonly ticks: number;
  readonly length: number;
  readonly string: number | null;
}

const refuse = (message: string): PassageResult => ({ ok: false, message });

/** The string a channel stands for, where every note fits it: then the places are known too. */
function onOwnStrings(neck: Neck, notes: readonly Struck[]): readonly Place[] | null {
  const places = notes.map(({ pitch, string }): Place | null => {
    if (string === null || string > stringCount(neck)) return null;
    const fret = fretFor(neck, string, pitch);
    return fret === null ? null : { string, fret };
  });
  return places.every((place) => place !== null) ? places : null;
}

const TRACK = /^String (\d)$/u;

/** Reads a melody on a neck; `spell` names each pitch by where it stands. */
export function readMidi(
  bytes: Uint8Array,
  neck: Neck,
  spell: (midi: Midi, beat: number) => Note = simplestPitch,
): PassageResult {
  let file: InstanceType<typeof midi.Midi>;
  try {
    file = new midi.Midi(bytes);
  } catch {
    return refuse('This is no Standard MIDI File, or it is damaged.');
  }
  const notes = file.tracks
    .flatMap(({ notes: own, channel, name }) =>
      own.map(({ midi: pitch, ticks, durationTicks }): Struck => {
        // The percussion channel holds no pitches.
        const string = TRACK.test(name) && channel < 8 ? channel + 1 : null;
        return { pitch: channel === 9 ? -1 : pitch, ticks, length: durationTicks, string };
      }),
    )
    .filter(({ pitch }) => pitch >= 0)
    .sort((a, b) => a.ticks - b.ticks || a.pitch - b.pitch);
  if (notes.length === 0) return refuse('This file holds no notes.');
  if (notes.length > NOTE_LIMIT) return refuse('This file holds too many notes for a melody.');
  const places =
    onOwnStrings(neck, notes) ??
    placePitches(
      neck,
      notes.map(({ pitch }) => pitch),
    );
  if (!places) return refuse('Some notes of this file lie off the neck.');
  const [beats = 4, unit = 4] = file.header.timeSignatures[0]?.timeSignature ?? [];
  const perBeat = (file.header.ppq * 4) / unit;
  const tempo = file.header.tempos[0]?.bpm;
  const played = notes.map(({ pitch, ticks, length }, index) => {
    const { string = 1, fret = 0 } = places[index] ?? {};
    const beat = ticks / perBeat;
    return struck({
      ...{ beat, beats: length / perBeat, string, fret },
      note: spell(pitch, beat),
      chord: null,
    });
  });
  const end = played.reduce((last, note) => Math.max(last, note.beat + note.beats), 0);
  return {
    ok: true,
    passage: {
      title: file.name,
      time: { beats, unit: unit as Passage['time']['unit'] },
      tempo: tempo === undefined ? null : Math.round((tempo * unit) / 4),
      beats: Math.max(beats, Math.ceil(end / beats - 1e-6) * beats),
      neck,
      chords: [],
      notes: played,
    },
  };
}
