/** The words of the screens that players ask about, each in one sentence. */

export const ZONE_SAYS =
  'A zone is the stretch of frets under the hand: what is shown and practised lies there.';

export const GUIDE_TONE_SAYS =
  'Guide tones are the third and the seventh: the notes that tell one chord from another.';
