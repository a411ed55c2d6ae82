/**
 * Chords as players voice them on a set of strings: triads in close position on three neighbours,
 * and seventh chords with a voice of the close position dropped an octave, the second from the top
 * (drop 2) or the third (drop 3). Their inversions, and ways through a chart with them.
 */
import { type Chord, chordName, chordNotes } from '../chords/chords';
import { quality } from '../chords/symbols';
import { pitchMask } from '../collections/collections';
import { at, modulo, range } from '../lists';
import { degree } from '../notes/degrees';
import { type Interval, type Note, pitchClass, step, transpose } from '../notes/notes';
import { type Placed, spanOf } from './fingering';
import { fretFor, type Neck, openPitch, pitchAt, stringCount, type Zone } from './neck';

/** How the notes of a chord are spread. */
export const VOICING_KINDS = ['triad', 'drop-2', 'drop-3'] as const;
export type VoicingKind = (typeof VOICING_KINDS)[number];

/** Which note of the chord lies lowest. */
export const INVERSIONS = ['root', 'first', 'second', 'third'] as const;
type Inversion = (typeof INVERSIONS)[number];

/** What a player calls each inversion. */
export const INVERSION_NAMES: Readonly<Record<Inversion, string>> = {
  root: 'root position',
  first: 'first inversion',
  second: 'second inversion',
  third: 'third inversion',
};

/** A chord on a set of strings; `places` from its lowest note up. */
export interface Voicing {
  readonly kind: VoicingKind;
  readonly inversion: Inversion;
  readonly places: readonly Placed[];
}

/** What a voicing with an open string is called: open Am7; null where none of its strings is open. */
export const openName = (neck: Neck, chord: Chord, { places }: Voicing): string | null =>
  places.some(({ fret }) => fret === neck.capo)
    ? `open ${chordName({ ...chord, bass: null })}`
    : null;

/** The chord's triad: root, third (or what stands for it) and fifth; a power chord doubles its root. */
export function triadOf({ root, quality }: Chord): readonly Note[] {
  const tones = quality.core;
  const byStep = (wanted: number): Interval | undefined =>
    tones.find((tone) => step(tone) === wanted);
  const third = byStep(2) ?? byStep(3) ?? byStep(1);
  // An altered chord names no fifth; its flat thirteenth stands for it.
  const fifth = byStep(4) ?? degree(quality.altered ? 'b6' : '5');
  return [degree('1'), ...(third === undefined ? [] : [third]), fifth].map((tone) =>
    transpose(root, tone),
  );
}

/** The four voices of a chord: root, third, fifth and seventh, or what stands in their places. */
export function fourVoices({ root, quality: found }: Chord): readonly Note[] {
  const byStep = (...steps: number[]): Interval | undefined =>
    steps.flatMap((wanted) => found.core.find((tone) => step(tone) === wanted) ?? [])[0];
  const third = byStep(2, 3, 1) ?? degree('5');
  const fifth = byStep(4) ?? degree(found.altered ? 'b6' : '5');
  const seventh = byStep(6, 5) ?? degree('1');
  return [degree('1'), third, fifth, seventh].map((tone) => transpose(root, tone));
}

/** Whether a chord has a voice for each string of a kind: a drop voicing needs a sixth or seventh. */
export const isVoiced = ({ quality }: Chord, kind: VoicingKind): boolean =>
  kind === 'triad' || quality.core.some((tone) => step(tone) === 6 || step(tone) === 5);

interface Layout {
  readonly voices: (chord: Chord) => readonly Note[];
  /** The voices from the bass up, as steps in the close chord above the bass. */
  readonly order: readonly number[];
  /** Strings from the bass up, counted from the bass string. */
  readonly strings: readonly number[];
}

const LAYOUTS: Readonly<Record<VoicingKind, Layout>> = {
  triad: { voices: triadOf, order: [0, 1, 2], strings: [0, 1, 2] },
  'drop-2': { voices: fourVoices, order: [0, 2, 3, 1], strings: [0, 1, 2, 3] },
  // The string above the bass stays silent.
  'drop-3': { voices: fourVoices, order: [0, 3, 1, 2], strings: [0, 2, 3, 4] },
};

/** The sets of strings a kind of voicing lies on, highest first, each from its highest string. */
export function stringSets(
  neck: Neck,
  kind: VoicingKind = 'triad',
): readonly (readonly number[])[] {
  const { strings } = LAYOUTS[kind];
  const width = at(strings, strings.length - 1);
  return range(1 + width, stringCount(neck) + 1).map((bass) =>
    strings.map((up) => bass - up).reverse(),
  );
}

/** More frets than these are no small movable shape. */
const MOST_SPAN = 5;

/** Every voicing of a kind on a set of strings, each inversion in each octave, by pitch. */
export function voicingsOn(
  neck: Neck,
  chord: Chord,
  kind: VoicingKind,
  strings: readonly number[],
): readonly Voicing[] {
  const { voices, order } = LAYOUTS[kind];
  const tones = voices(chord);
  if (tones.length < order.length) return [];
  const fromLow = [...strings].sort((a, b) => b - a);
  const open = openPitch(neck, at(fromLow, 0));
  const shapes = range(0, order.length).flatMap((turn) => {
    const notes = order.map((voice) => at(tones, (voice + turn) % tones.length));
    return range(0, 3).flatMap((octave): readonly Voicing[] => {
      let midi = open + modulo(pitchClass(at(notes, 0)) - open, 12) + 12 * octave;
      const places: Placed[] = [];
      for (const [index, note] of notes.entries()) {
        if (index > 0) midi += modulo(pitchClass(note) - midi - 1, 12) + 1;
        const string = at(fromLow, index);
        const fret = fretFor(neck, string, midi);
        if (fret === null) return [];
        places.push({ string, fret, note });
      }
      const { low, high } = spanOf(places);
      return high - low > MOST_SPAN ? [] : [{ kind, inversion: at(INVERSIONS, turn), places }];
    });
  });
  return shapes.sort((a, b) => totalPitch(neck, a) - totalPitch(neck, b));
}

/** Every voicing of a kind on every set of strings it lies on, highest set first. */
export const voicingsOf = (neck: Neck, chord: Chord, kind: VoicingKind): readonly Voicing[] =>
  stringSets(neck, kind).flatMap((set) => voicingsOn(neck, chord, kind, set));

/** Chords of the same four notes, by the distance of the other's root. */
const TWINS: Readonly<Record<string, readonly [interval: string, quality: string]>> = {
  m7b5: ['b3', 'm6'],
  m6: ['6', 'm7b5'],
  m7: ['b3', '6'],
  '6': ['6', 'm7'],
};

interface Twin {
  readonly chord: Chord;
  readonly inversion: Inversion;
}

/** What else a voicing is called: a half-diminished is the minor sixth a minor third up. */
export function twinOf(chord: Chord, { places }: Voicing): Twin | null {
  const found = TWINS[chord.quality.name];
  const bass = places[0];
  if (!found || !bass) return null;
  const root = transpose(chord.root, degree(found[0]));
  const bare = { symbol: '', root, quality: quality(found[1]), bass: null };
  const twin = { ...bare, symbol: chordName(bare) };
  if (pitchMask(chordNotes(twin)) !== pitchMask(chordNotes({ ...chord, bass: null }))) return null;
  const turn = fourVoices(twin).findIndex((voice) => pitchClass(voice) === pitchClass(bass.note));
  return turn < 0 ? null : { chord: twin, inversion: at(INVERSIONS, turn) };
}

const totalPitch = (neck: Neck, { places }: Voicing): number =>
  places.reduce((sum, place) => sum + pitchAt(neck, place), 0);

/** Half steps that the voices move in all, voice by voice. */
export const motionBetween = (neck: Neck, from: Voicing, to: Voicing): number =>
  from.places.reduce(
    (sum, place, voice) =>
      sum + Math.abs(pitchAt(neck, at(to.places, voice)) - pitchAt(neck, place)),
    0,
  );

/** Where the next voicing lies. */
export const VOICING_PATHS = ['nearest', 'up', 'down'] as const;
type VoicingPath = (typeof VOICING_PATHS)[number];

interface VoiceMove {
  readonly note: Note;
  readonly to: Note;
  readonly halfSteps: number;
}

interface VoicingStep extends Voicing {
  /** Index of the chord among those given. */
  readonly index: number;
  readonly held: readonly Note[];
  readonly moves: readonly VoiceMove[];
  /** Set where the neck ran out and the way turned round. */
  readonly turned: boolean;
}

function nearestShape(neck: Neck, from: Voicing, shapes: readonly Voicing[]): Voicing | null {
  const middle = (shape: Voicing) => spanOf(shape.places).low;
  return shapes.reduce<Voicing | null>((best, shape) => {
    if (best === null) return shape;
    const less =
      motionBetween(neck, from, shape) - motionBetween(neck, from, best) ||
      Math.abs(middle(shape) - middle(from)) - Math.abs(middle(best) - middle(from));
    return less < 0 ? shape : best;
  }, null);
}

function voicesBetween(
  neck: Neck,
  from: Voicing,
  to: Voicing,
): Pick<VoicingStep, 'held' | 'moves'> {
  const held: Note[] = [];
  const moves: VoiceMove[] = [];
  from.places.forEach((place, voice) => {
    const goal = at(to.places, voice);
    const halfSteps = pitchAt(neck, goal) - pitchAt(neck, place);
    if (halfSteps === 0) held.push(goal.note);
    else moves.push({ note: place.note, to: goal.note, halfSteps });
  });
  return { held, moves };
}

/** The next shape strictly above (or below) another, nearest first; null where the neck ends. */
function beyond(
  neck: Neck,
  from: Voicing,
  shapes: readonly Voicing[],
  direction: 1 | -1,
): Voicing | null {
  const height = totalPitch(neck, from);
  const further = shapes.filter((shape) => (totalPitch(neck, shape) - height) * direction > 0);
  return (direction > 0 ? further[0] : further.at(-1)) ?? null;
}

interface VoicingRoute {
  readonly kind: VoicingKind;
  /** The set they lie on; null for any, which may change on the way. */
  readonly strings: readonly number[] | null;
  readonly path: VoicingPath;
  /** The inversion to begin with; by itself the one from which the whole way moves least. */
  readonly start?: Inversion | undefined;
  /** The region to begin in, or nearest to. */
  readonly near?: Zone | undefined;
  /** The region all of them lie in, or nearest to. */
  readonly within?: Zone | undefined;
}

/** Frets of a shape outside a region. */
function outside({ places }: Voicing, zone: Zone): number {
  const { low, high } = spanOf(places);
  return Math.max(0, zone.low - low) + Math.max(0, high - zone.high);
}

/** The shapes with least outside a region. */
function nearestIn(shapes: readonly Voicing[], zone: Zone | undefined): readonly Voicing[] {
  if (!zone) return shapes;
  const least = Math.min(...shapes.map((shape) => outside(shape, zone)));
  return shapes.filter((shape) => outside(shape, zone) === least);
}

/** The shapes a chord may take on a route, by pitch. */
function shapesFor(neck: Neck, chord: Chord, { kind, strings, within }: VoicingRoute) {
  if (!isVoiced(chord, kind)) return [];
  const all = strings ? voicingsOn(neck, chord, kind, strings) : voicingsOf(neck, chord, kind);
  return nearestIn(all, within).toSorted((a, b) => totalPitch(neck, a) - totalPitch(neck, b));
}

/** What a route may begin with: for a way up its lowest shape, for a way down its highest. */
function firstShapes(
  shapes: readonly Voicing[],
  { path, start, near }: VoicingRoute,
): readonly Voicing[] {
  const asked = shapes.filter(({ inversion }) => start === undefined || inversion === start);
  const wanted = nearestIn(asked.length > 0 ? asked : shapes, near);
  if (path === 'nearest' || near) return wanted;
  return wanted.slice(...(path === 'down' ? [-1] : [0, 1]));
}

/** A route from a shape of the first chord that has any. */
function routeFrom(
  neck: Neck,
  first: Voicing,
  layers: readonly (readonly Voicing[])[],
  path: VoicingPath,
): readonly VoicingStep[] {
  const steps: VoicingStep[] = [];
  let direction: 1 | -1 = path === 'down' ? -1 : 1;
  for (const [index, shapes] of layers.entries()) {
    if (shapes.length === 0) continue;
    const last = steps.at(-1);
    if (!last) {
      steps.push({ ...first, index, held: [], moves: [], turned: false });
      continue;
    }
    let turned = false;
    let shape =
      path === 'nearest' ? nearestShape(neck, last, shapes) : beyond(neck, last, shapes, direction);
    if (!shape && path !== 'nearest') {
      direction = direction === 1 ? -1 : 1;
      shape = beyond(neck, last, shapes, direction);
      turned = true;
    }
    // Where the neck holds only this one, it is played again.
    shape ??= at(shapes, 0);
    steps.push({ ...shape, index, ...voicesBetween(neck, last, shape), turned });
  }
  return steps;
}

/** Half steps that the voices of a route move in all. */
const totalMotion = (steps: readonly VoicingStep[]): number =>
  steps.reduce(
    (sum, { moves }) => sum + moves.reduce((all, { halfSteps }) => all + Math.abs(halfSteps), 0),
    0,
  );

/** Frets that the hand moves on a route in all. */
export const handMotion = (steps: readonly VoicingStep[]): number =>
  steps
    .slice(1)
    .reduce(
      (sum, { places }, index) =>
        sum + Math.abs(spanOf(places).low - spanOf(at(steps, index).places).low),
      0,
    );

/**
 * Voicings through a row of chords: always the nearest inversion, or always up, or always down and
 * turning round where the neck ends. Of the beginnings there are it takes the one from which the voices
 * move least in all (which is the same for every inversion, unless the neck ends), then the hand; of two the
 * lower. Chords that have none are passed over.
 */
export function voicingPath(
  neck: Neck,
  chords: readonly Chord[],
  route: VoicingRoute,
): readonly VoicingStep[] {
  const layers = chords.map((chord) => shapesFor(neck, chord, route));
  const first = layers.find((shapes) => shapes.length > 0);
  const routes = firstShapes(first ?? [], route).map((shape) =>
    routeFrom(neck, shape, layers, route.path),
  );
  const [best = []] = routes.toSorted(
    (a, b) => totalMotion(a) - totalMotion(b) || handMotion(a) - handMotion(b),
  );
  return best;
}
