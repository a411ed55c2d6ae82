/** The kinds of drills, and what a question and an answer are. */
import type { PlayedChord } from '../chart/form';
import type { Key } from '../keys/keys';
import type { Neck, Place, Zone } from '../neck/neck';
import type { Note } from '../notes/notes';
import type { Midi } from '../notes/pitch';

/** What a player calls each kind of question. */
export const DRILL_WORDS = {
  'find-degree': 'Find a degree',
  'name-degree': 'Name the degree',
  'name-note': 'Name the note',
  'spell-chord': 'Spell the chord',
  'half-step-ahead': 'A half step ahead',
  'what-is-missing': 'What is missing',
  'name-box': 'Name the box',
  'hear-quality': 'Hear the quality',
  'hear-degree': 'Hear the degree',
  'hear-over-chord': 'Hear a note over a chord',
} as const;

export type DrillKind = keyof typeof DRILL_WORDS;

/** The kinds of questions, those on the neck first. */
export const DRILL_KINDS = Object.keys(DRILL_WORDS) as [DrillKind, ...DrillKind[]];

/** What a player answers: of these the one that is asked for. */
export interface DrillAnswer {
  readonly places?: readonly Place[];
  readonly note?: Note;
  readonly degree?: string;
  readonly choice?: string;
}

/** A question, with its answer and what it may be confused with. */
export interface Drill {
  readonly kind: DrillKind;
  readonly prompt: string;
  readonly asks: 'places' | 'note' | 'degree' | 'choice';
  /** What may be answered; any order, each once. */
  readonly choices?: readonly string[];
  readonly answer: DrillAnswer;
  /** Why that is right. */
  readonly sentence: string;
  /** What the neck shows with the question. */
  readonly shown: readonly Place[];
  /** What is heard with it, chords and notes one after another; empty where nothing is. */
  readonly heard: readonly (readonly Midi[])[];
  readonly zone: Zone;
}

/** Where questions are asked: a neck, a zone, a chart or none. */
export interface DrillSetting {
  readonly neck: Neck;
  readonly zone: Zone;
  /** Of the player's chart; none where a drill is general. */
  readonly chords: readonly Pick<PlayedChord, 'chord'>[];
  readonly key: Key | null;
}
