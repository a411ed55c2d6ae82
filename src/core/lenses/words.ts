/** Saying what an assessment means, in words a player would use. */
import type { Chord } from '../chords/chords';
import { tensionOver } from '../chords/over';
import { noteName, type Note, pitchClass, transpose } from '../notes/notes';
import { type Assessment, toneName } from './assess';

/** "a", "a and b", "a, b and c". */
export function list(words: readonly string[]): string {
  const last = words.at(-1) ?? '';
  return words.length < 2 ? last : `${words.slice(0, -1).join(', ')} and ${last}`;
}

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

const definerNotes = ({ root, quality }: Chord): ReadonlySet<number> =>
  new Set(quality.definers.map((one) => pitchClass(transpose(root, one))));

/** What is missing, the definers first: "no third (D): the change will not be heard". */
export function missingSentence(chord: Chord, { missing }: Assessment): string | null {
  const definers = definerNotes(chord);
  const unsaid = missing.filter((note) => definers.has(pitchClass(note)));
  if (unsaid.length === definers.size && unsaid.length > 0) {
    return `no ${list(unsaid.map((note) => `${toneName(chord, note)} (${noteName(note)})`))}: the change will not be heard`;
  }
  const lost = unsaid.length > 0 ? unsaid : missing;
  if (lost.length === 0) return null;
  return `no ${list(lost.map((note) => `${toneName(chord, note)} (${noteName(note)})`))}`;
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
export function coverSentence({ missing, definers, definerCount }: Assessment): string | null {
  if (missing.length === 0) return 'every chord tone';
  if (definerCount > 0 && definers.length === definerCount) return 'every definer';
  return null;
}
