/** What the player does on the stage: begins and ends, steps, loops, changes what is set while it plays. */
import { lastBy } from '$core/band/form';
import { withinTempo } from '$core/time/tempo';
import type { Beats } from '$core/time/units';
import { pageTransport } from '$lib/audio/transport.svelte';
import { LOOP_SIZES, type LoopSize, loopAround } from '$lib/study/loops';
import { LINES, type Loop, type PlaySettings } from '$lib/study/playing';
import type { Study } from '$lib/study/study.svelte';
import type { Stage } from './stage.svelte';
import { tapped, withTap } from './tapping';

/** What begins anew when it is changed, and what is not heard at all. */
const RESTARTS: readonly (keyof PlaySettings)[] = ['loop', 'keys', 'count'];
const SILENT: readonly (keyof PlaySettings)[] = ['ahead', 'staff', 'hidden', 'tempo'];

export function createSteering(study: Study, stage: Stage) {
  const transport = pageTransport();
  let taps: readonly number[] = [];

  /** The beat of the loop a chord stands on; none where it stands elsewhere. */
  function beatOf(index: number): Beats | undefined {
    const { chart } = study;
    const start = chart?.bars[stage.loop.from]?.beat ?? 0;
    const beat = (chart?.chords[index]?.beat ?? -1) - start;
    return stage.form && beat >= 0 && beat < stage.form.beats ? beat : undefined;
  }

  /** Where the player stands in the form; a loop begins with its beginning. */
  function fromHere(): Beats | undefined {
    const beat = stage.settings.loop === null ? beatOf(study.nowIndex) : undefined;
    // Its beginning has the pick-up before it.
    return beat === 0 ? undefined : beat;
  }

  function begin() {
    void stage.play(fromHere());
  }

  /** Another loop is taken up where it plays. */
  function setLoop(loop: Loop | null) {
    stage.set({ loop });
    looped();
  }

  function looped() {
    const { chart } = study;
    const first = chart?.bars[stage.loop.from];
    if (first && chart) study.go(Math.max(0, lastBy(chart.chords, first.beat)));
    if (transport.playing) void stage.play();
  }

  /** The loop of the same length after this one; round the form. */
  function loopNext(by: number) {
    const { chart } = study;
    const { loop } = stage.settings;
    if (!chart || !loop) return;
    const length = loop.to - loop.from;
    const bars = chart.bars.length;
    let from = loop.from + by * length;
    if (from >= bars) from = 0;
    if (from < 0) from = Math.max(0, bars - length);
    setLoop({ from, to: Math.min(bars, from + length) });
  }

  return {
    begin,
    toggle() {
      if (transport.playing || transport.fetching !== null) transport.stop();
      else begin();
    },
    /** Changes what is set; heard at once, or with another beginning. */
    set(changed: Partial<PlaySettings>) {
      stage.set(changed);
      const names = Object.keys(changed) as (keyof PlaySettings)[];
      if (!transport.playing || names.every((name) => SILENT.includes(name))) return;
      if (names.some((name) => RESTARTS.includes(name))) void stage.play();
      else if (names.includes('ramp')) stage.setTempo(stage.tempo);
      else stage.takeUp();
    },
    setLoop,
    looped,
    loopNext,
    /** Loops so much round where it is. */
    loopBy(size: LoopSize) {
      if (study.chart) setLoop(loopAround(study.chart, stage.index, size));
    },
    /** A chord on, or a loop. */
    step(by: number) {
      if (stage.settings.loop) {
        loopNext(by);
        return;
      }
      study.step(by);
      if (transport.playing) begin();
    },
    goTo(index: number) {
      study.go(index);
      if (transport.playing) void stage.play(beatOf(index));
    },
    /** The ways into the targets of a loop, of the one set, or of two chords here; then the player. */
    showMe(round: Loop | null) {
      const { chart } = study;
      if (!chart) return;
      stage.set({
        loop: round ?? stage.settings.loop ?? loopAround(chart, stage.index, 'two chords'),
      });
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
    takeUpAsked(asked: URLSearchParams) {
      const line = LINES.find((one) => one === asked.get('line'));
      if (!line || !study.chart) return;
      const size = LOOP_SIZES.find((one) => one === asked.get('extent'));
      const bpm = Number(asked.get('bpm'));
      stage.set({
        ...{ line, sheet: null },
        ...(size ? { loop: loopAround(study.chart, study.nowIndex, size) } : {}),
        ...(bpm > 0 ? { tempo: withinTempo(bpm) } : {}),
      });
    },
  };
}
