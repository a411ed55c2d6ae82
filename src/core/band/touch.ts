/**
 * How a band's strokes lie about the beat, and how loud each is: every part has a place of its own, and small
 * deviations that are the same for the same seed. Nothing drifts: each stroke deviates from the grid, not from
 * the stroke before. (Measured deviations of ensembles: Friberg and Sundström, "Swing ratios and ensemble
 * timing in jazz performance", Music Perception 19, 2002.)
 */
import { seeded } from '../random';
import type { FeelKind } from '../time/feel';
import type { BandEvent, Drum } from './events';

/** Milliseconds a part lies behind the beat on the average, and how far its strokes spread about that. */
type Place = readonly [behind: number, spread: number];

const PARTS: Readonly<Record<'bass' | 'comp', Place>> = { bass: [0, 4], comp: [7, 6] };
const KIT: Readonly<Record<Drum, Place>> = {
  ride: [-1, 3.5],
  hat: [0, 3.5],
  'open-hat': [0, 3.5],
  'pedal-hat': [1, 4],
  kick: [1, 4],
  snare: [6, 5],
  rim: [5, 4.5],
  tom: [4, 5],
  crash: [0, 4],
};

/** How freely each feel is played: funk is tight, a ballad is not. */
const LOOSE: Readonly<Record<FeelKind, number>> = {
  swing: 1,
  'two-beat': 1,
  shuffle: 1,
  straight: 0.9,
  rock: 0.9,
  bossa: 0.9,
  samba: 0.9,
  funk: 0.85,
  reggae: 1,
  'train beat': 0.9,
  ballad: 1.5,
  'jazz waltz': 1.1,
  'slow 12/8': 1.2,
  modal: 1.1,
};

/** No stroke lies further from its place than so many spreads. */
const FURTHEST = 2.2;
/** How far loudness spreads, as a share; voices of one chord are rolled by so many milliseconds. */
const LOUDNESS = 0.08;
const ROLL = 1.2;

/** Drawn about 0 with a spread of 1, as a sum of three. */
const spread = (chance: () => number): number => {
  const sum = 2 * (chance() + chance() + chance() - 1.5);
  return Math.max(-FURTHEST, Math.min(FURTHEST, sum));
};

/** The events as hands play them: each a little early or late, a little louder or softer. */
export function touched(
  events: readonly BandEvent[],
  feel: FeelKind,
  seed: number,
): readonly BandEvent[] {
  const chance = seeded(seed + 0x70c4);
  const loose = LOOSE[feel];
  let stroke = { beat: Number.NEGATIVE_INFINITY, late: 0, loud: 1, voice: 0 };
  return events.map((event): BandEvent => {
    const [behind, own] = event.part === 'drums' ? KIT[event.drum] : PARTS[event.part];
    const together = event.part === 'comp' && event.beat === stroke.beat;
    const late = together ? stroke.late : behind + loose * own * spread(chance);
    const loud = together ? stroke.loud : 1 + LOUDNESS * spread(chance);
    const voice = together ? stroke.voice + 1 : 0;
    if (event.part === 'comp') stroke = { beat: event.beat, late, loud, voice };
    const velocity = Math.min(1, Math.max(0.05, event.velocity * loud));
    // Written out: copying thousands of objects of two shapes is slow.
    const { beat, beats } = event;
    if (event.part === 'drums')
      return { part: 'drums', beat, beats, velocity, drum: event.drum, late };
    const { part, midi, room } = event;
    const rolled = late + ROLL * voice;
    return room === undefined
      ? { part, beat, beats, velocity, midi, late: rolled }
      : { part, beat, beats, velocity, midi, late: rolled, room };
  });
}
