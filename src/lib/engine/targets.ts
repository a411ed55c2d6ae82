/** `route`, `into` and `exercise`: the line through the changes. */
import type { z } from 'zod';
import { type Chart, nextChange } from '$core/chart/form';
import { makeExercise } from '$core/exercises/exercises';
import { signatureTonic } from '$core/harmony/keys';
import { readHarmony } from '$core/harmony/reading';
import type { Intent } from '$core/lenses/lens';
import { defaultMaterial, type Material } from '$core/lenses/material';
import { proposeIntents } from '$core/lenses/styles';
import { at } from '$core/lists';
import { type Neck, type Place, stringCount, type Zone } from '$core/neck/neck';
import { firstZone, zonesOf } from '$core/neck/zones';
import { degreeName } from '$core/notes/degrees';
import { noteName } from '$core/notes/notes';
import { degreeOf } from '$core/phrases/played';
import { waysInto } from '$core/targets/approach';
import { solveRoutes } from '$core/targets/route';
import { requestedChart } from './chart';
import { requestedChoices } from './lenses';
import { refuseZone, requestedNeck } from './neck';
import { accept, type EngineResult, refuse } from './refusals';
import type {
  exerciseAnswer,
  exerciseRequest,
  intoAnswer,
  intoRequest,
  routeAnswer,
  routeRequest,
} from './targetSchemas';

/** Everything about a chart that targets are chosen by. */
interface Setting {
  readonly chart: Chart;
  readonly neck: Neck;
  readonly materials: readonly Material[];
  readonly intents: readonly Intent[];
  /** The zones of the chart's key, and the one to open in. */
  readonly zones: readonly Zone[];
  readonly opening: Zone;
}

function requestedSetting(
  request: Pick<
    z.infer<typeof routeRequest>,
    'chart' | 'key' | 'neck' | 'choices' | 'intents' | 'zone'
  >,
): EngineResult<Setting> {
  const chart = requestedChart(request);
  if (!chart.ok) return chart;
  const neck = requestedNeck(request.neck);
  if (!neck.ok) return neck;
  const zone = refuseZone(neck.value, request.zone);
  if (zone) return zone;
  const choices = requestedChoices(chart.value, request.choices);
  if (!choices.ok) return choices;
  const { chords } = chart.value;
  if (request.intents && request.intents.length > chords.length) {
    const message = `There are ${request.intents.length} intents for ${chords.length} chords.`;
    return refuse({ code: 'out_of_range', message, path: 'intents' });
  }
  const reading = readHarmony(chart.value);
  const proposed = proposeIntents(chart.value, reading, 'chord-tones');
  const { key } = reading.key;
  const tonic = key ? signatureTonic(key) : (chords[0]?.chord.root ?? null);
  return accept({
    chart: chart.value,
    neck: neck.value,
    materials: chords.map(({ index, chord }) => choices.value[index] ?? defaultMaterial(chord)),
    intents: chords.map(({ index }) => request.intents?.[index] ?? at(proposed, index)),
    zones: tonic === null ? [] : zonesOf(neck.value, tonic),
    opening:
      tonic === null
        ? { low: neck.value.capo, high: Math.min(neck.value.frets, neck.value.capo + 4) }
        : firstZone(neck.value, tonic),
  });
}

const offNeck = (neck: Neck, { string, fret }: Place): boolean =>
  string < 1 || string > stringCount(neck) || fret < neck.capo || fret > neck.frets;

const noChord = (chart: Chart, path: string) =>
  refuse({
    code: 'out_of_range',
    message:
      chart.chords.length === 0
        ? 'This chart has no chords.'
        : `This chart has the chords 0 to ${chart.chords.length - 1}.`,
    path,
  });

/** More would keep the server from everyone else for seconds. */
const ROUTE_CHORDS = 1_024;

export function answerRoute(
  request: z.infer<typeof routeRequest>,
): EngineResult<z.infer<typeof routeAnswer>> {
  const setting = requestedSetting(request);
  if (!setting.ok) return setting;
  const { chart, neck, materials, intents } = setting.value;
  for (const [place, pin] of request.pins.entries()) {
    if (!chart.chords[pin.index]) return noChord(chart, `pins.${place}.index`);
    if (offNeck(neck, pin)) {
      const message = 'A pin lies on a string and a fret of the neck.';
      return refuse({ code: 'out_of_range', message, path: `pins.${place}` });
    }
  }
  if (chart.chords.length > ROUTE_CHORDS) {
    const message = `A route is solved through ${ROUTE_CHORDS} chords at the most; this form has ${chart.chords.length}.`;
    return refuse({ code: 'out_of_range', message, path: 'chart' });
  }
  const pins = new Map(request.pins.map(({ index, string, fret }) => [index, { string, fret }]));
  const routes = solveRoutes({
    neck,
    chords: chart.chords.map(({ index, chord }) => ({
      chord,
      intent: at(intents, index),
      material: at(materials, index),
      pin: pins.get(index) ?? null,
    })),
    prefer: request.prefer,
    zone: request.zone ?? null,
    contour: request.contour ?? null,
    loop: request.loop,
    count: request.alternatives,
  });
  return accept({
    routes: routes.map(({ cost, stops, parts }) => ({
      cost,
      stops: stops.map(({ index, string, fret, note, midi, degree, halfSteps, sentence }) => ({
        ...{ index, string, fret, midi, sentence },
        note: noteName(note),
        degree: degreeName(degree),
        semitones: halfSteps,
      })),
      parts,
    })),
    exact: true,
  });
}

export function answerInto(
  request: z.infer<typeof intoRequest>,
): EngineResult<z.infer<typeof intoAnswer>> {
  const chart = requestedChart(request);
  if (!chart.ok) return chart;
  const neck = requestedNeck(request.neck);
  if (!neck.ok) return neck;
  const { index, string, fret } = request;
  const { chords } = chart.value;
  if (!chords[index]) return noChord(chart.value, 'index');
  if (offNeck(neck.value, { string, fret })) {
    const message = `The note lies on strings 1 to ${stringCount(neck.value)} and frets ${neck.value.capo} to ${neck.value.frets}.`;
    const path = string < 1 || string > stringCount(neck.value) ? 'string' : 'fret';
    return refuse({ code: 'out_of_range', message, path });
  }
  const next = chords[nextChange(chart.value, index) ?? -1];
  if (!next) return accept({ ways: [] });
  return accept({
    ways: waysInto(neck.value, { string, fret }, next.chord).map((way) => ({
      string: way.string,
      fret: way.fret,
      note: noteName(way.note),
      degree: degreeName(way.degree),
      semitones: way.halfSteps,
      ...(way.approach.length > 0
        ? {
            approach: way.approach.map((one) => ({
              string: one.string,
              fret: one.fret,
              note: noteName(one.note),
            })),
          }
        : {}),
    })),
  });
}

export function answerExercise(
  request: z.infer<typeof exerciseRequest>,
): EngineResult<z.infer<typeof exerciseAnswer>> {
  const setting = requestedSetting(request);
  if (!setting.ok) return setting;
  const { chart, neck, materials, intents, zones, opening } = setting.value;
  const { kind, subdivision, prefer, extent, seed, strings, index } = request;
  if (extent !== 'whole' && !chart.chords[index]) return noChord(chart, 'index');
  if (strings.some((string) => string < 1 || string > stringCount(neck))) {
    const message = `Strings are numbered 1 to ${stringCount(neck)}.`;
    return refuse({ code: 'out_of_range', message, path: 'strings' });
  }
  const { title, goal, passage, warnings } = makeExercise({
    ...{ chart, kind, subdivision, neck, materials, intents, prefer, extent, seed, strings, zones },
    zone: request.zone ?? opening,
    pins: {},
    from: index,
  });
  return accept({
    title,
    goal,
    notes: passage.notes.flatMap(({ beat, beats, string, fret, note, chord }) => {
      const played = chart.chords[chord ?? -1];
      if (!played) return [];
      const degree = degreeName(degreeOf(played.chord, note));
      return [
        { ...{ beat, beats, string, fret }, note: noteName(note), degree, chord: played.index },
      ];
    }),
    warnings: [...warnings],
  });
}
