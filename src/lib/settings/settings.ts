/** What the player set once for all charts: instruments, and how boxes are named. */
import * as z from 'zod/mini';
import { makeNeck, type Neck, STANDARD_NECK } from 'corvel-core';
import { STANDARD_TUNING } from '$core/neck/neck';
import { NAMINGS } from '$core/notes/naming';
import { SHARED_LIMITS } from '$core/exercises/own/line';
import { DEFAULT_MIX } from '$lib/audio/mix';
import { SOUND_PARTS } from '$lib/audio/parts';
import { PATTERN_LIMITS } from '$core/exercises/kinds';

const shortText = (most: number) => z.string().check(z.minLength(1), z.maxLength(most));

const instrumentSchema = z
  .object({
    id: shortText(40),
    name: z.string().check(z.trim(), z.minLength(1), z.maxLength(60)),
    tuning: z.array(z.string().check(z.maxLength(8))).check(z.maxLength(8)),
    frets: z.int(),
    capo: z.int(),
    leftHanded: z.boolean(),
  })
  .check(z.refine((one) => makeNeck(one).ok, { error: 'not an instrument Corvel knows' }));

export type Instrument = z.infer<typeof instrumentSchema>;

export const INSTRUMENT_LIMIT = 24;

export const BOX_NAMES = ['minor', 'major', 'letter'] as const;
export type BoxNaming = (typeof BOX_NAMES)[number];

export const MODE_NAMES = ['mode', 'parent'] as const;
export type ModeNaming = (typeof MODE_NAMES)[number];

export const NUMERAL_NAMES = ['roman', 'decimal'] as const;

const FIRST: Instrument = {
  id: 'first',
  name: 'Guitar',
  tuning: [...STANDARD_TUNING],
  frets: STANDARD_NECK.frets,
  capo: 0,
  leftHanded: false,
};

export const PEDAL_ACTIONS = [
  'play',
  'poorPass',
  'tap',
  'lineOnly',
  'loopNext',
  'lastTime',
] as const;
export type PedalAction = (typeof PEDAL_ACTIONS)[number];

const level = z.number().check(z.minimum(0), z.maximum(1));
const mixSchema = z.object({
  master: level,
  levels: z.object({ bass: level, comp: level, drums: level, click: level, line: level }),
  muted: z.array(z.enum(SOUND_PARTS)).check(z.maxLength(SOUND_PARTS.length)),
  solo: z.nullable(z.enum(SOUND_PARTS)),
  room: z._default(z.boolean(), false),
});
const plainMix = (): z.infer<typeof mixSchema> => ({
  ...DEFAULT_MIX,
  levels: { ...DEFAULT_MIX.levels },
  muted: [],
});

const patternSchema = z.object({
  text: z.string().check(z.minLength(1), z.maxLength(PATTERN_LIMITS.characters)),
  tags: z
    .array(z.string().check(z.minLength(1), z.maxLength(SHARED_LIMITS.tag)))
    .check(z.maxLength(SHARED_LIMITS.tags)),
});

export const settingsSchema = z.object({
  version: z._default(z.literal(1), 1),
  instruments: z._default(
    z.array(instrumentSchema).check(z.minLength(1), z.maxLength(INSTRUMENT_LIMIT)),
    [FIRST],
  ),
  boxNames: z._default(z.enum(BOX_NAMES), 'minor'),
  /** Whether a mode is named as itself or by the scale it is a mode of. */
  modeNames: z._default(z.enum(MODE_NAMES), 'mode'),
  /** By which names notes are shown and spoken. */
  noteNames: z._default(z.enum(NAMINGS), 'letters'),
  /** Whether chords are counted in a key by Roman numerals or by figures. */
  numerals: z._default(z.enum(NUMERAL_NAMES), 'roman'),
  /** Whether keys of one character act on the screens. */
  characterKeys: z._default(z.boolean(), true),
  /** How loud each part is. */
  mix: z._default(mixSchema, plainMix),
  /** Seconds from a string's being struck to its being heard, by the name of what hears it. */
  latencies: z._default(
    z.record(shortText(200), z.number().check(z.minimum(-0.5), z.maximum(1))),
    {},
  ),
  /** The input listened to last; empty for the browser's own choice. */
  input: z._default(z.string().check(z.maxLength(200)), ''),
  /** The player's own patterns, by their names. */
  patterns: z._default(z.record(shortText(SHARED_LIMITS.name), patternSchema), {}),
  /** What pedals do, by what they send: `key PageDown`, `controller 64`. */
  pedals: z._default(z.record(shortText(40), z.enum(PEDAL_ACTIONS)), {}),
});

export type Settings = z.infer<typeof settingsSchema>;

export const DEFAULT_SETTINGS: Settings = settingsSchema.parse({});

/** Settings with the revision they were read at. */
export interface StoredSettings {
  readonly settings: Settings;
  readonly revision: number;
}

/** The settings as they are saved, on a revision. */
export const settingsRequest = z.extend(settingsSchema, { revision: z.int().check(z.minimum(0)) });

/** Reads kept settings; anything unreadable becomes the defaults. */
export function readSettings(json: string): Settings {
  try {
    const parsed = settingsSchema.safeParse(JSON.parse(json));
    return parsed.success ? parsed.data : DEFAULT_SETTINGS;
  } catch {
    return DEFAULT_SETTINGS;
  }
}

/** The instrument of an id, or the first where it is gone. */
export const instrumentOf = ({ instruments }: Settings, id: string | null): Instrument =>
  instruments.find((instrument) => instrument.id === id) ?? instruments[0] ?? FIRST;

export function neckOf(instrument: Instrument): Neck {
  const result = makeNeck(instrument);
  return result.ok ? result.neck : STANDARD_NECK;
}
