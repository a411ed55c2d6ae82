/** The shapes of the questions about choosing material: options, coverage, crossings, chains. */
import { z } from 'zod';
import { INTENTS, LENSES } from '$core/lenses/lens';
import { chartText, chordAnswer, collectionName, degreeName, keyText, noteName } from './schemas';

const notes = z.array(noteName);

export const choiceNames = z
  .array(z.string().max(80).nullable())
  .max(8_192)
  .describe('What is played over each chord: Eb major pentatonic, Cm7 arpeggio, Bb triad, or null');

const clash = z.object({
  note: noteName,
  degree: degreeName,
  above: noteName.describe('The chord tone a half step below it'),
});

const onRoot = z.object({ root: noteName, collection: z.string() });

export const optionsRequest = z.object({
  chart: chartText,
  key: keyText.optional(),
  index: z.int().describe('Index of a chord as played, from 0'),
  lenses: z.array(z.enum(LENSES)).min(1).optional().describe('Only these; all when left out'),
  choices: choiceNames.optional(),
});

export const optionAnswer = z.object({
  lens: z.enum(LENSES),
  name: z.string().describe('F lydian dominant'),
  root: noteName,
  collection: z.string().describe('lydian dominant; arpeggio or triad for the notes of a chord'),
  notes,
  degrees: z.array(degreeName).describe('Of each note over the chord'),
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

export const optionsAnswer = z.object({
  chord: chordAnswer,
  options: z.array(optionAnswer).describe('Best first'),
});

export const coverageRequest = z.object({
  chart: chartText,
  key: keyText.optional(),
  collection: collectionName,
});

const toneAnswer = z.object({ note: noteName, degree: degreeName });

export const coverageAnswer = z.object({
  chords: z.array(
    z.object({
      index: z.int(),
      symbol: z.string(),
      covered: z.array(toneAnswer),
      missing: z.array(toneAnswer),
      clashes: z.array(clash),
    }),
  ),
  spoken: z.array(z.string()).describe('The price in words, chord by chord'),
});

export const crossingsRequest = z.object({
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

const crossing = z.object({
  held: notes,
  moves: z.array(z.object({ from: toneAnswer, to: toneAnswer, semitones: z.int() })),
  arrives: notes,
  leaves: notes,
});

const lane = z.array(
  z.object({
    index: z.int(),
    note: noteName,
    degree: degreeName,
    semitones: z.int().describe('From the entry before'),
  }),
);

export const crossingsAnswer = z.object({
  crossings: z.array(
    z.object({ from: z.int(), to: z.int(), chord: crossing, collection: crossing.optional() }),
  ),
  lanes: z.object({
    '1': lane,
    '3': lane,
    '5': lane,
    '7': lane,
    smooth: lane,
    definers: lane,
  }),
  remarks: z.array(z.object({ kind: z.string(), from: z.int(), to: z.int(), text: z.string() })),
});

export const chainsRequest = z.object({
  chart: chartText,
  key: keyText.optional(),
  from: z.int().optional().describe('Index of the first chord; the chart’s first when left out'),
  to: z.int().optional().describe('Index of the last chord; the chart’s last when left out'),
});

export const chainsAnswer = z.object({
  chains: z.array(
    z.object({
      step: z.int().describe('Half steps from each root to the next'),
      stops: z.array(
        z.object({
          index: z.int(),
          root: noteName,
          collection: z.string(),
          relation: degreeName.describe('Degree of the root over the chord'),
        }),
      ),
    }),
  ),
});
