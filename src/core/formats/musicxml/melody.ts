/** Notes from a MusicXML score: pitches, rhythms, and strings and frets where the score has them. */
import { at } from '../../lists';
import { fretFor, type Neck, pitchAt, type Place, stringCount } from '../../neck/neck';
import { type Note, noteFromLetter } from '../../notes/notes';
import type { Midi } from '../../notes/pitch';
import { type Articulation, type PlayedNote, struck } from '../../phrases/played';
import { NOTE_LIMIT, type PassageResult } from '../midi/read';
import { placePitches } from '../placing';
import { childNamed, childrenNamed, type Element, readXml, textAt } from './xml';

interface Sounded {
  /** In quarter notes. */
  readonly start: number;
  length: number;
  readonly midi: Midi;
  readonly note: Note;
  readonly place: Place | null;
  readonly articulation: Articulation | null;
}

interface Read {
  readonly notes: readonly Sounded[];
  readonly beats: number;
  readonly unit: number;
  readonly quarters: number;
}

const numberAt = (element: Element | undefined, ...path: readonly string[]): number | null => {
  const text = textAt(element, ...path);
  const value = Number(text);
  return text === '' || !Number.isFinite(value) ? null : value;
};

const NATURAL: Readonly<Record<string, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

function pitchOf(note: Element): { readonly midi: Midi; readonly note: Note } | null {
  const pitch = childNamed(note, 'pitch');
  const step = textAt(pitch, 'step');
  const octave = numberAt(pitch, 'octave');
  const natural = NATURAL[step];
  if (natural === undefined || octave === null) return null;
  const alter = Math.round(numberAt(pitch, 'alter') ?? 0);
  return { midi: 12 * (octave + 1) + natural + alter, note: noteFromLetter(step, alter) };
}

function articulationOf(technical: Element | undefined): Articulation | null {
  const bend = childNamed(technical, 'bend');
  if (bend) {
    const size = Math.max(1, Math.min(3, Math.round(numberAt(bend, 'bend-alter') ?? 2)));
    return {
      kind: 'bend',
      halfSteps: size as 1 | 2 | 3,
      release: childNamed(bend, 'release') !== undefined,
    };
  }
  if (childNamed(technical, 'hammer-on')) return { kind: 'hammer-on' };
  if (childNamed(technical, 'pull-off')) return { kind: 'pull-off' };
  const other = textAt(technical, 'other-technical');
  return other === 'slide' || other === 'vibrato' ? { kind: other } : null;
}

const hasTie = (note: Element, type: string): boolean =>
  childrenNamed(note, 'tie').some(({ attributes }) => attributes['type'] === type);

/** One part's notes on one staff; tied notes are one. */
function readPart(part: Element, staff: number | null): Read {
  const notes: Sounded[] = [];
  const open = new Map<Midi, Sounded>();
  let divisions = 1;
  let beats = 4;
  let unit = 4;
  let barStart = 0;
  for (const measure of childrenNamed(part, 'measure')) {
    let cursor = 0;
    let longest = 0;
    let last = 0;
    for (const item of measure.children) {
      const ticks = numberAt(item, 'duration') ?? 0;
      switch (item.name) {
        case 'attributes':
          divisions = Math.max(1, numberAt(item, 'divisions') ?? divisions);
          beats = numberAt(item, 'time', 'beats') ?? beats;
          unit = numberAt(item, 'time', 'beat-type') ?? unit;
          break;
        case 'backup':
          cursor -= ticks / divisions;
          break;
        case 'forward':
          cursor += ticks / divisions;
          break;
        case 'note': {
          if (childNamed(item, 'grace')) break;
          const start = childNamed(item, 'chord') ? last : cursor;
          const length = ticks / divisions;
          last = start;
          cursor = Math.max(cursor, start + length);
          longest = Math.max(longest, cursor);
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
              start: barStart + start,
              length,
              place: string === null || fret === null ? null : { string, fret },
              articulation: articulationOf(technical),
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
    barStart += longest;
  }
  return { notes, beats, unit, quarters: barStart };
}

/** The staff of tablature where there is one: it knows strings and frets. */
function tabStaff(part: Element): number | null {
  for (const measure of childrenNamed(part, 'measure')) {
    for (const attributes of childrenNamed(measure, 'attributes')) {
      const clef = childrenNamed(attributes, 'clef').find((one) => textAt(one, 'sign') === 'TAB');
      if (clef) return Number(clef.attributes['number'] ?? 1);
    }
  }
  return null;
}

function placesFor(neck: Neck, notes: readonly Sounded[]): readonly Place[] | null {
  const own = notes.map(({ place, midi }) => {
    const fits = place !== null && place.string >= 1 && place.string <= stringCount(neck);
    return fits && pitchAt(neck, place) === midi && fretFor(neck, place.string, midi) !== null
      ? place
      : null;
  });
  return own.every((place) => place !== null)
    ? own
    : placePitches(
        neck,
        notes.map(({ midi }) => midi),
      );
}

/** Reads the part with the most notes. */
export function readMelody(xml: string, neck: Neck): PassageResult {
  const document = readXml(xml);
  if (!document.ok) return document;
  const { root } = document;
  if (root.name !== 'score-partwise') {
    return { ok: false, message: 'This is no MusicXML score in parts.' };
  }
  const parts = childrenNamed(root, 'part').map((part) => {
    const staff = tabStaff(part);
    const read = readPart(part, staff);
    // A staff of tablature without notes is only drawn.
    return read.notes.length > 0 ? read : readPart(part, null);
  });
  const best = parts.reduce<Read | null>(
    (most, part) => (most === null || part.notes.length > most.notes.length ? part : most),
    null,
  );
  if (!best || best.notes.length === 0) return { ok: false, message: 'This score holds no notes.' };
  if (best.notes.length > NOTE_LIMIT) {
    return { ok: false, message: 'This score holds too many notes for a melody.' };
  }
  const sorted = [...best.notes].sort((a, b) => a.start - b.start || a.midi - b.midi);
  const places = placesFor(neck, sorted);
  if (!places) return { ok: false, message: 'Some notes of this score lie off the neck.' };
  const perQuarter = best.unit / 4;
  const tempo = soundTempo(root);
  const notes = sorted.map(({ start, length, note, articulation }, index): PlayedNote => {
    const { string, fret } = at(places, index);
    const timing = { beat: start * perQuarter, beats: length * perQuarter };
    return { ...struck({ ...timing, string, fret, note, chord: null }), articulation };
  });
  return {
    ok: true,
    passage: {
      title: textAt(root, 'work', 'work-title') || textAt(root, 'movement-title'),
      time: { beats: best.beats, unit: best.unit },
      tempo: tempo === null ? null : Math.round((tempo * best.unit) / 4),
      beats: best.quarters * perQuarter,
      neck,
      chords: [],
      notes,
    },
  };
}

/** The first tempo a score states, in quarter notes a minute. */
function soundTempo(element: Element): number | null {
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
