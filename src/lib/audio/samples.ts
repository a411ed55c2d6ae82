/** The samples of the band: which there are, and fetching them. */
import { DRUMS } from '$core/band/events';
import { range } from '$core/lists';
import type { SoundPart } from './parts';

/** Sampled pitches, as scripts/sounds.js renders them. */
const KEYS = {
  'double-bass': { low: 28, high: 56, step: 4 },
  'bass-guitar': { low: 28, high: 56, step: 4 },
  piano: { low: 46, high: 76, step: 5 },
  guitar: { low: 40, high: 88, step: 4 },
} as const;
export type Instrument = keyof typeof KEYS;

const pathOf = (name: string) => `/sounds/${name}.flac`;

export interface SampledKey {
  readonly midi: number;
  readonly path: string;
}

/** Files of an instrument by the key they sound at: looked through for every note, so made once. */
const SAMPLED = Object.fromEntries(
  Object.entries(KEYS).map(([instrument, { low, high, step }]) => [
    instrument,
    range(0, Math.floor((high - low) / step) + 1).map((index): SampledKey => {
      const midi = low + index * step;
      return { midi, path: pathOf(`${instrument}-${midi}`) };
    }),
  ]),
) as unknown as Readonly<Record<Instrument, readonly SampledKey[]>>;

export const keysOf = (instrument: Instrument): readonly SampledKey[] => SAMPLED[instrument];

export const drumPaths = DRUMS.map((drum) => ({ drum, path: pathOf(`drum-${drum}`) }));

/** Files a part needs. */
export function pathsOf(part: SoundPart): readonly string[] {
  switch (part) {
    case 'bass':
      return (['double-bass', 'bass-guitar'] as const).flatMap((one) =>
        keysOf(one).map(({ path }) => path),
      );
    case 'comp':
      return keysOf('piano').map(({ path }) => path);
    case 'line':
      return keysOf('guitar').map(({ path }) => path);
    case 'drums':
      return drumPaths.map(({ path }) => path);
    case 'click':
      return [];
  }
}
