/** The reminder to rest, by the clock: quiet, and only after half an hour of playing. */

const HALF_HOUR = 30 * 60_000;
/** A pause this long is a rest, in milliseconds. */
const RESTED = 3 * 60_000;
const LOOKED = 15_000;

let played = 0;
let last = 0;

/** Adds up the time something plays; `now` is in milliseconds. Answers how long without a rest. */
export function playedFor(now: number, playing: boolean): number {
  if (now - last > RESTED) played = 0;
  else if (playing) played += now - last;
  if (playing || played === 0) last = now;
  return played;
}

export function createRest(playing: () => boolean, now: () => number = () => performance.now()) {
  let due = $state(false);
  $effect(() => {
    if (!playing()) return;
    playedFor(now(), false);
    const timer = setInterval(() => (due = playedFor(now(), true) >= HALF_HOUR), LOOKED);
    return () => clearInterval(timer);
  });
  return {
    get due() {
      return due;
    },
    taken() {
      due = false;
      played = 0;
    },
  };
}
