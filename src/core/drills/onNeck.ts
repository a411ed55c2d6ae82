/** Drills on the neck: places of a degree, a degree or note of a place, a half step ahead, a box. */
import { type Chord, chordNotes } from '../chords/chords';
import { degreeOver, spokenOver, spellOver } from '../chords/over';
import { collection, collectionName, collectionNotes } from '../collections/collections';
import { ownPentatonic } from '../collections/pentatonics';
import { keyScale } from '../keys/keys';
import { at, modulo, range } from '../lists';
import { boxesOf } from '../neck/boxes';
import { inZone, pitchAt, type Place, placesOf, stringCount, type Zone } from '../neck/neck';
import { degreeName } from '../notes/degrees';
import { intervalBetween, type Note, note, noteName, pitchClass, transpose } from '../notes/notes';
import { simplestPitch } from '../notes/spelling';
import { counted, list } from '../words';
import type { Drill, DrillSetting } from './kinds';
import { chordsOf, GENERAL_CHORDS, type Making, named, pick, plain, spelled } from './making';

const frets = ({ low, high }: Zone): string => `frets ${low} to ${high}`;
const where = ({ string, fret }: Place): string =>
  fret === 0 ? `string ${string} open` : `string ${string}, fret ${fret}`;
const placesIn = ({ neck, zone }: DrillSetting, sought: Note): readonly Place[] =>
  placesOf(neck, [sought], zone).map(({ string, fret }) => ({ string, fret }));

/** Asks for every place of a degree in the zone. */
export function findDegree(making: Making): Drill {
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

/** Asks which degree of a chord stands at a place. */
export function nameDegree(making: Making): Drill {
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

/** Asks which note stands at a place. */
export function nameNote(making: Making): Drill {
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
        : `${noteName(sounding)}: ${counted(up, 'half step')} above ${noteName(open)}, the open string.`,
    shown: [place],
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

/** Asks which note of the next chord lies a half step from one that is held. */
export function halfStepAhead(making: Making): Drill {
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

/** Asks which box of a pentatonic is shown. */
export function nameBox(making: Making): Drill {
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
