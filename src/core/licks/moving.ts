/** Licks moved: over another chord, and as exercises through keys and up the neck. */
import { type Chart, chartBeats, type PlayedChord } from '../chart/form';
import { transposeChord } from '../chords/chords';
import type { Key } from '../keys/keys';
import { at, range } from '../lists';
import { type Neck, pitchAt, type Zone } from '../neck/neck';
import { type Interval, note as named, pitchClass, spellNear, transpose } from '../notes/notes';
import { simplestPitch } from '../notes/spelling';
import { type Passage, passageOf, struck } from '../phrases/passage';
import { speller, type LickNote } from './sounding';
import { refinger } from './refinger';
import { refound } from './refound';

/** Ways to go through a lick again and again. */
export const LICK_CHAINS = ['half steps', 'fourths', 'zones'] as const;
export type LickChain = (typeof LICK_CHAINS)[number];

/** What a player calls each. */
export const CHAIN_WORDS: Readonly<Record<LickChain, string>> = {
  'half steps': 'up by half steps, as a shape',
  fourths: 'round all twelve keys by fourths, in one zone',
  zones: 'in every zone, up the neck',
};

/** How a chain moves a lick, one turn after another, in half steps. */
const TURNS: Readonly<Record<LickChain, readonly number[]>> = {
  'half steps': [0, 1, 2, 3, 4, 5],
  fourths: range(0, 12).map((turn) => ((turn * 5 + 5) % 12) - 5),
  zones: [0, 0, 0, 0, 0],
};

/** Keys are spelled with as few signs as can be: about F. */
const CENTRE = named('F');

interface Lick {
  readonly title: string;
  readonly chart: Chart;
  readonly key: Key | null;
  readonly notes: readonly LickNote[];
}

/**
 * Where the hand is for a lick: its frets, at the least four.
 *
 * @example zoneOfLick(STANDARD_NECK, [{ beat: 0, beats: BEAT, string: 3, fret: 7, techniques: [] }]); // {"low":7,"high":10}
 */
export function zoneOfLick(neck: Neck, notes: readonly LickNote[]): Zone {
  const frets = notes.map(({ fret }) => fret).filter((fret) => fret > 0);
  const low = frets.length === 0 ? neck.capo : Math.min(...frets);
  const high = frets.length === 0 ? low + 3 : Math.max(...frets);
  return { low, high: Math.min(neck.frets, Math.max(high, low + 3)) };
}

/**
 * A lick moved for somewhere else: the octave and the places that lie nearest to where it was
 * played, or inside a zone.
 */
export function movedLick(
  neck: Neck,
  notes: readonly LickNote[],
  semitones: number,
  zone: Zone | null,
): readonly LickNote[] {
  if (zone) return refound(neck, notes, semitones, zone).notes;
  const hand = zoneOfLick(neck, notes);
  const tries = [0, -12, 12].map((octave) =>
    refinger({ neck, notes, semitones: semitones + octave, zone: hand, keep: 'pitch' }),
  );
  return tries.reduce((best, one) => {
    const lost = one.outOfReach.length - best.outOfReach.length;
    return lost < 0 || (lost === 0 && one.cost < best.cost - 24) ? one : best;
  }).notes;
}

/** A lick turn after turn along a chain, each turn as many bars as the lick's chart. */
export function lickExercise(
  neck: Neck,
  { title, chart, key, notes }: Lick,
  chain: LickChain,
  zones: readonly Zone[],
): Passage {
  const length = chartBeats(chart);
  const chords: Pick<PlayedChord, 'chord' | 'beat' | 'beats'>[] = [];
  const home = zoneOfLick(neck, notes);
  const turns = TURNS[chain];
  const played = turns.flatMap((semitones, turn) => {
    const offset = turn * length;
    const from = at(chart.chords, 0).chord.root;
    const to = spellNear((pitchClass(from) + semitones + 12) % 12, CENTRE);
    const interval = (to - from) as Interval;
    for (const one of chart.chords) {
      const chord = transposeChord(one.chord, interval);
      chords.push({ chord, beat: one.beat + offset, beats: one.beats });
    }
    const moved =
      chain === 'half steps'
        ? refinger({ neck, notes, semitones, zone: null, keep: 'shape' }).notes
        : chain === 'fourths'
          ? movedLick(neck, notes, semitones, home)
          : movedLick(neck, notes, 0, zones[turn % Math.max(1, zones.length)] ?? home);
    const there = key && { ...key, tonic: transpose(key.tonic, interval) };
    return moved.map((note) => {
      const over = chart.chords.findLast(({ beat }) => beat <= Math.max(0, note.beat));
      const midi = pitchAt(neck, note);
      const chord = over && transposeChord(over.chord, interval);
      const spelled = chord ? speller(chord, there)(midi) : simplestPitch(midi);
      return struck({ ...note, beat: note.beat + offset, note: spelled, chord: null });
    });
  });
  const whole = passageOf(chart, key, neck, `${title}: ${chain}`, played);
  return { ...whole, key: chain === 'zones' ? key : null, chords, beats: length * turns.length };
}
