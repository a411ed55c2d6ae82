/** Notes from a MusicXML score: pitches, rhythms, and strings and frets where the score has them. */
import { lookUp } from '../../../lists';
import { type Key, KEY_MODES, keyOfSignature } from '../../../keys/keys';
import { at } from '../../../lists';
import { fretFor, type Neck, pitchAt, type Place, stringCount } from '../../../neck/neck';
import { type Note, noteFromLetter } from '../../../notes/notes';
import type { Midi } from '../../../notes/pitch';
import { PLAIN_PASSAGE, type PlayedNote, struck } from '../../../phrases/passage';
import { bendBy, GRACE_BEATS, inOrder, type Technique } from '../../../phrases/techniques';
import { readFeel } from '../../../time/feel';
import { DEFAULT_TIME, quarterOf, TIME_UNITS, type TimeSignature } from '../../../time/metre';
import { childNamed, childrenNamed, readXml, textAt, type XmlElement } from '../../musicxml/xml';
import { ontoNeck } from '../ontoNeck';
import { NOTE_LIMIT, type PassageResult, type Refusal, refused } from '../../result';
import type { Beats } from '../../../time/units';

interface Sounded {
  /** In quarter notes. */
  readonly start: number;
  length: number;
  readonly midi: Midi;
  readonly note: Note;
  readonly place: Place | null;
  readonly techniques: readonly Technique[];
}

interface ReadPart {
  readonly notes: readonly Sounded[];
  readonly key: Key | null;
  readonly times: readonly { readonly quarters: number; readonly time: TimeSignature }[];
  readonly feel: string | null;
  /** Length of the pick-up and of all of it, in quarter notes. */
  readonly pickUp: number;
  readonly quarters: number;
}

const numberAt = (element: XmlElement | undefined, ...path: readonly string[]): number | null => {
  const text = textAt(element, ...path);
  const value = Number(text);
  return text === '' || !Number.isFinite(value) ? null : value;
};

const NATURAL: Readonly<Record<string, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

function pitchOf(note: XmlElement): { readonly midi: Midi; readonly note: Note } | null {
  const pitch = childNamed(note, 'pitch');
  const step = textAt(pitch, 'step');
  const octave = numberAt(pitch, 'octave');
  const natural = lookUp(NATURAL, step);
  if (natural === undefined || octave === null) return null;
  const alter = Math.round(numberAt(pitch, 'alter') ?? 0);
  return { midi: 12 * (octave + 1) + natural + alter, note: noteFromLetter(step, alter) };
}

/** Half steps of a bend where the score does not say. */
const USUAL_BEND = 2;

function techniquesOf(note: XmlElement): readonly Technique[] {
  const notations = childrenNamed(note, 'notations');
  const inside = (name: string) => notations.flatMap((one) => childrenNamed(one, name));
  const technical = inside('technical').flatMap(({ children }) => children);
  const ornaments = inside('ornaments').flatMap(({ children }) => children);
  const said = technical.filter(({ name }) => name === 'other-technical').map(({ text }) => text);
  // Where a slur of the hand begins belongs to the note it ends on.
  const ends = (name: string, among: readonly XmlElement[]) =>
    among.some((one) => one.name === name && one.attributes['type'] !== 'start') ||
    said.includes(name);
  const found: Technique[] = [];
  if (childNamed(note, 'grace')) found.push({ kind: 'grace' });
  if (ends('hammer-on', technical)) found.push({ kind: 'hammer-on' });
  if (ends('pull-off', technical)) found.push({ kind: 'pull-off' });
  const slides = [...inside('slide'), ...inside('glissando')];
  const open = said.map((text) => /^slide (from|to) (\d{1,2})$/u.exec(text)).find(Boolean);
  if (open) found.push({ kind: 'slide', [open[1] ?? 'to']: Number(open[2]) });
  else if (slides.some(({ attributes }) => attributes['type'] === 'stop') || said.includes('slide'))
    found.push({ kind: 'slide' });
  const bends = technical.filter(({ name }) => name === 'bend');
  const up = bends.find((bend) => (numberAt(bend, 'bend-alter') ?? USUAL_BEND) > 0);
  if (up) {
    const release = bends.some((bend) => childNamed(bend, 'release') !== undefined);
    found.push(bendBy(numberAt(up, 'bend-alter') ?? USUAL_BEND, release));
  }
  const shaken = ornaments.some(({ name }) => name === 'wavy-line') || said.includes('vibrato');
  if (shaken) found.push({ kind: 'vibrato' });
  if (said.includes('mute')) found.push({ kind: 'mute' });
  if (said.includes('let-ring')) found.push({ kind: 'let-ring' });
  return inOrder(found);
}

const hasTie = (note: XmlElement, type: string): boolean =>
  childrenNamed(note, 'tie').some(({ attributes }) => attributes['type'] === type);

/** The key a score's signature and mode state; null for one without. */
function keyIn(attributes: XmlElement): Key | null {
  const key = childNamed(attributes, 'key');
  const mode = KEY_MODES.find((one) => one === textAt(key, 'mode'));
  return key && mode ? keyOfSignature(numberAt(key, 'fifths') ?? 0, mode) : null;
}

/** One part's notes on one staff; tied notes are one. */
function readPart(part: XmlElement, staff: number | null): ReadPart {
  const notes: Sounded[] = [];
  const open = new Map<Midi, Sounded>();
  const times: { quarters: number; time: TimeSignature }[] = [];
  let key: Key | null = null;
  let feel: string | null = null;
  let divisions = 1;
  let barStart = 0;
  let pickUp = 0;
  const graceLength = () => GRACE_BEATS / quarterOf((times[0]?.time ?? DEFAULT_TIME).unit);
  for (const [index, measure] of childrenNamed(part, 'measure').entries()) {
    // In divisions, which are whole where thirds of a quarter are not.
    let cursor = 0;
    let longest = 0;
    let last = 0;
    let graces = 0;
    for (const item of measure.children) {
      const ticks = numberAt(item, 'duration') ?? 0;
      switch (item.name) {
        case 'attributes': {
          divisions = Math.max(1, numberAt(item, 'divisions') ?? divisions);
          const beats = numberAt(item, 'time', 'beats');
          const unit = numberAt(item, 'time', 'beat-type');
          if (beats !== null && unit !== null && beats >= 1 && TIME_UNITS.includes(unit)) {
            times.push({ quarters: barStart, time: { beats, unit } });
          }
          key ??= keyIn(item);
          break;
        }
        case 'direction':
          feel ??=
            childrenNamed(item, 'direction-type')
              .map((type) => textAt(type, 'words'))
              .find((words) => words !== '') ?? null;
          break;
        case 'backup':
          cursor -= ticks;
          break;
        case 'forward':
          cursor += ticks;
          break;
        case 'note': {
          const grace = childNamed(item, 'grace') !== undefined;
          const begin = childNamed(item, 'chord') ? last : cursor;
          const start = begin / divisions;
          const length = grace ? graceLength() : ticks / divisions;
          last = begin;
          if (!grace) cursor = Math.max(cursor, begin + ticks);
          longest = Math.max(longest, cursor);
          graces = grace ? graces + 1 : 0;
          const here = numberAt(item, 'staff') ?? 1;
          const pitch = pitchOf(item);
          if (!pitch || (staff !== null && here !== staff)) break;
          const tied = hasTie(item, 'stop') ? open.get(pitch.midi) : undefined;
          if (tied) tied.length = barStart + start + length - tied.start;
          else {
            const technical = childNamed(childNamed(item, 'notations'), 'technical');
            const string = numberAt(technical, 'string');
            const fret = numberAt(technical, 'fret');
            const sounded: Sounded = {
              ...pitch,
              start: barStart + start - graces * graceLength(),
              length,
              place: string === null || fret === null ? null : { string, fret },
              techniques: techniquesOf(item),
            };
            notes.push(sounded);
            open.set(pitch.midi, sounded);
          }
          if (!hasTie(item, 'start')) open.delete(pitch.midi);
          break;
        }
      }
      longest = Math.max(longest, cursor);
    }
    barStart += longest / divisions;
    const implicit =
      measure.attributes['implicit'] === 'yes' || measure.attributes['number'] === '0';
    if (index === 0 && implicit) pickUp = longest / divisions;
  }
  return { notes, key, times, feel, pickUp, quarters: barStart };
}

/** The staff of tablature where there is one: it knows strings and frets. */
function tabStaff(part: XmlElement): number | null {
  for (const measure of childrenNamed(part, 'measure')) {
    for (const attributes of childrenNamed(measure, 'attributes')) {
      const clef = childrenNamed(attributes, 'clef').find((one) => textAt(one, 'sign') === 'TAB');
      if (clef) return Number(clef.attributes['number'] ?? 1);
    }
  }
  return null;
}

/** The parts of a score by their names, each read when it is asked for. */
type PartsResult =
  | {
      readonly ok: true;
      readonly parts: readonly { readonly name: string; readonly read: () => PassageResult }[];
    }
  | Refusal;

/** Places for all notes, and what had to be moved for it. */
type Laid = Pick<NonNullable<ReturnType<typeof ontoNeck>>, 'places' | 'remarks'>;

function placesFor(neck: Neck, notes: readonly Sounded[]): Laid | null {
  const own = notes.map(({ place, midi }) => {
    const fits = place !== null && place.string >= 1 && place.string <= stringCount(neck);
    return fits && pitchAt(neck, place) === midi && fretFor(neck, place.string, midi) !== null
      ? place
      : null;
  });
  return own.every((place) => place !== null)
    ? { places: own, remarks: [] }
    : ontoNeck(
        neck,
        notes.map(({ midi }) => midi),
      );
}

/** The passage of each part of a score that has notes, those with most notes first. */
export function readParts(xml: string, neck: Neck): PartsResult {
  const document = readXml(xml);
  if (!document.ok) return document;
  const { root } = document;
  if (root.name !== 'score-partwise') {
    return refused('This is no MusicXML score in parts.');
  }
  const listed = childNamed(root, 'part-list');
  const nameOf = (id: string | undefined) =>
    textAt(
      (listed ? childrenNamed(listed, 'score-part') : []).find(
        ({ attributes }) => attributes['id'] === id,
      ),
      'part-name',
    );
  const parts = childrenNamed(root, 'part')
    .map((part) => {
      const staff = tabStaff(part);
      const read = readPart(part, staff);
      // A staff of tablature without notes is only drawn.
      const found = read.notes.length > 0 ? read : readPart(part, null);
      return { name: nameOf(part.attributes['id']), part: found };
    })
    .filter(({ part }) => part.notes.length > 0)
    .toSorted((a, b) => b.part.notes.length - a.part.notes.length);
  if (parts.length === 0) return refused('This score holds no notes.');
  return {
    ok: true,
    parts: parts.map(({ name, part }) => ({ name, read: () => passageOf(root, part, neck) })),
  };
}

/** Reads the part with the most notes. */
export function readPassage(xml: string, neck: Neck): PassageResult {
  const found = readParts(xml, neck);
  return found.ok ? at(found.parts, 0).read() : found;
}

function passageOf(root: XmlElement, best: ReadPart, neck: Neck): PassageResult {
  if (best.notes.length > NOTE_LIMIT) {
    return refused('This score holds too many notes for a melody.');
  }
  const sorted = [...best.notes].sort((a, b) => a.start - b.start || a.midi - b.midi);
  const laid = placesFor(neck, sorted);
  if (!laid) return refused('The notes of this score find no place on the neck.');
  const { places, remarks } = laid;
  const [first] = best.times;
  const { time } = first ?? { time: DEFAULT_TIME };
  const timeOf = (quarters: number): Beats => Math.round(quarters * quarterOf(time.unit));
  const tempo = soundTempo(root);
  const notes = sorted.map(({ start, length, note, techniques }, index): PlayedNote => {
    const { string, fret } = at(places, index);
    const timing = {
      beat: timeOf(start - best.pickUp),
      beats: timeOf(length),
    };
    return struck({ ...timing, string, fret, note, chord: null, techniques });
  });
  return {
    ok: true,
    passage: {
      ...PLAIN_PASSAGE,
      title: textAt(root, 'work', 'work-title') || textAt(root, 'movement-title'),
      key: best.key,
      time,
      metreChanges: best.times.slice(1).map((change) => ({
        beat: timeOf(change.quarters - best.pickUp),
        time: change.time,
      })),
      pickUp: timeOf(best.pickUp),
      feel: readFeel(best.feel),
      tempo: tempo === null ? null : Math.round((tempo * time.unit) / 4),
      beats: timeOf(best.quarters - best.pickUp),
      neck,
      notes,
    },
    remarks,
  };
}

/** The first tempo a score states, in quarter notes a minute. */
function soundTempo(element: XmlElement): number | null {
  if (element.name === 'sound' && element.attributes['tempo'] !== undefined) {
    const tempo = Number(element.attributes['tempo']);
    return Number.isFinite(tempo) && tempo > 0 ? tempo : null;
  }
  for (const child of element.children) {
    const found = soundTempo(child);
    if (found !== null) return found;
  }
  return null;
}
