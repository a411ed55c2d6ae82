/** What listening says when it cannot, or hardly, hear: a sentence each, with a way out. */

/** Why a microphone does not open, by the name of the browser's error. */
const REFUSED: Readonly<Record<string, string>> = {
  NotAllowedError:
    'The browser keeps the microphone from Corvel. Allow it for this page, then press Listen again.',
  SecurityError:
    'The browser keeps the microphone from Corvel. Allow it for this page, then press Listen again.',
  NotFoundError: 'No microphone is connected. Connect one, or open a recording instead.',
  NotReadableError: 'Another program holds the microphone. Close that, then press Listen again.',
  OverconstrainedError: 'The microphone chosen is gone. Choose another.',
};
/** Over plain HTTP a browser gives another device no microphone. */
export const INSECURE =
  'This browser gives the microphone only over HTTPS: start Corvel with “npm start -- --share”, and open the address it shows.';
export const UNSUPPORTED = 'This browser cannot listen on this page. Open a recording instead.';
export const UNPLUGGED = 'The microphone went away. Connect it, then press Listen again.';

export function refusalFor(error: unknown): string {
  if (error instanceof Error && error.message === INSECURE) return INSECURE;
  return (error instanceof DOMException ? REFUSED[error.name] : undefined) ?? UNSUPPORTED;
}

/** The loudest samples of late, 0 to 1, and how long nothing at all was heard, in seconds. */
export interface Levels {
  readonly peak: number;
  readonly silence: number;
}

const CLIPPING = 0.985;
const QUIET = 0.012;
const NOTHING = 0.0005;
const LONG = 5;

/** What is wrong with a level; null where nothing is. */
export function levelSays({ peak, silence }: Levels): string | null {
  if (peak >= CLIPPING) return 'Clipping: turn the input down.';
  if (silence >= LONG) return 'Nothing comes in: is this the right input, and turned up?';
  if (peak >= NOTHING && peak < QUIET && silence < LONG) return 'Too quiet: turn the input up.';
  return null;
}

/** Whether a sample is heard at all. */
export const isHeard = (peak: number): boolean => peak >= NOTHING;

export const BAND_HEARD = 'I hear the band: put on headphones.';
