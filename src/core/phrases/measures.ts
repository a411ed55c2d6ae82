/** Notes bar by bar as notation writes them: split at bar lines and beats, tied where they must be. */
import { at } from '../lists';
import { barOf, barsOf, type TimeSignature } from '../time/metre';
import { lengthOf, type NoteValue, onPaper, shortestOf, valuesFor } from '../time/noteValues';
import type { Beats } from '../time/units';
import type { Passage, PlayedNote } from './passage';
import { techniqueOf } from './techniques';

/** What sounds or rests in a bar: notes of one moment, or none, for some value. Moments are rounded to what is written. */
export interface NotatedEvent<N = PlayedNote> {
  readonly value: NoteValue;
  /** After the bar's beginning. */
  readonly start: Beats;
  readonly length: Beats;
  readonly notes: readonly N[];
  /** Struck just before the notes, and taking no time of the bar. */
  readonly graces: readonly N[];
  /** Whether it goes on from the event before, and into the one after. */
  readonly tiedFrom: boolean;
  readonly tiedTo: boolean;
}

/** A bar of a passage with its notes, cut where bars begin. */
export interface NotatedBar<N = PlayedNote> {
  /** From 1; 0 is the pick-up. */
  readonly number: number;
  readonly time: TimeSignature;
  /** Where it begins, below 0 for a pick-up. */
  readonly from: Beats;
  readonly length: Beats;
  readonly events: readonly NotatedEvent<N>[];
}

/** Notes of one voice, in order of time, in bars. */
export interface Voice<N> extends Pick<Passage, 'time' | 'metreChanges' | 'beats' | 'pickUp'> {
  readonly notes: readonly N[];
}

interface Timed {
  readonly beat: Beats;
  readonly beats: Beats;
}

interface Moment<N> {
  readonly start: Beats;
  end: Beats;
  readonly notes: N[];
  readonly graces: N[];
}

const isGrace = ({ techniques }: PlayedNote): boolean =>
  techniqueOf(techniques, 'grace') !== undefined;

/** Notes by moment, each ended where the next begins; grace notes with the moment they lead to. */
function momentsOf<N extends Timed>(
  { notes, time }: Voice<N>,
  leads: (note: N) => boolean,
): readonly Moment<N>[] {
  const moments: Moment<N>[] = [];
  let graces: N[] = [];
  for (const [index, note] of notes.entries()) {
    // A grace note that leads nowhere is written as a note.
    if (leads(note) && notes.slice(index + 1).some((one) => !leads(one))) {
      graces.push(note);
      continue;
    }
    const start = onPaper(note.beat, time.unit);
    const end = Math.max(start + shortestOf(time.unit), onPaper(note.beat + note.beats, time.unit));
    const last = moments.at(-1);
    if (last?.start === start) {
      last.notes.push(note);
      last.graces.push(...graces);
      last.end = Math.max(last.end, end);
    } else {
      if (last) last.end = Math.min(last.end, start);
      moments.push({ start, end, notes: [note], graces });
    }
    graces = [];
  }
  return moments;
}

/** A passage bar by bar, the pick-up first. */
export const measuresOf = (passage: Passage): readonly NotatedBar[] => barsWith(passage, isGrace);

/** Notes of one voice bar by bar, the pick-up first; some are written as grace notes. */
export function barsWith<N extends Timed>(
  voice: Voice<N>,
  leads: (note: N) => boolean = () => false,
): readonly NotatedBar<N>[] {
  const { time, metreChanges, beats, pickUp } = voice;
  const all = momentsOf(voice, leads);
  let which = 0;
  return barsOf(time, metreChanges, beats, pickUp).map((bar): NotatedBar<N> => {
    const from = onPaper(bar.beat, time.unit);
    const to = from + onPaper(bar.beats, time.unit);
    // A pick-up is counted from where its full bar would begin, so that beats fall as they do there.
    const origin = bar.number === 0 ? to - barOf(bar.time) : from;
    const events: NotatedEvent<N>[] = [];
    const add = (start: Beats, end: Beats, moment: Moment<N> | null) => {
      let place = start;
      const values = valuesFor(start - origin, end - start, time.unit);
      for (const [order, value] of values.entries()) {
        const first = order === 0 && moment?.start === start;
        const last = order === values.length - 1 && moment !== null && moment.end <= end;
        events.push({
          value,
          start: place - from,
          length: lengthOf(value, time.unit),
          notes: moment?.notes ?? [],
          graces: first ? moment.graces : [],
          tiedFrom: moment !== null && !first,
          tiedTo: moment !== null && !last,
        });
        place += lengthOf(value, time.unit);
      }
    };
    let place = from;
    while (which < all.length && at(all, which).start < to) {
      const moment = at(all, which);
      const start = Math.max(from, moment.start);
      if (start > place) add(place, start, null);
      const end = Math.min(to, moment.end);
      add(start, end, moment);
      place = end;
      if (moment.end > to) break;
      which += 1;
    }
    if (place < to) add(place, to, null);
    return { number: bar.number, time: bar.time, from, length: to - from, events };
  });
}
