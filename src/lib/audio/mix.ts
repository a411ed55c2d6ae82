/** How loud each part is: levels, muting, one part alone, and the master over all. */
import { SOUND_PARTS, type SoundPart } from './parts';

export interface Mix {
  /** 0 to 1, by the ear. */
  readonly master: number;
  readonly levels: Readonly<Record<SoundPart, number>>;
  readonly muted: readonly SoundPart[];
  /** The only part heard; null for all that are not muted. */
  readonly solo: SoundPart | null;
  /** Whether it is heard in a room. */
  readonly room: boolean;
}

/** Moderate on purpose: headphones may be on. */
export const DEFAULT_MIX: Mix = {
  master: 0.5,
  levels: { bass: 0.8, comp: 0.65, drums: 0.6, click: 0.6, line: 0.9 },
  muted: [],
  solo: null,
  room: false,
};

/** The loudest the master lets through, as a factor of amplitude. */
const CEILING = 0.9;

/** The ear hears a level's square, nearly: half way up is a quarter of the amplitude. */
const amplitude = (level: number): number => Math.max(0, Math.min(1, level)) ** 2;

export interface Gains {
  readonly master: number;
  readonly parts: Readonly<Record<SoundPart, number>>;
  readonly room: boolean;
}

/** Factors of amplitude of a mix. */
export function gainsOf({ master, levels, muted, solo, room }: Mix): Gains {
  const heard = (part: SoundPart) => (solo === null ? !muted.includes(part) : solo === part);
  const parts = Object.fromEntries(
    SOUND_PARTS.map((part) => [part, heard(part) ? amplitude(levels[part]) : 0]),
  ) as Record<SoundPart, number>;
  return { master: CEILING * amplitude(master), parts, room };
}
