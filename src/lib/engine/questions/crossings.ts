/** `crossings`: what every change does, and the lanes. */
import { z } from 'zod';
import { type Chord, chordNotes, degreeName, type Note, noteName, parseNote } from 'corvel-core';
import { type Crossing, cross } from '$core/crossings/crossing';
import { type Lane, lanesOf } from '$core/crossings/lanes';
import { adviceAt } from '$core/crossings/advice';
import { remarksOn } from '$core/crossings/remarks';
import { readHarmony } from '$core/harmony/reading';
import { at } from '$core/lists';
import { tonesOf } from '../described';
import { accept, refuse } from '../refusals';
import { requestedChart, requestedChoices } from '../requested';
import {
  chartText,
  choiceNames,
  degreeText,
  keyText,
  notes,
  noteText,
  toneAnswer,
} from '../shapes';
import { question } from '../question';

const crossing = z.object({
  held: notes,
  moves: z.array(z.object({ from: toneAnswer, to: toneAnswer, semitones: z.int() })),
  arrives: notes,
  leaves: notes,
});

const lane = z.array(
  z.object({
    index: z.int(),
    note: noteText,
    degree: degreeText,
    semitones: z.int().describe('From the entry before'),
  }),
);

const request = z.object({
  chart: chartText,
  key: keyText.optional(),
  loop: z.boolean().default(false).describe('Whether the last chord leads back to the first'),
  choices: choiceNames.optional(),
  start: z
    .string()
    .max(4)
    .optional()
    .describe('A tone of the first chord the smooth lane begins on'),
});

const answer = z.object({
  crossings: z.array(
    z.object({ from: z.int(), to: z.int(), chord: crossing, collection: crossing.optional() }),
  ),
  lanes: z.object({
    '1': lane,
    '3': lane,
    '5': lane,
    '7': lane,
    smooth: lane,
    guideTones: lane,
  }),
  remarks: z.array(z.object({ kind: z.string(), from: z.int(), to: z.int(), text: z.string() })),
});

/** A chord with the notes that cross out of it or into it. */
interface Side {
  readonly chord: Chord;
  readonly notes: readonly Note[];
}

function describeCrossing(before: Side, after: Side) {
  const { held, moves, arrives, leaves }: Crossing = cross(before.notes, after.notes);
  // Each is read together with the others of its side, as the ladder does.
  const readAs = ({ chord, notes }: Side) => {
    const tones = tonesOf(chord, notes);
    return (note: Note) => at(tones, notes.indexOf(note));
  };
  const [left, reached] = [readAs(before), readAs(after)];
  return {
    held: held.map(noteName),
    moves: moves.map(({ from, to, halfSteps }) => ({
      from: left(from),
      to: reached(to),
      semitones: halfSteps,
    })),
    arrives: arrives.map(noteName),
    leaves: leaves.map(noteName),
  };
}

const describeLane = (lane: Lane) =>
  lane.map(({ index, note, degree, halfSteps }) => ({
    index,
    note: noteName(note),
    degree: degreeName(degree),
    semitones: halfSteps,
  }));

export const crossings = question({
  summary: 'What holds, moves, leaves and arrives at every change, and the guide-tone lanes.',
  request,
  answer,
  ask: (asked) => {
    const chart = requestedChart(asked);
    if (!chart.ok) return chart;
    const choices = requestedChoices(chart.value, asked.choices);
    if (!choices.ok) return choices;
    const start = asked.start === undefined ? null : parseNote(asked.start);
    if (asked.start !== undefined && start === null) {
      const message = `“${asked.start}” is not a note: write it like Eb, F# or Abb.`;
      return refuse({ code: 'invalid_request', message, path: 'start' });
    }
    const { chords } = chart.value;
    const reading = readHarmony(chart.value);
    const pairs = chords
      .map(({ index }) => [index, (index + 1) % chords.length] as const)
      .slice(0, asked.loop && chords.length > 1 ? chords.length : Math.max(0, chords.length - 1));
    const side = (index: number, notes: readonly Note[]): Side => ({
      chord: at(chords, index).chord,
      notes,
    });
    const lanes = lanesOf(
      chords.map(({ chord }) => chord),
      start,
    );
    return accept({
      crossings: pairs.map(([from, to]) => {
        const before = choices.value[from];
        const after = choices.value[to];
        return {
          from,
          to,
          chord: describeCrossing(
            side(from, chordNotes(at(chords, from).chord)),
            side(to, chordNotes(at(chords, to).chord)),
          ),
          ...(before && after
            ? { collection: describeCrossing(side(from, before.notes), side(to, after.notes)) }
            : {}),
        };
      }),
      lanes: {
        '1': describeLane(lanes['1']),
        '3': describeLane(lanes['3']),
        '5': describeLane(lanes['5']),
        '7': describeLane(lanes['7']),
        smooth: describeLane(lanes.smooth),
        guideTones: describeLane(lanes.guideTones),
      },
      remarks: [
        ...remarksOn(
          chords.map(({ chord }) => chord),
          reading.blues ? (reading.key.key?.tonic ?? null) : null,
        ),
        ...pairs.flatMap(([from, to]) => {
          const [before, material] = [choices.value[from], choices.value[to]];
          const { chord } = at(chords, to);
          const text = material
            ? adviceAt({ chord, material, before: before ?? null, melody: null })
            : null;
          return text === null ? [] : [{ kind: 'stay put', from, to, text }];
        }),
      ],
    });
  },
});
