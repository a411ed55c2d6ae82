/**
 * Drills: one question at a time about chords, degrees and the neck, made from a chart and a zone
 * or from what every player meets, the same for the same seed; each answer with why it is right.
 */
import { type PlayedChord } from '../chart/form';
import { type Chord, chordName, chordNotes } from '../chords/chords';
import { degreeOver, spokenOver, spellOver, tensionOver } from '../chords/over';
import { parseChord } from '../chords/symbols';
import {
  type Collection,
  collection,
  collectionName,
  collectionNotes,
} from '../collections/collections';
import { ownPentatonic } from '../collections/pentatonics';
import { type Key, keyName, keyScale } from '../keys/keys';
import { at, lookUp, modulo, range } from '../lists';
import { boxesOf } from '../neck/boxes';
import {
  inZone,
  type Neck,
  pitchAt,
  type Place,
  placesOf,
  samePlace,
  stringCount,
  type Zone,
} from '../neck/neck';
import { degreeName, degrees } from '../notes/degrees';
import { intervalBetween, type Note, note, noteName, pitchClass, transpose } from '../notes/notes';
import { simplestPitch } from '../notes/spelling';
import { climbing, type Midi, pitchAtOrAbove } from '../notes/pitch';
import { seeded } from '../random';
import { list } from '../words';

export const DRILL_WORDS = {
  'find-degree': 'Find a degree',
  'name-degree': 'Name the degree',
  'name-note': 'Name the note',
  'spell-chord': 'Spell the chord',
  'half-step-ahead': 'A half step ahead',
  'what-is-missing': 'What is missing',
  'name-box': 'Name the box',
  'hear-quality': 'Hear the quality',
  'hear-degree': 'Hear the degree',
  'hear-over-chord': 'Hear a note over a chord',
} as const;

export type DrillKind = keyof typeof DRILL_WORDS;
export const DRILL_KINDS = Object.keys(DRILL_WORDS) as [DrillKind, ...DrillKind[]];

export interface DrillAnswer {
  readonly places?: readonly Place[];
  readonly note?: Note;
  readonly degree?: string;
  readonly choice?: string;
}

export interface Drill {
  readonly kind: DrillKind;
  readonly prompt: string;
  readonly asks: 'places' | 'note' | 'degree' | 'choice';
  /** What may be answered; any order, each once. */
  readonly choices?: readonly string[];
  readonly answer: DrillAnswer;
  /** Why that is right. */
  readonly sentence: string;
  /** What the neck shows with the question. */
  readonly shown: readonly Place[];
  /** What is heard with it, chords and notes one after another; empty where nothing is. */
  readonly heard: readonly (readonly Midi[])[];
  readonly zone: Zone;
}

export interface DrillSetting {
  readonly neck: Neck;
  readonly zone: Zone;
  /** Of the player's chart; none where a drill is general. */
  readonly chords: readonly Pick<PlayedChord, 'chord'>[];
  readonly key: Key | null;
}

interface Making extends DrillSetting {
  /** A number from 0 up to 1, the next of the seed's. */
  readonly draw: () => number;
}

const pick = <T>({ draw }: Pick<Making, 'draw'>, from: readonly T[]): T =>
  at(from, Math.min(from.length - 1, Math.floor(draw() * from.length)));

function shuffled<T>(making: Pick<Making, 'draw'>, items: readonly T[]): readonly T[] {
  return items
    .map((item) => ({ item, by: making.draw() }))
    .toSorted((a, b) => a.by - b.by)
    .map(({ item }) => item);
}

const GENERAL = 'Dm7 G7 Cmaj7 Fmaj7 Bm7b5 E7 Am7 Ebmaj7 Bb7 Gm7 C7 F#m7b5 B7 Abmaj7 Em7 A7';
const GENERAL_CHORDS: readonly Chord[] = GENERAL.split(' ').flatMap((symbol) => {
  const chord = parseChord(symbol);
  return chord ? [chord] : [];
});

/** Chords to ask about: the chart's own, each as often as it comes; general ones where it has none. */
function chordsOf({ chords }: DrillSetting): readonly Chord[] {
  const own = chords.map(({ chord }) => ({ ...chord, bass: null }));
  return own.length > 0 ? own : GENERAL_CHORDS;
}

const named = (chord: Chord): string => chordName({ ...chord, bass: null });
const frets = ({ low, high }: Zone): string => `frets ${low} to ${high}`;
const where = ({ string, fret }: Place): string =>
  fret === 0 ? `string ${string} open` : `string ${string}, fret ${fret}`;
const placesIn = ({ neck, zone }: DrillSetting, sought: Note): readonly Place[] =>
  placesOf(neck, [sought], zone).map(({ string, fret }) => ({ string, fret }));

function plain(
  making: Making,
  kind: DrillKind,
  rest: Omit<Drill, 'kind' | 'zone' | 'shown' | 'heard'> & Partial<Pick<Drill, 'shown' | 'heard'>>,
): Drill {
  return { kind, shown: [], heard: [], zone: making.zone, ...rest };
}

function findDegree(making: Making): Drill {
  const chord = pick(making, chordsOf(making));
  const inside = chordNotes(chord).filter((one) => placesIn(making, one).length > 0);
  // A narrow zone may hold no tone of a chord: then the whole neck is asked about.
  const zone = inside.length > 0 ? making.zone : { low: making.neck.capo, high: making.neck.frets };
  const sought = pick(making, inside.length > 0 ? inside : chordNotes(chord));
  const places = placesIn({ ...making, zone }, sought);
  const degree = spokenOver(chord, intervalBetween(chord.root, sought));
  return {
    ...plain(making, 'find-degree', {
      prompt: `Find every ${degree} of ${named(chord)}, ${frets(zone)}.`,
      asks: 'places',
      answer: { places },
      sentence: `The ${degree} of ${named(chord)} is ${noteName(sought)}: ${list(places.map(where))}.`,
    }),
    zone,
  };
}

/** Every place in the zone. */
function placesInZone({ neck, zone }: DrillSetting): readonly Place[] {
  return range(1, stringCount(neck) + 1).flatMap((string) =>
    range(Math.max(zone.low, neck.capo), Math.min(zone.high, neck.frets) + 1).map((fret) => ({
      string,
      fret,
    })),
  );
}

/** A place in the zone that a note can be asked of. */
const placeIn = (making: Making): Place => pick(making, placesInZone(making));

/** Degrees offered, whatever is asked. */
const COMMON_DEGREES = ['1', 'b3', '3', '4', 'b5', '5', '6', 'b7', '7'] as const;

function nameDegree(making: Making): Drill {
  const chord = pick(making, chordsOf(making));
  const notes = chordNotes(chord);
  const inside = placesOf(making.neck, notes, making.zone);
  const place = inside.length > 0 ? pick(making, inside) : placeIn(making);
  const sounding = spellOver(chord, pitchAt(making.neck, place));
  const degree = degreeOver(chord, sounding);
  return plain(making, 'name-degree', {
    prompt: `Over ${named(chord)}: which degree is ${where(place)}?`,
    asks: 'degree',
    choices: [...new Set([...COMMON_DEGREES, degreeName(degree)])],
    answer: { degree: degreeName(degree) },
    sentence: `${noteName(sounding)} is the ${spokenOver(chord, degree)} of ${named(chord)}.`,
    shown: [{ string: place.string, fret: place.fret }],
  });
}

/** The notes without a sign: what is met first. */
const C_SCALE: readonly Note[] = keyScale({ tonic: note('C'), mode: 'major' }).map((one) =>
  transpose(note('C'), one),
);

function nameNote(making: Making): Drill {
  const { neck, key } = making;
  const scale = key ? keyScale(key).map((one) => transpose(key.tonic, one)) : C_SCALE;
  const inScale = (place: Place) =>
    scale.find((one) => pitchClass(one) === modulo(pitchAt(neck, place), 12));
  // In general, and where there is one: a note without a sign.
  const natural = key ? [] : placesInZone(making).filter((one) => inScale(one) !== undefined);
  const place = natural.length > 0 ? pick(making, natural) : placeIn(making);
  const chord = pick(making, chordsOf(making));
  const sounding = inScale(place) ?? spellOver(chord, pitchAt(neck, place));
  const open = simplestPitch(pitchAt(neck, { ...place, fret: neck.capo }));
  const up = place.fret - neck.capo;
  return plain(making, 'name-note', {
    prompt: `Which note is ${where(place)}?`,
    asks: 'note',
    answer: { note: sounding },
    sentence:
      up === 0
        ? `${noteName(sounding)}: the open string’s own note.`
        : `${noteName(sounding)}: ${up} half ${up === 1 ? 'step' : 'steps'} above ${noteName(open)}, the open string.`,
    shown: [place],
  });
}

const spelled = (notes: readonly Note[]): string => notes.map(noteName).join(' ');

/** What is taken for a degree by mistake: the same letter or its neighbour, a half step away. */
const MISTAKEN: Readonly<Record<string, readonly string[]>> = {
  ...{ b2: ['2'], '2': ['b2', 'b3'], b3: ['3', '2'], '3': ['b3', '4'], '4': ['3', '#4'] },
  ...{ b5: ['5', '4'], '5': ['b5', '#5'], '#5': ['5', '6'], '6': ['b6', 'b7'] },
  ...{ bb7: ['b7'], b7: ['7', '6'], '7': ['b7', '6'], b9: ['9', '#9'], '9': ['b9', '#9'] },
  ...{ '#9': ['9', 'b9'], '11': ['#11'], '#11': ['11'], b13: ['13'], '13': ['b13'] },
};

/** A chord's notes with one of them wrong, in every way that is likely. */
function misspelled(chord: Chord): readonly string[] {
  const own = chord.quality.degrees;
  return own.flatMap((degree, place) =>
    (lookUp(MISTAKEN, degreeName(degree)) ?? []).flatMap(degrees).flatMap((other) => {
      const wrong = own.with(place, other).map((one) => transpose(chord.root, one));
      return new Set(wrong.map(pitchClass)).size === own.length ? [spelled(wrong)] : [];
    }),
  );
}

function spellChord(making: Making): Drill {
  const chord = pick(making, chordsOf(making));
  const right = spelled(chordNotes(chord));
  const wrong = shuffled(making, [...new Set(misspelled(chord))]).slice(0, 3);
  const words = chord.quality.degrees.map((one) => spokenOver(chord, one));
  return plain(making, 'spell-chord', {
    prompt: `Spell ${named(chord)}.`,
    asks: 'choice',
    choices: shuffled(making, [right, ...wrong]),
    answer: { choice: right },
    sentence: `${named(chord)} is ${right}: ${list(words)}.`,
  });
}

/** Changes of chord to ask about, with a note held that has one half step to go, and no more. */
function halfStepMoves(chords: readonly Chord[]) {
  return chords.flatMap((chord, index) => {
    const next = chords[(index + 1) % chords.length];
    if (!next || spelled(chordNotes(next)) === spelled(chordNotes(chord))) return [];
    const arriving = chordNotes(next);
    return chordNotes(chord).flatMap((held) => {
      if (arriving.some((one) => pitchClass(one) === pitchClass(held))) return [];
      const near = arriving.filter((one) =>
        [1, 11].includes(modulo(pitchClass(one) - pitchClass(held), 12)),
      );
      const [to] = near;
      return to !== undefined && near.length === 1 ? [{ chord, next, held, to }] : [];
    });
  });
}

function halfStepAhead(making: Making): Drill {
  const own = halfStepMoves(chordsOf(making));
  const { chord, next, held, to } = pick(
    making,
    own.length > 0 ? own : halfStepMoves(GENERAL_CHORDS),
  );
  const up = modulo(pitchClass(to) - pitchClass(held), 12) === 1;
  return plain(making, 'half-step-ahead', {
    prompt: `You hold ${noteName(held)} over ${named(chord)}, and ${named(next)} comes: which of its notes lies a half step away?`,
    asks: 'note',
    answer: { note: to },
    sentence: `${noteName(held)}, the ${spokenOver(chord, intervalBetween(chord.root, held))} of ${named(chord)}, moves a half step ${up ? 'up' : 'down'} to ${noteName(to)}, the ${spokenOver(next, intervalBetween(next.root, to))} of ${named(next)}.`,
    shown: placesIn(making, held),
  });
}

const NOTHING = 'nothing';

/** Degrees of a chord that a collection has not. */
function missingFrom(chord: Chord, { root, kind }: Collection): string {
  const has = new Set(kind.degrees.map((one) => pitchClass(transpose(root, one))));
  const lacks = chord.quality.degrees.filter(
    (one) => !has.has(pitchClass(transpose(chord.root, one))),
  );
  return lacks.length === 0 ? NOTHING : list(lacks.map(degreeName));
}

/** Where the pentatonics asked about stand over a chord's root. */
const ROOTS = degrees('1 2 b3 b7 5 7');

/** Every choice of so many out of a list, in its order. */
const parts = <T>(items: readonly T[], count: number): readonly (readonly T[])[] =>
  count === 0
    ? [[]]
    : items.flatMap((item, place) =>
        parts(items.slice(place + 1), count - 1).map((rest) => [item, ...rest]),
      );

function whatIsMissing(making: Making): Drill {
  const chord = pick(making, chordsOf(making));
  const roots = ROOTS.map((up) => transpose(chord.root, up));
  const collections = roots.flatMap((root) =>
    ['major pentatonic', 'minor pentatonic'].map((kind) => collection(root, kind)),
  );
  const sought = pick(making, collections);
  const right = missingFrom(chord, sought);
  const own = chord.quality.degrees.map(degreeName);
  // As many tones as are missing, then none, then fewer or more.
  const size = right === NOTHING ? 1 : right.split(/, | and /u).length;
  const some = (count: number) => parts(own, count).map((one) => list(one));
  const rest = range(1, own.length).filter((count) => count !== size);
  const groups = [some(size), [NOTHING], rest.flatMap(some)];
  const wrong = groups
    .flatMap((group) => shuffled(making, group))
    .filter((one) => one !== right)
    .slice(0, 3);
  const name = collectionName(sought);
  return plain(making, 'what-is-missing', {
    prompt: `${name} over ${named(chord)}: which tones of the chord does it lack?`,
    asks: 'choice',
    choices: shuffled(making, [right, ...wrong]),
    answer: { choice: right },
    sentence:
      right === NOTHING
        ? `${name} is ${spelled(collectionNotes(sought))}: every tone of ${named(chord)} (${spelled(chordNotes(chord))}) is there.`
        : `${name} is ${spelled(collectionNotes(sought))}; ${named(chord)} is ${spelled(chordNotes(chord))}: its ${right} ${right.includes('and') ? 'are' : 'is'} not there.`,
  });
}

function nameBox(making: Making): Drill {
  const chord = pick(making, chordsOf(making));
  const pentatonic = ownPentatonic(chord) ?? collection(chord.root, 'minor pentatonic');
  const boxes = boxesOf(making.neck, pentatonic);
  const near = boxes.filter(({ places }) => {
    const inside = places.filter(({ fret }) => inZone(making.zone, fret));
    return inside.length * 2 > places.length;
  });
  const box = near.length + boxes.length > 0 ? pick(making, near.length > 0 ? near : boxes) : null;
  // A neck too short for any box has none to name.
  if (!box) return nameNote(making);
  const name = (number: number) => `box ${number}`;
  return plain(making, 'name-box', {
    prompt: `${collectionName(pentatonic)}, ${frets(box)}: which box is this, by the minor pentatonic’s count?`,
    asks: 'choice',
    choices: range(1, 6).map(name),
    answer: { choice: name(box.name.minor) },
    sentence: `It is box ${box.name.minor}: its lowest string begins on ${noteName(at(collectionNotes(pentatonic), box.index))}. By the major pentatonic’s count it is box ${box.name.major}, round the ${box.name.letter} shape.`,
    shown: box.places.map(({ string, fret }) => ({ string, fret })),
  });
}

/** Qualities told apart by ear, in the words of chord symbols, each with those it is taken for, the likeliest first. */
const QUALITIES: Readonly<Record<string, readonly string[]>> = {
  maj7: ['maj7#11', '6', '7', 'mmaj7'],
  '6': ['maj7', 'm6', '7', 'm7'],
  'maj7#11': ['maj7', '7', 'mmaj7', '6'],
  '7': ['7sus4', 'm7', 'maj7', '7alt'],
  '7sus4': ['7', 'm7', '6', 'maj7'],
  '7alt': ['7', 'm7b5', 'dim7', '7sus4'],
  m7: ['m6', '7', 'm7b5', '7sus4'],
  m6: ['m7', '6', 'mmaj7', 'm7b5'],
  mmaj7: ['m6', 'maj7', 'm7', 'maj7#11'],
  m7b5: ['dim7', 'm7', 'm6', '7alt'],
  dim7: ['m7b5', '7alt', 'm6', '7'],
};
const FLOOR: Midi = 48;

const voiced = (chord: Chord): readonly Midi[] => climbing(chordNotes(chord), FLOOR);

const chordOn = (root: Note, name: string): Chord => {
  const chord = parseChord(noteName(root) + name);
  if (!chord) throw new Error(name);
  return chord;
};

/** Two, five, one in a key: by it what is heard next has a place. */
function cadence({ tonic }: Pick<Key, 'tonic'>): readonly (readonly Midi[])[] {
  const up = (fifths: number) => (tonic + fifths) as Note;
  return [chordOn(up(2), 'm7'), chordOn(up(1), '7'), chordOn(tonic, 'maj7')].map(voiced);
}

const C_MAJOR: Key = { tonic: note('C'), mode: 'major' };

function hearQuality(making: Making): Drill {
  const key = making.key ?? C_MAJOR;
  const symbols = chordsOf(making).map(({ quality }) => quality.name);
  const all = Object.keys(QUALITIES);
  // What the chart's own chords are comes twice as often.
  const name = pick(making, [...all, ...all.filter((one) => symbols.includes(one))]);
  const chord = chordOn(key.tonic, name);
  return plain(making, 'hear-quality', {
    prompt: `A cadence in ${keyName(key)}, then a chord on ${noteName(key.tonic)}: which quality is it?`,
    asks: 'choice',
    choices: shuffled(making, [name, ...(lookUp(QUALITIES, name) ?? [])]),
    answer: { choice: name },
    sentence: `It is ${named(chord)}: ${spelled(chordNotes(chord))}.`,
    heard: [...cadence(key), voiced(chord)],
  });
}

/** What may sound over a chord besides its own tones: the ninth, and what stands with its third. */
const ADDED = { major: degrees('9 #11 13'), minor: degrees('9 11') } as const;

function hearOverChord(making: Making): Drill {
  const chord = pick(making, chordsOf(making));
  const own = chord.quality.degrees;
  const isMajor = own.some((one) => degreeName(one) === '3');
  const held = new Set(own.map((one) => pitchClass(transpose(chord.root, one))));
  const added = ADDED[isMajor ? 'major' : 'minor'].filter(
    (one) => !held.has(pitchClass(transpose(chord.root, one))),
  );
  const choices = [...own, ...added];
  const degree = pick(making, choices);
  const sounding = transpose(chord.root, degree);
  return plain(making, 'hear-over-chord', {
    prompt: `You hear ${named(chord)}, then one note over it: which degree of the chord is it?`,
    asks: 'degree',
    choices: choices.map((one) => tensionOver(chord, one)),
    answer: { degree: tensionOver(chord, degree) },
    sentence: `It is ${noteName(sounding)}, the ${spokenOver(chord, degree)} of ${named(chord)}.`,
    heard: [voiced(chord), [pitchAtOrAbove(sounding, Math.max(...voiced(chord)) + 1)]],
  });
}

function hearDegree(making: Making): Drill {
  const key = making.key ?? C_MAJOR;
  const degree = pick(making, keyScale(key));
  const sounding = transpose(key.tonic, degree);
  return plain(making, 'hear-degree', {
    prompt: `A cadence in ${keyName(key)}, then one note: which degree of the key is it?`,
    asks: 'degree',
    choices: keyScale(key).map(degreeName),
    answer: { degree: degreeName(degree) },
    sentence: `It is ${noteName(sounding)}, the ${degreeName(degree)} of ${keyName(key)}.`,
    heard: [...cadence(key), [pitchAtOrAbove(sounding, 60)]],
  });
}

const MAKERS: Readonly<Record<DrillKind, (making: Making) => Drill>> = {
  'find-degree': findDegree,
  'name-degree': nameDegree,
  'name-note': nameNote,
  'spell-chord': spellChord,
  'half-step-ahead': halfStepAhead,
  'what-is-missing': whatIsMissing,
  'name-box': nameBox,
  'hear-quality': hearQuality,
  'hear-degree': hearDegree,
  'hear-over-chord': hearOverChord,
};

/** A drill of a kind; the same for the same seed and setting. */
export const makeDrill = (kind: DrillKind, seed: number, setting: DrillSetting): Drill =>
  MAKERS[kind]({ ...setting, draw: seeded(seed * 31 + DRILL_KINDS.indexOf(kind)) });

/** Whether an answer is right: a note by its sound, places all of them and no other. */
export function isRight({ answer }: Drill, given: DrillAnswer): boolean {
  if (answer.places) {
    const { places: wanted } = answer;
    const got = given.places ?? [];
    const isIn = (list: readonly Place[]) => (place: Place) =>
      list.some((one) => samePlace(one, place));
    return wanted.every(isIn(got)) && got.every(isIn(wanted));
  }
  if (answer.note !== undefined)
    return given.note !== undefined && pitchClass(given.note) === pitchClass(answer.note);
  if (answer.degree !== undefined) return given.degree === answer.degree;
  return given.choice === answer.choice;
}
