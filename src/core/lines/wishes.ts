/** What the plan of a line wants of its notes: turns, leaps, and how high they lie. */
import { at, group, range } from '../lists';
import { pitchAt, stringCount } from '../neck/neck';
import type { Midi } from '../notes/pitch';
import type { Chance } from './chance';
import type { Onset } from './onsets';
import type { LineMetre } from './rhythm';
import type { LineRequest } from './request';
import { regionFor } from './candidates';

/** What the plan wants of the way into a note: to turn before it, to leap into it. */
interface Wish {
  readonly turn: boolean;
  readonly leap: boolean;
}

/** How often a bar turns: several times or not at all, seldom once. */
const TURNS = [0, 0, 2, 2, 3, 2, 3, 2] as const;
/** Leaps wanted in eight bars; the way to a target adds others. */
const LEAPS = 2;

/** Turns and leaps laid out over a line, bar by bar, in what the motif leaves free. */
export function wishesFor(
  onsets: readonly Onset[],
  { bar }: LineMetre,
  chance: Chance,
): readonly Wish[] {
  const wishes = onsets.map(() => ({ turn: false, leap: false }));
  const free = (index: number) => {
    const onset = onsets[index];
    return onset !== undefined && onset.step === null && !onset.begins;
  };
  const bars = Math.max(1, ...onsets.map(({ beat }) => Math.floor(beat / bar + 1e-6) + 1));
  for (const number of range(0, bars)) {
    const inBar = onsets.flatMap(({ beat }, index) =>
      Math.floor(beat / bar + 1e-6) === number && free(index) ? [index] : [],
    );
    let wanted: number = at(TURNS, Math.floor(chance() * TURNS.length));
    // Turns two notes apart at the least.
    let from = Math.floor(chance() * 2);
    while (wanted > 0 && from < inBar.length) {
      at(wishes, at(inBar, from)).turn = true;
      from += 2 + Math.floor(chance() * 2);
      wanted -= 1;
    }
  }
  const leaps = Math.max(1, Math.round((bars / 8) * LEAPS));
  const apart = onsets.length / leaps;
  for (const which of range(0, leaps)) {
    const near = Math.floor((which + 0.2 + 0.6 * chance()) * apart);
    const found = range(near, onsets.length).find(
      (index) =>
        free(index) && at(onsets, index).target === false && onsets[index + 1]?.target === false,
    );
    if (found === undefined) continue;
    at(wishes, found).leap = true;
    const after = wishes[found + 1];
    // After a leap the line turns and steps back.
    if (after && free(found + 1)) after.turn = true;
  }
  return wishes;
}

/** The height a line strives for at each onset: phrases rise and fall over the hand's range. */
export function heightsFor(
  request: LineRequest,
  onsets: readonly Onset[],
  chance: Chance,
): readonly Midi[] {
  const { neck } = request;
  const phrases = Math.max(0, ...onsets.map(({ phrase }) => phrase)) + 1;
  const first = chance() < 0.5 ? 0 : 1;
  const arches = range(0, phrases).map((which) => ({
    up: chance() < 0.8 ? which % 2 === first : which % 2 !== first,
    reach: 0.3 + 0.5 * chance(),
  }));
  const bounds = onsets.map(({ span }) => {
    const region = regionFor(request, span);
    const low = pitchAt(neck, { string: stringCount(neck), fret: region.low });
    return { low, high: pitchAt(neck, { string: 1, fret: region.high }) };
  });
  const homes = onsets.map(({ span }) => pitchAt(neck, at(request.targets, span)));
  const byPhrase = group(onsets, ({ phrase }) => phrase);
  return onsets.map(({ phrase, beat }, index) => {
    const inside = byPhrase.get(phrase) ?? [];
    const start = at(inside, 0).beat;
    const length = Math.max(1, at(inside, inside.length - 1).beat - start);
    const { up, reach } = at(arches, phrase);
    const { low, high } = at(bounds, index);
    const home = at(homes, index);
    // Towards the side that has room: an octave and more lies between the phrases' ends.
    const way = (up && high - home > 7) || home - low <= 7 ? 1 : -1;
    const room = way > 0 ? high - home : home - low;
    const swing = Math.sin((Math.PI * (beat - start)) / length);
    return home + way * Math.min(room, 6 + 10 * reach) * swing;
  });
}
