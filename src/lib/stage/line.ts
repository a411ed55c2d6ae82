/** The part of a line that a loop plays, and what leads into it. */
import { BEAT, type Chart, type Neck, type Passage } from 'corvel-core';
import { degreeOver } from '$core/chords/over';
import type { Key } from '$core/keys/keys';
import { landedOn } from '$core/licks/sounding';
import { passageOf, struck } from '$core/phrases/passage';
import type { ApproachNote } from '$core/targets/approach';
import type { RouteStop } from '$core/targets/route';
import type { Beats } from '$core/time/units';
import { techniqueOf } from '$core/phrases/techniques';
import { barOf } from '$core/time/metre';

/** How long before a target the way into it begins: an eighth. */
const WAY: Beats = BEAT / 2;

/**
 * The targets of a plan as a line: each rings for as long as its chord, or until the note that leads
 * into the next, where there are ways in.
 */
export function targetLine(
  chart: Chart,
  key: Key | null,
  neck: Neck,
  stops: readonly RouteStop[],
  wayInto: (stop: RouteStop) => ApproachNote | null = () => null,
): Passage {
  const notes = stops.flatMap((stop, place) => {
    const { index, string, fret, note } = stop;
    const chord = chart.chords[index];
    if (!chord) return [];
    const next = stops[place + 1];
    const leads = next !== undefined && next.index === index + 1 && wayInto(next) !== null;
    const { beat, beats } = chord;
    const rings = leads && beats > WAY ? beats - WAY : beats;
    const way = beat >= WAY ? wayInto(stop) : null;
    return [
      ...(way === null
        ? []
        : [
            struck({
              string: way.string,
              fret: way.fret,
              note: way.note,
              beat: beat - WAY,
              beats: WAY,
              chord: index,
              part: 'approach',
            }),
          ]),
      struck({ string, fret, note, beat, beats: rings, chord: index, part: 'target' }),
    ];
  });
  return passageOf(chart, key, neck, 'Targets', notes);
}

/**
 * Where a line lands, by the chords of its chart: on what it aims at; else on what begins with the chord;
 * null where it breathes.
 */
export function landingStops(
  chart: Chart,
  { neck, key, notes }: Passage,
): readonly (RouteStop | null)[] {
  return chart.chords.map(({ index, beat, beats, chord }) => {
    const over = notes.filter((note) => note.chord === index);
    const landing =
      over.find(({ part }) => part === 'target') ??
      over.find(
        (note) =>
          note.part !== 'approach' &&
          techniqueOf(note.techniques, 'grace') === undefined &&
          note.beat >= beat &&
          note.beat < beat + Math.min(BEAT, beats),
      );
    if (!landing) return null;
    const { string, fret } = landing;
    const { midi, note } = landedOn(neck, key, chord, landing);
    return {
      index,
      string,
      fret,
      note,
      midi,
      degree: degreeOver(chord, note),
      halfSteps: 0,
      sentence: '',
    };
  });
}

/** How far before a loop its line begins: the approach to its first note, at the most a bar of it. */
export function pickUpOf({ notes, pickUp, time }: Passage, start: Beats): Beats {
  if (start === 0) return Math.min(pickUp, barOf(time));
  const earliest = start - barOf(time);
  const before = notes.filter(({ beat }) => beat < start && beat >= earliest);
  let begins = start;
  for (const note of before.toReversed()) {
    if (note.part !== 'approach') break;
    begins = note.beat;
  }
  return start - begins;
}

/**
 * The notes of a passage within some time, counted from their beginning, with the pick-up before it;
 * what would sound under the next pass's pick-up is left out.
 */
export function cutPassage(passage: Passage, from: Beats, to: Beats): Passage {
  const pickUp = pickUpOf(passage, from);
  const end = to - pickUp;
  const notes = passage.notes
    .filter(({ beat }) => beat >= from - pickUp && beat < end)
    .map((note) => ({
      ...note,
      beat: note.beat - from,
      beats: Math.min(note.beats, to - note.beat),
    }));
  const chords = passage.chords
    .filter(({ beat, beats }) => beat + beats > from && beat < to)
    .map((one) => ({
      ...one,
      beat: Math.max(0, one.beat - from),
      beats: Math.min(one.beat + one.beats, to) - Math.max(one.beat, from),
    }));
  return { ...passage, notes, chords, pickUp, beats: to - from };
}
