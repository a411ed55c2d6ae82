/** What sounds, part by part. */
export const SOUND_PARTS = ['bass', 'comp', 'drums', 'click', 'line'] as const;
export type SoundPart = (typeof SOUND_PARTS)[number];
