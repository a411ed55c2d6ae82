/** `zones`, `triads` and `homes`: where things lie on the neck. */
import type { z } from 'zod';
import type { Chord } from '$core/chords/chords';
import { explainUnreadable, parseChord } from '$core/chords/symbols';
import {
  type Collection,
  collectionName,
  findCollectionKind,
  parseCollection,
} from '$core/collections/collections';
import { signatureTonic } from '$core/harmony/keys';
import { readHarmony } from '$core/harmony/reading';
import { arpeggio, matchingPentatonic } from '$core/lenses/material';
import { modeAt, modeFor } from '$core/lenses/modes';
import type { Placed } from '$core/neck/fingering';
import { homesOf } from '$core/neck/homes';
import { makeNeck } from '$core/neck/instruments';
import { type Neck, stringCount, type Zone } from '$core/neck/neck';
import { triadPath } from '$core/neck/triads';
import {
  chordTonesIn,
  pentatonicIn,
  scaleIn,
  type ZoneMaterial,
  type ZoneShape,
  zonesOf,
} from '$core/neck/zones';
import { degreeName } from '$core/notes/degrees';
import { intervalBetween, type Note, noteName } from '$core/notes/notes';
import { requestedChart } from './chart';
import { accept, type EngineResult, refuse } from './refusals';
import type {
  homesAnswer,
  homesRequest,
  neckRequest,
  triadsAnswer,
  triadsRequest,
  zonesAnswer,
  zonesRequest,
} from './schemas';

export function requestedNeck(
  request: z.infer<typeof neckRequest> | undefined,
): EngineResult<Neck> {
  const result = makeNeck(request ?? {});
  if (result.ok) return accept(result.neck);
  const { message, field } = result;
  const unreadable = field === 'tuning' && message.startsWith('“');
  return refuse({
    code: unreadable ? 'invalid_request' : 'out_of_range',
    message,
    path: `neck.${field}`,
  });
}

/** Refuses a zone that does not lie on the neck; null where it does, or none is asked for. */
export function refuseZone(
  { capo, frets }: Neck,
  zone: { readonly low: number; readonly high: number } | undefined,
): EngineResult<never> | null {
  if (!zone || (zone.low <= zone.high && zone.low >= capo && zone.high <= frets)) return null;
  const message = `A zone lies between fret ${capo} and fret ${frets}, its lower end first.`;
  return refuse({ code: 'out_of_range', message, path: 'zone' });
}

const describePlace =
  (root: Note) =>
  ({ string, fret, note }: Placed) => ({
    string,
    fret,
    note: noteName(note),
    degree: degreeName(intervalBetween(root, note)),
  });

interface Laid {
  readonly name: string;
  readonly shape: ZoneShape | null;
}

function layOut(
  neck: Neck,
  chord: Chord,
  mode: Collection,
  material: ZoneMaterial,
  zone: Zone,
): Laid {
  const pentatonic = matchingPentatonic(chord);
  switch (material) {
    case 'mode':
      return { name: collectionName(mode), shape: scaleIn(neck, mode, zone) };
    case 'chord-tones':
      return { name: arpeggio(chord).name, shape: chordTonesIn(neck, chord, pentatonic, zone) };
    default:
      return { name: collectionName(pentatonic), shape: pentatonicIn(neck, pentatonic, zone) };
  }
}

const tooShort = () =>
  refuse({ code: 'out_of_range', message: 'This neck is too short for a box.', path: 'neck' });

export function answerZones(
  request: z.infer<typeof zonesRequest>,
): EngineResult<z.infer<typeof zonesAnswer>> {
  const chart = requestedChart(request);
  if (!chart.ok) return chart;
  const neck = requestedNeck(request.neck);
  if (!neck.ok) return neck;
  const off = refuseZone(neck.value, request.zone);
  if (off) return off;
  const reading = readHarmony(chart.value);
  const key = reading.key.key;
  const tonic = key ? signatureTonic(key) : chart.value.chords[0]?.chord.root;
  if (tonic === undefined) return accept({ zones: [] });
  const zones = request.zone ? [request.zone] : zonesOf(neck.value, tonic);
  const answered: z.infer<typeof zonesAnswer>['zones'] = [];
  for (const zone of zones) {
    const chords: (typeof answered)[number]['chords'] = [];
    for (const { index, chord } of chart.value.chords) {
      const mode = modeAt(chart.value, reading, index);
      const laid = mode && layOut(neck.value, chord, mode, request.collections, zone);
      if (!laid?.shape) return tooShort();
      const { shape, name } = laid;
      const describe = describePlace(chord.root);
      chords.push({
        index,
        name,
        box: shape.box,
        low: shape.low,
        high: shape.high,
        notes: shape.places.map(describe),
        outside: shape.outside.map(describe),
      });
    }
    answered.push({ low: zone.low, high: zone.high, chords });
  }
  return accept({ zones: answered });
}

export function answerTriads(
  request: z.infer<typeof triadsRequest>,
): EngineResult<z.infer<typeof triadsAnswer>> {
  const chart = requestedChart(request);
  if (!chart.ok) return chart;
  const neck = requestedNeck(request.neck);
  if (!neck.ok) return neck;
  const strings = [...request.strings].sort((a, b) => a - b);
  const [first = 0] = strings;
  const neighbours = strings.every((string, offset) => string === first + offset);
  if (!neighbours || first < 1 || (strings.at(-1) ?? 0) > stringCount(neck.value)) {
    const message = 'Triads lie on three neighbouring strings of the neck, like 2, 3 and 4.';
    return refuse({ code: 'out_of_range', message, path: 'strings' });
  }
  const chords = chart.value.chords.map(({ chord }) => chord);
  const steps = triadPath(neck.value, chords, {
    strings,
    path: request.path,
    start: request.start?.inversion,
  });
  return accept({
    steps: steps.map(({ index, inversion, places, held, moves, turned }) => ({
      index,
      inversion,
      notes: places.map(describePlace(chords[index]?.root ?? (0 as Note))),
      held: held.map(noteName),
      moves: moves.map(({ note, to, halfSteps }) => ({
        note: noteName(note),
        to: noteName(to),
        semitones: halfSteps,
      })),
      ...(turned ? { turned } : {}),
    })),
  });
}

function requestedCollection(text: string | undefined, chord: Chord): Collection | null {
  if (text === undefined) return modeFor({ chord, next: null, key: null, blues: false });
  const kind = findCollectionKind(text);
  return kind ? { root: chord.root, kind } : parseCollection(text);
}

export function answerHomes(
  request: z.infer<typeof homesRequest>,
): EngineResult<z.infer<typeof homesAnswer>> {
  const chord = parseChord(request.chord.trim());
  if (!chord) {
    const message = explainUnreadable(request.chord.trim());
    return refuse({ code: 'invalid_chart', message, line: 1, column: 1, token: request.chord });
  }
  const neck = requestedNeck(request.neck);
  if (!neck.ok) return neck;
  const scale = requestedCollection(request.collection, chord);
  if (!scale) {
    const message = `“${request.collection ?? ''}” is not a collection Corvel knows.`;
    return refuse({ code: 'unknown_collection', message });
  }
  const describe = describePlace(chord.root);
  return accept({
    homes: homesOf(neck.value, chord, scale).map(({ string, grip, arpeggio, scale: notes }) => ({
      string,
      grip: { kind: grip.kind, notes: grip.places.map(describe) },
      arpeggio: arpeggio.map(describe),
      scale: notes.map(describe),
    })),
  });
}
