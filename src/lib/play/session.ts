/** What sounds while a loop is practised: the band, the click, the line, in turns, pass after pass. */
import { bandOf } from '$core/band/band';
import { type Click, clicksOf, countIn } from '$core/band/click';
import type { BandEvent } from '$core/band/events';
import { type BandForm, lastBy } from '$core/band/form';
import { hashed } from '$core/random';
import type { Feel, FeelKind } from '$core/time/feel';
import { type TempoChange, tempoMap } from '$core/time/tempo';
import type { Beats } from '$core/time/units';
import {
  bandEvents,
  clickEvent,
  passesOf,
  type Programme,
  type SoundEvent,
} from '$lib/audio/programme';
import type { Turns } from '$lib/study/playing';
import { type Course, passAt, passNumbered } from './course';

export type Turn = 'corvel' | 'player';

const FOUR = 4;
const MINUTE = 60;

/** Where in a session something is: bars and seconds counted on through all passes. */
export interface Moment {
  readonly bar: number;
  readonly pass: number;
  readonly seconds: number;
}

/** Whose turn it is; null where both play all the time. */
export function turnAt(turns: Turns, { bar, pass, seconds }: Moment): Turn | null {
  const turn = (count: number): Turn => (Math.floor(count) % 2 === 0 ? 'corvel' : 'player');
  switch (turns) {
    case 'none':
      return null;
    case 'sixty seconds':
      return turn(seconds / MINUTE);
    case 'four bars':
      return turn(bar / FOUR);
    case 'bar by bar':
      return turn(bar);
    case 'pass by pass':
      return turn(pass);
  }
}

/** Seconds until the turn changes, where turns go by the clock. */
export const leftOfTurn = (seconds: number): number => MINUTE - (Math.max(0, seconds) % MINUTE);

/** Whether the band is silent in a bar: one of every so many, drawn anew, never the first of all. */
export function isRest(every: number, bar: number, seed: number): boolean {
  if (every < 2 || bar === 0) return false;
  const stretch = Math.floor(bar / every);
  const drawn = Math.floor(hashed(seed, stretch, 77) * every);
  return bar % every === (stretch === 0 ? Math.max(1, drawn) : drawn);
}

/** What a pass plays: its chords, and a line over them; beats count from its first bar. */
export interface Played {
  readonly form: BandForm;
  readonly line: readonly SoundEvent[];
}

export interface Session {
  readonly feel: Feel;
  readonly seed: number;
  readonly click: Click;
  readonly turns: Turns;
  readonly rests: number;
  /** Bars counted in. */
  readonly count: number;
  readonly tempo: readonly TempoChange[];
  readonly course: Course;
  /** Before the first bar of each pass, for what the line begins with. */
  readonly pickUp: Beats;
  readonly pass: (number: number) => Played;
  /** What played before something was set otherwise: its band goes on where it still fits. */
  readonly before?: Pick<SessionProgramme, 'bands'> | null;
}

/** Passes whose band is remembered: the one that sounds and those beside it. */
const REMEMBERED = 4;

/** What is asked of the band for a pass. */
export interface BandRequest {
  readonly form: BandForm;
  readonly feel: FeelKind;
  readonly seed: number;
  /** Passes before it: choruses differ. */
  readonly before: number;
  readonly loops: true;
}

/** What a band plays, as it is written, and what it was asked. */
interface MadeBand {
  readonly asked: BandRequest;
  readonly played: readonly BandEvent[];
}

/** A session as a programme; the band of a pass may be made elsewhere before it is needed. */
export interface SessionProgramme extends Programme {
  /** What is to be asked for a pass; null where it is there. */
  readonly wanted: (pass: number) => BandRequest | null;
  readonly put: (pass: number, band: readonly BandEvent[]) => void;
  /** The bands that are there, by their pass. */
  readonly bands: ReadonlyMap<number, MadeBand>;
}

/** The programme of a session: each pass is made when it is first asked for. */
export function sessionProgramme(session: Session): SessionProgramme {
  const { feel, seed, click, turns, rests, pickUp, course } = session;
  const tempo = tempoMap(session.tempo);
  const { time } = session.pass(0).form;
  // Taken over, not referred to: what played before that may be let go.
  const bands = new Map<number, MadeBand>(session.before?.bands);

  const askFor = (pass: number, form: BandForm): BandRequest => {
    return { form, feel: feel.kind, seed: seed + pass, before: pass, loops: true };
  };
  function keep(pass: number, asked: BandRequest, played: readonly BandEvent[]) {
    for (const old of [...bands.keys()].slice(0, Math.max(0, bands.size - REMEMBERED + 1)))
      bands.delete(old);
    bands.set(pass, { asked, played });
    return played;
  }
  function known(pass: number, asked: BandRequest): readonly BandEvent[] | null {
    const found = bands.get(pass);
    const same =
      found?.asked.form === asked.form &&
      found.asked.seed === asked.seed &&
      found.asked.feel === asked.feel;
    return same ? found.played : null;
  }
  function bandIn(pass: number, form: BandForm): readonly BandEvent[] {
    const asked = askFor(pass, form);
    const found = known(pass, asked);
    if (found) return found;
    const { form: over, ...options } = asked;
    return keep(pass, asked, bandOf(over, options));
  }

  interface Made {
    readonly pass: Played;
    readonly band: readonly BandEvent[];
    readonly events: readonly SoundEvent[];
  }
  /** Passes as they sound, until something of them is another. */
  const made = new Map<number, Made>();
  function eventsOf(number: number): readonly SoundEvent[] {
    const pass = session.pass(number);
    const band = bandIn(number, pass.form);
    const last = made.get(number);
    const same = last?.pass.form === pass.form && last.pass.line === pass.line;
    if (same && last.band === band) return last.events;
    const { begins, bar } = passNumbered(course, number);
    const barAt = (beat: Beats) => bar + Math.max(0, lastBy(pass.form.bars, beat));
    const played = band.filter(({ beat }) => !isRest(rests, barAt(beat), seed));
    const sung = pass.line.filter(({ beat }) => {
      const seconds = tempo.secondsAt(begins + beat);
      return turnAt(turns, { bar: barAt(beat), pass: number, seconds }) !== 'player';
    });
    const clicks = clicksOf(pass.form, click, bar).map(clickEvent);
    const events = [...bandEvents(played, feel, time), ...clicks, ...sung];
    for (const old of made.keys()) if (Math.abs(old - number) > 1) made.delete(old);
    made.set(number, { pass, band, events });
    return events;
  }

  const programme = passesOf(eventsOf, {
    start: -pickUp,
    length: course[0].beats,
    loop: true,
    passAt: (beat) => passAt(course, beat),
    passNumbered: (number) => passNumbered(course, number),
    count: countIn(time, session.count).map(clickEvent),
    countIn: session.count * time.beats,
    tempo,
  });
  return {
    ...programme,
    wanted: (pass) => {
      const asked = askFor(pass, session.pass(pass).form);
      return known(pass, asked) ? null : asked;
    },
    put: (pass, band) => void keep(pass, askFor(pass, session.pass(pass).form), band),
    bands,
  };
}
