/** The simulated guitarist: plays what is asked of a player, into the ear, with chosen mistakes. */
import { type Mistakes, playedWith, pluckedSound, type ToPlay } from '$core/listening/simulated';
import type { Midi } from '$core/notes/pitch';
import type { Beats, Seconds } from '$core/time/units';
import { pageTransport } from '$lib/audio/transport.svelte';
import { type Ear, SIMULATED } from './ear.svelte';
import { BEAT } from 'corvel-core';

/** How far ahead he plucks, over whatever keeps the page busy, and how long a string rings at the most. */
const AHEAD: Seconds = 4;
const RINGS: Seconds = 1.2;

/** What he is to play while the transport runs. */
export interface ToBePlayed {
  /** The notes of a pass, in time from its beginning, and the beat it begins with. */
  readonly notes: (pass: number) => readonly ToPlay[];
  readonly begins: (pass: number) => Beats;
  /** What his mistakes are drawn from. */
  readonly seed: number;
}

/** A string to be plucked at a second of the clock. */
interface Plucking {
  readonly at: Seconds;
  readonly rings: Seconds;
  readonly midi: Midi;
  readonly bent: number;
}

/** Nobody plucks one string twice in so short a time. */
const SAME: Seconds = 1e-3;
const sameAs = (one: Plucking) => (other: Plucking) =>
  one.midi === other.midi && Math.abs(one.at - other.at) < SAME;

export function playsSimulated(
  ear: Ear,
  mistakes: () => Mistakes,
  wanted: () => ToBePlayed | null,
): void {
  const transport = pageTransport();
  /** What he has plucked or is to pluck, and how it is called off. */
  let plucked: readonly (Plucking & { readonly end: () => void })[] = [];

  const looked = $derived(
    transport.playing && ear.state === 'hearing' && ear.device === SIMULATED
      ? Math.floor((2 * (transport.through ?? 0)) / BEAT)
      : null,
  );
  $effect(() => {
    const asked = looked === null ? null : wanted();
    const due = asked ? dueOf(asked, mistakes()) : [];
    const now = ear.now();
    // What is not due any more, since it stopped or goes on otherwise, is not plucked.
    const stays = (one: Plucking) => one.at <= now || due.some(sameAs(one));
    for (const one of plucked) if (!stays(one)) one.end();
    const stay = plucked.filter(stays);
    const more = due.filter(
      (one) => one.at >= now && one.at <= now + AHEAD && !stay.some(sameAs(one)),
    );
    plucked = [
      ...stay.filter(({ at }) => at > now - RINGS),
      ...more.map((one) => ({ ...one, end: pluck(one) })),
    ];
  });

  function dueOf({ notes, begins, seed }: ToBePlayed, errs: Mistakes): readonly Plucking[] {
    const { pass } = transport;
    return [pass, pass + 1].flatMap((number) =>
      playedWith(notes(number), errs, seed + number).flatMap(({ beat, beats, midi, bent = 0 }) => {
        const at = transport.secondsAt(begins(number) + beat);
        const end = transport.secondsAt(begins(number) + beat + beats);
        return at === null || end === null
          ? []
          : [{ at, rings: Math.min(RINGS, end - at), midi, bent }];
      }),
    );
  }

  function pluck({ at, rings, midi, bent }: Plucking): () => void {
    const sound = pluckedSound([{ seconds: 0, length: rings * 0.95, midi, bent }], ear.rate, rings);
    return ear.feed(sound, at);
  }
}
