/** A passage as a Standard MIDI File, each string on a channel of its own as guitar synthesisers do. */
import midi from '@tonejs/midi';
import { parseMidi, writeMidi as encodeMidi } from 'midi-file';
import { type Key, signatureOf } from '../../../keys/keys';
import { pitchAt } from '../../../neck/neck';
import type { Passage, PlayedNote } from '../../../phrases/passage';
import { lostTechniques, techniqueOf, WIDEST_BEND } from '../../../phrases/techniques';
import { barsOf, quarterOf } from '../../../time/metre';
import { DEFAULT_TEMPO } from '../../../time/tempo';
import type { Written } from '../../result';
import { type Beats, inBeats } from '../../../time/units';

/** Pulses of a quarter note in a file: sixteenths and triplets come out whole. */
export const PULSES = 480;

/**
 * Pulses in some time, where beats are counted in a unit.
 *
 * @example pulsesIn(BEAT / 3, 4); // 160
 */
export const pulsesIn = (length: Beats, unit: number): number =>
  Math.round((length * PULSES) / quarterOf(unit));
/** The clean electric guitar of General MIDI. */
const PROGRAM = 27;
const VELOCITY = { target: 0.85, approach: 0.62, fill: 0.7 } as const;
/** Steps in which a string is bent, and the share of the note it takes. */
/** Steps of the pitch wheel to either side. */
const WHEEL = 8191;
const BEND = { steps: 8, share: 0.25 } as const;

/** The registered parameter for how far a full bend reaches, set to what a string can be bent. */
const BEND_RANGE: readonly (readonly [controller: number, value: number])[] = [
  [101, 0],
  [100, 0],
  [6, WIDEST_BEND],
  [38, 0],
];

/** The file with a key signature, which the library above writes wrongly (read as another key). */
function withKeySignature(bytes: Uint8Array, key: Key): Uint8Array {
  const data = parseMidi(bytes);
  data.tracks[0]?.unshift({
    ...{ deltaTime: 0, meta: true, type: 'keySignature' },
    ...{ key: signatureOf(key), scale: key.mode === 'minor' ? 1 : 0 },
  });
  return new Uint8Array(encodeMidi(data));
}

/** How far a string is bent at a share of the note, in half steps. */
function bentAt(share: number, by: number, release: boolean): number {
  const up = Math.min(1, share / BEND.share);
  if (!release || share < 1 - BEND.share) return by * up;
  return by * Math.max(0, (1 - share) / BEND.share);
}

/** The file, with what of the passage it cannot hold. */
export function writeMidi(passage: Passage): Written<Uint8Array> {
  const { title, key, time, metreChanges, pickUp, feel, tempo, beats, notes, neck } = passage;
  const ticksAt = (beat: Beats) => Math.max(0, pulsesIn(beat + pickUp, time.unit));
  const bars = barsOf(time, metreChanges, beats, pickUp);
  const signatures = bars.flatMap((bar, index) => {
    const before = bars[index - 1];
    const [count, unit] =
      bar.number === 0 ? pickUpSignature(pickUp, time.unit) : [bar.time.beats, bar.time.unit];
    const same = before?.number !== 0 && before?.time.beats === count && before.time.unit === unit;
    return same ? [] : [{ ticks: ticksAt(bar.beat), timeSignature: [count, unit], measures: 0 }];
  });
  const file = new midi.Midi();
  file.header.fromJSON({
    name: title,
    ppq: PULSES,
    keySignatures: [],
    meta: feel ? [{ ticks: 0, type: 'text', text: `feel: ${feel.name}` }] : [],
    tempos: [{ ticks: 0, bpm: ((tempo ?? DEFAULT_TEMPO) * 4) / time.unit }],
    timeSignatures: signatures,
  });
  for (const string of [...new Set(notes.map((note) => note.string))].sort((a, b) => a - b)) {
    const own = notes.filter((one) => one.string === string);
    const track = file.addTrack();
    track.name = `String ${string}`;
    track.channel = string - 1;
    track.instrument.number = PROGRAM;
    if (own.some(({ techniques }) => techniqueOf(techniques, 'bend'))) {
      for (const [number, value] of BEND_RANGE) {
        track.addCC({ number, value: value / 127, ticks: 0 });
      }
    }
    for (const note of own) {
      track.addNote({
        midi: pitchAt(neck, note),
        ticks: ticksAt(note.beat),
        durationTicks: Math.max(1, pulsesIn(note.beats, time.unit)),
        velocity: VELOCITY[note.part],
      });
      for (const { ticks, value } of bendsOf(note, time.unit)) {
        // The library reads the wheel from -1 to 1 and writes it as it stands in the file.
        track.addPitchBend({ ticks: ticksAt(note.beat) + ticks, value: Math.round(value * WHEEL) });
      }
    }
  }
  const bytes = file.toArray();
  const content = key ? withKeySignature(bytes, key) : bytes;
  return { content, remarks: lostTechniques(notes, ['bend'], 'A MIDI file') };
}

/** A pick-up of whole or split beats as a bar of its own. */
function pickUpSignature(pickUp: Beats, unit: number): readonly [number, number] {
  let [count, of] = [inBeats(pickUp), unit];
  while (!Number.isInteger(count) && of < 32) [count, of] = [count * 2, of * 2];
  return [Math.max(1, Math.round(count)), of];
}

/** Places of the pitch wheel while a note is bent, and its rest after; -1 to 1 is the whole range. */
function bendsOf({ techniques, beats }: PlayedNote, unit: number) {
  const bend = techniqueOf(techniques, 'bend');
  if (!bend) return [];
  const length = Math.max(1, pulsesIn(beats, unit));
  const place = (share: number) => ({
    ticks: Math.min(length - 1, Math.round(share * length)),
    value: bentAt(share, bend.by, bend.release ?? false) / WIDEST_BEND,
  });
  const steps = Array.from({ length: BEND.steps }, (_, step) => (step + 1) / BEND.steps);
  const up = steps.map((share) => place(share * BEND.share));
  const down = bend.release ? steps.map((share) => place(1 - BEND.share * (1 - share))) : [];
  return [...up, ...down, { ticks: length, value: 0 }];
}
