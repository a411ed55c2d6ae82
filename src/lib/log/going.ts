/** A stint while it is played: what is kept of it at a moment. */
import { SAID, type Said, STINT, type StintContent } from './messages';

/** What is being played, as far as a stint says it. */
export type Playing = Pick<StintContent, 'chart' | 'exercise' | 'zone' | 'extent' | 'tempo'>;

export interface Going {
  /** When it began, as the player's clock says it. */
  readonly at: string;
  /** The same in milliseconds of the page's clock. */
  readonly since: number;
  readonly began: Playing;
  readonly id: string;
  /** Targets that were listened for, and those that landed. */
  asked: number;
  landed: number;
  /** The player's own word for how it went. */
  said: Said | null;
}

/** Another thing or another zone is another stint. */
export const keyOf = ({ chart, exercise, zone }: Playing): string =>
  `${chart} ${exercise} ${zone.low}-${zone.high}`;

/**
 * What is kept of a stint: of what was heard as much as there is, else of the player's word.
 *
 * @param latest how it was played last
 * @param now milliseconds of the page's clock
 */
export function stintOf(
  { at, since, began, asked, landed, said }: Going,
  { extent, tempo }: Playing,
  now: number,
): StintContent {
  const { chart, exercise, zone } = began;
  const heard = asked > 0;
  const word = said === null ? null : SAID[said];
  return {
    at,
    chart,
    exercise,
    zone,
    extent,
    tempoFrom: Math.round(began.tempo),
    tempo: Math.round(tempo),
    minutes: Math.min(STINT.most, (now - since) / 60_000),
    asked: heard ? asked : word === null ? null : SAID.asked,
    landed: heard ? landed : word,
    note: '',
  };
}
