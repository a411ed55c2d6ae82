/** The places that may serve as targets: what a chord holds, what is asked for, and where a hand finds it. */
import { type Chord, chordName, chordNotes } from '../chords/chords';
import { readOver, spellingsOver, spellOver } from '../chords/over';
import { at } from '../lists';
import { inZone, pitchAt, type Place, placesOf } from '../neck/neck';
import { reachOf } from '../neck/hand';
import { type Interval, type Note, pitchClass, step } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import type { Preference } from './kinds';
import type { RouteChord, RouteRequest } from './request';
import { ROUTE_WEIGHTS } from './weights';

/** A place that may serve as a chord's target. */
export interface Candidate extends Place {
  readonly note: Note;
  readonly midi: Midi;
  readonly degree: Interval;
  readonly degreeCost: number;
}

const NUMBER_STEPS: Readonly<Record<string, readonly number[]>> = {
  '1': [0],
  '3': [2],
  '5': [4],
  '7': [6],
  '9': [1],
  '11': [3],
  '13': [5],
};

/** Preferences that only the chord's own tones can meet. */
const OWN_TONES: ReadonlySet<Preference> = new Set(['1', '3', '5', '7']);

/** Whether a degree over a chord is the one preferred; what stands for a third or seventh counts. */
function isPreferred({ quality }: Chord, degree: Interval, preference: Preference): boolean {
  if (preference === 'guideTones') return quality.guideTones.includes(degree);
  const steps = NUMBER_STEPS[preference] ?? [];
  const tones = quality.core;
  // Only a tone of the chord's own is its third or seventh: Bb over Cmaj7 is nobody's.
  const own = OWN_TONES.has(preference) ? tones : null;
  if (steps.includes(step(degree))) return own === null || own.includes(degree);
  const lacks = (wanted: number) => tones.every((tone) => step(tone) !== wanted);
  if (preference === '3')
    return lacks(2) && tones.includes(degree) && [1, 3].includes(step(degree));
  return preference === '7' && lacks(6) && tones.includes(degree) && step(degree) === 5;
}

const { intent: INTENT_WEIGHTS, otherNote, otherTone, preference: PREFERENCE } = ROUTE_WEIGHTS;

function degreeCost(
  { chord, intent }: RouteChord,
  degree: Interval,
  prefer: readonly Preference[],
): number {
  const weight = INTENT_WEIGHTS[intent];
  const rank = prefer.findIndex((preference) => isPreferred(chord, degree, preference));
  if (rank >= 0) return weight * PREFERENCE * rank;
  return chord.quality.degrees.includes(degree)
    ? weight * otherTone
    : otherNote + weight * otherTone;
}

/** Notes that may be landed on: the chord's, those asked for, and of the choice where it coasts. */
function landingNotes(
  { chord, intent, material }: RouteChord,
  prefer: readonly Preference[],
): readonly Note[] {
  const tones = chordNotes(chord);
  const known = new Set(tones.map(pitchClass));
  const wanted = readOver(chord, material?.notes ?? []).filter(
    ({ note, degree }) =>
      !known.has(pitchClass(note)) &&
      (intent === 'coast' || prefer.some((one) => isPreferred(chord, degree, one))),
  );
  const spelled = spellingsOver({ ...chord, bass: null }, material?.notes ?? []);
  return [...tones, ...wanted.map(({ note }) => spelled.get(pitchClass(note)) ?? note)];
}

/** The places where a chord of a request may be landed on. */
export function candidatesFor(request: RouteRequest, index: number): readonly Candidate[] {
  const { neck, zone, prefer } = request;
  const routed = at(request.chords, index);
  const { chord, pin } = routed;
  const placed = (places: readonly (Place & { readonly note: Note })[]): readonly Candidate[] => {
    const read = readOver(
      chord,
      places.map(({ note }) => note),
    );
    return places.map((place, which) => {
      const { degree } = at(read, which);
      return {
        ...place,
        midi: pitchAt(neck, place),
        degree,
        degreeCost: degreeCost(routed, degree, prefer),
      };
    });
  };
  const everywhere = placesOf(neck, landingNotes(routed, prefer));
  if (pin) {
    const midi = pitchAt(neck, pin);
    const known = everywhere.find(({ string, fret }) => string === pin.string && fret === pin.fret);
    // What was set by hand is kept, whatever it is over the chord; it costs no degree.
    const note = known?.note ?? spellOver(chord, midi);
    return placed([{ ...pin, note }]).map((one) => ({ ...one, degreeCost: 0 }));
  }
  const inside = zone ? everywhere.filter(({ fret }) => inZone(zone, fret)) : everywhere;
  const found = placed(inside.length > 0 ? inside : everywhere);
  const asked = askedAlone(prefer);
  if (asked === null) return found;
  // One degree that is asked for alone is landed on wherever the zone holds it, or a stretch beside it.
  const within = (places: readonly Candidate[]) =>
    places.filter(({ degree }) => isPreferred(chord, degree, asked));
  const own = within(found);
  if (own.length > 0 || zone === null) return own.length > 0 ? own : found;
  const reach = reachOf(neck, zone);
  const stretched = within(placed(everywhere.filter(({ fret }) => inZone(reach, fret))));
  return stretched.length > 0 ? stretched : found;
}

/** The one degree that is asked for; null where there is a choice of them. */
const askedAlone = (prefer: readonly Preference[]): Preference | null =>
  prefer.length === 1 ? (prefer[0] ?? null) : null;

const DEGREE_WORDS: Readonly<Record<Preference, string>> = {
  guideTones: 'guide tone',
  '1': 'root',
  '3': 'third',
  '5': 'fifth',
  '7': 'seventh',
  '9': 'ninth',
  '11': 'eleventh',
  '13': 'thirteenth',
};

/** What is said of a stop that is not the one degree asked for. */
export function missingSays(
  { chord, pin }: RouteChord,
  degree: Interval,
  { prefer, zone }: Pick<RouteRequest, 'prefer' | 'zone'>,
): string {
  const asked = askedAlone(prefer);
  if (asked === null || pin || isPreferred(chord, degree, asked)) return '';
  const name = chordName({ ...chord, bass: null });
  return ` No ${DEGREE_WORDS[asked]} of ${name} lies ${zone ? 'in this zone' : 'on this neck'}.`;
}
