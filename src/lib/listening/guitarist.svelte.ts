/** The simulated guitarist: plays what is asked of a player, into the ear, with chosen mistakes. */
import { type Mistakes, playedWith, pluckedSound, type ToPlay } from '$core/listening/simulated';
import type { Beats, Seconds } from '$core/time/units';
import { pageTransport } from '$lib/audio/transport.svelte';
import { type Ear, SIMULATED } from './ear.svelte';

/** How far ahead he plucks, over whatever keeps the page busy, and how long a string rings at the most. */
const AHEAD: Seconds = 4;
const RINGS: Seconds = 1.2;

/** What he is to play while the transport runs. */
export interface ToBePlayed {
  /** The notes of a pass, in beats from its beginning, and the beat it begins with. */
  readonly notes: (pass: number) => readonly ToPlay[];
  readonly begins: (pass: number) => Beats;
  /** What his mistakes are drawn from. */
  readonly seed: number;
}

export function playsSimulated(
  ear: Ear,
  mistakes: () => Mistakes,
  wanted: () => ToBePlayed | null,
): void {
  const transport = pageTransport();
  let played: Seconds = 0;

  const looked = $derived(
    transport.playing && ear.state === 'hearing' && ear.device === SIMULATED
      ? Math.floor(2 * (transport.through ?? 0))
      : null,
  );
  $effect(() => {
    const asked = looked === null ? null : wanted();
    if (!asked) {
      played = 0;
      return;
    }
    const { notes, begins, seed } = asked;
    const now = ear.now();
    const { pass } = transport;
    const due = [pass, pass + 1].flatMap((number) =>
      playedWith(notes(number), mistakes(), seed + number).flatMap(
        ({ beat, beats, midi, bent = 0 }) => {
          const at = transport.secondsAt(begins(number) + beat);
          const end = transport.secondsAt(begins(number) + beat + beats);
          return at === null || end === null
            ? []
            : [{ at, rings: Math.min(RINGS, end - at), midi, bent }];
        },
      ),
    );
    for (const { at, rings, midi, bent } of due) {
      if (at <= played || at < now || at > now + AHEAD) continue;
      const plucked = [{ seconds: 0, length: rings * 0.95, midi, bent }];
      ear.feed(pluckedSound(plucked, ear.rate, rings), at);
      played = at;
    }
  });
}
