/** What was played at each target: landed, near it, or not at all; and what to listen for next. */
import type { Chart, PlayedChord } from '../chart/form';
import { type Chord, chordName } from '../chords/chords';
import { degreeOver, spellOver, spokenOver } from '../chords/over';
import { modulo } from '../lists';
import { noteName } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import {
  type How,
  isAnticipated,
  isOn,
  isTone,
  landingOn,
  lastMoment,
  meetingOf,
  nearestTo,
  onTime,
  type SoundingNote,
  WITHIN,
} from '../phrases/landing';
import { DEFAULT_TEMPO } from '../time/tempo';
import { BEAT, type Beats, type BeatsPerMinute } from '../time/units';

/** A note as it was heard, in time of the chart and on no tick; bent, at the pitch it arrived at. */
export interface HeardAt extends SoundingNote {
  /** How far from that pitch it was; 0 where it is not known. */
  readonly cents: number;
}

interface TargetAsked {
  /** Index of the chord it is the target of. */
  readonly index: number;
  readonly midi: Midi;
}

/** What becomes of a target. */
export const VERDICTS = [
  'landed',
  'another octave',
  'another chord tone',
  'early',
  'late',
  'missed',
] as const;
type Verdict = (typeof VERDICTS)[number];

/** A target that was asked for, and what was heard. */
export interface Landing {
  readonly index: number;
  readonly asked: Midi;
  readonly heard: HeardAt | null;
  /** How long after its moment it began, below 0 before it; null where it was missed. */
  readonly beatsLate: Beats | null;
  readonly verdict: Verdict;
  /** How it landed; null where it did not. */
  readonly how: How | null;
  readonly sentence: string;
}

/** The targets of a passage, judged. */
export interface Landings {
  /** Those that are decided, in the order they were asked for. */
  readonly landings: readonly Landing[];
  readonly landed: number;
  /** How many are decided. */
  readonly asked: number;
  readonly sentence: string;
}

/** How strictly, and up to when, it is judged. */
export interface Judged {
  /** The tempo it was played at; the chart's where nothing is said. */
  readonly bpm?: BeatsPerMinute;
  /**
   * Up to which beat everything has been heard: what can still change is not judged. All is where nothing is
   * said.
   */
  readonly upTo?: Beats;
}

/** Later than this after its moment, or than its chord, a note is no answer to a target. */
const LATEST: Beats = 2 * BEAT;

interface Found {
  readonly note: HeardAt;
  readonly place: number;
  readonly verdict: Verdict;
  readonly how: How | null;
  /** Whether it sounds on from before: it may answer several targets. */
  readonly held: boolean;
}

/** One target with the notes that may answer it. */
interface Asked {
  readonly played: PlayedChord;
  readonly midi: Midi;
  readonly heard: readonly HeardAt[];
  readonly taken: ReadonlySet<number>;
  readonly tolerance: Beats;
}

/** The nearest of the notes that are free and hold, to the target's moment. */
function nearest(
  { heard, taken, played }: Asked,
  holds: (note: HeardAt, late: Beats) => boolean,
): { readonly note: HeardAt; readonly place: number; readonly late: Beats } | null {
  const place = nearestTo(
    heard,
    played.beat,
    (note, late, index) => !taken.has(index) && holds(note, late),
  );
  const note = heard[place];
  return note ? { note, place, late: note.beat - played.beat } : null;
}

/** The note asked for, where it landed. */
function landedOn({ played, midi, heard, taken, tolerance }: Asked): Found | null {
  const met = landingOn(heard, played, midi, tolerance, taken);
  const note = met && heard[met.by];
  return met && note
    ? { note, place: met.by, verdict: 'landed', how: met.how, held: met.how === 'anticipated' }
    : null;
}

/** What stood in the place of a note that did not land. */
function insteadOf(asked: Asked): Found | null {
  const { played, midi, heard, taken, tolerance } = asked;
  const exact = (note: HeardAt) => note.midi === midi;
  const octave = nearest(
    asked,
    (note, after) =>
      modulo(note.midi - midi, 12) === 0 &&
      (isOn(after, tolerance) ||
        (after < 0 ? isAnticipated(heard, note, played) : after <= lastMoment(played, tolerance))),
  );
  if (octave) return { ...octave, verdict: 'another octave', how: null, held: octave.late < 0 };
  const early = nearest(asked, (note, late) => exact(note) && late < -tolerance && late >= -WITHIN);
  if (early) return { ...early, verdict: 'early', how: null, held: false };
  const latest = Math.min(LATEST, played.beats - tolerance);
  const late = nearest(asked, (note, after) => exact(note) && after > tolerance && after <= latest);
  if (late) return { ...late, verdict: 'late', how: null, held: false };
  const met = meetingOf(heard, played, tolerance);
  const note = met && heard[met.by];
  return met && note && !taken.has(met.by) && isTone(played.chord, note.midi)
    ? {
        note,
        place: met.by,
        verdict: 'another chord tone',
        how: null,
        held: met.how === 'anticipated',
      }
    : null;
}

const AMOUNTS: readonly (readonly [Beats, string])[] = [
  [(3 * BEAT) / 10, 'a little'],
  [(6 * BEAT) / 10, 'half a beat'],
  [(12 * BEAT) / 10, 'a beat'],
];
const amount = (beats: Beats): string =>
  AMOUNTS.find(([most]) => Math.abs(beats) <= most)?.[1] ?? 'more than a beat';

const CENTS = 20;

function named(chord: Chord, midi: Midi): string {
  const note = spellOver(chord, midi);
  const over = spokenOver(chord, degreeOver(chord, note));
  return `${noteName(note)}, the ${over} of ${chordName({ ...chord, bass: null })}`;
}

const LANDED_HOW: Readonly<Record<How, string>> = {
  on: '',
  anticipated: ', ahead of the chord and held into it',
  delayed: ', after the note that leads to it',
  after: ', after the beat',
};

function sentenceFor(chord: Chord, asked: Midi, found: Found | null, late: Beats): string {
  const target = named(chord, asked);
  if (!found) return `${target}: not heard.`;
  const { midi, cents } = found.note;
  const off =
    Math.abs(cents) >= CENTS
      ? ` It was ${Math.abs(Math.round(cents))} cents ${cents > 0 ? 'sharp' : 'flat'}.`
      : '';
  switch (found.verdict) {
    case 'landed':
      return `${target}: landed${found.how ? LANDED_HOW[found.how] : ''}.${off}`;
    case 'another octave':
      return `${target}: in another octave.${off}`;
    case 'another chord tone':
      return `${target}: ${noteName(spellOver(chord, midi))} instead, a tone of the chord too.`;
    default:
      return `${target}: ${amount(late)} ${found.verdict}.${off}`;
  }
}

/**
 * What of some targets was landed on, by the rule of landing; each heard note answers one of them at the
 * most, but one that is held may answer several.
 */
export function landingsOf(
  chart: Chart,
  targets: readonly TargetAsked[],
  heard: readonly HeardAt[],
  { bpm = chart.source.tempo ?? DEFAULT_TEMPO, upTo = Infinity }: Judged = {},
): Landings {
  const ordered = heard.toSorted((a, b) => a.beat - b.beat);
  const tolerance = onTime(bpm);
  const taken = new Set<number>();
  const asked = targets.flatMap(({ index, midi }) => {
    const played = chart.chords[index];
    return played ? [{ index, played, midi, heard: ordered, taken, tolerance }] : [];
  });
  const found = new Map<Asked, Found | null>();
  // What landed first: a note that landed is no early or late one of a target beside.
  for (const find of [landedOn, insteadOf])
    for (const one of asked) {
      if (found.get(one)) continue;
      const answer = find(one);
      found.set(one, answer);
      if (answer && !answer.held) taken.add(answer.place);
    }
  const landings = asked.flatMap((one): readonly Landing[] => {
    const { index, played, midi } = one;
    const answer = found.get(one) ?? null;
    // Until its last moment is over, a target that was not landed on still may be.
    const decided = played.beat + Math.min(LATEST, played.beats);
    if (answer?.verdict !== 'landed' && decided > upTo) return [];
    const late = answer ? answer.note.beat - played.beat : 0;
    return [
      {
        index,
        asked: midi,
        verdict: answer?.verdict ?? 'missed',
        how: answer?.how ?? null,
        heard: answer?.note ?? null,
        beatsLate: answer ? late : null,
        sentence: sentenceFor(played.chord, midi, answer, late),
      },
    ];
  });
  const landed = landings.filter(({ verdict }) => verdict === 'landed').length;
  return {
    landings,
    landed,
    asked: landings.length,
    sentence: nextOf(chart, landings, landed, asked.length),
  };
}

/** What to listen for next: the first target that was furthest from landing. */
function nextOf(chart: Chart, landings: readonly Landing[], landed: number, asked: number): string {
  if (asked === 0) return 'No targets were asked for.';
  if (landings.length === 0) return 'No target has been reached yet.';
  if (landed === asked)
    return `${asked === 1 ? 'The target' : `All ${asked} targets`} landed: a little faster, or by ear.`;
  const open = asked - landings.length;
  // Of a pass that was broken off nothing is known of the rest.
  const rest =
    open === 0 ? '' : `; the other ${open === 1 ? 'one was' : `${open} were`} not reached`;
  const order: readonly Verdict[] = [
    'missed',
    'another chord tone',
    'another octave',
    'late',
    'early',
  ];
  const worst = order.flatMap((verdict) => landings.filter((one) => one.verdict === verdict))[0];
  const played = worst && chart.chords[worst.index];
  const next = played
    ? ` Listen next for ${named(played.chord, worst.asked)}, in bar ${played.bar}.`
    : '';
  // Those that were reached are the first ones.
  const went =
    landings.length === 1
      ? `${asked === 1 ? 'The target' : 'The first target'} ${landed === 1 ? 'landed' : 'did not land'}`
      : `${landed} of ${landings.length} targets landed`;
  return `${went}${rest}.${next}`;
}
