/** One material held against a whole chart: its price, chord by chord. */
import type { Chart, PlayedChord } from '../chart/form';
import { chordName } from '../chords/chords';
import { collection } from '../collections/collections';
import { range } from '../lists';
import { noteName, type Note, spellNear } from '../notes/notes';
import { type Assessment, assess, NOWHERE, toneName } from './assess';
import { collectionMaterial, type Material } from './material';
import { WEIGHTS } from './ranking';
import { list } from '../words';
import { clashSentence, leavesUnsaid, missingSentence } from './words';

interface ChordCoverage {
  readonly played: PlayedChord;
  readonly assessment: Assessment;
  /** What it means over this chord: "no third (D): the change will not be heard". */
  readonly sentence: string;
}

function sentenceFor({ chord, bar }: PlayedChord, assessment: Assessment): string {
  const name = chordName({ ...chord, bass: null });
  const missing = missingSentence(chord, assessment);
  const clash = clashSentence(chord, assessment);
  const { covered } = assessment;
  const held = list(covered.map((note) => toneName(chord, note)));
  const start = `Bar ${bar}, ${name}: `;
  if (missing === null) {
    return `${start}every chord tone is there${clash ? `; ${clash}` : ''}.`;
  }
  const rest =
    leavesUnsaid(chord, assessment) || covered.length === 0
      ? ''
      : `; the ${held} ${covered.length === 1 ? 'is' : 'are'} there`;
  return `${start}${missing}${rest}.`;
}

/** The price of a material over every chord of a chart, in order. */
export const coverageOf = (chart: Chart, material: Material): readonly ChordCoverage[] =>
  chart.chords.map((played) => {
    const assessment = assess(played.chord, material, NOWHERE);
    return { played, assessment, sentence: sentenceFor(played, assessment) };
  });

const share = (part: number, whole: number): number => (whole === 0 ? 0 : part / whole);

/** How much of a chart a material says, weighed by time. */
export const worthOf = (chart: Chart, material: Material): number =>
  chart.chords.reduce((sum, { chord, beats }) => {
    const { guideTones, guideToneCount, covered, missing, clashes } = assess(
      chord,
      material,
      NOWHERE,
    );
    const worth =
      WEIGHTS.guideTones * share(guideTones.length, guideToneCount) +
      WEIGHTS.tones * share(covered.length, covered.length + missing.length) +
      WEIGHTS.clash * clashes.length;
    return sum + beats * worth;
  }, 0);

/** Kinds a player holds over a whole chart. */
const SINGLE_KINDS = ['major pentatonic', 'ionian', 'melodic minor', 'harmonic minor'] as const;
const SINGLES = 3;

/** The single scales that say most of a chart, best first: what to hold where no key gives one. */
export function bestSingles(chart: Chart): readonly Material[] {
  const roots = chart.chords.map(({ chord }) => chord.root as number);
  if (roots.length === 0) return [];
  const centre = Math.round(roots.reduce((sum, root) => sum + root, 0) / roots.length) as Note;
  return SINGLE_KINDS.flatMap((kind) =>
    range(0, 12).map((pitch) => collectionMaterial(collection(spellNear(pitch, centre), kind))),
  )
    .map((material) => ({ material, worth: worthOf(chart, material) }))
    .sort(
      (a, b) =>
        b.worth - a.worth || (noteName(a.material.root) < noteName(b.material.root) ? -1 : 1),
    )
    .slice(0, SINGLES)
    .map(({ material }) => material);
}
