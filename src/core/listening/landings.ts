/** What was played at each target: landed, near it, or not at all; and what to listen for next. */
import type { Chart, PlayedChord } from '../chart/form';
import { type Chord, chordName } from '../chords/chords';
import { degreeOver, spellOver, spokenOver } from '../chords/over';
import { modulo } from '../lists';
import { halfSteps, noteName, pitchClass } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import type { Beats } from '../time/units';

/** A note as it was heard, in beats of the chart. */
export interface HeardAt {
  readonly beat: Beats;
  /** How long it lasted; null where that is not known. */
  readonly beats: Beats | null;
  readonly midi: Midi;
  /** How far from that pitch it was; 0 where it is not known. */
  readonly cents: number;
}

export interface TargetAsked {
  /** Index of the chord it is the target of. */
  readonly index: number;
  readonly midi: Midi;
}

export const VERDICTS = [
  'landed',
  'another octave',
  'another chord tone',
  'early',
  'late',
  'missed',
] as const;
export type Verdict = (typeof VERDICTS)[number];

export interface Landing {
  readonly index: number;
  readonly asked: Midi;
  readonly heard: HeardAt | null;
  /** How long after its moment it began, below 0 before it; null where it was missed. */
  readonly beatsLate: Beats | null;
  readonly verdict: Verdict;
  readonly sentence: string;
}

export interface Landings {
  readonly landings: readonly Landing[];
  readonly landed: number;
  readonly asked: number;
  readonly sentence: string;
}

/** How far from its moment a note is still on time: half an eighth is what a player calls together. */
export const ON_TIME: Beats = 0.25;
/** From how long before the moment to how long after it a note is meant for the target. */
const MOMENT = { before: 0.75, after: 1 } as const;
const CLOSE = 1e-6;

const isTone = ({ root, quality }: Chord, midi: Midi): boolean =>
  quality.degrees.some((tone) => halfSteps(tone) === modulo(midi - pitchClass(root), 12));

/** How well a note answers a target: the very pitch, its octave, another tone of the chord. */
function rankOf(chord: Chord, asked: Midi, midi: Midi): number | null {
  if (midi === asked) return 0;
  if (modulo(midi - asked, 12) === 0) return 1;
  return isTone(chord, midi) ? 2 : null;
}

interface Found {
  readonly note: HeardAt;
  readonly place: number;
  readonly rank: number;
  /** Whether it was already sounding when the moment came. */
  readonly held: boolean;
}

function answering(
  { chord, beat }: PlayedChord,
  asked: Midi,
  heard: readonly HeardAt[],
  taken: ReadonlySet<number>,
): Found | null {
  let best: Found | null = null;
  for (const [place, note] of heard.entries()) {
    const rank = rankOf(chord, asked, note.midi);
    if (rank === null || taken.has(place)) continue;
    const late = note.beat - beat;
    const near = late >= -MOMENT.before - CLOSE && late <= MOMENT.after + CLOSE;
    const held = late < 0 && note.beats !== null && late + note.beats > CLOSE;
    if (!near && !held) continue;
    const better =
      best === null ||
      rank < best.rank ||
      (rank === best.rank && Math.abs(late) < Math.abs(best.note.beat - beat) - CLOSE);
    if (better) best = { note, place, rank, held };
  }
  return best;
}

const AMOUNTS: readonly (readonly [Beats, string])[] = [
  [0.3, 'a little'],
  [0.6, 'half a beat'],
  [1.2, 'a beat'],
];
const amount = (beats: Beats): string =>
  AMOUNTS.find(([most]) => Math.abs(beats) <= most)?.[1] ?? 'more than a beat';

const CENTS = 20;

function verdictFor(found: Found, late: Beats): Verdict {
  if (found.rank === 1) return 'another octave';
  if (found.rank === 2) return 'another chord tone';
  // What is held into its chord from long before sounds there in time.
  if (late < -MOMENT.before - CLOSE) return 'landed';
  if (late < -ON_TIME - CLOSE) return 'early';
  return late > ON_TIME + CLOSE ? 'late' : 'landed';
}

function named(chord: Chord, midi: Midi): string {
  const note = spellOver(chord, midi);
  const over = spokenOver(chord, degreeOver(chord, note));
  return `${noteName(note)}, the ${over} of ${chordName({ ...chord, bass: null })}`;
}

function sentenceFor(
  chord: Chord,
  asked: Midi,
  verdict: Verdict,
  found: Found | null,
  late: Beats,
): string {
  const target = named(chord, asked);
  if (!found || verdict === 'missed') return `${target}: not heard.`;
  const { midi, cents } = found.note;
  const off =
    Math.abs(cents) >= CENTS
      ? ` It was ${Math.abs(Math.round(cents))} cents ${cents > 0 ? 'sharp' : 'flat'}.`
      : '';
  switch (verdict) {
    case 'landed':
      return `${target}: landed.${off}`;
    case 'another octave':
      return `${target}: in another octave.${off}`;
    case 'another chord tone':
      return `${target}: ${noteName(spellOver(chord, midi))} instead, a tone of the chord too.`;
    default:
      return `${target}: ${amount(late)} ${verdict}.${off}`;
  }
}

/** What of some targets was landed on, each heard note answering one of them at the most. */
export function landingsOf(
  chart: Chart,
  targets: readonly TargetAsked[],
  heard: readonly HeardAt[],
): Landings {
  const taken = new Set<number>();
  const landings = targets.flatMap(({ index, midi }): readonly Landing[] => {
    const played = chart.chords[index];
    if (!played) return [];
    const found = answering(played, midi, heard, taken);
    // A note held through several chords may answer each of them.
    if (found && !found.held) taken.add(found.place);
    const late = found ? found.note.beat - played.beat : 0;
    const verdict = found ? verdictFor(found, late) : 'missed';
    return [
      {
        index,
        asked: midi,
        heard: found?.note ?? null,
        beatsLate: found ? late : null,
        verdict,
        sentence: sentenceFor(played.chord, midi, verdict, found, late),
      },
    ];
  });
  const landed = landings.filter(({ verdict }) => verdict === 'landed').length;
  return { landings, landed, asked: landings.length, sentence: nextOf(chart, landings, landed) };
}

/** What to listen for next: the first target that was furthest from landing. */
function nextOf(chart: Chart, landings: readonly Landing[], landed: number): string {
  if (landings.length === 0) return 'No targets were asked for.';
  if (landed === landings.length)
    return `All ${landed} targets landed: a little faster, or by ear.`;
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
  return `${landed} of ${landings.length} targets landed.${next}`;
}
