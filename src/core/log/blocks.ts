/** The blocks of a session: what each practises, and the minutes shared out among them. */
import { at } from '../lists';
import type { Zone } from '../neck/neck';
import type { Extent } from '../time/extent';
import type { BeatsPerMinute } from '../time/units';
import type { Minutes } from './stints';

/** Cards of a chart: they have no tempo, and a screen of their own. */
export const DRILLS = 'drills';

/** The exercise of the log that is a lick. */
export const LICK = 'lick';

/** The exercise of the log that is a sheet of the player’s. */
export const SHEET = 'sheet';

/** A part of a session: what is practised, where and for how long. */
export interface Block {
  readonly minutes: Minutes;
  readonly chart: string;
  readonly exercise: string;
  readonly zone: Zone;
  readonly extent: Extent;
  /** The chord a short extent begins with. */
  readonly index?: number;
  readonly tempo: BeatsPerMinute;
  readonly reason: string;
}

/** Whole minutes by shares, each one at least, together as many as there are. */
export function shared(minutes: Minutes, shares: readonly number[]): readonly Minutes[] {
  const sum = shares.reduce((all, one) => all + one, 0);
  const whole = shares.map((one) => Math.max(1, Math.floor((minutes * one) / sum)));
  for (let over = whole.reduce((all, one) => all + one, 0) - minutes; over > 0; over--) {
    const most = whole.indexOf(Math.max(...whole));
    whole[most] = at(whole, most) - 1;
  }
  const rest = minutes - whole.reduce((all, one) => all + one, 0);
  const largest = shares.indexOf(Math.max(...shares));
  whole[largest] = at(whole, largest) + rest;
  return whole;
}

/**
 * The blocks with one of them longer: the time is taken from those after it, a minute at a time from the
 * longest; where none has more than a minute the session is longer.
 */
export function lengthened(blocks: readonly Block[], place: number, by: Minutes): readonly Block[] {
  const minutes = blocks.map((block) => block.minutes);
  if (!blocks[place]) return blocks;
  minutes[place] = at(minutes, place) + by;
  for (let taken = 0; taken < by; taken++) {
    const later = minutes.slice(place + 1);
    const most = Math.max(...later);
    if (!(most >= 2)) break;
    minutes[place + 1 + later.indexOf(most)] = most - 1;
  }
  return blocks.map((block, index) => ({ ...block, minutes: at(minutes, index) }));
}
