/** What plays, as files: a MIDI file with a track for each part, or a WAV as it sounds. */
import { type BandTrack, DRUM_KEYS, type TrackNote, writeBandMidi } from '$core/formats/band/midi';
import type { TimeSignature } from '$core/time/metre';
import type { SoundPart } from '$lib/audio/parts';
import type { Programme, SoundEvent } from '$lib/audio/programme';

/** The parts of a file in their order, with General MIDI's instruments. */
const TRACKS: readonly (readonly [part: SoundPart, name: string, program: number | null])[] = [
  ['line', 'Line', 26],
  ['bass', 'Bass', 32],
  ['comp', 'Comping', 0],
  ['drums', 'Drums', null],
];

function noteOf(event: SoundEvent): TrackNote | null {
  if (event.part === 'click') return null;
  const { beat, beats, velocity } = event;
  const midi = event.part === 'drums' ? DRUM_KEYS[event.drum] : event.midi;
  return { beat, beats, velocity, midi };
}

/** One pass of a programme, as it is written, as a MIDI file; a part that does not play has no track. */
export function programmeMidi(
  programme: Programme,
  { title, time, bpm }: { title: string; time: TimeSignature; bpm: number },
): Uint8Array {
  const events = programme.eventsBetween(programme.start, programme.length);
  const tracks = TRACKS.flatMap(([part, name, program]): readonly BandTrack[] => {
    const notes = events.filter((one) => one.part === part).flatMap((one) => noteOf(one) ?? []);
    return notes.length > 0 ? [{ name, program, notes }] : [];
  });
  return writeBandMidi({ title, time, tempo: [{ beat: 0, bpm }], tracks });
}
