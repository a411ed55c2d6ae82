/** Saying what an assessment means, in words a player would use. */
import type { Chord } from '../chords/chords';
import { tensionOver } from '../chords/over';
import { noteName, type Note, pitchClass, transpose } from '../notes/notes';
import { list } from '../words';
import { type Assessment, toneName } from './assess';

/** Some notes of a material as tensions over the chord, in the material's order. */
const tensionsOf = (
  chord: Chord,
  material: readonly Note[],
  { degrees }: Assessment,
  notes: readonly Note[],
): readonly string[] =>
  notes.length === 0
    ? []
    : material.flatMap((note, index) => {
        const interval = degrees[index];
        return notes.includes(note) && interval !== undefined ? [tensionOver(chord, interval)] : [];
      });

const guideToneNotes = ({ root, quality }: Chord): ReadonlySet<number> =>
  new Set(quality.guideTones.map((one) => pitchClass(transpose(root, one))));

/** Whether a material lacks every guide tone of a chord: then the change is not heard. */
export function leavesUnsaid(chord: Chord, { missing }: Assessment): boolean {
  const guideTones = guideToneNotes(chord);
  return (
    guideTones.size > 0 && [...guideTones].every((one) => missing.map(pitchClass).includes(one))
  );
}

/** What is missing, the guide tones first: "no third (D): the change will not be heard". */
export function missingSentence(chord: Chord, assessment: Assessment): string | null {
  const { missing } = assessment;
  const guideTones = guideToneNotes(chord);
  const unsaid = missing.filter((note) => guideTones.has(pitchClass(note)));
  const lost = unsaid.length > 0 ? unsaid : missing;
  if (lost.length === 0) return null;
  const names = list(
    lost.map((note) => `${toneName(chord, note)} (${noteName(note)})`),
    'or',
  );
  const price = leavesUnsaid(chord, assessment) ? ': the change will not be heard' : '';
  return `no ${names}${price}`;
}

/** What clashes when held: "the 11 (Ab) rubs against the third when held". */
export function clashSentence(chord: Chord, { clashes }: Assessment): string | null {
  const [first] = clashes;
  if (!first) return null;
  if (clashes.length === 1) {
    const tension = tensionOver(chord, first.degree);
    return `the ${tension} (${noteName(first.note)}) clashes with the ${toneName(chord, first.above)} when held`;
  }
  const names = clashes.map(({ degree }) => tensionOver(chord, degree));
  return `${list(names)} clash when held`;
}

/** What the symbol rules out: "5 and 9 go against the symbol". */
export function againstSentence(
  chord: Chord,
  notes: readonly Note[],
  assessment: Assessment,
): string | null {
  const names = tensionsOf(chord, notes, assessment, assessment.against);
  if (names.length === 0) return null;
  return `natural ${list(names)} ${names.length === 1 ? 'goes' : 'go'} against the symbol`;
}

/** What is gained: "adds 9 and 13". */
export function gainSentence(
  chord: Chord,
  notes: readonly Note[],
  assessment: Assessment,
): string | null {
  const { colours, blue } = assessment;
  const gained = tensionsOf(chord, notes, assessment, colours);
  const bends = blue.length > 0 ? `${list(blue.map((note) => noteName(note)))} blue` : null;
  const adds = gained.length > 0 ? `adds ${list(gained)}` : null;
  return adds && bends ? `${adds}, ${bends}` : (adds ?? bends);
}

/** "Holds all of Abmaj7": only where it does. */
export function coverSentence({ missing, guideTones, guideToneCount }: Assessment): string | null {
  if (missing.length === 0) return 'every chord tone';
  if (guideToneCount > 0 && guideTones.length === guideToneCount) return 'every guide tone';
  return null;
}
