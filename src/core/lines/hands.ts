/**
 * What the hands do with a line: bends into thirds, slides and slurs where a player would make
 * them, and never one the fingering cannot do.
 */
import { degreeOver, spellOver } from '../chords/over';
import { type Neck, openPitch, pitchAt, type Zone } from '../neck/neck';
import { halfSteps, type Note } from '../notes/notes';
import type { PlayedNote } from '../phrases/passage';
import { inOrder, type Technique } from '../phrases/techniques';
import { seeded } from '../random';
import { onBeat } from '../time/metre';
import { type Chance, drawn } from './chance';
import { type LineMetre, pulseOf } from './rhythm';
import type { ChordSpan } from './spans';
import type { StyleRow } from './styles';
import { BEAT, type Beats } from '../time/units';

/** What techniques are chosen by. */
export interface Hands {
  readonly neck: Neck;
  readonly spans: readonly ChordSpan[];
  readonly metre: LineMetre;
  /** How often the hands of a style do each, where they can. */
  readonly hands: StyleRow['hands'];
  readonly seed: number;
  /** The frets the hand covers; null where it follows the line. */
  readonly reach: Zone | null;
}

const inReach = ({ reach }: Hands, fret: number): boolean =>
  reach === null || (fret >= reach.low && fret <= reach.high);

/** Bends go to a chord tone from the note a player would push: b3 and 2 to 3, 4 to 5, b7 to 1. */
const BENDS: readonly { readonly to: number; readonly from: number; readonly by: 1 | 2 }[] = [
  { to: 4, from: 3, by: 1 },
  { to: 4, from: 2, by: 2 },
  { to: 7, from: 5, by: 2 },
  { to: 0, from: 10, by: 2 },
];
/** The wound strings and the frets by the nut are too stiff to bend. */
const SOFT = { string: 3, fret: 3 } as const;
/** A bend needs the time to be heard. */
const BEND_BEATS: Beats = BEAT / 2;
/** So many in a chorus of twelve bars at the least, of forty-eight beats. */
const LEAST = { gestures: 3, beats: 48 * BEAT } as const;
/** From this share on a style is one that bends. */
const BENDING = 0.3;
/** Half steps a slur spans on one string. */
const SLUR = 4;

const spanOf = (spans: readonly ChordSpan[], { chord, beat }: PlayedNote): ChordSpan | undefined =>
  spans.findLast((span) => span.index === chord && span.beat <= beat + BEAT / 2);

/** The note bent into, where a hand can bend up to it from a place under the same hand. */
function bentFrom(
  note: PlayedNote,
  { chord }: ChordSpan,
  before: PlayedNote | undefined,
  after: PlayedNote | undefined,
  hands: Hands,
): { readonly fret: number; readonly note: Note; readonly by: 1 | 2 } | null {
  const { neck } = hands;
  if (note.string > SOFT.string || note.beats < BEND_BEATS) return null;
  const size = halfSteps(degreeOver(chord, note.note));
  for (const bend of BENDS) {
    if (bend.to !== size) continue;
    const fret = note.fret - bend.by;
    const reached = before === undefined || before.fret === 0 || Math.abs(before.fret - fret) <= 4;
    if (fret < Math.max(SOFT.fret, neck.capo + 1) || !reached || !inReach(hands, fret)) continue;
    const midi = openPitch(neck, note.string) + fret;
    // Pushed up from a note that was just heard, or comes at once, it would be that note thrice.
    if ([before, after].some((one) => one && pitchAt(neck, one) === midi)) continue;
    return { fret, note: spellOver(chord, midi), by: bend.by };
  }
  return null;
}

/** A slide into a third from the minor third, where the finger has a fret to come from. */
function slidInto(note: PlayedNote, { chord }: ChordSpan, hands: Hands): Technique | null {
  const size = halfSteps(degreeOver(chord, note.note));
  const from = note.fret - 1;
  if ((size !== 4 && size !== 7) || from < hands.neck.capo + 1) return null;
  if (!inReach(hands, from)) return null;
  return { kind: 'slide', from };
}

/** Notes on one string within a hand, the second slurred to the first. */
function slurred(before: PlayedNote, note: PlayedNote): Technique | null {
  const touching = before.beat + before.beats === note.beat;
  const frets = note.fret - before.fret;
  const same = before.string === note.string && frets !== 0 && Math.abs(frets) <= SLUR;
  if (!touching || !same) return null;
  if (before.techniques.some(({ kind }) => kind === 'bend')) return null;
  return { kind: frets > 0 ? 'hammer-on' : 'pull-off' };
}

/** The line with bends and slides into its notes, by how often each is made. */
function gestured(
  notes: readonly PlayedNote[],
  hands: Hands,
  share: { readonly bend: number; readonly slide: number },
  chance: Chance,
): readonly PlayedNote[] {
  return notes.map((note, index) => {
    const span = spanOf(hands.spans, note);
    if (!span || note.techniques.length > 0) return note;
    const landing = note.part === 'target';
    const before = notes[index - 1];
    // A landing keeps its fret: it is slid into. What leads into one is played plain.
    const bend =
      landing || note.part === 'approach' || share.bend === 0
        ? null
        : bentFrom(note, span, before, notes[index + 1], hands);
    if (bend && drawn(chance, share.bend)) {
      const { fret, by } = bend;
      return { ...note, fret, note: bend.note, techniques: [{ kind: 'bend' as const, by }] };
    }
    const slide = slidInto(note, span, hands);
    const fast = note.beats < BEND_BEATS;
    return slide && !fast && drawn(chance, share.slide) ? { ...note, techniques: [slide] } : note;
  });
}

const isGesture = ({ techniques }: PlayedNote): boolean =>
  techniques.some(({ kind }) => kind === 'bend' || kind === 'slide');

/** A line with the techniques of the hand; where strings are bent at least a few a chorus. */
export function playedBy(notes: readonly PlayedNote[], hands: Hands): readonly PlayedNote[] {
  const { seed, metre } = hands;
  const { bend, slide, slur, vibrato, mute, grace } = hands.hands;
  const chance = seeded(seed + 0x51ed);
  const last = notes.at(-1);
  const beats = (last?.beat ?? 0) + (last?.beats ?? 0);
  const wanted = bend >= BENDING ? Math.ceil((LEAST.gestures * beats) / LEAST.beats) : 0;
  let played = notes;
  for (const more of [1, 2, 3.4]) {
    played = gestured(played, hands, { bend: bend * more, slide: slide * more }, chance);
    if (played.filter(isGesture).length >= wanted) break;
  }
  const pulse = pulseOf(metre);
  return played.map((note, index) => {
    const before = played[index - 1];
    const long = note.beats >= 1.5 * pulse;
    // What rings is given life.
    if (long && note.fret > 0 && drawn(chance, vibrato))
      return { ...note, techniques: inOrder([...note.techniques, { kind: 'vibrato' }]) };
    if (!before || note.techniques.length > 0 || note.part === 'target') return note;
    const off = !onBeat(note.beat);
    const ghost =
      off && note.part === 'fill' && pitchAt(hands.neck, before) === pitchAt(hands.neck, note);
    if (ghost && drawn(chance, mute)) return { ...note, techniques: [{ kind: 'mute' }] };
    const slurs = slurred(before, note);
    if (slurs && off && drawn(chance, slur)) return { ...note, techniques: [slurs] };
    // An ornament: slid into from a fret below.
    const from = note.fret - 1;
    const free = from > hands.neck.capo && inReach(hands, from) && note.beats >= pulse;
    return free && drawn(chance, grace) ? { ...note, techniques: [{ kind: 'slide', from }] } : note;
  });
}
