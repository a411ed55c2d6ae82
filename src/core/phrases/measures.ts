/** A passage bar by bar as notation writes it: split at bar lines and beats, tied where it must be. */
import { at } from '../lists';
import { barsOf, barTicks, beatTicks, type TimeSignature } from '../time/metre';
import { type NoteValue, valuesFor } from '../time/noteValues';
import type { Ticks } from '../time/units';
import type { Passage, PlayedNote } from './passage';
import { techniqueOf } from './techniques';

/** What sounds or rests in a bar: notes of one moment, or none, for some value. */
export interface NotatedEvent {
  readonly value: NoteValue;
  /** After the bar's beginning. */
  readonly start: Ticks;
  readonly notes: readonly PlayedNote[];
  /** Struck just before the notes, and taking no time of the bar. */
  readonly graces: readonly PlayedNote[];
  /** Whether it goes on from the event before, and into the one after. */
  readonly tiedFrom: boolean;
  readonly tiedTo: boolean;
}

export interface NotatedBar {
  /** From 1; 0 is the pick-up. */
  readonly number: number;
  readonly time: TimeSignature;
  /** Where it begins, below 0 for a pick-up. */
  readonly from: Ticks;
  readonly ticks: Ticks;
  readonly events: readonly NotatedEvent[];
}

interface Moment {
  readonly start: Ticks;
  end: Ticks;
  readonly notes: PlayedNote[];
  readonly graces: PlayedNote[];
}

const isGrace = ({ techniques }: PlayedNote): boolean =>
  techniqueOf(techniques, 'grace') !== undefined;

/** Notes by moment, each ended where the next begins; grace notes with the moment they lead to. */
function momentsOf({ notes, time }: Passage): readonly Moment[] {
  const tick = beatTicks(time.unit);
  const moments: Moment[] = [];
  let graces: PlayedNote[] = [];
  for (const [index, note] of notes.entries()) {
    // A grace note that leads nowhere is written as a note.
    if (isGrace(note) && notes.slice(index + 1).some((one) => !isGrace(one))) {
      graces.push(note);
      continue;
    }
    const start = Math.round(note.beat * tick);
    const end = Math.max(start + 1, Math.round((note.beat + note.beats) * tick));
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
export function measuresOf(passage: Passage): readonly NotatedBar[] {
  const { time, metreChanges, beats, pickUp } = passage;
  const tick = beatTicks(time.unit);
  const all = momentsOf(passage);
  let which = 0;
  return barsOf(time, metreChanges, beats, pickUp).map((bar): NotatedBar => {
    const from = Math.round(bar.beat * tick);
    const to = from + Math.round(bar.beats * tick);
    // A pick-up is counted from where its full bar would begin, so that beats fall as they do there.
    const origin = bar.number === 0 ? to - barTicks(bar.time) : from;
    const events: NotatedEvent[] = [];
    const add = (start: Ticks, end: Ticks, moment: Moment | null) => {
      let place = start;
      const values = valuesFor(start - origin, end - start);
      for (const [order, value] of values.entries()) {
        const first = order === 0 && moment?.start === start;
        const last = order === values.length - 1 && moment !== null && moment.end <= end;
        events.push({
          value,
          start: place - from,
          notes: moment?.notes ?? [],
          graces: first ? moment.graces : [],
          tiedFrom: moment !== null && !first,
          tiedTo: moment !== null && !last,
        });
        place += value.ticks;
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
    return { number: bar.number, time: bar.time, from, ticks: to - from, events };
  });
}
