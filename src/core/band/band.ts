/** A band that plays a form: bass, comping and drums, the same for the same seed. */
import { at } from '../lists';
import { type Feel, feelOfKind } from '../time/feel';
import type { TimeSignature } from '../time/metre';
import type { Beats } from '../time/units';
import { hashed } from '../random';
import { bassOf, type Energy } from './bass';
import { compOf } from './comp';
import { drumsOf } from './drums';
import { BAND_PARTS, type BandEvent, type BandPart } from './events';
import { type BandForm, type FormChord, lastBy, NEAR } from './form';
import { PATTERNS } from './patterns';
import { touched } from './touch';

export interface BandOptions {
  /** Swing where nothing is said. */
  readonly feel?: Feel;
  readonly seed?: number;
  readonly choruses?: number;
  readonly parts?: readonly BandPart[];
  /** Whether it goes round for ever; else it comes to an end with the last bar. */
  readonly loops?: boolean;
  /** Choruses played before these. */
  readonly before?: number;
  /** Whether the last bars lead in before beat 0, and whether the tonic is held after the last bar. */
  readonly intro?: boolean;
  readonly ending?: boolean;
}

/** What sounds at once stands in this order. */
const RANK: Readonly<Record<BandPart, number>> = { bass: 0, comp: 1, drums: 2 };

/** Louder through the form, and from chorus to chorus, by a little. */
const DYNAMICS = [0.92, 0.98, 1.06, 1] as const;

/** An event of a chorus where it falls, as loud as the form wants it there. */
function inForm(event: BandEvent, form: BandForm, chorus: number): BandEvent {
  const bar = form.bars[lastBy(form.bars, event.beat)];
  const shade = at(DYNAMICS, (bar?.section ?? 0) % DYNAMICS.length) + 0.04 * Math.min(chorus, 3);
  const velocity = Math.min(1, Math.max(0.05, event.velocity * shade));
  const beat = event.beat + chorus * form.beats;
  const { beats } = event;
  // Written out: copying thousands of objects of two shapes is slow.
  return event.part === 'drums'
    ? { part: 'drums', beat, beats, velocity, drum: event.drum }
    : { part: event.part, beat, beats, velocity, midi: event.midi };
}

/** The last bar comes to rest: what is struck with its last chord rings, and nothing follows. */
function ended(events: readonly BandEvent[], form: BandForm): readonly BandEvent[] {
  const bar = form.bars.at(-1);
  const last = form.chords.findLast(({ beat }) => bar && beat <= bar.beat + bar.beats);
  if (!bar || !last) return events;
  const rest = Math.max(bar.beat, last.beat);
  const until = last.beat + last.beats;
  // What would have come a little later speaks now.
  const late = events.find(({ part, beat }) => part === 'comp' && beat >= rest - NEAR)?.beat;
  const held = events.flatMap((one): BandEvent | readonly BandEvent[] => {
    if (one.beat < rest - NEAR)
      return one.beat + one.beats <= rest ? one : { ...one, beats: rest - one.beat };
    const final = one.part === 'comp' ? one.beat === late : one.beat < rest + NEAR;
    if (!final) return [];
    return [one.part === 'drums' ? one : { ...one, beat: rest, beats: until - rest }];
  });
  if (!events.some(({ part }) => part === 'drums')) return held;
  const stroke = { part: 'drums', beat: rest, beats: 0.25 } as const;
  const others = held.filter(({ part, beat }) => part !== 'drums' || beat < rest - NEAR);
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
function leadingIn(form: BandForm, options: BandOptions): readonly BandEvent[] {
  const from = form.bars[Math.max(0, form.bars.length - INTRODUCTION)]?.beat ?? 0;
  const length = form.beats - from;
  const bars = form.bars
    .filter(({ beat }) => beat >= from - NEAR)
    .map((bar) => ({ ...bar, beat: bar.beat - from, section: 0, opens: bar.beat === from }));
  const chords = form.chords.flatMap((one) => {
    const begins = Math.max(one.beat, from);
    const beats = one.beat + one.beats - begins;
    return beats < NEAR ? [] : [{ ...one, beat: begins - from, beats }];
  });
  const led = bandOf(
    { ...form, bars, chords, beats: length },
    { ...options, choruses: 1, loops: true, intro: false, ending: false },
  );
  return led.map((one) => ({ ...one, beat: one.beat - length }) as BandEvent);
}

/** The chord a form comes home to: its tonic's own where it has one, else its first. */
function homeOf({ chords }: BandForm): FormChord | null {
  const tonic = chords[0]?.key?.tonic ?? null;
  const own = chords.find(({ chord }) => chord.root === tonic);
  return own ?? chords[0] ?? null;
}

/** The tonic held for a bar after the form. */
function comeHome(
  form: BandForm,
  beat: Beats,
  parts: readonly BandPart[],
  seed: number,
): readonly BandEvent[] {
  const home = homeOf(form);
  const bar = form.bars.at(-1);
  if (!home || !bar) return [];
  const chords = [{ ...home, beat: 0, beats: bar.beats }];
  const bars = [{ ...bar, beat: 0, section: 0, opens: true, closes: true }];
  const over = { time: form.time, beats: bar.beats, bars, chords };
  const held = bandOf(over, { feel: feelOfKind('ballad'), seed, parts });
  return held
    .filter((one) => one.beat < NEAR && (one.part !== 'drums' || one.drum !== 'ride'))
    .map((one) => ({ ...one, beat, beats: bar.beats }) as BandEvent);
}

/**
 * What the band plays, in order of time; beat 0 is the first downbeat.
 *
 * @example bandOf(bandForm(chart), { feel: feelOfKind('bossa'), choruses: 2 }).length // 1_310
 */
export function bandOf(form: BandForm, options: BandOptions = {}): readonly BandEvent[] {
  const { feel = feelOfKind('swing'), seed = 1, choruses = 1, loops = false, before = 0 } = options;
  const { intro = false, ending = false } = options;
  const parts = options.parts ?? BAND_PARTS;
  const patterns = PATTERNS[feel.kind];
  const events: BandEvent[] = [];
  for (let chorus = 0; chorus < choruses; chorus++) {
    const goesOn = loops || ending || chorus < choruses - 1;
    const drawn = Math.floor(hashed(seed, chorus) * 1_000_000);
    const part = {
      feel,
      seed: drawn,
      loops: goesOn,
      energy: energyOf(chorus + before),
      chorus: chorus + before,
    };
    const played: readonly BandEvent[] = [
      ...(parts.includes('bass') ? bassOf(form, patterns, part) : []),
      ...(parts.includes('comp') ? compOf(form, patterns, part) : []),
      ...(parts.includes('drums') ? drumsOf(form, patterns, part) : []),
    ];
    const whole = goesOn ? played : ended(played, form);
    for (const one of whole) events.push(inForm(one, form, chorus));
  }
  if (intro) events.push(...leadingIn(form, options));
  if (ending) events.push(...comeHome(form, choruses * form.beats, parts, seed));
  events.sort((a, b) => a.beat - b.beat || RANK[a.part] - RANK[b.part]);
  return touched(events, feel.kind, seed);
}

/** The feel of a chart's words: swing where they say nothing, or a slow twelve where the metre does. */
export function feelFor(words: Feel | null, { beats, unit }: TimeSignature): Feel {
  if (words) return words;
  return feelOfKind(unit >= 8 && beats % 3 === 0 && beats > 3 ? 'slow 12/8' : 'swing');
}
