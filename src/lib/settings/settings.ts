/** What the player set once for all charts: instruments, and how boxes are named. */
import { z } from 'zod';
import { makeNeck } from '$core/neck/instruments';
import { type Neck, STANDARD_NECK, STANDARD_TUNING } from '$core/neck/neck';

export const instrumentSchema = z
  .object({
    id: z.string().min(1).max(40),
    name: z.string().trim().min(1).max(60),
    tuning: z.array(z.string().max(8)).max(8),
    frets: z.int(),
    capo: z.int(),
    leftHanded: z.boolean(),
  })
  .refine((instrument) => makeNeck(instrument).ok, { error: 'not an instrument Corvel knows' });

export type Instrument = z.infer<typeof instrumentSchema>;

export const BOX_NAMES = ['minor', 'major', 'letter'] as const;
export type BoxNaming = (typeof BOX_NAMES)[number];

export const MODE_NAMES = ['mode', 'parent'] as const;
export type ModeNaming = (typeof MODE_NAMES)[number];

const FIRST: Instrument = {
  id: 'first',
  name: 'Guitar',
  tuning: [...STANDARD_TUNING],
  frets: STANDARD_NECK.frets,
  capo: 0,
  leftHanded: false,
};

export const settingsSchema = z.object({
  version: z.literal(1).default(1),
  instruments: z.array(instrumentSchema).min(1).max(24).default([FIRST]),
  boxNames: z.enum(BOX_NAMES).default('minor'),
  /** Whether a mode is named as itself or by the scale it is a mode of. */
  modeNames: z.enum(MODE_NAMES).default('mode'),
});

export type Settings = z.infer<typeof settingsSchema>;

export const DEFAULT_SETTINGS: Settings = settingsSchema.parse({});

/** Settings with the revision they were read at. */
export interface StoredSettings {
  readonly settings: Settings;
  readonly revision: number;
}

export const settingsRequest = z.object({ settings: settingsSchema, revision: z.int().min(0) });

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
