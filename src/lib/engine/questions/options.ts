/** `options`: what could be played over a chord. */
import { z } from 'zod';
import { type Chord, degreeName, noteName, type Option } from 'corvel-core';
import { parentCollection } from '$core/collections/collections';
import { readHarmony } from '$core/harmony/reading';
import { INTENTS } from '$core/lenses/lens';
import { LENSES } from '$core/lenses/table';
import type { Material } from '$core/lenses/material';
import {
  changeFrom,
  lensContexts,
  optionsFor,
  reasonFor,
  tensionsOver,
  firstOption,
} from '$core/lenses/options';
import { at } from '$core/lists';
import { describeChord, describeClash } from '../described';
import { accept, refuse } from '../refusals';
import { requestedChart, requestedChoices } from '../requested';
import {
  chartText,
  choiceNames,
  chordAnswer,
  clash,
  degreeText,
  keyText,
  noteText,
  notes,
  onRoot,
} from '../shapes';
import { question } from '../question';

const request = z.object({
  chart: chartText,
  key: keyText.optional(),
  index: z.int().describe('Index of a chord as played, from 0'),
  lenses: z.array(z.enum(LENSES)).min(1).optional().describe('Only these; all when left out'),
  choices: choiceNames.optional(),
});

const optionAnswer = z.object({
  lens: z.enum(LENSES),
  name: z.string().describe('F lydian dominant'),
  root: noteText,
  collection: z.string().describe('lydian dominant; arpeggio or triad for the notes of a chord'),
  notes,
  degrees: z.array(degreeText).describe('Of each note over the chord'),
  tensions: z.array(z.string()).describe('The same, as tensions where they are: b9, 11, 13'),
  parent: onRoot.optional(),
  covered: notes.describe('Chord tones it holds'),
  missing: notes.describe('Chord tones it lacks'),
  clashes: z.array(clash),
  blue: notes.describe('Blue notes, which are no clashes'),
  colours: notes.describe('Tensions gained'),
  outsideKey: notes,
  fromPrevious: z.object({ held: notes, arrives: notes, leaves: notes }),
  common: z.boolean().describe('In common use over such a chord'),
  intent: z.enum(INTENTS),
  rank: z.int().describe('From 1, the best'),
  reason: z.string(),
  covers: z
    .object({ from: z.int(), to: z.int() })
    .optional()
    .describe('The chords it serves, where it serves several'),
  then: z
    .object({ name: z.string(), after: z.int().describe('Half bars of the chord before it') })
    .optional(),
});

const answer = z.object({
  chord: chordAnswer,
  options: z.array(optionAnswer).describe('Best first'),
});

function describeOption(
  chord: Chord,
  option: Option,
  previous: Material | null,
  index: number,
): z.infer<typeof optionAnswer> {
  const { lens, material, assessment, covers, then } = option;
  const parent = material.collection && parentCollection(material.collection);
  const { held, arrives, leaves } = changeFrom(previous, material);
  return {
    lens,
    name: material.name,
    root: noteName(material.root),
    collection: material.kind,
    notes: material.notes.map(noteName),
    degrees: assessment.degrees.map(degreeName),
    tensions: [...tensionsOver(chord, option)],
    ...(parent ? { parent: { root: noteName(parent.root), collection: parent.kind.name } } : {}),
    covered: assessment.covered.map(noteName),
    missing: assessment.missing.map(noteName),
    clashes: assessment.clashes.map(describeClash),
    blue: assessment.blue.map(noteName),
    colours: assessment.colours.map(noteName),
    outsideKey: assessment.outsideKey.map(noteName),
    fromPrevious: {
      held: held.map(noteName),
      arrives: arrives.map(noteName),
      leaves: leaves.map(noteName),
    },
    common: option.common,
    intent: option.intent,
    rank: option.rank,
    reason: reasonFor(chord, option),
    ...(covers ? { covers: { from: index - covers.before, to: index + covers.after } } : {}),
    ...(then ? { then: { name: then.to.name, after: then.after } } : {}),
  };
}

export const options = question({
  summary: 'What could be played over a chord, by every lens, with reason and cost; best first.',
  request,
  answer,
  ask: (asked) => {
    const chart = requestedChart(asked);
    if (!chart.ok) return chart;
    const { chords } = chart.value;
    const { index } = asked;
    const played = chords[index];
    if (!played) {
      const message =
        chords.length === 0
          ? 'This chart has no chords.'
          : `This chart has the chords 0 to ${chords.length - 1}.`;
      return refuse({ code: 'out_of_range', message, path: 'index' });
    }
    const choices = requestedChoices(chart.value, asked.choices);
    if (!choices.ok) return choices;
    const reading = readHarmony(chart.value);
    const contexts = lensContexts(chart.value, reading);
    const context = at(contexts, index);
    const choiceAt = (place: number): Material | null => {
      const other = contexts[place];
      return other ? (choices.value[place] ?? firstOption(other)?.material ?? null) : null;
    };
    const previous = choiceAt(index - 1);
    const neighbours = [previous, choiceAt(index + 1)].filter((one) => one !== null);
    const options = optionsFor(context, { neighbours, preferred: [] }, asked.lenses);
    return accept({
      chord: describeChord(played, reading.chords[index]),
      options: options.map((option) => describeOption(played.chord, option, previous, index)),
    });
  },
});
