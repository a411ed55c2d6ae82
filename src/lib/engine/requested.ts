/** What requests ask for, read from their text: a chart, a neck, choices, and what targets are chosen by. */
import type { z } from 'zod';
import { type Chart, makeNeck, type Neck, type Zone } from 'corvel-core';
import { readChart, zoneTonic } from '$core/chart/form';
import { readHarmony } from '$core/harmony/reading';
import { type Key, parseKey } from '$core/keys/keys';
import type { Intent } from '$core/lenses/lens';
import { type Material, defaultMaterial, parseMaterial } from '$core/lenses/material';
import { firstOption, lensContexts } from '$core/lenses/options';
import { proposeIntents } from '$core/lenses/styles';
import { at } from '$core/lists';
import type { LickNote } from '$core/licks/sounding';
import { inOrder } from '$core/phrases/techniques';
import { type Place, stringCount } from '$core/neck/neck';
import { firstZone, zonesOf } from '$core/neck/zones';
import { type EngineResult, accept, refuse, refuseChart } from './refusals';
import type { neckRequest, playedNotes } from './shapes';
import { counted } from '$core/words';
/** The chart of a request, read against the key the request states, if any. */
export function requestedChart(request: {
  readonly chart: string;
  readonly key?: string | undefined;
}): EngineResult<Chart> {
  let key: Key | null = null;
  if (request.key !== undefined) {
    key = parseKey(request.key);
    if (key === null) {
      const message = `“${request.key}” is not a key: write it like Eb, F#m or D dorian.`;
      return refuse({ code: 'invalid_request', message, path: 'key' });
    }
  }
  const result = readChart(request.chart, key === null ? {} : { key });
  if (result.ok) return accept(result.chart);
  const [problem] = result.problems;
  return problem
    ? refuseChart(problem)
    : refuse({ code: 'invalid_chart', message: 'This chart cannot be read.' });
}

export function requestedNeck(
  request: z.infer<typeof neckRequest> | undefined,
): EngineResult<Neck> {
  const result = makeNeck(request ?? {});
  if (result.ok) return accept(result.neck);
  const { message, field, kind } = result;
  return refuse({
    code: kind === 'unreadable' ? 'invalid_request' : 'out_of_range',
    message,
    path: `neck.${field}`,
  });
}

/** The chart of a request and the neck it is laid on. */
export function requestedOnNeck(
  request: Parameters<typeof requestedChart>[0] & {
    readonly neck?: z.infer<typeof neckRequest> | undefined;
  },
): EngineResult<{ readonly chart: Chart; readonly neck: Neck }> {
  const chart = requestedChart(request);
  if (!chart.ok) return chart;
  const neck = requestedNeck(request.neck);
  return neck.ok ? accept({ chart: chart.value, neck: neck.value }) : neck;
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

/** What a request plays over each chord; null where it says nothing. */
export function requestedChoices(
  chart: Chart,
  names: readonly (string | null)[] | undefined,
): EngineResult<readonly (Material | null)[]> {
  if (names && names.length > chart.chords.length) {
    const message = `${counted(names.length, 'choice')} for ${counted(chart.chords.length, 'chord')}: give one for each.`;
    return refuse({ code: 'out_of_range', message, path: 'choices' });
  }
  const choices: (Material | null)[] = [];
  for (const [index, name] of (names ?? []).entries()) {
    const material = name === null ? null : parseMaterial(name);
    if (name !== null && material === null) {
      const message = `“${name}” is nothing to play: write it like Eb major pentatonic, Cm7 arpeggio or Bb triad.`;
      return refuse({ code: 'unknown_collection', message, path: `choices.${index}` });
    }
    choices.push(material);
  }
  return accept(chart.chords.map(({ index }) => choices[index] ?? null));
}

/** Everything about a chart that targets are chosen by. */
export interface Setting {
  readonly chart: Chart;
  readonly key: Key | null;
  readonly neck: Neck;
  readonly materials: readonly Material[];
  readonly intents: readonly Intent[];
  /** The zones of the chart's key, and the one to open in. */
  readonly zones: readonly Zone[];
  readonly opening: Zone;
}

interface SettingRequest {
  readonly chart: string;
  readonly key?: string | undefined;
  readonly neck?: z.infer<typeof neckRequest> | undefined;
  readonly choices?: readonly (string | null)[] | undefined;
  readonly intents?: readonly (Intent | null)[] | undefined;
  readonly zone?: Zone | undefined;
}

export function requestedSetting(request: SettingRequest): EngineResult<Setting> {
  const asking = requestedOnNeck(request);
  if (!asking.ok) return asking;
  const { chart, neck } = asking.value;
  const zone = refuseZone(neck, request.zone);
  if (zone) return zone;
  const choices = requestedChoices(chart, request.choices);
  if (!choices.ok) return choices;
  const { chords } = chart;
  if (request.intents && request.intents.length > chords.length) {
    const message = `${counted(request.intents.length, 'intent')} for ${counted(chords.length, 'chord')}: give one for each.`;
    return refuse({ code: 'out_of_range', message, path: 'intents' });
  }
  const reading = readHarmony(chart);
  const proposed = proposeIntents(chart, reading, 'chord-tones');
  const intents = chords.map(({ index }) => request.intents?.[index] ?? at(proposed, index));
  const contexts = lensContexts(chart, reading);
  const { key } = reading.key;
  const tonic = zoneTonic(chart, key);
  return accept({
    chart,
    neck,
    materials: chords.map(({ index, chord }) => {
      const context = contexts[index];
      const first = context ? firstOption(context) : null;
      return choices.value[index] ?? first?.material ?? defaultMaterial(chord);
    }),
    intents,
    zones: tonic === null ? [] : zonesOf(neck, tonic),
    key,
    opening:
      tonic === null
        ? { low: neck.capo, high: Math.min(neck.frets, neck.capo + 4) }
        : firstZone(neck, tonic),
  });
}

export const offNeck = (neck: Neck, { string, fret }: Place): boolean =>
  string < 1 || string > stringCount(neck) || fret < neck.capo || fret > neck.frets;

export const noChord = (chart: Chart, path: string) =>
  refuse({
    code: 'out_of_range',
    message:
      chart.chords.length === 0
        ? 'This chart has no chords.'
        : `This chart has the chords 0 to ${chart.chords.length - 1}.`,
    path,
  });

/** The played notes of a request as they stand on a neck, in the order given. */
export function requestedNotes(
  neck: Neck,
  notes: z.infer<typeof playedNotes>,
  path = 'notes',
): EngineResult<readonly LickNote[]> {
  for (const [index, note] of notes.entries()) {
    if (!offNeck(neck, note)) continue;
    const message = `String ${note.string}, fret ${note.fret} is not on this neck: it has ${stringCount(neck)} strings and frets ${neck.capo} to ${neck.frets}.`;
    return refuse({ code: 'out_of_range', message, path: `${path}.${index}` });
  }
  return accept(
    notes.map(({ techniques, ...note }) => ({ ...note, techniques: inOrder(techniques ?? []) })),
  );
}
