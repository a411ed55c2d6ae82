/** The stage while nothing plays, and what the player does there. */
import { BEAT } from 'corvel-core';
import { describe, expect, test, vi } from 'vitest';
import { createSteering } from '$lib/play/steering.svelte';
import type { Loop } from '$lib/study/playing';
import { standsStill, studyOf } from '$tests/study';
import { createStage } from './stage.svelte';

standsStill();

/** Chords 0 to 5; the section of two bars comes last. */
const TEXT = 'key: C\ntempo: 96\n[A]\n| Dm7 G7 | Cmaj7 | Am7 |\n[B]\n| Fm7 | Bb7 |';

function stageOf(text = TEXT) {
  const study = studyOf(text);
  const stage = createStage(study);
  return { study, stage, steering: createSteering(study, stage) };
}

describe('where the player stands', () => {
  test('is the chord he is at, with the change after it', () => {
    const { study, stage } = stageOf();
    study.go(1);
    const { index, first, bar, left, change, moment, coming } = stage.standing;
    expect([index, first, bar]).toEqual([1, 0, 0]);
    expect(change).toEqual({ index: 2, again: false, beat: 4 * BEAT });
    expect(left).toBe(2 * BEAT);
    expect([moment.now?.chord.symbol, moment.next?.chord.symbol]).toEqual(['G7', 'Cmaj7']);
    expect(moment.beats).toBe(2 * BEAT);
    expect([coming?.now?.chord.symbol, coming?.next?.chord.symbol]).toEqual(['Cmaj7', 'Am7']);
    expect(coming?.beats).toBe(4 * BEAT);
  });

  test('at the end of the form what comes is its beginning', () => {
    const { study, stage } = stageOf();
    study.go(5);
    expect(stage.standing.change).toMatchObject({ index: 0, again: true });
    expect(stage.standing.moment.next?.chord.symbol).toBe('Dm7');
    expect(stage.standing.coming?.now?.chord.symbol).toBe('Dm7');
  });

  test('within a loop is counted from its beginning, and comes round at its end', () => {
    const { study, stage } = stageOf();
    study.setLoop({ from: 1, to: 3 });
    study.go(3);
    expect([stage.standing.first, stage.standing.bar]).toEqual([2, 2]);
    expect(stage.standing.change).toEqual({ index: 2, again: true, beat: 8 * BEAT });
    expect(stage.standing.left).toBe(4 * BEAT);
  });

  test('outside a loop is in the form', () => {
    const { study, stage } = stageOf();
    study.setLoop({ from: 1, to: 3 });
    study.go(4);
    expect(stage.standing.change).toEqual({ index: 5, again: false, beat: 16 * BEAT });
    // The chord before the loop does not ring into it.
    study.go(1);
    expect(stage.standing.change).toEqual({ index: 2, again: false, beat: 4 * BEAT });
  });

  test('without chords there is nothing to come', () => {
    const { stage } = stageOf('');
    const { index, left, change, moment } = stage.standing;
    expect([index, left, change, moment.now, moment.next]).toEqual([0, 0, null, null, null]);
    expect([stage.keyName, stage.standing.turn, stage.standing.seconds]).toEqual(['', null, 0]);
  });
});

describe('tempo and keys', () => {
  test('are the chart’s until others are set, within what can be played', () => {
    const { stage } = stageOf();
    expect([stage.tempo, stageOf('| C |').stage.tempo]).toEqual([96, 120]);
    stage.setTempo(100.4);
    expect(stage.tempo).toBe(100);
    stage.setTempo(9_999);
    expect(stage.tempo).toBe(400);
  });

  test('a pass in another key has its chart there', () => {
    const { stage } = stageOf();
    expect([stage.keyName, stage.shift(0), stage.shift(1)]).toEqual(['Dm7', 0, 0]);
    stage.set({ keys: 'half steps' });
    expect(stage.shift(1)).toBe(1);
    expect(stage.chartIn(1)?.chords[0]?.chord.symbol).toMatch(/^(?:Eb|D#)m7$/u);
  });
});

describe('steering', () => {
  test('a loop begins with its first chord, also one that is held into it', () => {
    const { study, steering } = stageOf();
    steering.setLoop({ from: 3, to: 5 });
    expect([study.loop, study.nowIndex]).toEqual([{ from: 3, to: 5 }, 4]);
    steering.loopNext(1);
    expect([study.loop, study.nowIndex]).toEqual([{ from: 0, to: 2 }, 0]);
    steering.setLoop(null);
    steering.loopNext(1);
    expect(study.loop).toBeNull();
  });

  test('a step is a chord, or a loop where one is set', () => {
    const { study, steering } = stageOf();
    steering.step(1);
    expect(study.nowIndex).toBe(1);
    steering.setLoop({ from: 0, to: 2 });
    steering.step(1);
    expect(study.loop).toEqual({ from: 2, to: 4 });
    steering.step(-1);
    expect(study.loop).toEqual({ from: 0, to: 2 });
  });

  test('the size pressed last is named, where two are the same bars', () => {
    const { study, steering } = stageOf();
    steering.goTo(4);
    for (const size of ['section', 'two bars'] as const) {
      steering.loopBy(size);
      expect([study.loop, steering.size]).toEqual([{ from: 3, to: 5 }, size]);
    }
    steering.setLoop({ from: 0, to: 5 });
    expect(steering.size).toBeNull();
    steering.loopBy('form');
    expect([study.loop, steering.size]).toEqual([null, 'form']);
  });

  test('taps set the tempo they are at', () => {
    const { stage, steering } = stageOf();
    for (let tap = 0; tap < 4; tap++) {
      steering.tap();
      vi.advanceTimersByTime(500);
    }
    expect(stage.tempo).toBe(120);
  });

  test('what a session asks for is taken up, and nothing where no exercise is named', () => {
    const { study, stage, steering } = stageOf();
    const asked = (search: string) => {
      steering.takeUpAsked(new URL(`http://localhost/plan/c/play?${search}`));
      const { line, loop, tempo } = study.view.play;
      return {
        line,
        loop: loop as Loop | null,
        tempo,
        index: study.nowIndex,
        zone: study.zone.low,
      };
    };
    const before = asked('at=3');
    expect(asked('line=nothing&at=3&bpm=80')).toEqual(before);
    expect(asked('line=triads&at=5&zone=7-10&extent=section&bpm=80')).toEqual({
      line: 'triads',
      loop: { from: 3, to: 5 },
      tempo: 80,
      index: 4,
      zone: 7,
    });
    expect(asked('line=triads&bpm=-5').tempo).toBe(80);
    expect(asked('line=triads&bpm=1').tempo).toBe(20);
    expect(stage.settings.sheet).toBeNull();
  });
});
