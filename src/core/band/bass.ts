/**
 * The bass: roots on the changes, chord tones on strong beats, a step or a fifth into the next root.
 * The line is the cheapest path through what each stroke may be.
 */
import { chordNotes } from '../chords/chords';
import { rememberBy, rememberOf } from '../cache';
import { keyScale } from '../keys/keys';
import { at, modulo } from '../lists';
import { pitchClass, step, transpose } from '../notes/notes';
import { degree } from '../notes/degrees';
import type { Midi } from '../notes/pitch';
import { cheapestPath } from '../paths/layered';
import { hashed, seeded } from '../random';
import type { FeelKind } from '../time/feel';
import type { PitchedEvent } from './events';
import { type BandForm, chordAt, type FormChord, lastBy } from './form';
import { type Hit, hitsOf, inTurn } from './hits';
import type { FeelPatterns } from './patterns';
import { BEAT, type Beats } from '../time/units';

/** E1, the lowest string of a bass, to G3. */
const LOW: Midi = 28;
const HIGH: Midi = 55;
/** Half steps either side of where the hand lies: every note is within them. */
const REACH = 8;

/** Pitch classes of a chord for a bass. */
interface Tones {
  readonly root: number;
  readonly fifth: number;
  readonly chord: ReadonlySet<number>;
  /** The chord's tones, and the key's for the letters it does not name. */
  readonly scale: ReadonlySet<number>;
  /** The third the chord has not, where it has the other; null for none. */
  readonly foreign: number | null;
}

const tonesByName = rememberBy(
  ({ chord, key }: FormChord) =>
    [chord.root, chord.quality.name, chord.bass, key?.tonic, key?.mode].join(' '),
  ({ chord, key }: FormChord): Tones => {
    const tones = chordNotes(chord);
    const letters = new Set(tones.map(step));
    const between = key
      ? keyScale(key)
          .map((tone) => transpose(key.tonic, tone))
          .filter((note) => !letters.has(step(note)))
      : [];
    const thirds = [MINOR_THIRD, MAJOR_THIRD];
    const own = tones.map((tone) => modulo(pitchClass(tone) - pitchClass(chord.root), 12));
    const has = thirds.filter((size) => own.includes(size));
    // The other third says another chord, however short this one is.
    const foreign = has.length === 1 ? thirds.find((size) => !has.includes(size)) : undefined;
    const fifth = chord.quality.core.find((one) => step(one) === 4) ?? degree('5');
    return {
      root: pitchClass(chord.bass ?? chord.root),
      fifth: pitchClass(transpose(chord.root, fifth)),
      chord: new Set(tones.map(pitchClass)),
      scale: new Set([...tones, ...between].map(pitchClass)),
      foreign: foreign === undefined ? null : (pitchClass(chord.root) + foreign) % 12,
    };
  },
);

/** Of the chords of a form, which are asked for at every stroke. */
const tonesOf = rememberOf(tonesByName);

const MINOR_THIRD = 3;
const MAJOR_THIRD = 4;

type Role = 'R' | 'F' | 'O' | 'W' | 'A' | 'N';

interface Step {
  readonly beat: Beats;
  readonly until: Beats;
  readonly role: Role;
  readonly strong: boolean;
  readonly accent: number;
  readonly tones: Tones;
  /** The root of the chord that follows, where this stroke is the last before it. */
  readonly into: number | null;
  readonly bar: number;
}

/** What it costs to stand on a pitch class in a role, before register; Infinity where it may not. */
function standing({ role, tones, strong, into }: Step, tone: number, chromatic: boolean): number {
  switch (role) {
    case 'R':
    case 'O':
    case 'N':
      return tone === tones.root ? 0 : Infinity;
    case 'F':
      return tone === tones.fifth ? 0 : Infinity;
    case 'A':
    case 'W': {
      if (tone === tones.foreign) return Infinity;
      const toNext =
        into === null ? null : Math.min(modulo(tone - into, 12), modulo(into - tone, 12));
      const leads = toNext === 1 ? 0.25 : toNext === 2 || toNext === 5 ? 0.45 : null;
      if (leads !== null && (tones.scale.has(tone) || (toNext === 1 && chromatic))) return leads;
      // What does not lead into the change leaves it to chance.
      const aimless = into === null ? 0 : 0.7;
      if (tones.chord.has(tone)) return aimless + (tone === tones.root ? 0.5 : 0.2);
      // A passing note belongs between the beats that are felt.
      if (tones.scale.has(tone)) return aimless + (strong ? 1.4 : 0.5);
      return Infinity;
    }
  }
}

/** Within so much a ghost would fall together with a note. */
const TOGETHER: Beats = BEAT / 20;

/** What it costs to move, by the half steps of the way: steps are easy, a note again is dull. */
const MOVES = [2.2, 0.15, 0.15, 0.45, 0.5, 0.6, 2, 0.8, 1.6, 1.6, 2, 3, 1.3] as const;
const moving = (from: Midi, to: Midi): number => {
  const size = Math.abs(to - from);
  return MOVES[size] ?? 4 + size / 4;
};

/** Where the hand lies: it goes up and down through the form, so that a vamp has a shape. */
const centreAt = (seed: number, bar: number): Midi =>
  39 + 4 * Math.sin((bar / 4 + hashed(seed, 7)) * Math.PI);

function stepsOf(form: BandForm, hits: readonly Hit[], loops: boolean): readonly Step[] {
  const starts = form.chords;
  const strikes = hits
    .map((hit) => ({ hit, over: chordAt(form, hit.beat) }))
    .filter(({ over }) => over !== null);
  const steps: Omit<Step, 'until' | 'into'>[] = [];
  const begun = new Set<FormChord>();
  const add = (over: FormChord, hit: Hit | null, role: Role, beat: Beats) => {
    const strong = hit === null || (hit.onPulse && hit.pulse.place === 0);
    const bar = hit?.bar ?? lastBy(form.bars, beat);
    steps.push({ beat, role, strong, accent: hit?.accent ?? 1, tones: tonesOf(over), bar });
  };
  for (const { hit, over } of strikes) {
    if (over === null || hit.role === 'G') continue;
    const first = over.beat === hit.beat;
    const next =
      hit.role === 'N' && !first
        ? (chordAt(form, hit.to) ?? (loops && hit.to >= form.beats ? starts[0] : null))
        : null;
    if (first) begun.add(over);
    if (next) add(next, hit, 'N', hit.beat);
    else if (first || hit.role !== 'N')
      add(over, hit, first ? 'R' : ((hit.role ?? 'W') as Role), hit.beat);
  }
  // A chord that begins between the strokes is met where it begins.
  for (const over of starts) if (!begun.has(over)) add(over, null, 'R', over.beat);
  steps.sort((a, b) => a.beat - b.beat);
  return steps.map((step, index): Step => {
    const over = chordAt(form, step.beat);
    const after = steps[index + 1];
    const end = over ? over.beat + over.beats : form.beats;
    const next = chordAt(form, end) ?? (loops && end >= form.beats ? (starts[0] ?? null) : null);
    const isLast = after === undefined || after.beat >= end;
    return {
      ...step,
      until: Math.min(after?.beat ?? form.beats, step.role === 'N' ? form.beats : end),
      into: isLast && next ? tonesOf(next).root : null,
    };
  });
}

/** How much a chorus plays. */
export type Energy = 'drop' | 'usual' | 'busy';

/** What every part of the band is told of the chorus it plays. */
export interface PartOptions {
  readonly energy: Energy;
  /** The number of the chorus, from 0. */
  readonly chorus: number;
  readonly feel: FeelKind;
  readonly seed: number;
  /** Whether the form comes round: its end leads into its beginning. */
  readonly loops: boolean;
  /** Whether the comping has answers for the rests of who plays over it. */
  readonly answers: boolean;
}

/** The bass over a form, in order of time. */
export function bassOf(
  form: BandForm,
  { bass }: Pick<FeelPatterns, 'bass'>,
  { feel, seed, loops }: PartOptions,
): readonly PitchedEvent[] {
  const hits = hitsOf(form, bass, feel, inTurn);
  const steps = stepsOf(form, hits, loops);
  if (steps.length === 0) return [];
  const chance = seeded(seed);
  const choices = steps.map((one) => {
    const centre = centreAt(seed, one.bar);
    // Written out: most pitches are no choice, and this is the band's innermost loop.
    const some: { readonly midi: Midi; readonly cost: number }[] = [];
    const low = Math.max(LOW, Math.ceil(centre - REACH));
    const high = Math.min(HIGH, Math.floor(centre + REACH));
    for (let midi = low; midi <= high; midi++) {
      const stands = standing(one, midi % 12, bass.chromatic);
      if (stands === Infinity) continue;
      const far = midi - centre;
      some.push({ midi, cost: stands + 0.012 * far * far + 0.5 * chance() });
    }
    return some;
  });
  const midis = choices.map((some) => some.map(({ midi }) => midi));
  const roles = steps.map(({ role }) => role);
  const path = cheapestPath({
    sizes: choices.map(({ length }) => length),
    node: (layer, node) => at(at(choices, layer), node).cost,
    edge: (layer, from, to) => {
      const before = (midis[layer] as readonly Midi[])[from] as Midi;
      const after = (midis[layer + 1] as readonly Midi[])[to] as Midi;
      const role = roles[layer + 1];
      // A pedalled root stays; an octave is asked for by name.
      if (role === 'R' && after === before) return roles[layer] === 'R' ? 0 : 0.6;
      if (role === 'O') return Math.abs(after - before) === 12 ? 0 : 1.5 + moving(before, after);
      return moving(before, after);
    },
  });
  if (!path) return [];
  const sounded = steps.map((one, index): PitchedEvent => {
    const { midi } = at(at(choices, index), at(path.nodes, index));
    const velocity = Math.min(1, (one.strong ? 0.72 : 0.64) * one.accent);
    return {
      part: 'bass',
      beat: one.beat,
      beats: Math.round(bass.held * (one.until - one.beat)),
      midi,
      velocity,
    };
  });
  const ghosts = hits.flatMap((hit): readonly PitchedEvent[] => {
    if (hit.role !== 'G' || !chordAt(form, hit.beat)) return [];
    const before = sounded[lastBy(sounded, hit.beat + TOGETHER)];
    if (!before || before.beat > hit.beat - TOGETHER) return [];
    const beats = Math.round(0.12 * hit.pulse.beats);
    return [{ part: 'bass', beat: hit.beat, beats, midi: before.midi, velocity: 0.34 }];
  });
  if (ghosts.length === 0) return sounded;
  const all = [...sounded, ...ghosts].sort((a, b) => a.beat - b.beat);
  // A ghost cuts off what sounds before it.
  return all.map((one, index) => {
    const next = all[index + 1];
    return next && one.beat + one.beats > next.beat ? { ...one, beats: next.beat - one.beat } : one;
  });
}
