import { describe, expect, test } from 'vitest';
import { chordNotes } from '../chords/chords';
import { parseChord } from '../chords/symbols';
import { COLLECTION_KINDS, collectionNotes } from '../collections/collections';
import { alone } from '../lenses/modeContext';
import { modeFor } from '../lenses/modes';
import { range } from '../lists';
import { note, type Note, noteName, pitchClass } from '../notes/notes';
import { type Placed } from './fingering';
import { reachOf, underHand } from './hand';
import { LAYER_KINDS, layersFor } from './layers';
import { inZone, pitchAt, STANDARD_NECK, type Zone } from './neck';
import { stringSets } from './voicings';
import { layOutIn, MATERIALS, pentatonicIn, scaleIn, zonesOf } from './zones';
import { pairs, some } from '$tests/laws';

const KEYS = 'C Db D Eb E F Gb G Ab A Bb B'.split(' ').map(note);
const ZONES = KEYS.flatMap((key) => zonesOf(STANDARD_NECK, key));
const SETS = [null, ...stringSets(STANDARD_NECK), ...stringSets(STANDARD_NECK, 'drop-2')];

const SUFFIXES = [
  ...['', 'm', '7', 'maj7', 'm7', 'm7b5', 'dim7', '6', 'm6', '9', '13', 'sus4', '7sus4', '7b9'],
  ...['7#9', '7alt', '7#5', 'aug', 'm(maj7)', 'maj7#11', 'maj7#5', 'm9', '69', 'add9', 'dim'],
];

/** What is wrong with notes laid out in a zone; empty where nothing is. */
function faults(places: readonly Placed[], notes: readonly Note[], zone: Zone): readonly string[] {
  const reach = reachOf(STANDARD_NECK, zone);
  const pitches = places.map((place) => pitchAt(STANDARD_NECK, place));
  const classes = new Set(notes.map(pitchClass));
  const found: string[] = [];
  if (places.some(({ fret }) => !inZone(reach, fret))) found.push('out of reach');
  if (new Set(pitches).size < pitches.length) found.push('a pitch twice');
  const holes = range(Math.min(...pitches), Math.max(...pitches)).filter(
    (midi) => classes.has(midi % 12) && !pitches.includes(midi),
  );
  if (holes.length > 0) found.push(`holes at ${holes.join(' ')}`);
  const there = new Set(pitches.map((midi) => midi % 12));
  if ([...classes].some((one) => !there.has(one))) found.push('a degree lacks');
  return found;
}

describe('in every one of the five zones of every key', () => {
  test.each(COLLECTION_KINDS.map((kind) => [kind.name, kind] as const))(
    '%s has no hole, on all strings and on any set of them',
    (name, kind) => {
      const places = some(pairs(pairs(KEYS, ZONES), SETS), 900, COLLECTION_KINDS.indexOf(kind));
      const bad = places.flatMap(([[root, zone], strings]) => {
        const notes = collectionNotes({ root, kind });
        return faults(underHand(STANDARD_NECK, notes, zone, { strings }), notes, zone).map(
          (fault) =>
            `${noteName(root)} ${name}, ${zone.low}-${zone.high}, ${String(strings)}: ${fault}`,
        );
      });
      expect(bad.slice(0, 5)).toEqual([]);
    },
  );

  test('a scale keeps its pentatonic’s box, and leaves no degree out', () => {
    const bad = KEYS.flatMap((root) =>
      ['ionian', 'dorian', 'phrygian dominant', 'altered', 'half-whole diminished'].flatMap(
        (name) => {
          const kind = COLLECTION_KINDS.find((one) => one.name === name);
          if (!kind) throw new Error(name);
          const scale = { root, kind };
          return some(ZONES, 20, KEYS.indexOf(root)).flatMap((zone) => {
            const shape = scaleIn(STANDARD_NECK, scale, zone);
            return shape ? faults(shape.places, collectionNotes(scale), zone) : ['nothing'];
          });
        },
      ),
    );
    expect(bad).toEqual([]);
  });

  test('every stock material and every layer of a chord lies under the hand, whole', () => {
    for (const [which, root] of ['C', 'F#', 'Eb'].entries()) {
      for (const suffix of some(SUFFIXES, 9, which)) {
        const chord = parseChord(root + suffix);
        if (!chord) throw new Error(root + suffix);
        const mode = modeFor(alone(chord));
        const tones = chordNotes(chord);
        for (const zone of zonesOf(STANDARD_NECK, note('C'))) {
          for (const material of MATERIALS) {
            const laid = layOutIn(STANDARD_NECK, { chord, mode }, material, zone);
            const places = laid?.shape.places ?? [];
            const notes = {
              mode: collectionNotes(mode),
              'chord-tones': tones,
              'matching-pentatonic': places.map((place) => place.note),
            }[material];
            expect([root + suffix, zone, material, faults(places, notes, zone)]).toEqual([
              ...[root + suffix, zone, material],
              [],
            ]);
          }
          const request = { neck: STANDARD_NECK, zone, chord, mode, strings: null };
          for (const { kind, places } of layersFor(LAYER_KINDS, request)) {
            const notes = { scale: collectionNotes(mode), arpeggio: tones }[kind as 'scale'];
            if (notes) expect(faults(places, notes, zone)).toEqual([]);
          }
        }
      }
    }
  });

  test('a pentatonic is the taught box wherever a hand in the zone reaches it', () => {
    let whole = 0;
    for (const zone of ZONES) {
      for (const root of KEYS) {
        const kind = COLLECTION_KINDS.find(({ name }) => name === 'minor pentatonic');
        const shape = kind && pentatonicIn(STANDARD_NECK, { root, kind }, zone);
        expect(shape && faults(shape.places, collectionNotes({ root, kind }), zone)).toEqual([]);
        if (shape?.places.length === 12) whole += 1;
      }
    }
    expect(whole / (ZONES.length * KEYS.length)).toBeGreaterThan(0.95);
  });
});

test('over C major in frets 5 to 8 the index finger stretches back for the B', () => {
  const ionian = COLLECTION_KINDS.find((kind) => kind.name === 'ionian');
  if (!ionian) throw new Error('ionian');
  const notes = collectionNotes({ root: note('C'), kind: ionian });
  const found = underHand(STANDARD_NECK, notes, { low: 5, high: 8 }).filter(
    (one) => noteName(one.note) === 'B',
  );
  expect(found.map(({ string, fret }) => `${string}:${fret}`)).toEqual(['6:7', '3:4', '1:7']);
});
