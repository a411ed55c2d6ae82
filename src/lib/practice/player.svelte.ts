/** Plays a passage in the browser and says where it is, by the sound's own clock. */
import { pitchAt } from '$core/neck/neck';
import type { Passage, PlayedNote } from '$core/phrases/played';
import { createVoice } from '$lib/ui/hear';

/** Seconds ahead that notes are handed to the sound, and how often that is looked after. */
const AHEAD = 0.2;
const TICK = 60;
const DEFAULT_TEMPO = 100;

export function createPlayer() {
  let beat = $state<number | null>(null);
  let timer: ReturnType<typeof setInterval> | undefined;
  let frame = 0;

  function stop() {
    clearInterval(timer);
    cancelAnimationFrame(frame);
    timer = undefined;
    beat = null;
  }

  /** Plays from the beginning, round and round, until it is stopped. */
  function play(passage: Passage, speed: number) {
    stop();
    const voice = createVoice();
    const perBeat = 60 / ((passage.tempo ?? DEFAULT_TEMPO) * speed);
    const start = voice.now() + 0.1;
    const length = Math.max(1, passage.beats) * perBeat;
    let round = 0;
    let next = 0;
    const timeOf = (note: PlayedNote) => start + round * length + note.beat * perBeat;
    const feed = () => {
      for (;;) {
        const note = passage.notes[next];
        if (!note) {
          if (passage.notes.length === 0 || voice.now() + AHEAD < start + (round + 1) * length)
            return;
          round += 1;
          next = 0;
          continue;
        }
        const from = timeOf(note);
        if (from > voice.now() + AHEAD) return;
        voice.play(pitchAt(passage.neck, note), from, from + note.beats * perBeat);
        next += 1;
      }
    };
    timer = setInterval(feed, TICK);
    feed();
    const follow = () => {
      const gone = voice.now() - start;
      beat = gone < 0 ? 0 : (gone % length) / perBeat;
      frame = requestAnimationFrame(follow);
    };
    follow();
  }

  return {
    /** Beats since the passage began; null when nothing plays. */
    get beat() {
      return beat;
    },
    get playing() {
      return beat !== null;
    },
    play,
    stop,
  };
}
