/** WAV files that were downloaded, as a test hears them. */
import wavefile from 'wavefile';

export interface Sound {
  readonly rate: number;
  readonly samples: Float32Array;
  readonly channels: number;
}

/** The samples of a WAV file, its channels together. */
export function readWav(bytes: Buffer): Sound {
  const file = new wavefile.WaveFile(new Uint8Array(bytes));
  file.toBitDepth('32f');
  const read = file.getSamples(false, Float32Array) as unknown;
  const channels = (Array.isArray(read) ? read : [read]) as readonly Float32Array[];
  const length = channels[0]?.length ?? 0;
  const samples = Float32Array.from(
    { length },
    (_, index) =>
      channels.reduce((sum, channel) => sum + (channel[index] ?? 0), 0) / channels.length,
  );
  const { sampleRate } = file.fmt as { readonly sampleRate: number };
  return { rate: sampleRate, samples, channels: channels.length };
}
