/** What the band sounds like without a browser: its samples mixed as the output mixes them, part by part. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { FLACDecoder } from '@wasm-audio-decoders/flac';
import { bandOf } from '$core/band/band';
import { bandForm } from '$core/band/form';
import { group } from '$core/lists';
import type { FeelKind } from '$core/time/feel';
import { feelOfKind } from '$core/time/feel';
import { feelAt } from '$core/time/swing';
import { secondsOf } from '$core/time/tempo';
import type { Beats } from '$core/time/units';
import { bandEvents, type SoundEvent } from '$lib/audio/programme';
import { drumPath, keysOf, pathsOf } from '$lib/audio/samples';
import { chartOf } from './laws';

export const RATE = 32_000;
const RELEASE = 0.12;

/** The band's samples by their path, all at one rate. */
export async function decodedSamples(): Promise<ReadonlyMap<string, Float32Array>> {
  const samples = new Map<string, Float32Array>();
  for (const path of new Set((['bass', 'comp', 'drums', 'line'] as const).flatMap(pathsOf))) {
    const decoder = new FLACDecoder();
    await decoder.ready;
    const { channelData, sampleRate } = await decoder.decodeFile(
      new Uint8Array(readFileSync(join('static', path))),
    );
    decoder.free();
    const [channel] = channelData;
    if (!channel || sampleRate !== RATE) throw new Error(`${path} is not as expected`);
    samples.set(path, channel.slice());
  }
  return samples;
}

/** The file a sound is made of, and how fast it runs. */
function sourceOf(event: SoundEvent): readonly [string, number] | null {
  const { velocity } = event;
  if (event.part === 'drums') return [drumPath(event.drum, velocity), 1];
  if (event.part === 'click') return null;
  const instrument =
    event.part === 'line'
      ? 'guitar'
      : event.part === 'comp'
        ? 'piano'
        : (event.on ?? 'double-bass');
  const [nearest] = keysOf(instrument, velocity).toSorted(
    (a, b) => Math.abs(a.midi - event.midi) - Math.abs(b.midi - event.midi),
  );
  return nearest ? [nearest.path, 2 ** ((event.midi - nearest.midi) / 12)] : null;
}

/** Events mixed to one channel. */
export function mixed(
  events: readonly SoundEvent[],
  bpm: number,
  samples: ReadonlyMap<string, Float32Array>,
): Float32Array {
  const secondsAt = (beat: Beats) => secondsOf(beat, bpm);
  const end = Math.max(...events.map(({ beat, beats }) => beat + beats));
  const out = new Float32Array(Math.ceil((secondsAt(end) + 1) * RATE));
  for (const event of events) {
    const [path = '', rate = 1] = sourceOf(event) ?? [];
    const source = samples.get(path);
    if (!source) continue;
    const first = Math.max(0, Math.round(secondsAt(event.beat) * RATE));
    const held = event.part === 'drums' ? source.length / RATE : secondsAt(event.beats);
    const level = event.velocity * (event.gain ?? 1);
    const length = Math.min(out.length - first, (held + RELEASE) * RATE, source.length / rate);
    for (let index = 0; index < length; index++) {
      const at = index * rate;
      const below = Math.floor(at);
      const value =
        (source[below] ?? 0) + (at - below) * ((source[below + 1] ?? 0) - (source[below] ?? 0));
      const fade = Math.min(1, Math.max(0, (held + RELEASE - index / RATE) / RELEASE));
      out[first + index] = (out[first + index] as number) + level * fade * value;
    }
  }
  return out;
}

const FORM = bandForm(
  chartOf('key: C\n| Dm7 | G7 | Cmaj7 | A7 | Dm7 | G7 | Em7 A7 | Dm7 G7 | C | Am | F | G |'),
);
/** Tempos the feels are at home at, where they are not at 120. */
const TEMPOS: Partial<Readonly<Record<FeelKind, number>>> = {
  ballad: 66,
  swing: 150,
  samba: 200,
  'two-beat': 140,
  'slow 12/8': 66,
  'train beat': 110,
  funk: 100,
  reggae: 76,
  modal: 160,
};

/** A chorus of a feel, part by part. */
export function partsOf(
  kind: FeelKind,
  samples: ReadonlyMap<string, Float32Array>,
): ReadonlyMap<string, Float32Array> {
  const bpm = TEMPOS[kind] ?? 120;
  const feel = feelAt(feelOfKind(kind), bpm);
  const played = bandOf(FORM, { feel: kind, choruses: 1, loops: true });
  const events = bandEvents(played, feel, FORM.time);
  return new Map(
    [...group(events, ({ part }) => part)].map(([part, some]) => [part, mixed(some, bpm, samples)]),
  );
}
