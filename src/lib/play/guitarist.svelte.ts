/** The simulated guitarist at the stage: plays the line, or the targets, into the ear. */
import { type Mistakes, playedWith, pluckedSound, type ToPlay } from '$core/listening/simulated';
import type { Seconds } from '$core/time/units';
import { lineEvents } from '$lib/audio/programme';
import { pageTransport } from '$lib/audio/transport.svelte';
import { type Ear, SIMULATED } from '$lib/listening/ear.svelte';
import type { Stage } from './stage.svelte';

/** How far ahead he plucks, and how long a string rings at the most. */
const AHEAD: Seconds = 1.5;
const RINGS: Seconds = 1.2;

export function playsSimulated(stage: Stage, ear: Ear, mistakes: () => Mistakes): void {
  const transport = pageTransport();
  let played: Seconds = 0;

  function notesIn(pass: number): readonly ToPlay[] {
    const line = stage.lineIn(pass);
    if (line)
      return lineEvents(line).flatMap((event) =>
        event.part === 'line' ? [{ beat: event.beat, beats: event.beats, midi: event.midi }] : [],
      );
    return stage.targetsIn(pass);
  }

  const looked = $derived(stage.playing ? Math.floor(2 * stage.beat) : null);
  $effect(() => {
    if (looked === null || ear.state !== 'hearing' || ear.device !== SIMULATED) {
      played = 0;
      return;
    }
    const length = stage.form?.beats ?? 0;
    const now = ear.now();
    const due = [stage.pass, stage.pass + 1].flatMap((pass) =>
      playedWith(notesIn(pass), mistakes(), stage.settings.seed + pass).flatMap((note) => {
        const at = transport.secondsAt(pass * length + note.beat);
        const end = transport.secondsAt(pass * length + note.beat + note.beats);
        return at === null || end === null
          ? []
          : [{ at, rings: Math.min(RINGS, end - at), midi: note.midi }];
      }),
    );
    for (const { at, rings, midi } of due) {
      if (at <= played || at < now || at > now + AHEAD) continue;
      const plucked = [{ seconds: 0, length: rings * 0.95, midi }];
      ear.feed(pluckedSound(plucked, ear.rate, rings), at);
      played = at;
    }
  });
}
