/** A band that plays a form: bass, comping and drums, the same for the same seed. */
import { quality } from '../chords/symbols';
import { at, range } from '../lists';
import { type Feel, type FeelKind, feelOfKind } from '../time/feel';
import type { TimeSignature } from '../time/metre';
import { BEAT, type Beats } from '../time/units';
import { hashed } from '../random';
import { bassOf, type Energy, type PartOptions } from './bass';
import { compOf } from './comp';
import { drumsOf } from './drums';
import { BAND_PARTS, type BandEvent, type BandPart } from './events';
import { type BandForm, cutForm, type FormChord, lastBy } from './form';
import { PATTERNS } from './patterns';
import { touched } from './touch';

/** How the band plays; whatever is left out is chosen for the chart. */
export interface BandOptions {
  /** Swing where nothing is said. */
  readonly feel?: FeelKind;
  readonly seed?: number;
  readonly choruses?: number;
  readonly parts?: readonly BandPart[];
  /** Whether it goes round for ever; else it comes to an end with the last bar. */
  readonly loops?: boolean;
  /** Choruses played before these. */
  readonly before?: number;
  /** Whether the comping has answers for the rests of who plays over it. */
  readonly answers?: boolean;
  /** Whether the last bars lead in before beat 0, and whether the tonic is held after the last bar. */
  readonly intro?: boolean;
  readonly ending?: boolean;
}

/** What sounds at once stands in this order. */
const RANK: Readonly<Record<BandPart, number>> = { bass: 0, comp: 1, drums: 2 };

/** Louder through the form, and from chorus to chorus, by a little. */
const DYNAMICS = [0.92, 0.98, 1.06, 1] as const;

/** An event as loud as the form wants it. */
function shaded(event: BandEvent, form: BandForm, chorus: number): BandEvent {
  const bar = form.bars[lastBy(form.bars, event.beat)];
  const shade = at(DYNAMICS, (bar?.section ?? 0) % DYNAMICS.length) + 0.04 * Math.min(chorus, 3);
  const velocity = Math.min(1, Math.max(0.05, event.velocity * shade));
  // Written out: copying thousands of objects of several shapes is slow.
  const { beat, beats } = event;
  if (event.part === 'drums') return { part: 'drums', beat, beats, velocity, drum: event.drum };
  const { part, midi, room } = event;
  return room === undefined
    ? { part, beat, beats, velocity, midi }
    : { part, beat, beats, velocity, midi, room };
}

const movedBy = (event: BandEvent, beats: Beats): BandEvent =>
  beats === 0 ? event : { ...event, beat: event.beat + beats };

/** The last bar comes to rest: what is struck with its last chord rings, and nothing follows. */
function ended(events: readonly BandEvent[], form: BandForm): readonly BandEvent[] {
  const bar = form.bars.at(-1);
  const last = form.chords.findLast(({ beat }) => bar && beat <= bar.beat + bar.beats);
  if (!bar || !last) return events;
  const rest = Math.max(bar.beat, last.beat);
  const until = last.beat + last.beats;
  // What would have come a little later speaks now.
  const late = events.find(({ part, beat }) => part === 'comp' && beat >= rest)?.beat;
  const held = events.flatMap((one): BandEvent | readonly BandEvent[] => {
    if (one.beat < rest)
      return one.beat + one.beats <= rest ? one : { ...one, beats: rest - one.beat };
    const final = one.part === 'comp' ? one.beat === late : one.beat <= rest;
    if (!final) return [];
    return [one.part === 'drums' ? one : { ...one, beat: rest, beats: until - rest }];
  });
  if (!events.some(({ part }) => part === 'drums')) return held;
  const stroke = { part: 'drums', beat: rest, beats: BEAT / 4 } as const;
  const others = held.filter(({ part, beat }) => part !== 'drums' || beat < rest);
  return [
    ...others,
    { ...stroke, drum: 'kick', velocity: 0.5 },
    { ...stroke, drum: 'crash', velocity: 0.4 },
  ];
}

/** The second chorus is busier, the fourth drops; and so on round. */
const ENERGIES: readonly Energy[] = ['usual', 'busy', 'usual', 'drop'];
const energyOf = (chorus: number): Energy => at(ENERGIES, chorus % ENERGIES.length);

/** Bars of an introduction: the last of the form. */
const INTRODUCTION = 4;

/** The last bars of a form as an introduction, which ends where the form begins. */
function leadingIn(form: BandForm, played: Playing): readonly BandEvent[] {
  const bars = form.bars.length;
  const over = cutForm(form, Math.max(0, bars - INTRODUCTION), bars);
  return chorusOf(over, { ...played, energy: 'usual', loops: true }).map((one) =>
    movedBy(one, -over.beats),
  );
}

/** The chord a form comes home to: its tonic's own, the tonic's sixth where it has none, else its first. */
function homeOf({ chords }: BandForm): FormChord | null {
  const [first] = chords;
  const key = first?.key ?? null;
  if (!first || !key) return first ?? null;
  const own = chords.filter(({ chord }) => chord.root === key.tonic);
  // A blues comes home to its seventh chord; elsewhere that leads on, and any other chord there is nearer home.
  const found = own.find(({ chord }) => chord.quality.family !== 'dominant') ?? own[0];
  const home = found?.chord.quality ?? quality(key.mode === 'major' ? '6' : 'm6');
  return { ...(found ?? first), chord: { symbol: '', root: key.tonic, quality: home, bass: null } };
}

/** The tonic held for a bar after the form. */
function comeHome(form: BandForm, played: Playing): readonly BandEvent[] {
  const home = homeOf(form);
  const bar = form.bars.at(-1);
  if (!home || !bar) return [];
  const over: BandForm = {
    time: form.time,
    beats: bar.beats,
    bars: [{ ...bar, beat: 0, section: 0, opens: true, closes: true }],
    chords: [{ ...home, beat: 0, beats: bar.beats }],
  };
  // A ballad strikes a chord once and lets it ring.
  return chorusOf(over, { ...played, feel: 'ballad', energy: 'usual', loops: false })
    .filter((one) => one.beat <= 0 && (one.part !== 'drums' || one.drum !== 'ride'))
    .map((one): BandEvent => ({ ...one, beats: bar.beats }));
}

/** One chorus of a form, as it is written. */
interface Playing extends PartOptions {
  readonly parts: readonly BandPart[];
}

function chorusOf(form: BandForm, playing: Playing): readonly BandEvent[] {
  const { parts, loops, feel } = playing;
  const patterns = PATTERNS[feel];
  const played: readonly BandEvent[] = [
    ...(parts.includes('bass') ? bassOf(form, patterns, playing) : []),
    ...(parts.includes('comp') ? compOf(form, patterns, playing) : []),
    ...(parts.includes('drums') ? drumsOf(form, patterns, playing) : []),
  ];
  return (loops ? played : ended(played, form)).map((one) => shaded(one, form, playing.chorus));
}

const playingOf = (options: BandOptions, chorus: number, loops: boolean): Playing => {
  const { feel = 'swing', seed = 1, before = 0, parts = BAND_PARTS, answers = false } = options;
  return {
    parts,
    feel,
    chorus: chorus + before,
    energy: energyOf(chorus + before),
    loops,
    answers,
    seed: Math.floor(hashed(seed, chorus) * 1_000_000),
  };
};

/** Events in order of time, with the touch of hands. */
function asPlayed(
  events: readonly BandEvent[],
  { feel = 'swing', seed = 1 }: BandOptions,
): readonly BandEvent[] {
  const ordered = events.toSorted((a, b) => a.beat - b.beat || RANK[a.part] - RANK[b.part]);
  return touched(ordered, feel, seed);
}

/**
 * How long the introduction to a form is, and what its ending takes.
 *
 * @example inBeats(introBeats(bandForm(read('| C | F |')))); // 8
 */
export const introBeats = (form: BandForm): Beats =>
  form.bars.slice(-INTRODUCTION).reduce((sum, { beats }) => sum + beats, 0);

/** How long the chord is held that the band ends on: the last bar of the form. */
export const endingBeats = ({ bars }: BandForm): Beats => bars.at(-1)?.beats ?? 0;

/** The introduction to a form alone, before beat 0. */
export const introOf = (form: BandForm, options: BandOptions = {}): readonly BandEvent[] =>
  asPlayed(leadingIn(form, playingOf(options, 0, true)), options);

/** The ending of a form alone: its tonic held for a bar from beat 0 on. */
export const endingOf = (form: BandForm, options: BandOptions = {}): readonly BandEvent[] =>
  asPlayed(comeHome(form, playingOf(options, 0, true)), options);

/**
 * What the band plays, in order of time; beat 0 is the first downbeat.
 *
 * @example bandOf(bandForm(read('| Dm7 | G7 |')), { feel: 'bossa' })[0].part; // "bass"
 */
export function bandOf(form: BandForm, options: BandOptions = {}): readonly BandEvent[] {
  const { choruses = 1, loops = false, intro = false, ending = false } = options;
  const playing = (chorus: number) =>
    playingOf(options, chorus, loops || ending || chorus < choruses - 1);
  const events = range(0, choruses).flatMap((chorus) =>
    chorusOf(form, playing(chorus)).map((one) => movedBy(one, chorus * form.beats)),
  );
  if (intro) events.push(...leadingIn(form, playing(0)));
  if (ending) {
    const end = choruses * form.beats;
    events.push(...comeHome(form, playing(choruses - 1)).map((one) => movedBy(one, end)));
  }
  return asPlayed(events, options);
}

/**
 * The feel of a chart's words: swing where they say nothing, or a slow twelve where the metre does.
 *
 * @example feelFor(null, { beats: 12, unit: 8 }).kind; // "slow 12/8"
 */
export function feelFor(words: Feel | null, { beats, unit }: TimeSignature): Feel {
  if (words) return words;
  return feelOfKind(unit >= 8 && beats % 3 === 0 && beats > 3 ? 'slow 12/8' : 'swing');
}
