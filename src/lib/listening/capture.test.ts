import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { range } from '$core/lists';

const RATE = 44_100;
const BLOCK = 128;

interface Handed {
  readonly samples: Float32Array;
  readonly from: number;
}
interface Capture {
  process: (inputs: readonly (readonly Float32Array[])[]) => boolean;
}

/** Runs the worklet's own file over so many blocks, whose frames the browser gives as `frameOf` says. */
function captured(count: number, frameOf: (block: number) => number): readonly Handed[] {
  const handed: Handed[] = [];
  const world = {
    currentFrame: 0,
    made: null as (new () => Capture) | null,
    port: { postMessage: (message: Handed) => handed.push(message) },
  };
  const source = readFileSync('static/listening/capture.js', 'utf8').replaceAll(
    'currentFrame',
    'world.currentFrame',
  );
  const load = new Function(
    ...['world', 'sampleRate'],
    `class AudioWorkletProcessor { port = world.port; }
     const registerProcessor = (name, made) => { world.made = made; };
     ${source}`,
  ) as (of: typeof world, rate: number) => void;
  load(world, RATE);
  if (!world.made) throw new Error('Nothing was registered.');
  const capture = new world.made();
  for (const block of range(0, count)) {
    world.currentFrame = frameOf(block);
    capture.process([[Float32Array.from(range(block * BLOCK, (block + 1) * BLOCK))]]);
  }
  return handed;
}

const joined = (handed: readonly Handed[]) => handed.flatMap(({ samples }) => [...samples]);
const inTime = (handed: readonly Handed[], start = 0) => {
  for (const [place, { from }] of handed.entries())
    expect(from).toBeCloseTo((start + place * 1024) / RATE, 9);
};

test('what comes in is handed on as it was, each block with its time', () => {
  const handed = captured(80, (block) => 5_120 + block * BLOCK);
  expect(joined(handed)).toEqual(range(0, 10_240));
  inTime(handed, 5_120);
});

test.each([1, 3, 20])(
  'a count that stands still for %i blocks and catches up changes nothing',
  (still) => {
    const handed = captured(400, (block) =>
      block > 40 && block % 60 < still ? (block - (block % 60) - 1) * BLOCK : block * BLOCK,
    );
    expect(joined(handed)).toEqual(range(0, 51_200));
    inTime(handed);
  },
);

test('what was left out for good is silence, and what comes after is in its time', () => {
  const lost = 10;
  const handed = captured(160, (block) => (block < 50 ? block : block + lost) * BLOCK);
  const whole = joined(handed);
  inTime(handed);
  expect(whole.filter((one) => one === 0)).toHaveLength(lost * BLOCK + 1);
  const last = whole.at(-1) ?? 0;
  expect(whole.length - 1).toBe(last + lost * BLOCK);
});
