/** Where the hand can stay: the five regions of an octave of neck. */
import { degree } from '../notes/degrees';
import { pitchClass, type Note, transpose } from '../notes/notes';
import { fitZone, type Neck, openPitch, stringCount, type Zone } from './neck';

/** The degrees of a major key on which the five regions' low strings begin. */
const REGION_STARTS = ['1', '2', '3', '5', '6'].map(degree);

/** The five regions of a key by fret, from the lowest that lies behind the capo upward. */
export function regionsOf(neck: Neck, majorTonic: Note): readonly Zone[] {
  const open = openPitch(neck, stringCount(neck));
  return REGION_STARTS.map((interval) => {
    const pitch = pitchClass(transpose(majorTonic, interval));
    const fret = (pitch - (open % 12) + 12) % 12;
    // The hand opens one fret below the low string's note to reach the next string's.
    const low = fret - 1 < neck.capo ? fret + 11 : fret - 1;
    return fitZone(neck, low, low + 4);
  }).sort((a, b) => a.low - b.low);
}
