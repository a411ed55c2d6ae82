/** Samples as WAV files of 16 bits. */
import toWav from 'audiobuffer-to-wav';

/** A WAV file of channels, samples from −1 to 1; what is louder is cut off. */
export function wavOf(
  channels: readonly Float32Array[],
  sampleRate: number,
): Uint8Array<ArrayBuffer> {
  const given = {
    numberOfChannels: channels.length,
    sampleRate,
    getChannelData: (channel: number) => channels[channel],
  };
  return new Uint8Array(toWav(given as AudioBuffer));
}
