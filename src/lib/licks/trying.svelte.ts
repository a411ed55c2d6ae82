/** A lick played once through after a count: to be written down, or to be held against what is written. */
import { untrack } from 'svelte';
import { countIn, clicksOf } from '$core/band/click';
import { bandForm } from '$core/band/form';
import { type Checked, checkLine } from '$core/listening/checked';
import type { HeardNote } from '$core/listening/notes';
import type { ToPlay } from '$core/listening/simulated';
import { type TakenNote, takeOf } from '$core/listening/take';
import { BEAT } from 'corvel-core';
import { playedAt } from '$core/time/swing';
import { beatsIn, DEFAULT_TEMPO, tempoMap } from '$core/time/tempo';
import type { Beats, Seconds } from '$core/time/units';
import { clickEvent, programmeOf, type SoundEvent } from '$lib/audio/programme';
import { pageTransport } from '$lib/audio/transport.svelte';
import { onBeats } from '$lib/listening/beats';
import type { Ear } from '$lib/listening/ear.svelte';
import type { LickEditing } from './editing.svelte';
import { ofLick, tonesOf, wantedOf } from './wanted';
import { barOf } from '$core/time/metre';
import type { Lick } from '$core/licks/lick';

type Purpose = 'write' | 'check';

/** How long after the last beat a note may still be on its way through the ear. */
const HEARING: Seconds = 0.8;

/** What was found of a lick, for as long as it stands as it was. */
interface Found extends Checked {
  readonly of: Lick['notes'];
}

interface Tried {
  readonly editing: LickEditing;
  readonly ear: Ear;
  /** What plays besides the click, and how fast. */
  readonly band: () => readonly SoundEvent[];
  readonly speed: () => number;
  /** Told how many notes were written down. */
  readonly onwritten: (count: number) => void;
  readonly onchecked: (checked: Checked) => void;
}

export function createTrying({ editing, ear, band, speed, onwritten, onchecked }: Tried) {
  const transport = pageTransport();
  let purpose = $state<Purpose | null>(null);
  let running = $state(false);
  let found = $state.raw<Found | null>(null);

  /** Where a written beat is played. */
  const played = (beat: Beats): Beats => {
    const { passage } = editing;
    return passage ? playedAt(beat, passage.feel, passage.time) : beat;
  };
  const asked = () => wantedOf(editing.frame.neck, editing.notes, played);

  const tempo = () => (editing.passage?.tempo ?? DEFAULT_TEMPO) * speed();
  const tail = () => beatsIn(HEARING, tempo());

  async function begin() {
    const { chart } = editing;
    if (!chart) return;
    const form = bandForm(chart);
    const clicks = clicksOf(form, 'every beat').map(clickEvent);
    running = true;
    await transport.play(
      programmeOf([...clicks, ...band()], {
        length: form.beats + 2 * tail(),
        tempo: tempoMap([{ beat: 0, bpm: tempo() }]),
        count: countIn(form.time, 1).map(clickEvent),
        countIn: barOf(form.time),
      }),
      { parts: ['click', 'bass', 'comp', 'drums'] },
    );
  }

  function settle(why: Purpose, all: readonly TakenNote[]) {
    const heard = ofLick(all, editing.frame.end);
    if (why === 'write') write(heard);
    else check(heard);
  }

  function write(heard: readonly TakenNote[]) {
    const within = heard.map((note) => ({ ...note, beat: Math.max(0, note.beat) }));
    const notes = takeOf(editing.frame.neck, null, within, played);
    if (notes.length > 0) editing.setNotes(notes);
    onwritten(notes.length);
  }

  function check(heard: readonly TakenNote[]) {
    const wanted = asked();
    const checked = checkLine(wanted, heard);
    const notes = checked.notes.map((one) => ({ ...one, index: wanted[one.index]?.index ?? 0 }));
    found = { ...checked, notes, of: editing.lick.notes };
    onchecked(found);
  }

  function stop() {
    purpose = null;
    if (running) transport.stop();
    running = false;
  }

  // It begins once it can be heard.
  $effect(() => {
    if (purpose === null || running) return;
    if (ear.state === 'hearing') untrack(() => void begin());
    else if (ear.problem !== null) purpose = null;
  });
  const over = $derived(
    running && transport.playing && (transport.through ?? 0) >= editing.frame.end + tail(),
  );
  $effect(() => {
    if (!over) return;
    untrack(() => {
      const why = purpose;
      const heard = onBeats(transport, ear.heard, 0);
      stop();
      if (why !== null) settle(why, heard);
    });
  });
  // What was stopped before its end says nothing.
  const stopped = $derived(running && !transport.playing && transport.fetching === null);
  let sounded = false;
  $effect(() => {
    if (running && transport.playing) sounded = true;
    else if (stopped && sounded) {
      sounded = false;
      untrack(stop);
    }
  });

  return {
    /** What it is being played for; null where nothing is tried. */
    get purpose() {
      return purpose;
    },
    /** The beat of the lick, below 0 while it is counted in; null where nothing is tried. */
    get beat() {
      return running ? transport.beat : null;
    },
    /** What was found when it was checked last, while the lick stands as it was. */
    get found(): Checked | null {
      return found?.of === editing.lick.notes ? found : null;
    },
    try(why: Purpose) {
      stop();
      found = null;
      purpose = why;
      if (ear.state === 'off') ear.toggle();
    },
    stop,
    /** A recording of the lick, begun on its first beat: checked, or written where nothing is. */
    judge(notes: readonly HeardNote[]) {
      const heard = notes.map(({ seconds, length, ...rest }) => ({
        ...rest,
        beat: beatsIn(seconds, tempo()),
        beats: beatsIn(length, tempo()),
      }));
      settle(editing.lick.notes.length === 0 ? 'write' : 'check', heard);
    },
    /** What the simulated guitarist plays: the lick, or the tones of its chords where it is empty. */
    toBePlayed() {
      if (!running) return null;
      const written: readonly ToPlay[] = asked().map(({ index, beat, midi, bent }) => {
        return { beat, midi, bent, beats: editing.notes[index]?.beats ?? BEAT };
      });
      const tones = tonesOf(editing.chart?.chords ?? []);
      return {
        begins: (pass: number) => pass * (editing.frame.end + 2 * tail()),
        seed: 1,
        notes: (pass: number) => (pass > 0 ? [] : written.length > 0 ? written : tones),
      };
    },
  };
}

export type Trying = ReturnType<typeof createTrying>;
