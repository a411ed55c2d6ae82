/** Recordings as WAV files: one channel of samples out of what is in them. */
import wavefile from 'wavefile';
import { at } from '../../lists';
import { type Refusal, refused } from '../result';

interface Recording {
  /** One channel, −1 to 1. */
  readonly samples: Float32Array;
  /** Samples a second. */
  readonly rate: number;
}

/** What is taken of a recording: samples a second, channels, and how large it may be. */
export const RECORDING = { rates: [8_000, 96_000], channels: 2, megabytes: 20 } as const;
/** What the samples of each kind of file reach at their loudest. */
const FULL: Readonly<Record<string, number>> = {
  '16': 2 ** 15,
  '24': 2 ** 23,
  '32': 2 ** 31,
  '32f': 1,
  '64': 1,
};

const power = (samples: Float32Array): number => {
  let sum = 0;
  for (const value of samples) sum += value * value;
  return sum;
};

/** Of two channels the louder: added they would beat, where a sound stands apart in both. */
const loudest = (channels: readonly Float32Array[]): Float32Array =>
  channels.reduce((best, one) => (power(one) > power(best) ? one : best), at(channels, 0));

type WavResult = { readonly ok: true; readonly recording: Recording } | Refusal;

/** Reads a WAV file: mono or stereo, 16, 24 or 32 bits or floating point. */
export function readWav(bytes: Uint8Array): WavResult {
  const file = new wavefile.WaveFile();
  let channels: readonly Float32Array[];
  try {
    file.fromBuffer(bytes);
    const given: unknown = file.getSamples(false, Float32Array);
    channels = (Array.isArray(given) ? given : [given]) as Float32Array[];
  } catch {
    return refused('This is not a WAV file that can be read.');
  }
  const { sampleRate, numChannels } = file.fmt as { sampleRate: number; numChannels: number };
  const full = FULL[file.bitDepth];
  const [low, high] = RECORDING.rates;
  if (full === undefined) return refused('Send 16, 24 or 32 bits a sample, not compressed.');
  if (numChannels > RECORDING.channels) return refused('Send one channel or two.');
  if (sampleRate < low || sampleRate > high)
    return refused(
      `Send ${low / 1000} to ${high / 1000} thousand samples a second, not ${sampleRate}.`,
    );
  const samples = loudest(channels);
  return {
    ok: true,
    recording: { samples: samples.map((value) => value / full), rate: sampleRate },
  };
}
