/** What the player does on the stage: begins and ends, steps, loops, changes what is set while it plays. */
import { lastBy } from '$core/band/form';
import { withinTempo } from '$core/time/tempo';
import type { Beats } from '$core/time/units';
import { pageTransport } from '$lib/audio/transport.svelte';
import {
  beatInLoop,
  LOOP_SIZES,
  type LoopSize,
  loopAfter,
  loopAround,
  sameLoop,
  sizeOf,
} from '$lib/study/loops';
import { readPlace } from '$lib/study/place';
import { LINES, type Loop, type PlaySettings } from '$lib/study/playing';
import type { Study } from '$lib/study/study.svelte';
import type { Stage } from '$lib/stage/stage.svelte';
import { tapped, withTap } from '$lib/stage/tapping';

/** What is done with a setting that is changed while it plays; the rest is heard as soon as can be. */
const DOES: Partial<Record<keyof PlaySettings, 'nothing' | 'keys' | 'ramp'>> = {
  ahead: 'nothing',
  staff: 'nothing',
  hidden: 'nothing',
  tempo: 'nothing',
  // It is counted in when it begins the next time.
  count: 'nothing',
  intro: 'nothing',
  keys: 'keys',
  ramp: 'ramp',
};

export function createSteering(study: Study, stage: Stage) {
  const transport = pageTransport();
  let taps: readonly number[] = [];
  /** The chord the player pointed at while it plays: what is chosen next is meant to be there. */
  let pointed = $state<number | null>(null);
  /** The size that was pressed last: two sizes may be the same bars. */
  let sized = $state<LoopSize | null>(null);

  /** The beat of the loop a chord stands on; none where it stands elsewhere. */
  const beatOf = (index: number): Beats | null =>
    study.chart ? beatInLoop(study.chart, study.loop, index) : null;

  /** Where the player stands in the form; a loop begins with its beginning. */
  function fromHere(): Beats | undefined {
    const beat = study.loop === null ? beatOf(study.nowIndex) : null;
    // Its beginning has the pick-up before it.
    return beat === null || beat === 0 ? undefined : beat;
  }

  function begin() {
    pointed = null;
    void stage.play(fromHere());
  }

  /** Other bars go round: taken up at the end of the pass where it plays. */
  function setLoop(loop: Loop | null) {
    study.setLoop(loop);
    const { chart } = study;
    const first = chart?.bars[loop?.from ?? -1];
    pointed = null;
    if (first && chart) study.go(Math.max(0, lastBy(chart.chords, first.beat)));
    stage.takeUpLoop();
  }

  /** The loop of the same length after this one; round the form. */
  function loopNext(by: 1 | -1) {
    const { chart, loop } = study;
    if (chart && loop) setLoop(loopAfter(chart, loop, by));
  }

  return {
    begin,
    toggle() {
      if (transport.playing || transport.fetching !== null) transport.stop();
      else begin();
    },
    /** Changes what is set; heard as soon as it can be where it plays. */
    set(changed: Partial<PlaySettings>) {
      stage.set(changed);
      const does = (Object.keys(changed) as (keyof PlaySettings)[]).map((name) => DOES[name]);
      if (!transport.playing || does.every((one) => one === 'nothing')) return;
      if (does.includes('keys')) stage.takeUpKeys();
      else if (does.includes('ramp')) stage.setTempo(stage.tempo);
      else stage.takeUp();
    },
    setLoop,
    loopNext,
    /** The chord a loop is chosen round: where the player pointed, or what sounds. */
    get here() {
      return pointed ?? stage.standing.index;
    },
    /** Loops so much round where it is, or where the player pointed. */
    loopBy(size: LoopSize) {
      const { chart } = study;
      if (!chart) return;
      setLoop(loopAround(chart, this.here, size));
      sized = size;
    },
    /** The size of the loop that is chosen, where it is one of the usual ones here. */
    get size(): LoopSize | null {
      const { chart, loop } = study;
      if (!chart) return null;
      const stands = sized !== null && sameLoop(loopAround(chart, this.here, sized), loop);
      return stands ? sized : sizeOf(chart, this.here, loop);
    },
    /** A chord on, or a loop. */
    step(by: 1 | -1) {
      if (study.loop) {
        loopNext(by);
        return;
      }
      study.step(by);
      if (transport.playing) begin();
    },
    /** Goes to a chord: plays on from there within the loop; outside it, what is chosen next is there. */
    goTo(index: number) {
      study.go(index);
      const beat = beatOf(index);
      pointed = transport.playing && beat === null ? index : null;
      if (transport.playing && beat !== null) void stage.play(beat);
    },
    /** The ways into the targets of a loop, of the one set, or of two chords here; then the player. */
    showMe(round: Loop | null) {
      const { chart } = study;
      if (!chart) return;
      study.setLoop(round ?? study.loop ?? loopAround(chart, stage.standing.index, 'two chords'));
      void stage.showMe();
    },
    tap() {
      taps = withTap(taps, performance.now());
      const bpm = tapped(taps);
      if (bpm !== null) stage.setTempo(bpm);
    },
    lineOnly() {
      const { solo } = transport.mix;
      transport.setMix({ ...transport.mix, solo: solo === 'line' ? null : 'line' });
    },
    /** Takes up what the log or a session asks for: an exercise, a tempo, how much of the form. */
    takeUpAsked(address: URL) {
      const asked = address.searchParams;
      const line = LINES.find((one) => one === asked.get('line'));
      if (!line || !study.chart) return;
      const { index, zone } = readPlace(address);
      study.go(index);
      if (zone) study.dragZone(zone);
      const size = LOOP_SIZES.find((one) => one === asked.get('extent'));
      const bpm = Number(asked.get('bpm'));
      stage.set({
        line,
        sheet: null,
        ...(size ? { loop: loopAround(study.chart, index, size) } : {}),
        ...(bpm > 0 ? { tempo: withinTempo(bpm) } : {}),
      });
    },
  };
}
