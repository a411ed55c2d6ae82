/** The whole reading of a chart: key, function of every chord, cadences, form, speed. */
import { DEFAULT_TEMPO } from '../time/tempo';
import { type Chart, type PlayedChord, writtenKeyAt } from '../chart/form';
import { dominantsAtHome, findBlues } from './blues';
import { type Cadence, findCadences } from './cadences';
import { type Change, changesOf, neighbour } from './changes';
import { estimateKey, type KeyEstimate } from './estimate';
import { bluesForm, nameForm } from './forms';
import { type IdiomReading, idiomOf } from './idiom';
import { type Key, signatureTonic } from '../keys/keys';
import { isDiatonic } from './membership';
import { localKeys } from './moments';
import { writeUsualNumeral } from '../keys/numerals';
import { type FastStretch, fastStretches } from './rhythm';
import { type Role, roleOf } from './roles';

/** What a chord does in its key. */
export interface ChordReading {
  readonly key: Key | null;
  /** The key of a local tonic, where one is home for the moment. */
  readonly moment: Key | null;
  /** Null where the chart has no single key. */
  readonly numeral: string | null;
  readonly diatonic: boolean | null;
  readonly role: Role | null;
  /** Index of the first cadence of {@link Reading.cadences} that holds the chord. */
  readonly cadence: number | null;
}

/** Bars `from` to `to` (from 1) in one key. */
export interface KeyArea {
  readonly from: number;
  readonly to: number;
  readonly key: Key;
  /** Heard in the chords of a section that states no key: a suggestion, the numerals ignore it. */
  readonly heard: boolean;
}

/** A chart’s harmony: keys, areas, cadences, and each chord’s numeral and role. */
export interface Reading {
  readonly key: KeyEstimate;
  readonly areas: readonly KeyArea[];
  /** One for each chord of the chart, in order. */
  readonly chords: readonly ChordReading[];
  readonly cadences: readonly Cadence[];
  readonly form: string | null;
  readonly blues: boolean;
  readonly idiom: IdiomReading;
  readonly fast: readonly FastStretch[];
}

function chartKey(chart: Chart): KeyEstimate {
  const { key } = chart.source;
  return key ? { key, confidence: 1, given: true, likeliest: [] } : estimateKey(chart);
}

/** A section must be as clearly in another key as this, and as long, to be heard in it. */
const HEARD = { confidence: 0.6, bars: 4 } as const;

/** The key a section without one of its own is heard in, where that is not the chart's. */
function heardKey(chart: Chart, section: number, home: Key | null): Key | null {
  const { sections } = chart.source;
  if (sections.length < 2 || sections[section]?.key) return null;
  const bars = chart.bars.filter((bar) => bar.section === section);
  if (bars.length < HEARD.bars) return null;
  const inside = new Set(bars.map(({ number }) => number));
  const { key, confidence } = estimateKey({
    chords: chart.chords.filter(({ bar }) => inside.has(bar)),
  });
  if (key === null || confidence < HEARD.confidence) return null;
  const related = home !== null && signatureTonic(home) === signatureTonic(key);
  return related ? null : key;
}

function keyAreas(chart: Chart, home: Key | null): readonly KeyArea[] {
  const areas: KeyArea[] = [];
  const heard = chart.source.sections.map((_, section) => heardKey(chart, section, home));
  for (const bar of chart.bars) {
    const suggested = heard[bar.section] ?? null;
    const key = suggested ?? chart.source.sections[bar.section]?.key ?? home;
    if (key === null) continue;
    const area = { from: bar.number, to: bar.number, key, heard: suggested !== null };
    const last = areas.at(-1);
    const continues =
      last?.to === bar.number - 1 &&
      last.heard === area.heard &&
      last.key.tonic === key.tonic &&
      last.key.mode === key.mode;
    if (last && continues) areas[areas.length - 1] = { ...last, to: bar.number };
    else areas.push(area);
  }
  return areas;
}

function readChord(
  played: PlayedChord,
  changes: readonly Change[],
  change: number,
  {
    key,
    moment,
    blues,
  }: { readonly key: Key | null; readonly moment: Key | null; readonly blues: boolean },
): Omit<ChordReading, 'cadence'> {
  if (key === null) return { key, moment, numeral: null, diatonic: null, role: null };
  const { chord } = played;
  if (isDiatonic(chord, key)) {
    return { key, moment, numeral: writeUsualNumeral(chord, key), diatonic: true, role: null };
  }
  const around = (offset: number) => neighbour(changes, change, offset)?.chord ?? null;
  const role = roleOf({
    chord,
    previous: around(-1),
    next: around(1),
    afterNext: around(2),
    key,
    moment,
    blues,
  });
  return { key, moment, numeral: role.numeral, diatonic: false, role };
}

/** A blues by its twelve bars, or by dominants standing at home on I and IV. */
function isBlues(chart: Chart, changes: readonly Change[], key: Key | null) {
  if (key === null || changes.length === 0) return false;
  if (bluesForm(chart, key) !== null) return true;
  const found = findBlues(changes);
  if (found !== null) return (found.tonic - key.tonic) % 12 === 0;
  const meant = isBluesFeel(chart) || chart.source.key !== null || chart.source.idiom === 'blues';
  return meant && dominantsAtHome(changes, key);
}

/** Whether what the chart says of its feel is a blues or a shuffle. */
const isBluesFeel = ({ source }: Chart): boolean =>
  /\b(?:blues|shuffle)\b/iu.test(source.feel ?? '');

/**
 * Reads the harmony of a chart. The key it states wins over any estimate.
 *
 * @example readHarmony(read('| Dm7 | G7 | Cmaj7 |')).cadences.map(({ kind }) => kind); // ["ii-V-I major"]
 */
export function readHarmony(chart: Chart): Reading {
  const changes = changesOf(chart.chords);
  const key = chartKey(chart);
  const form = nameForm(chart, key.key);
  const blues = isBlues(chart, changes, key.key);
  const changeOf = new Map<number, number>();
  changes.forEach((change, index) => {
    for (let chord = change.first; chord <= change.last; chord++) changeOf.set(chord, index);
  });
  const keyAt = (index: number): Key | null => {
    const played = chart.chords[index];
    return played ? (writtenKeyAt(chart, played) ?? key.key) : key.key;
  };
  const cadences = findCadences(changes, keyAt);
  const moments = localKeys(changes, keyAt);
  const chords = chart.chords.map((played) => {
    const change = changeOf.get(played.index) ?? 0;
    const cadence = cadences.findIndex(
      ({ from, to }) => from <= played.index && played.index <= to,
    );
    return {
      ...readChord(played, changes, change, {
        key: keyAt(played.index),
        moment: moments[change] ?? null,
        blues,
      }),
      cadence: cadence < 0 ? null : cadence,
    };
  });
  return {
    key,
    areas: keyAreas(chart, key.key),
    chords,
    cadences,
    form,
    blues,
    idiom: idiomOf(chart, changes, { key: key.key, blues }),
    fast: fastStretches(chart.chords, chart.source.tempo ?? DEFAULT_TEMPO, keyAt),
  };
}
