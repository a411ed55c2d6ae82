/**
 * Comping: shells and four-note voicings with third and seventh between C3 and C5, each voice moving
 * as little as it can, the cheapest way through the whole form.
 */
import { rememberBy, rememberOf } from '../cache';
import type { Chord } from '../chords/chords';
import { at, modulo, range } from '../lists';
import {
  type Interval,
  intervalBetween,
  type Note,
  pitchClass,
  step,
  transpose,
} from '../notes/notes';
import { degreeName } from '../notes/degrees';
import type { Midi } from '../notes/pitch';
import { cheapestPath } from '../paths/layered';
import { hashed, seeded } from '../random';
import type { PartOptions } from './bass';
import type { PitchedEvent, Room } from './events';
import { type BandForm, chordAt, type FormChord, lastBy } from './form';
import { type Choose, type Hit, hitsOf } from './hits';
import type { FeelPatterns } from './patterns';
import { pulsesOf } from '../time/pulses';
import { type Beats, inBeats } from '../time/units';

const LOW: Midi = 48;
const HIGH: Midi = 72;
/** Where the middle of a voicing lies best. */
const CENTRE: Midi = 60;
/** How far round the hands go from one chord to the next: chords of a form never fall into step with it. */
const ROUND = 0.9;
const ROUND_CHORUS = 2.2;

interface Voicing {
  /** From the lowest up. */
  readonly midis: readonly Midi[];
  readonly cost: number;
}

const VOICES = 4;
/** What a voicing of three costs, and one that doubles the root of the bass. */
const SHELL = 0.3;
const DOUBLED = 0.9;
/** How far the hands go up and down the keys through a chorus, in half steps, and what leaving that costs. */
const WANDER = 6;
const AWAY = 0.35;
/** What a voicing costs whose turn it is not. */
const AGAIN = 8;
/** Voicings of a chord kept to choose from. */
const KEPT = 16;

/** Ninths and thirteenths a choice may add to what the symbol says; elevenths are left to symbols. */
const COLOURS: readonly string[] = ['2', '6'];

/** The sets of tones a chord may be played with, each with its price. */
function toneSets(
  { root, quality }: Chord,
  chosen: readonly Note[] | null,
): readonly (readonly [readonly Interval[], number])[] {
  const named = quality.degrees.filter((one) => !quality.core.includes(one));
  const guides = quality.guideTones;
  const colours = (chosen ?? [])
    .map((note) => intervalBetween(root, note))
    .filter((one) => COLOURS.includes(degreeName(one)) && quality.tensions.includes(one));
  const seventh = quality.core.some((one) => step(one) === 6 || step(one) === 5);
  if (!seventh && named.length === 0) {
    const triad = quality.core;
    const tonic = triad.find((one) => one === 0);
    // A chord of two tones doubles its root.
    return triad.length < 3 && tonic !== undefined ? [[[...triad, tonic], 0]] : [[triad, 0]];
  }
  const must = [...new Set([...guides, ...named])].slice(0, VOICES);
  const fillers = [...new Set([...colours, ...quality.core.toReversed()])].filter(
    (one) => !must.includes(one),
  );
  const spare = VOICES - must.length;
  const sets: (readonly [readonly Interval[], number])[] = [];
  // A shell leaves room; it is the lighter choice, not the usual one.
  if (must.length === 3 || (must.length === 2 && fillers[0] !== undefined))
    sets.push([must.length === 3 ? must : [...must, at(fillers, 0)], SHELL]);
  if (spare === 0) sets.push([must, 0]);
  // The root is the bass's: it is taken for want of anything else.
  const price = (rank: number, tone: Interval) => 0.15 * rank + (tone === 0 ? DOUBLED : 0);
  fillers.forEach((one, rank) => {
    if (spare === 1) sets.push([[...must, one], price(rank, one)]);
    if (spare < 2) return;
    for (const [more, other] of fillers.slice(rank + 1).entries())
      sets.push([[...must, one, other], price(rank, one) + price(more, other)]);
  });
  return sets.length > 0 ? sets : [[must, 0]];
}

/** What a voicing costs by itself: muddy below, half steps on top, far from the middle. */
function standing(midis: readonly Midi[]): number {
  const middle = midis.reduce((sum, midi) => sum + midi, 0) / midis.length;
  const gaps = midis.slice(1).map((midi, index) => midi - at(midis, index));
  const low = at(midis, 0);
  const muddy = low < 52 && (gaps[0] ?? 12) < 4 ? 1.5 : 0;
  const rubs = gaps.filter((gap) => gap === 1).length * 0.35 + (gaps.at(-1) === 1 ? 0.9 : 0);
  const wide = gaps.some((gap) => gap > 9) ? 1.5 : 0;
  return 0.1 * Math.abs(middle - CENTRE) + muddy + rubs + wide;
}

/** The tones stacked from each of them up, close and with the second from the top dropped. */
function placed(classes: readonly number[]): readonly (readonly Midi[])[] {
  const inOrder = [...classes].sort((a, b) => a - b);
  return range(0, inOrder.length).flatMap((turn) => {
    const from = [...inOrder.slice(turn), ...inOrder.slice(0, turn)];
    const bottom = LOW + modulo(at(from, 0) - LOW, 12);
    return [bottom, bottom + 12].flatMap((low) => {
      const close: Midi[] = [low];
      for (const tone of from.slice(1)) {
        const before = at(close, close.length - 1);
        close.push(before + (modulo(tone - before, 12) || 12));
      }
      const dropped = close
        .with(close.length - 2, at(close, close.length - 2) - 12)
        .sort((a, b) => a - b);
      return close.length < VOICES ? [close] : [close, dropped];
    });
  });
}

const inRange = (midis: readonly Midi[]) =>
  at(midis, 0) >= LOW && at(midis, midis.length - 1) <= HIGH;

const voicingsOf = rememberBy(
  ({ chord, chosen }: FormChord) =>
    `${chord.root} ${chord.quality.name} ${chosen?.join(',') ?? ''}`,
  ({ chord, chosen }: FormChord): readonly Voicing[] =>
    toneSets(chord, chosen)
      .flatMap(([tones, price]) =>
        placed(tones.map((tone) => pitchClass(transpose(chord.root, tone))))
          .filter(inRange)
          .map((midis): Voicing => ({ midis, cost: price + standing(midis) })),
      )
      .sort((a, b) => a.cost - b.cost)
      .slice(0, KEPT),
);

/** How far the voices move; where one has fewer, each goes to the nearest. */
function moving(before: readonly Midi[], after: readonly Midi[]): number {
  if (before.length === after.length) {
    let sum = 0;
    for (let voice = 0; voice < before.length; voice++)
      sum += Math.abs(at(after, voice) - at(before, voice));
    return sum / before.length;
  }
  const [few, many] = before.length < after.length ? [before, after] : [after, before];
  let sum = 0;
  for (const midi of many) {
    let least = Infinity;
    for (const other of few) least = Math.min(least, Math.abs(other - midi));
    sum += least;
  }
  return sum / many.length + 0.5;
}

/** What every voicing of a chord is from every one of the next. */
type Ways = readonly (readonly number[])[];

/** How far they move from every voicing of one chord to every one of another: the same two come again. */
const waysFrom = rememberOf((before: readonly Voicing[]) =>
  rememberOf((after: readonly Voicing[]) =>
    before.map((one) => after.map((other) => moving(one.midis, other.midis))),
  ),
);

/** A stretch of one chord that is voiced once: a chord that is held long is voiced anew every two bars. */
interface Stretch {
  readonly over: FormChord;
  readonly beat: Beats;
  readonly until: Beats;
}

function stretchesOf(form: BandForm): readonly Stretch[] {
  return form.chords.flatMap((over) => {
    const ends = over.beat + over.beats;
    const cuts = form.bars
      .filter(({ beat }) => beat > over.beat && beat < ends)
      .filter((_, index) => index % 2 === 1)
      .map(({ beat }) => beat);
    const starts = [over.beat, ...cuts];
    return starts.map((beat, index) => ({ over, beat, until: starts[index + 1] ?? ends }));
  });
}

/** Which of the voicings each stretch takes. */
function led(stretches: readonly Stretch[], seed: number, chorus: number): readonly Voicing[] {
  const choices = stretches.map(({ over }) => voicingsOf(over));
  const chance = seeded(seed);
  // From chorus to chorus they begin elsewhere, so that no chord is met alike three times.
  const turn = chorus * ROUND_CHORUS;
  const prices = choices.map((some, layer) => {
    // A chord that comes again is met with the hands elsewhere.
    const centre = CENTRE + WANDER * Math.sin(turn + layer * ROUND);
    return some.map(({ midis, cost }, rank) => {
      const middle = midis.reduce((sum, midi) => sum + midi, 0) / midis.length;
      // Every other voicing of a chord this time, the others the next.
      const again = (rank + chorus + layer) % 2 === 0 ? 0 : AGAIN;
      return cost + again + AWAY * Math.abs(middle - centre) + 0.7 * chance();
    });
  });
  const held = stretches.map(({ over }, layer) => over === stretches[layer + 1]?.over);
  const ways = choices.slice(1).map((after, layer) => waysFrom(at(choices, layer))(after));
  const path = cheapestPath({
    sizes: choices.map(({ length }) => length),
    node: (layer, node) => at(at(prices, layer), node),
    edge: (layer, from, to) => {
      const same = held[layer] === true;
      // Within one chord it is time for another look at it.
      const way = ((ways[layer] as Ways)[from] as readonly number[])[to] as number;
      return way + (same && from === to ? 1 : 0);
    },
  });
  return path ? path.nodes.map((node, index) => at(at(choices, index), node)) : [];
}

/** Any of the cells, but not the one before it again. */
function drawn(seed: number): Choose {
  let last = '';
  return (cells, bar, group) => {
    const others = cells.length > 1 ? cells.filter((cell) => cell !== last) : cells;
    last = at(others, Math.floor(hashed(seed, bar, group) * others.length));
    return last;
  };
}

/** Strokes a chorus leaves out that drops. */
const LEFT_OUT = 0.35;
/** Of the strokes that meet no chord, those left out while somebody plays; of those besides, the answers. */
const ROOM = 0.6;
const ANSWERED = 0.7;

/** A chord struck: which stretch it voices, and the room it leaves. */
interface Strike {
  readonly beat: Beats;
  readonly stretch: number;
  readonly room: Room | null;
}

/** The comping over a form, in order of time. */
export function compOf(
  form: BandForm,
  { comp }: Pick<FeelPatterns, 'comp'>,
  { feel, seed, energy, chorus, answers }: Omit<PartOptions, 'loops'>,
): readonly PitchedEvent[] {
  const stretches = stretchesOf(form);
  const voicings = led(stretches, seed, chorus);
  if (voicings.length === 0) return [];
  const indexAt = (beat: Beats) => {
    const last = lastBy(stretches, beat);
    return beat < (stretches[last]?.until ?? 0) ? last : -1;
  };
  const pulse = at(pulsesOf(form.time), 0).beats;
  /** The stretch a hit speaks for; −1 where no chord sounds. */
  const spokenBy = ({ beat, to, onPulse }: Hit): number => {
    // An off-beat just before a change may speak for the chord that comes.
    const ahead = comp.early && !onPulse && to < form.beats ? indexAt(to) : -1;
    const here = indexAt(beat);
    const comes = here >= 0 && ahead >= 0 && stretches[ahead]?.over !== stretches[here]?.over;
    return comes ? ahead : here;
  };
  const strikes = hitsOf(form, comp, feel, drawn(seed)).flatMap((hit): readonly Strike[] => {
    const stretch = spokenBy(hit);
    // A chorus that drops leaves every third stroke out.
    const left =
      energy === 'drop' && hashed(seed, Math.round(12 * inBeats(hit.beat)), 17) < LEFT_OUT;
    if (stretch < 0 || left) return [];
    const room = hashed(seed, Math.round(12 * inBeats(hit.beat)), 19) < ROOM ? 'left' : null;
    return [{ beat: hit.beat, stretch, room }];
  });
  // Every chord is met: on its beat, or by the off-beat before it.
  stretches.forEach(({ over, beat }, stretch) => {
    const before = stretches[stretch - 1];
    const met = strikes.some(
      (one) =>
        one.stretch === stretch &&
        (over.beats > 2 * pulse ? one.beat < beat + pulse : one.beat <= beat),
    );
    if (!met && before?.over !== over) strikes.push({ beat, stretch, room: null });
  });
  strikes.sort((a, b) => a.beat - b.beat);
  // What meets a chord is played whoever plays.
  strikes.forEach((one, index) => {
    if (strikes[index - 1]?.stretch !== one.stretch) strikes[index] = { ...one, room: null };
  });
  if (answers) {
    const free = (beat: Beats) => strikes.every((one) => Math.abs(one.beat - beat) > 0.4 * pulse);
    const more = hitsOf(form, comp, feel, drawn(seed + 1)).flatMap((hit): readonly Strike[] => {
      const stretch = spokenBy(hit);
      const answered = hashed(seed, Math.round(12 * inBeats(hit.beat)), 23) < ANSWERED;
      return stretch < 0 || !answered || !free(hit.beat)
        ? []
        : [{ beat: hit.beat, stretch, room: 'answer' }];
    });
    strikes.push(...more);
    strikes.sort((a, b) => a.beat - b.beat);
  }
  return strikes
    .filter(({ beat }, index) => beat - (strikes[index - 1]?.beat ?? -Infinity) > 0.1 * pulse)
    .flatMap(({ beat, stretch, room }, index, all): readonly PitchedEvent[] => {
      const { until } = at(stretches, stretch);
      // It rings up to what is surely played.
      let after = index + 1;
      while (all[after]?.room === 'answer') after += 1;
      const next = Math.min(all[after]?.beat ?? form.beats, until);
      const beats = Math.round(Math.max(0.1 * pulse, comp.held * (next - beat)));
      const velocity = 0.5 + 0.1 * (hashed(seed, index, 3) - 0.5);
      return at(voicings, stretch).midis.map((midi) => ({
        part: 'comp',
        beat,
        beats: chordAt(form, beat) === null ? Math.min(beats, pulse) : beats,
        midi,
        velocity,
        ...(room === null ? {} : { room }),
      }));
    });
}
