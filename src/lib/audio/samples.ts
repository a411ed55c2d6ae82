/** The samples of the band: which there are, and which of them a stroke takes. */
import { type Drum, DRUMS } from '$core/band/events';
import { range } from '$core/lists';
import type { SoundPart } from './parts';

/** Sampled pitches, as scripts/sounds.js renders them; softer than `soft` another strength is struck. */
const KEYS = {
  'double-bass': { low: 28, high: 56, step: 4, soft: 0 },
  'bass-guitar': { low: 28, high: 56, step: 4, soft: 0 },
  piano: { low: 46, high: 76, step: 5, soft: 0 },
  guitar: { low: 40, high: 88, step: 4, soft: 0.66 },
} as const;
export type Instrument = keyof typeof KEYS;

/** Drums of two strengths, and below which velocity the softer is struck. */
const SOFT_DRUMS: Partial<Readonly<Record<Drum, number>>> = { kick: 0.3, snare: 0.25 };

const pathOf = (name: string, soft = false) => `/sounds/${name}${soft ? '-soft' : ''}.flac`;

interface SampledKey {
  readonly midi: number;
  readonly path: string;
}

const sampled = (instrument: Instrument, soft: boolean): readonly SampledKey[] => {
  const { low, high, step } = KEYS[instrument];
  return range(0, Math.floor((high - low) / step) + 1).map((index) => {
    const midi = low + index * step;
    return { midi, path: pathOf(`${instrument}-${midi}`, soft) };
  });
};
const INSTRUMENTS = Object.keys(KEYS) as Instrument[];
/** Files of an instrument by the key they sound at: looked through for every note, so made once. */
const LOUD = Object.fromEntries(INSTRUMENTS.map((one) => [one, sampled(one, false)])) as Record<
  Instrument,
  readonly SampledKey[]
>;
const SOFT = Object.fromEntries(
  INSTRUMENTS.map((one) => [one, KEYS[one].soft > 0 ? sampled(one, true) : LOUD[one]]),
) as Record<Instrument, readonly SampledKey[]>;

/** The keys of an instrument struck at a velocity. */
export const keysOf = (instrument: Instrument, velocity: number): readonly SampledKey[] =>
  (velocity < KEYS[instrument].soft ? SOFT : LOUD)[instrument];

/** The file of a drum struck at a velocity. */
export const drumPath = (drum: Drum, velocity: number): string =>
  pathOf(`drum-${drum}`, velocity < (SOFT_DRUMS[drum] ?? 0));

const filesOf = (instrument: Instrument): readonly string[] => [
  ...new Set([...LOUD[instrument], ...SOFT[instrument]].map(({ path }) => path)),
];

/** Files a part needs. */
export function pathsOf(part: SoundPart): readonly string[] {
  switch (part) {
    case 'bass':
      return [...filesOf('double-bass'), ...filesOf('bass-guitar')];
    case 'comp':
      return filesOf('piano');
    case 'line':
      return filesOf('guitar');
    case 'drums':
      return DRUMS.flatMap((drum) => [...new Set([drumPath(drum, 1), drumPath(drum, 0)])]);
    case 'click':
      return [];
  }
}
