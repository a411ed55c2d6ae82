/** What plays, as files: a track or a staff for each part. */
import type { BandForm } from '$core/band/form';
import { writeBandMidi } from '$core/formats/band/midi';
import { writeBandScore } from '$core/formats/band/musicxml';
import { type BandTrack, DRUM_KEYS, type TrackNote } from '$core/formats/band/tracks';
import type { Feel } from '$core/time/feel';
import type { BeatsPerMinute } from '$core/time/units';
import type { Programme, SoundEvent } from '$lib/audio/programme';

/** The parts of a file in their order, with General MIDI's instruments. */
const TRACKS: readonly (readonly [
  part: BandTrack['part'],
  name: string,
  program: number | null,
])[] = [
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

/** One pass as it is written, of a form at a tempo. */
export interface Written {
  readonly title: string;
  readonly programme: Programme;
  readonly form: BandForm;
  readonly feel: Feel | null;
  readonly bpm: BeatsPerMinute;
}

/** What a file holds of it; a part that does not play has no track. */
function fileOf({ title, programme, form, bpm }: Written) {
  const events = programme.eventsBetween(programme.start, programme.length);
  const tracks = TRACKS.flatMap(([part, name, program]): readonly BandTrack[] => {
    const notes = events.filter((one) => one.part === part).flatMap((one) => noteOf(one) ?? []);
    return notes.length > 0 ? [{ part, name, program, notes }] : [];
  });
  return { title, time: form.time, tempo: [{ beat: 0, bpm }], tracks };
}

export const passMidi = (written: Written): Uint8Array => writeBandMidi(fileOf(written));

export function passScore(written: Written): string {
  const { form, feel } = written;
  const key = form.chords[0]?.key ?? null;
  const one = form.chords.every((chord) => chord.key?.tonic === key?.tonic);
  return writeBandScore({
    ...fileOf(written),
    feel,
    beats: form.beats,
    chords: form.chords,
    key: one ? key : null,
  });
}
