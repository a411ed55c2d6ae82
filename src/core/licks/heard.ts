/**
 * Whether the changes are heard with the band muted: for every chord of a chart, how probable each
 * of its distinct chords is, given only the notes that sound then. Bayes' rule with every chord as
 * likely as any other before a note is heard, and notes taken as independent of one another.
 */
import type { Chart } from '../chart/form';
import { type Chord, chordName, sameChord } from '../chords/chords';
import { at, modulo, range } from '../lists';
import { type Neck, type Place, placesOf, placeWords } from '../neck/neck';
import { halfSteps, noteName, type Note, pitchClass, transpose } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { pulsesOf } from '../time/pulses';
import { barOf, onBeat, type TimeSignature } from '../time/metre';
import { type Beats, inBeats } from '../time/units';
import { list } from '../words';
import { isAnticipated, isTone } from '../phrases/landing';
import { chordIndexAt, type LickNote, type Sound, soundsOf } from './sounding';
import { EVIDENCE, ORDER, PLACES, SHORTEST } from './weights';

/** How probable a chord is. */
interface Likelihood {
  readonly chord: Chord;
  readonly probability: number;
}

interface ChordHeard {
  /** Index of the chord in the chart. */
  readonly index: number;
  readonly chord: Chord;
  /** All distinct chords of the chart, likeliest first; they sum to 1. */
  readonly likeliest: readonly Likelihood[];
  /** How probable the right one is, by what sounds over it alone, and after what came before it. */
  readonly share: number;
  readonly inOrder: number;
  /** The note that would say it, and where it lies; null where nothing needs to. */
  readonly wanted: (Place & { readonly note: Note }) | null;
  readonly sentence: string;
}

/** What can be told of the chords from a lick alone. */
export interface Heard {
  /**
   * The mean probability of the right chord, by how long each lasts; what is silent while a chord that was
   * stated goes on is not counted. Null where there is but one chord: it has nothing to be told from.
   */
  readonly share: number | null;
  readonly chords: readonly ChordHeard[];
  readonly sentence: string;
}

/** What a pitch is worth as evidence for a chord, for a beat. */
export function evidenceFor({ root, quality }: Chord, midi: Midi): number {
  const size = modulo(midi - pitchClass(root), 12);
  const is = (tone: number) => tone === size;
  if (quality.guideTones.map(halfSteps).some(is)) return EVIDENCE.guide;
  const tones = quality.degrees.map(halfSteps);
  if (tones.some(is)) {
    return size === 0 ? EVIDENCE.root : size === 7 ? EVIDENCE.fifth : EVIDENCE.tone;
  }
  if (quality.tensions.map(halfSteps).some(is)) return EVIDENCE.tension;
  return tones.some((tone) => modulo(tone + 1, 12) === size) ? EVIDENCE.clash : EVIDENCE.strange;
}

/** The distinct chords of a chart, in the order in which they first come. */
function distinctChords({ chords }: Chart): readonly Chord[] {
  return chords.reduce<readonly Chord[]>(
    (found, { chord }) => (found.some((one) => sameChord(one, chord)) ? found : [...found, chord]),
    [],
  );
}

/** Whether a beat is the first of a group of pulses: beats one and three of 4/4. */
export function strongBeats(time: TimeSignature): (beat: Beats) => boolean {
  const strong = pulsesOf(time).filter(({ place }) => place === 0);
  return (beat) => {
    const inBar = modulo(beat, barOf(time));
    return strong.some((pulse) => pulse.beat === inBar);
  };
}

/** How much what sounds between two beats counts, pitch by pitch. */
function speaking(
  sounds: readonly Sound[],
  from: Beats,
  to: Beats,
  strong: (beat: Beats) => boolean,
): readonly { readonly midi: Midi; readonly weight: number }[] {
  return sounds.flatMap(({ midi, beat, beats }) => {
    const begin = Math.max(from, beat);
    const length = Math.min(to, beat + beats) - begin;
    if (length <= 0) return [];
    const whole = onBeat(begin);
    const place = strong(begin) ? PLACES.strong : whole ? PLACES.beat : PLACES.between;
    return [{ midi, weight: Math.max(SHORTEST, inBeats(length)) * place }];
  });
}

/** Logarithms made probabilities that sum to 1. */
function normalised(logs: readonly number[]): readonly number[] {
  const top = Math.max(...logs);
  const raw = logs.map((one) => Math.exp(one - top));
  const sum = raw.reduce((whole, one) => whole + one, 0);
  return raw.map((one) => one / sum);
}

/** Within this much of the likeliest a chord might be meant as well. */
const AS_LIKELY = 0.5;
/** From here on a chord is heard without doubt. */
export const CLEAR = 0.7;

/** How a chord is called among the others: with its bass only where that is all that differs. */
const named = (chord: Chord): string => chordName({ ...chord, bass: null });

/** The chord tone that would tell a chord from others best, of those that were not played plainly. */
function tellingTone(
  right: Chord,
  others: readonly Chord[],
  played: ReadonlySet<number>,
): Note | null {
  // In whole tenths, as the table gives them: what is worth the same is then equal.
  const tenths = (chord: Chord, note: Note) =>
    Math.round(10 * evidenceFor(chord, pitchClass(note)));
  const worth = (note: Note) =>
    Math.min(...others.map((other) => tenths(right, note) - tenths(other, note)));
  const tones = right.quality.degrees
    .map((degree) => transpose(right.root, degree))
    .filter((tone) => !played.has(pitchClass(tone)));
  const best = tones.reduce<Note | null>(
    (found, tone) => (found === null || worth(tone) > worth(found) ? tone : found),
    null,
  );
  return best !== null && worth(best) > 0 ? best : null;
}

/** The place of a note nearest to where the hand is. */
function placeNear(neck: Neck, note: Note, hand: Place): Place | null {
  const away = ({ string, fret }: Place) =>
    Math.abs(fret - hand.fret) + 1.5 * Math.abs(string - hand.string);
  return placesOf(neck, [note]).reduce<Place | null>(
    (best, place) => (best === null || away(place) < away(best) ? place : best),
    null,
  );
}

const article = (note: Note): string => (/^[AEF]/u.test(noteName(note)) ? 'An' : 'A');

/** What is held into a chord that it is a tone of speaks for that chord, and not for the one before. */
function leadingInto(chart: Chart, note: LickNote, sound: Sound): Sound {
  const next = chart.chords.find(({ beat }) => beat > note.beat);
  const index = chordIndexAt(chart, note.beat);
  const here = index === null ? undefined : chart.chords[index];
  if (!next || !isAnticipated([], { ...note, midi: sound.midi }, next)) return sound;
  if (!isTone(next.chord, sound.midi) || (here && isTone(here.chord, sound.midi))) return sound;
  const end = sound.beat + sound.beats;
  const begin = Math.max(sound.beat, Math.min(next.beat, end));
  return { ...sound, beat: begin, beats: end - begin };
}

/** Whether the changes of a chart are heard in some notes alone. */
export function hearChanges(chart: Chart, neck: Neck, notes: readonly LickNote[]): Heard {
  const distinct = distinctChords(chart);
  const strong = strongBeats(chart.source.time);
  const sounds = notes.flatMap((note) =>
    soundsOf(neck, note).map((sound) => leadingInto(chart, note, sound)),
  );
  const indexOf = (chord: Chord) => distinct.findIndex((one) => sameChord(one, chord));
  const right = chart.chords.map(({ chord }) => indexOf(chord));
  const spoken = chart.chords.map(({ beat, beats }) =>
    speaking(sounds, beat, beat + beats, strong),
  );
  const logs = spoken.map((own) =>
    distinct.map((chord) =>
      own.reduce((sum, { midi, weight }) => sum + weight * evidenceFor(chord, midi), 0),
    ),
  );
  const alone: (readonly number[])[] = logs.map(normalised);
  /** Chords that go on in silence after they were stated: nothing is held against them. */
  const goesOn = chart.chords.map(({ chord, beat }, place) => {
    const before = chart.chords[place - 1];
    return (
      at(spoken, place).length === 0 &&
      before !== undefined &&
      sameChord(before.chord, chord) &&
      before.beat + before.beats === beat
    );
  });
  for (const [place, on] of goesOn.entries()) if (on) alone[place] = at(alone, place - 1);
  const inOrder = filtered(logs, right, distinct.length);
  const chords = chart.chords.map(
    ({ index, chord, bar, beat, beats: lasts }, place): ChordHeard => {
      const own = at(alone, place);
      const share = at(own, at(right, place));
      const likeliest = distinct
        .map((one, which) => ({ chord: one, probability: at(own, which) }))
        .sort((a, b) => b.probability - a.probability);
      const top = at(likeliest, 0).probability;
      const rivals = likeliest.filter(
        (one) =>
          !sameChord(one.chord, chord) && one.probability >= Math.min(share, top) * AS_LIKELY,
      );
      const apart = (other: Chord) =>
        at(spoken, place).some(({ midi }) => isTone(chord, midi) !== isTone(other, midi));
      const told = share < CLEAR && rivals.some((one) => apart(one.chord));
      const before = notes.findLast((note) => note.beat <= beat) ?? notes[0];
      const note =
        share >= CLEAR || rivals.length === 0
          ? null
          : tellingTone(
              chord,
              rivals.map((one) => one.chord),
              new Set(
                sounds
                  .filter((one) => one.beat >= beat && one.beat < beat + lasts)
                  .filter((one) => strong(one.beat))
                  .map((one) => modulo(one.midi, 12)),
              ),
            );
      const spot = note !== null && before ? placeNear(neck, note, before) : null;
      const wanted = note !== null && spot ? { ...spot, note } : null;
      const heardSo = at(at(inOrder, place), at(right, place));
      const silent = at(spoken, place).length === 0;
      const on = at(goesOn, place) && at(alone, place - 1) === own;
      return {
        index,
        chord,
        likeliest,
        share,
        inOrder: heardSo,
        wanted,
        sentence: sentenceFor({
          chord,
          bar,
          silent,
          on,
          told,
          share,
          heardSo,
          rivals,
          likeliest,
          wanted,
        }),
      };
    },
  );
  const counted = chart.chords.filter((_, place) => !at(goesOn, place));
  const beats = counted.reduce((sum, one) => sum + one.beats, 0);
  const share =
    distinct.length < 2
      ? null
      : counted.reduce((sum, one) => sum + one.beats * at(chords, one.index).share, 0) / beats;
  return { share, chords, sentence: heardSays(chords) };
}

/**
 * The same, each chord helped by what was heard before it: the chords of the chart follow one
 * another as they do there (the forward pass of Rabiner, "A tutorial on hidden Markov models", 1989).
 */
function filtered(
  logs: readonly (readonly number[])[],
  right: readonly number[],
  count: number,
): readonly (readonly number[])[] {
  const follows = range(0, count).map((from) => {
    const tallies = range(0, count).map((to) => {
      const seen = right.filter((one, place) => one === from && right[place + 1] === to);
      return seen.length;
    });
    const all = tallies.reduce((sum, one) => sum + one, 0);
    return tallies.map(
      (one) => (1 - ORDER) / count + (all === 0 ? ORDER / count : (ORDER * one) / all),
    );
  });
  let belief: readonly number[] = range(0, count).map(() => 1 / count);
  return logs.map((own, place) => {
    const expected =
      place === 0
        ? belief
        : range(0, count).map((to) =>
            belief.reduce((sum, one, from) => sum + one * at(at(follows, from), to), 0),
          );
    belief = normalised(own.map((one, which) => one + Math.log(at(expected, which))));
    return belief;
  });
}

interface Told {
  readonly chord: Chord;
  readonly bar: number;
  readonly silent: boolean;
  /** Whether it goes on in silence after it was stated. */
  readonly on: boolean;
  /** Whether some note belongs to one of the chords it might be and not to another. */
  readonly told: boolean;
  readonly share: number;
  readonly heardSo: number;
  readonly rivals: readonly Likelihood[];
  readonly likeliest: readonly Likelihood[];
  readonly wanted: ChordHeard['wanted'];
}

/** Chords named at the most in one sentence. */
const NAMED = 3;

function sentenceFor(told: Told): string {
  const { chord, bar, silent, on, told: apart, share, heardSo, rivals, likeliest, wanted } = told;
  const name = named(chord);
  if (likeliest.length === 1) return `Bar ${bar}: ${name}.`;
  if (on) return `Bar ${bar}: ${name} goes on.`;
  if (silent) return `Bar ${bar}: nothing sounds over ${name}.`;
  if (share >= CLEAR) return `Bar ${bar} says ${name}.`;
  const help = wanted
    ? ` ${article(wanted.note)} ${noteName(wanted.note)} would (${placeWords(wanted)}).`
    : '';
  const first = at(likeliest, 0);
  const others = rivals.slice(0, NAMED - 1).map((one) => named(one.chord));
  const context = heardSo >= CLEAR ? ` After what came before it is heard as ${name}.` : '';
  if (others.length === 0) return `Bar ${bar} says ${name}, though not clearly.${context}`;
  if (!apart) {
    return `Bar ${bar} could be ${list([name, ...others], 'or')}: no note tells them apart.${help}${context}`;
  }
  if (share >= first.probability * AS_LIKELY) {
    return `Bar ${bar} could be ${list([name, ...others], 'or')}.${help}${context}`;
  }
  return `Bar ${bar} sounds like ${named(first.chord)} rather than ${name}.${help}${context}`;
}

/** How many of some chords are heard, in words. */
export function heardSays(chords: readonly ChordHeard[]): string {
  if (chords.length === 0) return 'There are no chords to be heard.';
  if (at(chords, 0).likeliest.length === 1) return 'Only one chord: nothing to tell apart.';
  const clear = chords.filter(({ share }) => share >= CLEAR).length;
  if (clear === chords.length) return 'Without the band, every chord comes through.';
  if (clear === 0) return 'Without the band, no chord comes through clearly.';
  return `Without the band, ${clear} of ${chords.length} chords ${clear === 1 ? 'comes' : 'come'} through.`;
}
