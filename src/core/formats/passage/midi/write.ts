/** A passage as a Standard MIDI File, each string on a channel of its own as guitar synthesisers do. */
import { pitchAt } from '../../../neck/neck';
import type { Passage, PlayedNote } from '../../../phrases/passage';
import { lostTechniques, techniqueOf, WIDEST_BEND } from '../../../phrases/techniques';
import { barsOf } from '../../../time/metre';
import { DEFAULT_TEMPO } from '../../../time/tempo';
import {
  keyed,
  metred,
  midiFile,
  named,
  notePlayed,
  paced,
  pulsesIn,
  said,
  type Timed,
} from '../../midi';
import type { Written } from '../../result';
import { type Beats, inBeats } from '../../../time/units';

/** The clean electric guitar of General MIDI. */
const PROGRAM = 27;
const VELOCITY = { target: 0.85, approach: 0.62, fill: 0.7 } as const;
/** Steps of the pitch wheel to either side. */
const WHEEL = 8191;
/** Steps in which a string is bent, and the share of the note it takes. */
const BEND = { steps: 8, share: 0.25 } as const;

/** The registered parameter for how far a full bend reaches, set to what a string can be bent. */
const BEND_RANGE: readonly (readonly [controller: number, value: number])[] = [
  [101, 0],
  [100, 0],
  [6, WIDEST_BEND],
  [38, 0],
];

/** How far a string is bent at a share of the note, in half steps. */
function bentAt(share: number, by: number, release: boolean): number {
  const up = Math.min(1, share / BEND.share);
  if (!release || share < 1 - BEND.share) return by * up;
  return by * Math.max(0, (1 - share) / BEND.share);
}

/** The file, with what of the passage it cannot hold. */
export function writeMidi(passage: Passage): Written<Uint8Array> {
  const { title, key, time, metreChanges, pickUp, feel, tempo, beats, notes, neck } = passage;
  const pulseAt = (beat: Beats) => Math.max(0, pulsesIn(beat + pickUp, time.unit));
  const bars = barsOf(time, metreChanges, beats, pickUp);
  const signatures = bars.flatMap((bar, index) => {
    const before = bars[index - 1];
    const [count, unit] =
      bar.number === 0 ? pickUpSignature(pickUp, time.unit) : [bar.time.beats, bar.time.unit];
    const same = before?.number !== 0 && before?.time.beats === count && before.time.unit === unit;
    return same ? [] : [metred(pulseAt(bar.beat), count, unit)];
  });
  const head = [
    named(title),
    ...(feel ? [said(`feel: ${feel.name}`)] : []),
    ...(key ? [keyed(key)] : []),
    paced(0, ((tempo ?? DEFAULT_TEMPO) * 4) / time.unit),
    ...signatures,
  ];
  const strings = [...new Set(notes.map(({ string }) => string))].sort((a, b) => a - b);
  const tracks = strings.map((string) => {
    const own = notes.filter((one) => one.string === string);
    const channel = string - 1;
    const bent = own.some(({ techniques }) => techniqueOf(techniques, 'bend'));
    return [
      named(`String ${string}`),
      { at: 0, event: { type: 'programChange', channel, programNumber: PROGRAM } },
      ...(bent ? BEND_RANGE : []).map(([controllerType, value]): Timed => ({
        at: 0,
        event: { type: 'controller', channel, controllerType, value },
      })),
      ...own.flatMap((note) => {
        const at = pulseAt(note.beat);
        const struck = notePlayed({
          channel,
          midi: pitchAt(neck, note),
          at,
          length: pulsesIn(note.beats, time.unit),
          velocity: VELOCITY[note.part],
        });
        const bends = bendsOf(note, time.unit).map(({ pulses, value }): Timed => ({
          at: at + pulses,
          event: { type: 'pitchBend', channel, value: Math.round(value * WHEEL) },
        }));
        return [...struck, ...bends];
      }),
    ] satisfies readonly Timed[];
  });
  const remarks = lostTechniques(notes, ['bend'], 'A MIDI file');
  return { content: midiFile([head, ...tracks]), remarks };
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
    pulses: Math.min(length - 1, Math.round(share * length)),
    value: bentAt(share, bend.by, bend.release ?? false) / WIDEST_BEND,
  });
  const steps = Array.from({ length: BEND.steps }, (_, step) => (step + 1) / BEND.steps);
  const up = steps.map((share) => place(share * BEND.share));
  const down = bend.release ? steps.map((share) => place(1 - BEND.share * (1 - share))) : [];
  return [...up, ...down, { pulses: length, value: 0 }];
}
